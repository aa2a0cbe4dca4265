import { beginning, choices, oneOf, real, section, whole, words, yesNo, type Asked } from './question.ts'
import type { Question } from './form.ts'

/** What is asked of a radio family: devices that speak alike, with stickers alike. */
export function familyQuestions(asked: Asked): Question[] {
  const { of } = asked
  const mesh = of('topology') === 'mesh'
  const two = of('way') === 'two-way'
  return [
    ...beginning('radio family', asked),
    ...section('On the air', [
      {
        path: 'bandMHz.from',
        ask: 'On which frequency does it send?',
        why: 'A receiver of another band never hears it.',
        leaflet: 'technical data, type plate',
        form: real('MHz', 1, 6000),
      },
      {
        path: 'bandMHz.to',
        ask: 'Up to which, where it is a range?',
        why: 'Some change between channels; else it is the same figure.',
        leaflet: 'technical data',
        form: real('MHz', 1, 6000),
        unless: 'one frequency',
      },
      {
        path: 'way',
        ask: 'Does it only send, or also hear?',
        why: 'What only sends cannot be told anything, sleeps after a trip and is learned by being heard.',
        leaflet: 'technical data: one-way or two-way, or whether the device shows that it was answered',
        form: oneOf(choices({ 'one-way': 'it only sends', 'two-way': 'it sends and hears' })),
      },
      {
        path: 'encryption',
        ask: 'Is what it sends encrypted?',
        why: 'A receiver may refuse plain devices, and plain ones can be recorded and sent again.',
        leaflet: 'technical data, security',
        form: oneOf(choices({ none: 'never', optional: 'some of its devices', always: 'always' })),
        unless: 'not stated: each device is asked',
      },
      {
        path: 'topology',
        ask: 'Who hears it?',
        why: 'In a mesh devices relay for each other, and it must settle after the last one.',
        leaflet: 'installation, range',
        form: oneOf(choices({ star: 'the receiver, each for itself', mesh: 'other devices pass it on' })),
      },
      {
        path: 'repeaters.most',
        ask: 'How many repeaters may one receiver have?',
        why: 'More than that are not taken in.',
        leaflet: 'the repeater’s own leaflet',
        form: whole('repeaters', 1, 64),
        unless: 'none are made, or not known',
      },
      of('repeaters.most') == null
        ? null
        : {
            path: 'repeaters.chain',
            ask: 'May a repeater relay another repeater?',
            why: 'A chain that is not allowed loses what hangs on its end.',
            leaflet: 'the repeater’s own leaflet',
            form: yesNo,
          },
    ]),
    ...section('Stickers and IDs', [
      {
        path: 'sticker',
        ask: 'What do its stickers look like?',
        why: 'A mistyped ID is seen at once where the rule is known.',
        leaflet: 'at the devices: have three of them in hand',
        form: { is: 'id-rule' },
      },
      {
        path: 'sticker.where',
        ask: 'How would you describe the sticker?',
        why: 'It is shown to whoever looks for it.',
        leaflet: 'at the device',
        form: words(400, 2),
        unless: 'not known',
      },
    ]),
    ...section('Reading its link', [
      {
        path: 'placement.unit',
        ask: 'In what is the link read?',
        why: 'Readings are kept in the unit that the panel or device shows.',
        leaflet: 'placement test, signal strength',
        form: words(12),
        unless: 'not known',
      },
      {
        path: 'placement.best',
        ask: 'From which reading on is it good?',
        why: 'That is what a place is chosen for.',
        leaflet: 'placement test',
        form: real('', -200, 1000),
        unless: 'not stated',
      },
      {
        path: 'placement.least',
        ask: 'Below which does it no longer hold?',
        why: 'A lower reading is never passed.',
        leaflet: 'placement test',
        form: real('', -200, 1000),
        unless: 'not stated',
      },
      {
        path: 'placement.readAt',
        ask: 'Where is it read?',
        why: 'It says whether you stand at the device or somebody at the panel.',
        leaflet: 'placement test',
        form: oneOf(choices({ device: 'at the device', receiver: 'at the panel or receiver' })),
        unless: 'not known',
      },
      {
        path: 'placement.averageHours',
        ask: 'Does it keep an average, over how many hours?',
        why: 'It tells of hours in which nobody looked: it is owed the day after.',
        leaflet: 'placement test, history',
        form: whole('h', 1, 168),
        unless: 'it keeps none, or not known',
      },
      two
        ? {
            path: 'answerMinutes',
            ask: 'How long does a device answer a reading after its cover closes?',
            why: 'Later it sleeps, and silence is no weak link.',
            leaflet: 'placement test',
            form: whole('min', 1, 600),
            unless: 'not stated',
          }
        : null,
      mesh
        ? {
            path: 'settleMinutes',
            ask: 'How long must the mesh be left alone after the last device?',
            why: 'Its ways are found in that time; leaving earlier is a temporary state.',
            leaflet: 'installation, end of learning',
            form: whole('min', 1, 600),
            unless: 'not stated',
          }
        : null,
    ]),
  ]
}
