import { describe, expect, it } from 'vitest'
import type { RawRecord } from '../records/upgrade.ts'
import { sourcesStep } from './upgrade-sources.ts'

/* Records as shape 5 wrote them, as far as the step reads them, and what must become of each. */

const step = sourcesStep(6)
const raw = (record: Record<string, unknown>) => record as unknown as RawRecord
const job = raw({ id: 'job:main', type: 'job', panel: 'panel/tarn-40' })
const door = raw({ id: 'device:door', type: 'device', sticker: '10423344' })
const zone = raw({ id: 'zone:1', type: 'zone', device: 'device:door' })
const heard = (over: Record<string, unknown>) =>
  raw({
    ...{ id: 'heard:1', type: 'heard', serial: '10423344', source: 'air', decision: 'accepted' },
    ...{ subject: 'zone:1', of: { device: 'device:door', zones: [{ zone: 'zone:1', number: 1 }] }, ...over },
  })
const upgraded = (...records: RawRecord[]): Record<string, Record<string, unknown>> =>
  step.records(Object.fromEntries([job, door, zone, ...records].map((one) => [one.id, one]))) as never

describe('a document of shape 5', () => {
  it('is a real job, and hears nothing', () => {
    expect(upgraded()['job:main']).toMatchObject({ practice: false, exercise: 'plain' })
  })

  it.each([
    ['air', 'practice'],
    ['sister', 'practice'],
    ['typed', 'sticker'],
    ['scanned', 'sticker'],
  ])('says of what came by %s that it is %s', (source, now) => {
    expect(upgraded(heard({ source }))['heard:1']).toMatchObject({
      ...{ source: now, shown: null, times: null, decision: 'accepted' },
      of: { device: 'device:door', serial: null, user: null },
    })
    expect((upgraded(heard({ source }))['heard:1']?.of as { zones: object[] }).zones).toEqual([
      { zone: 'zone:1', number: 1, serial: null, delay: null },
    ])
  })

  it('keeps evidence without a copy as it is', () => {
    expect(upgraded(heard({ of: null }))['heard:1']?.of).toBeNull()
  })

  it.each([
    ['typed', 'accepted', '10423344', 'zone:1', true],
    ['typed', 'accepted', '10423344', 'device:door', true],
    ['typed', 'accepted', '99999999', 'zone:1', false],
    ['typed', 'refused', '10423344', 'zone:1', false],
    ['scanned', 'accepted', '10423344', 'zone:1', false],
    ['air', 'accepted', '10423344', 'zone:1', false],
    ['typed', 'accepted', '10423344', 'zone:gone', false],
  ])(
    'takes a sticker for unconfirmed by what was %s and %s, %s for %s: %s',
    (source, decision, serial, subject, unsure) => {
      const records = upgraded(heard({ source, decision, serial, subject }))
      expect(records['device:door']?.stickerUnsure).toBe(unsure)
    },
  )

  it('gives results, states and sign-offs what they say now', () => {
    const records = upgraded(
      raw({ id: 'test:1', type: 'test', kind: 'walk', of: null }),
      raw({ id: 'state:1', type: 'state', kind: 'sounder-off' }),
      raw({ id: 'signoff:1', type: 'signoff', what: 'read-back' }),
    )
    expect(records['test:1']).toMatchObject({ loop: null, method: '', kind: 'walk' })
    expect(records['state:1']).toMatchObject({ about: null })
    expect(records['signoff:1']).toMatchObject({ about: null, keyed: null })
  })
})

describe('a waiting edit of shape 5', () => {
  it('brings each record by itself, and takes out a device as the document has it', () => {
    expect(step.record(heard({ source: 'typed' }), null)).toMatchObject({ source: 'sticker', times: null })
    expect(step.record(door, null)).toMatchObject({ stickerUnsure: false })
    const doc = { schema: 6, records: { 'device:door': raw({ ...door, stickerUnsure: true }) } }
    expect(step.record(door, doc)).toMatchObject({ stickerUnsure: true })
    const other = raw({ ...door, sticker: '20443311' })
    expect(step.record(other, doc)).toMatchObject({ stickerUnsure: false })
  })

  it('sets every field as it did', () => {
    const op = { op: 'set', id: 'device:door', field: 'sticker', from: null, to: 'A' } as const
    expect(step.set(op, {} as never)).toEqual([op])
  })
})
