import {
  Catalogue,
  findingChanges,
  jobInfo,
  judge,
  readEdit,
  readJobFile,
  waiverTrouble,
  writeJobFile,
  zoneScheduleCsv,
  SCHEMA,
  recordsOf,
  sameJson,
  serialsOf,
  type CatalogueEntry,
  type Edit,
  type HouseRules,
  type JobDocument,
  type JournalEntry,
  type Problem,
} from '#core'
import { schedulePdf } from '../documents/schedule-pdf.ts'
import type { Account } from '../db/people.ts'
import type { JobHead, JobListRow, NamedConflict } from '../db/jobs.ts'
import type { Store } from '../db/store.ts'
import { AppError } from '../http/errors.ts'
import { summarise, type JobSummary } from './summary.ts'

/** The answer to one edit of a batch. */
export type EditAnswer =
  | { readonly id: string; readonly outcome: 'taken'; readonly revision: number }
  | { readonly id: string; readonly outcome: 'conflict'; readonly conflict: NamedConflict }
  | { readonly id: string; readonly outcome: 'invalid'; readonly problems: readonly Problem[] }

export interface OpenedJob extends JobHead {
  readonly entries: readonly CatalogueEntry[]
}

export interface ListedJob {
  readonly id: string
  readonly name: string
  readonly address: string
  readonly changedAt: string
  readonly summary: JobSummary
}

/** What people do with the jobs of their firm. */
export interface Jobs {
  list(who: Account, text: string): Promise<ListedJob[]>
  open(who: Account, jobId: string): Promise<OpenedJob>
  journal(who: Account, jobId: string, since: number): Promise<JournalEntry[]>
  /** Takes edits in order; stops at the first that is not taken. */
  take(
    who: Account,
    jobId: string,
    edits: readonly unknown[],
    create: boolean,
  ): Promise<{ answers: EditAnswer[]; revision: number }>
  elsewhere(who: Account, jobId: string): Promise<{ serial: string; job: string }[]>
  /** The job as one open file. */
  file(who: Account, jobId: string): Promise<{ name: string; text: string }>
  /** The zone schedule, as CSV or as PDF. */
  schedule(
    who: Account,
    jobId: string,
    form: 'csv' | 'pdf',
  ): Promise<{ name: string; content: string | Buffer }>
  /** Which of the firm's latest jobs would get or lose findings under other house rules; nothing is saved. */
  underRules(
    who: Account,
    rules: HouseRules,
  ): Promise<{ jobs: JobUnderRules[]; judged: number; more: boolean }>
  /** Begins a job from a job file; the entries it carries are kept for this firm. */
  importFile(
    who: Account,
    jobId: string,
    editId: string,
    file: unknown,
  ): Promise<{ answers: EditAnswer[]; revision: number }>
}

/** A job whose findings other house rules would change, with the findings that would come and go. */
export interface JobUnderRules {
  readonly id: string
  readonly name: string
  readonly come: readonly string[]
  readonly go: readonly string[]
}

/** Jobs that a preview of house rules judges, the latest first. */
const MOST_JUDGED = 200

