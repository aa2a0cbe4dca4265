import { sameJson } from '../units/canonical.ts'
import type { Problem } from '../units/problem.ts'
import { typeNamed, type AnyRecord, type RecordSet } from './declare.ts'
import type { Edit } from './edit.ts'
import type { Made, Person } from './fields.ts'
import type { Op } from './ops.ts'
import { reaches, type Role } from './roles.ts'

/** Who sends an edit, as the server knows them. */
export interface Sender extends Person {
  readonly id: string
  readonly role: Role
}

/** The clocks of a request: when it came, and by how much the device's clock was behind, milliseconds. */
interface Clocks {
  readonly now: Date
  readonly behindMs: number
}

/** How far back a device's time may lie, and how far ahead, before it is doubtful, milliseconds. */
export const OLDEST_MS = 30 * 86_400_000
/** How far a device’s clock may be ahead before it is doubted, ms. */
export const AHEAD_MS = 5 * 60_000

/** What this sender may not do of an edit: a role that does not reach, and what bears another's name. */
export function authorityProblems<R extends AnyRecord>(
  set: RecordSet,
  edit: Edit<R>,
  who: Sender,
  undone: Edit<R> | null,
): Problem[] {
  return edit.ops.flatMap((op, index): Problem[] => {
    const type = op.op === 'set' ? typeNamed(set, op.id) : op.record.type
    const declared = type === null ? undefined : set.types[type]
    if (!declared) return [{ path: `ops.${index}`, message: 'names no known kind of record' }]
    if (!reaches(who.role, declared.may))
      return [
        {
          path: `ops.${index}`,
          message: `is a ${declared.words}: ${aRole[declared.may]} of the firm may do this`,
        },
      ]
    if (op.op !== 'add' || !declared.named || putsBack(op, undone)) return []
    const named = madeOf(op.record)
    return named && isSender(named, who)
      ? []
      : [
          {
            path: `ops.${index}.record.made`,
            message: `must be ${who.name}: nobody adds a ${declared.words} in another's name`,
          },
        ]
  })
}

const aRole: Readonly<Record<Role, string>> = {
  viewer: 'anybody',
  installer: 'only an installer or an owner',
  owner: 'only an owner',
}

/** Who hands in whose edit, and the two clocks. */
export interface HandedIn {
  readonly owner: Sender
  readonly maker: Person
  readonly clocks: Clocks
}

/**
 * The edit of somebody who left, as an owner hands it in: it is the owner's, and says whose it was. What bears a name bears
 * theirs, told by the owner, so that it counts for nothing until it is repeated.
 */
export function handedIn<R extends AnyRecord>(
  set: RecordSet,
  edit: Edit<R>,
  { owner, maker, clocks }: HandedIn,
): Edit<R> {
  const ops = edit.ops.map((op) => {
    if (op.op !== 'add' || !set.types[op.record.type]?.named) return op
    const record = stampedRecord(set, op.record, owner, clocks)
    const made: Made = { ...(madeOf(record) as Made), ...maker, role: null, told: 'owner' }
    return { ...op, record: { ...record, made } }
  })
  return { ...edit, by: { id: owner.id, name: owner.name }, madeFor: maker, ops }
}

/** Who sends an edit, the two clocks, and the edit that it takes back; null when it is no undo. */
export interface Arrival<R extends AnyRecord> {
  readonly who: Sender
  readonly clocks: Clocks
  readonly undone: Edit<R> | null
}

/** The edit as the server takes it: its makers are the sender as known here, device times are put right. */
export function stamped<R extends AnyRecord>(
  set: RecordSet,
  edit: Edit<R>,
  { who, clocks, undone }: Arrival<R>,
): Edit<R> {
  const ops = edit.ops.map((op) =>
    op.op === 'add' && set.types[op.record.type]?.named && !putsBack(op, undone)
      ? { ...op, record: stampedRecord(set, op.record, who, clocks) }
      : op,
  )
  // Whose it was only an owner says who hands it in.
  const { madeFor: _notTheirs, ...own } = edit
  return { ...own, by: { id: who.id, name: who.name }, ops }
}

function stampedRecord<R extends AnyRecord>(set: RecordSet, record: R, who: Sender, clocks: Clocks): R {
  const held = record as unknown as Record<string, unknown>
  const moved: Record<string, string> = {}
  for (const field of ['at', ...(set.types[record.type]?.times ?? [])])
    if (typeof held[field] === 'string') moved[field] = movedTime(held[field], clocks.behindMs)
  const at = Date.parse(moved.at ?? '')
  const now = clocks.now.getTime()
  const made: Made = {
    id: who.id,
    name: who.name,
    role: who.role,
    takenAt: clocks.now.toISOString(),
    clockDoubtful: !(at >= now - OLDEST_MS && at <= now + AHEAD_MS),
    told: null,
  }
  return { ...record, ...moved, made }
}

function movedTime(time: string, byMs: number): string {
  const at = Date.parse(time)
  return byMs === 0 || Number.isNaN(at) ? time : new Date(at + byMs).toISOString()
}

/** An undo may put back what its maker took out, as it was, whoever had made it. */
function putsBack<R extends AnyRecord>(op: Extract<Op<R>, { op: 'add' }>, undone: Edit<R> | null): boolean {
  return undone?.ops.some((past) => past.op === 'remove' && sameJson(past.record, op.record)) ?? false
}

function madeOf(record: AnyRecord): Made | null {
  return 'made' in record ? (record.made as Made) : null
}

/** A page of an older build knows its person by name alone. */
function isSender(named: Made, who: Sender): boolean {
  return named.told === null && (named.id === null ? named.name === who.name : named.id === who.id)
}
