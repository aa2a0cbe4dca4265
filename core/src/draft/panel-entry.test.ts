import { describe, expect, it } from 'vitest'
import { catalogue } from '../testing/small-job.ts'
import { beginDraft, draftEntry } from './entry.ts'
import { questionsOf } from './questions.ts'
import { answerOps, draftKernel, type Answer, type DraftDocument } from './records.ts'
import { openOf, typesProblem, usualTypes, type TypeRow } from './response-types.ts'

type Leaflet = Readonly<Record<string, Answer['value']>>

const begin = (): DraftDocument => {
  const result = draftKernel.applyOps(
    draftKernel.empty,
    beginDraft('panel', { like: null, corrects: false }, catalogue),
  )
  if (!result.ok) throw new Error(JSON.stringify(result.conflict))
  return result.doc
}
const answer = (doc: DraftDocument, path: string, value: Answer['value'] | undefined): DraftDocument => {
  const result = draftKernel.applyOps(doc, answerOps(doc, path, value))
  if (!result.ok) throw new Error(JSON.stringify(result.conflict))
  return result.doc
}
const answered = (leaflet: Leaflet): DraftDocument =>
  Object.entries(leaflet).reduce((doc, [path, value]) => answer(doc, path, value), begin())
const usual = (title: string, code: string, name: string, over: TypeRow = {}) =>
  ({ ...usualTypes.find((one) => one.title === title)?.row, code, name, ...over }) as Answer['value']
const time = (name: string, address: string, over: Record<string, Answer['value']> = {}) => ({
  ...{ name, address, secondsPerUnit: 1, min: 10, max: 120, step: 10, reserved: [] },
  ...over,
})

/* A panel as its manual says it, of no maker that the demo has. */
const leaflet: Leaflet = {
  maker: 'Penbrook',
  name: 'Thatch 24',
  regions: ['europe'],
  variant: null,
  grade: '2',
  style: 'address and value',
  receivers: ['receiver/tarn-radio'],
  builtIn: 'receiver/tarn-radio',
  radioFirmware: null,
  superviseMinutes: 120,
  repeaters: null,
  numberDigits: '2',
  blocks: [
    { use: 'wired', from: 1, to: 4, optional: false, group: null },
    { use: 'wireless', from: 5, to: 24, optional: false, group: null },
  ],
  'slots.fobs.by': 'slots',
  'slots.fobs.count': 6,
  'slots.keypads': { count: 2, wireless: true },
  'slots.sirens': { count: 1, wireless: false },
  'areas.count': 1,
  'areas.meaning': 'The whole premises is set and unset together.',
  responseTypes: [
    usual('Entry door', '11', 'Door'),
    usual('Window or outer door', '12', 'Shell', { whileExit: { away: 'ignored', stay: 'live' } }),
    usual('On the way in', '13', 'Walkway'),
    usual('Fire', '41', 'Fire', { sound: 'three-pulse' }),
  ],
  'equipment.code': false,
  'equipment.kinds': [{ name: 'Door or window', keyed: '1', events: ['open', 'terminals'] }],
  secondDisarmClears: true,
  codes: [{ name: 'Engineer code' }, { name: 'Owner code' }],
  'delays.entry1': time('Way in', '21'),
  'delays.entry2': time('Long way in', '22'),
  'delays.exit': time('Way out', '23'),
  'couplings.exitInStay': 'same',
  'delays.abort': null,
  siren: null,
  swinger: { from: 1, to: 9 },
  'label.style': 'text',
  'label.length': 14,
  'label.lines': null,
  'label.capitals': true,
  'label.characters': 'ABCDEFGHIJKLMNOPQRSTUVWXYZ ',
  'label.insteadOn': null,
  'couplings.twoAreas': null,
  'couplings.beeps': false,
  interface: null,
  'programming.wayIn': [{ keys: 'engineer code, [ok]', shows: 'SETUP', note: null }],
  'programming.wayOut': [{ keys: '[home]', shows: null, note: 'Wait until it says READY.' }],
  'programming.yes': '1',
  'programming.no': '0',
  'programming.systemFields': ['exit', 'entry1', 'entry2'],
  'programming.system': null,
  'programming.settings': [
    { setting: 'entryBeeps', keys: '31 = {value}', shows: null, note: null, values: { on: '1', off: '0' } },
  ],
  'programming.zoneStart': { keys: '[zone] {number}', shows: null, note: null },
  'programming.zone': [
    { field: 'response', keys: null, shows: null, note: null, values: null },
    { field: 'serial', keys: null, shows: null, note: null, values: null },
    { field: 'wiring', keys: '{value} [ok]', shows: 'W{value}', note: null, values: { closed: '0' } },
  ],
  'programming.zoneEnd': null,
  'programming.slot': {
    ...{ keys: '{address} {number} = {value}', shows: null, note: null },
    ...{ fob: '6', keypad: '7', siren: '8' },
  },
}
const entryOf = (list: Leaflet) => draftEntry(answered(list), catalogue).kept?.entry
const problemsOf = (over: Leaflet) =>
  draftEntry(answered({ ...leaflet, ...over }), catalogue).problems.map(({ path, message }) => [
    path,
    message,
  ])

