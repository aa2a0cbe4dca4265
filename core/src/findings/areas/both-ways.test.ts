import { expect } from 'vitest'
import { cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { ostler, quillet } from '../testing/case-jobs.ts'
import { describeBothWays } from '../testing/both-ways.ts'

const window = (job: SmallJob) => job.add('study', 'reedling-slim', { use: 'opening', position: 'window' })

describeBothWays('nothing-unsets', [
  {
    what: 'nothing watches for burglars',
    job: () => new SmallJob().add('landing', 'ember-one').number(),
    says: [],
  },
  {
    what: 'a key switch sets it',
    job: () => window(new SmallJob({ keySwitch: 'latching' })).number(),
    says: [],
  },
  {
    what: 'a keypad',
    job: () => window(new SmallJob()).add('pad', 'tapwell-c', { room: 'hall' }).number(),
    says: [],
  },
  {
    what: 'a fob that sets and unsets',
    job: () => window(new SmallJob()).add('fob', 'quartet-c', { room: '' }).number(),
    says: [],
  },
  {
    what: 'a fob that sets and cannot unset',
    job: () => window(new SmallJob()).add('fob', 'safekey', { room: '' }).number(),
    says: [
      'Zones watch for burglars, and the kit has neither a keypad nor a fob that unsets: nobody could set Tarn 40 or stop its alarm, unless it has keys of its own.',
    ],
  },
  { what: 'a siren is nothing to set with', job: () => new SmallJob(), says: [] },
])

describeBothWays('common-entry', [
  {
    what: 'smoke is watched for whatever is set',
    job: () => ((j) => j.set(j.zone('attic', 'smoke').id, { area2: 'area:2' }))(ostler().area(2, 'Annexe')),
    says: [],
  },
  {
    what: 'where the second area is a part set the zone is watched in both',
    job: () => ((j) => j.set(j.zone('front').id, { area2: 'area:2' }))(quillet().area(2, 'Night')),
    says: [],
  },
])

describeBothWays('two-areas', [
  {
    what: 'the same area twice',
    job: () => ((j) => j.set(j.zone('front').id, { area2: 'area:1' }))(ostler()),
    says: ['Zone 01 is in two areas: both are the same area.'],
    ways: ['Leave it in the first'],
  },
  {
    what: 'a panel that takes two',
    job: () => ((j) => j.set(j.zone('front').id, { area2: 'area:2' }))(ostler().area(2, 'Annexe')),
    says: [],
  },
])

describeBothWays('area-number', [
  { what: 'as many as the panel has', job: () => ostler().area(2, 'Annexe'), says: [] },
  {
    what: 'without a panel nobody can say',
    job: () => new SmallJob({ panel: null }).area(2, 'Annexe'),
    says: [],
  },
])

const padded = () => ostler().add('pad', 'scriber-8', { room: 'hall' }).area(2, 'Annexe').number()
const own = (job: SmallJob, device: string, event?: string) =>
  job.set(job.zone(device, event).id, { area: 'area:2' })
describeBothWays('area-unserved', [
  { what: 'a keypad that was told nothing serves all', job: () => own(padded(), 'front'), says: [] },
  {
    what: 'one of two keypads serves it',
    job: () =>
      own(padded().add('second', 'scriber-8', { room: 'annexe' }).number(), 'front')
        .serves('pad', 1)
        .serves('second', 2),
    says: [],
  },
  {
    what: 'there is nothing to set with at all',
    job: () => own(ostler().area(2, 'Annexe'), 'front'),
    says: [],
  },
  { what: 'only smoke is in it', job: () => own(padded(), 'attic', 'smoke').serves('pad', 1), says: [] },
  {
    what: 'a door that is common to it is in it',
    job: () => ((j) => j.set(j.zone('front').id, { area2: 'area:2' }).serves('pad', 1))(padded()),
    says: ['Annexe has zones that are set, and no keypad or fob sets and unsets it.'],
    ways: ['Let Scriber 8 keypad in hall set it too'],
  },
  {
    what: 'smoke besides a door does not hide the door',
    job: () => own(own(padded(), 'attic', 'smoke'), 'front').serves('pad', 1),
    says: ['Annexe has zones that are set, and no keypad or fob sets and unsets it.'],
  },
  {
    what: 'without a keypad a fob may serve it',
    job: () =>
      own(
        ostler()
          .user('Ola')
          .add('fob', 'quatern-8', { room: '', user: 'user:Ola' })
          .area(2, 'Annexe')
          .number(),
        'front',
      ).serves('fob', 1),
    says: ['Annexe has zones that are set, and no keypad or fob sets and unsets it.'],
    ways: ['Let Quatern 8 fob set it too'],
  },
  { what: 'a panel whose keypads set everything', job: () => cleanTarn(), says: [] },
])

/** An annexe of its own behind the hall, whose door leads to a keypad in the hall. */
const annexe = (hall: Record<string, unknown> = {}, room: Record<string, unknown> = {}): SmallJob => {
  const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11', exitStay: 0 })
    .area(2, 'Annexe')
    .room('hall', { kind: 'hall', ...room })
    .room('annexe')
    .room('loft')
    .way('hall', 'annexe', 5)
    .opening('annexe door', 'annexe')
    .add('annexe', 'sill-8', { position: 'annexe door', use: 'entry' })
    .add('hall', 'watcher-8', { use: 'on-way' })
    .add('porch', 'sill-8', { position: 'front door', use: 'entry' })
    .add('loft', 'watcher-8', { use: 'off-way' })
    .add('pad', 'scriber-8', { room: 'hall' })
    .number()
    .set('room:annexe', { area: 'area:2' })
  return job.set(job.zone('hall').id, hall)
}
const passed = (zone: string) =>
  `From annexe door to its keypad people pass zone ${zone} of Whole premises: while that is set, it alarms on them, for Annexe’s entry delay does not count there.`
describeBothWays('area-passed', [
  { what: 'a motion that follows in its own area', job: () => annexe(), says: [passed('03')] },
  { what: 'one that alarms at once', job: () => annexe({ response: 'instant' }), says: [passed('03')] },
  { what: 'one of the same area', job: () => annexe({ area: 'area:2' }), says: [] },
  { what: 'one that is common to both', job: () => annexe({ area2: 'area:2' }), says: [] },
  { what: 'one that waits itself', job: () => annexe({ response: 'entry-1' }), says: [] },
  { what: 'one for smoke', job: () => annexe({ response: 'fire' }), says: [] },
  { what: 'the hall is in the annexe', job: () => annexe({}, { area: 'area:2' }), says: [] },
])

const night = (job: SmallJob) => job.area(2, 'Night')
const study = () =>
  quillet()
    .add('study', 'sill-slim-8', { use: 'opening' })
    .add('hall', 'watcher-8', { use: 'off-way' })
    .number()
describeBothWays('left-out-of-set', [
  {
    what: 'what watches at night is put into the part set, what does not stays out',
    job: () => night(study()),
    says: [
      'Night leaves zones 001, 002 out: doors and windows that are to be watched while people are in the house, so the night is open.',
    ],
    ways: ['Put them into Night'],
    then: (job) => {
      expect(job.zone('hall').area2).toBeNull()
    },
  },
  {
    what: 'a zone in the part set alone is not watched when all are out',
    job: () =>
      ((j) =>
        j
          .set(j.zone('study').id, { area: 'area:2', area2: null })
          .set(j.zone('front').id, { area2: 'area:2' }))(night(study())),
    says: ['Whole premises leaves zone 002 out: nobody is stopped there while the house is empty.'],
    ways: ['Put them into Whole premises'],
    then: (job) => {
      expect([job.zone('study').area, job.zone('study').area2]).toEqual(['area:1', 'area:2'])
    },
  },
  {
    what: 'the part set that most zones are in is meant',
    job: () => ((j) => j.set(j.zone('front').id, { area2: 'area:3' }))(night(study()).area(3, 'Day')),
    says: [
      'Day leaves zone 002 out: doors and windows that are to be watched while people are in the house, so the night is open.',
    ],
    ways: ['Put them into Day'],
  },
  {
    what: 'all are where they belong',
    job: () =>
      ((j) => j.set(j.zone('study').id, { area2: 'area:2' }).set(j.zone('front').id, { area2: 'area:2' }))(
        night(study()),
      ),
    says: [],
  },
  { what: 'there is no part set', job: () => study(), says: [] },
])
