import { describe, expect, it } from 'vitest'
import { display } from '../panel/display.ts'
import { catalogue } from '../testing/small-job.ts'
import { actedOut, standing, tried, withShipped } from './at-panel/acted-out.ts'
import { couldDecide, valuesDecide } from './at-panel/seen-move.ts'
import { cellsOfField, cellsOfPointer, fieldCells, fieldFrom } from './at-panel/field-cells.ts'
import { openPoints, screenMap, untriedKeys } from './at-panel/open-points.ts'
import { BEEP, sketchOf, toldOps, type Sketch, type SketchScreen, type Told } from './at-panel/sketch.ts'
import { askedKinds, cellsAsked, cellsFrom, widgetFrom, type AskedKind } from './at-panel/widget-cells.ts'
import { beginDraft, draftEntry } from './entry.ts'
import { formProblem } from './form-problem.ts'
import { questionsOf } from './questions.ts'
import { draftKernel, type DraftDocument } from './records.ts'

/* What was told at the panel, what is open of it, and what comes of it. */

const tarn = catalogue.get('panel', 'panel/tarn-40')
if (!tarn) throw new RangeError('the demo pack has no Tarn 40')

const screen = (more: Partial<SketchScreen>): SketchScreen => ({
  ...{ lines: ['x', ''], widget: { kind: 'menu' }, keys: {}, holds: {}, skip: [], note: '' },
  ...more,
})
const begun = (): DraftDocument => {
  const done = draftKernel.applyOps(
    draftKernel.empty,
    beginDraft('interface', { like: null, corrects: false }, catalogue),
  )
  if (!done.ok) throw new RangeError('a draft begins')
  return done.doc
}
const tell = (doc: DraftDocument, told: readonly Told[]): DraftDocument => {
  const done = draftKernel.applyOps(doc, toldOps(doc, told))
  if (!done.ok) throw new RangeError(`told: ${JSON.stringify(told)}`)
  return done.doc
}
const leaflet: readonly Told[] = [
  ['maker', 'Penbrook'],
  ['name', 'Burrow numbers'],
  ['regions', ['europe']],
  ['panel', 'panel/tarn-40'],
  ['display', { lines: 2, columns: 16, cursor: '_', messages: 2 }],
  ['alphabet', 'abcdefghijklmnopqrstuvwxyz0123456789_?'],
  ['keys', '1 2 3 menu\n ok  off '],
  ['letters.keys', null],
  ['keeping', 'at-once'],
  ['idle.seconds', 90],
]
const rest = screen({ lines: ['quiet', ''], keys: { menu: 'exit' } })
const exit = screen({
  lines: ['exit', '{raw}'],
  widget: {
    ...{ kind: 'number', at: 'system.exit', digits: [1, 2], opens: 'value', send: 'ok' },
    ...{ then: null, bad: 'no' },
  },
  keys: { off: BEEP },
})
const atPanel: readonly Told[] = [
  ['screens.rest', rest as never],
  ['screens.exit', exit as never],
  ['fields.system.exit', { form: { kind: 'number', from: 1, to: 99 }, factory: '60' }],
  ['start', 'rest'],
]
const doc = tell(tell(begun(), leaflet), atPanel)

