import { describe, expect, it } from 'vitest'
import { Catalogue } from '../catalogue/catalogue.ts'
import type { CatalogueEntry } from '../catalogue/schema.ts'
import { keepEntry } from '../catalogue/written.ts'
import { catalogue } from '../testing/small-job.ts'
import { beginDraft, draftEntry } from './entry.ts'
import { describedKinds, isDescribed, questionsOf, type DescribedKind } from './questions.ts'
import { answerOps, draftKernel, sourceOps, type Answer, type DraftDocument } from './records.ts'

const begin = (kind: DescribedKind, like: CatalogueEntry | null = null, corrects = false): DraftDocument => {
  const result = draftKernel.applyOps(draftKernel.empty, beginDraft(kind, { like, corrects }, catalogue))
  if (!result.ok) throw new Error(JSON.stringify(result.conflict))
  return result.doc
}
const answer = (doc: DraftDocument, path: string, value: Answer['value'] | undefined): DraftDocument => {
  const result = draftKernel.applyOps(doc, answerOps(doc, path, value))
  if (!result.ok) throw new Error(JSON.stringify(result.conflict))
  return result.doc
}
const answered = (kind: DescribedKind, leaflet: Readonly<Record<string, Answer['value']>>): DraftDocument =>
  Object.entries(leaflet).reduce((doc, [path, value]) => answer(doc, path, value), begin(kind))
const described = catalogue.entries.filter((entry) => isDescribed(entry.kind))

/* Leaflets as they would be read, none of them of the demo world. */
const family = {
  maker: 'Penbrook',
  name: 'Teasel',
  regions: ['europe'],
  'bandMHz.from': 868.9,
  way: 'two-way',
  encryption: 'optional',
  topology: 'star',
  sticker: {
    ...{ length: 8, alphabet: 'hexadecimal', idFrom: 3, idTo: 8, check: 'none' },
    groups: [3, 3],
  },
  'sticker.where': '8 signs, the ID behind the first two',
  'placement.unit': 'bars',
  'placement.best': 4,
  'placement.least': 2,
  'placement.readAt': 'device',
}
const contact = {
  maker: 'Penbrook',
  name: 'Larder door contact',
  regions: ['europe'],
  class: 'contact',
  family: 'family/dunlin',
  encryption: 'none',
  loops: [{ event: 'open', loop: 3, name: 'reed', bench: true }],
  ways: [{ way: 'open the door', sends: 'event', indicator: '', seconds: null }],
  sticker: 'inside the lid',
  'temperatureC.from': -10,
  'temperatureC.to': 50,
  'batteries.count': 1,
  'batteries.type': 'CR2032',
}

/* What nobody knew of them: the answer is “not stated”, or “not known”. */
const openFamily = {
  ...family,
  ...{ name: 'Teasel B', encryption: null, 'sticker.where': null },
  ...{ 'placement.unit': null, 'placement.best': null, 'placement.least': null, 'placement.readAt': null },
}
const openReceiver = {
  ...{ maker: 'Penbrook', name: 'Teasel radio', regions: ['europe'], place: 'module' },
  hears: [{ family: 'family/dunlin', fromFirmware: null }],
  ...{ classes: null, transmitters: null, encryptedOnlySetting: null },
}
const openContact = {
  ...contact,
  ...{ encryption: null, checkInMinutes: null, sticker: null, 'batteries.type': null },
  ...{ 'temperatureC.from': null, 'temperatureC.to': null },
}
const openKeypad = {
  ...{ maker: 'Penbrook', name: 'Larder keypad', regions: ['europe'], class: 'keypad' },
  ...{ family: 'family/dunlin', encryption: null, needsTwoWay: null, disarms: null },
  ...{ checkInMinutes: null, ways: null, sticker: null, 'batteries.count': null },
}

