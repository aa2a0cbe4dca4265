import { describe, expect, it } from 'vitest'
import { keepEntry } from '../../catalogue/written.ts'
import { catalogue, cleanMorrow, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { fitRules } from './rules.ts'

const cases: readonly RuleCase[] = [
  {
    rule: 'no-fit',
    clean: cleanTarn,
    spoil: (j) => j.add('yard', 'herald-8'),
    says: 'Herald 8 siren in yard does not work: Curlew 8 sends on 868.3 MHz; Tarn radio listens on 433.92 MHz.',
    fix: null,
  },
  {
    rule: 'receiver-full',
    clean: () => SmallJob.morrow().number(),
    spoil: (j) => {
      for (let n = 1; n <= 45; n++) j.add(`room${n}`, 'latchet-thin', { use: 'opening' })
      return j
    },
    says: 'No room for Latchet Thin contact in room45: Morrow radio module holds 44 and has 44; 1 too many.',
    fix: null,
  },
  {
    rule: 'fit-loss',
    clean: cleanTarn,
    spoil: (j) => j.add('gate', 'tapwell', { slot: 1 }),
    says: 'Tapwell keypad disarms over a plain one-way link: its command can be recorded and sent again. Tapwell C keypad encrypts, and would cure that.',
    fix: null,
  },
  {
    rule: 'grade-low',
    clean: cleanTarn,
    spoil: (j) => j.set('job:main', { grade: 3 }),
    says: 'Tarn 40 is grade 2: with it the system is no longer grade 3.',
    fix: null,
  },
  {
    rule: 'check-in-rare',
    clean: cleanTarn,
    spoil: (j) => j.add('attic', 'rime').add('loft', 'rime').number(),
    says: 'Rime temperature (2 devices) checks in every 130 min; grade 2 wants a message at least every 120 min (EN 50131-5-3).',
    fix: null,
  },
  {
    rule: 'fit-unknown',
    clean: cleanTarn,
    spoil: (j) => j.set('job:main', { radioFirmware: null }),
    says: 'Wren C needs radio firmware 1.20 or newer; that of this panel is not read yet: note it in the survey.',
    fix: null,
  },
  {
    rule: 'fit-unstated',
    clean: cleanTarn,
    spoil: (j) => withoutFacts(j),
    says: 'Not stated of Reedling contact: whether it encrypts and how often it checks in; of Tarn radio: how many transmitters it holds.',
    fix: null,
  },
  {
    rule: 'life-over',
    clean: () => cleanTarn().set('device:kitchen', { madeYear: 2019 }),
    spoil: (j) => j.set('device:kitchen', { madeYear: 2018 }),
    says: 'Wick CO alarm in kitchen was made in 2018 to last 7 years, until 2025: replace it.',
    fix: null,
  },
  {
    rule: 'not-approved',
    clean: cleanTarn,
    spoil: (j) => j.set('job:main', { region: 'north-america' }),
    says: 'The panel Tarn 40 is made for Europe, not for North America.',
    fix: null,
  },
  {
    rule: 'discontinued',
    clean: () => cleanTarn().add('back', 'reedling-old', { existing: true, use: 'opening' }).number(),
    spoil: (j) => j.set('device:back', { existing: false }),
    says: 'Reedling Old contact is no longer made; Reedling contact follows it.',
    fix: 'Plan its successor Reedling contact',
  },
  {
    rule: 'assumed',
    clean: () => knowing(cleanTarn(), 'leaflet p. 2'),
    spoil: (j) => knowing(j, 'assumed'),
    says: 'Of Reedling contact nobody read “How far apart may magnet and contact be?”: it was assumed.',
    fix: null,
  },
]

/** The job with its contact and receiver described by somebody who did not know all. */
function withoutFacts(job: SmallJob): SmallJob {
  const contact = catalogue.get('device', 'device/reedling') ?? expect.fail()
  const radio = catalogue.get('receiver', 'receiver/tarn-radio') ?? expect.fail()
  const { encryption: _encryption, checkInMinutes: _every, ...open } = contact
  const { transmitters: _transmitters, ...holding } = radio
  job.catalogue = catalogue.with([keepEntry(open), keepEntry(holding)])
  return job
}

/** The job with its contact described so, as its magnet gap was read. */
function knowing(job: SmallJob, from: string): SmallJob {
  const contact = catalogue.get('device', 'device/reedling') ?? expect.fail()
  const sources = [
    { path: 'magnetGapMm', asked: 'How far apart may magnet and contact be?', from },
    { path: 'sticker', asked: 'Where is its sticker?', from: 'seen on it' },
  ]
  job.catalogue = catalogue.with([keepEntry({ ...contact, sources })])
  return job
}

describeRules(fitRules, cases)

describe('what is right as it is', () => {
  it('a plain fob whose disarm button is left unprogrammed is cured, and lacks no zone', () => {
    const job = cleanMorrow().user('Nell').add('fob', 'fourkey', { user: 'user:Nell', room: '' }).number()
    expect(job.rules()).toContain('fit-loss')
    job.apply([{ op: 'remove', record: job.zone('fob', 'disarm') }])
    expect(job.rules()).not.toContain('fit-loss')
    expect(job.rules()).not.toContain('event-without-zone')
    // Its other buttons are missed as before.
    job.apply([{ op: 'remove', record: job.zone('fob', 'arm-away') }])
    expect(job.rules()).toContain('event-without-zone')
  })

  it('one part below the grade is one finding, however many devices hang on it', () => {
    const found = cleanTarn().set('job:main', { grade: 3 }).findings()
    expect(found.filter(({ rule }) => rule === 'grade-low')).toHaveLength(1)
    expect(found.map(({ rule }) => rule)).not.toContain('fit-loss')
  })

  it('two receivers of one radio say what they hold together, not that one has room', () => {
    const job = SmallJob.morrow().receiver('morrow-keypad-radio')
    for (let n = 1; n <= 45; n++) job.add(`room${n}`, 'latchet-thin', { use: 'opening' })
    const found = job.findings().find(({ rule }) => rule === 'receiver-full')
    expect(found?.text).toContain(', together no more than 44; 1 too many.')
  })
})
