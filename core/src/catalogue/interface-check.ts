import type { Problem } from '../units/problem.ts'
import type { Guard, Move, PanelInterface, Screen, Target, Widget } from './schema.ts'

/*
 * What a description of an interface may not leave open: the machine that acts it out trusts it. Every problem names the screen and,
 * where there is one, the key.
 */

/** Every problem of a description, without looking at the panel that has it. */
export function interfaceProblems(entry: PanelInterface): Problem[] {
  const look: Look = { entry, problems: [], keys: new Set(entry.keys.flat()) }
  const names = Object.keys(entry.screens)
  if (!names.includes(entry.start)) told(look, 'start', `names no screen: ${entry.start}`)
  walkProblems(look)
  for (const name of names) screenProblems(look, name)
  targetProblems(look, { path: 'common', relative: true }, Object.values(entry.common))
  for (const key of Object.keys(entry.common)) keyProblem(look, `common.${key}`, key)
  if (entry.idle) targetProblems(look, { path: 'idle.to', relative: false }, [entry.idle.to])
  fieldProblems(look)
  if (look.problems.length === 0) wayProblems(look)
  return look.problems
}

interface Look {
  readonly entry: PanelInterface
  readonly problems: Problem[]
  readonly keys: ReadonlySet<string>
}

function told({ entry, problems }: Look, path: string, message: string): void {
  problems.push({ path: `${entry.id}.${path}`, message })
}

function keyProblem(look: Look, path: string, key: string): void {
  if (!look.keys.has(key)) told(look, path, `is no key of this panel: ${key}`)
}

function walkProblems(look: Look): void {
  const seen = new Map<string, string>()
  for (const [name, walk] of Object.entries(look.entry.walks)) {
    for (const screen of walk.screens) {
      const there = seen.get(screen)
      if (!own(look.entry.screens, screen)) told(look, `walks.${name}`, `names no screen: ${screen}`)
      if (there !== undefined) told(look, `walks.${name}`, `has ${screen}, which is in walk ${there} already`)
      seen.set(screen, name)
    }
    if (walk.screens.every((screen) => own(look.entry.screens, screen)?.skip !== undefined))
      told(look, `walks.${name}`, 'can be passed over whole: at least one screen must always be shown')
    targetProblems(look, { path: `walks.${name}.after`, relative: false }, [walk.after])
    targetProblems(look, { path: `walks.${name}.before`, relative: false }, [walk.before])
  }
}

function targetProblems(
  look: Look,
  { path, relative }: { readonly path: string; readonly relative: boolean },
  targets: readonly Target[],
): void {
  for (const { go, point } of targets.flatMap(movesIn)) {
    if (go === '>' || go === '<') {
      if (!relative) told(look, path, `goes to “${go}”, but is in no walk`)
    } else if (go !== undefined && go !== '.' && !own(look.entry.screens, go))
      told(look, path, `goes to no screen: ${go}`)
    for (const name of Object.keys(point ?? {}))
      if (!own(look.entry.pointers, name)) told(look, path, `moves no pointer: ${name}`)
  }
}

function movesIn(target: Target): readonly Move[] {
  if (typeof target === 'string') return [{ go: target }]
  return Array.isArray(target) ? target : [target]
}

function screenProblems(look: Look, name: string): void {
  const { entry } = look
  const screen = own(entry.screens, name)
  if (!screen) return
  const path = `screens.${name}`
  const relative = Object.values(entry.walks).some((walk) => walk.screens.includes(name))
  for (const [key, target] of Object.entries(screen.keys ?? {})) {
    keyProblem(look, `${path}.keys.${key}`, key)
    targetProblems(look, { path: `${path}.keys.${key}`, relative }, [target])
  }
  for (const [key, { to }] of Object.entries(screen.holds ?? {})) {
    keyProblem(look, `${path}.holds.${key}`, key)
    targetProblems(look, { path: `${path}.holds.${key}`, relative }, [to])
  }
  targetProblems(look, { path: `${path}.widget`, relative }, widgetTargets(screen.widget))
  pointerProblems(look, path, screen)
  widgetProblems(look, path, screen.widget)
  lineProblems(look, path, screen)
}

/** Where a question leads. */
function widgetTargets(widget: Widget): readonly Target[] {
  if (widget.kind === 'jump') return Object.values(widget.to)
  return 'then' in widget ? [widget.then] : []
}

/** Addresses that a question sets. */
export function addressesSet(widget: Widget): readonly string[] {
  if (widget.kind === 'options')
    return Object.values(widget.bits).map((bit) => (typeof bit === 'string' ? bit : bit.at))
  if (widget.kind === 'serial') return [widget.at, ...(widget.loopAt === undefined ? [] : [widget.loopAt])]
  return 'at' in widget ? [widget.at] : []
}

