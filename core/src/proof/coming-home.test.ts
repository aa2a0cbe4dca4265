import { describe, expect, it } from 'vitest'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { houseOf } from '../premises/house.ts'
import { tripsOf } from '../response/modes.ts'
import { systemOf } from '../system/system.ts'
import { catalogue, cleanHouse, cleanMorrow, cleanTarn, type SmallJob } from '../testing/small-job.ts'
import { jobOnEach } from '../testing/panels.ts'
import { homeVerdict, NOT_USED, placesToUnset, type CameHome } from './coming-home.ts'
import { mayBeUnused, proofRoute } from './owed.ts'
import { itemsOf, learned, one, record, two as late } from './testing/proved-jobs.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { recordsOf } from '../job/document.ts'

const { figures } = defaultHouseRules
const on = (job: SmallJob) => ({ doc: job.doc, catalogue, figures })
const keypad = { id: 'device:keypad', name: 'the keypad' }
const came = (seconds: number, over: Partial<CameHome> = {}): CameHome => ({
  ...{ seconds, alarmed: false, slowest: true, at: keypad },
  ...over,
})
/** The described house with 30 s of entry: 4 m from the porch to the keypad in the hall. */
const house = () => cleanHouse().set('job:main', { entry1: 30 })
const at = (job: SmallJob, seen: CameHome) => homeVerdict(on(job), job.zone('porch').id, seen)

describe('coming home, timed', () => {
  // 5 s are to spare by the house rules, 8 s are for the code: 20 s leave 12 s for 4 m, a third of a metre a second.
  it.each<[string, CameHome, string, string, number | null]>([
    ['in time', came(20), 'pass', 'with 10 s of 30 s left, by the slowest', 0.33],
    ['just enough to spare', came(25), 'pass', 'with 5 s of 30 s left', 0.24],
    ['less than what is to spare', came(26), 'fail', 'They need at least 31 s', 0.22],
    ['as late as two taps may be off', came(33), 'fail', 'with 0 s of 30 s left', 0.16],
    ['no alarm though it is over', came(34), 'fail', 'the panel holds a longer delay', null],
    ['a delay ten times too long', came(120), 'fail', 'No alarm 120 s after the door', null],
    ['an alarm in its time', came(30, { alarmed: true }), 'fail', 'Not unset within 30 s: it alarmed', null],
    ['an alarm far too early', came(3, { alarmed: true }), 'fail', 'the panel holds another delay', null],
    ['an alarm as early as taps allow', came(27, { alarmed: true }), 'fail', 'Not unset within', null],
    ['too quick to tell a walk', came(8.5), 'pass', 'with 21.5 s', null],
    ['somebody else, with too little left', came(26, { slowest: false }), 'fail', 'at least 31 s', null],
    [
      'somebody quicker',
      came(20, { slowest: false }),
      'pass',
      'The slowest of the house was not there',
      null,
    ],
    ['a fob', came(12, { at: { id: 'fob', name: 'a fob' } }), 'pass', 'Unset at a fob', null],
  ])('%s', (_name, seen, outcome, says, pace) => {
    const verdict = at(house(), seen)
    expect([verdict?.outcome, verdict?.pace]).toEqual([outcome, pace])
    expect(verdict?.note).toContain(says)
  })

  it('asks what the slow one would have needed, where one lives there and another came', () => {
    const job = house().set('job:main', { slowest: 'slow' })
    // 14 s: 6 s of walk become 12 s at half the pace, with the code 20 s, with what is to spare 25 s.
    expect(at(job, came(14, { slowest: false }))?.outcome).toBe('pass')
    // 16.5 s: 17 s and 8 s are 25 s, 30 s with what is to spare: still enough. One second more is not.
    expect(at(job, came(16.5, { slowest: false }))?.outcome).toBe('pass')
    const short = at(job, came(17.5, { slowest: false }))
    expect([short?.outcome, short?.pace]).toEqual(['inconclusive', null])
    expect(short?.note).toContain('would need about 27 s, 32 s with what is to spare')
    // Whoever unsets by fob walks nowhere.
    const fob = { id: 'fob', name: 'a fob' }
    expect(at(job, came(20, { slowest: false, at: fob }))?.outcome).toBe('pass')
  })

  it('tells no pace where the way is not described, and judges the delay all the same', () => {
    const job = cleanTarn().set('job:main', { entry1: 30 })
    expect(at(job, came(20))).toMatchObject({ outcome: 'pass', pace: null })
    expect(at(job, came(28))).toMatchObject({ outcome: 'fail', pace: null })
  })

  it('a timed pace takes the place of the figure, for every walk of the house', () => {
    const job = house()
    const seconds = (): number => {
      const [porch, hall] = recordsOf(job.doc, 'room')
      return (
        houseOf(job.doc, systemOf(job.doc, catalogue), figures).walk(porch?.id ?? '', hall?.id ?? '')
          ?.seconds ?? 0
      )
    }
    expect(seconds()).toBeCloseTo(4 / 1.2)
    job.set('job:main', { pace: 0.5 })
    expect(seconds()).toBe(8)
    // The same time tells the same pace, whatever was supposed before.
    expect(at(job, came(20))?.pace).toBe(0.33)
    job.set('job:main', { slowest: 'slow', pace: null })
    expect(seconds()).toBeCloseTo(4 / 0.6)
    expect(at(job, came(20))?.pace).toBe(0.33)
  })

  it('knows the way from the opening that a contact guards, whatever its room is called', () => {
    const job = house().set('device:porch', { room: 'out there' })
    expect(at(job, came(20))?.pace).toBeNull()
    job.set('device:porch', { opening: 'opening:front door' })
    expect(at(job, came(20))?.pace).toBe(0.33)
  })

  it('is owed of doors that start a delay and of nothing else', () => {
    const owing = (job: SmallJob) =>
      proofRoute(job.doc, catalogue, null).flatMap(({ items }) =>
        items.filter(({ kind }) => kind === 'home').map(({ subject }) => subject),
      )
    expect(owing(house())).toEqual([house().zone('porch').id])
    expect(owing(cleanMorrow())).toEqual([cleanMorrow().zone('front').id])
    const noDelay = house().set('job:main', { entry1: null })
    expect(owing(noDelay)).toEqual([])
    expect(at(noDelay, came(20))).toBeNull()
    // A window answers at once: nobody comes home by it.
    expect(homeVerdict(on(house()), house().zone('kitchen').id, came(20))).toBeNull()
  })

  it.each(jobOnEach)(
    'on %s it is owed of a delayed door, and fails where the panel holds another delay',
    (_id, make) => {
      const job = make().set('job:main', { entry1: 30 })
      const { panel } = systemOf(job.doc, catalogue)
      const [zone] = recordsOf(job.doc, 'zone').filter(({ event }) => event === 'open')
      const delayed = panel?.responseTypes.find((type) => tripsOf(panel, type).away === 'entry-1')
      if (!zone || !delayed) throw new Error('no door, or no type that delays')
      job.set(zone.id, { response: delayed.key })
      const stop = proofRoute(job.doc, catalogue, null).find(({ id }) => id === zone.device)
      expect(stop?.items.map(({ kind }) => kind)).toContain('home')
      const [first] = placesToUnset(on(job), zone.id)
      if (!first) throw new Error('nothing to unset at')
      const verdict = (seconds: number, alarmed = false) =>
        homeVerdict(on(job), zone.id, { seconds, alarmed, slowest: true, at: first })?.outcome
      expect([verdict(25), verdict(26), verdict(300), verdict(3, true)]).toEqual([
        'pass',
        'fail',
        'fail',
        'fail',
      ])
    },
  )
})

