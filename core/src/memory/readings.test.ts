import { describe, expect, it } from 'vitest'
import { evidenceBy } from '../job/testing/records.ts'
import type { RecordNamed } from '../job/records.ts'
import { SmallJob } from '../testing/small-job.ts'
import { knownMemory, readingsOf, type PanelReadings } from './readings.ts'

type Held = RecordNamed<'held'>

/** Readings of a panel, each a minute later than the one before. */
class Readings {
  readonly job = new SmallJob()
  #count = 0

  note(how: Held['how'], saved: boolean, values: Record<string, string>, panel = 'panel/tarn-40'): this {
    this.#count += 1
    const at = new Date(Date.UTC(2026, 4, 4, 8) + this.#count * 60_000).toISOString()
    const record = {
      ...evidenceBy('Idris', at),
      ...{ id: `held:${this.#count}`, type: 'held' as const, panel, how, saved, section: '' },
      values: Object.entries(values).map(([address, value]) => ({ address, value })),
    }
    this.job.apply([{ op: 'add', record }])
    return this
  }

  get of(): PanelReadings {
    return readingsOf(this.job.doc, 'panel/tarn-40')
  }

  get memory(): Record<string, string> {
    const shipped = new Map([
      ['a', 'as shipped'],
      ['z', 'as shipped'],
    ])
    return Object.fromEntries(knownMemory(this.job.doc, 'panel/tarn-40', shipped))
  }
}
const told = (known: PanelReadings['now']): Record<string, string> =>
  Object.fromEntries([...known].map(([address, { value }]) => [address, value]))

describe('what is known of a panel', () => {
  it('is nothing before anybody noted anything', () => {
    const { now, read, saved, unsaved, last, kept } = new Readings().of
    expect([now.size, read.size, saved.size, unsaved.size, last, kept]).toEqual([0, 0, 0, 0, null, null])
    expect(new Readings().memory).toEqual({ a: 'as shipped', z: 'as shipped' })
  })

  it('is the latest of each address, and waits to be saved', () => {
    const notes = new Readings().note('keyed', false, { a: '1', b: '1' }).note('keyed', false, { b: '2' })
    expect(told(notes.of.now)).toEqual({ a: '1', b: '2' })
    expect(told(notes.of.unsaved)).toEqual({ a: '1', b: '2' })
    expect(told(notes.of.saved)).toEqual({})
    expect(told(notes.of.read)).toEqual({})
    expect(notes.of.last?.id).toBe('held:2')
    expect(notes.of.kept).toBeNull()
    // What may be lost yet is not what the panel holds.
    expect(notes.memory).toEqual({ a: 'as shipped', z: 'as shipped' })
  })

  it('is kept whole once it has saved', () => {
    const notes = new Readings().note('keyed', false, { a: '1' }).note('keyed', true, { b: '2' })
    expect(told(notes.of.saved)).toEqual({ a: '1', b: '2' })
    expect([notes.of.unsaved.size, notes.of.last, notes.of.kept?.id]).toEqual([0, null, 'held:2'])
    expect(notes.memory).toEqual({ a: '1', b: '2', z: 'as shipped' })
  })

  it('tells what was read apart from what was keyed since', () => {
    const notes = new Readings()
      .note('keyed', true, { a: '1', b: '1' })
      .note('seen', true, { a: '2' })
      .note('keyed', false, { a: '3' })
    expect(told(notes.of.now)).toEqual({ a: '3', b: '1' })
    expect(told(notes.of.read)).toEqual({ a: '2' })
    expect(told(notes.of.saved)).toEqual({ a: '2', b: '1' })
    expect(told(notes.of.unsaved)).toEqual({ a: '3' })
    expect(notes.of.now.get('a')).toEqual({
      ...{ value: '3', how: 'keyed', saved: false },
      at: '2026-05-04T08:03:00.000Z',
    })
    // The saving before stays the last one that kept.
    expect(notes.of.kept?.id).toBe('held:1')
  })

  it('read before it saved, waits with the rest; read after, waits no more', () => {
    const before = new Readings().note('keyed', false, { a: '1', b: '1' }).note('seen', false, { a: '2' })
    expect(told(before.of.unsaved)).toEqual({ a: '2', b: '1' })
    expect(told(before.of.read)).toEqual({ a: '2' })
    expect(told(before.of.saved)).toEqual({})
    expect(before.of.last?.id).toBe('held:1')
    const after = before.note('seen', true, { a: '4' })
    expect(told(after.of.unsaved)).toEqual({ b: '1' })
    expect(told(after.of.saved)).toEqual({ a: '4' })
    expect(told(after.of.read)).toEqual({ a: '4' })
    expect(after.of.last?.id).toBe('held:1')
  })

  it('counts no more where it was dropped, with what was read of it', () => {
    const notes = new Readings()
      .note('keyed', true, { a: '1' })
      .note('seen', true, { a: '1', c: '5' })
      .note('keyed', false, { a: '2', b: '2' })
      .note('seen', false, { b: '2' })
      .note('dropped', false, {})
    expect(told(notes.of.now)).toEqual({ a: '1', c: '5' })
    expect(told(notes.of.saved)).toEqual({ a: '1', c: '5' })
    expect(notes.of.unsaved.size).toBe(0)
    // That a was read says nothing any more, for it was keyed otherwise meanwhile; c was not touched.
    expect(told(notes.of.read)).toEqual({ c: '5' })
    expect([notes.of.last, notes.of.kept?.id]).toEqual([null, 'held:1'])
  })

  it('counts no more where it was brought back to how it came', () => {
    const notes = new Readings()
      .note('keyed', true, { a: '1' })
      .note('seen', true, { a: '1' })
      .note('wiped', true, {})
    const { now, read, saved, unsaved, last, kept } = notes.of
    expect([now.size, read.size, saved.size, unsaved.size, last]).toEqual([0, 0, 0, 0, null])
    expect(kept?.how).toBe('wiped')
    expect(notes.memory).toEqual({ a: 'as shipped', z: 'as shipped' })
  })

  it('holds nothing where it was emptied', () => {
    expect(new Readings().note('keyed', true, { a: '' }).memory).toEqual({ z: 'as shipped' })
  })

  it('is of this panel alone', () => {
    const notes = new Readings().note('keyed', true, { a: '1' }, 'panel/quillet-32')
    expect(notes.of.now.size).toBe(0)
  })
})
