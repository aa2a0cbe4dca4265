import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { PanelInterface } from '../catalogue/schema.ts'
import { interfaceProblems } from '../catalogue/interface-check.ts'
import { jobInfo } from '../job/document.ts'
import type { Memory } from '../memory/memory.ts'
import { differences, targetMemory, type TargetMemory } from '../memory/target.ts'
import { carelessJobs } from '../testing/careless-jobs.ts'
import { demoPanel } from '../testing/panels.ts'
import { runs } from '../testing/runs.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { compiled, interfaceOf, type Compiled } from './compiled.ts'
import { display } from './display.ts'
import { keysText } from './keys.ts'
import { act, acted, switchedOn } from './machine.ts'
import { routeTo, type Route } from './route.ts'
import { held, type Input, type PanelState } from './state.ts'

const target = (job: SmallJob): TargetMemory => targetMemory(job.doc, catalogue) ?? expect.fail('no panel')
const wanting = (wanted: Record<string, string>): TargetMemory => ({
  wanted: new Map(Object.entries(wanted)),
  open: new Set(),
  left: new Set(),
  hidden: new Set(),
  refused: [],
})
const found = (route: Route): Extract<Route, { ok: true }> =>
  route.ok ? route : expect.fail(JSON.stringify(route.reasons))

/** Each step as keys to the question, keys of the answer, and the display after them. */
const asKeyed = (panel: Compiled, route: Route): string[][] =>
  found(route).steps.map(({ way, answer, after }) => [
    keysText(way),
    keysText(answer),
    display(panel, after).join(' | ').trim(),
  ])

describe('one zone and one delay, written by hand first', () => {
  it('on the Tarn 40', () => {
    const panel = demoPanel('tarn-40')
    const job = new SmallJob({ entry2: 45 }).add('porch', 'reedling', { sticker: '20417733' }).number()
    job.set(job.zone('porch').id, {
      ...{ response: 'entry-1', number: 1, label: 'Front door', loop: 3 },
      ...{ chime: true, report: true, supervise: true, transmissionDelay: false },
    })
    const route = routeTo({ panel, target: target(job), start: panel.factory, order: 'shortest' })
    // Shipped: 30, 60 and 60 s, so the second entry delay alone is keyed; sending and watching are on as shipped.
    expect(asKeyed(panel, route)).toEqual([
      [
        '[tick] for 5 s (main-user code) [tick] (installer code) [tick] [next]',
        '45 [tick]',
        '16 leaving, s | 60',
      ],
      ['[go] 50 [tick] 01 [tick]', '318 [tick]', '01 does |'],
      ['', '21 [tick]', '01 id |'],
      ['', '20417733 [tick]', '01 input |'],
      ['', '3 [tick]', '01 send? | yes'],
      ['[next] [next]', '[tick]', '01 watch it? | yes'],
      ['[next]', '187 [gap] 070 [tick]', '01 Way in, first del | 20417733 3'],
      ['[home] [tick] wait 40 s', '', 'ready | ·····'],
    ])
    // 5 to come in, 4, 7 to the line, 4 + 3 + 9 + 2, 3, 9, 2 to leave.
    expect(found(route).keys).toBe(48)
    expect(found(route).differences).toBe(0)
  })

  it('on the Quillet 32, where passing a question answers it', () => {
    const panel = demoPanel('quillet-32')
    const job = new SmallJob({ panel: 'panel/quillet-32', radioFirmware: null, entry2: 20 })
    job.add('porch', 'sill-8', { sticker: 'H204177' }).number()
    job.set(job.zone('porch').id, {
      ...{ response: 'entry-1', number: 1, label: 'Porch', chime: true, chimeStyle: null },
      ...{ report: true, supervise: true, transmissionDelay: false, doubleKnock: false },
      ...{ reedOn: null, terminalsOn: null, endOfLineOn: null },
    })
    const route = routeTo({ panel, target: target(job), start: panel.factory, order: 'shortest' })
    expect(asKeyed(panel, route)).toEqual([
      ['(main-user code) [yes] (installer code) [yes] [yes] [no] [yes]', '20 [yes]', 'T3 exit? | 60'],
      // Both beeps are on and stay so: each is answered yes on the way.
      ['[no] [no] [no] [no] [no] [no] [no] [yes] [yes] [no] [yes] [yes] [yes]', '[yes]', 'ID? | 001'],
      ['[yes]', '[abc] 44 [abc] 204177 [yes]', 'reed works? | 001 yes'],
      // The reed stays on, its terminals and its resistor stay off, and no passes the sets as they are.
      ['[yes] [no] [no] [no] [yes]', '[no] [yes]', 'dial? | 001 yes'],
      // It dials, does not wait, is watched, takes one trip.
      ['[yes] [no] [yes] [no] [yes]', '77777766677722244 [yes]', 'Device 002? | #'],
      ['[next] [no] [no] [no] [no] [yes] wait 5 s', '', 'all quiet |'],
    ])
    expect(found(route).differences).toBe(0)
  })
})

