import { is, isRadio } from './device-classes.ts'
import { asOthers, gradeQuestion, oneOf, real, section, whole, words, yesNo, type Asked } from './question.ts'
import type { Question } from './form.ts'

/* What is asked of a device beside what it is and how it is learned. */

/** What is asked of its place. */
export function placeQuestions({ of }: Asked): Question[] {
  const c = is(of)
  return section('At its place', [
    c('contact')
      ? {
          path: 'magnetGapMm',
          ask: 'How far apart may magnet and contact be?',
          why: 'A wider gap opens in the wind.',
          leaflet: 'technical data, installation',
          form: real('mm', 1, 100),
          unless: 'not stated',
        }
      : null,
    c('motion')
      ? {
          path: 'petKg',
          ask: 'Up to which weight does it pass over pets?',
          why: 'A heavier one alarms.',
          leaflet: 'technical data',
          form: real('kg', 0, 100),
          unless: 'it does not',
        }
      : null,
    c('motion')
      ? {
          path: 'petSettings',
          ask: 'Is that set by a jumper or menu?',
          why: 'Then the setting is looked at and proved.',
          leaflet: 'installation',
          form: {
            ...{ is: 'rows', most: 4, row: 'setting' },
            cells: [
              { key: 'setting', title: 'Setting', form: { is: 'text', most: 80 } },
              {
                key: 'kg',
                title: 'Pets up to',
                form: { is: 'number', unit: 'kg', least: 0, most: 100, whole: false },
              },
            ],
          },
          unless: 'no',
        }
      : null,
    c('motion')
      ? {
          path: 'sleepsSeconds',
          ask: 'How long does it sleep after a trip?',
          why: 'A second trip in that time is not sent: it is no failed test.',
          leaflet: 'technical data, battery saving',
          form: whole('s', 1, 3600),
          unless: 'not stated',
        }
      : null,
    {
      path: 'readyAfterSeconds',
      ask: 'How long after power-up does it take to be ready?',
      why: 'Tripped sooner it stays silent.',
      leaflet: 'installation, warm-up',
      form: whole('s', 1, 3600),
      unless: 'not stated',
    },
    c('shock')
      ? {
          path: 'sensitivity',
          ask: 'Which steps of sensitivity does it have?',
          why: 'The chosen one is written down.',
          leaflet: 'installation',
          form: { is: 'words', most: 6 },
          unless: 'not stated',
        }
      : null,
    c('panic')
      ? {
          path: 'carried',
          ask: 'Is it carried by somebody?',
          why: 'Then it has no place, and works where they are.',
          leaflet: 'functions',
          form: yesNo,
        }
      : null,
    c('fob', 'keypad')
      ? {
          path: 'disarms',
          ask: 'Does it unset?',
          why: 'What unsets over a plain link can be recorded and sent again.',
          leaflet: 'functions',
          form: yesNo,
          unless: 'not stated',
        }
      : null,
    {
      path: 'temperatureC.from',
      ask: 'From which temperature on does it work?',
      why: 'An attic or garage is colder than a hall.',
      leaflet: 'technical data',
      form: real('°C', -60, 60),
      unless: 'not stated',
    },
    {
      path: 'temperatureC.to',
      ask: 'Up to which?',
      why: 'Under a roof it is hotter than below.',
      leaflet: 'technical data',
      form: real('°C', 0, 120),
      unless: 'not stated',
    },
    c('contact', 'siren', 'panic', 'motion', 'keypad', 'fob')
      ? {
          path: 'outdoor',
          ask: 'Is it made for outdoors?',
          why: 'Rain ends what is not.',
          leaflet: 'technical data, protection',
          form: yesNo,
          unless: 'not stated',
        }
      : null,
    c('smoke', 'gas')
      ? {
          path: 'lifeYears',
          ask: 'After how many years is it replaced?',
          why: 'Its sensing element wears out.',
          leaflet: 'technical data, the date on its back',
          form: whole('years', 1, 30),
          unless: 'not stated',
        }
      : null,
    gradeQuestion,
  ])
}

/** What is asked of its batteries. */
export function batteryQuestions({ of, catalogue }: Asked): Question[] {
  if (!isRadio(of)) return []
  const none = of('batteries.count') == null
  return section('Batteries', [
    {
      path: 'batteries.count',
      ask: 'How many batteries?',
      why: 'The kit adds up what to bring.',
      leaflet: 'technical data',
      form: whole('', 0, 12),
      unless: 'it has none',
    },
    ...(none
      ? []
      : [
          {
            path: 'batteries.type',
            ask: 'Of which type?',
            why: 'As it is printed on the cell.',
            leaflet: 'technical data',
            form: asOthers(
              80,
              catalogue.all('device').map(({ batteries }) => batteries?.type),
            ),
            unless: 'not stated',
          },
          {
            path: 'batteries.wayUp',
            ask: 'Which way up do they go in?',
            why: 'Turned round, many devices lose their first start.',
            leaflet: 'installation, the tray',
            form: words(80),
            unless: 'not stated',
          },
          {
            path: 'batteries.order',
            ask: 'Which goes in first?',
            why: 'Some start at the second one.',
            leaflet: 'installation',
            form: words(80),
            unless: 'any, or not stated',
          },
          {
            path: 'batteries.firstInsertLearns',
            ask: 'Does it send when the battery first goes in, so that a listening panel learns it?',
            why: 'Then the panel listens before the battery goes in.',
            leaflet: 'programming, learning',
            form: yesNo,
            unless: 'not known',
          },
        ]),
  ])
}

/** What is asked of what it is a variant of, of its price, and what else is to be known. */
export function tradeQuestions({ of, catalogue }: Asked): Question[] {
  const same = catalogue.all('device').filter((device) => device.class === of('class'))
  const varied = typeof of('variant.of') === 'string'
  const priced = typeof of('price.amount') === 'number'
  return section('Variant, price, notes', [
    {
      path: 'variant.of',
      ask: 'Is it a variant of another model?',
      why: 'Two that look alike are told apart by this.',
      leaflet: 'type plate',
      form: words(80),
      unless: 'no',
    },
    varied
      ? {
          path: 'variant.how',
          ask: 'What makes it one?',
          why: 'As it is read on the device.',
          leaflet: 'type plate',
          form: words(80),
        }
      : null,
    {
      path: 'discontinued',
      ask: 'Is it no longer made?',
      why: 'It is then not offered first, and its successor is.',
      leaflet: 'the maker’s list',
      form: oneOf([
        { value: 'alone', title: 'yes, without a successor' },
        ...same.map(({ id, name }) => ({ value: id, title: `yes; ${name} follows it` })),
      ]),
      unless: 'still made',
    },
    {
      path: 'price.amount',
      ask: 'What do you pay for a pack of it?',
      why: 'Kits are added up.',
      leaflet: 'your price list',
      form: real('', 0, 100_000),
      unless: 'not said',
    },
    priced
      ? {
          path: 'price.currency',
          ask: 'In which currency?',
          why: 'Only alike currencies are added.',
          leaflet: 'your price list',
          form: words(3),
        }
      : null,
    priced
      ? {
          path: 'price.pack',
          ask: 'How many are in a pack?',
          why: 'The kit counts packs.',
          leaflet: 'your price list',
          form: whole('', 1, 100),
        }
      : null,
    {
      path: 'note',
      ask: 'What else should whoever installs it know?',
      why: 'It stands on its card.',
      leaflet: 'your own experience',
      form: words(400, 3),
      unless: 'nothing',
    },
  ])
}
