import { describe, expect, it } from 'vitest'
import { events, type DeviceEvent } from '../catalogue/schema.ts'
import { pinOps } from '../job/start.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { changedSince, PANEL, proofCopy } from './copy.ts'
import { cautions } from './advice.ts'
import { proofRoute, settledSubjects } from './owed.ts'
import { eventProofs, isReported, type ProofKind } from './table.ts'
import { itemOf, itemsOf, learned, pass, record, stopOf, tarn } from './testing/proved-jobs.ts'

/* What stands on the route by name, and what a proof is of, told exactly. */

it('owes of each event what the table says', () => {
  const table: Record<DeviceEvent, ProofKind[]> = {
    ...{ open: ['toggle', 'armed'], terminals: ['toggle', 'armed'], motion: ['walk', 'armed'] },
    ...{ glass: ['tester', 'armed'], shock: ['tester', 'armed'], smoke: ['agent'], heat: ['agent'] },
    ...{ freeze: ['agent'], co: ['agent'], flood: ['agent'], panic: ['trip'], 'panic-silent': ['trip'] },
    ...{ medical: ['trip'], 'arm-away': ['button'], 'arm-stay': ['button'], disarm: ['button'] },
    output: ['button'],
  }
  for (const event of events) expect([event, eventProofs(event)]).toEqual([event, table[event]])
  expect(events.filter((event) => !isReported(event))).toEqual(['arm-away', 'arm-stay', 'disarm', 'output'])
})

describe('a stop on the route', () => {
  it('is called by its zones, its slot or its class, and stands by room and order', () => {
    const job = tarn()
      .add('bell', 'horn-w', { slot: 2, room: 'hall' })
      .add('pad', 'tapwell', { slot: 1, room: 'hall', order: 0 })
    const names = proofRoute(job.doc, catalogue, null).map((stop) => `${stop.room || '-'}: ${stop.name}`)
    expect(names).toEqual([
      ...['porch: zone 01', 'study: zone 02'],
      ...['hall: keypad 1', 'hall: zone 03', 'hall: siren 2'],
      ...['lounge: zone 04', 'landing: zone 05, 06, 07', 'kitchen: zone 08', 'bedroom: zone 09'],
      ...['-: fob 1', '-: panel'],
    ])
    const relay = new SmallJob({ panel: 'panel/ostler-s-8' }).add('relay', 'spanner-8')
    expect(stopOf(relay, 'device:relay').name).toBe('repeater')
    expect(stopOf(job, PANEL)).toMatchObject({ title: 'Tarn 40', device: null, model: null, zones: [] })
  })

  it('has no panel without one, nor without a device', () => {
    expect(proofRoute(new SmallJob().doc, catalogue, null)).toEqual([])
    const bare = new SmallJob({ panel: null }).add('one', 'reedling')
    expect(proofRoute(bare.doc, catalogue, null).map((stop) => stop.id)).toEqual(['device:one'])
  })

  it('asks a keypad for the emergency keys that are left on, and for none where all are off', () => {
    const job = new SmallJob({ panel: 'panel/morrow-60' }).add('pad', 'keyplate-w', { slot: 1 })
    const keys = catalogue.get('panel', 'panel/morrow-60')?.couplings?.functionKeys ?? []
    expect(keys.length).toBeGreaterThan(1)
    expect(itemOf(job, 'pad', 'calls').label).toBe(keys.join(', '))
    job.set('job:main', { keysOff: keys.slice(0, 1) })
    expect(itemOf(job, 'pad', 'calls').label).toBe(keys.slice(1).join(', '))
    job.set('job:main', { keysOff: [...keys] })
    expect(itemsOf(job, 'pad').map((item) => item.kind)).not.toContain('calls')
  })
})

describe('what was settled', () => {
  it('is what was seen at its own zone by a trip, and still stands', () => {
    const settled = (job: SmallJob) => [...settledSubjects(proofRoute(job.doc, catalogue, null))]
    const job = tarn()
    for (const [key, kind] of [
      ['porch', 'toggle'],
      ['hall', 'walk'],
      ['porch', 'report'],
    ] as const)
      pass(job, key, kind)
    expect(settled(job)).toEqual([])
    pass(job, 'porch', 'armed')
    pass(job, 'kitchen', 'agent')
    pass(job, 'bedroom', 'trip')
    record(job, itemOf(job, 'study', 'armed'), { outcome: 'fail' })
    expect(settled(job).sort()).toEqual(['porch', 'kitchen', 'bedroom'].map((key) => job.zone(key).id).sort())
    job.set('job:main', { entry1: 45 })
    expect(settled(job)).not.toContain(job.zone('porch').id)
  })
})

