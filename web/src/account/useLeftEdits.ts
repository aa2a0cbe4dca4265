import { ref } from 'vue'
import type { EditsAnswer } from '#core'
import { api, ApiError } from '../line/api.ts'
import { deviceQueue } from '../line/device-queue.ts'
import { batchOf } from '../line/line.ts'
import type { LeftEdits } from '../line/queue.ts'

/** What people who left the firm had not sent from this device: an owner hands it in, or throws it away knowingly. */
export function useLeftEdits(firm: () => string) {
  const left = ref<readonly LeftEdits[]>([])
  const said = ref('')

  async function look(people: readonly string[]): Promise<void> {
    left.value =
      people.length === 0
        ? []
        : await deviceQueue()
            .left(firm(), people)
            .catch(() => [])
  }

  /** How many changes of a person wait here. */
  function countOf(person: string): number {
    return left.value.reduce((sum, one) => sum + (one.person === person ? one.edits.length : 0), 0)
  }

  /** Hands a person's changes in, job by job, in their order; one that is not taken keeps those behind it here. */
  async function handIn(person: string): Promise<void> {
    let done = 0
    const refused: string[] = []
    for (const group of left.value.filter((one) => one.person === person)) {
      const trouble = await handInJob(group, () => (done += 1))
      if (trouble !== '') refused.push(trouble)
    }
    const handed = done === 1 ? 'One change is handed in' : `${done} changes are handed in`
    said.value = [`${handed}.`, ...new Set(refused)].join(' ')
  }

  async function handInJob({ person, job, edits }: LeftEdits, taken: () => void): Promise<string> {
    const owner = { firm: firm(), person, job }
    let rest = [...edits]
    while (rest.length > 0) {
      const batch = batchOf(rest)
      const { answers, trouble } = await send(job, person, batch)
      for (const answer of answers)
        if (answer.outcome === 'taken') {
          await deviceQueue().remove(owner, answer.id)
          taken()
        }
      if (trouble !== '') return trouble
      rest = rest.slice(batch.length)
    }
    return ''
  }

  /** Throws a person's changes away. */
  async function discard(person: string): Promise<void> {
    for (const { job, edits } of left.value.filter((one) => one.person === person))
      for (const edit of edits) await deviceQueue().remove({ firm: firm(), person, job }, edit.id)
    said.value = 'They are thrown away.'
  }

  return { left, said, look, countOf, handIn, discard }
}

async function send(
  job: string,
  person: string,
  edits: LeftEdits['edits'],
): Promise<{ answers: EditsAnswer['answers']; trouble: string }> {
  try {
    const sentAt = new Date().toISOString()
    const body = { person, edits, sentAt }
    return {
      answers: (await api<EditsAnswer>('POST', `/api/jobs/${job}/handed-in`, body)).answers,
      trouble: '',
    }
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    const answers = Array.isArray(error.body.answers) ? (error.body.answers as EditsAnswer['answers']) : []
    return { answers, trouble: `Not all of it: ${error.message}` }
  }
}