export function createJobs(store: Store, now: () => Date): Jobs {
  async function head(who: Account, jobId: string): Promise<JobHead> {
    const found = await store.jobsOf(who.firmId).head(jobId)
    if (!found) throw new AppError('NOT_FOUND', 'There is no such job in this firm.')
    return found
  }

  async function pinned(who: Account, document: JobDocument): Promise<CatalogueEntry[]> {
    return store.catalogueOf(who.firmId).byHashes(recordsOf(document, 'pin').map((pin) => pin.hash))
  }

  async function freshSummary(who: Account, row: JobListRow): Promise<JobSummary> {
    if (row.summaryRevision === row.revision) return JSON.parse(row.summary) as JobSummary
    const current = await head(who, row.id)
    return summaryNow(who, row.id, current)
  }

  async function summaryNow(who: Account, jobId: string, current: JobHead): Promise<JobSummary> {
    const { rules } = await store.settingsOf(who.firmId).houseRules()
    const catalogue = new Catalogue(await pinned(who, current.document))
    const summary = summarise(current.document, catalogue, rules, now())
    await store.jobsOf(who.firmId).keepSummary(jobId, current.revision, summary)
    return summary
  }

  async function unknownPins(who: Account, edit: Edit): Promise<Problem[]> {
    const pins = edit.ops.flatMap((op, index) =>
      op.op === 'add' && op.record.type === 'pin' ? [{ pin: op.record, index }] : [],
    )
    if (pins.length === 0) return []
    const known = await store.catalogueOf(who.firmId).known(pins.map(({ pin }) => pin.hash))
    return pins
      .filter(({ pin }) => known.get(pin.hash) !== pin.entry)
      .map(({ pin, index }) => ({
        path: `ops.${index}.record.hash`,
        message: `there is no catalogue entry ${pin.entry} of this hash here; load the catalogue again and choose it there`,
      }))
  }

  /** The edit that this one takes back or brings again, as the journal has it. */
  async function takenBack(who: Account, jobId: string, edit: Edit): Promise<Edit | null> {
    const id = edit.undoes ?? edit.redoes
    return id === undefined ? null : store.jobsOf(who.firmId).editOf(jobId, id)
  }

  async function takeOne(
    who: Account,
    jobId: string,
    input: unknown,
    how: { create: boolean; imported?: boolean },
  ): Promise<EditAnswer> {
    const { create } = how
    const read = readEdit(input)
    const id = read.ok ? read.edit.id : idOf(input)
    if (!read.ok) return { id, outcome: 'invalid', problems: read.problems }
    if (read.edit.schema !== SCHEMA)
      return {
        id,
        outcome: 'invalid',
        problems: [
          { path: 'schema', message: `is ${read.edit.schema}; this server takes ${SCHEMA}: reload the page` },
        ],
      }
    const edit: Edit = { ...read.edit, by: who.name }
    const problems = [
      ...(how.imported
        ? []
        : [...othersNames(who, edit, await takenBack(who, jobId, edit)), ...barredWaivers(who, edit)]),
      ...(await unknownPins(who, edit)),
    ]
    if (problems.length > 0) return { id, outcome: 'invalid', problems }
    const starts = edit.ops.some((op) => op.op === 'add' && op.record.type === 'job')
    if (create && !starts)
      return {
        id,
        outcome: 'invalid',
        problems: [{ path: 'ops', message: 'the first edit of a job must add job:main' }],
      }
    const taken = await store.jobsOf(who.firmId).take(jobId, edit, now(), create)
    if (taken.outcome === 'no-job') throw new AppError('NOT_FOUND', 'There is no such job in this firm.')
    return taken.outcome === 'conflict'
      ? { id, outcome: 'conflict', conflict: taken.conflict }
      : { id, outcome: 'taken', revision: taken.entry.revision }
  }

  return {
    async list(who, text) {
      const rows = await store.jobsOf(who.firmId).list(text.trim(), 200)
      const listed: ListedJob[] = []
      for (const row of rows) {
        const { id, name, address, changedAt } = row
        listed.push({ id, name, address, changedAt, summary: await freshSummary(who, row) })
      }
      return listed
    },
    async open(who, jobId) {
      const current = await head(who, jobId)
      return { ...current, entries: await pinned(who, current.document) }
    },
    async journal(who, jobId, since) {
      await head(who, jobId)
      return store.jobsOf(who.firmId).editsSince(jobId, since)
    },
    async take(who, jobId, edits, create) {
      const answers: EditAnswer[] = []
      for (const input of edits) {
        const answer = await takeOne(who, jobId, input, { create })
        answers.push(answer)
        if (answer.outcome !== 'taken') break
      }
      const revision = answers.reduce(
        (highest, answer) => (answer.outcome === 'taken' ? Math.max(highest, answer.revision) : highest),
        0,
      )
      return { answers, revision }
    },
    async file(who, jobId) {
      const current = await head(who, jobId)
      const text = writeJobFile(jobId, current.document, await pinned(who, current.document))
      return { name: fileName(jobInfo(current.document).name, 'json'), text }
    },
    async schedule(who, jobId, form) {
      const { document } = await head(who, jobId)
      const catalogue = new Catalogue(await pinned(who, document))
      const { rules } = await store.settingsOf(who.firmId).houseRules()
      const content =
        form === 'csv'
          ? zoneScheduleCsv(document, catalogue)
          : await schedulePdf(document, catalogue, rules, now())
      return { name: fileName(`${jobInfo(document).name} zones`, form), content }
    },
    async importFile(who, jobId, editId, file) {
      const read = readJobFile(file)
      if (!read.ok)
        throw new AppError('INVALID', 'This job file was not taken; nothing was changed.', read.problems)
      await store.catalogueOf(who.firmId).add(read.entries, false)
      const edit = {
        id: editId,
        kind: 'job.import',
        schema: SCHEMA,
        by: who.name,
        madeAt: now().toISOString(),
        ops: read.ops,
      }
      const answer = await takeOne(who, jobId, edit, { create: true, imported: true })
      if (answer.outcome === 'conflict')
        throw new AppError(
          'CONFLICT',
          'A job with this id is here already and has changed since; import it under a new id.',
        )
      return { answers: [answer], revision: answer.outcome === 'taken' ? answer.revision : 0 }
    },
    async underRules(who, rules) {
      const { rules: current } = await store.settingsOf(who.firmId).houseRules()
      const rows = await store.jobsOf(who.firmId).list('', MOST_JUDGED + 1)
      const judged = rows.slice(0, MOST_JUDGED)
      const changed: JobUnderRules[] = []
      for (const row of judged) {
        const { document } = await head(who, row.id)
        const catalogue = new Catalogue(await pinned(who, document))
        const input = { doc: document, catalogue, now: now().toISOString(), elsewhere: null }
        const changes = findingChanges(
          judge({ ...input, houseRules: current }),
          judge({ ...input, houseRules: rules }),
        )
        const come = changes.come.map((finding) => finding.text)
        const go = changes.go.map((finding) => finding.text)
        if (come.length + go.length > 0) changed.push({ id: row.id, name: row.name, come, go })
      }
      return { jobs: changed, judged: judged.length, more: rows.length > judged.length }
    },
    async elsewhere(who, jobId) {
      const current = await head(who, jobId)
      return store.jobsOf(who.firmId).elsewhere(jobId, [...serialsOf(current.document)])
    },
  }
}

