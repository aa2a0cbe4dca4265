import { expect } from 'vitest'
import { recordsOf } from '../../job/document.ts'
import { cleanMorrow, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { ostler } from '../testing/case-jobs.ts'
import { describeBothWays } from '../testing/both-ways.ts'

const without = (job: SmallJob, ...zones: (readonly [string, string?])[]): SmallJob =>
  job.apply(zones.map(([device, event]) => ({ op: 'remove', record: job.zone(device, event) })))
const zonesOf = (job: SmallJob, device: string) =>
  recordsOf(job.doc, 'zone').filter((zone) => zone.device === `device:${device}`)
const plainFob = () =>
  cleanMorrow().user('Ola').add('keys', 'fourkey', { user: 'user:Ola', room: '' }).number()

describeBothWays('event-without-zone', [
  {
    what: 'a device whose place is not there yet owes none',
    job: () => cleanTarn().add('later', 'reedling', { deferred: 'the door comes in June' }),
    says: [],
  },
  {
    what: 'a device that the panel cannot hear is another matter',
    job: () => cleanTarn().add('shed', 'sill-8', { use: 'opening' }),
    says: [],
  },
  {
    what: 'a device that nobody numbered',
    job: () => cleanTarn().add('shed', 'reedling', { use: 'opening', position: 'window' }),
    says: ['Reedling contact in shed has no zone for reed (loop 3): the panel would not report it.'],
    ways: ['Add the zone: reed'],
    then: (job) => {
      const [zone, ...more] = zonesOf(job, 'shed')
      // Behind the clean job’s ten; its own name, and the code of a contact.
      expect([zone?.event, zone?.loop, more]).toEqual(['open', 3, []])
      expect(recordsOf(job.doc, 'zone').filter(({ number }) => number === zone?.number)).toHaveLength(1)
      expect(zone?.id).toBe('zone:shed-3')
    },
  },
  {
    what: 'both inputs are planned and one has a zone',
    job: () => cleanTarn().set('device:porch', { inputs: 'both' }),
    says: [
      'Reedling contact in porch has no zone for wired terminals (loop 4): the panel would not report it.',
    ],
    ways: ['Add the zone: wired terminals'],
    then: (job) => {
      const labels = zonesOf(job, 'porch').map(({ label }) => label)
      expect(new Set(labels).size).toBe(2)
    },
  },
  {
    what: 'zones that listen to the other input are told as that',
    job: () => cleanTarn().set('device:porch', { inputs: 'terminals' }),
    says: [],
  },
  {
    what: 'a wired contact comes on a number of the wired block',
    job: () => SmallJob.morrow().add('gate', 'contact-w', { use: 'opening' }),
    says: [
      'Contact W wired contact in gate has no zone for terminal pair (loop 1): the panel would not report it.',
    ],
    ways: ['Add the zone: terminal pair'],
    then: (job) => {
      expect(zonesOf(job, 'gate').map(({ number }) => number)).toEqual([1])
    },
  },
  {
    what: 'a plain fob whose disarm button alone is left unprogrammed is cured, not open',
    job: () => without(plainFob(), ['keys', 'disarm']),
    says: [],
  },
  {
    what: 'of a plain fob another button is missed',
    job: () => without(plainFob(), ['keys', 'disarm'], ['keys', 'arm-stay']),
    says: ['Fourkey fob has no zone for right top (loop 2): the panel would not report it.'],
    ways: ['Add its button zone'],
    then: (job) => {
      // The disarm button stays unprogrammed: that is what cures it.
      expect(
        zonesOf(job, 'keys')
          .map(({ event }) => event)
          .sort(),
      ).toEqual(['arm-away', 'arm-stay', 'output'])
    },
  },
  {
    what: 'a plain fob without any button is not cured by that',
    job: () => cleanMorrow().user('Ola').add('keys', 'fourkey', { user: 'user:Ola', room: '' }),
    says: [
      'Fourkey fob has no zone for left top and right top and left low and right low (loop 1, 2, 3, 4): the panel would not report it.',
    ],
    ways: ['Add its 4 button zones'],
  },
])

describeBothWays('loop-wrong', [
  {
    what: 'a contact whose inputs are switched has no loop to be wrong',
    job: () => ((j) => j.set(j.zone('front').id, { loop: 7 }))(ostler()),
    says: [],
  },
  {
    what: 'of a wired zone no loop is heard',
    job: () =>
      ((j) => j.set(j.zone('gate').id, { loop: 3 }))(
        SmallJob.morrow().add('gate', 'contact-w', { use: 'opening' }).number(),
      ),
    says: [],
  },
  {
    what: 'a loop of no event of it is put right alone',
    job: () => ((j) => j.set(j.zone('porch').id, { loop: 1 }))(cleanTarn()),
    says: ['Zone 01 listens to loop 1; the reed of Reedling contact is loop 3.'],
    ways: ['Use loop 3'],
  },
  {
    what: 'the terminals that have their own zone are not offered again',
    job: () =>
      ((j) => j.set(j.zone('porch', 'open').id, { loop: 4 }))(
        cleanTarn().set('device:porch', { inputs: 'both' }).number(),
      ),
    says: ['Zone 01 listens to loop 4; the reed of Reedling contact is loop 3.'],
    ways: ['Use loop 3'],
  },
  {
    what: 'no loop at all',
    job: () => ((j) => j.set(j.zone('landing', 'heat').id, { loop: null }))(cleanTarn()),
    says: ['Zone 06 listens to loop none; the heat of Ember Three smoke is loop 2.'],
    ways: ['Use loop 2'],
  },
  {
    what: 'another event of a detector is no input',
    job: () => ((j) => j.set(j.zone('landing', 'heat').id, { loop: 1 }))(cleanTarn()),
    says: ['Zone 06 listens to loop 1; the heat of Ember Three smoke is loop 2.'],
    ways: ['Use loop 2'],
  },
  {
    what: 'the terminals’ zone on the reed’s loop may be meant as the reed’s',
    job: () =>
      ((j) => j.set(j.zone('porch').id, { event: 'terminals', loop: 3 }))(
        cleanTarn().set('device:porch', { inputs: 'terminals' }),
      ),
    says: ['Zone 01 listens to loop 3; the wired terminals of Reedling contact is loop 4.'],
    ways: ['Use loop 4', 'Plan the reed for this zone'],
  },
])

describeBothWays('zone-open', [
  {
    what: 'what sends what it is for takes it',
    job: () => ((j) => j.set(j.zone('bedroom').id, { device: null }))(cleanTarn()),
    says: ['Zone 09 (Bedroom Panic) has no device: a successor takes it over, or it goes.'],
    ways: ['Give it to Beckon pendant in bedroom', 'Remove the zone'],
  },
  {
    what: 'of two that could, the one of its place comes first',
    job: () =>
      ((j) => without(j, ['cellar']).set(j.zone('study').id, { device: null, label: 'Cellar Window' }))(
        cleanTarn().add('cellar', 'reedling', { use: 'opening', position: 'window' }).number(),
      ),
    says: ['Zone 02 (Cellar Window) has no device: a successor takes it over, or it goes.'],
    ways: [
      'Give it to Reedling contact in cellar',
      'Give it to Reedling Slim contact in study',
      'Remove the zone',
    ],
  },
  {
    what: 'one that has no place yet does not take it',
    job: () =>
      ((j) => j.set(j.zone('study').id, { device: null }).set('device:study', { deferred: 'later' }))(
        cleanTarn(),
      ),
    says: ['Zone 02 (Study Window) has no device: a successor takes it over, or it goes.'],
    ways: ['Remove the zone'],
  },
])

describeBothWays('inputs-differ', [
  {
    what: 'a model without terminals is planned with them',
    job: () => cleanTarn().set('device:study', { inputs: 'terminals' }),
    says: [
      'Reedling Slim contact in study is planned with its terminals, which this model does not have to choose from.',
    ],
    ways: ['Plan it as it comes'],
  },
  {
    what: 'a model without terminals is planned with its reed',
    job: () => cleanTarn().set('device:study', { inputs: 'reed' }),
    says: [],
  },
  {
    what: 'what is planned is listened to',
    job: () => cleanTarn().set('device:porch', { inputs: 'reed' }),
    says: [],
  },
  {
    what: 'both are planned and one has no zone yet',
    job: () => cleanTarn().set('device:porch', { inputs: 'both' }),
    says: [],
  },
  {
    what: 'no zone yet listens to either',
    job: () => without(cleanTarn().set('device:porch', { inputs: 'terminals' }), ['porch']),
    says: [],
  },
  {
    what: 'of inputs that are switched both are planned and one is on',
    job: () => ostler().set('device:front', { inputs: 'both' }),
    says: [
      'Sill 8 contact in front is planned with its reed and its terminals; its zones listen to its reed.',
    ],
    ways: ['Have its zones listen to its reed and its terminals', 'Plan its reed, as its zones have it'],
  },
])

describeBothWays('equipment-wrong', [
  {
    what: 'a panel that asks for a code has none',
    job: () => ((j) => j.set(j.zone('porch').id, { equipmentCode: null }))(cleanTarn()),
    says: ['Zone 01 has equipment code none; Reedling contact is 318 on Tarn 40.'],
    ways: ['Use 318'],
  },
  {
    what: 'a panel that asks for a code has another',
    job: () => ((j) => j.set(j.zone('porch').id, { equipmentCode: '999' }))(cleanTarn()),
    says: ['Zone 01 has equipment code 999; Reedling contact is 318 on Tarn 40.'],
  },
  {
    what: 'a panel that asks for none has one',
    job: () => ((j) => j.set(j.zone('front').id, { equipmentCode: '999' }))(cleanMorrow()),
    says: [],
  },
])

describeBothWays('switches-off', [
  {
    what: 'the terminals alone are on',
    job: () => ((j) => j.set(j.zone('front').id, { reedOn: false, terminalsOn: true }))(ostler()),
    says: [],
  },
])
describeBothWays('end-of-line-alone', [
  {
    what: 'its terminals are on',
    job: () => ((j) => j.set(j.zone('front').id, { endOfLineOn: true, terminalsOn: true }))(ostler()),
    says: [],
  },
])

const gate = (over: Record<string, unknown>) =>
  ((j) => j.set(j.zone('gate').id, over))(
    SmallJob.morrow().add('gate', 'contact-w', { use: 'opening' }).number(),
  )
describeBothWays('resistor-wrong', [
  { what: 'a closed loop has none', job: () => gate({ wiring: 'closed', resistorOhm: 2200 }), says: [] },
  { what: 'an open loop has none', job: () => gate({ wiring: 'open', resistorOhm: 2200 }), says: [] },
  {
    what: 'double end of line has two',
    job: () => gate({ wiring: 'double', resistorOhm: 2200 }),
    says: ['Zone 01 ends in 2200 ohms; Morrow 60 expects 3300 ohms.'],
  },
  {
    what: 'nobody noted which',
    job: () => gate({ wiring: 'end-of-line', resistorOhm: null }),
    says: ['Zone 01 ends in a resistor of unknown value; Morrow 60 expects 3300 ohms.'],
  },
])
