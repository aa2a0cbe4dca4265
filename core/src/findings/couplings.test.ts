import { describe, expect, it } from 'vitest'
import { SmallJob } from '../testing/small-job.ts'
import { exitInStay } from '../response/delays.ts'
import { catalogue } from '../testing/small-job.ts'

const told = (job: SmallJob, rule: string) =>
  job.findings().flatMap((item) => (item.rule === rule ? item.text : []))

describe('verified fire', () => {
  const pair = () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
      .room('attic')
      .room('study')
      .room('cellar')
      .add('attic', 'brander-8')
      .add('study', 'brander-8')
      .add('cellar', 'brander-8')
      .number()
    for (const key of ['attic', 'study', 'cellar'])
      job.set(job.zone(key, 'smoke').id, { response: 'fire-verified', reason: 'cooking haze', fireGroup: 1 })
    return job
  }

  it('needs two detectors of one group in one fire compartment', () => {
    const job = pair()
    expect(told(job, 'verified-alone')).toEqual([])
    job.set('room:attic', { compartment: 'North' }).set('room:study', { compartment: 'north ' })
    job.set('room:cellar', { compartment: 'South' })
    expect(told(job, 'verified-alone')).toEqual([
      'Zone 05 needs a second detector to agree but is the only one of group 1 in the fire compartment South: a fire there alarms only once it has spread.',
    ])
    job.set('room:cellar', { compartment: 'North' })
    expect(told(job, 'verified-alone')).toEqual([])
  })

  it('takes a room whose compartment nobody said for none of the others', () => {
    const job = pair().set('room:attic', { compartment: 'North' })
    // The attic is told apart; the other two may be one compartment, as far as anybody said.
    expect(told(job, 'verified-alone')).toHaveLength(1)
    expect(told(job, 'verified-alone')[0]).toContain('Zone 01')
  })
})

describe('the exit delay in stay', () => {
  const of = (panel: string, over: Record<string, number | null>) => {
    const job = new SmallJob({ panel: `panel/${panel}`, exit: 60, ...over })
    return exitInStay(job.doc, catalogue.get('panel', `panel/${panel}`), 'area:1')
  }
  // World.md and the pack: the same on Tarn, Pinfold and Sallow, of its own on Ostler and Quillet, none on Morrow.
  it.each([
    ['tarn-40', {}, 60],
    ['sallow-m', { exitStay: 20 }, 60],
    ['quillet-32', { exitStay: 20 }, 20],
    ['ostler-s-8', { exitStay: null }, null],
    ['morrow-60', { exitStay: 20 }, 0],
  ] as const)('of the %s with %o is %s', (panel, over, seconds) => expect(of(panel, over)).toBe(seconds))

  it('is that of the area where it has one of its own', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11', exitStay: 20 })
      .area(2, 'Annexe', { exitStay: 35 })
      .area(3, 'Barn', { exit: 90 })
    const seconds = (area: string) => exitInStay(job.doc, catalogue.get('panel', 'panel/ostler-s-8'), area)
    expect(['area:1', 'area:2', 'area:3'].map(seconds)).toEqual([20, 35, 20])
  })

  it('is not judged on a panel that has no such field', () => {
    const job = SmallJob.morrow({ exitStay: 20 })
    expect(told(job, 'delay-over-limit')).toEqual([])
  })

  it('of none at all is not measured by the limit for leaving the house', () => {
    const job = new SmallJob({
      region: 'north-america',
      panel: 'panel/ostler-s-9',
      radioFirmware: '2.11',
      exitStay: 0,
    })
    expect(told(job, 'delay-over-limit')).toEqual([])
    job.set('job:main', { exitStay: 20 })
    expect(told(job, 'delay-over-limit')).toEqual([
      'Exit delay of stay is 20 s; CP-01 asks for at least 45 s (ANSI/SIA CP-01: entry 30–240 s, exit 45–255 s, abort window 15–45 s; entry + abort at most 60 s where a listing or certificate asks it (confirm)).',
    ])
  })

  it('spares a motion that is on in stay a keypad upstairs', () => {
    const job = (panel: string, over: Record<string, number | null>) =>
      new SmallJob({ panel: `panel/${panel}`, entry2: 50, radioFirmware: null, ...over })
        .add('porch', 'sill-8', { use: 'entry' })
        .add('hall', 'watcher-8', { use: 'on-way-night' })
        .number()
    expect(told(job('quillet-32', { exitStay: 20 }), 'stay-motion')).toEqual([])
    expect(told(job('quillet-32', { exitStay: null }), 'stay-motion')[0]).toContain(
      'neither a fob nor a keypad',
    )
  })
})

describe('day zones', () => {
  const pinfold = () =>
    new SmallJob({ panel: 'panel/pinfold-16', grade: 1, entry2: 45 })
      .add('smoke', 'ashcap')
      .add('study', 'pebble')
      .number()

  it('are none of what alarms at any hour', () => {
    const job = pinfold()
    job.set(job.zone('smoke').id, { dayZone: true })
    expect(told(job, 'day-zone')).toEqual([
      expect.stringMatching(/^Zone \d\d is offered as a day zone: “.+” alarms at any hour\.$/),
    ])
  })

  it('are the user’s choice only where the panel leaves it to them', () => {
    const job = new SmallJob().add('study', 'reedling', { use: 'opening' }).number()
    job.set(job.zone('study').id, { dayZone: true })
    expect(told(job, 'day-zone')).toEqual([
      'Zone 01 is offered as a day zone: Tarn 40 leaves no choice of day zones to the user.',
    ])
  })
})

describe('an area that nobody sets', () => {
  it('is given to a keypad, though a fob comes first in the kit', () => {
    const job = SmallJob.morrow()
      .area(2, 'Den')
      .user('Nell')
      .add('fob', 'fourkey', { user: 'user:Nell', room: '' })
      .add('pad', 'keyplate-w', { room: 'hall' })
      .add('den', 'latchet', { use: 'opening' })
      .number()
      .serves('pad', 1)
    job.set(job.zone('den').id, { area: 'area:2' })
    const found = job.findings().find((item) => item.rule === 'area-unserved')
    expect(found?.fix?.title).toBe('Let Keyplate W wired keypad in hall set it too')
    job.apply(found?.fix?.ops ?? [])
    expect(told(job, 'area-unserved')).toEqual([])
  })

  it('has no fix where only fobs with zones of their own are there', () => {
    const job = SmallJob.morrow()
      .area(2, 'Den')
      .user('Nell')
      .add('fob', 'fourkey', { user: 'user:Nell', room: '' })
      .add('den', 'latchet', { use: 'opening' })
      .number()
    job.set(job.zone('den').id, { area: 'area:2' })
    expect(job.findings().find((item) => item.rule === 'area-unserved')?.fix).toBeNull()
  })
})