describe('what other entries have is offered for one', () => {
  const offers = (doc: DraftDocument, path: string, whole = catalogue) => {
    const form = questionsOf(doc, whole).find((one) => one.path === path)?.form
    return form?.is === 'text' ? form.offers : null
  }

  it('by how many have it, of equally many by name, and of none nothing', () => {
    const small = new Catalogue(
      [
        ['device/reedling', 'Penbrook', 'CR123A'],
        ['device/stilt', 'Alder', 'AA'],
        ['device/stilt-hound', 'Penbrook', 'CR123A'],
        ['device/tremor', 'Birch', 'AAA'],
        ['device/tapwell', 'Cedar', 'AA'],
        ['device/beckon', 'Dale', 'AA'],
      ].map(([id = '', maker = '', type = '']) => {
        const model = catalogue.get('device', id) ?? expect.fail(id)
        return keepEntry({ ...model, maker, batteries: { count: 1, type } })
      }),
    )
    const device = answered('device', { class: 'contact', family: 'family/wren', 'batteries.count': 2 })
    expect(offers(device, 'maker', small)).toEqual(['Penbrook', 'Alder', 'Birch', 'Cedar'])
    expect(offers(device, 'batteries.type', small)).toEqual(['AA', 'CR123A', 'AAA'])
    for (const kind of describedKinds) {
      expect(offers(begin(kind), 'maker', small)?.[0]).toBe('Penbrook')
      expect(offers(begin(kind), 'maker', new Catalogue([]))).toBeUndefined()
    }
  })
})

describe('what nobody knows of it', () => {
  it.each<[DescribedKind, Readonly<Record<string, Answer['value']>>, object]>([
    [
      'family',
      openFamily,
      {
        ...{ kind: 'family', id: 'family/teasel-b', name: 'Teasel B', version: '1', maker: 'Penbrook' },
        ...{ regions: ['europe'], bandMHz: { from: 868.9, to: 868.9 }, way: 'two-way', topology: 'star' },
        ...{ sticker: family.sticker, placement: {} },
      },
    ],
    [
      'receiver',
      openReceiver,
      {
        ...{ kind: 'receiver', id: 'receiver/teasel-radio', name: 'Teasel radio', version: '1' },
        ...{ maker: 'Penbrook', regions: ['europe'], place: 'module' },
        hears: [{ family: 'family/dunlin', fromFirmware: null }],
      },
    ],
    [
      'device',
      openContact,
      {
        ...{ kind: 'device', id: 'device/larder-door-contact', version: '1' },
        ...{ maker: 'Penbrook', name: 'Larder door contact', regions: ['europe'], class: 'contact' },
        ...{ family: 'family/dunlin', way: 'one-way', needsTwoWay: false, disarms: false, carried: false },
        loops: [{ event: 'open', loop: 3, name: 'reed', bench: true }],
        ...{ slot: 'none', ways: [{ way: 'open the door', sends: 'event' }], petKg: null, note: null },
        ...{ temperatureC: {}, magnetGapMm: null, batteries: { count: 1 }, equipmentCodes: [] },
      },
    ],
    [
      'device',
      openKeypad,
      {
        ...{ kind: 'device', id: 'device/larder-keypad', version: '1' },
        ...{ maker: 'Penbrook', name: 'Larder keypad', regions: ['europe'], class: 'keypad' },
        ...{ family: 'family/dunlin', way: 'one-way', carried: false, loops: [], slot: 'keypad', ways: [] },
        ...{ petKg: null, temperatureC: {}, magnetGapMm: null, batteries: null, equipmentCodes: [] },
        note: null,
      },
    ],
  ])('%s: stays away from the entry, and comes back as not known', (kind, leaflet, entry) => {
    const read = draftEntry(answered(kind, leaflet), catalogue)
    expect([read.missing, read.problems]).toEqual([[], []])
    expect(read.kept?.entry).toEqual(entry)
    const whole = catalogue.with(read.kept ? [read.kept] : [])
    const again = draftKernel.applyOps(
      draftKernel.empty,
      beginDraft(kind, { like: read.kept?.entry ?? null, corrects: true }, whole),
    )
    const corrected = again.ok ? draftEntry(again.doc, whole) : expect.fail('begun')
    expect(corrected.kept?.entry).toEqual({ ...entry, version: '2' })
  })

  it('is asked of each device where its family does not say', () => {
    const paths = (of: string): readonly string[] => {
      const open = draftEntry(answered('family', openFamily), catalogue).kept ?? expect.fail()
      const doc = answered('device', { class: 'contact', family: of })
      return questionsOf(doc, catalogue.with([open])).map(({ path }) => path)
    }
    expect(paths('family/teasel-b')).toContain('encryption')
    expect(paths('family/dunlin')).toContain('encryption')
    expect(paths('family/wren')).not.toContain('encryption')
  })

  it('is another thing than never: 0 minutes are no check-in at all', () => {
    const every = (minutes: number | null) => {
      const { kept } = draftEntry(answered('device', { ...contact, checkInMinutes: minutes }), catalogue)
      return kept?.entry.kind === 'device' ? kept.entry.checkInMinutes : 'none'
    }
    expect([every(70), every(0), every(null)]).toEqual([70, null, undefined])
    const odd = draftEntry(answered('device', { ...contact, checkInMinutes: 0.05 }), catalogue)
    expect(odd.problems).toEqual([{ path: 'checkInMinutes', message: expect.stringContaining('0.1') }])
  })
})

