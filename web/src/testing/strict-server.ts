import {
  applyOps,
  authorityProblems,
  readEdit,
  sourceProblems,
  stamped,
  type Edit,
  type EditAnswer,
  type JobDocument,
  type JournalEntry,
  type Sender,
} from '#core'

/** A server in memory that judges every edit as the real one does, and tells what it did not take. */
export interface StrictServer {
  readonly head: () => JobDocument
  readonly journal: () => readonly JournalEntry[]
  /** What was refused, with why; a page's own acts must never come to that. */
  readonly refused: readonly string[]
  take(edits: readonly unknown[]): { answers: EditAnswer[]; revision: number }
}

export function strictServer(doc: JobDocument, who: Sender): StrictServer {
  let head = doc
  const journal: JournalEntry[] = []
  const refused: string[] = []

  function takeOne(input: unknown): EditAnswer {
    const { id = '', kind = '' } = input as Partial<Edit>
    const known = journal.find((entry) => entry.edit.id === id)
    if (known) return { id, outcome: 'taken', revision: known.revision }
    const no = (problems: readonly { path: string; message: string }[]): EditAnswer => {
      refused.push(`${kind}: ${problems.map(({ path, message }) => `${path} ${message}`).join('; ')}`)
      return { id, outcome: 'invalid', problems: [...problems] }
    }
    const read = readEdit(input, head)
    if (!read.ok) return no(read.code === 'newer' ? [] : read.problems)
    const [edit] = read.edits
    if (!edit) return no([])
    const undone = journal.find((entry) => entry.edit.id === (edit.undoes ?? edit.redoes))?.edit ?? null
    const problems = [...authorityProblems(edit, who, undone), ...sourceProblems(head, edit)]
    if (problems.length > 0) return no(problems)
    const now = new Date()
    const mine = stamped(edit, { who, clocks: { now, behindMs: 0 }, undone })
    const result = applyOps(head, mine.ops)
    if (!result.ok) return no([{ path: 'ops', message: JSON.stringify(result.conflict) }])
    head = result.doc
    const revision = journal.length + 1
    journal.push({ revision, edit: { ...mine, ops: result.took }, takenAt: now.toISOString() })
    return { id, outcome: 'taken', revision }
  }

  return {
    head: () => head,
    journal: () => journal,
    refused,
    take(edits) {
      const answers: EditAnswer[] = []
      for (const edit of edits) {
        const answer = takeOne(edit)
        answers.push(answer)
        if (answer.outcome !== 'taken') break
      }
      return { answers, revision: journal.length }
    },
  }
}
