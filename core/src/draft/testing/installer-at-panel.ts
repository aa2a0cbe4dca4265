import { expect } from 'vitest'
import type { Catalogue } from '../../catalogue/catalogue.ts'
import type { Guard, Move, PanelModel } from '../../catalogue/schema.ts'
import { interfaceOf, movesOf, screenOf, type Compiled } from '../../panel/compiled.ts'
import { display } from '../../panel/display.ts'
import { act, switchedOn } from '../../panel/machine.ts'
import { guardHolds, type Input, type PanelState } from '../../panel/state.ts'
import { seededRandom } from '../../units/random.ts'
import { actedOut, tried, withShipped, type ActedOut, type Slot } from '../at-panel/acted-out.ts'
import {
  landingsOf,
  partsOf,
  screenName,
  templateOf,
  type Landing,
  type Mark,
} from '../at-panel/display-read.ts'
import { fieldCells, fieldFrom } from '../at-panel/field-cells.ts'
import { toldAlike, type Alike } from '../at-panel/alike.ts'
import { rowed, rowOf } from '../at-panel/rows.ts'
import {
  couldDecide,
  passedOver,
  toldSeen,
  type Decides,
  type Effect,
  type SeenAfter,
} from '../at-panel/seen-move.ts'
import { targetAt } from '../at-panel/slots.ts'
import {
  pointersOver,
  sketchAnswers,
  sketchOf,
  toldOps,
  toldScreen,
  writtenPath,
  type Sketch,
  type SketchScreen,
  type Told,
} from '../at-panel/sketch.ts'
import { cellsAsked, cellsFrom, cellsOfBits, widgetFrom } from '../at-panel/widget-cells.ts'
import { beginDraft } from '../entry.ts'
import { formProblem } from '../form-problem.ts'
import { draftKernel, type DraftDocument, type DraftOp } from '../records.ts'

/*
 * Somebody who describes a panel while standing before it: presses a key on the panel and on the sketch, says what the panel now
 * shows, and answers what is asked: pointer or value, what is asked there, whether it goes on along a row, what decides. What only
 * the manual knows (whether a key keeps or drops, what a guard rests on) is looked up in the description that the panel acts by.
 */

const UNKNOWN = 'no display of that name was told'

/** Names of answers that a leaflet gives before one stands at the panel. */
const LEAFLET = ['display', 'alphabet', 'keys', 'letters.keys', 'letters.ends', 'keeping', 'idle.seconds']

export class InstallerAtPanel {
  readonly real: Compiled
  readonly manual: Sketch
  readonly model: PanelModel
  readonly catalogue: Catalogue
  doc: DraftDocument
  acted: ActedOut
  at: PanelState
  mine: PanelState
  /** How often something was asked and answered. */
  asked = 0
  /** Names of the sketch by those of the description. */
  private readonly names = new Map<string, string>()
  /** Which way of the manual each slot was first told by. */
  private readonly firsts = new Map<string, Move>()
  protected readonly random: () => number

  constructor(catalogue: Catalogue, model: PanelModel, seed: number) {
    const real = interfaceOf(catalogue, model)
    if (!real) throw new RangeError(`InstallerAtPanel: nobody has described ${model.id}`)
    this.real = real
    this.model = model
    this.catalogue = catalogue
    this.random = seededRandom(seed)
    const answers = new Map(sketchAnswers(real.description))
    this.manual = sketchOf(
      docOf([...answers].map(([path, value]) => ({ op: 'add', record: answerRecord(path, value ?? null) }))),
    )
    this.doc = docOf(beginDraft('interface', { like: null, corrects: false }, catalogue))
    this.answer([
      ...LEAFLET.flatMap((path): Told[] => (answers.has(path) ? [[path, answers.get(path)]] : [])),
      ...[
        ['maker', real.description.maker] as const,
        ['regions', [...real.description.regions] as string[]] as const,
      ],
      ...[['name', `${real.description.name} anew`] as const, ['panel', model.id] as const],
    ])
    this.at = switchedOn(real, real.factory)
    this.acted = this.ready()
    this.mine = { ...this.at, screen: '' }
    const start = this.tellScreen()
    this.answer([['start', start]])
    this.acted = this.ready()
    this.mine = switchedOn(this.acted.panel, this.acted.panel.factory)
  }

