import { describe, expect, it } from 'vitest'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { leftOutOf, learningRound, type RoundBy } from './round.ts'
import { targetsOf } from './learn.ts'

const round = (job: SmallJob, by: RoundBy): [string, string[]][] =>
  learningRound({ doc: job.doc, catalogue }, targetsOf(job.doc, catalogue), by).map((part) => [
    part.name,
    part.targets.map(({ device }) => device.id.replace('device:', '')),
  ])

/** A house whose rooms lie on a line from the porch: hall, kitchen, then up to landing and bed; a store is joined to the kitchen. */
function house(): SmallJob {
  return new SmallJob()
    .room('Porch')
    .room('Hall')
    .room('Kitchen')
    .room('Store')
    .room('Landing')
    .room('Bed')
    .way('Porch', 'Hall', 3)
    .way('Hall', 'Kitchen', 4)
    .way('Kitchen', 'Store', 2)
    .way('Hall', 'Landing', 5, true)
    .way('Landing', 'Bed', 3)
    .opening('Front door', 'Porch')
}

describe('the round of a house', () => {
  it('goes from the door through every room, the side trip before the far end', () => {
    const job = house()
    for (const room of ['Bed', 'Store', 'Landing', 'Porch', 'Kitchen'])
      job.add(room.toLowerCase(), 'reedling', { room, use: 'opening' })
    job.number()
    // Porch, kitchen and store, then back through the hall and up: upstairs first would be walked twice.
    expect(round(job, 'room')).toEqual([
      ['Porch', ['porch']],
      ['Kitchen', ['kitchen']],
      ['Store', ['store']],
      ['Landing', ['landing']],
      ['Bed', ['bed']],
    ])
  })

  it('begins at the door of every day, wherever that is', () => {
    const job = house().set('opening:Front door', { use: 'occasional' }).opening('Back door', 'Store')
    for (const room of ['Porch', 'Kitchen', 'Store']) job.add(room, 'reedling', { room, use: 'opening' })
    expect(round(job.number(), 'room').map(([name]) => name)).toEqual(['Store', 'Kitchen', 'Porch'])
  })

  it('names rooms however they are written, and puts behind them what is not described, last what has no room', () => {
    const job = house()
      .add('fob', 'quartet', { slot: 1, room: '' })
      .add('shed', 'reedling', { room: 'Shed', use: 'opening' })
      .add('attic', 'reedling', { room: 'Attic', use: 'opening' })
      .add('bed', 'reedling', { room: ' bed', use: 'opening' })
      .add('hall', 'stilt', { room: 'HALL' })
      .number()
    expect(round(job, 'room').map(([name]) => name)).toEqual([
      'HALL',
      ' bed',
      ...['Shed', 'Attic'],
      'Carried and unplaced',
    ])
  })

  it('follows the numbers where nobody described the house', () => {
    const job = new SmallJob()
    for (const room of ['Porch', 'Annexe', 'Kitchen']) job.add(room, 'reedling', { room, use: 'opening' })
    const numbered = job.number()
    const byNumber = round(numbered, 'number').flatMap(([, devices]) => devices)
    expect(round(numbered, 'room').map(([name]) => name)).toEqual(byNumber)
  })
})

describe('the bench', () => {
  it('goes box by box, motions last: whoever moves about trips them', () => {
    const job = new SmallJob()
      .add('hall', 'stilt', { room: 'Hall' })
      .add('porch', 'reedling', { room: 'Porch', use: 'entry' })
      .add('dog', 'stilt-hound', { room: 'Lounge' })
      .add('smoke', 'ember-one', { room: 'Landing' })
      .add('back', 'reedling', { room: 'Kitchen', use: 'opening' })
      .number()
    expect(round(job, 'box')).toEqual([
      ['Ember One smoke', ['smoke']],
      ['Reedling contact', ['porch', 'back']],
      ['Stilt Hound motion', ['dog']],
      ['Stilt motion', ['hall']],
    ])
  })

  it('as in the house has repeaters before what hangs on them', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', region: 'europe', radioFirmware: '9.99' })
      .add('porch', 'sill-8', { room: 'Porch', use: 'entry' })
      .add('relay', 'spanner-8', { room: 'Landing' })
      .number()
    for (const by of ['room', 'box'] as const)
      expect(round(job, by)[0]).toEqual(['Repeaters first', ['relay']])
  })
})

describe('every order', () => {
  it.each(['room', 'box', 'number'] as const)('by %s leaves out and doubles nothing', (by) => {
    const job = house()
      .add('three', 'ember-three', { room: 'Landing' })
      .add('fob', 'quartet', { slot: 1 })
      .add('hall', 'stilt', { room: 'Hall' })
      .number()
    const all = targetsOf(job.doc, catalogue).map(({ id }) => id)
    const gone = learningRound({ doc: job.doc, catalogue }, targetsOf(job.doc, catalogue), by)
    expect(gone.flatMap(({ targets }) => targets.map(({ id }) => id)).sort()).toEqual([...all].sort())
    expect(all.length).toBe(5)
    expect(learningRound({ doc: job.doc, catalogue }, [], by)).toEqual([])
  })
})

it('says what is not learned now, and why; a wired device was never to be', () => {
  const job = new SmallJob()
    .add('hall', 'stilt', { room: 'Hall', deferred: 'plaster still wet' })
    .add('cable', 'contact-w', { room: 'Store', deferred: 'no cable yet' })
    .add('porch', 'reedling', { room: 'Porch', use: 'entry' })
  expect(leftOutOf({ doc: job.doc, catalogue })).toEqual([
    { id: 'device:hall', name: 'Stilt motion, Hall', why: 'plaster still wet' },
  ])
})
