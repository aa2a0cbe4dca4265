import { describe, expect, it } from 'vitest'
import { jobInfo, recordsOf } from '../job/document.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { readingsOf } from '../memory/readings.ts'
import { targetMemory } from '../memory/target.ts'
import { catalogue, cleanMorrow, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { signoffRecord } from './records.ts'
import { planFollows, readBackState } from './read-back.ts'

type How = 'keyed' | 'seen' | 'typed' | 'dropped' | 'wiped'

/** Notes a reading a minute after the one before. */
function note(job: SmallJob, how: How, values: Readonly<Record<string, string>>, saved = true): SmallJob {
  const count = recordsOf(job.doc, 'held').length
  const minute = String(count).padStart(2, '0')
  return job.apply([
    {
      op: 'add',
      record: {
        ...evidenceBy('Idris', `2026-05-04T10:${minute}:00Z`),
        ...({ id: `held:${count}`, type: 'held', panel: jobInfo(job.doc).panel ?? '' } as const),
        ...{ how, saved, section: 'Whole system' },
        values: Object.entries(values).map(([address, value]) => ({ address, value })),
      },
    },
  ])
}
const wanted = (job: SmallJob): Record<string, string> =>
  Object.fromEntries(targetMemory(job.doc, catalogue)?.wanted ?? [])
const state = (job: SmallJob) =>
  readBackState({ doc: job.doc, catalogue }, job.houseRules) ?? expect.fail('no panel')

describe('a panel compared with the plan', () => {
  it('owes every value that is wanted, and no single glance vouches for more than it saw', () => {
    const job = cleanTarn()
    const all = Object.keys(wanted(job))
    expect(state(job)).toEqual({ wanted: all, different: [], open: all, drawn: [] })
    note(job, 'seen', { 'system.entry1': '30' })
    expect(state(job).open).toEqual(all.filter((address) => address !== 'system.entry1'))
    // What was keyed is not read.
    note(job, 'keyed', wanted(job))
    expect(state(job).open).toHaveLength(all.length - 1)
    expect(readBackState({ doc: new SmallJob({ panel: null }).doc, catalogue }, job.houseRules)).toBeNull()
  })

  it('has IDs off a sticker, and loops and types of fire and gas, typed as they stand there; learned IDs seen', () => {
    const job = cleanTarn()
    note(job, 'seen', wanted(job))
    const open = state(job).open
    const smoke = job.zone('landing', 'smoke').number
    expect(open).toContain(`zone.${smoke}.response`)
    expect(open).toContain(`zone.${smoke}.loop`)
    const porch = job.zone('porch').number
    expect(open).not.toContain(`zone.${porch}.response`)
    expect(open).not.toContain(`zone.${porch}.loop`)
    expect(open).not.toContain('system.exit')
    note(job, 'typed', wanted(job))
    expect(state(job).open).toEqual([])
  })

  it('has times typed that the panel counts in units', () => {
    // The Morrow counts its exit delay in steps of 15 s and its siren in minutes; its entry delays are plain seconds.
    const job = cleanMorrow().set('job:main', { exit: 60, sirenSeconds: 240 })
    note(job, 'seen', wanted(job))
    expect(state(job).open).toEqual(expect.arrayContaining(['system.exit', 'system.siren']))
    expect(state(job).open).not.toContain('system.entry1')
  })

  it('stops on one difference until it is keyed and read again', () => {
    const job = cleanTarn()
    note(job, 'typed', { ...wanted(job), 'system.entry1': '45' })
    expect(state(job)).toMatchObject({
      different: [{ address: 'system.entry1', wanted: '30', is: '45' }],
      ...{ open: [], drawn: [] },
    })
    note(job, 'keyed', { 'system.entry1': '30' })
    expect(state(job)).toMatchObject({ different: [], open: ['system.entry1'] })
    note(job, 'seen', { 'system.entry1': '30' })
    expect(state(job)).toMatchObject({ different: [], open: [] })
  })

  it('or until the plan follows, where it can', () => {
    const job = cleanTarn()
    note(job, 'typed', { ...wanted(job), 'system.entry1': '45' })
    const { ops, why } = planFollows({ doc: job.doc, catalogue }, { address: 'system.entry1', is: '45' })
    expect([ops.map((op) => (op.op === 'set' ? [op.field, op.to] : op.op)), why]).toEqual([
      [['entry1', 45]],
      '',
    ])
    job.apply(ops)
    expect(state(job)).toMatchObject({ different: [], open: [] })
    // An ID is of a device: no plan takes one from a display.
    const porch = job.zone('porch').number
    const id = planFollows({ doc: job.doc, catalogue }, { address: `zone.${porch}.serial`, is: '20417733' })
    expect(id.ops).toEqual([])
    expect(id.why).toContain('an ID is evidence')
  })

  it('is read again where it was keyed otherwise since, and where the plan changed since', () => {
    const job = cleanTarn()
    note(job, 'typed', wanted(job))
    note(job, 'keyed', { 'system.exit': '90' })
    expect(state(job).open).toEqual(['system.exit'])
    job.set('job:main', { entry1: 45 })
    expect(state(job).different).toEqual([{ address: 'system.entry1', wanted: '45', is: '30' }])
  })

  it('of what was vouched for as a whole, has read again what was keyed since', () => {
    const job = cleanTarn()
    const made = { id: 'signoff:1', who: { id: 'idris', name: 'Idris' }, at: '2026-05-04T09:00:00Z' }
    const signed = { rules: job.houseRules, what: 'read-back' }
    job.apply([{ op: 'add', record: signoffRecord({ doc: job.doc, catalogue }, signed, made) }])
    expect(state(job)).toMatchObject({ different: [], open: [], drawn: [] })
    note(job, 'typed', { 'system.entry1': '45' })
    expect(state(job).different).toHaveLength(1)
    note(job, 'keyed', { 'system.entry1': '30' })
    expect(state(job)).toMatchObject({ different: [], open: ['system.entry1'] })
  })

  it('draws three lines once it has saved: the same for two people, others after it saved again', () => {
    const job = cleanTarn()
    const all = wanted(job)
    // Read before it saved: nothing shows yet that it kept any of it.
    note(job, 'keyed', all, false)
    note(job, 'typed', all, false)
    const before = state(job).drawn
    expect(before).toHaveLength(3)
    note(job, 'keyed', all, true)
    const drawn = state(job).drawn
    expect(drawn).toHaveLength(3)
    expect(state(job).drawn).toEqual(drawn)
    expect(drawn).not.toEqual(before)
    note(job, 'typed', Object.fromEntries(drawn.slice(1).map((address) => [address, all[address] ?? ''])))
    expect(state(job).drawn).toEqual([drawn[0]])
    note(job, 'typed', Object.fromEntries(drawn.map((address) => [address, all[address] ?? ''])))
    expect(state(job).drawn).toEqual([])
  })
})

describe('the readings of a panel', () => {
  const known = (job: SmallJob) => {
    const { now, saved, unsaved, last } = readingsOf(job.doc, 'panel/tarn-40')
    const values = (map: typeof now) => Object.fromEntries([...map].map(([at, { value }]) => [at, value]))
    return { now: values(now), saved: values(saved), unsaved: values(unsaved), last: last?.id ?? null }
  }

  it('count as kept once it saved, with what was keyed before', () => {
    const job = cleanTarn()
    note(job, 'keyed', { 'system.exit': '45' }, false)
    expect(known(job)).toEqual({
      ...{ now: { 'system.exit': '45' }, saved: {}, unsaved: { 'system.exit': '45' }, last: 'held:0' },
    })
    note(job, 'keyed', { 'system.entry1': '20' }, true)
    expect(known(job)).toMatchObject({
      saved: { 'system.exit': '45', 'system.entry1': '20' },
      ...{ unsaved: {}, last: null },
    })
  })

  it('are gone where what was not saved was dropped, and where it was brought back to how it came', () => {
    const job = cleanTarn()
    note(job, 'keyed', { 'system.exit': '45' }, true)
    note(job, 'keyed', { 'system.exit': '90', 'zone.7.chime': 'on' }, false)
    note(job, 'dropped', {})
    expect(known(job)).toEqual({
      now: { 'system.exit': '45' },
      saved: { 'system.exit': '45' },
      ...{ unsaved: {}, last: null },
    })
    note(job, 'wiped', {})
    expect(known(job)).toEqual({ now: {}, saved: {}, unsaved: {}, last: null })
  })

  it('what was read of answers that were dropped says nothing any more', () => {
    const job = cleanTarn()
    note(job, 'keyed', wanted(job), false)
    note(job, 'typed', wanted(job), false)
    expect(state(job).open).toEqual([])
    note(job, 'dropped', {})
    expect(state(job).open).toEqual(Object.keys(wanted(job)))
  })

  it('of another panel say nothing of this one', () => {
    const job = cleanTarn()
    note(job, 'typed', wanted(job))
    const [record] = recordsOf(job.doc, 'held')
    const other = cleanTarn()
    if (record) other.apply([{ op: 'add', record: { ...record, panel: 'panel/quillet-32' } }])
    expect(state(other).open).toEqual(Object.keys(wanted(other)))
  })
})