  get sketch(): Sketch {
    return this.acted.sketch
  }

  private ready(): ActedOut {
    const families = this.model.receivers
      .flatMap((id) => this.catalogue.get('receiver', id)?.hears ?? [])
      .flatMap(({ family }) => this.catalogue.get('family', family) ?? [])
    return actedOut(sketchOf(this.doc), this.model, families)
  }

  private answer(told: readonly Told[]): void {
    for (const one of told) {
      const ops = toldOps(this.doc, [one])
      for (const op of ops) if (op.op === 'add') expect(draftKernel.recordProblems(op.record)).toEqual([])
      const done = draftKernel.applyOps(this.doc, ops)
      if (!done.ok) throw new RangeError(`answer: ${one[0]}`)
      this.doc = done.doc
    }
  }

  private tell(told: readonly Told[]): void {
    const before = this.acted
    this.answer(told)
    this.acted = this.ready()
    if (this.mine) this.mine = withShipped(this.acted, before, this.mine)
  }

  /** Displays that the manual names and nobody has come to yet. */
  get unseen(): readonly string[] {
    return Object.keys(this.manual.screens).filter((screen) => !this.names.has(screen))
  }

  private name(screen: string): string {
    return this.names.get(screen) ?? UNKNOWN
  }

  /** The same keys act alike everywhere, where the manual says so. */
  protected sayAlike(alike: Alike): void {
    const common = this.manual.common[alike.key]
    if (common === undefined || JSON.stringify(this.renamed(common)) !== JSON.stringify(alike.target)) return
    this.asked += 1
    this.tell(toldAlike(this.sketch, alike, this.asEverywhere(alike.key)))
  }

  /** Displays that told the key before it was known to act alike, and of which the manual says nothing else. */
  private asEverywhere(key: string): readonly string[] {
    return [...this.names].flatMap(([original, mine]) =>
      this.manual.screens[original]?.keys[key] === undefined ? [mine] : [],
    )
  }

  private renamed(target: Parameters<typeof movesOf>[0]): unknown {
    const one = (go: string): string => this.names.get(go) ?? go
    if (typeof target === 'string') return one(target)
    const moves = movesOf(target).map((move) => ({
      ...move,
      ...(move.go === undefined ? {} : { go: one(move.go) }),
    }))
    return Array.isArray(target) ? moves : moves[0]
  }

  /** Does the same to the panel and the sketch; where they part, it is told what the panel shows. */
  both(input: Input): void {
    const before = this.at
    this.at = act(this.real, this.at, input)
    for (let questions = 0; questions < 24; questions++) {
      const said = tried(this.acted, this.mine, input)
      if (!said.isOpen && this.fits(said.state)) {
        this.mine = said.state
        return
      }
      this.asked += 1
      this.ask({ before, input, said })
    }
    throw new RangeError(
      `both: after 24 questions it is still not known what ${JSON.stringify(input)} does on ${before.screen}`,
    )
  }

  /** Whether the sketch now shows what the panel does, whatever is stored. */
  private fits({ screen, pointers, says, typed, beeped }: PanelState): boolean {
    return (
      beeped === this.at.beeped &&
      (typed ?? '') === (this.at.typed ?? '') &&
      screen === this.name(this.at.screen) &&
      says === this.at.says &&
      sameAll(pointers, this.at.pointers)
    )
  }