describe('what stands in the way of the shortest', () => {
  const panel = demoPanel('tarn-40')
  const zone = (
    number: number,
    serial: string,
    over: Record<string, string> = {},
  ): Record<string, string> => ({
    [`zone.${number}.equipmentCode`]: '318',
    [`zone.${number}.response`]: '34',
    [`zone.${number}.serial`]: serial,
    [`zone.${number}.loop`]: '3',
    ...over,
  })
  const start = (more: Record<string, string>): Memory => new Map([...panel.factory, ...Object.entries(more)])
  const route = (wanted: Record<string, string>, from: Memory = panel.factory) =>
    routeTo({ panel, target: wanting(wanted), start: from, order: 'shortest' })

  it('nothing is keyed where nothing differs', () => {
    expect(route({ 'system.exit': '60' })).toMatchObject({
      ok: true,
      steps: [],
      keys: 0,
      seconds: 0,
      differences: 0,
    })
  })

  it('two lines that swap their devices: one is emptied first', () => {
    const is = start({ ...zone(1, '20417733'), ...zone(2, '20417801') })
    const swapped = found(route({ ...zone(1, '20417801'), ...zone(2, '20417733') }, is))
    expect(swapped.steps.map(({ kind }) => kind)).toContain('empty')
    expect(swapped.differences).toBe(0)
    expect([swapped.memory.get('zone.1.serial'), swapped.memory.get('zone.2.serial')]).toEqual([
      '20417801',
      '20417733',
    ])
    // Three in a ring, and the last one is new.
    const ring = start({ ...zone(1, '20417733'), ...zone(2, '20417801'), ...zone(3, '20417802') })
    const turned = found(
      route({ ...zone(1, '20417801'), ...zone(2, '20417802'), ...zone(3, '20417733') }, ring),
    )
    expect(turned.differences).toBe(0)
  })

  it('a line that keeps what another is to have is told, and so are two lines that are to have the same', () => {
    const is = start(zone(7, '20417733'))
    expect(route(zone(1, '20417733'), is)).toEqual({
      ok: false,
      reasons: [
        { address: 'zone.7.serial', reason: 'Tarn 40 holds 20417733, input 3 once: number 1 has it.' },
      ],
    })
    expect(route({ ...zone(1, '20417733'), ...zone(2, '20417733') })).toMatchObject({
      ok: false,
      reasons: [{ address: 'zone.2.serial' }],
    })
    // Another input of the same device is another line.
    expect(
      found(route({ ...zone(1, '20417733'), ...zone(2, '20417733', { 'zone.2.loop': '4' }) })).differences,
    ).toBe(0)
  })

  it('the type comes before what it hid', () => {
    // Shipped on as fire, which is not asked for its gong; planned as a door that has one.
    const is = start({ 'zone.1.response': '62' })
    const keyed = found(route({ 'zone.1.response': '21', 'zone.1.chime': 'on', 'zone.2.chime': 'on' }, is))
    const order = keyed.steps.flatMap(({ sets }) => sets.map(({ address }) => address))
    expect(order.indexOf('zone.1.response')).toBeLessThan(order.indexOf('zone.1.chime'))
    expect(keyed.differences).toBe(0)
  })

  it('a value that the panel cannot store is told with what it takes', () => {
    const told = route({
      'system.exit': '47',
      'system.swinger': '12',
      'zone.1.serial': 'H204177',
      'zone.1.response': '20',
      'zone.1.label': '187 999',
      'zone.1.loop': '9',
      'zone.50.chime': 'on',
    })
    expect(told.ok ? [] : told.reasons.map(({ address, reason }) => `${address}: ${reason}`)).toEqual([
      'system.exit: Tarn 40 takes 5 to 240 in steps of 5 there, not “47”.',
      'system.swinger: Tarn 40 takes 0 to 9 there, not “12”.',
      'zone.1.serial: Tarn 40 takes an ID of Wren or Wren C there, not “H204177”.',
      expect.stringMatching(/^zone\.1\.response: Tarn 40 takes Way in, first delay, .*, not “20”\.$/),
      'zone.1.label: Tarn 40 takes up to 4 words of its list there, not “187 999”.',
      'zone.1.loop: Tarn 40 takes 1 to 8 there, not “9”.',
      'zone.50.chime: Tarn 40 has no place for it.',
    ])
  })

  it('an ID that nobody knows yet is learned: it listens, and the device is made to transmit', () => {
    const job = new SmallJob({ entry2: 60 }).add('porch', 'reedling').number()
    job.set(job.zone('porch').id, { number: 1, label: 'Front door', loop: 3 })
    const keyed = found(routeTo({ panel, target: target(job), start: panel.factory, order: 'shortest' }))
    const learn = keyed.steps.find(({ kind }) => kind === 'learn')
    expect(learn?.sets.map(({ address }) => address)).toEqual(['zone.1.serial'])
    expect(learn?.answer.map(({ kind }) => kind)).toEqual(['press', 'hear'])
    // Its input comes with it: it is not keyed again.
    expect(keyed.steps.flatMap(({ sets }) => sets.map(({ address }) => address))).not.toContain('zone.1.loop')
    expect(keyed.differences).toBe(0)
  })

  it('the unit comes before the number that is typed in it', () => {
    const pinfold = demoPanel('pinfold-16')
    const wanted = wanting({ 'system.exit': '4', 'system.entry1': '45', 'system.exitUnit': 'on' })
    for (const order of ['shortest', 'plan'] as const) {
      const keyed = found(routeTo({ panel: pinfold, target: wanted, start: pinfold.factory, order }))
      const set = keyed.steps.flatMap(({ sets }) => sets.map(({ address }) => address))
      expect(set.indexOf('system.exitUnit')).toBeLessThan(set.indexOf('system.exit'))
      expect(keyed.differences).toBe(0)
    }
    // 4 s are below what it counts without the bit, and 60 steps of 15 s are within what it counts with it.
    expect(
      routeTo({
        panel: pinfold,
        target: wanting({ 'system.exit': '4' }),
        start: pinfold.factory,
        order: 'plan',
      }),
    ).toEqual({
      ok: false,
      reasons: [{ address: 'system.exit', reason: 'Pinfold 16 takes 5 to 90 there, not “4”.' }],
    })
  })

  it('a line that is left as programmed is neither keyed nor learned', () => {
    const job = new SmallJob({ entry2: 60 }).add('porch', 'reedling').number()
    job.set(job.zone('porch').id, { number: 1, label: 'Front door', asProgrammed: true })
    expect(routeTo({ panel, target: target(job), start: panel.factory, order: 'shortest' })).toMatchObject({
      ok: true,
      steps: [],
    })
  })

  it('a plan that cannot be held has no route, and keeps its reasons', () => {
    const refused = [{ address: 'zone.5', reason: 'Number 5 is given twice.' }]
    expect(
      routeTo({ panel, target: { ...wanting({}), refused }, start: panel.factory, order: 'shortest' }),
    ).toEqual({
      ok: false,
      reasons: refused,
    })
  })
})