describe('where people unset', () => {
  it('is no keypad that does not unset the area of the door', () => {
    const job = cleanMorrow().area(2, 'annexe').add('annexe', 'keyplate-w', { room: 'annexe' })
    job.serves('annexe', 2)
    expect(placesToUnset(on(job), job.zone('front').id).map(({ id }) => id)).toEqual(['device:keypad'])
    job.serves('annexe', 1, 2)
    expect(placesToUnset(on(job), job.zone('front').id).map(({ id }) => id)).toHaveLength(2)
  })

  const places = (job: SmallJob, zone = 'porch') =>
    placesToUnset(on(job), job.zone(zone).id).map(({ id }) => id)

  it('is every keypad, nearest first; without one a fob that disarms, else the panel itself', () => {
    expect(places(house())).toEqual(['device:keypad'])
    const both = house().add('fob', 'quartet-c', { room: '' }).add('far', 'tapwell-c', { room: 'landing' })
    expect(places(both)).toEqual(['device:keypad', 'device:far'])
    // The nearest comes first, whatever the order of the kit.
    expect(places(house().add('near', 'tapwell-c', { room: 'porch' }))).toEqual([
      ...['device:near', 'device:keypad'],
    ])
    const later = { deferred: 'comes later' }
    const fob = house().add('fob', 'quartet-c', { room: '' }).set('device:keypad', later)
    expect(places(fob)).toEqual(['fob'])
    const safe = house().add('fob', 'safekey', { room: '' }).set('device:keypad', later)
    expect(places(safe)).toEqual(['panel'])
    expect(placesToUnset(on(house().set('device:keypad', later)), house().zone('porch').id)).toEqual([
      { id: 'panel', name: 'the panel itself' },
    ])
  })
})