  private ask({
    before,
    input,
    said,
  }: {
    readonly before: PanelState
    readonly input: Input
    readonly said: ReturnType<typeof tried>
  }): void {
    if (!this.names.has(this.at.screen)) {
      this.tellScreen()
      return
    }
    if (!said.isOpen && (this.sayPassed(said.state, before) || this.sayNotBetween(said.state))) return
    const { slot } = said
    if (!slot) throw new RangeError(`ask: ${JSON.stringify(input)} on ${before.screen} is no move`)
    const manual = this.inManual(slot)
    const way = (manual === null ? [] : movesOf(manual)).find(
      ({ when }) => !when || guardHolds(this.real, before, when),
    )
    const to = this.landing()
    const seen: SeenAfter = {
      ...{ from: said.state.screen === this.mine.screen ? said.state : this.mine, to },
      ...{ effect: effectOf(way), beeped: this.at.beeped, along: this.along(way, before) },
    }
    const from = said.isOpen ? seen.from : this.mine
    const was = targetAt(this.sketch, slot)
    // What acts alike elsewhere may act otherwise here: that is no case of it.
    const [, key = ''] = slot.part.split(' ')
    const isAlike = slot.part.startsWith('key ') && !this.sketch.screens[from.screen]?.keys[key]
    const contradicts = was !== null && !isAlike && seen.along === 'no'
    // Where nothing decides, what was told first was the display behind one that was passed over.
    const isCase =
      contradicts && (way?.when ?? this.firsts.get(`${slot.path} ${slot.part}`)?.when) !== undefined
    const decides = isCase ? this.decides(slot, way, from) : null
    const told = toldSeen(this.sketch, slot, { seen: { ...seen, from }, decides })
    if ('problem' in told) throw new RangeError(`${slot.path} ${slot.part}: ${told.problem}`)
    const place = `${slot.path} ${slot.part}`
    if (way && !this.firsts.has(place)) this.firsts.set(place, way)
    this.tell(told)
  }

  /** What the panel shows, found among the displays that were told. */
  private landing(): Landing {
    const screen = this.name(this.at.screen)
    const says = this.at.says
    const lines = display(this.real, this.at)
    const found = landingsOf(this.sketch, lines).find((one) => one.screen === screen && one.says === says)
    if (found) return found
    // A message over the only line: whoever stands there knows what is behind it.
    if (this.real.description.display.lines > 1)
      throw new RangeError(`landing: ${screen} is not found in ${JSON.stringify(lines)}`)
    return { screen, pointers: this.at.pointers, says, typed: null }
  }

  private along(way: Move | undefined, before: PanelState): SeenAfter['along'] {
    if (way?.go !== '>' && way?.go !== '<') return 'no'
    const isOn = way.go === '>'
    const row = this.real.places.get(before.screen)
    if (!row) return 'no'
    const at = row.screens.indexOf(this.at.screen)
    const stays = sameNumbers(before.pointers, this.at.pointers)
    if (at >= 0 && stays && (isOn ? at > row.at : at < row.at)) return isOn ? 'next' : 'previous'
    // Before it stands in a row of the sketch, its end cannot be told.
    if (!rowOf(this.sketch, this.name(before.screen))) return 'no'
    return isOn ? 'end' : 'beginning'
  }

  /** What the manual says at a slot of the sketch. */
  private inManual({ path, part }: Slot): Parameters<typeof movesOf>[0] | null {
    const [group = '', ...rest] = path.split('.')
    if (group === 'idle') return this.manual.idle?.to ?? null
    const name = rest.join('.')
    if (group === 'walks') {
      const first = this.sketch.walks[name]?.screens[0]
      const original = [...this.names].find(([, mine]) => mine === first)?.[0] ?? ''
      return rowOf(this.manual, original)?.[1][part as 'after' | 'before'] ?? null
    }
    const original = [...this.names].find(([, mine]) => mine === name)?.[0] ?? ''
    return targetAt(this.manual, { path: `screens.${original}`, part })
  }

  /** A display that the sketch showed and the panel passed over: when, as the manual says. */
  private sayPassed(shown: PanelState, before: PanelState): boolean {
    const original = [...this.names].find(([, mine]) => mine === shown.screen)?.[0]
    const skip = original === undefined ? undefined : screenOf(this.real, original).skip
    const there = { ...before, pointers: { ...before.pointers, ...shown.pointers } }
    const guard = skip?.find((one) =>
      guardHolds(this.real, { ...there, draft: this.at.draft, kept: this.at.kept }, one),
    )
    const told = this.sketch.screens[shown.screen]?.skip ?? []
    if (!guard || told.some((one) => JSON.stringify(one) === JSON.stringify(guard))) return false
    this.offered({ ...shown }, { of: 'now', guard })
    this.tell(passedOver(this.sketch, shown.screen, guard))
    return true
  }