describe('an interface that is being told', () => {
  it('asks for what a leaflet says, and for letters and rules only once they can be', () => {
    const paths = (of: DraftDocument) => questionsOf(of, catalogue).map(({ path }) => path)
    const first = ['maker', 'name', 'regions', 'panel', 'display', 'alphabet', 'keys', 'letters.keys']
    expect(paths(begun())).toEqual([...first, 'keeping', 'idle.seconds', 'start'])
    expect(paths(tell(begun(), [['letters.keys', [{ key: '1', signs: 'AB' }]]]))).toContain('letters.ends')
    expect(paths(doc)).toContain('unique')
    const unique = questionsOf(doc, catalogue).find(({ path }) => path === 'unique')?.form
    expect(unique?.is === 'rows' && unique.cells[0]?.form).toMatchObject({
      choices: [{ value: 'system.exit', title: 'exit delay' }],
    })
  })

  it('is read from its answers: keys as they lie, and what nobody said as null', () => {
    const sketch = sketchOf(doc)
    expect(sketch.keys).toEqual([
      ['1', '2', '3', 'menu'],
      ['ok', 'off'],
    ])
    expect([sketch.letters, sketch.unique, sketch.idle]).toEqual([
      undefined,
      undefined,
      { seconds: 90, to: null },
    ])
    const more = sketchOf(
      tell(doc, [
        ['letters.keys', [{ key: '1', signs: '␣AB' }]],
        ['letters.ends', { step: 'ok', pause: null, shift: '' }],
        ['unique', [{ first: 'system.exit', second: null, third: null }]],
        ['idle.to', 'rest'],
      ]),
    )
    expect(more.letters).toEqual({ keys: { '1': ' AB' }, step: 'ok' })
    expect([more.unique, more.idle?.to]).toEqual([[['system.exit']], 'rest'])
  })

  it('names what is open, and is no entry until nothing is', () => {
    const words = (of: DraftDocument) => openPoints(sketchOf(of)).map((one) => `${one.screen}: ${one.words}`)
    expect(words(doc)).toEqual(['exit: where an answer leads', 'rest: where it goes by itself'])
    expect(draftEntry(doc, catalogue).problems).toEqual([
      { path: 'screens.exit', message: 'leaves open where an answer leads' },
      { path: 'screens.rest', message: 'leaves open where it goes by itself' },
    ])
    const led = tell(doc, [
      ['screens.exit', { ...exit, widget: { ...exit.widget, then: 'rest' } } as never],
      ['idle.to', 'rest'],
    ])
    expect(words(led)).toEqual([])
    const { kept, problems, missing } = draftEntry(led, catalogue)
    expect([problems, missing]).toEqual([[], []])
    expect(kept?.entry).toMatchObject({
      ...{ kind: 'interface', id: 'interface/burrow-numbers', start: 'rest', keeping: 'at-once' },
      screens: {
        rest: { lines: ['quiet', ''], widget: { kind: 'menu' }, keys: { menu: 'exit' } },
        exit: { widget: { then: 'rest', digits: [1, 2] } },
      },
    })
    // What was tried and does nothing is no part of an entry; nor which panel it was tried with.
    expect(JSON.stringify(kept?.entry)).not.toMatch(/beep|tarn/)
  })

  it('names a jump without its ways, a key that is held, what works, and a question that nobody told', () => {
    const points = (more: Partial<SketchScreen>) =>
      openPoints({ ...sketchOf(doc), idle: null, screens: { a: screen(more) } }).map(({ words, slot }) => [
        words,
        slot?.part ?? null,
      ])
    expect(points({ widget: null })).toEqual([['what is asked there', null]])
    expect(
      points({ widget: { kind: 'jump', digits: 2, none: 'no', to: { '14': null, '15': 'a' } } }),
    ).toEqual([['where 14 leads', 'to 14']])
    expect(points({ holds: { ok: { seconds: 3, to: null } } })).toEqual([
      ['where [ok] held leads', 'hold ok'],
    ])
    expect(points({ widget: { kind: 'busy', seconds: 9, then: null } })).toEqual([['what follows', 'then']])
    expect(points({})).toEqual([])
    // A way to a display that was taken away is open again.
    expect(points({ keys: { ok: 'gone', off: 'a', '1': '.', '2': BEEP } })).toEqual([
      ['where [ok] leads', 'key ok'],
    ])
    expect(points({ keys: { ok: [{ when: { empty: true }, go: 'a' }, { go: 'gone' }] } })).toHaveLength(1)
    expect(points({ widget: { kind: 'busy', seconds: 9, then: { do: ['keep'], go: 'gone' } } })).toHaveLength(
      1,
    )
  })

  it('asks for the ends of a row only where a key goes beyond them', () => {
    const row = (
      a: SketchScreen['keys'],
      b: SketchScreen['keys'],
      more: Partial<Sketch> = {},
    ): readonly string[] =>
      openPoints({
        ...sketchOf(doc),
        ...{ idle: null, screens: { a: screen({ keys: a }), b: screen({ keys: b }) } },
        walks: { a: { screens: ['a', 'b'], seen: [['a', 'b']], after: null, before: null } },
        ...more,
      }).map(({ screen: name, words }) => `${name} ${words}`)
    expect(row({ ok: '>' }, {})).toEqual([])
    expect(row({ ok: '>' }, { ok: '>' })).toEqual(['b what follows the last of its row'])
    expect(row({ off: '<' }, { off: '<' })).toEqual(['a what comes before the first of its row'])
    expect(row({}, {}, { common: { ok: '>', off: '<' } })).toHaveLength(2)
    expect(row({ ok: BEEP }, { ok: BEEP }, { common: { ok: '>' } })).toEqual([])
    // What the last question takes for itself does not go on.
    const taken = screen({ widget: { kind: 'yesno', at: 'system.exit', yes: 'ok', no: 'off', then: 'a' } })
    expect(row({}, {}, { common: { ok: '>' }, screens: { a: screen({}), b: taken } })).toEqual([])
    // Where the last one can be passed over, the one before it leads on, too.
    const skipped = screen({ skip: [{ hides: 'chime' }] })
    expect(row({}, {}, { screens: { a: screen({ keys: { ok: '>' } }), b: skipped } })).toHaveLength(1)
  })

  it('tells which keys nobody tried: not those that are taken, told or alike', () => {
    const sketch = { ...sketchOf(doc), common: { off: 'rest' } }
    expect(untriedKeys(sketch, 'rest')).toEqual(['1', '2', '3', 'ok'])
    expect(untriedKeys(sketch, 'exit')).toEqual(['menu'])
    expect(untriedKeys(sketch, 'gone')).toEqual([])
    const busy = { ...sketch, screens: { a: screen({ widget: { kind: 'busy', seconds: 3, then: 'a' } }) } }
    expect(untriedKeys(busy, 'a')).toEqual([])
  })

  it('is drawn as a map: what leads where, by which keys, each way once', () => {
    const map = screenMap({
      ...sketchOf(doc),
      screens: {
        rest: screen({
          keys: { menu: 'exit', ok: [{ when: { empty: true }, go: 'exit' }, { go: 'a' }], off: BEEP },
        }),
        exit: screen({
          widget: { kind: 'jump', digits: 1, none: 'no', to: { '1': 'a', '2': null, '3': 'gone' } },
        }),
        a: screen({ keys: { ok: '>', off: '.' }, holds: { ok: { seconds: 3, to: 'rest' } } }),
        b: screen({ keys: { off: '<' }, widget: { kind: 'busy', seconds: 3, then: 'rest' } }),
      },
      walks: { a: { screens: ['a', 'b'], seen: [], after: 'rest', before: null } },
    })
    expect(map.ways).toEqual([
      { from: 'rest', to: 'exit', by: ['[menu]', '[ok]'] },
      { from: 'rest', to: 'a', by: ['[ok]'] },
      { from: 'exit', to: 'a', by: ['1'] },
      { from: 'a', to: 'b', by: ['[ok]'] },
      { from: 'a', to: 'rest', by: ['[ok] held'] },
      { from: 'b', to: 'a', by: ['[off]'] },
      { from: 'b', to: 'rest', by: ['by itself', 'on'] },
    ])
    expect(map.screens.map(({ name, open }) => [name, open])).toEqual([
      ...[
        ['rest', 1],
        ['exit', 2],
        ['a', 0],
        ['b', 0],
      ],
    ])
  })
})