describe('an entry from answers', () => {
  it.each(described.map((entry) => [entry.id, entry] as const))(
    '%s is described whole by its questions',
    (_id, entry) => {
      const { kept, problems, missing } = draftEntry(
        begin(entry.kind as DescribedKind, entry, true),
        catalogue,
      )
      expect([problems, missing]).toEqual([[], []])
      expect(kept?.entry).toEqual({ ...entry, version: String(Number(entry.version) + 1) })
    },
  )

  it('is of a device what its leaflet says, and nothing that it does not', () => {
    expect(draftEntry(answered('device', contact), catalogue).kept?.entry).toEqual({
      ...{ kind: 'device', id: 'device/larder-door-contact', version: '1' },
      ...{ maker: 'Penbrook', name: 'Larder door contact', regions: ['europe'], class: 'contact' },
      ...{ family: 'family/dunlin', encryption: 'none', way: 'one-way', needsTwoWay: false },
      loops: [{ event: 'open', loop: 3, name: 'reed', bench: true }],
      ...{ slot: 'none', ways: [{ way: 'open the door', sends: 'event' }] },
      ...{ petKg: null, carried: false, disarms: false, temperatureC: { from: -10, to: 50 } },
      ...{ magnetGapMm: null, batteries: { count: 1, type: 'CR2032' }, equipmentCodes: [] },
      ...{ sticker: 'inside the lid', note: null },
    })
  })

  it('is of a family what its leaflet says', () => {
    expect(draftEntry(answered('family', family), catalogue).kept?.entry).toEqual({
      ...{
        kind: 'family',
        id: 'family/teasel',
        version: '1',
        maker: 'Penbrook',
        name: 'Teasel',
        regions: ['europe'],
      },
      ...{ bandMHz: { from: 868.9, to: 868.9 }, way: 'two-way', encryption: 'optional', topology: 'star' },
      sticker: {
        ...{ length: 8, alphabet: 'hexadecimal', idFrom: 3, idTo: 8, groups: [3, 3], check: 'none' },
        where: '8 signs, the ID behind the first two',
      },
      placement: { unit: 'bars', best: 4, least: 2, readAt: 'device' },
    })
  })

  it('is of a receiver what its leaflet says, firmware not stated where it is empty', () => {
    const doc = answered('receiver', {
      ...{ maker: 'Penbrook', name: 'Teasel radio', regions: ['europe'], transmitters: 32 },
      hears: [
        { family: 'family/wren', fromFirmware: '' },
        { family: 'family/wren-c', fromFirmware: '1.20' },
      ],
      ...{ classes: ['contact', 'smoke'], encryptedOnlySetting: false, place: 'module', grade: '2' },
    })
    expect(draftEntry(doc, catalogue).kept?.entry).toEqual({
      ...{
        kind: 'receiver',
        id: 'receiver/teasel-radio',
        version: '1',
        maker: 'Penbrook',
        name: 'Teasel radio',
      },
      ...{
        regions: ['europe'],
        transmitters: 32,
        classes: ['contact', 'smoke'],
        encryptedOnlySetting: false,
      },
      ...{ place: 'module', grade: 2 },
      hears: [
        { family: 'family/wren', fromFirmware: null },
        { family: 'family/wren-c', fromFirmware: '1.20' },
      ],
    })
  })

  it('is not there while something that must be known is not said', () => {
    for (const [kind, leaflet] of [
      ['device', contact],
      ['family', family],
    ] as const)
      for (const path of Object.keys(leaflet)) {
        const doc = answer(answered(kind, leaflet), path, undefined)
        const question = questionsOf(answered(kind, leaflet), catalogue).find((one) => one.path === path)
        const { kept, missing } = draftEntry(doc, catalogue)
        if (question?.needed) expect([path, kept, missing.includes(path)]).toEqual([path, null, true])
        else expect([path, missing]).toEqual([path, []])
      }
  })

  it('is not taken for a wired one where nobody said of which family it is', () => {
    const { family: _family, encryption: _encryption, ...rest } = contact
    expect(draftEntry(answered('device', rest), catalogue).missing).toEqual(['family'])
    const wired = draftEntry(answered('device', { ...rest, family: null, ways: null }), catalogue)
    expect(wired.kept?.entry).toMatchObject({
      family: null,
      way: null,
      encryption: 'none',
      batteries: null,
      ways: [],
    })
  })

  it('an answer that is not known is not stated, never guessed', () => {
    // Nor is it asked for as if it had to be known: a leaflet may leave out how a device is made to send.
    const untold = draftEntry(answered('device', { ...contact, ways: null }), catalogue)
    expect([untold.kept?.entry, untold.missing]).toEqual([expect.objectContaining({ ways: [] }), []])
    const doc = answer(answered('device', { ...contact, magnetGapMm: 20 }), 'magnetGapMm', null)
    expect(draftEntry(doc, catalogue).kept?.entry).toMatchObject({ magnetGapMm: null })
    const grade = answer(answered('device', { ...contact, grade: '2' }), 'grade', null)
    expect(draftEntry(grade, catalogue).kept?.entry).not.toHaveProperty('grade')
    const price = answered('device', { ...contact, 'price.amount': null, 'price.currency': 'EUR' })
    expect(draftEntry(price, catalogue).kept?.entry).not.toHaveProperty('price')
  })

  it('asks only what its class can have, and forgets what another class was asked', () => {
    const paths = (over: Readonly<Record<string, Answer['value']>>): string[] =>
      questionsOf(answered('device', { ...contact, ...over }), catalogue).map(({ path }) => path)
    expect(paths({})).toContain('magnetGapMm')
    expect(paths({ class: 'motion' })).not.toContain('magnetGapMm')
    expect(paths({ class: 'motion' })).toEqual(
      expect.arrayContaining(['petKg', 'sleepsSeconds', 'needsTwoWay']),
    )
    expect(paths({ class: 'keypad' })).not.toContain('loops')
    expect(paths({ family: null })).not.toEqual(expect.arrayContaining(['batteries.count']))
    expect(paths({ family: 'family/wren' })).not.toContain('encryption')
    expect(paths({})).toContain('encryption')
    const turned = answer(answered('device', { ...contact, magnetGapMm: 20 }), 'class', 'shock')
    const other = answer(turned, 'loops', [{ event: 'shock', loop: 1, name: 'shock', bench: true }])
    expect(draftEntry(other, catalogue).kept?.entry).toMatchObject({ class: 'shock', magnetGapMm: null })
  })

  it.each<[string, Answer['value'], string]>([
    ['temperatureC.from', -80, 'must be from -60 to 60 °C'],
    ['batteries.count', 1.5, 'must be a whole number from 0 to 12'],
    ['name', ' ', 'must be 1 to 80 characters'],
    ['class', 'lamp', 'must be one of those offered'],
    ['regions', [], 'must be at least one of those offered'],
    ['loops', [], 'must have at least one event'],
    [
      'loops',
      [{ event: 'open', loop: 17, name: 'reed', bench: true }],
      'event 1, loop shown: must be a whole number from 1 to 16',
    ],
    ['loops', [{ event: 'open', loop: 1, name: '', bench: true }], 'event 1, called: is missing'],
    [
      'ways',
      [{ way: 'open it', sends: 'event', seconds: 900 }],
      'way 1, held for: must be from 0.1 to 600 s',
    ],
    ['sensitivity', ['low'], ''],
  ])('%s: %s', (path, value, message) => {
    const { problems } = draftEntry(answered('device', { ...contact, [path]: value }), catalogue)
    expect(problems.map((one) => [one.path, one.message])).toEqual(message === '' ? [] : [[path, message]])
  })

  it('says at its question what only the whole shows', () => {
    const twice = [...contact.loops, { event: 'terminals', loop: 3, name: 'terminals', bench: true }]
    expect(draftEntry(answered('device', { ...contact, loops: twice }), catalogue).problems).toEqual([
      { path: 'loops', message: 'must not use a loop number twice' },
    ])
    expect(draftEntry(answered('device', { ...contact, family: 'family/gone' }), catalogue).problems).toEqual(
      [{ path: 'family', message: 'points at family/gone, which is not in the catalogue' }],
    )
    const coded = { ...contact, equipmentCodes: [{ panel: 'panel/gone', code: '12' }] }
    expect(draftEntry(answered('device', coded), catalogue).problems).toEqual([
      { path: 'equipmentCodes', message: '1: points at panel/gone, which is not in the catalogue' },
    ])
    const priced = { ...contact, 'price.amount': 12, 'price.currency': 'euro', 'price.pack': 1 }
    expect(draftEntry(answered('device', priced), catalogue).problems.map(({ path }) => path)).toEqual([
      'price.currency',
    ])
  })

  it('like another one asks what two models never share, and is that one in all else', () => {
    const stilt = catalogue.get('device', 'device/stilt')
    const doc = begin('device', stilt)
    expect(draftEntry(doc, catalogue).missing).toEqual(['name'])
    const { price: _price, ...rest } = stilt ?? {}
    expect(draftEntry(answer(doc, 'name', 'Lookout'), catalogue).kept?.entry).toEqual({
      ...rest,
      ...{ id: 'device/lookout', version: '1', name: 'Lookout', equipmentCodes: [] },
    })
  })

  it('carries where its answers were read, which a correction keeps and another model does not', () => {
    const read = (doc: DraftDocument, path: string, source: string): DraftDocument => {
      const result = draftKernel.applyOps(doc, sourceOps(doc, path, source))
      if (!result.ok) throw new Error(JSON.stringify(result.conflict))
      return result.doc
    }
    const told = read(read(answered('device', contact), 'loops', 'assumed'), 'name', 'leaflet p. 1')
    // What is not stated was read nowhere, and what is not asked is not said.
    const doc = read(answer(told, 'magnetGapMm', null), 'magnetGapMm', 'leaflet')
    const kept = draftEntry(doc, catalogue).kept
    expect(kept?.entry.sources?.map(({ path, from }) => [path, from]).toSorted()).toEqual([
      ['loops', 'assumed'],
      ['name', 'leaflet p. 1'],
    ])
    expect(kept?.entry.sources?.find(({ path }) => path === 'loops')?.asked).toMatch(/^Which events/)
    expect(sourceOps(answered('device', contact), 'petKg', 'leaflet')).toEqual([])
    expect(sourceOps(doc, 'loops', 'assumed')).toEqual([])
    if (!kept) throw new Error('not described')
    const whole = catalogue.with([kept])
    const begun = (corrects: boolean) => {
      const result = draftKernel.applyOps(
        draftKernel.empty,
        beginDraft('device', { like: kept.entry, corrects }, whole),
      )
      if (!result.ok) throw new Error('not begun')
      return result.doc
    }
    expect(draftEntry(begun(true), whole).kept?.entry.sources).toHaveLength(2)
    expect(draftEntry(answer(begun(false), 'name', 'Other'), whole).kept?.entry).not.toHaveProperty('sources')
  })

  it('does not overwrite what somebody else corrected meanwhile', () => {
    const reedling = catalogue.get('device', 'device/reedling')
    const mine = begin('device', reedling, true)
    const theirs = draftEntry(answer(begin('device', reedling, true), 'magnetGapMm', 19), catalogue).kept
    if (!theirs) throw new Error('not described')
    expect(draftEntry(mine, catalogue).kept).not.toBeNull()
    const { kept, problems } = draftEntry(mine, catalogue.with([theirs]))
    expect([kept, problems.length, problems[0]?.path]).toEqual([null, 1, ''])
    expect(problems[0]?.message).toContain('corrected by somebody else meanwhile')
  })

  it('gets an id from its name that is free, and keeps that of what it corrects', () => {
    const id = (doc: DraftDocument) => draftEntry(doc, catalogue).kept?.entry.id
    expect(id(answered('device', { ...contact, name: 'Reedling' }))).toBe('device/reedling-2')
    expect(id(answered('device', { ...contact, name: 'Ö & Ü' }))).toBe('device/o-u')
    const reedling = catalogue.get('device', 'device/reedling')
    expect(id(answer(begin('device', reedling, true), 'name', 'Reedling II'))).toBe('device/reedling')
    expect(id(answer(begin('device', reedling), 'name', 'Reedling II'))).toBe('device/reedling-ii')
    expect(describedKinds).toEqual(['device', 'receiver', 'family', 'panel', 'interface'])
  })
})