describe('careless jobs on every described panel', () => {
  it('are keyed without a difference, or are told true reasons', () => {
    const panels = new Map<string, number>()
    fc.assert(
      fc.property(
        carelessJobs,
        fc.constantFrom('shortest' as const, 'plan' as const),
        fc.boolean(),
        (job, order, heard) => {
          const model = catalogue.get('panel', jobInfo(job.doc).panel)
          const panel = model && interfaceOf(catalogue, model)
          if (!panel) return
          const plan = target(job)
          if (plan.refused.length > 0)
            expect(routeTo({ panel, target: plan, start: panel.factory, order })).toMatchObject({ ok: false })
          // What the plan itself cannot want left out, the rest must be keyed.
          const wanted = { ...plan, refused: [] }
          // Every ID typed, or every ID learned where the panel listens.
          const route = routeTo({ panel, target: wanted, start: panel.factory, order, isHeard: () => heard })
          if (!route.ok) {
            for (const one of route.reasons)
              expect([one, isTrue(panel, wanted, one.address)]).toEqual([one, true])
            return
          }
          panels.set(panel.panel.id, (panels.get(panel.panel.id) ?? 0) + 1)
          expect(route.differences).toBe(0)
          // Pressed again by the machine alone, from the first key to the last.
          const inputs = route.steps.flatMap(({ way, answer }) => [...way, ...answer])
          const after = acted(panel, switchedOn(panel, panel.factory), inputs)
          expect(differences(wanted, after.kept)).toEqual([])
          expect(after.draft.size).toBe(0)
          // And nothing else is written: what differs from how it came was wanted, or was learned.
          for (const [address, value] of after.kept)
            if (panel.factory.get(address) !== value)
              expect([address, wanted.wanted.has(address) || wanted.open.has(address)]).toEqual([
                address,
                true,
              ])
        },
      ),
      { numRuns: runs(2100), seed: 14 },
    )
    expect(panels.size).toBe(catalogue.all('panel').filter((panel) => panel.interface).length)
  })
})

