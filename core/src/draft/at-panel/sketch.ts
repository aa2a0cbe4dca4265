import type { Guard, PanelInterface, Screen, Target, Widget } from '../../catalogue/schema.ts'
import { addressesSet, widgetKeys } from '../../catalogue/interface-check.ts'
import { movesOf, pointersIn } from '../../panel/compiled.ts'
import { answerOps, answersOf, type Answer, type DraftDocument, type DraftOp } from '../records.ts'

/*
 * An interface while somebody describes it at the panel: each display, field, row of questions and common key is an answer of its
 * own, so that two people who describe different displays do not meet. What nobody has said yet is null.
 */

type Loose<T> = T extends { readonly kind: 'jump' }
  ? Omit<T, 'to'> & { readonly to: Readonly<Record<string, Target | null>> }
  : 'then' extends keyof T
    ? Omit<T, 'then'> & { readonly then: Target | null }
    : T
/** What is asked on a display; where it leads is null until it was seen. */
export type SketchWidget = Loose<Widget>

/** A display that somebody has told. */
export interface SketchScreen {
  readonly lines: readonly string[]
  /** Null until it is said what is asked here. */
  readonly widget: SketchWidget | null
  /** What each key that was tried does; one that does nothing beeps. */
  readonly keys: Readonly<Record<string, Target>>
  readonly holds: Readonly<Record<string, { readonly seconds: number; readonly to: Target | null }>>
  readonly skip: readonly Guard[]
  readonly note: string
  /** None of the keys that act alike everywhere acts here, as an entry says it; else it follows from what was tried. */
  readonly alone?: true
}

/** A row of questions that one key walks along; its ends are null until they were seen. */
export interface SketchWalk {
  readonly screens: readonly string[]
  /** Which was seen to come after which; their order follows from it. */
  readonly seen: readonly (readonly [first: string, second: string])[]
  readonly after: Target | null
  readonly before: Target | null
}

type Field = PanelInterface['fields'][string]
type Pointer = PanelInterface['pointers'][string]

/** What is told of an interface so far. */
export interface Sketch {
  readonly display: PanelInterface['display']
  readonly keys: readonly (readonly string[])[]
  readonly letters: PanelInterface['letters']
  readonly pointers: Readonly<Record<string, Pointer>>
  readonly fields: Readonly<Record<string, Field>>
  readonly unique: PanelInterface['unique']
  readonly screens: Readonly<Record<string, SketchScreen>>
  readonly walks: Readonly<Record<string, SketchWalk>>
  readonly common: Readonly<Record<string, Target>>
  readonly keeping: PanelInterface['keeping']
  readonly idle: { readonly seconds: number; readonly to: Target | null } | null
  /** The display at rest; empty until one was told. */
  readonly start: string
}

/** One answer of a sketch: its path, and what it says; undefined takes it back. */
export type Told = readonly [path: string, value: Answer['value'] | undefined]

/** A path as a record is named by it: braces as slashes, other signs that a key may have by their number. */
export function writtenPath(path: string): string {
  return path
    .replace(/[{}]/g, '/')
    .replace(/[^A-Za-z0-9./-]/gu, (sign) => `_${(sign.codePointAt(0) ?? 0).toString(16)}_`)
}