describe('a panel from answers', () => {
  it('offers where one types keys what is filled in there, the code on the way in, and keys named before', () => {
    const parts = (path: string, sheet: Leaflet) => {
      const form = questionsOf(answered(sheet), catalogue).find((one) => one.path === path)?.form
      const cells = form?.is === 'rows' || form?.is === 'group' ? form.cells : expect.fail(path)
      return cells.map(({ key, form: cell }) => [key, cell.is === 'text' ? (cell.parts ?? []) : []])
    }
    expect(parts('programming.wayIn', {})).toEqual([
      ['keys', ['installer code']],
      ['shows', []],
      ['note', []],
    ])
    expect(parts('programming.zoneStart', {})[0]).toEqual(['keys', ['{number}']])
    const told = {
      'programming.wayIn': [{ keys: 'installer code [ok]', shows: '[not a key]', note: null }],
      'programming.wayOut': [{ keys: '[home] twice, [ok]', shows: null, note: null }],
    }
    const keys = ['[ok]', '[home]']
    expect(parts('programming.system', told)[0]).toEqual([
      'keys',
      ['{address}', '{name}', '{value}', ...keys],
    ])
    expect(parts('programming.wayOut', told)[0]).toEqual(['keys', keys])
    expect(parts('programming.zone', told).slice(0, 2)).toEqual([
      ['field', []],
      ['keys', ['{number}', '{value}', '{meaning}', ...keys]],
    ])
  })

  it('is what its manual says, and nothing that it does not', () => {
    const inMode = { kind: 'burglary', disarmed: 'ignore', sound: 'siren', transmissionDelayAllowed: true }
    expect(entryOf(leaflet)).toEqual({
      ...{ kind: 'panel', id: 'panel/thatch-24', version: '1', maker: 'Penbrook', name: 'Thatch 24' },
      ...{ regions: ['europe'], grade: 2, style: 'address and value' },
      ...{ receivers: ['receiver/tarn-radio'], builtIn: 'receiver/tarn-radio', radioFirmware: [] },
      ...{ superviseMinutes: 120, numberDigits: 2 },
      blocks: [
        { use: 'wired', from: 1, to: 4, optional: false },
        { use: 'wireless', from: 5, to: 24, optional: false },
      ],
      slots: {
        fobs: { by: 'slots', count: 6, group: 1 },
        keypads: { count: 2, wireless: true },
        sirens: { count: 1, wireless: false },
      },
      areas: { count: 1, meaning: 'The whole premises is set and unset together.' },
      responseTypes: [
        {
          ...{ ...inMode, key: 'door', code: '11', name: 'Door', away: 'entry-1', stay: 'entry-1' },
          ...{ whileExit: { away: 'ignored', stay: 'ignored' }, hides: [] },
        },
        {
          ...{ ...inMode, key: 'shell', code: '12', name: 'Shell', away: 'instant', stay: 'instant' },
          ...{ whileExit: { away: 'ignored', stay: 'live' }, hides: [] },
        },
        {
          ...{ ...inMode, key: 'walkway', code: '13', name: 'Walkway', away: 'follow', stay: 'ignore' },
          ...{ whileExit: { away: 'ignored', stay: 'ignored' }, hides: [] },
        },
        {
          ...{ key: 'fire', code: '41', name: 'Fire', kind: 'fire', sound: 'three-pulse', hides: [] },
          ...{ away: 'instant', stay: 'instant', disarmed: 'instant', transmissionDelayAllowed: false },
          whileExit: { away: 'live', stay: 'live' },
        },
      ],
      equipment: {
        code: false,
        kinds: [{ key: 'door-or-window', name: 'Door or window', keyed: '1', events: ['open', 'terminals'] }],
      },
      secondDisarmClears: true,
      codes: [
        { key: 'engineer-code', name: 'Engineer code' },
        { key: 'owner-code', name: 'Owner code' },
      ],
      delays: {
        entry1: time('Way in', '21'),
        entry2: time('Long way in', '22'),
        exit: time('Way out', '23'),
        abort: null,
      },
      swinger: { from: 1, to: 9 },
      label: { style: 'text', length: 14, capitals: true, characters: 'ABCDEFGHIJKLMNOPQRSTUVWXYZ ' },
      couplings: { exitInStay: 'same', beeps: false },
      programming: {
        wayIn: [{ keys: 'engineer code, [ok]', shows: 'SETUP', note: '' }],
        wayOut: [{ keys: '[home]', shows: '', note: 'Wait until it says READY.' }],
        ...{ yes: '1', no: '0', systemFields: ['exit', 'entry1', 'entry2'] },
        system: { keys: '{address} = {value}', shows: '', note: '' },
        settings: [
          {
            ...{ setting: 'entryBeeps', keys: '31 = {value}', shows: '', note: '' },
            values: { on: '1', off: '0' },
          },
        ],
        zoneStart: { keys: '[zone] {number}', shows: '', note: '' },
        zone: [
          { field: 'response', keys: '{value}', shows: '', note: '' },
          { field: 'serial', keys: '{value}', shows: '', note: '' },
          { field: 'wiring', keys: '{value} [ok]', shows: 'W{value}', note: '', values: { closed: '0' } },
        ],
        zoneEnd: { keys: 'zone {number} is complete', shows: '', note: '' },
        slot: {
          ...{ keys: '{address} {number} = {value}', shows: '', note: '' },
          addresses: { fob: '6', keypad: '7', siren: '8' },
        },
      },
    })
  })

  it('is not there while something that it cannot be without is open', () => {
    for (const path of Object.keys(leaflet)) {
      const question = questionsOf(answered(leaflet), catalogue).find((one) => one.path === path)
      const { kept, missing } = draftEntry(answer(answered(leaflet), path, undefined), catalogue)
      if (question?.needed) expect([path, kept, missing]).toEqual([path, null, [path]])
      else expect([path, missing]).toEqual([path, []])
    }
  })

  it('asks only what a panel like it can have', () => {
    const paths = (over: Leaflet) =>
      questionsOf(answered({ ...leaflet, ...over }), catalogue).map(({ path }) => path)
    expect(paths({})).not.toEqual(expect.arrayContaining(['slots.fobs.group']))
    expect(paths({ 'slots.fobs.by': 'numbers' })).toContain('slots.fobs.group')
    expect(paths({})).not.toContain('couplings.keypadAreas')
    expect(paths({})).not.toContain('programming.areaMove')
    expect(paths({ 'areas.count': 2 })).toEqual(
      expect.arrayContaining(['couplings.keypadAreas', 'couplings.delaysPerArea', 'programming.areaMove']),
    )
    expect(paths({})).not.toContain('delays.exitStay')
    expect(paths({ 'couplings.exitInStay': 'own' })).toContain('delays.exitStay')
    expect(paths({})).not.toContain('label.words')
    expect(paths({ 'label.style': 'library' })).toEqual(
      expect.arrayContaining(['label.words', 'label.entries']),
    )
    expect(paths({ 'label.style': 'library' })).not.toContain('label.length')
    expect(paths({})).not.toContain('receiversAdd')
    expect(paths({ receivers: ['receiver/tarn-radio', 'receiver/quillet-radio'] })).toContain('receiversAdd')
    expect(paths({})).not.toContain('programming.fobInKeypad')
    expect(paths({ 'couplings.fobsInKeypad': true })).toContain('programming.fobInKeypad')
  })

  it.each<[string, Leaflet, [string, string][]]>([
    [
      'a block the wrong way round',
      { blocks: [{ use: 'wireless', from: 9, to: 1, optional: false }] },
      [['blocks', '1, to: must not lie below from']],
    ],
    [
      'a receiver that it cannot have is built in',
      { builtIn: 'receiver/quillet-radio' },
      [['builtIn', 'must be one of those offered']],
    ],
    [
      'a receiver that is gone',
      { receivers: ['receiver/gone'], builtIn: null },
      [['receivers', 'must be at least one of those offered']],
    ],
    [
      'a time without its unit',
      { 'delays.exit': { name: 'Way out', address: '23' } },
      [['delays.exit', 'lacks its unit and range: key two values']],
    ],
    [
      'a time without its name and address',
      { siren: { secondsPerUnit: 60, min: 1, max: 9, step: 1, reserved: [] } },
      [['siren', 'lacks the panel’s own name of it, its address']],
    ],
    [
      'a slot without an address',
      { 'programming.slot': { keys: '{value}', fob: '6', keypad: '', siren: '8' } },
      [['programming.slot', 'address of keypads: is missing']],
    ],
    [
      'a step without keys',
      { 'programming.wayIn': [{ keys: '', shows: 'SETUP' }] },
      [['programming.wayIn', 'step 1, what is keyed: is missing']],
    ],
    [
      'keyed values that are too long',
      {
        'programming.settings': [{ setting: 'entryBeeps', keys: '', values: { on: 'a'.repeat(17) } }],
      },
      [['programming.settings', 'setting 1, keyed for: must be up to 16 characters for each choice']],
    ],
    [
      'two types only',
      { responseTypes: (leaflet.responseTypes as Answer['value'][]).slice(2) },
      [['responseTypes', 'must be at least 3 types']],
    ],
    [
      'a list without words',
      { 'label.style': 'library', 'label.entries': 3, 'label.words': [] },
      [['label.words', 'must be a list of at least one word with its number']],
    ],
    [
      'an interface that is gone',
      { interface: 'interface/gone' },
      [['interface', 'points at interface/gone, which is not in the catalogue']],
    ],
  ])('%s is said at its question', (_what, over, problems) => {
    expect(problemsOf(over)).toEqual(problems)
  })

  it('keeps the key of a row when its name is corrected, and gives two of one name two keys', () => {
    const types = leaflet.responseTypes as TypeRow[]
    const named = (list: readonly TypeRow[]) =>
      entryOf({ ...leaflet, responseTypes: list as unknown as Answer['value'] })
    const keysOf = (list: readonly TypeRow[]) => {
      const entry = named(list)
      return entry?.kind === 'panel' ? entry.responseTypes.map(({ key }) => key) : []
    }
    expect(keysOf(types)).toEqual(['door', 'shell', 'walkway', 'fire'])
    expect(keysOf(types.map((type) => ({ ...type, name: 'Line' })))).toEqual([
      ...['line', 'line-2', 'line-3', 'line-4'],
    ])
    expect(
      keysOf(
        types.map((type, index) =>
          index === 0 ? { ...type, key: 'line', name: 'Door' } : { ...type, name: 'Line' },
        ),
      ),
    ).toEqual([...['line', 'line-2', 'line-3', 'line-4']])
    expect(keysOf(types.map((type) => ({ ...type, name: '入口' })))).toEqual([
      'row-1',
      'row-2',
      'row-3',
      'row-4',
    ])
  })

  it('fills in what a row may leave open, and leaves away what it says not to have', () => {
    const types = (leaflet.responseTypes as TypeRow[]).map((type) => ({ ...type, night: null, fire: null }))
    const entry = entryOf({
      ...leaflet,
      responseTypes: types as unknown as Answer['value'],
      'equipment.kinds': [{ name: 'Anything', keyed: '9', events: null }],
      codes: null,
      'couplings.chimeStyles': [
        { name: 'One note', keyed: '1' },
        { name: 'Two notes', keyed: '2' },
      ],
      'couplings.typeGroups': [
        { name: 'Shell list', types: ['shell'], dayZones: null },
        { name: 'Day list', types: null, dayZones: true },
      ],
      'programming.settings': [{ setting: 'siren', keys: '7 {value}', values: {} }],
      'programming.slot': null,
    })
    if (entry?.kind !== 'panel') throw new Error('no panel')
    expect(entry.responseTypes.some((type) => 'night' in type || 'fire' in type)).toBe(false)
    expect(entry.equipment.kinds).toEqual([{ key: 'anything', name: 'Anything', keyed: '9', events: [] }])
    expect(entry.codes).toEqual([])
    expect(entry.couplings?.chimeStyles).toEqual([
      { key: 'one-note', name: 'One note', keyed: '1' },
      { key: 'two-notes', name: 'Two notes', keyed: '2' },
    ])
    expect(entry.couplings?.typeGroups).toEqual([
      { name: 'Shell list', types: ['shell'] },
      { name: 'Day list', types: [], dayZones: true },
    ])
    expect(entry.programming.settings).toEqual([{ setting: 'siren', keys: '7 {value}', shows: '', note: '' }])
    expect(entry.programming.slot).toBeNull()
  })

  it('takes three types, and no fewer', () => {
    const types = leaflet.responseTypes as Answer['value'][]
    expect(problemsOf({ responseTypes: types.slice(1) })).toEqual([])
    expect(problemsOf({ responseTypes: {} })).toEqual([['responseTypes', 'must be at least 3 types']])
  })

  it('gives codes keys of letters alone', () => {
    const list = [{ name: 'Level 2 code' }, { name: 'Level 3 code' }, { name: '1234' }]
    const entry = entryOf({ ...leaflet, codes: list })
    expect(entry?.kind === 'panel' ? entry.codes : []).toEqual([
      { name: 'Level 2 code', key: 'level-code' },
      { name: 'Level 3 code', key: 'level-code-x' },
      { name: '1234', key: 'code' },
    ])
  })

  it('like another one asks its name and how it is keyed anew', () => {
    const tarn = catalogue.get('panel', 'panel/tarn-40')
    const result = draftKernel.applyOps(
      draftKernel.empty,
      beginDraft('panel', { like: tarn, corrects: false }, catalogue),
    )
    if (!result.ok) throw new Error('not begun')
    expect(draftEntry(result.doc, catalogue).missing).toEqual(['name'])
    const { interface: _interface, ...rest } = tarn ?? {}
    expect(draftEntry(answer(result.doc, 'name', 'Tarn 12'), catalogue).kept?.entry).toEqual({
      ...rest,
      ...{ id: 'panel/tarn-12', version: '1', name: 'Tarn 12' },
    })
  })
})