describe('a door and two keypads', () => {
  /** Learned door and keypads: one in the hall, one on the landing. */
  const two = () => learned(house().add('far', 'tapwell-c', { room: 'landing' }), 'porch', 'keypad', 'far')
  const homes = (job: SmallJob) => itemsOf(job, 'porch').filter(({ kind }) => kind === 'home')
  const states = (job: SmallJob) => homes(job).map(({ unsetAt, state }) => [unsetAt, state])
  const timed = (job: SmallJob, place: string, over: Parameters<typeof record>[2] = {}): SmallJob => {
    const item = homes(job).find(({ unsetAt }) => unsetAt === place)
    if (!item) throw new Error(`not owed at ${place}`)
    return record(job, item, { reading: 20, ...over })
  }

  it('are owed each for itself, and named by their place', () => {
    const job = two()
    expect(homes(job).map(({ label }) => label)).toEqual([
      'reed, zone 01, at Tapwell C keypad in hall',
      'reed, zone 01, at Tapwell C keypad in landing',
    ])
    timed(job, 'device:far')
    expect(states(job)).toEqual([
      ['device:keypad', 'owed'],
      ['device:far', 'pass'],
    ])
    timed(job, 'device:keypad', { outcome: 'fail' })
    expect(states(job)).toEqual([
      ['device:keypad', 'fail'],
      ['device:far', 'pass'],
    ])
  })

  it('of one keypad the label says none, and a keypad that is added is owed', () => {
    const job = learned(house(), 'porch', 'keypad')
    expect(homes(job).map(({ label }) => label)).toEqual(['reed, zone 01'])
    timed(job, 'device:keypad')
    learned(job.add('far', 'tapwell-c', { room: 'landing' }), 'porch', 'keypad', 'far')
    expect(states(job)).toEqual([
      ['device:keypad', 'pass'],
      ['device:far', 'owed'],
    ])
  })

  it('wait for a keypad that the panel does not know', () => {
    const job = learned(house().add('far', 'tapwell-c', { room: 'landing' }), 'porch', 'keypad')
    expect(homes(job).map(({ state, waits }) => [state, waits])).toEqual([
      ['owed', ''],
      ['waits', 'Enrol Tapwell C keypad in landing first: it is unset there.'],
    ])
  })

  it('that was moved are owed anew there alone', () => {
    const job = timed(timed(two(), 'device:keypad'), 'device:far')
    job.set('device:far', { movedAt: one })
    expect(states(job)).toEqual([
      ['device:keypad', 'pass'],
      ['device:far', 'stale'],
    ])
    expect(homes(job)[1]?.changed).toEqual(['its keypad was moved since'])
  })

  it('nobody unsets there is said only beside another that suffices, and stands no longer than that', () => {
    const job = two()
    const may = () => homes(job).map((item) => mayBeUnused(itemsOf(job, 'porch'), item))
    expect(may()).toEqual([false, false])
    timed(job, 'device:keypad', { outcome: 'fail' })
    expect(may()).toEqual([false, false])
    timed(job, 'device:keypad')
    expect(may()).toEqual([false, true])
    timed(job, 'device:far', { reading: null, method: NOT_USED })
    expect(states(job)).toEqual([
      ['device:keypad', 'pass'],
      ['device:far', 'pass'],
    ])
    // What is not used vouches for nothing else.
    expect(may()).toEqual([false, true])
    timed(job, 'device:keypad', { outcome: 'fail', at: one })
    expect(states(job)).toEqual([
      ['device:keypad', 'fail'],
      ['device:far', 'stale'],
    ])
    expect(homes(job)[1]?.changed).toEqual(['no other place to unset is timed'])
  })

  it('of before it was said where stand for the only place, and for all where it was handed over with them', () => {
    const unsaid = (job: SmallJob) => {
      const [item] = homes(job)
      if (!item) throw new Error('not owed')
      return record(job, { ...item, unsetAt: '' }, { reading: 20 })
    }
    expect(states(unsaid(learned(house(), 'porch', 'keypad')))).toEqual([['device:keypad', 'pass']])
    const job = unsaid(two())
    expect(states(job)).toEqual([
      ['device:keypad', 'owed'],
      ['device:far', 'owed'],
    ])
    const handedOver = (at: string) => {
      const rules = { type: 'fixed-rules', id: 'fixed-rules:1', rules: defaultHouseRules }
      const done = unsaid(two())
      return done.apply([{ op: 'add', record: { ...rules, ...evidenceBy('Idris', at) } as never }])
    }
    expect(states(handedOver(one)).map(([, state]) => state)).toEqual(['pass', 'pass'])
    expect(states(handedOver('2026-05-04T11:00:00Z')).map(([, state]) => state)).toEqual(['owed', 'owed'])
    // A later result at a place takes the place of one that says none.
    expect(states(timed(handedOver(one), 'device:far', { outcome: 'fail', at: late }))[1]).toEqual([
      ...['device:far', 'fail'],
    ])
  })
})
