import {
  beginning,
  choices,
  classChoices,
  gradeQuestion,
  oneOf,
  section,
  someOf,
  whole,
  yesNo,
  type Asked,
} from './question.ts'
import type { Question } from './form.ts'

/** What is asked of a receiver, built in, apart, or a bridge that brings a family to another panel. */
export function receiverQuestions(asked: Asked): Question[] {
  const { of } = asked
  return [
    ...beginning('receiver', asked),
    ...section('What it hears', [
      {
        path: 'hears',
        ask: 'Which families does it hear?',
        why: 'A device of any other is not heard at all.',
        leaflet: 'compatibility, supported devices',
        form: {
          ...{ is: 'rows', most: 12, row: 'family' },
          cells: [
            { key: 'family', title: 'Family', form: { is: 'one-entry', kind: 'family' } },
            {
              key: 'fromFirmware',
              title: 'From radio firmware',
              form: { is: 'text', most: 7 },
              optional: true,
            },
          ],
        },
      },
      {
        path: 'classes',
        ask: 'Which classes of device does it take?',
        why: 'What it does not take is not learned, though it may be heard.',
        leaflet: 'compatibility, supported devices',
        form: someOf(classChoices),
        unless: 'not stated',
      },
      {
        path: 'transmitters',
        ask: 'How many transmitters does it hold?',
        why: 'The plan counts them, fobs and keypads with them.',
        leaflet: 'technical data, capacity',
        form: whole('transmitters', 1, 2000),
        unless: 'not stated',
      },
      {
        path: 'encryptedOnlySetting',
        ask: 'Can it be set to refuse plain devices?',
        why: 'Where it is so set, a plain device is not heard.',
        leaflet: 'programming, options',
        form: yesNo,
        unless: 'not stated',
      },
    ]),
    ...section('What it is in the system', [
      {
        path: 'place',
        ask: 'Where is it?',
        why: 'A receiver in a keypad or apart can stand nearer to the devices.',
        leaflet: 'installation',
        form: oneOf(
          choices({
            'built-in': 'in the panel',
            keypad: 'in a keypad',
            module: 'a module of its own',
            bridge: 'a bridge from another family',
          }),
        ),
      },
      of('place') === 'bridge'
        ? {
            path: 'loses',
            ask: 'What does not come through it?',
            why: 'A bridge may pass on events and lose the rest: it is said beside every such device.',
            leaflet: 'limits, notes',
            form: someOf(
              choices({ supervision: 'supervision', encryption: 'encryption', battery: 'low battery' }),
            ),
            unless: 'not stated',
          }
        : null,
      gradeQuestion,
    ]),
  ]
}
