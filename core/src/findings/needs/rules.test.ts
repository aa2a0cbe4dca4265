import { describe, expect, it } from 'vitest'
import { defaultHouseRules } from '../../house-rules/house-rules.ts'
import { cleanMorrow, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { farm, ostler } from '../testing/case-jobs.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { needRules } from './rules.ts'

const typed =
  (device: string, response: string) =>
  (job: SmallJob): SmallJob =>
    job.set(job.zone(device).id, { response })

const cases: readonly RuleCase[] = [
  {
    rule: 'alarms-on-owner',
    clean: farm,
    spoil: typed('front', 'instant'),
    says: 'Zone 001 would alarm on its owner: in away it does instant, when somebody comes home by the front door; in stay it does instant, when somebody comes home late.',
    fix: 'Use “Door, first delay”',
  },
  {
    rule: 'leaf-follows',
    clean: farm,
    spoil: typed('watch', 'follow-away'),
    says: 'Zone 007 sees the leaf of the garage door and follows: motion and contact race, and where the motion is first it alarms on its owner. That door’s delay cures it, or turning or masking the motion.',
    fix: 'Use “Walkway with second delay”',
  },
  {
    rule: 'way-unwatched',
    clean: farm,
    spoil: typed('study', 'instant-away'),
    says: 'Zone 004 stops nobody: in stay it does nothing.',
    fix: 'Use “Shell”',
  },
  {
    rule: 'delay-no-entry',
    clean: farm,
    spoil: typed('study', 'entry-1'),
    says: 'Zone 004 starts an entry delay in away and stay, but its device is no way in: an intruder there would have 20 s of silence.',
    fix: 'Use “Shell”',
  },
  {
    // 20 m at 1.2 m/s, 8 s for the code and 5 s of margin are 29.7 s.
    rule: 'shorter-delay',
    clean: farm,
    spoil: typed('far', 'entry-1'),
    says: 'Zone 002 starts entry 1 in away and stay: 20 s are there, and from the garage door to the keypad in the hall it takes 30 s.',
    fix: 'Use “Door, second delay”',
  },
  {
    // The keypad is in the room of the front door: 13 s for code and margin, so that the 20 s of entry 1 are enough.
    rule: 'delay-gives-away',
    clean: farm,
    spoil: typed('front', 'entry-2'),
    says: 'Zone 001 starts entry 2 in away and stay, 40 s, where 20 s are enough: 20 s are given away.',
    fix: 'Use “Door, first delay”',
  },
  {
    rule: 'waits-for-delay',
    clean: farm,
    spoil: typed('study', 'follow-away'),
    says: 'Zone 004 follows in away, and nobody comes in there: while an entry delay runs it waits with it. Instant is stronger.',
    fix: 'Use “Shell”',
  },
  {
    rule: 'against-school',
    clean: farm,
    spoil: typed('pane', 'instant-away'),
    says: 'Zone 006: in stay it does nothing. The house rule has breaking glass alarm whenever the house is set.',
    fix: 'Use “Shell”',
  },
  {
    rule: 'nearest-type',
    clean: cleanMorrow,
    spoil: (j) => j.set('device:front', { use: 'entry-not-in-stay' }),
    says: 'Zone 07 has “Way in, first delay”, the nearest that Morrow 60 offers: in stay entry 1 instead of instant.',
    fix: null,
  },
  {
    rule: 'burglary-wrong-kind',
    clean: cleanTarn,
    spoil: typed('study', 'fire'),
    says: 'Zone 02 watches reed as “Fire”, a fire type: it sends the fire brigade, sounds like a fire and cannot be unset.',
    fix: 'Use “Outer line”',
  },
  {
    rule: 'any-hour',
    clean: ostler,
    spoil: typed('front', 'any-hour'),
    says: 'Zone 01 watches contact inputs as “Never opened”, which alarms while the system is unset, too. For a safe, a gun cabinet or a hatch that is never opened that is right: say so as the use of its place, in the kit.',
    fix: 'Use “Door, first delay”',
  },
  {
    rule: 'sleeps-unset',
    clean: () => strongRoom(ostler()),
    spoil: typed('safe', 'instant'),
    says: 'Zone 06 watches contact inputs as “Shell”, which sleeps while the system is unset; its place is never opened, so it is to alarm at any hour.',
    fix: 'Use “Never opened”',
  },
  {
    rule: 'opened-quietly',
    clean: () => strongRoom(ostler()),
    spoil: (j) => j.set(j.zone('safe').id, { reason: '' }),
    says: 'Zone 06 alarms at any hour. Write down how the gun cabinet is opened quietly: who asks for it, and what is keyed or left out first.',
    fix: null,
  },
]

/** The job with a gun cabinet that is never opened but by arrangement. */
function strongRoom(job: SmallJob): SmallJob {
  job.add('safe', 'sill-8', { room: 'study', position: 'gun cabinet', use: 'always-on' }).number()
  return job.set(job.zone('safe').id, { reason: 'Nell asks the station first; then its zone is left out.' })
}

describeRules(needRules, cases)

const needs = new Set(Object.keys(needRules))
const found = (job: SmallJob): string[] =>
  job.findings().flatMap(({ rule, subject }) => {
    if (!needs.has(rule)) return []
    const zone = job.doc.records[subject]
    return [`${zone?.type === 'zone' ? (zone.device ?? '').replace('device:', '') : subject} ${rule}`]
  })

describe('what is right, or stronger and harmless, is left alone', () => {
  it.each<[string, (job: SmallJob) => SmallJob]>([
    ['the plan as it was made', (j) => j],
    ['an inner door with the garage door’s own delay', typed('inner', 'delay-2-away')],
    ['an inner door that starts it in stay, too', typed('inner', 'entry-2')],
    ['a night passage at the leaf of the garage door', (j) => typed('watch', 'entry-2')(j)],
    ['a night passage on a hall motion', (j) => typed('passage', 'follow-stay-delay')(hall(j))],
    ['a motion off every way that follows', typed('bedroom', 'follow-away')],
    ['a glass break of a noisy room in away only', typed('panes', 'instant-away')],
    [
      'the far door on entry 1 that is long enough',
      (j) => typed('far', 'entry-1')(j.set('job:main', { entry1: 30 })),
    ],
    [
      'a front door with the longer delay where both are alike',
      (j) => typed('front', 'entry-2')(j.set('job:main', { entry1: 40 })),
    ],
    ['the follow school at the leaf', (j) => typed('watch', 'follow-away')(school(j, 'seesLeaf', 'follow'))],
    [
      'glass break everywhere where that is the school',
      (j) => typed('panes', 'instant')(school(j, 'glass', 'both')),
    ],
  ])('%s', (_what, change) => {
    expect(found(change(farm()))).toEqual([])
  })
})

describe('what is wrong is told by door, way, seconds and mode', () => {
  it.each<[string, (job: SmallJob) => SmallJob, string[]]>([
    [
      'a motion on the way home that is instant',
      (j) => typed('passage', 'instant-away')(hall(j)),
      ['passage alarms-on-owner'],
    ],
    ['an inner door that is instant', typed('inner', 'instant-away'), ['inner alarms-on-owner']],
    [
      'a late-comer’s door that is instant in stay',
      typed('front', 'entry-1-stay-instant'),
      ['front alarms-on-owner'],
    ],
    [
      'a door not used in stay that starts a delay there',
      (j) => j.set('opening:front door', { inStay: false }),
      ['front delay-no-entry'],
    ],
    ['a door of the away set only', typed('front', 'delay-away'), ['front way-unwatched']],
    [
      'a hall motion that is live at night',
      (j) => typed('passage', 'instant')(hall(j)),
      ['passage alarms-on-owner'],
    ],
    [
      'a motion where people sleep that is live at night',
      typed('bedroom', 'instant'),
      ['bedroom alarms-on-owner'],
    ],
    [
      'a motion on the way that starts a delay',
      (j) => typed('passage', 'delay-away')(hall(j)),
      ['passage delay-gives-away'],
    ],
    ['the shorter delay at the leaf of the far door', typed('watch', 'delay-away'), ['watch shorter-delay']],
    ['a glass break of a noisy room in stay', typed('panes', 'instant'), ['panes against-school']],
    ['a window as a care call', typed('study', 'medical'), ['study burglary-wrong-kind']],
    ['a motion as house watch', typed('bedroom', 'auxiliary'), ['bedroom burglary-wrong-kind']],
    ['a glass break as fire', typed('pane', 'fire'), ['pane burglary-wrong-kind']],
  ])('%s', (_what, change, told) => {
    expect(found(change(farm()))).toEqual(told)
  })

  it('leaves a shorter delay to those who all carry a fob, and finds it where one has none', () => {
    const carried = (user: string) => (job: SmallJob) =>
      job.user(user).add(user, 'quatern-8', { user: `user:${user}`, room: '' })
    expect(found(carried('Nell')(typed('far', 'entry-1')(farm())))).toEqual([])
    expect(found(carried('Nell')(typed('far', 'entry-1')(farm())).user('Odo'))).toEqual(['far shorter-delay'])
  })

  it('says so where nobody told the use, only of what holds for every use', () => {
    const unsaid = (): SmallJob => new SmallJob({ panel: 'panel/quillet-32' }).add('some', 'sill-8').number()
    for (const type of ['instant', 'entry-1', 'entry-2', 'follow-away'])
      expect([type, found(typed('some', type)(unsaid()))]).toEqual([type, []])
    expect(found(typed('some', 'panic')(unsaid()))).toEqual(['some burglary-wrong-kind'])
  })

  it('says of a leaf in its room that it is taken to see it, until somebody said so', () => {
    const said = (job: SmallJob): string | undefined =>
      typed(
        'watch',
        'follow-away',
      )(job)
        .findings()
        .find(({ rule }) => rule === 'leaf-follows')?.text
    expect(said(farm())).toMatch(/^Zone 007 sees the leaf of the garage door and follows/)
    const unsaid = farm()
    const sight = Object.values(unsaid.doc.records).find((record) => record.type === 'sight')
    if (!sight) throw new Error('no sight')
    unsaid.apply([{ op: 'remove', record: sight }])
    expect(said(unsaid)).toMatch(/^Zone 007 is taken to see the leaf of the garage door and follows/)
  })

  it('names a panel that has no other type, and offers none', () => {
    const tarn = new SmallJob({ panel: 'panel/tarn-40', entry1: 20 })
      .add('watch', 'stilt', { use: 'entry-far' })
      .number()
    const finding = tarn.findings().find(({ rule }) => rule === 'shorter-delay')
    expect(finding?.text).toBe(
      'Zone 01 starts entry 1 in away: 20 s are there, and its door is far from the keypad. The nearest type of Tarn 40 does the same. Lengthen entry 1, give a fob, or move the keypad.',
    )
    expect(finding?.fix).toBeNull()
  })
})

/** A motion in the hall that sees the way from the garage, and no leaf. */
function hall(job: SmallJob): SmallJob {
  return job.add('passage', 'watcher-8', { room: 'hall', use: 'on-way' }).number()
}

function school(job: SmallJob, key: string, choice: string): SmallJob {
  job.houseRules = { ...defaultHouseRules, schools: { ...defaultHouseRules.schools, [key]: choice } }
  return job
}
