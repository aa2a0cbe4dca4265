import { describe, expect, it } from 'vitest'
import { demoPanel, follow, PanelInHand } from '../testing/panels.ts'

const pinfold = demoPanel('pinfold-16')
const ostler = demoPanel('ostler-s-8')
const sallow = demoPanel('sallow-m')
const morrow = demoPanel('morrow-60')

/* As in machine.test.ts, the tables are written from the descriptions of the panels by hand, before the machine was asked. */
describe('Pinfold 16: locations hold numbers, or lights that each press turns', () => {
  const inside = (): PanelInHand => {
    const hand = new PanelInHand(pinfold)
    hand.keys('[work] (installer code) [set]')
    return hand
  }

  it('lets the installer in, keeps each location as it is set, and says bye', () => {
    const hand = new PanelInHand(pinfold)
    follow(hand, [
      ['[set] 1', 'READY'],
      ['[work]', 'CODE'],
      ['(main-user code) [set]', 'WRONG'],
      ['(installer code)', 'CODE ****'],
      ['[set]', 'LOC _'],
      ['020', 'LOC 020_'],
      ['[set]', 'NO LOC'],
      ['021 [set]', '021 30'],
      ['91', '021 91_'],
      // 1 to 90 s.
      ['[set]', '021 NO'],
      ['9', '021 9_'],
      ['[off]', '021 30'],
      ['45 [set]', 'LOC _'],
      ['999 [set]', 'BYE'],
      ['[work]', 'BYE'],
      ['wait 3 s', 'READY'],
    ])
    expect(hand.kept).toEqual({ 'system.entry1': '45' })
  })

  it('counts steps of 15 s in one location, and in another only where a light says so', () => {
    const hand = inside()
    follow(hand, [
      // 4 steps are a minute, as shipped.
      ['022 [set]', '022 4'],
      ['3 [set] 023 [set]', '023 60'],
      // Seconds: 4 is below the least of 5.
      ['4 [set]', '023 NO'],
      ['[work] 047 [set]', '047'],
      ['2', '047 2'],
      // Twice undoes.
      ['2', '047'],
      ['2 5', '047 25'],
      ['[set] 023 [set]', '023 60'],
      // Steps now: 4 of them are a minute; 61 are more than it counts.
      ['61 [set]', '023 NO'],
      ['4 [set]', 'LOC _'],
    ])
    expect(hand.kept).toEqual({
      'system.entry2': '3',
      'system.exit': '4',
      'system.exitUnit': 'on',
      'system.openAtExit': 'exclude',
    })
  })

  it('goes to a zone by the location that ends in its number', () => {
    const hand = inside()
    follow(hand, [
      ['117 [set]', 'NO LOC'],
      ['107 [set]', '107'],
      ['13 [set]', 'NO'],
      ['12 [set] 307 [set]', '307 13'],
      // Chime on, report off, and set.
      ['21', '307 23'],
      ['[set] 207 [set] 2 [set] 8107 [set] 14 [set]', 'LOC _'],
      ['407 [set] [work]', 'LISTEN'],
      // Seven signs are no ID of this family.
      ['(hears A204118 1)', 'LISTEN'],
      ['(hears 9C204A 2)', 'LOC _'],
      ['507 [set]', '507 2'],
      // 9C204A by keys: off turns to letters and back; C is the third sign of 2, A the first.
      ['[work] 408 [set] 9 [off] 222 [off] 204 [off] 2', '408 9C204A_'],
      ['[set] 611 [set]', '611 12'],
      ['[work] 61 [set]', '61'],
    ])
    expect(hand.kept).toEqual({
      'zone.7.response': '12',
      'zone.7.report': 'off',
      'zone.7.chime': 'on',
      'zone.7.areas.2': 'on',
      'zone.7.sirens.1': 'off',
      'zone.7.sirens.4': 'on',
      'zone.7.serial': '9C204A',
      'zone.7.loop': '2',
      'zone.8.serial': '9C204A',
    })
  })
})