describe('a description in step with its panel', () => {
  const families = catalogue.all('family')
  const acted = actedOut(sketchOf(doc), tarn, families)
  const at = standing(acted, null, { screen: 'rest', pointers: {} })

  it('says what the panel must show where it was told, and which place is open where nobody has said', () => {
    const menu = tried(acted, at, { kind: 'press', key: 'menu' })
    expect([menu.shows, menu.slot]).toEqual([['exit', '60'], { path: 'screens.rest', part: 'key menu' }])
    const off = tried(acted, menu.state, { kind: 'press', key: 'off' })
    expect([off.shows, off.state.beeped]).toEqual([['exit', '60'], true])
    // A key that nobody tried is asked; what is typed is the question’s own.
    const open = tried(acted, at, { kind: 'press', key: 'ok' })
    expect([open.shows, open.slot, open.state]).toEqual([null, { path: 'screens.rest', part: 'key ok' }, at])
    const typed = tried(acted, menu.state, { kind: 'press', key: '3' })
    expect([typed.shows, typed.slot]).toEqual([['exit', '3_'], null])
    const sent = tried(acted, typed.state, { kind: 'press', key: 'ok' })
    expect([sent.shows, sent.slot]).toEqual([null, { path: 'screens.exit', part: 'then' }])
    // What was sent is stored although nobody said where it leads.
    expect([sent.state.screen, sent.state.kept.get('system.exit')]).toEqual(['exit', '3'])
    const idle = tried(acted, menu.state, { kind: 'wait', seconds: 90 })
    expect([idle.shows, idle.slot]).toEqual([null, { path: 'idle', part: 'to' }])
    expect(tried(acted, menu.state, { kind: 'wait', seconds: 89 })).toMatchObject({
      shows: ['exit', '60'],
      slot: null,
    })
    expect(tried(acted, at, { kind: 'hold', key: 'ok', seconds: 4 }).slot).toEqual({
      ...{ path: 'screens.rest', part: 'hold ok' },
    })
  })

  it('holds what was told meanwhile as it is shipped, and what was keyed as it was keyed', () => {
    const more = tell(doc, [
      ['fields.system.siren', { form: { kind: 'number', from: 1, to: 9 }, factory: '5' }],
    ])
    const next = actedOut(sketchOf(more), tarn, families)
    const keyed = { ...at, kept: new Map([['system.exit', '7']]) }
    expect([...withShipped(next, acted, keyed).kept]).toEqual([
      ['system.siren', '5'],
      ['system.exit', '7'],
    ])
    expect(withShipped(acted, acted, keyed)).toBe(keyed)
  })

  it('offers what could decide: stored values only where the numbers stand that they are kept by', () => {
    const zone = { from: 1, to: 9, digits: 2, ends: 'stop' }
    const more = tell(doc, [
      ['pointers.zone', zone],
      ['fields.zone.{zone}.chime', { form: { kind: 'bit', on: 'yes', off: 'no' } }],
    ])
    const next = actedOut(sketchOf(more), tarn, families)
    const exitHeld = { of: 'now', guard: { at: 'system.exit', in: ['60'] } }
    expect(valuesDecide(next, standing(next, null, { screen: 'rest', pointers: {} }))).toEqual([exitHeld])
    const there = { ...standing(next, null, { screen: 'rest', pointers: {} }), pointers: { zone: 3 } }
    const chime = { of: 'now', guard: { at: 'zone.{zone}.chime', in: [''] } }
    expect(valuesDecide(next, there)).toEqual([exitHeld, chime])
    const keyed = {
      ...there,
      kept: new Map([['zone.3.chime', 'on']]),
      draft: new Map([['system.exit', '7']]),
    }
    expect(valuesDecide(next, keyed).map(({ guard }) => guard.in)).toEqual([['7'], ['on']])
  })

  it('offers what holds now for this, and what does not for what was told before', () => {
    const sketch = sketchOf(tell(doc, [['pointers.zone', { from: 1, to: 9, digits: 2, ends: 'stop' }]]))
    const next = actedOut(sketch, tarn, families)
    const offers = (pointers: Readonly<Record<string, number>>, typed: string | null, response = '') =>
      couldDecide(next, {
        ...standing(next, null, { screen: 'rest', pointers: {} }),
        ...{ pointers, typed, kept: new Map([['zone.9.response', response]]) },
      }).map(({ of, guard }) => `${of} ${JSON.stringify(guard)}`)
    expect(offers({}, null)).toEqual(['now {"empty":true}'])
    expect(offers({}, '1')).toEqual(['before {"empty":true}'])
    const last = offers({ zone: 9 }, null)
    expect(last).toContain('now {"pointer":{"zone":"last"}}')
    expect(last).toContain('before {"pointer":{"zone":"first"}}')
    expect(last).toContain('now {"pointer":{"zone":[9,9]}}')
    expect(last).toContain('before {"pointer":{"zone":[1,1]}}')
    // A zone without a type has a chime to be asked; only a verified fire type has a pair.
    expect(last).toContain('before {"hides":"chime"}')
    expect(last).toContain('now {"hides":"fireGroup"}')
    const silent = tarn.responseTypes.find(({ hides }) => hides.includes('chime'))
    expect(offers({ zone: 9 }, null, silent?.code)).toContain('now {"hides":"chime"}')
  })

  it('leads nowhere where a colleague took the display back', () => {
    const gone = actedOut(sketchOf(tell(doc, [['screens.exit', undefined]])), tarn, families)
    const menu = tried(gone, at, { kind: 'press', key: 'menu' })
    expect([menu.shows, menu.slot]).toEqual([null, { path: 'screens.rest', part: 'key menu' }])
    expect(display(gone.panel, at)).toEqual(['quiet', ''])
  })
})