describe('types of zones', () => {
  /* What panels differ in: instant while leaving, the sound of fire and gas. All else of a usual type is its meaning. */
  it.each(usualTypes.map(({ title, row }) => [title, row] as const))(
    '%s leaves open what panels differ in',
    (title, row) => {
      const open = openOf({ ...row, name: title, code: '1' })
      const leaving = [row.away, row.stay].includes('instant') && row.disarmed !== 'instant'
      expect(open.includes('what a trip does while leaving')).toBe(leaving)
      expect(open.includes('how it sounds')).toBe(row.kind === 'fire' || row.kind === 'gas')
      expect(open.length).toBe(Number(leaving) + Number(row.kind === 'fire' || row.kind === 'gas'))
    },
  )

  it('of commands sound nothing and are asked nothing, and what is never opened may be held before sending', () => {
    const rows = usualTypes.filter(({ row }) => row.kind === 'command').map(({ row }) => row)
    expect(rows).toHaveLength(4)
    for (const row of rows)
      expect(row).toMatchObject({
        ...{ sound: 'none', transmissionDelayAllowed: false },
        hides: ['chime', 'report', 'supervise', 'transmissionDelay'],
      })
    const held = usualTypes.filter(({ row }) => row.transmissionDelayAllowed).map(({ row }) => row.kind)
    expect(new Set(held)).toEqual(new Set(['burglary']))
    expect(usualTypes.find(({ title }) => title === 'Never opened')?.row.transmissionDelayAllowed).toBe(true)
  })

  it('name what a type does not say', () => {
    const whole = usual('Entry door', '1', 'Door') as unknown as TypeRow
    expect(openOf(whole)).toEqual([])
    expect(openOf({})).toHaveLength(9)
    const types = [whole, { ...whole, code: '2' }, { ...whole, code: '3', sound: null, stay: null }]
    expect(typesProblem(types as unknown as NonNullable<Answer['value']>)).toBe(
      'Door lacks what a trip does in stay, how it sounds',
    )
    const twice = [whole, { ...whole, code: '2' }, { ...whole, name: 'Porch' }]
    expect(typesProblem(twice as unknown as NonNullable<Answer['value']>)).toBe(
      'Door and Porch are both keyed 1',
    )
    const unnamed = [whole, { ...whole, code: '2', name: ' ' }, whole]
    expect(typesProblem(unnamed as unknown as NonNullable<Answer['value']>)).toBe('type 2 lacks its name')
  })
})