describe('Ostler S: sections by number, lists that scroll, saved by a restart', () => {
  const inside = (): PanelInHand => {
    const hand = new PanelInHand(ostler)
    hand.keys('[menu] for 3 s (installer code) [ok]')
    return hand
  }

  it('scrolls a section up and down, and has delays of each part beside those of the whole', () => {
    const hand = new PanelInHand(ostler)
    follow(hand, [
      ['[menu] for 2 s', 'Strand | ·····'],
      ['[menu] for 3 s', 'Service? |'],
      ['[ok]', 'Service? | not now'],
      // The sign behind what is typed is a bar here, too.
      ['(installer code) [ok]', 'Section? | |'],
      ['3 [ok]', '3.1 First door, s | 30'],
      // None is reserved and means no delay.
      ['0 [ok]', '3.2 Second door, s | 45'],
      ['256 [ok]', '3.2 Second door, s | not in range'],
      ['[up]', '3.1 First door, s | 0'],
      ['[up]', 'Section? | |'],
      ['2 [ok] 3 [ok]', '2.1 part 3 1st door, s |'],
      ['20 [ok]', '2.2 part 3 2nd door, s |'],
      ['[down] [down]', '2.4 part 3 part set, s |'],
      ['[down]', '2 Part? | |'],
      ['[back] 4 [ok]', '4.2 Bell time, s | 180'],
      // By 10 s.
      ['185 [ok]', '4.2 Bell time, s | not in range'],
      ['190 [ok] [down] [down]', '4.8 Output | pulse'],
      ['[down]', '4.8 Output | hold'],
      ['[down]', '4.8 Output | pulse'],
      ['[up] [ok]', 'Section? | |'],
      ['[leave]', 'Save and restart? | ok yes, down no'],
      ['[ok] wait 30 s', 'Strand | ·····'],
    ])
    expect(hand.kept).toEqual({
      'area.3.entry1': '20',
      'system.entry1': '0',
      'system.outputs': 'latched',
      'system.siren': '190',
    })
  })

  it('asks a zone item by item, the type from a list that goes round', () => {
    const hand = inside()
    follow(hand, [
      ['5 [ok] 65 [ok]', '5 Zone? | no such zone'],
      ['07 [ok]', 'Zone 07 item? | |'],
      ['[down]', 'Zone 08 item? | |'],
      ['[up] 1 [ok]', '5.1 zone 07 acts | Door, first delay'],
      ['[up]', '5.1 zone 07 acts | Care call'],
      ['[down] [down] [down] [down]', '5.1 zone 07 acts | Shell'],
      ['[ok]', '5.2 zone 07 parts | 1'],
      // Into the other, out of this one.
      ['2', '5.2 zone 07 parts | 12'],
      ['1 [ok]', '5.3 zone 07 ID |'],
      ['[menu] 44 [menu] 204177', '5.3 zone 07 ID | H204177|'],
      ['[ok]', '5.9 zone 07 inputs | 1'],
      ['2 [ok]', '5.4 bell on opening? | 07 no'],
      ['[up]', '5.5 call out? | 07 yes'],
      ['[ok]', '5.6 hold the call? | 07 no'],
      ['[up]', '5.7 watch it? | 07 yes'],
      // No pair of fire detectors: 5.10 is not asked. Numbers up to 10 may be wired.
      ['[ok]', '5.11 zone 07 line | one end'],
      ['[ok]', '5.13 zone 07 name |'],
      ['77777 666 777 222 44', '5.13 zone 07 name | Porch|'],
      ['[ok]', 'Zone 08 item? | |'],
      // The same key again is the next sign, unless 2 s have passed.
      ['13 [ok] 2 2', '5.13 zone 08 name | b|'],
      ['wait 2 s 2', '5.13 zone 08 name | ba|'],
      ['[back] 1 [ok]' + ' [down]'.repeat(11) + ' [ok] [back] 7 [ok] [ok]', '5.10 zone 08 group | 1'],
      ['4 [ok]', '5.10 zone 08 group | 1, 2 or 3'],
      ['[back] [back] [back] [leave] [down]', 'Strand | ·····'],
    ])
    // Left without saving: all of it is lost.
    expect(hand.kept).toEqual({})
  })

  it('hears a device twice, and knows which parts a keypad or fob serves', () => {
    const hand = inside()
    follow(hand, [
      ['6 [ok] 02 [ok] [down]', '6 fob 02 ID | listening, trip it twice'],
      ['(hears Q500001)', '6 fob 02 ID | listening, trip it twice'],
      ['(hears Q500001)', '6 Fob? | |'],
      ['[back] 9 [ok] 202 [ok]', '9 fob 02 parts | 1234'],
      ['34 [ok]', '9 Serves? 1 keypad 2 fob | |'],
      ['19 [ok]', '9 Serves? 1 keypad 2 fob | no such one'],
      ['[leave] [ok] wait 30 s', 'Strand | ·····'],
    ])
    expect(hand.kept).toEqual({ 'fob.2.serial': 'Q500001', 'fob.2.areas.3': 'off', 'fob.2.areas.4': 'off' })
  })
})