/** Whether there is cause to refuse an address: its value is out of range, or another number has the same. */
function isTrue({ panel }: Compiled, { wanted }: TargetMemory, address: string): boolean {
  const value = wanted.get(address) ?? ''
  const outside = (from: number, to: number): boolean => Number(value) < from || Number(value) > to
  if (address === 'system.swinger') return outside(panel.swinger?.from ?? 0, panel.swinger?.to ?? 0)
  if (address === 'system.supervise')
    return outside(panel.id.startsWith('panel/ostler') ? 10 : panel.id === 'panel/sallow-m' ? 30 : 20, 1440)
  const [, number = 0] = (/^(?:zone|wired)\.(\d+)\./.exec(address) ?? []).map(Number)
  // A line has no ID, and neither has a panic key of a keypad; a transmitter's number has no wiring.
  const noRadio = panel.id === 'panel/morrow-60' && (number <= 6 || (number >= 55 && number <= 59))
  if (noRadio && /\.(serial|loop)$/.test(address)) return true
  if (address.startsWith('wired.') && panel.id === 'panel/morrow-60') return number > 12
  if (address.endsWith('.serial')) {
    const loop = wanted.get(address.replace('serial', 'loop'))
    const twin = [...wanted].some(
      ([other, held]) =>
        other !== address &&
        other.endsWith('.serial') &&
        held === value &&
        wanted.get(other.replace('serial', 'loop')) === loop,
    )
    // Digits of a Dunlin's ID weigh 3 and 1 in turn, and sum to tens.
    const sum = [...value].reduce((total, sign, at) => total + Number(sign) * (at % 2 === 0 ? 3 : 1), 0)
    const untrue = panel.id === 'panel/morrow-60' && sum % 10 !== 0
    return twin || untrue || !(ids[panel.id] ?? /^$/).test(value)
  }
  return false
}

