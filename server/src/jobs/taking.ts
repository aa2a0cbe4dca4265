import {
  authorityProblems,
  handedIn,
  readEdit,
  SCHEMA,
  sourceProblems,
  stamped,
  waiverTrouble,
  type Edit,
  type EditAnswer,
  type HouseRules,
  type JobDocument,
  type Person,
  type Problem,
  type Sender,
} from '#core'
import type { Account } from '../db/people.ts'
import type { Store } from '../db/store.ts'
import { AppError } from '../errors/app-error.ts'
import type { JudgingPool } from '../workers/pool.ts'

/** A device's clock that differs by less than this is taken as right: so long may a request be under way, milliseconds. */
const CLOCK_MS = 1_000

/** What taking edits works with. */
export interface Taking {
  readonly store: Store
  readonly pool: JudgingPool
  readonly now: () => Date
}

/** How an edit came in. */
export interface Arrival {
  readonly create: boolean
  /** When the device sent it, by its own clock; null where it does not say. */
  readonly sentAt: string | null
  /** Who had made it, where an owner hands it in for somebody who left the firm. */
  readonly madeFor?: Person
}

/** Takes one edit from outside: read, judged by who may do what, stamped with its maker, and put onto the head. */
export async function takeEdit(
  taking: Taking,
  who: Account,
  jobId: string,
  input: unknown,
  arrival: Arrival,
): Promise<EditAnswer> {
  const jobs = taking.store.jobsOf(who.firmId)
  const read = readEdit(input, isOlder(input) ? ((await jobs.head(jobId))?.document ?? null) : null)
  const id = idOf(input)
  if (!read.ok)
    return read.code === 'newer'
      ? { id, outcome: 'held', schema: read.schema }
      : { id, outcome: 'invalid', problems: [...read.problems] }
  let answer: EditAnswer = { id, outcome: 'invalid', problems: [] }
  // Of an older shape it may be two, evidence first; both answer under the id they were sent by.
  for (const edit of read.edits) {
    // What an older page took from the air of a job that is real now is kept, and counts for nothing.
    answer = { ...(await takeRead(taking, who, jobId, edit, { ...arrival, older: isOlder(input) })), id }
    if (answer.outcome !== 'taken') break
  }
  return answer
}

async function takeRead(
  taking: Taking,
  who: Account,
  jobId: string,
  edit: Edit,
  { create, sentAt, madeFor, older }: Arrival & { readonly older: boolean },
): Promise<EditAnswer> {
  const { store } = taking
  const jobs = store.jobsOf(who.firmId)
  const now = taking.now()
  const sender: Sender = { id: who.id, name: who.name, role: who.role }
  const undone = await takenBack(store, who, jobId, edit)
  const problems = [
    // What an owner hands in counts for nothing where it bears a name: what it may say is then no question of who said it.
    ...(madeFor ? othersProblems(edit, madeFor) : authorityProblems(edit, sender, undone)),
    ...(madeFor ? [] : barredWaivers(who, edit)),
    ...(await unknownPins(store, who, edit)),
    ...(create && !startsJob(edit)
      ? [{ path: 'ops', message: 'the first edit of a job must add job:main' }]
      : []),
  ]
  if (problems.length > 0) return { id: edit.id, outcome: 'invalid', problems }
  const clocks = { now, behindMs: behindMs(sentAt, now) }
  const taken = await jobs.take(jobId, {
    edit: madeFor
      ? handedIn(edit, { owner: sender, maker: madeFor, clocks })
      : stamped(edit, { who: sender, clocks, undone }),
    now,
    create,
    ...(madeFor
      ? {}
      : {
          guard: async (head) => [
            ...(older ? [] : sourceProblems(head, edit)),
            ...(handsOver(edit) ? await notReady(taking, who, jobId, head) : []),
          ],
        }),
  })
  switch (taken.outcome) {
    case 'no-job':
      throw new AppError('NOT_FOUND', 'There is no such job in this firm.')
    case 'taken':
      return { id: edit.id, outcome: 'taken', revision: taken.entry.revision }
    case 'conflict':
      return { id: edit.id, outcome: 'conflict', conflict: taken.conflict }
    case 'invalid':
      return { id: edit.id, outcome: 'invalid', problems: [...taken.problems] }
  }
}