describe('Sallow M: lists to touch, and quiet after it restarts', () => {
  it('types minutes and seconds, scrolls lists, puts a zone into one part, and settles for 20 minutes', () => {
    const hand = new PanelInHand(sallow)
    follow(hand, [
      ['[Zones]', '····· |  | touch the gear'],
      ['[gear] (installer code) [pick]', 'May the fitter in? |  | no'],
      ['(main-user code) [pick] (installer code) [pick]', 'Times / Door | 0:30 |'],
      ['130', 'Times / Door | 130~ |'],
      ['[pick]', 'Times / Long door | 0:45 |'],
      ['[up]', 'Times / Door | 1:30 |'],
      // A minute has 60 s, and it goes by 5 s.
      ['190 [pick]', 'Times / Door | 1:30 | cannot be that'],
      ['47 [pick]', 'Times / Door | 1:30 | cannot be that'],
      ['[Options] [down] [down]', 'Options / Sound on entry | on |'],
      ['[down]', 'Options / Sound on entry | off |'],
      ['[down]', 'Options / Sound on entry | off |'],
      ['[pick]', 'Options / Sound on exit | on |'],
      // Passed without an answer.
      ['[fix]', 'Options / Outputs | short |'],
      ['[Zones] 73 [pick]', 'Zones | row ~ | no such row'],
      ['09 [pick]', '09 What | Opening | zone 09'],
      ['[down] [pick]', '09 Acts as | Door, first delay | zone 09'],
      ['[down] [down] [down] [pick]', '09 Part, touch 1 to 4 | 1 |'],
      // One part at a time.
      ['24', '09 Part, touch 1 to 4 | 4 |'],
      ['3 [pick]', '09 ID |  |'],
      [
        '0 [caps] a [caps] 1 [caps] b [caps] 2 [caps] c [caps] 3 [caps] d [caps] 4 [caps] e',
        '09 ID | 0A1B2C3D4E~ |',
      ],
      ['[pick]', '09 Input |  |'],
      ['1 [pick]', '09 Sound | off | zone 09'],
      ['[down] [pick]', '09 Report | on | zone 09'],
      ['[fix] [fix] [fix]', '09 Two trips | off | zone 09'],
      // Neither a pair of fire detectors nor a wired line: its name comes next. A letter again is its capital.
      ['[fix]', '09 Name |  |'],
      ['hhal [fix] l', '09 Name | Hall~ |'],
      ['[pick]', '10 What | Opening | zone 10'],
      ['[close]', 'Keep changes? | keep, or clear loses all |'],
      ['[keep]', 'Restarting | leave it quiet | 20 minutes'],
      ['wait 1199 s', 'Restarting | leave it quiet | 20 minutes'],
      ['wait 1 s', '····· |  | touch the gear'],
    ])
    expect(hand.kept).toEqual({
      'system.entry1': '90',
      'system.entryBeeps': 'off',
      'zone.9.equipmentKind': 'Movement',
      'zone.9.response': 'edge',
      'zone.9.areas.1': 'off',
      'zone.9.areas.3': 'on',
      'zone.9.serial': '0A1B2C3D4E',
      'zone.9.loop': '1',
      'zone.9.chime': 'bell',
      'zone.9.label': 'Hall',
    })
  })
})

