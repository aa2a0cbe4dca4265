import { completeHouseRules } from '../house-rules/house-rules.ts'
import type { Made } from '../records/fields.ts'
import type { Edit } from '../records/edit.ts'
import type { Doc } from '../records/ops.ts'
import type { MovedSet, RawRecord, Step } from '../records/upgrade.ts'
import { asItIs } from './evidence.ts'
import type { AsItWas, JobRecord } from './records.ts'

type Records = Readonly<Record<string, RawRecord>>
type Fill = Readonly<Record<string, Readonly<Record<string, unknown>>>>

/**
 * Shape 4: evidence bears its maker as a person, says what it corrects, and carries a copy of what it names. What is learned
 * is no field any more: it is what was heard and fits the plan. An ID that nothing heard vouches for becomes evidence told
 * by an earlier build.
 */
export function evidenceStep(to: number, fill: Fill): Step {
  const record = (raw: RawRecord): RawRecord => withMaker(withoutLearned({ ...fill[raw.type], ...raw }))
  return {
    to,
    records(records) {
      const before = Object.values(records)
      const learned = new Map(before.flatMap((raw) => learnedOf(raw)))
      const plan = byId(before.map(record))
      const copy = (subject: unknown): AsItWas | null => copyOn({ schema: to, records: plan }, subject)
      const evidence = before.map((raw): RawRecord => named(record(raw), copy, records))
      const vouched = new Set<string>()
      const after = evidence.map((raw): RawRecord => {
        if (raw.type !== 'heard' || raw.decision !== 'accepted') return raw
        const subject = String(raw.subject)
        // An ID that was taken off again, or another that came later, is not what is enrolled.
        if (learned.get(subject)?.serial !== raw.serial) return { ...raw, of: null }
        vouched.add(subject)
        return raw
      })
      const told = [...learned].flatMap(([subject, { serial, by }]): RawRecord[] =>
        vouched.has(subject) ? [] : [toldHeard({ subject, serial }, by, copy(subject))],
      )
      return byId([...after, ...told])
    },
    record: (raw, doc) =>
      named(record(raw), (subject) => (doc ? copyOn(doc, subject) : null), doc?.records ?? {}),
    set(op, edit): MovedSet {
      if (!/^(zone|device):/.test(op.id)) return [op]
      if (op.field === 'learnedBy') return []
      if (op.field !== 'serial') return [op]
      return isHeard(edit, op.id, op.to) ? [] : null
    },
  }
}

/** Whether an edit also says what was heard for the ID that it sets. */
function isHeard(edit: Edit<RawRecord>, subject: string, serial: unknown): boolean {
  return edit.ops.some(
    ({ op, ...rest }) =>
      op === 'add' &&
      'record' in rest &&
      rest.record.type === 'heard' &&
      rest.record.subject === subject &&
      rest.record.serial === serial,
  )
}

interface Learned {
  readonly serial: string
  readonly by: string
}

function learnedOf(raw: RawRecord): [string, Learned][] {
  if ((raw.type !== 'zone' && raw.type !== 'device') || typeof raw.serial !== 'string') return []
  return [[raw.id, { serial: raw.serial, by: String(raw.learnedBy ?? 'air') }]]
}

function withoutLearned(raw: RawRecord): RawRecord {
  if (raw.type === 'zone') {
    const { serial: _serial, learnedBy: _by, ...rest } = raw
    return rest as RawRecord
  }
  if (raw.type === 'device') {
    const { serial: _serial, ...rest } = raw
    return rest as RawRecord
  }
  return raw
}

const evidenceTypes = [
  'heard',
  'test',
  'state',
  'state-end',
  'signoff',
  'fixed-rules',
  'waiver',
  'waiver-end',
]

function withMaker(raw: RawRecord): RawRecord {
  if (raw.type !== 'departure' && !evidenceTypes.includes(raw.type)) return raw
  if ('made' in raw) return raw
  const { by, since, ...rest } = raw
  const maker = raw.type === 'state' ? raw.who : by
  return {
    ...rest,
    at: raw.type === 'state' ? since : raw.at,
    made: makerNamed(String(maker)),
    ...(raw.type === 'departure' ? {} : { corrects: null }),
    ...(raw.type === 'fixed-rules' ? { rules: completeHouseRules(raw.rules) } : {}),
    ...(raw.type === 'heard' ? { loop: null, of: null } : {}),
    ...(raw.type === 'test' ? { of: null } : {}),
  } as RawRecord
}

/** Puts in the copy of what a piece of evidence names. */
function named(raw: RawRecord, copy: (subject: unknown) => AsItWas | null, all: Records): RawRecord {
  if ((raw.type === 'heard' || raw.type === 'test') && raw.of === null)
    return { ...raw, of: copy(raw.subject) } as RawRecord
  if (raw.type === 'state-end' && !('kind' in raw))
    return { ...raw, kind: all[String(raw.state)]?.kind ?? 'sounder-off' } as RawRecord
  if (raw.type === 'waiver-end' && !('rule' in raw)) {
    const waiver = all[String(raw.waiver)]
    return { ...raw, rule: waiver?.rule ?? '', subject: waiver?.subject ?? '' } as RawRecord
  }
  return raw
}

interface ToldId {
  readonly subject: string
  readonly serial: string
}

function toldHeard({ subject, serial }: ToldId, by: string, of: AsItWas | null): RawRecord {
  return {
    id: `heard:told-${subject.slice(subject.indexOf(':') + 1).slice(0, 60)}`,
    type: 'heard',
    at: '1970-01-01T00:00:00Z',
    made: { ...makerNamed('an earlier build'), told: 'build' },
    corrects: null,
    serial,
    family: '',
    cause: 'told',
    loop: null,
    level: null,
    source: by,
    decision: 'accepted',
    code: 'told',
    reason: 'An earlier build kept this ID without what was heard.',
    subject,
    of,
  } as RawRecord
}

function makerNamed(name: string): Made {
  return { id: null, name, role: null, takenAt: null, clockDoubtful: false, told: null }
}

function copyOn(doc: Doc<RawRecord>, subject: unknown): AsItWas | null {
  return asItIs(doc as unknown as Doc<JobRecord>, String(subject))
}

function byId(records: readonly RawRecord[]): Records {
  return Object.fromEntries(records.map((raw) => [raw.id, raw]))
}
