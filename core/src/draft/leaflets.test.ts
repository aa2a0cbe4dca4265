import { describe, expect, it } from 'vitest'
import { deviceClasses } from '../catalogue/entry-fields.ts'
import { catalogue } from '../testing/small-job.ts'
import { beginDraft, draftEntry } from './entry.ts'
import { questionsOf } from './questions.ts'
import { answerOps, draftKernel, type Answer, type DraftDocument } from './records.ts'

/*
 * One leaflet for each class of device, written first and by hand, none of the demo world; beside it the entry that must come of it.
 * What a leaflet does not say stays away from the entry: it reads as not stated.
 */

type Sheet = Readonly<Record<string, Answer['value']>>
const described = (sheet: Sheet): DraftDocument => {
  const apply = (doc: DraftDocument, ops: Parameters<typeof draftKernel.applyOps>[1]): DraftDocument => {
    const result = draftKernel.applyOps(doc, ops)
    return result.ok ? result.doc : expect.fail(JSON.stringify(result.conflict))
  }
  const begun = apply(draftKernel.empty, beginDraft('device', { like: null, corrects: false }, catalogue))
  return Object.entries(sheet).reduce((doc, [path, value]) => apply(doc, answerOps(doc, path, value)), begun)
}
const front = (name: string, of: string, family: string | null): Sheet => ({
  ...{ maker: 'Penbrook', name, regions: ['europe'], class: of, family },
})
/** What an entry has where its leaflet says nothing of it. */
const bare = {
  ...{ kind: 'device', version: '1', maker: 'Penbrook', regions: ['europe'] },
  ...{ needsTwoWay: false, loops: [], slot: 'none', ways: [], petKg: null },
  ...{ carried: false, disarms: false, magnetGapMm: null, batteries: null, equipmentCodes: [], note: null },
}
const inside = { 'temperatureC.from': 0, 'temperatureC.to': 40 }
const indoors = { temperatureC: { from: 0, to: 40 } }
const plover = { family: 'family/plover', encryption: 'none', way: 'one-way' }
const curlew = { family: 'family/curlew-8', encryption: 'always', way: 'two-way' }
/** How most of them are made to send while the panel listens. */
const opened = [{ way: 'open the cover', sends: 'tamper' }]
const event = (name: string, loop: number, called: string, bench = true) => ({
  event: name,
  loop,
  name: called,
  bench,
})

