import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Memory } from '../memory/memory.ts'
import { demoPanel, PanelInHand } from '../testing/panels.ts'
import { runs } from '../testing/runs.ts'
import { screenOf, type Compiled } from './compiled.ts'
import { display } from './display.ts'
import { marked, restingId, rests } from './graph.ts'
import { keysText } from './keys.ts'
import { lostIn, type Lost, type Whereabouts } from './lost.ts'
import { act, acted } from './machine.ts'
import type { PanelState } from './state.ts'
import { press } from './typist.ts'

const panels = [
  { id: 'tarn-40', wayIn: '[tick] for 5 s (main-user code) [tick] (installer code) [tick]' },
  { id: 'quillet-32', wayIn: '(main-user code) [yes] (installer code) [yes]' },
  { id: 'pinfold-16', wayIn: '[work] (installer code) [set]' },
  { id: 'ostler-s-8', wayIn: '[menu] for 3 s (installer code) [ok]' },
  { id: 'sallow-m', wayIn: '[gear] (main-user code) [pick] (installer code) [pick]' },
  { id: 'morrow-60', wayIn: '(main-user code) [mode] [mode] (installer code) [send]' },
] as const

/** A panel somebody is lost in: what it holds in truth, where it was entered, and the finder that knows part of it. */
interface Walk {
  readonly panel: Compiled
  readonly home: string
  readonly truth: PanelState
  readonly lost: Lost
}

const made = new Map<string, { panel: Compiled; inside: PanelState; all: Lost; none: Lost }>()
function ready(id: string, wayIn: string): { panel: Compiled; inside: PanelState; all: Lost; none: Lost } {
  const there = made.get(id)
  if (there) return there
  const panel = demoPanel(id)
  const hand = new PanelInHand(panel)
  hand.keys(wayIn)
  const one = {
    ...{ panel, inside: marked(panel, hand.state) },
    all: lostIn(panel, panel.factory, () => true),
    none: lostIn(panel, panel.factory, () => false),
  }
  made.set(id, one)
  return one
}

/** Values that differ from how the panel came: they are what nobody knows. */
function strangeMemory({ panel }: { panel: Compiled }, picks: readonly number[]): Memory {
  const memory = new Map(panel.factory)
  const addresses = [...panel.addresses]
  for (const pick of picks) {
    const [address, { template }] = addresses[pick % addresses.length] ?? ['', { template: '' }]
    const values = panel.values(template, () => '')
    const list = values?.list ?? []
    const value = list.length > 0 ? list[pick % list.length]?.value : undefined
    if (value !== undefined) memory.set(address, value)
  }
  return memory
}

/** Keys pressed at random, digits and the keys that lead about more often than those that write. */
const walks = fc.record({
  which: fc.constantFrom(...panels),
  unknown: fc.boolean(),
  picks: fc.array(fc.nat(5000), { maxLength: 40 }),
  keys: fc.array(fc.nat(1000), { minLength: 1, maxLength: 14 }),
})

function walked({
  which,
  unknown,
  picks,
  keys,
}: typeof walks extends fc.Arbitrary<infer W> ? W : never): Walk {
  const { panel, inside, all, none } = ready(which.id, which.wayIn)
  const kept = unknown ? strangeMemory({ panel }, picks) : panel.factory
  let truth: PanelState = { ...inside, kept }
  for (const pick of keys) {
    const key = [...panel.keys][pick % panel.keys.size] ?? ''
    const next = act(panel, truth, press(key))
    // Lost, not at work: what was written would be known to nobody. A wiped or a saving panel is another story.
    if (next.kept === truth.kept && next.draft === truth.draft) truth = next
  }
  return { panel, home: restingId(inside), truth, lost: unknown ? none : all }
}

/** Whether the keys that lead home from there lead home in truth. */
function leadsHome({ panel, home, truth, lost }: Walk, at: Whereabouts): boolean | null {
  const back = lost.back(at, home)
  if (!back) return null
  const after = acted(panel, truth, back.inputs)
  // A panel that saves or restarts can only be waited for.
  const busy = screenOf(panel, truth.screen).widget.kind === 'busy'
  return restingId(after) === home && rests(panel, after) && (busy || after.draft === truth.draft)
}

const isThere = (walk: Walk, at: Whereabouts | undefined): boolean =>
  at !== undefined && (at.place === restingId(walk.truth) || leadsHome(walk, at) === true)

describe('somebody lost in a panel', () => {
  it('finds where they are, is told apart by one harmless key, and is led home by keys that write nothing', () => {
    const counts = { resting: { first: 0, same: 0, of: 0 }, half: { first: 0, same: 0, of: 0 }, without: 0 }
    fc.assert(
      fc.property(walks, fc.nat(400), (keyed, misread) => {
        const walk = walked(keyed)
        const { panel, lost, home } = walk
        const shown = display(panel, walk.truth)
        if (shown.join('').trim() === '') return
        const text = shown.join('')
        // Now and then one sign is read otherwise.
        const wrong = misread < 100 && text.trim().length > 6
        const read = wrong ? misreadAt(shown, misread) : shown
        const found = lost.find(read, home)
        const mine = found.find((at) => isThere(walk, at) && at.place === restingId(walk.truth))
        expect([
          restingId(walk.truth),
          read,
          mine !== undefined || found.some((at) => isThere(walk, at)),
        ]).toEqual([restingId(walk.truth), read, true])
        if (mine) {
          const led = leadsHome(walk, mine)
          if (led === null) counts.without += 1
          else expect([restingId(walk.truth), read, led]).toEqual([restingId(walk.truth), read, true])
        }
        const tell = lost.tell(found)
        const count = rests(panel, walk.truth) ? counts.resting : counts.half
        count.of += 1
        if (!tell) {
          count.first += isThere(walk, found[0]) ? 1 : 0
          count.same += found[0]?.place === restingId(walk.truth) ? 1 : 0
          return
        }
        const then = act(panel, walk.truth, press(tell.key))
        expect(then.kept).toBe(walk.truth.kept)
        expect(then.draft).toBe(walk.truth.draft)
        const left = lost.then(found, tell.key, display(panel, then))
        count.first += isThere({ ...walk, truth: then }, left[0]) ? 1 : 0
        count.same += left[0]?.place === restingId(then) ? 1 : 0
      }),
      { numRuns: runs(2000), seed: 140 },
    )
    console.log('lost', JSON.stringify(counts))
    for (const { first, of } of [counts.resting, counts.half]) expect(first).toBeGreaterThanOrEqual(of * 0.95)
  })
})