/** IDs that each panel's receivers can hear, by the stickers of their families. */
const ids: Readonly<Record<string, RegExp>> = {
  'panel/tarn-40': /^[0-9A-Z]{8}$/,
  'panel/quillet-32': /^[A-Z]\d{6}$/,
  'panel/pinfold-16': /^[0-9A-F]{6}$/,
  'panel/ostler-s-8': /^[A-Z]\d{6}$/,
  'panel/ostler-s-9': /^[A-Z]\d{6}$/,
  'panel/morrow-60': /^\d{8}$/,
  // Plover through the bridge, or Shearwater.
  'panel/sallow-m': /^([0-9A-F]{6}|[0-9A-F]{10})$/,
}

/* Small interfaces made by chance: the shortest keys found by trying every key. */

interface SmallPanel {
  readonly panel: Compiled
  readonly wanted: TargetMemory
}

const widgets = fc.oneof(
  fc.constant({ kind: 'menu' }),
  fc.record({ kind: fc.constant('yesno'), yes: fc.constant('a'), no: fc.constant('b') }),
  fc.record({
    kind: fc.constant('choice'),
    opens: fc.constantFrom('first', 'value'),
    take: fc.constant('a'),
    next: fc.constant('b'),
    end: fc.constantFrom('wrap', 'stop'),
  }),
  fc.record({
    kind: fc.constant('number'),
    digits: fc.constant([1, 1]),
    opens: fc.constantFrom('value', 'empty'),
    send: fc.constantFrom('a', undefined),
    bad: fc.constant('no'),
  }),
)

const smallPanels: fc.Arbitrary<SmallPanel | null> = fc
  .record({
    asked: fc.array(fc.tuple(widgets, fc.constantFrom('>', '.', 'end', 'go'), fc.boolean(), fc.boolean()), {
      minLength: 2,
      maxLength: 5,
    }),
    values: fc.array(fc.constantFrom('1', '2', '3'), { minLength: 5, maxLength: 5 }),
    came: fc.array(fc.constantFrom('1', '2', '3'), { minLength: 5, maxLength: 5 }),
    ring: fc.boolean(),
    keeping: fc.constantFrom('at-once', 'session'),
  })
  .map(({ asked, values, came, ring, keeping }) => {
    const names = asked.map((_, index) => `s${index}`)
    const isBit = (index: number): boolean => asked[index]?.[0].kind === 'yesno'
    const value = (list: readonly string[], index: number): string =>
      isBit(index) ? (list[index] === '1' ? 'on' : 'off') : (list[index] ?? '1')
    const fields = asked.flatMap(([widget], index) =>
      widget.kind === 'menu'
        ? []
        : [
            [
              `x.${index}`,
              {
                form: isBit(index)
                  ? { kind: 'bit', on: 'yes', off: 'no' }
                  : {
                      kind: 'list',
                      values: ['1', '2', '3'].map((one) => ({ value: one, keyed: one, shows: one })),
                    },
                factory: value(came, index),
              },
            ] as const,
          ],
    )
    const screens = asked.map(([widget, then, onward, back], index) => [
      `s${index}`,
      {
        lines: [`s${index}`],
        widget: JSON.parse(
          JSON.stringify(widget.kind === 'menu' ? widget : { ...widget, at: `x.${index}`, then }),
        ) as object,
        keys: { ...(onward || widget.kind === 'menu' ? { c: '>' } : {}), ...(back ? { d: '<' } : {}) },
      },
    ])
    const keep = { do: ['keep'], go: 'home' }
    const description = {
      kind: 'interface',
      id: 'interface/small',
      version: '1',
      maker: 'x',
      name: 'small',
      regions: ['europe'],
      display: {
        lines: 1,
        columns: 20,
        alphabet: 'abcdefghijklmnopqrstuvwxyz0123456789_',
        cursor: '_',
        messages: 1,
      },
      keys: [['1', '2', '3', 'a', 'b', 'c', 'd', 'e']],
      pointers: {},
      fields: Object.fromEntries(fields),
      walks: { all: { screens: [...names, 'end'], after: ring ? 's0' : 'end', before: ring ? 'end' : '.' } },
      screens: {
        home: { alone: true, lines: ['home'], widget: { kind: 'menu' }, keys: { a: 's0' } },
        ...Object.fromEntries(screens),
        end: { lines: ['end'], widget: { kind: 'menu' }, keys: { a: keep, b: '>', d: '<' } },
        go: {
          lines: ['go'],
          widget: {
            kind: 'jump',
            digits: 1,
            to: { '1': 's0', '2': names.at(-1) ?? 's0', '3': 'end' },
            none: 'no',
          },
        },
      },
      common: { e: 'go' },
      keeping,
      start: 'home',
    } as unknown as PanelInterface
    if (interfaceProblems(description).length > 0) return null
    const tarn = catalogue.get('panel', 'panel/tarn-40') ?? expect.fail()
    const wanted = fields.map(([address]) => [address, value(values, Number(address.slice(2)))] as const)
    return { panel: compiled(description, tarn, []), wanted: wanting(Object.fromEntries(wanted)) }
  })

