import { expect, it } from 'vitest'
import { cleanMorrow, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { pinfold, quillet } from '../testing/case-jobs.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { reportingRules } from './rules.ts'

const cases: readonly RuleCase[] = [
  {
    rule: 'held-back',
    clean: cleanMorrow,
    spoil: (j) => j.set(j.zone('attic', 'smoke').id, { transmissionDelay: true }),
    says: 'Zone 10 is fire and its report would be held back by 30 s: it must go out at once.',
    fix: 'Send it at once',
  },
  {
    rule: 'silent-unreported',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('bedroom').id, { response: 'panic-silent', report: false }),
    says: 'Zone 09 makes no sound and its report is off: nobody would notice the call.',
    fix: 'Report it',
  },
  {
    rule: 'silent-call-loud',
    clean: () => cleanTarn().add('till', 'whisper').number(),
    spoil: (j) => j.set(j.zone('till').id, { response: 'panic' }),
    says: 'Zone 10 is a quiet call for help but does “Call for help, loud”: its sound betrays the caller.',
    fix: 'Use “Call for help, quiet”',
  },
  {
    rule: 'loud-call-silent',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('bedroom').id, { response: 'panic-silent' }),
    says: 'Zone 09 is a call for help that should be heard but does “Call for help, quiet”: nobody in the house is warned.',
    fix: 'Use “Call for help, loud”',
  },
  {
    rule: 'call-unreported',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('bedroom').id, { report: false }),
    says: 'Zone 09 is a call for help and does not report, and this job is monitored: nobody comes.',
    fix: 'Report it',
  },
  {
    rule: 'burglary-unreported',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('study').id, { report: false }).set(j.zone('hall').id, { report: false }),
    says: 'Zones 02, 03 do not report though this job is monitored: the station hears nothing of a burglary there.',
    fix: 'Report it',
  },
  {
    rule: 'silent-siren',
    clean: pinfold,
    spoil: (j) => j.set(j.zone('study').id, { response: 'panic-silent' }),
    says: 'Zone 02 is silent and drives all siren outputs.',
    fix: 'Take it off every siren output',
  },
  {
    rule: 'siren-none',
    clean: () => pinfold(),
    spoil: (j) => j.set(j.zone('study').id, { sirens: [] }),
    says: 'Zone 02 should be heard (Shell) and drives no siren output.',
    fix: 'Let it drive all of them',
  },
  {
    rule: 'report-mixed',
    clean: () =>
      new SmallJob({ monitored: false }).add('study', 'reedling-slim', { use: 'opening' }).number(),
    spoil: (j) => j.set(j.zone('study').id, { report: true }),
    says: 'Zone 01 has report on; this job has no station and the house rule is off for all.',
    fix: 'Turn it off',
  },
  {
    rule: 'chime-wrong',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('hall').id, { chime: true }),
    says: 'Zone 03 chimes at every motion while the house is unset.',
    fix: 'Turn its chime off',
  },
  {
    rule: 'chime-style',
    clean: () => ((j) => j.set(j.zone('front').id, { chime: true, chimeStyle: 'two' }))(quillet()),
    spoil: (j) => j.set(j.zone('front').id, { chimeStyle: 'wood' }),
    says: 'Zone 001 is to chime “wood”; Quillet 32 has one note, two notes, says the name.',
    fix: 'Take the first one',
  },
]

describeRules(reportingRules, cases)

it('a silent zone that reports is found as that on a job without a station, not as a mixture', () => {
  const job = new SmallJob({ monitored: false }).add('till', 'whisper').number()
  job.set(job.zone('till').id, { response: 'panic-silent', report: true })
  expect(job.rules()).toContain('silent-unreported')
  expect(job.rules()).not.toContain('report-mixed')
})

it('what reports, or cannot be told not to, is no call unheard; nor is any on a job without a station', () => {
  expect(
    cleanTarn()
      .rules()
      .filter((rule) => /unreported/.test(rule)),
  ).toEqual([])
  const local = new SmallJob({ monitored: false })
    .add('study', 'reedling-slim', { use: 'opening' })
    .add('bed', 'beckon')
    .number()
  for (const key of ['study', 'bed']) local.set(local.zone(key).id, { report: false })
  expect(local.rules().filter((rule) => /unreported/.test(rule))).toEqual([])
})
