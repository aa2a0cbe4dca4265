import { describe, expect, it } from 'vitest'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { recordsOf } from '../job/document.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { numberAll } from './number-all.ts'

const order = (job: SmallJob): string[] =>
  recordsOf(job.doc, 'zone')
    .toSorted((a, b) => a.number - b.number)
    .map(({ device }) => device?.slice('device:'.length) ?? '')
const numbered = (job: SmallJob) => {
  let count = 0
  return numberAll(job.doc, catalogue, {
    newId: () => `zone:new${(count += 1)}`,
    houseRules: defaultHouseRules,
  })
}

describe('the reading order of windows', () => {
  /** A house of two floors: porch 4 m hall 6 m kitchen 3 m larder, stairs from hall to landing; each room has a window. */
  const house = () =>
    new SmallJob()
      .room('porch', { kind: 'hall', floor: 'ground' })
      .room('landing', { kind: 'hall', floor: 'up' })
      .room('larder', { kind: 'kitchen', floor: 'ground' })
      .room('kitchen', { kind: 'kitchen', floor: 'ground' })
      .room('hall', { kind: 'hall', floor: 'ground' })
      .way('porch', 'hall', 4)
      .way('hall', 'kitchen', 6)
      .way('kitchen', 'larder', 3)
      .way('hall', 'landing', 1, true)
  const windows = (job: SmallJob, ...keys: string[]) => {
    for (const key of keys) job.add(key, 'reedling-slim', { position: 'window', use: 'opening' })
    return job.number()
  }

  it('is the walk from the first way in, floor by floor', () => {
    const job = windows(
      house().opening('front door', 'porch'),
      'landing',
      'larder',
      'kitchen',
      'hall',
      'porch',
    )
    expect(order(job)).toEqual(['porch', 'hall', 'kitchen', 'larder', 'landing'])
  })

  it('has what hangs in no known room last', () => {
    const job = windows(house().opening('front door', 'porch'), 'cellar', 'landing', 'hall')
    expect(order(job)).toEqual(['hall', 'landing', 'cellar'])
  })

  it('is the order of the kit where no way in is known', () => {
    expect(order(windows(house(), 'larder', 'landing', 'porch'))).toEqual(['larder', 'landing', 'porch'])
  })

  it('begins with the entry doors, of which what only sees one is none', () => {
    const job = new SmallJob()
      .add('den', 'reedling-slim', { use: 'opening', position: 'window' })
      .add('passage', 'stilt', { use: 'sees-entry' })
      .add('back', 'reedling', { use: 'entry', position: 'door' })
      .number()
    expect(order(job)).toEqual(['back', 'den', 'passage'])
  })
})

describe('what finds no number', () => {
  it('is named with what stands in its way: live terminals, and what is kept for the wired block', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
      .add('gate', 'contact-w')
      .number()
    for (const number of [2, 3])
      job.apply([{ op: 'add', record: { id: `terminal:${number}`, type: 'terminal', number, state: 'off' } }])
    // 64 numbers: 63 and 64 are templates, 8 terminals are live, and of the block of 1 to 5 two are off but kept.
    for (let count = 0; count < 53; count++) job.add(`w${count}`, 'sill-slim-8', { position: 'window' })
    const { left, added } = numbered(job)
    expect(added).toBe(52)
    expect(left.map(({ reason }) => reason)).toEqual([
      'No wireless number is free for its 1 zone: Ostler S 8 has 52 to give of 01–64 (8 are live wired terminals, 2 are kept for the wired block, 2 are templates).',
    ])
  })

  it('counts what does not fit and what has no place yet apart', () => {
    const job = new SmallJob()
      .add('later', 'stilt', { deferred: 'unknown room' })
      .add('other', 'sill-8')
      .add('another', 'sill-8')
      .add('den', 'reedling')
    expect(numbered(job)).toMatchObject({ added: 1, without: { unfit: 2, deferred: 1 }, left: [] })
  })

  it('is a fob for which no whole group is left', () => {
    const job = SmallJob.morrow().add('fob1', 'fourkey', { room: '' }).number()
    const numbers = (fob: string) =>
      recordsOf(job.doc, 'zone')
        .flatMap(({ device, number }) => (device === `device:${fob}` ? [number] : []))
        .toSorted((a, b) => a - b)
    expect(numbers('fob1')).toEqual([80, 81, 82, 83])
    // Six groups of four from 60 to 83: a button that was moved by hand spoils a second one.
    job.set(job.zone('fob1', 'disarm').id, { number: 70 })
    for (const fob of ['fob2', 'fob3', 'fob4', 'fob5', 'fob6']) job.add(fob, 'fourkey', { room: '' })
    expect(numbered(job).left).toEqual([
      { device: 'device:fob6', reason: 'No group of 4 fob numbers is free for its 4 buttons.' },
    ])
    job.number()
    expect(['fob2', 'fob3', 'fob4', 'fob5', 'fob6'].map((fob) => numbers(fob)[0])).toEqual([
      76,
      72,
      64,
      60,
      undefined,
    ])
    // One more than the panel has fobs for does not fit at all.
    const many = SmallJob.morrow()
    for (let count = 1; count <= 7; count++) many.add(`fob${count}`, 'fourkey', { room: '' })
    expect(numbered(many)).toMatchObject({ left: [], without: { unfit: 1 }, added: 24 })
  })
})