const leaflets: Readonly<Record<string, { readonly sheet: Sheet; readonly entry: object }>> = {
  contact: {
    sheet: {
      ...{ ...front('Sorrel contact', 'contact', 'family/plover'), ...inside },
      loops: [event('open', 1, 'reed'), event('terminals', 2, 'terminals')],
      ways: [{ way: 'open the cover', sends: 'tamper', indicator: 'red, once', seconds: null }],
      ...{
        checkInMinutes: 70,
        magnetGapMm: 18,
        sticker: 'on its back',
        stickerPlace: 'outside',
        outdoor: false,
      },
      ...{ 'batteries.count': 1, 'batteries.type': 'CR2450', 'batteries.wayUp': 'plus up' },
    },
    entry: {
      ...{ ...plover, ...indoors, class: 'contact', id: 'device/sorrel-contact', name: 'Sorrel contact' },
      loops: [event('open', 1, 'reed'), event('terminals', 2, 'terminals')],
      ways: [{ way: 'open the cover', sends: 'tamper', indicator: 'red, once' }],
      ...{
        checkInMinutes: 70,
        magnetGapMm: 18,
        sticker: 'on its back',
        stickerPlace: 'outside',
        outdoor: false,
      },
      batteries: { count: 1, type: 'CR2450', wayUp: 'plus up' },
    },
  },
  motion: {
    sheet: {
      ...{ ...front('Sorrel motion', 'motion', 'family/curlew-8'), ...inside },
      loops: [event('motion', 1, 'motion')],
      ways: [{ way: 'press and hold the button', sends: 'button', indicator: '', seconds: 3 }],
      ...{
        petKg: 25,
        petSettings: [
          { setting: 'jumper off', kg: 25 },
          { setting: 'jumper on', kg: 0 },
        ],
      },
      ...{ sleepsSeconds: 180, readyAfterSeconds: 60, confirm: true, needsTwoWay: false, grade: '2' },
      sticker: 'inside the lid',
    },
    entry: {
      ...{ ...curlew, ...indoors, class: 'motion', id: 'device/sorrel-motion', name: 'Sorrel motion' },
      loops: [event('motion', 1, 'motion')],
      ways: [{ way: 'press and hold the button', sends: 'button', seconds: 3 }],
      ...{
        petKg: 25,
        petSettings: [
          { setting: 'jumper off', kg: 25 },
          { setting: 'jumper on', kg: 0 },
        ],
      },
      ...{ sleepsSeconds: 180, readyAfterSeconds: 60, confirm: true, grade: 2, sticker: 'inside the lid' },
    },
  },
  'glass-break': {
    sheet: {
      ...{ ...front('Sorrel pane', 'glass-break', 'family/plover'), ...inside },
      ...{ loops: [event('glass', 1, 'glass', false)], ways: opened, sticker: 'on its side' },
    },
    entry: {
      ways: opened,
      ...{ ...plover, ...indoors, class: 'glass-break', id: 'device/sorrel-pane', name: 'Sorrel pane' },
      ...{ loops: [event('glass', 1, 'glass', false)], sticker: 'on its side' },
    },
  },
  shock: {
    sheet: {
      ...{ ...front('Sorrel shock', 'shock', 'family/plover'), ...inside },
      ...{
        loops: [event('shock', 4, 'shock')],
        ways: opened,
        sensitivity: ['low', 'middle', 'high'],
        sticker: 'inside',
      },
    },
    entry: {
      ways: opened,
      ...{ ...plover, ...indoors, class: 'shock', id: 'device/sorrel-shock', name: 'Sorrel shock' },
      ...{ loops: [event('shock', 4, 'shock')], sensitivity: ['low', 'middle', 'high'], sticker: 'inside' },
    },
  },
  // Three events, each a zone of its own.
  smoke: {
    sheet: {
      ...{ ...front('Sorrel smoke', 'smoke', 'family/plover'), ...inside },
      loops: [
        event('smoke', 1, 'smoke'),
        event('heat', 2, 'heat', false),
        event('freeze', 3, 'frost', false),
      ],
      ways: [{ way: 'press test for 5 s', sends: 'event', indicator: '', seconds: 5 }],
      ...{ 'tripsAtC.heat': 57, 'tripsAtC.freeze': 5, lifeYears: 10, sticker: 'below the base' },
    },
    entry: {
      ...{ ...plover, ...indoors, class: 'smoke', id: 'device/sorrel-smoke', name: 'Sorrel smoke' },
      loops: [
        event('smoke', 1, 'smoke'),
        event('heat', 2, 'heat', false),
        event('freeze', 3, 'frost', false),
      ],
      ways: [{ way: 'press test for 5 s', sends: 'event', seconds: 5 }],
      ...{ tripsAtC: { heat: 57, freeze: 5 }, lifeYears: 10, sticker: 'below the base' },
    },
  },
  heat: {
    sheet: {
      ...{ ...front('Sorrel heat', 'heat', null), ...inside },
      ...{
        loops: [event('heat', 1, 'heat', false)],
        ways: null,
        'tripsAtC.heat': 62,
        sticker: 'below the base',
      },
    },
    entry: {
      ...{ family: null, encryption: 'none', way: null, checkInMinutes: null, ...indoors },
      ...{ class: 'heat', id: 'device/sorrel-heat', name: 'Sorrel heat' },
      ...{ loops: [event('heat', 1, 'heat', false)], tripsAtC: { heat: 62 }, sticker: 'below the base' },
    },
  },
  gas: {
    sheet: {
      ...{ ...front('Sorrel CO', 'gas', 'family/curlew-8'), ...inside },
      ...{ loops: [event('co', 1, 'carbon monoxide')], ways: opened, lifeYears: 7, sticker: 'on its back' },
    },
    entry: {
      ways: opened,
      ...{ ...curlew, ...indoors, class: 'gas', id: 'device/sorrel-co', name: 'Sorrel CO' },
      ...{ loops: [event('co', 1, 'carbon monoxide')], lifeYears: 7, sticker: 'on its back' },
    },
  },
  flood: {
    sheet: {
      ...{ ...front('Sorrel flood', 'flood', 'family/plover'), ...inside },
      ...{
        loops: [event('flood', 1, 'water')],
        ways: opened,
        sticker: 'underneath',
        stickerPlace: 'under-batteries',
      },
    },
    entry: {
      ways: opened,
      ...{ ...plover, ...indoors, class: 'flood', id: 'device/sorrel-flood', name: 'Sorrel flood' },
      ...{ loops: [event('flood', 1, 'water')], sticker: 'underneath', stickerPlace: 'under-batteries' },
    },
  },
  temperature: {
    sheet: {
      ...front('Sorrel frost', 'temperature', 'family/plover'),
      ...{ 'temperatureC.from': -30, 'temperatureC.to': 60, 'tripsAtC.freeze': 4 },
      ...{ loops: [event('freeze', 1, 'frost', false)], ways: opened, sticker: 'on its back' },
    },
    entry: {
      ways: opened,
      ...{ ...plover, class: 'temperature', id: 'device/sorrel-frost', name: 'Sorrel frost' },
      ...{ temperatureC: { from: -30, to: 60 }, tripsAtC: { freeze: 4 } },
      ...{ loops: [event('freeze', 1, 'frost', false)], sticker: 'on its back' },
    },
  },
  // Carried: it has no place.
  panic: {
    sheet: {
      ...{ ...front('Sorrel pendant', 'panic', 'family/plover'), ...inside },
      ...{
        loops: [event('medical', 1, 'call')],
        ways: opened,
        carried: true,
        outdoor: true,
        sticker: 'on its back',
      },
    },
    entry: {
      ways: opened,
      ...{ ...plover, ...indoors, class: 'panic', id: 'device/sorrel-pendant', name: 'Sorrel pendant' },
      ...{ loops: [event('medical', 1, 'call')], carried: true, outdoor: true, sticker: 'on its back' },
    },
  },
  // Always carried, and kept in a slot of its own.
  fob: {
    sheet: {
      ...{ ...front('Sorrel key', 'fob', 'family/curlew-8'), ...inside },
      loops: [event('arm-away', 1, 'lock'), event('disarm', 2, 'unlock')],
      ways: [{ way: 'press lock', sends: 'button', indicator: '', seconds: null }],
      ...{ disarms: true, confirm: false, sticker: 'on its back' },
    },
    entry: {
      ...{ ...curlew, ...indoors, class: 'fob', id: 'device/sorrel-key', name: 'Sorrel key', slot: 'fob' },
      checkInMinutes: null,
      loops: [event('arm-away', 1, 'lock'), event('disarm', 2, 'unlock')],
      ways: [{ way: 'press lock', sends: 'button' }],
      ...{ carried: true, disarms: true, confirm: false, sticker: 'on its back' },
    },
  },
  keypad: {
    sheet: {
      ...{ ...front('Sorrel keypad', 'keypad', 'family/curlew-8'), ...inside },
      ...{ ways: opened, disarms: true, needsTwoWay: true, checkInMinutes: 12, sticker: 'below the battery' },
    },
    entry: {
      ways: opened,
      ...{ ...curlew, ...indoors, class: 'keypad', id: 'device/sorrel-keypad', name: 'Sorrel keypad' },
      ...{
        slot: 'keypad',
        disarms: true,
        needsTwoWay: true,
        checkInMinutes: 12,
        sticker: 'below the battery',
      },
    },
  },
  siren: {
    sheet: {
      ...front('Sorrel horn', 'siren', 'family/curlew-8'),
      ...{ 'temperatureC.from': -20, 'temperatureC.to': 60, outdoor: true, needsTwoWay: true },
      ...{ ways: opened, sticker: 'inside', discontinued: 'alone' },
      ...{ 'price.amount': 84.5, 'price.currency': 'EUR', 'price.pack': 1 },
    },
    entry: {
      ways: opened,
      ...{ ...curlew, class: 'siren', id: 'device/sorrel-horn', name: 'Sorrel horn', slot: 'siren' },
      ...{ temperatureC: { from: -20, to: 60 }, outdoor: true, needsTwoWay: true, sticker: 'inside' },
      ...{ discontinued: { successor: null }, price: { amount: 84.5, currency: 'EUR', pack: 1 } },
    },
  },
  repeater: {
    sheet: {
      ...{ ...front('Sorrel relay', 'repeater', 'family/dunlin'), ...inside },
      ...{
        encryption: 'optional',
        needsTwoWay: false,
        ways: opened,
        transmitDbm: 10,
        sticker: 'on its back',
      },
    },
    entry: {
      ways: opened,
      ...{ family: 'family/dunlin', encryption: 'optional', way: 'one-way', ...indoors },
      ...{
        class: 'repeater',
        id: 'device/sorrel-relay',
        name: 'Sorrel relay',
        transmitDbm: 10,
        sticker: 'on its back',
      },
    },
  },
}

