import { describe, expect, it } from 'vitest'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { blankArea } from '../job/blank.ts'
import { catalogue, cleanMorrow, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { keypadPresses } from './presses.ts'
import { programmingSheet, type Sheet } from './sheet.ts'
import type { SheetStep } from './step.ts'

const sheetOf = (job: SmallJob): Sheet => {
  const sheet = programmingSheet(job.doc, catalogue, job.houseRules)
  if (!sheet) throw new Error('no sheet')
  return sheet
}
const lines = (steps: readonly SheetStep[]) => steps.map((step) => [step.keys, step.shows, step.meaning])
const section = (sheet: Sheet, title: string) => {
  const found = sheet.sections.find((item) => item.title.startsWith(title))
  if (!found) throw new Error(`no section ${title}`)
  return found.steps
}

describe('writing text on a number pad', () => {
  it.each([
    ['CAB', '222 2 22'],
    ['hall door', '44 2 555 555 0 3 666 666 777'],
    ['A-1.', '2 11 1 1111'],
    ['ZOE 9', '9999 666 33 0 99999'],
    ['é', '?'],
  ])('%s', (text, presses) => expect(keypadPresses(text)).toBe(presses))
})

describe('the sheet of the Tarn 40', () => {
  it('walks in, sets the system, each zone, the slots, and saves on the way out', () => {
    expect(sheetOf(cleanTarn()).sections.map((item) => item.title)).toEqual([
      'Way in',
      'Whole system',
      'Zone 01 — Porch Front Door',
      'Zone 02 — Study Window',
      'Zone 03 — Hall Motion',
      'Zone 04 — Lounge Glass',
      'Zone 05 — Landing Smoke',
      'Zone 06 — Landing Heat',
      'Zone 07 — Landing Frost',
      'Zone 08 — Kitchen Gas',
      'Zone 09 — Bedroom Panic',
      'Fobs, keypads and sirens',
      'Way out and save',
    ])
    expect(section(sheetOf(cleanTarn()), 'Way out').at(-1)?.note).toContain('Saved means')
  })

  it('keys delays in seconds and shows both numbers', () => {
    // 42 s is no multiple of 5: it goes up to 45 s, which EN 50131-1 still allows.
    const job = cleanTarn().set('job:main', { entry1: 30, entry2: 42, exit: 60 })
    expect(lines(section(sheetOf(job), 'Whole system'))).toEqual([
      ['[go] 14 [tick], 30 [tick]', '14 First way-in time: 30', '30 → 30 s'],
      [
        '[go] 15 [tick], 45 [tick]',
        '15 Second way-in time: 45',
        '45 → 45 s (42 s goes up to 45 s, the next step)',
      ],
      ['[go] 16 [tick], 60 [tick]', '16 Leaving time: 60', '60 → 60 s'],
    ])
  })

  it('asks equipment first, then response, ID, loop, flags and the words of the label', () => {
    const job = cleanTarn().set('device:porch', { sticker: '20417733' })
    expect(lines(section(sheetOf(job), 'Zone 01'))).toEqual([
      ['[go] 50 [tick], 01 [tick]', 'line 01: begin', '01'],
      ['318 [tick]', '01 what: 318', 'Reedling contact'],
      ['21 [tick]', '01 does: 21', 'Way in, first delay'],
      ['2 0 4 1 7 7 3 3 [tick]', '01 id: 2 0 4 1 7 7 3 3', '2041 7733, from the sticker, not learned yet'],
      ['3 [tick]', '01 input: 3', 'reed'],
      ['[tick]', '01 send? [tick]', 'yes'],
      ['[cross]', '01 hold before sending? [cross]', 'no'],
      ['[tick]', '01 gong? [tick]', 'yes'],
      ['[tick]', '01 watch it? [tick]', 'yes'],
      [`${wordNumbers(['Porch', 'Front', 'Door'])} [tick]`, 'Porch Front Door', 'Porch Front Door'],
      ['[next]', 'line 01: summary', ''],
    ])
  })

  it('leaves out what the type hides', () => {
    const fields = section(sheetOf(cleanTarn()), 'Zone 05').map((step) => step.field)
    const fire = catalogue.get('panel', 'panel/tarn-40')?.responseTypes.find((type) => type.key === 'fire')
    expect(fire?.hides.length).toBeGreaterThan(0)
    for (const [field, words] of [
      ['chime', 'chime'],
      ['transmissionDelay', 'hold before sending'],
      ['report', 'report'],
      ['supervise', 'supervise'],
    ] as const)
      expect([field, fields.includes(words)]).toEqual([field, !fire?.hides.includes(field)])
  })

  it('marks what is still open and counts it', () => {
    const job = cleanTarn()
    const before = sheetOf(job)
    // Nothing has a sticker yet: nine zones and one fob have no ID to key.
    expect(before.open).toBe(10)
    job.set(job.zone('study').id, { label: '', response: null })
    const after = sheetOf(job)
    expect(after.open).toBe(12)
    expect(
      section(after, 'Zone 02')
        .filter((step) => step.open)
        .map((step) => [step.field, step.keys]),
    ).toEqual([
      ['response type', '______ [tick]'],
      ['transmitter ID', '______ [tick]'],
      ['label', '______ [tick]'],
    ])
  })

  it('never prints the installer code', () => {
    const text = JSON.stringify(sheetOf(cleanTarn()))
    expect(text).toContain('The installer code is written in by hand; it is not printed.')
  })

  it('keys a fob into its slot', () => {
    const job = cleanTarn().learn('device:fob', '4B2K90QX')
    expect(lines(section(sheetOf(job), 'Fobs'))).toEqual([
      [
        '[go] 72 [tick], 1 [tick], 4 B 2 K 9 0 Q X [tick]',
        'fob 1: 4 B 2 K 9 0 Q X',
        'Quartet C fob, 4B2K 90QX',
      ],
    ])
  })
})

describe('the sheet of the Morrow 60', () => {
  it('keys the exit delay in steps of 15 s', () => {
    expect(lines(section(sheetOf(cleanMorrow()), 'Whole system'))).toEqual([
      ['611 [send] 30 [send]', '611=30', '30 → 30 s'],
      ['612 [send] 30 [send]', '612=30', '30 → 30 s'],
      ['614 [send] 4 [send]', '614=4', '4 → 60 s'],
      ['618 [send] 30 [send]', '618=30', '30 → 30 s'],
    ])
  })

  it('asks response first, then kind, and spells the label in presses', () => {
    const job = cleanMorrow()
    const first = job.zone('front')
    const steps = section(sheetOf(job), `Zone ${String(first.number).padStart(2, '0')}`)
    expect(steps.slice(0, 4).map((step) => [step.keys, step.meaning])).toEqual([
      [`700 [send] ${String(first.number).padStart(2, '0')} [send]`, String(first.number).padStart(2, '0')],
      ['1 [send] 2 [send]', 'Way in, first delay'],
      ['2 [send] 1 [send]', 'Opening'],
      ['3 [send] 1 [send]', 'Whole premises'],
    ])
    // FRONT DOOR: F 333, R 777, O 666, N 66, T 8, space 0, D 3, O 666, O 666, R 777.
    expect(steps.at(-2)?.keys).toBe('10 [send] 333 777 666 66 8 0 3 666 666 777 [send]')
  })

  it('says a delay it cannot store instead of keying one', () => {
    const job = cleanMorrow().set('job:main', { exit: 400 })
    const step = section(sheetOf(job), 'Whole system')[2]
    expect(step).toMatchObject({ open: true, keys: '614 [send] ______ [send]' })
    expect(step?.meaning).toContain('cannot be kept')
  })
})

describe('the sheet of the Ostler S', () => {
  const ostler = () =>
    new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
      .add('front', 'sill-8', { use: 'entry', position: 'door' })
      .add('back', 'sill-slim-8', { use: 'entry', position: 'door' })
      .number()

  it('switches the inputs of a contact instead of asking for its loop', () => {
    const job = ostler()
    job.set(job.zone('front').id, { reedOn: false, terminalsOn: true, endOfLineOn: true })
    const inputs = (zone: string) =>
      section(sheetOf(job), zone).find((step) => step.field === 'contact inputs')
    const { yes, no } = catalogue.get('panel', 'panel/ostler-s-8')?.programming ?? { yes: '', no: '' }
    expect(inputs('Zone 01')?.keys).toBe(`5.9 [ok], ${no} ${yes} ${yes} [ok]`)
    expect(inputs('Zone 01')?.meaning).toBe('reed off, terminals on, end-of-line on')
    // The slim contact has a reed only.
    expect(inputs('Zone 02')?.meaning).toBe('reed on')
    expect(section(sheetOf(job), 'Zone 01').some((step) => step.field === 'loop')).toBe(false)
  })

  it('keys the delays that an area has of its own behind those of the job', () => {
    const job = ostler().apply([
      {
        op: 'add',
        record: { ...blankArea, id: 'area:2', number: 2, name: 'Annexe', entry1: 20, order: 2 },
      },
    ])
    const steps = section(sheetOf(job), 'Whole system')
    expect(steps.map((step) => [step.field, step.meaning])).toEqual([
      ['entry delay 1', '30 → 30 s'],
      ['entry delay 2', '45 → 45 s'],
      ['exit delay', '60 → 60 s'],
      ['exit delay of stay', 'not set in the plan'],
      ['entry delay 1 of Annexe', '20 → 20 s'],
    ])
    expect(steps.at(-1)?.keys).toContain('3.1, part 2')
  })

  it('names both areas of a common zone', () => {
    const job = ostler().apply([
      { op: 'add', record: { ...blankArea, id: 'area:2', number: 2, name: 'Annexe', order: 2 } },
    ])
    job.set(job.zone('front').id, { area2: 'area:2' })
    const step = section(sheetOf(job), 'Zone 01').find((item) => item.field === 'area')
    expect([step?.keys, step?.meaning]).toEqual(['5.2 [ok], 1 2 [ok]', 'Whole premises and Annexe'])
  })
})

it('has no sheet without a panel', () => {
  expect(programmingSheet(new SmallJob({ panel: null }).doc, catalogue, defaultHouseRules)).toBeNull()
})

function wordNumbers(words: readonly string[]): string {
  const rule = catalogue.get('panel', 'panel/tarn-40')?.label
  if (rule?.style !== 'library') throw new Error('the Tarn has a word list')
  return words.map((word) => rule.words.find((item) => item.text === word)?.number).join(' _ ')
}