/** The path that is written so. */
export function readPath(written: string): string {
  return written
    .replace(/_([0-9a-f]+)_/g, (_whole, code: string) => String.fromCodePoint(parseInt(code, 16)))
    .replace(/\/([^/]*)\//g, '{$1}')
}

/** What was told, as ops of a draft. */
export function toldOps(doc: DraftDocument, told: readonly Told[]): readonly DraftOp[] {
  return told.flatMap(([path, value]) => answerOps(doc, writtenPath(path), value))
}

/** Kinds of answer that are given at the panel, by the beginning of their path. */
export const toldParts = ['pointers', 'fields', 'screens', 'walks', 'common'] as const

/** Stands for the blank among the signs of a key: alone it could not be seen. */
const BLANK = '␣'

/** What a display can show where nobody has said. */
const USUAL_SIGNS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789?,.-/*_'

type Value = NonNullable<Answer['value']>
type Row = Readonly<Record<string, unknown>>

/** What a draft tells of an interface. */
export function sketchOf(doc: DraftDocument): Sketch {
  const answers = answersOf(doc)
  const row = (path: string): Row => (answers.get(path) ?? {}) as Row
  const text = (path: string): string => (answers.get(path) as string | null | undefined) ?? ''
  const display = row('display')
  const letters = answers.get('letters.keys') as readonly { key: string; signs: string }[] | null | undefined
  const named = <T>(part: (typeof toldParts)[number]): Readonly<Record<string, T>> =>
    Object.fromEntries(
      [...answers].flatMap(([written, value]) => {
        if (!written.startsWith(`${part}.`) || value === null) return []
        return [[readPath(written).slice(part.length + 1), value as T]]
      }),
    )
  const idle = answers.get('idle.seconds')
  return {
    display: {
      lines: Number(display.lines ?? 2),
      columns: Number(display.columns ?? 16),
      cursor: typeof display.cursor === 'string' && display.cursor !== '' ? display.cursor : '_',
      messages: Number(display.messages ?? 1),
      alphabet: text('alphabet') || USUAL_SIGNS,
    },
    keys: keyRows(text('keys')),
    letters: letters
      ? {
          keys: Object.fromEntries(letters.map(({ key, signs }) => [key, signs.replaceAll(BLANK, ' ')])),
          ...withoutNull(row('letters.ends')),
        }
      : undefined,
    pointers: named('pointers'),
    fields: named('fields'),
    unique: uniqueOf(answers.get('unique')),
    screens: named('screens'),
    walks: named('walks'),
    common: named('common'),
    keeping: (text('keeping') || 'at-once') as Sketch['keeping'],
    idle:
      typeof idle === 'number'
        ? { seconds: idle, to: (answers.get('idle.to') as Target | undefined) ?? null }
        : null,
    start: text('start'),
  }
}

/** Keys as they lie, from rows of names with blanks between. */
function keyRows(text: string): readonly (readonly string[])[] {
  return text
    .split('\n')
    .map((line) => line.split(/\s+/).filter((key) => key !== ''))
    .filter((row) => row.length > 0)
}

function uniqueOf(value: Answer['value'] | undefined): Sketch['unique'] {
  if (!Array.isArray(value)) return undefined
  return (value as Row[]).map((row) =>
    [row.first, row.second, row.third].filter((one) => typeof one === 'string'),
  )
}

function withoutNull(row: Row): Row {
  return Object.fromEntries(Object.entries(row).filter(([, value]) => value !== null && value !== ''))
}

/** The same display, told anew. */
export function toldScreen(name: string, screen: SketchScreen): Told {
  return [`screens.${name}`, screen as unknown as Value]
}

/** What stands at a path, changed by hand; for keeping a whole act together before it is written. */
export function withTold(sketch: Sketch, told: readonly Told[]): Sketch {
  let next: Record<string, unknown> = { ...sketch }
  for (const [path, value] of told) {
    const part = toldParts.find((one) => path.startsWith(`${one}.`))
    if (part) {
      const of = path.slice(part.length + 1)
      const { [of]: _was, ...rest } = next[part] as Row
      next[part] = value === undefined ? rest : { ...rest, [of]: value }
    } else if (path === 'start') next = { ...next, start: value ?? '' }
    else if (path === 'idle.to') next = { ...next, idle: sketch.idle && { ...sketch.idle, to: value } }
  }
  return next as unknown as Sketch
}

/** A move that does nothing but beep: what a key says that was tried and does nothing. */
export const BEEP: Target = { do: ['beep'] }

/** Whether a key was tried and does nothing. */
export function isBeep(target: Target | undefined): boolean {
  return JSON.stringify(target) === JSON.stringify(BEEP)
}

/** Pointers that a display depends on: those that it shows, that its values are kept by, and that decide where it leads. */
export function pointersOver(sketch: Pick<Sketch, 'pointers'>, screen: SketchScreen): readonly string[] {
  const { widget } = screen
  const leads = [...Object.values(screen.keys), ...answersLead(widget)]
  const guards = [...screen.skip, ...leads.flatMap(guardsIn)]
  const addresses = widget ? addressesSet(widget as Widget) : []
  const texts = [...screen.lines, ...addresses, ...guards.map(({ at }) => at ?? '')]
  const named = [
    ...texts.flatMap(pointersIn),
    ...guards.flatMap(({ pointer, hides }) => [...Object.keys(pointer ?? {}), ...(hides ? ['zone'] : [])]),
  ]
  return [...new Set(named)].filter((name) => Object.hasOwn(sketch.pointers, name))
}

function guardsIn(target: Target | null): readonly Guard[] {
  return target === null ? [] : movesOf(target).flatMap(({ when }) => (when ? [when] : []))
}

/** Where what is asked on a display leads. */
function answersLead(widget: SketchWidget | null): readonly (Target | null)[] {
  if (widget?.kind === 'jump') return Object.values(widget.to)
  return widget && 'then' in widget ? [widget.then] : []
}

/** An interface as its entry holds it, with what nobody has said left out: the reader of packs names it. */
export function sketchEntry(doc: DraftDocument): Readonly<Record<string, unknown>> {
  const sketch = sketchOf(doc)
  const { idle, letters, unique } = sketch
  const walks = Object.entries(sketch.walks).map(([name, { screens, ...ends }]) => {
    // Where no key goes that way, that end is never come to.
    const after = ends.after ?? (leavesRow(sketch, screens, '>') ? null : (screens.at(-1) ?? null))
    const before = ends.before ?? (leavesRow(sketch, screens, '<') ? null : (screens[0] ?? null))
    return [name, { screens, ...(after === null ? {} : { after }), ...(before === null ? {} : { before }) }]
  })
  return {
    ...{ display: sketch.display, keys: sketch.keys, pointers: sketch.pointers, fields: sketch.fields },
    ...{ common: sketch.common, keeping: sketch.keeping, start: sketch.start },
    walks: Object.fromEntries(walks),
    screens: Object.fromEntries(
      Object.entries(sketch.screens).map(([name, screen]) => [name, entryScreen(sketch, screen)]),
    ),
    ...(letters ? { letters } : {}),
    ...(unique ? { unique } : {}),
    ...(idle ? { idle: { seconds: idle.seconds, ...(idle.to === null ? {} : { to: idle.to }) } } : {}),
  }
}

/** Keys that what is asked on a display takes. */
export function takenKeys(
  { letters, keys }: Pick<Sketch, 'letters' | 'keys'>,
  { widget }: Pick<SketchScreen, 'widget'>,
): readonly string[] {
  return widget ? widgetKeys({ letters, keys }, widget as Widget) : []
}

/** Whether any key goes on beyond the end of a row of these questions: from its last one, or one behind which all can be passed over. */
export function leavesRow(sketch: Sketch, row: readonly string[], way: '>' | '<'): boolean {
  for (const name of way === '>' ? row.toReversed() : row) {
    const screen = sketch.screens[name]
    if (!screen) continue
    const taken = takenKeys(sketch, screen)
    const alike = Object.entries(sketch.common).filter(
      ([key]) => screen.keys[key] === undefined && !taken.includes(key),
    )
    const targets = [screen.widget, Object.values(screen.keys), alike.map(([, target]) => target)]
    if (JSON.stringify(targets).includes(JSON.stringify(way))) return true
    if (screen.skip.length === 0) return false
  }
  return false
}

/** Whether none of the keys that act alike everywhere acts on a display: each does nothing, or something of its own. */
export function isAlone(sketch: Sketch, screen: SketchScreen): boolean {
  if (screen.alone) return true
  const taken = takenKeys(sketch, screen)
  const common = Object.keys(sketch.common).filter((key) => !taken.includes(key))
  return (
    common.some((key) => isBeep(screen.keys[key])) && common.every((key) => screen.keys[key] !== undefined)
  )
}

function entryScreen(sketch: Sketch, screen: SketchScreen): Partial<Screen> {
  const over = pointersOver(sketch, screen)
  const common = Object.keys(sketch.common)
  const alone = isAlone(sketch, screen)
  const keys = Object.entries(screen.keys).filter(
    ([key, target]) => !isBeep(target) || (!alone && common.includes(key)),
  )
  const holds = Object.entries(screen.holds).map(([key, { seconds, to }]) => [
    key,
    { seconds, ...(to === null ? {} : { to }) },
  ])
  return {
    ...(over.length > 0 ? { over: [...over] } : {}),
    lines: [...screen.lines],
    ...(screen.skip.length > 0 ? { skip: [...screen.skip] } : {}),
    ...(screen.widget === null ? {} : { widget: entryWidget(screen.widget) }),
    ...(screen.note === '' ? {} : { note: screen.note }),
    ...(alone ? { alone: true as const } : {}),
    ...(keys.length > 0 ? { keys: Object.fromEntries(keys) } : {}),
    ...(holds.length > 0 ? { holds: Object.fromEntries(holds) as NonNullable<Screen['holds']> } : {}),
  }
}

function entryWidget(widget: SketchWidget): Widget {
  if (widget.kind === 'jump')
    return {
      ...widget,
      to: Object.fromEntries(Object.entries(widget.to).filter(([, target]) => target !== null)),
    } as Widget
  if ('then' in widget && widget.then === null) {
    const { then: _then, ...rest } = widget
    return rest as Widget
  }
  return widget as Widget
}

/** What an interface says, as answers of a draft: for one that is corrected, or begun like another. */
export function sketchAnswers(entry: PanelInterface): readonly Told[] {
  const { display, letters, idle } = entry
  const { alphabet, ...size } = display
  const told = (part: string, named: Readonly<Record<string, unknown>>): Told[] =>
    Object.entries(named).map(([name, value]) => [`${part}.${name}`, value as Value])
  const { keys: signs, ...ends } = letters ?? { keys: {} }
  return [
    ['display', size],
    ['alphabet', alphabet],
    ['keys', entry.keys.map((row) => row.join(' ')).join('\n')],
    [
      'letters.keys',
      letters ? Object.entries(signs).map(([key, of]) => ({ key, signs: of.replaceAll(' ', BLANK) })) : null,
    ],
    ...(letters && Object.keys(ends).length > 0 ? [['letters.ends', ends as Value] as const] : []),
    ['keeping', entry.keeping],
    ['idle.seconds', idle?.seconds ?? null],
    ...(idle ? [['idle.to', idle.to as Value] as const] : []),
    [
      'unique',
      entry.unique
        ? entry.unique.map(([first = null, second = null, third = null]) => ({ first, second, third }))
        : null,
    ],
    ['start', entry.start],
    ...told('pointers', entry.pointers),
    ...told('fields', entry.fields),
    ...told('common', entry.common),
    ...told(
      'walks',
      Object.fromEntries(
        Object.entries(entry.walks).map(([name, walk]) => [
          name,
          { ...walk, seen: walk.screens.slice(1).map((screen, at) => [walk.screens[at], screen]) },
        ]),
      ),
    ),
    ...told(
      'screens',
      Object.fromEntries(Object.entries(entry.screens).map(([name, screen]) => [name, loose(screen)])),
    ),
  ]
}

function loose(screen: Screen): SketchScreen {
  return {
    ...{ lines: screen.lines, widget: screen.widget as SketchWidget },
    ...{ keys: screen.keys ?? {}, holds: screen.holds ?? {} },
    ...{ skip: screen.skip ?? [], note: screen.note ?? '' },
    ...(screen.alone ? { alone: true } : {}),
  }
}