  /** A display that the sketch showed, and that does not stand between these two in the row. */
  private sayNotBetween(shown: PanelState): boolean {
    const original = [...this.names].find(([, mine]) => mine === shown.screen)?.[0] ?? ''
    const mine = rowOf(this.sketch, this.mine.screen)
    const row = rowOf(this.manual, original)?.[1].screens ?? []
    const from = [...this.names].find(([, name]) => name === this.mine.screen)?.[0] ?? ''
    const places = [from, original, this.at.screen].map((name) => row.indexOf(name))
    const [a = -1, x = -1, c = -1] = places
    if (!mine?.[1].screens.includes(shown.screen) || places.includes(-1)) return false
    const [low, high] = a < c ? [a, c] : [c, a]
    if (x === a || x === c || (x > low && x < high)) return false
    const pair = x < low ? [original, row[low] ?? ''] : [row[high] ?? '', original]
    const [first = '', second = ''] = pair.map((name) => this.name(name))
    const told = rowed(this.sketch, first, second)
    if ('problem' in told) throw new RangeError(`${first} ${second}: ${told.problem}`)
    if (mine[1].seen.some(([one, two]) => one === first && two === second)) return false
    this.tell(told)
    return true
  }

  private decides(slot: Slot, way: Move | undefined, from: PanelState): Decides {
    const first = this.firsts.get(`${slot.path} ${slot.part}`)
    const decides: Decides | null = way?.when
      ? { of: 'now', guard: way.when }
      : first?.when
        ? { of: 'before', guard: first.when }
        : null
    if (!decides)
      throw new RangeError(
        `decides: nothing in the manual decides ${slot.path} ${slot.part}: ${JSON.stringify([first, way])}`,
      )
    this.offered(from, decides)
    return decides
  }

  /** What the person answers must be among what is asked. */
  private offered(from: PanelState, { of, guard }: Decides): void {
    const shape = ({ pointer, ...rest }: Guard): string =>
      JSON.stringify([
        Object.entries(pointer ?? {}).map(([name, at]) => [name, Array.isArray(at) ? 'from to' : at]),
        rest,
      ])
    const offers = couldDecide(this.acted, from).map((one) => `${one.of} ${shape(one.guard)}`)
    expect(offers).toContain(`${of} ${shape(guard)}`)
  }

  /** Tells the display that the panel shows; its name. */
  private tellScreen(): string {
    const original = this.at.screen
    const told = screenOf(this.real, original)
    const calm = { ...this.at, says: '' }
    const lines = display(this.real, calm)
    const { widget } = told
    const cells = cellsFrom(widget as Parameters<typeof cellsFrom>[0])
    const addresses = [
      ...[widget].flatMap((one) => ('at' in one ? [one.at] : [])),
      ...('loopAt' in widget && widget.loopAt !== undefined ? [widget.loopAt] : []),
      ...cells.bits.map(({ at }) => String(at)),
      ...told.lines.flatMap((line) => [...line.matchAll(/\{@(.*?)@\}/g)].map((match) => match[1] ?? '')),
    ]
    const needed = [...(told.over ?? []), ...addresses.flatMap((address) => namesIn(address))]
    for (const name of needed)
      if (!this.sketch?.pointers[name]) this.sayPart(`pointers.${name}`, this.real.description.pointers[name])
    for (const address of addresses) {
      const field = this.real.description.fields[address]
      if (!field || this.sketch.fields[address]) continue
      const { cells: said, values } = fieldCells(field)
      this.sayPart(`fields.${address}`, fieldFrom(said, values))
    }
    if (widget.kind === 'jump')
      for (const name of Object.keys(widget.to).flatMap(namesIn))
        if (!this.sketch.pointers[name])
          this.sayPart(`pointers.${name}`, this.real.description.pointers[name])
    const form = cellsAsked(this.sketch, this.model, widget.kind)
    if (form.length > 0) expect(formProblem({ is: 'group', cells: form }, cells.cells as never)).toBe('')
    if (cells.bits.length > 0)
      expect(
        formProblem(
          { is: 'rows', most: 16, row: 'light', cells: cellsOfBits(this.sketch, this.model) },
          cells.bits as never,
        ),
      ).toBe('')
    const marks = this.marks(told.lines, calm)
    const name = screenName(this.sketch, templateOf(lines, marks))
    const screen: SketchScreen = {
      lines: templateOf(lines, marks),
      widget: widgetFrom(cells, null),
      ...{ keys: {}, skip: [], note: told.note ?? '' },
      holds: Object.fromEntries(
        Object.entries(told.holds ?? {}).map(([key, { seconds }]) => [key, { seconds, to: null }]),
      ),
    }
    this.names.set(original, name)
    this.tell([toldScreen(name, screen)])
    // What no two numbers may share can be said once all of it was told.
    const { unique } = this.real.description
    if (unique?.flat().every((address) => this.sketch.fields[address] !== undefined) && !this.sketch.unique)
      this.sayPart('unique', new Map(sketchAnswers(this.real.description)).get('unique'))
    expect([...pointersOver(this.sketch, screen)].sort()).toEqual([...(told.over ?? [])].sort())
    return name
  }