/** The lines with one sign read as another that looks like it. */
function misreadAt(lines: readonly string[], pick: number): string[] {
  const at = pick % lines.join('').length
  let before = 0
  return lines.map((line) => {
    const here = at - before
    before += line.length
    if (here < 0 || here >= line.length || line[here] === ' ') return line
    return `${line.slice(0, here)}${line[here] === '8' ? 'B' : '8'}${line.slice(here + 1)}`
  })
}

describe('places, keys back and what is lost, by hand', () => {
  const at = (id: string, wayIn: string) => ready(id, wayIn)
  const tarn = () => at('tarn-40', panels[0].wayIn)
  const morrow = () => at('morrow-60', panels[5].wayIn)
  const backFrom = (lost: Lost, read: readonly string[], from: string) => {
    const [first] = lost.find(read, from)
    const back = first && lost.back(first, from)
    return { place: first?.place, apart: first?.apart, keys: back ? keysText(back.inputs) : null }
  }

  it('something half typed: one key leaves it', () => {
    // Back goes to the question before, whatever stands typed.
    expect(backFrom(tarn().all, ['16 leaving, s', '45_'], '15')).toEqual({
      place: '16',
      apart: 0,
      keys: '[back]',
    })
    // Quit takes away what is typed, or leaves where nothing is: send then ends at the items either way.
    expect(backFrom(morrow().all, ['Z09 ACTS', '= 3+'], 'part zone9')).toEqual({
      ...{ place: 'acts zone9', apart: 0, keys: '[quit] [send] 3 [send]' },
    })
  })

  it('a message, and signs misread', () => {
    expect(backFrom(tarn().all, ['50 lines', 'no such line'], 'what zone7')).toEqual({
      ...{ place: '50', apart: 0, keys: '07 [tick]' },
    })
    expect(backFrom(tarn().none, ['O7 d0es', ''], 'does zone7')).toMatchObject({
      place: 'does zone7',
      keys: '',
    })
    expect(backFrom(morrow().all, ['Z0g PART', '= l'], 'acts zone9')).toMatchObject({
      ...{ place: 'part zone9', keys: '[quit] 1 [send]' },
    })
  })

  it('nothing read finds nothing, and what no panel shows finds nothing', () => {
    expect(tarn().all.find(['', ' '], '14')).toEqual([])
    expect(tarn().all.find(['zzzzzzzzzzzzzzzz', 'qqqqqqqqqqqq'], '14')).toEqual([])
  })

  it('of one line of two the nearest place comes first, and one key tells the rest apart', () => {
    const { all, panel } = tarn()
    // Every flag of every line shows yes or no below its question; line 7 was being keyed.
    const found = all.find(['', 'yes'], 'gong zone7')
    expect(found.length).toBeGreaterThan(20)
    const tell = all.tell(found)
    expect(tell?.groups).toBeGreaterThan(5)
    expect(panel.keys).toContain(tell?.key)
    expect(all.tell(found.slice(0, 1))).toBeNull()
  })

  it('says whether what was not kept can still be there', () => {
    const { all, none } = tarn()
    const [question] = all.find(['21 bell minutes', '10'], '14')
    const [door] = none.find(['ready', '12:30'], '14')
    expect(question && all.keepsDraft(question, '14')).toBe(true)
    expect(door?.place).toBe('ready')
    // Nothing leads to the door but keeping all or losing all.
    expect(door && none.keepsDraft(door, '14')).toBe(false)
    // Nor back to it without: saving is not harmless, unless it saves already.
    const [saving] = all.find(['saving, then', 'restarting'], '14')
    expect(question && all.back(question, 'ready')).toBeNull()
    expect(saving && all.back(saving, 'ready')?.inputs).toEqual([{ kind: 'wait', seconds: 40 }])
    expect(door && none.back(door, '14')?.inputs.map(({ kind }) => kind)).toEqual([
      ...['hold', 'code', 'press', 'code', 'press'],
    ])
  })

  it('where a walk can only be answered, no keys lead back unless what it holds is known', () => {
    const quillet = at('quillet-32', panels[1].wayIn)
    const read = ['gong?', '019 no']
    const here = quillet.all.find(read, 'type zone1')[0] ?? expect.fail('not found')
    expect(here.place).toBe('gong zone19')
    expect(quillet.all.back(here, 'type zone1')).not.toBeNull()
    expect(quillet.none.back(here, 'type zone1')).toBeNull()
  })
})
