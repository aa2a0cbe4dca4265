import fc from 'fast-check'
import { applyOps, type Op } from '../job/edit.ts'
import { recordsOf } from '../job/document.ts'
import { catalogue, SmallJob } from './small-job.ts'

/*
 * Jobs as careless people leave them: any devices on any panel, and any field set to anything its schema takes.
 */
const panels = catalogue.all('panel')
const models = catalogue.all('device')
/** Receivers that a panel can have, and the devices that one of them hears, wired ones too. */
const receiversOf = (panel: (typeof panels)[number]) =>
  panel.receivers.flatMap((id) => catalogue.get('receiver', id) ?? [])
const heardBy = new Map(
  panels.map((panel) => {
    const families = new Set(receiversOf(panel).flatMap((item) => item.hears.map((heard) => heard.family)))
    return [panel.id, models.filter((model) => model.family === null || families.has(model.family))]
  }),
)
const rooms = ['porch', 'hall', 'kitchen', 'landing', 'store']

type Spoil = (job: SmallJob) => Op | null
const pick = <T>(list: readonly T[], at: number): T | undefined => list[at % Math.max(list.length, 1)]

/** Sets one field of some record of a type. */
const setting = (
  type: 'zone' | 'device' | 'job' | 'room' | 'area',
  field: string,
  values: fc.Arbitrary<unknown>,
) =>
  fc.tuple(fc.nat(20), values).map(([at, to]): Spoil => (job) => {
    const record = pick(recordsOf(job.doc, type), at) as { readonly id: string } | undefined
    if (!record) return null
    return {
      op: 'set',
      id: record.id,
      field,
      from: (record as unknown as Record<string, unknown>)[field],
      to,
    }
  })
/** Learns some zone by an ID, or takes it out again. */
const learned = fc
  .tuple(fc.nat(20), fc.constantFrom(null, '20417733', 'A204118'))
  .map(([at, serial]): Spoil => (job) => {
    const zone = pick(recordsOf(job.doc, 'zone'), at)
    return zone ? { op: 'add', record: job.heard(zone.id, serial) } : null
  })
