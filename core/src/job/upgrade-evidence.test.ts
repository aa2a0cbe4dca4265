import { describe, expect, it } from 'vitest'
import type { Edit } from '../records/edit.ts'
import type { RawRecord } from '../records/upgrade.ts'
import { evidenceStep } from './upgrade-evidence.ts'
import { shape3 } from './upgrades.ts'

/* Records as builds before shape 4 wrote them, as far as the step reads them, and what must become of each. */

const step = evidenceStep(4, shape3)
const raw = (record: Record<string, unknown>) => record as unknown as RawRecord
const job = raw({ id: 'job:main', type: 'job', panel: 'panel/tarn-40' })
const door = raw({
  id: 'device:door',
  type: 'device',
  model: 'device/reedling',
  room: 'hall',
  position: '',
  slot: null,
})
const zone = (over: Record<string, unknown> = {}) =>
  raw({
    ...{ id: 'zone:1', type: 'zone', number: 1, device: 'device:door', event: 'open', loop: 3 },
    ...{ response: '1', area: 'area:1', serial: '10423344', learnedBy: 'air', ...over },
  })
const heard = (over: Record<string, unknown> = {}) =>
  raw({
    ...{ id: 'heard:1', type: 'heard', at: '2026-03-01T10:00:00Z', by: 'Idris', serial: '10423344' },
    ...{ decision: 'accepted', source: 'air', subject: 'zone:1', ...over },
  })

function upgraded(...records: RawRecord[]): Record<string, Record<string, unknown>> {
  const all = [job, door, ...records]
  return step.records(Object.fromEntries(all.map((record) => [record.id, record]))) as never
}

describe('a document', () => {
  it('keeps an acceptance that vouches for what was enrolled, with a copy of what it named and its maker by name', () => {
    const records = upgraded(zone(), heard())
    expect(records['heard:1']).toMatchObject({
      made: { id: null, name: 'Idris', role: null, takenAt: null, told: null, clockDoubtful: false },
      corrects: null,
      loop: null,
      of: {
        panel: 'panel/tarn-40',
        device: 'device:door',
        model: 'device/reedling',
        zones: [{ zone: 'zone:1', number: 1, event: 'open', loop: 3 }],
      },
    })
    expect(records['heard:1']).not.toHaveProperty('by')
    expect(records['zone:1']).not.toHaveProperty('serial')
    expect(records['zone:1']).not.toHaveProperty('learnedBy')
    expect(records['zone:1']).toMatchObject({ number: 1, area2: null, doubleKnock: false })
    expect(Object.keys(records).sort()).toEqual(['device:door', 'heard:1', 'job:main', 'zone:1'])
  })

  it('turns an ID that nothing heard vouches for into evidence told by an earlier build', () => {
    for (const [by, source] of [
      ['typed', 'typed'],
      [undefined, 'air'],
    ] as const) {
      const records = upgraded(zone({ learnedBy: by }))
      expect(records['heard:told-1']).toMatchObject({
        type: 'heard',
        serial: '10423344',
        source,
        subject: 'zone:1',
        decision: 'accepted',
        made: { told: 'build' },
        of: { device: 'device:door', zones: [{ zone: 'zone:1' }] },
      })
    }
    const slot = { ...door, id: 'device:keys', slot: 2, serial: '20443311' } as unknown as RawRecord
    const records = upgraded(slot)
    expect(records['heard:told-keys']).toMatchObject({ serial: '20443311', subject: 'device:keys' })
    expect(records['device:keys']).not.toHaveProperty('serial')
    expect(records['device:keys']).toMatchObject({ slot: 2, via: null })
  })

  it('lets an acceptance of another ID, or of one that was taken off again, vouch for nothing', () => {
    const other = upgraded(zone(), heard({ serial: '99999999' }))
    expect(other['heard:1']?.of).toBeNull()
    expect(other['heard:told-1']).toBeDefined()
    const off = upgraded(zone({ serial: null }), heard())
    expect(off['heard:1']?.of).toBeNull()
    expect(off['heard:told-1']).toBeUndefined()
  })

  it('leaves a refusal its copy, and it vouches for nothing', () => {
    const records = upgraded(zone(), heard({ decision: 'refused' }))
    expect(records['heard:1']).toMatchObject({ decision: 'refused', of: { device: 'device:door' } })
    expect(records['heard:told-1']).toBeDefined()
  })

  it('says of each ending what it ended, and of a state who began it and when', () => {
    const records = upgraded(
      raw({ id: 'state:1', type: 'state', kind: 'on-test', who: 'Ann', since: '2026-03-01T09:00:00Z' }),
      raw({
        id: 'state-end:1',
        type: 'state-end',
        by: 'Idris',
        at: '2026-03-01T11:00:00Z',
        state: 'state:1',
      }),
      raw({
        id: 'state-end:2',
        type: 'state-end',
        by: 'Idris',
        at: '2026-03-01T11:00:00Z',
        state: 'state:9',
      }),
      raw({ id: 'waiver:1', type: 'waiver', by: 'Ann', at: 'x', rule: 'stuck', subject: 'zone:1' }),
      raw({ id: 'waiver-end:1', type: 'waiver-end', by: 'Ann', at: 'x', waiver: 'waiver:1' }),
      raw({ id: 'waiver-end:2', type: 'waiver-end', by: 'Ann', at: 'x', waiver: 'waiver:9' }),
      raw({ id: 'departure:1', type: 'departure', by: 'Ann', at: 'x', rule: 'confirm' }),
      raw({ id: 'fixed-rules:main', type: 'fixed-rules', by: 'Ann', at: 'x', rules: {} }),
    )
    expect(records['state:1']).toMatchObject({ at: '2026-03-01T09:00:00Z', made: { name: 'Ann' } })
    expect(records['state:1']).not.toHaveProperty('since')
    expect(records['state-end:1']).toMatchObject({ kind: 'on-test', at: '2026-03-01T11:00:00Z' })
    expect(records['state-end:2']).toMatchObject({ kind: 'sounder-off' })
    expect(records['waiver:1']).toMatchObject({ rule: 'stuck', corrects: null })
    expect(records['waiver-end:1']).toMatchObject({ rule: 'stuck', subject: 'zone:1' })
    expect(records['waiver-end:2']).toMatchObject({ rule: '', subject: '' })
    expect(records['departure:1']).toMatchObject({ made: { name: 'Ann' }, rule: 'confirm' })
    expect(records['departure:1']).not.toHaveProperty('corrects')
    expect(records['departure:1']).not.toHaveProperty('of')
    expect(Object.keys(records['fixed-rules:main']?.rules as object)).toContain('schools')
    expect(records['fixed-rules:main']).not.toHaveProperty('of')
  })

  it('leaves what already says what it ended', () => {
    const ended = raw({ id: 'state-end:1', type: 'state-end', made: {}, state: 'state:1', kind: 'chime-off' })
    expect(upgraded(ended)['state-end:1']).toMatchObject({ kind: 'chime-off' })
  })
})

