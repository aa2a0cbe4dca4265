import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demoPanel, follow, PanelInHand } from '../testing/panels.ts'
import { runs } from '../testing/runs.ts'
import { display } from './display.ts'
import { act, switchedOn } from './machine.ts'
import { keptDraft, type Input } from './state.ts'

const tarn = demoPanel('tarn-40')
const quillet = demoPanel('quillet-32')
const pinfold = demoPanel('pinfold-16')
const ostler = demoPanel('ostler-s-8')
const sallow = demoPanel('sallow-m')
const morrow = demoPanel('morrow-60')

/* The tables are written from the descriptions of the panels by hand, before the machine was asked. */
describe('Tarn 40: questions, and nothing is kept until all is', () => {
  const inside = (): PanelInHand => {
    const hand = new PanelInHand(tarn)
    hand.keys('[tick] for 5 s (main-user code) [tick] (installer code) [tick]')
    return hand
  }

  it('lets nobody in without both codes', () => {
    const hand = new PanelInHand(tarn)
    follow(hand, [
      ['', 'ready | ·····'],
      // A short press, and the keys of the walk, do nothing at the door.
      ['[tick] [go] [next] [home]', 'ready | ·····'],
      ['[tick] for 4 s', 'ready | ·····'],
      ['[tick] for 5 s', 'who is there? |'],
      ['1234', 'who is there? | ****'],
      ['[tick]', 'who is there? | not known'],
      ['(installer code) [tick]', 'who is there? | not known'],
      ['(main-user code)', 'who is there? | ****'],
      ['[tick]', 'and who fits it? |'],
      ['[home]', 'ready | ·····'],
      ['[tick] for 6 s (main-user code) [tick] (installer code) [tick]', '14 first way in, s | 30'],
    ])
  })

  it('types a delay, refuses one between two steps, and shows typed otherwise than stored', () => {
    follow(inside(), [
      ['[next] [next]', '16 leaving, s | 60'],
      ['4', '16 leaving, s | 4_'],
      ['7', '16 leaving, s | 47_'],
      // 5 to 240 s by 5 s: 47 is none, and nothing is stored.
      ['[tick]', '16 leaving, s | no such answer'],
      ['[back] [next]', '16 leaving, s | 60'],
      ['245 [tick]', '16 leaving, s | no such answer'],
      ['45', '16 leaving, s | 45_'],
      // Cleared before it is sent: the stored value stands again.
      ['[cross]', '16 leaving, s | 60'],
      ['45 [tick]', '18 hold sending, s | 30'],
      ['[back]', '16 leaving, s | 45'],
      // A fourth digit is not taken.
      ['0450', '16 leaving, s | 045_'],
    ])
  })

  it('goes to a question by its number, and says where there is none', () => {
    follow(inside(), [
      ['[go]', 'go to question | _'],
      ['19', 'go to question | 19_'],
      ['[tick]', 'go to question | no such question'],
      ['31 [tick]', '31 sound on way in? | yes'],
      ['[cross]', '32 sound on leaving? | yes'],
      ['[back]', '31 sound on way in? | no'],
      // The walk is a ring.
      ['[go] 14 [tick] [back]', '99 wipe? key 777 | _'],
      ['[next]', '14 first way in, s | 30'],
    ])
  })

  it('asks a line question by question, and not what its type hides', () => {
    const hand = inside()
    follow(hand, [
      ['[go] 50 [tick]', '50 lines | which? _'],
      ['43 [tick]', '50 lines | no such line'],
      ['07 [tick]', '07 what is it? |'],
      ['318 [tick]', '07 does |'],
      ['99 [tick]', '07 does | no such answer'],
      // 23: way in, at once in stay. The name is cut where the display ends.
      ['23 [tick]', '07 id |'],
      ['2041 77 [tick]', '07 id | no such id'],
      ['2041 7733 [tick]', '07 input |'],
      ['3 [tick]', '07 send? | yes'],
      ['[tick]', '07 hold first? | no'],
      ['[cross]', '07 gong? | no'],
      ['[tick]', '07 watch it? | yes'],
      ['[tick]', '07 words |'],
      ['187 [gap] 070', '07 words | 187 070_'],
      ['[tick]', '07 Way in, at once i | 20417733 3'],
      ['[back]', '07 words | Front Door'],
      // A line that is a fire line is not asked whether its gong sounds.
      ['[back] [back] [back] [back] [back] [back] [back]', '07 does | Way in, at once in s'],
      ['62 [tick] [next] [next] [next]', '07 hold first? | no'],
      ['[next]', '07 watch it? | yes'],
      ['[back]', '07 hold first? | no'],
      // A wired line has no code, no ID and no input.
      ['[go] 50 [tick] 41 [tick]', '41 does |'],
      ['[next]', '41 send? | yes'],
      ['[go] 50 [tick] 40 [tick] [next] [next] [next]', '40 input |'],
    ])
    expect(hand.state.kept).toEqual(tarn.factory)
  })

  it('hears a device with its input, and one ID with one input serves one line only', () => {
    const hand = inside()
    follow(hand, [
      ['[go] 50 [tick] 01 [tick] [next] [next]', '01 id |'],
      // Nothing is heard unless it listens.
      ['(hears 20417733 3)', '01 id |'],
      ['[ear]', '01 id | listening'],
      // Not an ID of a family that it hears, and a tamper: the ID alone, and the input is asked for.
      ['(hears ZZ 3)', '01 id | listening'],
      ['(hears 20417733)', '01 input |'],
      ['3 [tick]', '01 send? | yes'],
      ['[go] 50 [tick] 02 [tick] [next] [next] [ear] (hears 20417733 3)', '02 id | on another line'],
      ['[tick]', '02 input |'],
      ['[back] 20417733 [tick]', '02 input |'],
      ['3 [tick]', '02 input | on another line'],
      // The other input of the same contact is another line.
      ['4 [tick]', '02 send? | yes'],
      // It listens for a minute.
      ['[go] 50 [tick] 03 [tick] [next] [next] [ear] wait 59 s', '03 id | listening'],
      ['wait 1 s', '03 id |'],
      ['(hears 20417801 3)', '03 id |'],
      // Emptied: the key that clears what is typed, pressed while nothing is.
      ['[go] 50 [tick] 02 [tick] [next] [next]', '02 id | 20417733'],
      ['[cross]', '02 id |'],
    ])
  })

  it('types letters of an ID behind the key that turns to them', () => {
    const hand = inside()
    hand.keys('[go] 50 [tick] 05 [tick] [next] [next]')
    follow(hand, [
      // 4B2K90QX: B is the second sign of 2, K the second of 5, Q the second of 7, X the second of 9.
      ['4 [gap] 22', '05 id | 4B_'],
      ['[gap] 2', '05 id | 4B2_'],
      ['[gap] 55 [gap] 90 [gap] 77', '05 id | 4B2K90Q_'],
      ['99 [tick]', '05 input |'],
      ['[back]', '05 id | 4B2K90QX'],
    ])
  })

  it('keeps all at the end or nothing', () => {
    const saved = inside()
    follow(saved, [
      ['[go] 16 [tick] 45 [tick]', '18 hold sending, s | 30'],
      ['[home]', 'keep all answers? |'],
      ['[next]', 'keep all answers? |'],
      ['[tick]', 'saving, then | restarting'],
      // It takes no key while it works.
      ['[home] [go]', 'saving, then | restarting'],
      ['wait 39 s', 'saving, then | restarting'],
      ['wait 1 s', 'ready | ·····'],
    ])
    expect(saved.kept).toEqual({ 'system.exit': '45' })
    const lost = inside()
    follow(lost, [
      ['[go] 16 [tick] 45 [tick] [home] [cross]', 'ready | ·····'],
      ['[tick] for 5 s (main-user code) [tick] (installer code) [tick] [next] [next]', '16 leaving, s | 60'],
    ])
    expect(lost.kept).toEqual({})
    const idle = inside()
    idle.keys('[go] 16 [tick] 45 [tick] wait 239 s')
    expect(idle.shows).toBe('18 hold sending, s | 30')
    // Four minutes without a key: out, and all answers lost.
    idle.keys('wait 1 s')
    expect([idle.shows, idle.kept]).toEqual(['ready | ·····', {}])
  })

  it('is wiped only by the number it asks for', () => {
    const hand = inside()
    hand.keys('[go] 16 [tick] 45 [tick] [home] [tick] wait 40 s')
    follow(hand, [
      [
        '[tick] for 5 s (main-user code) [tick] (installer code) [tick] [go] 99 [tick]',
        '99 wipe? key 777 | _',
      ],
      ['776 [tick]', '99 wipe? key 777 | nothing wiped'],
      ['777 [tick]', 'wiping, then | restarting'],
      ['wait 20 s', 'ready | ·····'],
    ])
    expect(hand.kept).toEqual({})
  })
})

