import { cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { pinfold, quillet } from '../testing/case-jobs.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { responseRules } from './rules.ts'

const cases: readonly RuleCase[] = [
  {
    rule: 'response-missing',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('hall').id, { response: null }),
    says: 'Zone 03 has no response type of Tarn 40.',
    fix: 'Use “Passage, away only”',
  },
  {
    rule: 'panic-wrong-kind',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('bedroom').id, { response: 'medical' }),
    says: 'Zone 09 reports pendant as “Care call”, a medical type: it calls an ambulance. A call for help needs a panic type, instant in every mode.',
    fix: 'Use “Call for help, loud”',
  },
  {
    rule: 'house-watch-wrong-kind',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('landing', 'freeze').id, { response: 'day' }),
    says: 'Zone 07 reports frost as “Day notice”, a burglary type: it calls the police as for a burglar, and may sleep while unset. Frost and water must be watched in every mode, with their own tone.',
    fix: 'Use “House watch”',
  },
  {
    rule: 'medical-wrong-kind',
    clean: () => cleanTarn().add('bed', 'attend').number(),
    spoil: (j) => j.set(j.zone('bed').id, { response: 'panic' }),
    says: 'Zone 10 is a care call but does “Call for help, loud”, a panic type: it calls the police as for an attack.',
    fix: 'Use “Care call”',
  },
  {
    rule: 'follow-alone',
    clean: cleanTarn,
    spoil: (j) => j.set('device:porch', { use: 'opening' }).set(j.zone('porch').id, { response: 'instant' }),
    says: 'Zone 03 follows in away, but no zone of its area starts an entry delay there: it is only ever instant.',
    fix: null,
  },
  {
    rule: 'double-knock',
    clean: quillet,
    spoil: (j) => j.set(j.zone('front').id, { doubleKnock: true }),
    says: 'Zone 001 waits for a second trip: a radio device may sleep after its first trip.',
    fix: 'Alarm at the first trip',
  },
  {
    rule: 'stay-option',
    clean: pinfold,
    spoil: (j) => j.set('job:main', { stayToEntry2: true }),
    says: 'Bit 3 of location 047 is on: zone 02 would start entry 2 in stay instead of alarming at once.',
    fix: 'Turn the option off',
  },
  {
    rule: 'day-zone',
    clean: () => ((j) => j.set(j.zone('study').id, { dayZone: true }))(pinfold()),
    spoil: (j) => j.set(j.zone('front').id, { dayZone: true }),
    says: 'Zone 01 is offered as a day zone: “Door, first delay” stands in the first-door list, and entering the day list takes it out of there.',
    fix: 'Do not offer it',
  },
  {
    rule: 'stay-motion',
    clean: () =>
      new SmallJob({ panel: 'panel/quillet-32', entry2: 50, exitStay: 30 })
        .add('porch', 'sill-8', { use: 'entry' })
        .add('hall', 'watcher-8', { use: 'on-way-night' })
        .number(),
    spoil: (j) => j.set('job:main', { exitStay: 0 }),
    says: 'Zone 002 is a motion that is on in stay, and there is no exit delay in stay, no fob, nor a keypad on another floor: whoever goes up or comes down trips it.',
    fix: null,
  },
]

describeRules(responseRules, cases)