  private sayPart(path: string, value: unknown): void {
    this.asked += 1
    this.tell([[path, value as Told[1]]])
  }

  /** Which signs of the display are what: *pointer or value?*, answered by where each stands. */
  private marks(templates: readonly string[], state: PanelState): readonly Mark[] {
    const parts = partsOf(this.sketch, display(this.real, state), state.pointers)
    return templates.flatMap((template, line) => {
      let at = 0
      return template.split(/\{([^{}]*(?:\{[^{}]*\}[^{}]*)*)\}/g).flatMap((piece, index): Mark[] => {
        if (index % 2 === 0) {
          at += piece.length
          return []
        }
        const text = this.rendered(state, `{${piece}}`)
        const mark = { line, from: at, to: at + text.length, is: piece.startsWith('live:') ? 'live' : piece }
        at = mark.to
        this.asked += 1
        if (this.sketch.pointers[piece])
          expect(
            parts.some(
              (part) =>
                part.line === line &&
                part.from === mark.from &&
                part.to === mark.to &&
                part.pointers.includes(piece),
            ),
            `${text} of “${display(this.real, state)[line] ?? ''}” is offered as ${piece}`,
          ).toBe(true)
        return [mark]
      })
    })
  }

  private rendered(state: PanelState, token: string): string {
    const { description } = this.real
    const screen = screenOf(this.real, state.screen)
    const alone = { ...description, display: { ...description.display, lines: 1, columns: 200 } }
    return (
      display(
        {
          ...this.real,
          description: {
            ...alone,
            screens: { ...description.screens, [state.screen]: { ...screen, lines: [`${token}|`] } },
          },
        },
        { ...state, says: '' },
      )[0] ?? ''
    ).slice(0, -1)
  }
}

function sameAll(a: Readonly<Record<string, number>>, b: Readonly<Record<string, number>>): boolean {
  const names = Object.keys(a)
  return names.length === Object.keys(b).length && names.every((name) => a[name] === b[name])
}

function sameNumbers(a: Readonly<Record<string, number>>, b: Readonly<Record<string, number>>): boolean {
  return Object.entries(a).every(([name, number]) => b[name] === undefined || b[name] === number)
}

const namesIn = (text: string): string[] =>
  [...text.matchAll(/\{([a-zA-Z0-9-]+)\}/g)].map((match) => match[1] ?? '')

function effectOf(way: Move | undefined): Effect {
  const done = way?.do?.find((one) => ['keep', 'drop', 'factory', 'listen'].includes(one))
  return (done as Effect | undefined) ?? 'none'
}

const answerRecord = (path: string, value: Told[1]) =>
  ({
    id: `answer:${writtenPath(path)}`,
    type: 'answer',
    path: writtenPath(path),
    value: value ?? null,
    source: '',
  }) as const

function docOf(ops: readonly DraftOp[]): DraftDocument {
  const done = draftKernel.applyOps(draftKernel.empty, ops)
  if (!done.ok) throw new RangeError('docOf: the ops do not apply')
  return done.doc
}