/** What is handed in for somebody must be theirs. */
function othersProblems(edit: Edit, maker: Person): Problem[] {
  const theirs = edit.by.id === null ? edit.by.name === maker.name : edit.by.id === maker.id
  return theirs
    ? []
    : [{ path: 'by', message: `must be ${maker.name}: only their own changes are handed in` }]
}

/** By how much the device's clock was behind when it sent, milliseconds; 0 where it does not say or is right. */
function behindMs(sentAt: string | null, now: Date): number {
  const behind = sentAt === null ? 0 : now.getTime() - Date.parse(sentAt)
  return Number.isNaN(behind) || Math.abs(behind) < CLOCK_MS ? 0 : behind
}

/** The edit that this one takes back or brings again, as the journal has it. */
async function takenBack(store: Store, who: Account, jobId: string, edit: Edit): Promise<Edit | null> {
  const id = edit.undoes ?? edit.redoes
  return id === undefined ? null : store.jobsOf(who.firmId).editOf(jobId, id)
}

/** What physics forbids nobody takes upon themselves; life safety only an owner. */
function barredWaivers(who: Account, edit: Edit): Problem[] {
  return edit.ops.flatMap((op, index) => {
    if (op.op !== 'add' || op.record.type !== 'waiver') return []
    const trouble = waiverTrouble(op.record, who.role)
    return trouble ? [{ path: `ops.${index}.record.rule`, message: trouble }] : []
  })
}

/** Every pin must be of an entry that this firm keeps under that very hash. */
async function unknownPins(store: Store, who: Account, edit: Edit): Promise<Problem[]> {
  const pins = edit.ops.flatMap((op, index) => {
    if (op.op === 'add' && op.record.type === 'pin')
      return [{ entry: op.record.entry, hash: op.record.hash, path: `ops.${index}.record.hash` }]
    if (op.op === 'set' && op.field === 'hash' && op.id.startsWith('pin:'))
      return [{ entry: op.id.slice('pin:'.length), hash: String(op.to), path: `ops.${index}.to` }]
    return []
  })
  if (pins.length === 0) return []
  const known = await store.catalogueOf(who.firmId).known(pins.map(({ hash }) => hash))
  return pins
    .filter(({ entry, hash }) => known.get(hash) !== entry)
    .map(({ entry, path }) => ({
      path,
      message: `there is no catalogue entry ${entry} of this hash here; load the catalogue again and choose it there`,
    }))
}

/** Whether an edit says that the system is handed over. */
function handsOver(edit: Edit): boolean {
  return edit.ops.some(
    (op) =>
      op.op === 'add' &&
      (op.record.type === 'fixed-rules' ||
        (op.record.type === 'signoff' && op.record.what === 'handed-over')),
  )
}

/** What stands against handing over the job as it is on the locked head. */
async function notReady(
  { store, pool, now }: Taking,
  who: Account,
  jobId: string,
  head: JobDocument,
): Promise<Problem[]> {
  const { rules }: { rules: HouseRules } = await store.settingsOf(who.firmId).houseRules()
  const elsewhere = await store.jobsOf(who.firmId).transmitters.elsewhereOf(jobId, head)
  const owed = await pool.run(
    { kind: 'handover', rules, now: now().toISOString(), elsewhere },
    { snapshot: JSON.stringify(head), tail: [] },
    (hashes) => store.catalogueOf(who.firmId).byHashes(hashes),
  )
  return owed.map((text) => ({ path: '', message: `It is not ready to hand over: ${text}` }))
}

function startsJob(edit: Edit): boolean {
  return edit.ops.some((op) => op.op === 'add' && op.record.type === 'job')
}

function isOlder(input: unknown): boolean {
  return (
    typeof input === 'object' &&
    input !== null &&
    'schema' in input &&
    typeof input.schema === 'number' &&
    input.schema < SCHEMA
  )
}

function idOf(input: unknown): string {
  return typeof input === 'object' && input !== null && 'id' in input && typeof input.id === 'string'
    ? input.id.slice(0, 40)
    : ''
}