/**
 * Nobody adds in another's name what somebody saw, decided or vouched for. An undo may put back what its maker took out, as
 * it was; a job file brings that of its own time.
 */
function othersNames(who: Account, edit: Edit, undone: Edit | null): Problem[] {
  return edit.ops.flatMap((op, index) => {
    if (op.op !== 'add' || !('by' in op.record) || op.record.by === who.name) return []
    const back = undone?.ops.some((past) => past.op === 'remove' && sameJson(past.record, op.record))
    return back
      ? []
      : [
          {
            path: `ops.${index}.record.by`,
            message: `must be ${who.name}: nobody adds a ${op.record.type} record in another's name`,
          },
        ]
  })
}

/** What physics forbids nobody takes upon themselves; life safety only an owner (work.md section 4). */
function barredWaivers(who: Account, edit: Edit): Problem[] {
  return edit.ops.flatMap((op, index) => {
    if (op.op !== 'add' || op.record.type !== 'waiver') return []
    const trouble = waiverTrouble(op.record, who.role)
    return trouble ? [{ path: `ops.${index}.record.rule`, message: trouble }] : []
  })
}

/** A file name that every system takes, from a job's name. */
export function fileName(name: string, ending: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
  return `${plain || 'job'}.${ending}`
}

function idOf(input: unknown): string {
  return typeof input === 'object' && input !== null && 'id' in input && typeof input.id === 'string'
    ? input.id.slice(0, 40)
    : ''
}