const inBraces = /\{([a-zA-Z0-9-]+)\}/g
const names = (text: string): string[] => [...text.matchAll(inBraces)].map((match) => match[1] ?? '')
const words: ReadonlySet<string> = new Set(['typed', 'buf', 'raw', 'value', 'row', 'lit'])

function pointerProblems(look: Look, path: string, screen: Screen): void {
  const over = new Set(screen.over ?? [])
  for (const name of [...over, ...(screen.carry ?? [])])
    if (!own(look.entry.pointers, name)) told(look, `${path}.over`, `names no pointer: ${name}`)
  for (const [at, name] of pointersNeeded(screen))
    if (!words.has(name) && !over.has(name))
      told(look, `${path}.${at}`, `needs {${name}}, which is not in its “over”`)
}

/** Every pointer that a screen reads, with where it does. */
function pointersNeeded(screen: Screen): readonly (readonly [at: string, name: string])[] {
  const guards = Object.entries(screen.keys ?? {}).flatMap(([key, target]) =>
    movesIn(target).flatMap(({ when }) => (when ? [[`keys.${key}`, when] as const] : [])),
  )
  const need = (at: string, list: readonly string[]) => list.map((name) => [at, name] as const)
  return [
    ...screen.lines.flatMap((line) => need('lines', names(line))),
    ...addressesSet(screen.widget).flatMap((address) => need('widget', names(address))),
    ...(screen.skip ?? []).flatMap((guard) => need('skip', pointersOfGuard(guard))),
    ...guards.flatMap(([at, guard]) => need(at, pointersOfGuard(guard))),
  ]
}

function pointersOfGuard({ pointer, at, hides }: Guard): string[] {
  return [
    ...Object.keys(pointer ?? {}),
    ...(at === undefined ? [] : names(at)),
    ...(hides === undefined ? [] : ['zone']),
  ]
}

function widgetProblems(look: Look, path: string, widget: Widget): void {
  const keys = widgetKeys(look.entry, widget)
  for (const key of keys) keyProblem(look, `${path}.widget`, key)
  const twice = keys.find((key, index) => keys.indexOf(key) !== index)
  if (twice !== undefined) told(look, `${path}.widget`, `uses one key for two things: ${twice}`)
  if (widget.kind === 'jump') jumpProblems(look, path, widget)
  if (widget.kind === 'number' && widget.digits[0] > widget.digits[1])
    told(look, `${path}.widget.digits`, 'must not ask for more digits at least than at most')
}

const digits = ['0', '1', '2', '3', '4', '5', '6', '7', '8', '9']

/** Every key that a question takes, one entry for each thing it does. */
export function widgetKeys(
  {
    letters,
    keys,
  }: { readonly letters?: PanelInterface['letters']; readonly keys: readonly (readonly string[])[] },
  widget: Widget,
): readonly string[] {
  const given = (...list: readonly (string | undefined)[]): string[] =>
    list.filter((key) => key !== undefined)
  const pressed = keys.flat()
  const typed = digits.filter((digit) => pressed.includes(digit))
  switch (widget.kind) {
    case 'menu':
    case 'summary':
    case 'busy':
      return []
    case 'jump':
    case 'code':
      return [...typed, ...given(widget.send)]
    case 'number':
    case 'serial':
      return [
        ...typed,
        ...given(widget.send, widget.empties, widget.kind === 'serial' ? letters?.shift : undefined),
      ]
    case 'yesno':
      return [widget.yes, widget.no]
    case 'choice':
      return given(widget.take, widget.next, widget.previous)
    case 'options':
      return [...Object.keys(widget.bits), ...given(widget.send)]
    case 'text':
      return [...Object.keys(letters?.keys ?? {}), ...given(letters?.step, widget.send)]
    case 'words':
      return [...typed, widget.gap, widget.send]
  }
}

/** What can be typed for a pattern: each number of its pointers, written as the pointer is. */
function expanded(entry: PanelInterface, pattern: string): readonly string[] {
  let all = [pattern]
  for (const name of names(pattern)) {
    const range = own(entry.pointers, name)
    if (!range) return []
    const numbers = Array.from({ length: range.to - range.from + 1 }, (_, index) =>
      String(range.from + index).padStart(range.digits ?? 1, '0'),
    )
    all = all.flatMap((text) => numbers.map((number) => text.replace(`{${name}}`, number)))
  }
  return all
}