describe('a question and its cells', () => {
  const interfaces = catalogue.all('interface')
  const widgets = interfaces.flatMap(({ screens }) => Object.values(screens).map(({ widget }) => widget))
  const sketch = sketchOf(doc)

  it.each(Object.keys(askedKinds) as AskedKind[])(
    '%s: every one of the demo panels is said by its cells',
    (kind) => {
      const all = widgets.filter((widget) => widget.kind === kind)
      expect(all.length).toBeGreaterThan(0)
      for (const widget of all) {
        const cells = cellsFrom(widget as Parameters<typeof cellsFrom>[0])
        expect(widgetFrom(cells, widget as Parameters<typeof widgetFrom>[1])).toEqual(widget)
        // Where it leads is told by what the panel shows, never by its cells.
        expect(JSON.stringify(widgetFrom(cells, null))).not.toContain('"go"')
      }
    },
  )

  it('is refused where a cell that it needs is empty, and takes one that it does not need as none', () => {
    const keys = { ...sketch, keys: [['ok', 'no']] }
    const form = { is: 'group', cells: cellsAsked(keys, tarn, 'number') } as const
    const cells = {
      at: 'system.exit',
      least: 1,
      most: 2,
      opens: 'value',
      send: null,
      bad: 'no',
      empties: '',
      taken: null,
    }
    expect(formProblem(form, cells)).toBe('')
    expect(formProblem(form, { ...cells, most: null })).not.toBe('')
    expect(formProblem(form, { ...cells, at: 'system.nothing' })).not.toBe('')
    expect(formProblem(form, { ...cells, send: 'gone' })).not.toBe('')
    expect(widgetFrom({ kind: 'number', cells, bits: [], patterns: [] }, null)).toEqual({
      ...{ kind: 'number', at: 'system.exit', digits: [1, 2], opens: 'value', bad: 'no', then: null },
    })
  })

  it('keeps where the same number led when others are added', () => {
    const was = { kind: 'jump', digits: 2, none: 'no', to: { '14': 'rest', '15': 'exit' } } as const
    const cells = { ...cellsFrom(was), patterns: ['15', '16'] }
    expect(widgetFrom(cells, was)).toEqual({ ...was, to: { '15': 'exit', '16': null } })
    expect(widgetFrom(cells, { kind: 'menu' })).toMatchObject({ to: { '15': null, '16': null } })
  })

  it('a field of every demo panel is said by its cells, and what belongs to another kind is dropped', () => {
    for (const { fields } of interfaces)
      for (const field of Object.values(fields)) {
        const { cells, values } = fieldCells(field)
        expect(fieldFrom(cells, values)).toEqual(field)
        expect(formProblem({ is: 'group', cells: cellsOfField(field.form.kind) }, cells as never)).toBe('')
      }
    expect(fieldFrom({ kind: 'bit', on: 'yes', off: 'no', from: 1, to: 9, factory: '' }, [])).toEqual({
      form: { kind: 'bit', on: 'yes', off: 'no' },
    })
    expect(cellsOfField(null).map(({ key }) => key)).toEqual(['kind'])
    expect(
      formProblem({ is: 'group', cells: cellsOfPointer }, { from: 1, to: 9, ends: 'stop', digits: null }),
    ).toBe('')
    expect(formProblem({ is: 'group', cells: cellsOfPointer }, { from: 1, to: 1000, ends: 'stop' })).not.toBe(
      '',
    )
  })
})