describe('Quillet 32: yes, no, and every answer is written as it moves on', () => {
  const inside = (): PanelInHand => {
    const hand = new PanelInHand(quillet)
    hand.keys('(main-user code) [yes] (installer code) [yes]')
    return hand
  }

  it('asks one question after another and goes round again', () => {
    follow(inside(), [
      ['', 'Change times? |'],
      ['[no]', 'Change devices? |'],
      ['[no] [no] [no] [no]', 'Clean start? |'],
      ['[no]', 'Finished? |'],
      ['[no]', 'Change times? |'],
      ['[yes]', 'T1 entry one? | 30'],
      // There is no way back: one no too many is the next question.
      ['[no]', 'T2 entry two? | 40'],
      ['[yes]', 'T2 entry two | #'],
      ['45 [yes]', 'T2 entry two | not that'],
      ['[no]', 'T2 entry two? | 40'],
      ['[yes] 50 [yes]', 'T3 exit? | 60'],
    ])
  })

  it('writes a yes or no as it moves on: nobody saves', () => {
    const hand = inside()
    follow(hand, [
      ['[yes] [no] [no] [no] [no] [no] [no] [no] [no] [no]', 'Beep coming in? | yes'],
      // No is an answer here: it is stored, whatever one meant.
      ['[no]', 'Beep going out? | yes'],
      ['[yes]', 'key switch? | none'],
      ['[yes]', 'none? | key switch'],
      ['[no]', 'springs back? | key switch'],
      ['[no] [no]', 'none? | key switch'],
      ['[no] [yes]', 'Change devices? |'],
    ])
    expect(hand.kept).toEqual({ 'system.entryBeeps': 'off', 'system.keySwitch': 'momentary' })
  })

  it('finds a device by its number, its type row by row, and skips what a wired one has not', () => {
    const hand = inside()
    follow(hand, [
      ['[no] [yes]', 'Device 001? | #'],
      ['[no]', 'Device 002? | #'],
      // Three digits are enough: nothing sends them.
      ['01', 'Device 002? | 01#'],
      ['2', 'Device 012? | #'],
      ['035', 'Device 012? | no such device'],
      ['[yes]', 'type? | 012'],
      ['[yes]', 'Door, first delay? | 012 type'],
      ['[no] [no] [no]', 'Shell? | 012 type'],
      ['[yes]', 'ID? | 012'],
      ['[yes]', '012 ID |'],
      // H204177: a letter, then digits. H is the second sign of 4; ABC turns to letters and back.
      ['[abc] 44', '012 ID | H#'],
      ['[abc] 204177', '012 ID | H204177#'],
      ['[yes]', 'reed works? | 012 yes'],
      ['[yes] [no] [no]', 'sets? 1-4 | 012 1'],
      // Sets are turned on and off by their numbers.
      ['2', 'sets? 1-4 | 012 12'],
      ['13', 'sets? 1-4 | 012 23'],
      ['[yes]', 'gong? | 012 off'],
      ['[yes] [no] [no]', 'two? | 012 gong'],
      ['[yes]', 'dial? | 012 yes'],
      ['[yes] [yes] [yes]', 'two trips? | 012 no'],
      // Only a wired one has a line.
      ['[no]', 'name? | 012'],
      ['[no]', 'Device 013? | #'],
      ['034 [yes]', 'type? | 034'],
      ['[no]', 'sets? 1-4 | 034 1'],
    ])
    expect(hand.kept).toEqual({
      'zone.12.response': 'shell',
      'zone.12.serial': 'H204177',
      'zone.12.areas.1': 'off',
      'zone.12.areas.2': 'on',
      'zone.12.areas.3': 'on',
      'zone.12.chime': 'two',
      'zone.12.transmissionDelay': 'on',
    })
  })

  it('writes a name letter by letter: the same key again is the next sign, unless the letter has ended', () => {
    const hand = inside()
    hand.keys('[no] [yes] 003 [yes]' + ' [no]'.repeat(11) + ' [yes]')
    follow(hand, [
      ['', '003 name | #'],
      // 4 gives g h i 4 G H I.
      ['444444', '003 name | H#'],
      // 2 gives a b c 2: the a of “Hall”; then l l on one key.
      ['2 555', '003 name | Hal#'],
      // 5 gives j k l 5 J K L: a fourth press is the digit, an eighth begins again.
      ['5', '003 name | Ha5#'],
      ['5555', '003 name | Haj#'],
      // No leaves the name as it was.
      ['[no]', 'name? | 003'],
    ])
    hand.keys('[yes] 444444 2 555 [next] 555')
    expect(hand.shows).toBe('003 name | Hall#')
    // A pause ends a letter too.
    hand.keys('wait 2 s 5')
    expect(hand.shows).toBe('003 name | Hallj#')
    hand.keys('[yes]')
    expect(hand.shows).toBe('Device 004? | #')
    // Every no on the way to the name was an answer, and is written.
    expect(hand.kept).toEqual({
      'zone.3.inputs.reed': 'off',
      'zone.3.report': 'off',
      'zone.3.supervise': 'off',
      'zone.3.label': 'Hallj',
    })
  })

  it('hears a device twice before it takes it', () => {
    const hand = inside()
    hand.keys('[no] [yes] [yes] [no] [yes] [next]')
    follow(hand, [
      ['', '001 ID | listening, send twice'],
      ['(hears H204177)', '001 ID | listening, send twice'],
      // Another one between counts from the beginning.
      ['(hears K300001) (hears H204177)', '001 ID | listening, send twice'],
      ['(hears H204177)', 'reed works? | 001 yes'],
    ])
    expect(hand.kept).toEqual({ 'zone.1.serial': 'H204177' })
  })
})