function jumpProblems(look: Look, path: string, widget: Extract<Widget, { kind: 'jump' }>): void {
  const taken = new Map<string, string>()
  for (const pattern of Object.keys(widget.to)) {
    const at = `${path}.widget.to.${pattern}`
    for (const name of names(pattern))
      if (!own(look.entry.pointers, name)) told(look, at, `names no pointer: ${name}`)
    // Where one ends and the next begins is told by nothing but its digits.
    const open = names(pattern)
      .slice(0, -1)
      .find((name) => own(look.entry.pointers, name)?.digits === undefined)
    if (open !== undefined) told(look, at, `must give ${open} a number of digits: another pointer follows it`)
    const all = expanded(look.entry, pattern)
    const long = all.find((text) => text.length > widget.digits)
    const short = widget.send === undefined ? all.find((text) => text.length < widget.digits) : undefined
    if (long !== undefined) told(look, at, `is longer than ${widget.digits} digits: ${long}`)
    if (short !== undefined)
      told(look, at, `never fills ${widget.digits} digits, and no key sends it: ${short}`)
    const hidden = all.find((text) => taken.has(text))
    if (hidden !== undefined) told(look, at, `is hidden by ${taken.get(hidden) ?? ''} at ${hidden}`)
    for (const text of all) taken.set(text, pattern)
  }
}

function lineProblems(look: Look, path: string, { lines, widget }: Screen): void {
  const { display } = look.entry
  const alphabet = new Set(display.alphabet)
  if (lines.length > display.lines) told(look, `${path}.lines`, `must be at most ${display.lines}`)
  const messages = Object.entries(widget).flatMap(([name, value]) =>
    typeof value === 'string' && ['none', 'bad', 'taken', 'wrong'].includes(name) ? [value] : [],
  )
  const literal = lines.map((line) => line.replace(/\{@[^@]*@\}/g, '').replace(/\{[^{}]*\}/g, ''))
  for (const text of [...literal, ...messages]) {
    const strange = [...text].find((sign) => sign !== ' ' && !alphabet.has(sign))
    if (strange !== undefined) told(look, path, `shows “${strange}”, which the display cannot`)
    if (text.length > display.columns)
      told(look, path, `shows “${text}”, longer than the ${display.columns} signs of a line`)
  }
}

function fieldProblems(look: Look): void {
  const { fields, unique, screens } = look.entry
  const widgets = Object.values(screens).map((screen) => screen.widget)
  const puts = Object.values(screens).flatMap((screen) =>
    [...Object.values(screen.keys ?? {}), ...widgetTargets(screen.widget)]
      .flatMap(movesIn)
      .flatMap((move) => Object.keys(move.put ?? {})),
  )
  const set = new Set([...widgets.flatMap(addressesSet), ...puts])
  for (const address of set)
    if (!own(fields, address)) told(look, `fields`, `does not say what ${address} holds`)
  for (const address of Object.keys(fields))
    if (!set.has(address)) told(look, `fields.${address}`, 'is set by no screen')
  for (const address of (unique ?? []).flat()) {
    const canBeEmptied = widgets.some(
      (widget) => 'empties' in widget && widget.empties !== undefined && widget.at === address,
    )
    if (!own(fields, address)) told(look, 'unique', `names no field: ${address}`)
    else if (!canBeEmptied)
      told(look, `fields.${address}`, 'must differ from that of every other number, and no key empties it')
  }
}

/** Screens that nothing leads to, and those that nothing leads out of. */
function wayProblems(look: Look): void {
  const { entry } = look
  const reached = new Set<string>()
  const open = [entry.start]
  for (let name = open.pop(); name !== undefined; name = open.pop()) {
    if (reached.has(name)) continue
    reached.add(name)
    open.push(...leadsTo(entry, name))
  }
  for (const name of Object.keys(entry.screens)) {
    if (!reached.has(name)) told(look, `screens.${name}`, 'is never reached')
    else if (leadsTo(entry, name).every((to) => to === name)) told(look, `screens.${name}`, 'is never left')
  }
  const moves = Object.values(entry.screens).flatMap((screen) =>
    [...Object.values(screen.keys ?? {}), ...widgetTargets(screen.widget)].flatMap(movesIn),
  )
  if (entry.keeping !== 'at-once' && !moves.some((move) => move.do?.includes('keep') === true))
    told(look, 'keeping', `is ${entry.keeping}, but nothing keeps the answers`)
}

function leadsTo(entry: PanelInterface, name: string): readonly string[] {
  const screen = own(entry.screens, name)
  if (!screen) return []
  const walk = Object.values(entry.walks).find((one) => one.screens.includes(name))
  const ends = walk ? [walk.after, walk.before].flatMap(movesIn) : []
  const common = screen.alone ? [] : Object.values(entry.common)
  const targets = [
    ...Object.values(screen.keys ?? {}),
    ...Object.values(screen.holds ?? {}).map((hold) => hold.to),
    ...widgetTargets(screen.widget),
    ...common,
  ]
  return [...targets.flatMap(movesIn), ...ends].flatMap(({ go }) => {
    if (go === undefined || go === '.') return []
    if (go !== '>' && go !== '<') return [go]
    return walk?.screens ?? []
  })
}

/** What a description says under a name; names that every object answers to, such as `constructor`, are said by nobody. */
function own<T>(named: Readonly<Record<string, T>>, name: string): T | undefined {
  return Object.hasOwn(named, name) ? named[name] : undefined
}