describe('the cautions, exactly', () => {
  const said = (key: string, kind: ProofKind) =>
    cautions(itemOf(tarn(), key, kind), stopOf(tarn(), key === PANEL ? key : `device:${key}`).model).map(
      (line) => line.split(/[:,]/)[0],
    )

  it.each<[string, ProofKind, string[]]>([
    ['porch', 'placement', ['On a ladder']],
    ['porch', 'toggle', []],
    ['porch', 'tamper', []],
    ['porch', 'armed', ['Siren sound harms hearing']],
    ['porch', 'report', []],
    ['landing', 'agent', ['Test smoke and heat with the maker’s aerosol', 'Siren sound harms hearing']],
    [
      'kitchen',
      'agent',
      ['Test CO with the maker’s test gas or button only; never with exhaust or charcoal.'],
    ],
    ['bedroom', 'trip', ['A panic test can bring police']],
    ['fob', 'trip', ['A panic test can bring police']],
    ['fob', 'button', []],
    ['fob', 'battery', []],
    [PANEL, 'mains', ['Mains']],
    [PANEL, 'battery', ['Batteries']],
    [PANEL, 'path', []],
    [PANEL, 'clock', []],
  ])('%s, %s: %j', (key, kind, lines) => expect(said(key, kind)).toEqual(lines))
})

describe('what changed, in words', () => {
  it('names panel, device, area, loop and slot as they were and are', () => {
    const job = tarn()
    const zone = job.zone('porch').id
    const made = { of: proofCopy(job.doc, catalogue, zone), kind: 'armed', subject: zone } as const
    const changed = () => changedSince(job.doc, catalogue, made)
    expect(changed()).toEqual([])
    job.set(zone, { loop: 4 })
    expect(changed()).toEqual(['loop: 3 then, 4 now', 'ID: 10000000 then, none now'])
    job.set(zone, { loop: 3, area: null })
    expect(changed()).toEqual(['area: Whole premises then, none now'])
    job.set(zone, { area: 'area:1', response: null })
    expect(changed()).toEqual([
      'response: Way in, first delay then, none now',
      'entry delay: 30 s then, none now',
    ])
    const fob = {
      of: proofCopy(job.doc, catalogue, 'device:fob'),
      kind: 'reach',
      subject: 'device:fob',
    } as const
    job.set('device:fob', { slot: 3 })
    expect(changedSince(job.doc, catalogue, fob)).toEqual([
      'slot: 1 then, 3 now',
      'ID: 10000007 then, none now',
    ])
    job
      .apply(pinOps(job.doc, catalogue, ['device/duokey']))
      .set('device:fob', { slot: 1, model: 'device/duokey' })
    expect(changedSince(job.doc, catalogue, fob)[0]).toMatch(/^device: Quartet .* then, Duokey .* now$/)
  })

  it('says where nothing can be compared any more', () => {
    const job = cleanTarn()
    const zone = job.zone('porch').id
    expect(changedSince(job.doc, catalogue, { of: null, kind: 'armed', subject: zone })).toEqual([
      'it keeps no copy of what it proved',
    ])
    const of = proofCopy(job.doc, catalogue, zone)
    expect(changedSince(job.doc, catalogue, { of, kind: 'armed', subject: 'zone:gone' })).toEqual([
      'it is not in the plan any more',
    ])
    expect(changedSince(job.doc, catalogue, { of, kind: 'armed', subject: job.zone('study').id })).toContain(
      'it was of another zone',
    )
    const bare = new SmallJob({ panel: null })
    expect(proofCopy(bare.doc, catalogue, PANEL)).toBeNull()
  })

  it('counts the delay of the zone’s own area, where it has one', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8' }).add('front', 'sill-8', { use: 'entry' }).number()
    learned(job, 'front')
    const delay = () => proofCopy(job.doc, catalogue, job.zone('front').id)?.zones[0]?.delay
    expect(delay()).toBe(30)
    job.set('area:1', { entry1: 20 })
    expect(delay()).toBe(20)
    job.set('area:1', { entry1: null, entry2: 50 })
    expect(delay()).toBe(30)
  })
})