const seconds = fc.option(fc.integer({ min: 0, max: 400 }))
const typeKeys = [...new Set(panels.flatMap((panel) => panel.responseTypes.map((type) => type.key)))]
const spoils: fc.Arbitrary<Spoil> = fc.oneof(
  setting('zone', 'response', fc.option(fc.constantFrom(...typeKeys))),
  setting('zone', 'loop', fc.option(fc.integer({ min: 1, max: 6 }))),
  setting('zone', 'number', fc.integer({ min: 1, max: 90 })),
  setting('zone', 'asProgrammed', fc.boolean()),
  setting('job', 'listed', fc.boolean()),
  setting(
    'zone',
    'label',
    fc.constantFrom('', 'Zone 3', 'Hall', 'Hall door', 'Käsekammer', 'A very long label indeed, cut'),
  ),
  setting('zone', 'equipmentCode', fc.option(fc.constantFrom('318', '001', '411'))),
  setting('zone', 'equipmentKind', fc.option(fc.constantFrom('smoke', 'opening', 'motion'))),
  ...[
    'chime',
    'report',
    'supervise',
    'transmissionDelay',
    'doubleKnock',
    'dayZone',
    'pinned',
    'existing',
  ].map((field) => setting('zone', field, fc.boolean())),
  setting('zone', 'sirens', fc.option(fc.subarray([1, 2, 3, 4]))),
  setting('zone', 'fireGroup', fc.option(fc.integer({ min: 1, max: 4 }))),
  setting('zone', 'chimeStyle', fc.option(fc.constantFrom('two', 'wood', 'bell'))),
  setting('zone', 'area', fc.constantFrom('area:1', 'area:2')),
  setting('zone', 'area2', fc.constantFrom(null, 'area:1', 'area:2')),
  setting('zone', 'leaves', fc.constantFrom(null, 'area:1')),
  setting('zone', 'wiring', fc.constantFrom(null, 'closed', 'end-of-line')),
  setting('zone', 'reedOn', fc.option(fc.boolean())),
  setting('zone', 'endOfLineOn', fc.option(fc.boolean())),
  learned,
  ...['entry1', 'entry2', 'exit', 'exitStay', 'abortWindow', 'sirenSeconds'].map((field) =>
    setting('job', field, seconds),
  ),
  setting('job', 'swinger', fc.option(fc.integer({ min: 0, max: 15 }))),
  setting('job', 'superviseMinutes', fc.option(fc.integer({ min: 0, max: 2000 }))),
  setting('job', 'monitored', fc.boolean()),
  setting('job', 'grade', fc.constantFrom(1, 2, 3)),
  setting('job', 'slowest', fc.constantFrom('ordinary', 'slow')),
  setting('job', 'petKg', fc.option(fc.integer({ min: 0, max: 60 }))),
  setting('job', 'stayToEntry2', fc.boolean()),
  setting('job', 'exitUnitSwitched', fc.boolean()),
  setting('job', 'entryBeeps', fc.option(fc.boolean())),
  setting('job', 'outputs', fc.constantFrom(null, 'latched', 'momentary')),
  setting('job', 'openAtExit', fc.constantFrom(null, 'exclude', 'alarm')),
  setting('job', 'keySwitch', fc.constantFrom('none', 'latching')),
  setting('job', 'keysOff', fc.subarray(['fire key', 'help key'])),
  setting(
    'device',
    'use',
    fc.constantFrom('entry', 'entry-far', 'opening', 'inner-way', 'sees-entry', 'on-way', 'none'),
  ),
  setting('device', 'sticker', fc.constantFrom(null, '20417733', 'A204118')),
  setting('device', 'slot', fc.option(fc.integer({ min: 1, max: 20 }))),
  setting('device', 'gapMm', fc.option(fc.integer({ min: 0, max: 60 }))),
  setting('device', 'onSteel', fc.boolean()),
  setting('device', 'heightM', fc.option(fc.constantFrom(1, 2, 3))),
  setting('device', 'existing', fc.boolean()),
  setting('device', 'inputs', fc.constantFrom(null, 'reed', 'terminals', 'both')),
  setting('device', 'use', fc.constantFrom('none', 'entry', 'opening', 'on-way', 'off-way', 'always-on')),
  setting('zone', 'device', fc.constant(null)),
  setting('zone', 'event', fc.constantFrom('open', 'terminals')),
  setting('device', 'plan', fc.constantFrom(null, 'keep', 'replace')),
  setting('device', 'storedIn', fc.constantFrom(null, 'panel', 'keypad')),
  setting('device', 'mappedOver', fc.option(fc.integer({ min: 1, max: 8 }))),
  setting('room', 'heated', fc.boolean()),
  setting('room', 'metal', fc.boolean()),
  setting('room', 'compartment', fc.constantFrom('', 'North', 'South')),
  setting('room', 'area', fc.constantFrom(null, 'area:2')),
  setting('area', 'entry1', seconds),
)

/** A job on any panel with a described house, numbered, and then spoilt in up to eight places. */
export const carelessJobs = fc
  .record({
    panel: fc.constantFrom(...panels),
    // Most of it is heard by the panel, some of it not.
    kit: fc.array(fc.tuple(fc.nat(200), fc.constantFrom(...rooms), fc.nat(9)), {
      minLength: 1,
      maxLength: 9,
    }),
    spoils: fc.array(spoils, { minLength: 1, maxLength: 8 }),
  })
  .map(({ panel, kit, spoils: list }) => {
    const job = new SmallJob({
      panel: panel.id,
      region: panel.regions[0] ?? 'europe',
      radioFirmware: panel.radioFirmware.at(-1) ?? null,
    })
      .area(2, 'Annexe')
      .user('Nell')
    for (const room of rooms) job.room(room)
    job
      .way('porch', 'hall', 4)
      .way('hall', 'kitchen', 6)
      .way('hall', 'landing', 5, true)
      .way('kitchen', 'store', 3)
    job.opening('front-door', 'porch').opening('store-door', 'store')
    for (const { id } of receiversOf(panel))
      if (id !== panel.builtIn) job.receiver(id.slice('receiver/'.length))
    kit.forEach(([at, room, stray], index) => {
      const model = pick(stray === 0 ? models : (heardBy.get(panel.id) ?? models), at)
      if (model) job.add(`d${index}`, model.id.slice('device/'.length), { room, position: `place ${index}` })
    })
    job.number()
    for (const spoil of list) {
      const op = spoil(job)
      if (op && applyOps(job.doc, [op]).ok) job.apply([op])
    }
    return job
  })
