import { cleanHouse, cleanMorrow, cleanTarn } from '../../testing/small-job.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { numberRules } from './rules.ts'

const cases: readonly RuleCase[] = [
  {
    rule: 'pair-twice',
    clean: cleanTarn,
    spoil: (j) =>
      j
        .learn(j.zone('landing', 'smoke').id, '12345678')
        .set(j.zone('landing', 'heat').id, { loop: j.zone('landing', 'smoke').loop })
        .learn(j.zone('landing', 'heat').id, '12345678'),
    says: 'Zone 06 uses ID 1234 5678 loop 1, which zone 05 has already: the panel refuses the second. Take it out at Enrol and learn the right one.',
    fix: null,
  },
  {
    rule: 'number-twice',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('study').id, { number: 1 }),
    says: 'Zone 01 is given twice: to “Porch Front Door” and to “Study Window”.',
    fix: 'Give it 02, the next free number',
  },
  {
    rule: 'number-range',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('study').id, { number: 99 }),
    says: '99 is no number for a wireless zone: Tarn 40 keeps 01–40 for them.',
    fix: 'Give it 02, the next free number',
  },
  {
    rule: 'live-terminal',
    clean: cleanMorrow,
    spoil: (j) =>
      j.apply([{ op: 'add', record: { id: 'terminal:8', type: 'terminal', number: 8, state: 'live' } }]),
    says: 'Zone 08 is also wired terminal 8, which is live: left empty it reads open and the panel is never ready.',
    fix: 'Switch wired terminal 8 off',
    // The clip-on board keeps 7 to 12 once a terminal of it lives; 13 is the pendant's.
    others: ['Give it 14, the next free number'],
  },
  {
    rule: 'left-but-new',
    clean: () => {
      const j = cleanTarn().set('device:study', { existing: true })
      return j.set(j.zone('study').id, { asProgrammed: true })
    },
    spoil: (j) => j.set(j.zone('porch').id, { asProgrammed: true }),
    says: 'Zone 01 is left as programmed, but its Reedling contact is new: the panel does not have it, and nobody would key or learn it.',
    fix: 'Key it and learn it like the others',
  },
  {
    rule: 'mapped-terminal',
    clean: () => cleanHouse(),
    spoil: (j) => j.set('device:keypad', { mappedOver: 2 }),
    says: 'Zone 02: the terminal of Tapwell C keypad is mapped over 2.',
    fix: 'Give it 04, the next free number',
    others: ['Do not map the terminal of Tapwell C keypad over it'],
  },
]

describeRules(numberRules, cases)