describe('what waits in a queue', () => {
  const edit = (...ops: unknown[]) => ({ ops }) as unknown as Edit<RawRecord>
  const set = (id: string, field: string, to: unknown) => ({ op: 'set', id, field, from: null, to }) as const

  it('leaves other fields and other records as they are', () => {
    for (const op of [
      set('zone:1', 'label', 'X'),
      set('subzone:1', 'serial', 'X'),
      set('user:1', 'serial', 'X'),
    ])
      expect(step.set(op, edit(op))).toEqual([op])
  })

  it('drops a learned ID where the same edit says what was heard, else holds the edit', () => {
    const op = set('zone:1', 'serial', '10423344')
    const vouching = { op: 'add', record: heard() }
    expect(step.set(op, edit(op, vouching))).toEqual([])
    expect(step.set(set('device:keys', 'learnedBy', 'air'), edit())).toEqual([])
    expect(step.set(op, edit(op))).toBeNull()
    for (const record of [
      heard({ serial: '99999999' }),
      heard({ subject: 'zone:2' }),
      { ...heard(), type: 'test' },
    ])
      expect(step.set(op, edit(op, { op: 'add', record }))).toBeNull()
    expect(step.set(op, edit(op, { op: 'remove', record: heard() }))).toBeNull()
    expect(step.set(op, edit(op, set('zone:1', 'label', 'X')))).toBeNull()
  })

  it('gives an added record its maker and a copy of what it names, as far as the document is known', () => {
    const doc = { schema: 4, records: upgraded(zone()) } as never
    expect(step.record(heard(), doc)).toMatchObject({
      made: { name: 'Idris' },
      of: { device: 'device:door' },
    })
    expect(step.record(heard(), null)).toMatchObject({ made: { name: 'Idris' }, of: null })
    const test = raw({ id: 'test:1', type: 'test', by: 'Ann', at: 'x', subject: 'zone:1' })
    expect(step.record(test, doc)).toMatchObject({ of: { zones: [{ zone: 'zone:1' }] } })
    const end = raw({ id: 'state-end:1', type: 'state-end', by: 'Ann', at: 'x', state: 'state:1' })
    expect(step.record(end, null)).toMatchObject({ kind: 'sounder-off' })
  })
})