describe('Morrow 60: an address, then its value, kept as it is sent', () => {
  const inside = (): PanelInHand => {
    const hand = new PanelInHand(morrow)
    hand.keys('(main-user code) [mode] [mode] (installer code) [send]')
    return hand
  }

  it('opens the service door for the main user, keeps each value as it is sent, and checks at the end', () => {
    const hand = new PanelInHand(morrow)
    follow(hand, [
      ['[send]', 'READY | ·····'],
      ['(installer code) [mode]', 'READY | NOT READY'],
      ['(main-user code)', 'READY **** | ·····'],
      ['[mode]', 'MAIN USER | MODE FOR SERVICE'],
      ['[mode]', 'SERVICE? |'],
      ['(main-user code) [send]', 'SERVICE? | NO'],
      ['(installer code) [send]', 'ADDRESS | +'],
      ['613 [send]', 'ADDRESS | NO SUCH ADDRESS'],
      ['611 [send]', '611 | = 30'],
      ['241', '611 | = 241+'],
      // 0 to 240 s.
      ['[send]', '611 | REFUSED'],
      ['45 [quit]', '611 | = 30'],
      ['45 [send]', 'ADDRESS | +'],
      // Steps of 15 s, 3 to 17 of them.
      ['614 [send] 2 [send]', '614 | REFUSED'],
      ['17 [send] 641 [send]', '641 | = 3'],
      ['5 [send]', '641 | 3 OR 6'],
      ['6 [send] 651 [send]', '651 DEAD PAIRS | ='],
      ['122', '651 DEAD PAIRS | = 1'],
      ['12', '651 DEAD PAIRS | = 2'],
      ['[send] 807 [send]', 'ADDRESS | NO SUCH ADDRESS'],
      ['805 [send]', '805 PARTS | = 12'],
      ['1 [send]', 'ADDRESS | +'],
      ['900 [send]', 'CHECKING | WAIT'],
      ['[send] wait 15 s', 'READY | ·····'],
    ])
    expect(hand.kept).toEqual({
      'system.entry1': '45',
      'system.exit': '17',
      'system.outputs': 'latched',
      'system.keysOff.medical-pair': 'on',
      'keypad.5.areas.1': 'off',
    })
  })

  it('asks the items of a zone by number, and says which its type or its line has not', () => {
    const hand = inside()
    follow(hand, [
      ['700 [send] 84 [send]', '700 ZONE? | NO SUCH ZONE'],
      // Two digits each.
      ['9 [send]', '700 ZONE? | NO SUCH ZONE'],
      ['09 [send]', 'Z09 ITEM? | +'],
      // A zone of 1 to 12 may be wired.
      ['12 [send]', 'Z09 LINE | = 4'],
      ['3 [send]', 'Z09 LINE | 1 2 4 OR 7'],
      ['7 [send] 7 [send]', 'Z09 ID | ='],
      ['[mode]', 'Z09 ID | LISTENING'],
      ['(hears 41037256 2)', 'Z09 ID | LISTENING'],
      ['(hears 41037256 2)', 'Z09 ITEM? | +'],
      ['8 [send]', 'Z09 INPUT | = 2'],
      ['[blank]', 'Z09 INPUT | ='],
      ['3 [send] 1 [send] 31 [send]', 'Z09 ITEM? | +'],
      // A fire zone has no chime.
      ['6 [send]', 'Z09 ITEM? | NOT FOR THIS ONE'],
      ['4 [send]', 'Z09 CALLS | = 1'],
      ['2 [send]', 'Z09 CALLS | 1 OR 0'],
      ['0 [send] 3 [send]', 'Z09 PART | = 1'],
      // One part at a time.
      ['2', 'Z09 PART | = 2'],
      ['[send] 10 [send]', 'Z09 NAME |'],
      // B is the third sign of 2, A the second; D and the same key again after a step.
      ['222 [mode] 22 33', 'Z09 NAME | BAD+'],
      ['[send] 0 [send] 10 [send] 7 [send] 41037256 [send] 8 [send] 3 [send]', 'Z10 INPUT | REFUSED'],
      ['[quit] 7 [send] 41037257 [send]', 'Z10 ID | NO SUCH ID'],
      ['[blank]', 'Z10 ID | ='],
      // Panic keys of a keypad have no ID, lines none either.
      ['[quit] [quit] 55 [send] 7 [send]', 'Z55 ITEM? | NOT FOR THIS ONE'],
      ['[quit] [quit]', 'ADDRESS | +'],
    ])
    expect(hand.kept).toEqual({
      'wired.9.wiring': '7',
      'zone.9.serial': '41037256',
      'zone.9.loop': '3',
      'zone.9.response': '31',
      'zone.9.report': 'off',
      'zone.9.areas.1': 'off',
      'zone.9.areas.2': 'on',
      'zone.9.label': 'BAD',
    })
  })

  it('brings back all that was shipped only where it is asked twice', () => {
    const hand = inside()
    follow(hand, [
      ['623 [send] 5 [send] 909 [send]', 'WIPE? 909 | +'],
      ['900 [send]', 'WIPE? 909 | KEPT'],
      ['909 [send]', 'WIPING |'],
      ['wait 20 s', 'READY | ·····'],
    ])
    expect(hand.kept).toEqual({})
  })
})
