import { expect, it } from 'vitest'
import { cleanHouse, cleanMorrow, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { delayRules } from './rules.ts'

/** A garage 20 m from the keypad in the hall, with a motion in the passage between them. */
const passageHouse = () =>
  SmallJob.morrow({ entry1: 20, entry2: 35 })
    .room('hall', { kind: 'hall' })
    .room('passage')
    .room('garage', { kind: 'garage' })
    .way('garage', 'passage', 2)
    .way('passage', 'hall', 18)
    .opening('garage door', 'garage')
    .opening('front door', 'hall')
    .add('far', 'latchet', { room: 'garage', position: 'garage door' })
    .add('front', 'latchet', { room: 'hall', position: 'front door' })
    .add('pad', 'keyplate-w', { room: 'hall' })
    .add('eye', 'prowl-pet', { room: 'passage' })
    .number()

const cases: readonly RuleCase[] = [
  {
    rule: 'delay-unstorable',
    clean: cleanTarn,
    spoil: (j) => j.set('job:main', { exit: 62 }),
    says: 'Leaving time: 62 s goes up to 65 s, the next step.',
    fix: 'Set the exit delay to 65 s',
  },
  {
    rule: 'delay-over-limit',
    clean: cleanTarn,
    spoil: (j) => j.set('job:main', { entry1: 60 }),
    says: 'Entry delay 1 is 60 s; EN 50131 allows at most 45 s (EN 50131-1: entry at most 45 s (confirm against the edition in force)).',
    fix: 'Set the entry delay 1 to 45 s',
  },
  {
    rule: 'entry-plus-abort',
    // In a listed installation only: without, the region's own limits hold.
    clean: () => cleanMorrow().set('job:main', { entry1: 40 }),
    spoil: (j) => j.set('job:main', { listed: true }),
    says: 'Entry delay 1 40 s and hold before sending 30 s make 70 s; together at most 60 s.',
    fix: 'Set the entry delay 1 to 30 s',
    // CP-01 lets the hold be 15 to 45 s: 20 s beside 40 s make 60 s.
    others: ['Set the hold before sending to 20 s'],
  },
  {
    rule: 'entry-too-short',
    clean: cleanHouse,
    // 4 m at 0.6 m/s are 6.7 s; with 8 s for the code and 5 s to spare 19.7 s, that is 20 s.
    spoil: (j) => j.set('job:main', { slowest: 'slow', entry1: 15 }),
    says: 'Entry delay 1 is 15 s; front door to the keypad in hall takes 20 s (walk 7 s, code 8 s, margin 5 s).',
    fix: 'Set the entry delay 1 to 20 s',
  },
  {
    rule: 'delay-unset',
    clean: cleanTarn,
    spoil: (j) => j.set('job:main', { entry1: null }),
    says: 'No entry delay 1 is set, and zone 01 starts it: the panel’s own time holds, whatever it is.',
    fix: 'Set the entry delay 1 to 30 s',
  },
  {
    rule: 'delay-cut',
    clean: passageHouse,
    // 20 m at 1.2 m/s, 8 s to key and 5 s to spare: 30 s. Tripped after 2 m, in the second second, 20 s more are left.
    spoil: (j) => j.set(j.zone('eye').id, { response: 'delay-away' }),
    says: 'Zone 09 starts the shorter entry delay in away on the way from the garage door: that leaves 22 s of 35 s, and the way to the keypad in the hall takes 30 s. Morrow 60 goes by the shorter of two running delays.',
    fix: 'Use “Passage, away only”',
  },
  {
    rule: 'exit-too-short',
    clean: cleanHouse,
    // 4 m at 1.2 m/s are 3.3 s; with 13 s more 16.3 s, that is 17 s, kept as 20 s in steps of 5 s.
    spoil: (j) => j.set('job:main', { exit: 15 }),
    says: 'Exit delay is 15 s; front door to the keypad in hall takes 17 s (walk 4 s, code 8 s, margin 5 s).',
    fix: 'Set the exit delay to 20 s',
  },
  {
    rule: 'siren-time',
    clean: () => cleanTarn().set('job:main', { sirenSeconds: 900 }),
    spoil: (j) => j.set('job:main', { sirenSeconds: 1000 }),
    says: 'The siren sounds 16 min 40 s; EN 50131 asks for at least 90 s and at most 15 min (EN 50131-1: 90 s to 15 min).',
    fix: 'Let it sound 15 min',
  },
  {
    rule: 'swinger',
    clean: () => cleanMorrow().set('job:main', { swinger: 2 }),
    spoil: (j) => j.set('job:main', { swinger: 7 }),
    says: 'Swinger shutdown after 7 trips; 1 to 6 are allowed here.',
    fix: 'Shut out after 2',
  },
]

describeRules(delayRules, cases)

it('an exit delay that the other unit stores offers the option that switches it', () => {
  // Pinfold 16 keeps 5 to 90 s by 1 s, or 15 to 900 s in steps of 15 s.
  const job = new SmallJob({ panel: 'panel/pinfold-16', grade: 1, radioFirmware: null, exit: 120 })
  const found = job
    .findings()
    .find(({ rule, facts }) => rule === 'delay-unstorable' && facts.delay === 'exit')
  expect(found?.others.map(({ title }) => title)).toEqual([
    'Count the exit delay in the other unit, which stores 2 min',
  ])
  job.apply(found?.others[0]?.ops ?? [])
  expect(
    job.findings().some(({ rule, facts }) => rule === 'delay-unstorable' && facts.delay === 'exit'),
  ).toBe(false)
})

it('a way that is longer than the delay is no matter where everybody carries a fob that unsets', () => {
  const slow = () => cleanHouse().set('job:main', { slowest: 'slow', entry1: 15 })
  const withFob = slow().user('Nell').add('fob', 'quartet-c', { room: '', user: 'user:Nell' })
  expect(slow().rules()).toContain('entry-too-short')
  expect(withFob.rules()).not.toContain('entry-too-short')
  expect(withFob.user('Ivo').rules()).toContain('entry-too-short')
})

it('a delay is only asked for where a zone starts it, and by zones of areas without their own', () => {
  const none = { entry1: null, entry2: null, exit: null }
  const asked = (job: ReturnType<typeof cleanTarn>): string[] =>
    job.findings().flatMap(({ rule, field }) => (rule === 'delay-unset' ? [field ?? ''] : []))
  expect(asked(cleanTarn().set('job:main', none))).toEqual(['entry1', 'exit'])
  const night = cleanTarn()
  night.set('job:main', none).set(night.zone('porch').id, { response: 'entry-2' })
  expect(asked(night)).toEqual(['entry2', 'exit'])
  night.set(night.zone('porch').id, { response: 'instant' })
  expect(asked(night)).toEqual([])
})
