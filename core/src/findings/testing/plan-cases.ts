import { cleanMorrow, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import type { RuleCase } from './rule-case.ts'

const tarn = cleanTarn
const morrow = cleanMorrow
/** Rules on kit, numbers, responses, delays and labels. */
export const planCases: readonly RuleCase[] = [
  {
    rule: 'pair-twice',
    clean: () => tarn(),
    spoil: (j) =>
      j
        .learn(j.zone('porch').id, '12345678')
        .set(j.zone('study').id, { loop: 3 })
        .learn(j.zone('study').id, '12345678'),
    says: 'zone 02 uses ID 1234 5678 loop 3, which zone 01 has already: the panel refuses the second. Take it out at Enrol and learn the right one.',
    fix: null,
  },
  {
    rule: 'number-twice',
    clean: () => tarn(),
    spoil: (j) => j.set(j.zone('study').id, { number: 1 }),
    says: 'Zone 01 is given twice: to “Porch Front Door” and to “Study Window”.',
    fix: 'Give it 02, the next free number',
  },
  {
    rule: 'number-range',
    clean: () => tarn(),
    spoil: (j) => j.set(j.zone('study').id, { number: 99 }),
    says: '99 is no number for a wireless zone: Tarn 40 keeps 01–40 for them.',
    fix: 'Give it 02, the next free number',
  },
  {
    rule: 'live-terminal',
    clean: () => morrow(),
    spoil: (j) =>
      j.apply([{ op: 'add', record: { id: 'terminal:8', type: 'terminal', number: 8, state: 'live' } }]),
    says: 'Zone 08 is also wired terminal 8, which is live: left empty it reads open and the panel is never ready.',
    fix: 'Switch wired terminal 8 off',
  },
  {
    rule: 'sticker-differs',
    clean: () => tarn().set('device:porch', { sticker: '12345678' }),
    spoil: (j) => j.learn(j.zone('porch').id, '12345679'),
    says: 'Zone 01 learned ID 1234 5679; the sticker of its device says 1234 5678. Take it out at Enrol and learn the right one.',
    fix: null,
  },
  {
    rule: 'serial-elsewhere',
    clean: () => tarn().set('device:porch', { sticker: '12345678' }),
    spoil: (j) => {
      j.elsewhere = [{ serial: '12345678', job: 'Heron Weir' }]
      return j
    },
    says: 'ID 1234 5678 is also used in the job “Heron Weir”.',
    fix: null,
  },
  {
    rule: 'no-fit',
    clean: () => tarn(),
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
    clean: () => tarn(),
    spoil: (j) => j.add('gate', 'tapwell', { slot: 1 }),
    says: 'Tapwell keypad disarms over a plain one-way link: its command can be recorded and sent again. An encrypted variant cures it.',
    fix: null,
  },
  {
    rule: 'fit-unknown',
    clean: () => tarn(),
    spoil: (j) => j.set('job:main', { radioFirmware: null }),
    says: 'Wren C needs radio firmware 1.20 or newer; the firmware of this panel is not noted in the survey.',
    fix: null,
  },
  {
    rule: 'event-without-zone',
    clean: () => tarn(),
    spoil: (j) =>
      j.apply([
        { op: 'remove', record: j.zone('landing', 'heat') },
        { op: 'remove', record: j.zone('landing', 'freeze') },
      ]),
    says: 'Ember Three smoke in landing has no zone for heat and frost (loop 2, 4): the panel would not report it.',
    fix: 'Add 2 zones: heat, frost',
  },
  {
    rule: 'deferred',
    clean: () => tarn(),
    spoil: (j) => j.add('later', 'stilt-hound', { deferred: 'the stairs are being rebuilt' }),
    says: 'Stilt Hound motion has no place yet: the stairs are being rebuilt.',
    fix: null,
  },
  {
    rule: 'pet-too-heavy',
    clean: () => tarn().set('job:main', { petKg: 25 }),
    spoil: (j) => j.set('job:main', { petKg: 26 }),
    says: 'A pet of 26 kg lives here; Stilt Hound motion in hall tolerates 25 kg. Keep the pet out of the room while set, or swap the motion.',
    fix: null,
  },
  {
    rule: 'fob-unbound',
    clean: () => tarn(),
    spoil: (j) => j.set('device:fob', { user: null }),
    says: 'Quartet C fob is bound to no user: it will do nothing.',
    fix: null,
  },
  {
    rule: 'user-two-fobs',
    clean: () => tarn(),
    spoil: (j) => j.add('spare', 'quartet-c', { user: 'user:Nell', room: '', slot: 2 }),
    says: 'This user already carries a Quartet C fob: give each person one fob, so that a lost one can be told apart.',
    fix: null,
  },
  {
    rule: 'slot-twice',
    clean: () => tarn(),
    spoil: (j) => j.user('Odo').add('spare', 'quartet-c', { user: 'user:Odo', room: '', slot: 1 }),
    says: 'fob slot 1 is given to Quartet C fob and to Quartet C fob.',
    fix: 'Take it out of the slot; number again to find a free one',
  },
  {
    rule: 'response-missing',
    clean: () => tarn(),
    spoil: (j) => j.set(j.zone('hall').id, { response: null }),
    says: 'Zone 03 has no response type of Tarn 40.',
    fix: 'Use “Passage, away only”',
  },
  {
    rule: 'fire-not-instant',
    clean: () => tarn(),
    spoil: (j) => j.set(j.zone('landing', 'heat').id, { response: 'instant' }),
    says: 'Zone 06 reports heat as “Outer line” (a burglary type). A fire must alarm at once in every mode, as fire.',
    fix: 'Use “Fire”',
  },
  {
    rule: 'gas-wrong-kind',
    clean: () => tarn(),
    spoil: (j) => j.set(j.zone('kitchen').id, { response: 'fire' }),
    says: 'Zone 08 reports carbon monoxide as “Fire” (a fire type). Carbon monoxide needs the gas type, instant in every mode.',
    fix: 'Use “Carbon monoxide”',
  },
  {
    rule: 'panic-wrong-kind',
    clean: () => tarn(),
    spoil: (j) => j.set(j.zone('bedroom').id, { response: 'medical' }),
    says: 'Zone 09 reports pendant as “Care call” (a medical type). A call for help needs a panic type, instant in every mode.',
    fix: 'Use “Call for help, loud”',
  },
  {
    rule: 'house-watch-wrong-kind',
    clean: () => tarn(),
    spoil: (j) => j.set(j.zone('landing', 'freeze').id, { response: 'day' }),
    says: 'Zone 07 reports frost as “Day notice” (a burglary type). Frost and water must be watched in every mode, with their own tone.',
    fix: 'Use “House watch”',
  },
  {
    rule: 'held-back',
    clean: () => morrow(),
    spoil: (j) => j.set(j.zone('attic', 'smoke').id, { transmissionDelay: true }),
    says: 'Zone 10 is fire and its report would be held back by 30 s: it must go out at once.',
    fix: 'Send it at once',
  },
  {
    rule: 'delay-no-entry',
    clean: () => tarn(),
    spoil: (j) => j.set(j.zone('study').id, { response: 'entry-1' }),
    says: 'Zone 02 starts an entry delay in away and stay, but its device is no way in: an intruder there would have 30 s of silence.',
    fix: 'Use “Outer line”',
  },
  {
    rule: 'entry-not-delayed',
    clean: () => tarn().add('back', 'reedling', { use: 'entry', position: 'door' }).number(),
    spoil: (j) => j.set(j.zone('back').id, { response: 'instant' }),
    says: 'Zone 10 does instant in away, and people come in there: it would alarm on its owner.',
    fix: 'Use “Way in, first delay”',
  },
  {
    rule: 'follow-alone',
    clean: () => tarn(),
    spoil: (j) => j.set('device:porch', { use: 'opening' }).set(j.zone('porch').id, { response: 'instant' }),
    says: 'Zone 03 follows in away, but no zone of its area starts an entry delay there: it is only ever instant.',
    fix: null,
  },
  {
    rule: 'delay-unstorable',
    clean: () => tarn(),
    spoil: (j) => j.set('job:main', { exit: 62 }),
    says: 'Leaving time: 62 s goes up to 65 s, the next step.',
    fix: 'Set the exit delay to 65 s',
  },
  {
    rule: 'delay-over-limit',
    clean: () => tarn(),
    spoil: (j) => j.set('job:main', { entry1: 60 }),
    says: 'Entry delay 1 is 60 s; EN 50131 allows at most 45 s (EN 50131-1: entry at most 45 s (confirm against the edition in force)).',
    fix: 'Set the entry delay 1 to 45 s',
  },
  {
    rule: 'entry-plus-abort',
    clean: () => morrow(),
    spoil: (j) => j.set('job:main', { entry1: 40 }),
    says: 'Entry delay 1 40 s and abort window 30 s make 70 s; together at most 60 s.',
    fix: 'Set the entry delay 1 to 30 s',
  },
  {
    rule: 'life-unreported',
    clean: () => tarn(),
    spoil: (j) => j.set(j.zone('kitchen').id, { report: false }),
    says: 'Zone 08 is gas and does not report, and this job is monitored.',
    fix: 'Report it',
  },
  {
    rule: 'life-unsupervised',
    clean: () => tarn(),
    spoil: (j) => j.set(j.zone('landing', 'smoke').id, { supervise: false }),
    says: 'Zone 05 is fire and is not supervised: nobody would notice that it fell silent.',
    fix: 'Supervise it',
  },
  {
    rule: 'equipment-wrong',
    clean: () => morrow(),
    spoil: (j) => j.set(j.zone('attic', 'freeze').id, { equipmentKind: 'smoke' }),
    says: 'Zone 12 reports freeze but its equipment kind is smoke; Morrow 60 wants cold.',
    fix: 'Use cold',
  },
  {
    rule: 'loop-wrong',
    clean: () => tarn(),
    spoil: (j) => j.set(j.zone('porch').id, { loop: 4 }),
    says: 'Zone 01 listens to loop 4; the reed of Reedling contact is loop 3.',
    fix: 'Use loop 3',
  },
  {
    rule: 'label-missing',
    clean: () => tarn(),
    spoil: (j) => j.set(j.zone('study').id, { label: 'Zone 2' }),
    says: 'Zone 02 has only the label “Zone 2”: it does not say where.',
    fix: 'Call it “Study Window”',
  },
  {
    rule: 'label-twice',
    clean: () => morrow(),
    spoil: (j) => j.set(j.zone('study').id, { label: 'FRONT DOOR' }),
    says: 'Zone 08 is labelled “FRONT DOOR” like zone 07.',
    fix: 'Call it “STUDY WINDOW”',
  },
  {
    rule: 'label-long',
    clean: () => morrow(),
    spoil: (j) => j.set(j.zone('study').id, { label: 'BEDROOM WINDOW LEFT' }),
    says: '“BEDROOM WINDOW LEFT” of zone 08: it has 19 characters and the panel shows 16.',
    fix: 'Use “BED WIN L”',
  },
]