describe('a leaflet of each class', () => {
  it('is there for every class', () => {
    expect(Object.keys(leaflets).toSorted()).toEqual([...deviceClasses].toSorted())
  })

  it.each(Object.entries(leaflets))('%s comes to the entry beside it', (_class, { sheet, entry }) => {
    const { kept, problems } = draftEntry(described(sheet), catalogue)
    expect(problems).toEqual([])
    expect(kept?.entry).toEqual({ ...bare, ...entry })
  })

  it.each(Object.entries(leaflets))('%s is asked all that its leaflet says', (_class, { sheet }) => {
    const asked = questionsOf(described(sheet), catalogue).map(({ path }) => path)
    expect(Object.keys(sheet).filter((path) => !asked.includes(path))).toEqual([])
  })

  it.each([
    ['contact', ['petKg', 'sleepsSeconds', 'sensitivity', 'disarms', 'carried', 'lifeYears', 'joined']],
    ['motion', ['magnetGapMm', 'switches', 'sensitivity', 'disarms', 'carried', 'lifeYears']],
    ['smoke', ['magnetGapMm', 'petKg', 'outdoor', 'disarms', 'needsTwoWay', 'confirm']],
    ['heat', ['checkInMinutes', 'transmitDbm', 'batteries.count', 'encryption']],
    ['fob', ['carried', 'checkInMinutes', 'magnetGapMm', 'petKg']],
    ['keypad', ['loops', 'petKg', 'magnetGapMm', 'confirm']],
    ['siren', ['loops', 'disarms', 'lifeYears', 'tripsAtC.heat']],
    ['repeater', ['loops', 'disarms', 'outdoor', 'lifeYears']],
  ])('%s is not asked what it cannot have', (of, paths) => {
    const asked = questionsOf(described(leaflets[of]?.sheet ?? {}), catalogue).map(({ path }) => path)
    expect(paths.filter((path) => asked.includes(path))).toEqual([])
  })
})