/** The fewest keys that leave what is wanted, found by trying every key; null where none do. Writes as the route may. */
function fewestKeys({ panel, wanted: { wanted } }: SmallPanel): number | null {
  const start = switchedOn(panel, panel.factory)
  const idOf = (state: PanelState): string =>
    [
      state.screen,
      state.typed,
      state.row,
      state.says,
      [...wanted.keys()].map(held(state)).join(' '),
      [...wanted.keys()].map((at) => state.kept.get(at)).join(' '),
    ].join('|')
  const done = (state: PanelState): boolean =>
    state.screen === 'home' &&
    state.draft.size === 0 &&
    [...wanted].every(([at, value]) => state.kept.get(at) === value)
  if (done(start)) return 0
  const seen = new Set([idOf(start)])
  let edge = [start]
  for (let keys = 1; edge.length > 0; keys++) {
    const next: PanelState[] = []
    for (const state of edge)
      for (const key of panel.keys) {
        const input: Input = { kind: 'press', key }
        const after = act(panel, state, input)
        const wrote = [...wanted].some(
          ([at, value]) => held(after)(at) !== held(state)(at) && held(after)(at) !== value,
        )
        const kept = after.draft.size < state.draft.size
        if (wrote || (kept && ![...wanted].every(([at, value]) => after.kept.get(at) === value))) continue
        if (seen.has(idOf(after))) continue
        seen.add(idOf(after))
        if (done(after)) return keys
        next.push(after)
      }
    edge = next
  }
  return null
}

describe('small interfaces made by chance', () => {
  it('are keyed with as few keys as trying every key finds', () => {
    let keyed = 0
    fc.assert(
      fc.property(smallPanels, (small) => {
        if (!small) return
        const fewest = fewestKeys(small)
        const route = routeTo({
          panel: small.panel,
          target: small.wanted,
          start: small.panel.factory,
          order: 'shortest',
        })
        expect(route.ok ? route.keys : null).toBe(fewest)
        if (route.ok) keyed += 1
      }),
      { numRuns: runs(600), seed: 8 },
    )
    expect(keyed).toBeGreaterThan(runs(600) / 4)
  })
})