describe.each([
  ['Tarn 40', tarn, '[tick] for 5 s (main-user code) [tick] (installer code) [tick]'],
  ['Quillet 32', quillet, '(main-user code) [yes] (installer code) [yes]'],
  ['Pinfold 16', pinfold, '[work] (installer code) [set]'],
  ['Ostler S', ostler, '[menu] for 3 s (installer code) [ok]'],
  ['Sallow M', sallow, '[gear] (main-user code) [pick] (installer code) [pick]'],
  ['Morrow 60', morrow, '(main-user code) [mode] [mode] (installer code) [send]'],
])('%s under any keys', (_name, panel, wayIn) => {
  const input: fc.Arbitrary<Input> = fc.oneof(
    { weight: 30, arbitrary: fc.constantFrom(...panel.keys).map((key) => ({ kind: 'press' as const, key })) },
    {
      weight: 3,
      arbitrary: fc.constantFrom('main-user', 'installer').map((who) => ({ kind: 'code' as const, who })),
    },
    {
      weight: 2,
      arbitrary: fc.constantFrom(...panel.keys).map((key) => ({ kind: 'hold' as const, key, seconds: 5 })),
    },
    {
      weight: 1,
      arbitrary: fc
        .constantFrom('20417733', 'H204177', '9C204A', '41037256', '')
        .map((serial) => ({ kind: 'hear' as const, serial, loop: 1 })),
    },
    {
      weight: 1,
      arbitrary: fc.constantFrom(1, 5, 40).map((seconds) => ({ kind: 'wait' as const, seconds })),
    },
  )

  it('never fails, never leaves its display, and holds only values that its fields take', () => {
    fc.assert(
      fc.property(fc.array(input, { minLength: 100, maxLength: 100 }), (inputs) => {
        const hand = new PanelInHand(panel)
        hand.keys(wayIn)
        let { state } = hand
        for (const one of inputs) {
          state = act(panel, state, one)
          const { columns, lines } = panel.description.display
          const shown = display(panel, state)
          expect(shown.length).toBe(lines)
          expect(shown.every((line) => line.length <= columns)).toBe(true)
        }
        for (const [address, value] of keptDraft(state)) {
          const template = address
            .replace(/\.\d+\./, (at) =>
              address.startsWith('wired') || address.startsWith('zone') ? '.{zone}.' : at,
            )
            .replace(/^(fob|keypad|siren)\.\d+\./, '$1.{$1}.')
          const values = panel.values(template, (at) => state.kept.get(at) ?? '')
          expect([address, values?.keyed(value) === null]).toEqual([address, false])
        }
      }),
      { numRuns: runs(2000), seed: 20_261_127 },
    )
  })

  it('does the same again from the same state', () => {
    const first = switchedOn(panel, panel.factory)
    fc.assert(
      fc.property(input, (one) => {
        expect(act(panel, first, one)).toEqual(act(panel, first, one))
      }),
    )
  })
})
