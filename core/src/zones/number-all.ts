import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, LoopEvent, PanelModel } from '../catalogue/schema.ts'
import { fitAll, type Fit } from '../fit/fit.ts'
import { systemOf, type System } from '../system/system.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import { applyOps, type Op } from '../job/edit.ts'
import { rulesInForce } from '../job/rules-in-force.ts'
import type { HouseRules } from '../house-rules/house-rules.ts'
import { houseOf } from '../premises/house.ts'
import { placesOf } from '../premises/places.ts'
import type { Device, Use, Zone } from '../job/records.ts'
import { isWayIn } from '../response/advise.ts'
import { sameJson } from '../units/canonical.ts'
import { labelKey } from './labels.ts'
import { isLeftUnprogrammed } from './left-unprogrammed.ts'
import { eventsToZone } from '../catalogue/zone-loops.ts'
import { newZone } from './new-zone.ts'
import { keptForWired, liveTerminals, numbersFor, numbersOf, presentBlocks, rangeWords } from './numbers.ts'
import { planNumbers, type PlanCost, type PlanInput } from './plan.ts'
import { holdsNumber } from '../job/enrolment.ts'

/** One number that a plan changes, and why. */
interface NumberMove {
  readonly zone: string
  readonly from: number
  readonly to: number
  readonly why: string
}

/** What a press of "number everything" decided. */
export interface NumberingPlan {
  readonly ops: readonly Op[]
  /** Devices that got no number, each with the constraint that fails. */
  readonly left: readonly { readonly device: string; readonly reason: string }[]
  readonly added: number
  readonly moved: number
  readonly moves: readonly NumberMove[]
  /** What the plan costs, in order of weight. */
  readonly cost: PlanCost
  /** False when the search was cut short, so that a better plan may exist. */
  readonly proven: boolean
  /** Devices that get no number because they do not fit, or because their place is not known yet. */
  readonly without: { readonly unfit: number; readonly deferred: number }
}

interface Wanted {
  readonly device: Device
  readonly model: DeviceModel
  readonly loops: readonly LoopEvent[]
  readonly use: 'wireless' | 'wired' | 'fob'
}

/** What numbering is given besides the job. */
export interface NumberingOptions {
  /** Gives ids for new zones. */
  readonly newId: () => string
  /** The firm's house rules. */
  readonly houseRules: HouseRules
  /** Whether what is neither pinned nor enrolled is numbered afresh, as if it had no number yet. */
  readonly fresh?: boolean
}

const noCost: PlanCost = { left: 0, moved: 0, split: 0, disorder: 0, room: 0 }

/**
 * Numbers the whole job: a zone per device event with all its fields, and slots for fobs, keypads and sirens. Pinned and
 * enrolled numbers stay; then as few as possible move, devices of several events stay together, the reading order is kept
 * (entry doors, openings, interior, life safety, by floor and walk), and room is left to grow. The result is one edit.
 */
export function numberAll(doc: JobDocument, catalogue: Catalogue, opts: NumberingOptions): NumberingPlan {
  const system = systemOf(doc, catalogue)
  const { panel } = system
  if (!panel)
    return {
      ops: [],
      left: [{ device: 'job:main', reason: 'Choose a panel first: it decides the numbers.' }],
      added: 0,
      moved: 0,
      moves: [],
      cost: noCost,
      proven: true,
      without: { unfit: 0, deferred: 0 },
    }
  const rules = rulesInForce(doc, opts.houseRules)
  const wanted = wantedZones(doc, system, rules)
  const situation = { doc, standing: doc, system, panel, rules, fresh: opts.fresh ?? false }
  // Where wired zones stand decides which blocks are there and so what radio may take: as they stand now at first, then as
  // they will. Radio decides nothing for the wire, so the second look is the last, or the third where spoken numbers move.
  let allowed = allowedIn(situation)
  let plan = numberOnce(situation, wanted, { newId: opts.newId, allowed })
  for (let look = 1; look < 3; look++) {
    const after = applyOps(doc, plan.ops)
    if (!after.ok) break
    const then = { ...situation, standing: after.doc }
    const allowedThen = allowedIn(then)
    if (sameJson(allowedThen, allowed)) break
    allowed = allowedThen
    plan = numberOnce(then, wanted, { newId: opts.newId, allowed })
  }
  return plan
}

/** Numbers that radio and wire may take where the wired zones stand. */
function allowedIn({ standing, system, rules }: Situation): PlanInput['allowed'] {
  const numbers = (use: 'wireless' | 'wired') =>
    numbersFor({ doc: standing, system }, use, rules.schools.wiredBlock)
  return { wireless: numbers('wireless'), wired: numbers('wired') }
}

interface Numbering {
  readonly newId: () => string
  readonly allowed: PlanInput['allowed']
}

function numberOnce(
  situation: Situation,
  wanted: readonly Wanted[],
  { newId, allowed }: Numbering,
): NumberingPlan {
  const { doc, system, panel, rules } = situation
  const zones = recordsOf(doc, 'zone')
  const zoneOf = new Map(zones.map((zone) => [`${zone.device} ${zone.event}`, zone]))
  const places = placeAll(situation, { wanted, zones }, allowed)
  const labels = new Set(
    zones.filter((zone) => zone.label !== '').map((zone) => labelKey(panel.label, zone.label)),
  )
  const ops: Op[] = []
  const moves: NumberMove[] = []
  let added = 0
  for (const item of wanted)
    item.loops.forEach((loop, index) => {
      const zone = zoneOf.get(`${item.device.id} ${loop.event}`)
      const number = places.numbers.get(`${item.device.id} ${loop.event}`)
      if (number === undefined) return
      if (!zone) {
        const made = newZone({
          doc,
          system,
          panel,
          rules,
          item,
          loop,
          number,
          id: newId(),
          labels,
          first: index === 0,
        })
        labels.add(labelKey(panel.label, made.label))
        ops.push({ op: 'add', record: made })
        added += 1
      } else if (zone.number !== number) {
        ops.push({ op: 'set', id: zone.id, field: 'number', from: zone.number, to: number })
        moves.push({ zone: zone.id, from: zone.number, to: number, why: places.why(zone) })
      }
    })
  ops.push(...slotOps(system, panel))
  const { left, cost, proven } = places
  return { ops, left, added, moved: moves.length, moves, cost, proven, without: withoutNumber(system) }
}

function withoutNumber(system: System): NumberingPlan['without'] {
  const fits = fitAll(system)
  const deferred = system.devices.filter(({ device }) => device.deferred !== null)
  const unfit = system.devices.filter(({ device }) => device.deferred === null && !takes(fits.get(device.id)))
  return { unfit: unfit.length, deferred: deferred.length }
}

function wantedZones(doc: JobDocument, system: System, rules: HouseRules): Wanted[] {
  const { panel } = system
  const fits = fitAll(system)
  const walk = walkOrder(doc, system, rules)
  const zoned = new Map<string | null, Set<string | null>>()
  for (const { device, event } of recordsOf(doc, 'zone'))
    zoned.set(device, (zoned.get(device) ?? new Set()).add(event))
  const list = system.devices
    .filter(({ device }) => device.deferred === null && takes(fits.get(device.id)))
    .map(({ device, model }): Wanted => {
      const use = model.slot === 'fob' ? 'fob' : model.family === null ? 'wired' : 'wireless'
      const has = zoned.get(device.id) ?? new Set<string | null>()
      const loops = eventsToZone({ device, model }, panel).filter(
        ({ event }) => !isLeftUnprogrammed(event, has, fits.get(device.id)),
      )
      return { device, model, loops, use }
    })
    .filter((item) => item.loops.length > 0)
  const places = placesOf(doc, system, rules)
  const rank = (item: Wanted): number => readingRank(item, places.get(item.device.id)?.use ?? 'none')
  return list.sort(
    (a, b) => rank(a) - rank(b) || walk(a.device) - walk(b.device) || a.device.order - b.device.order,
  )
}

/** Floors in the order they are described, rooms by the walk from the first way in; 0 where the house is not described. */
function walkOrder(doc: JobDocument, system: System, rules: HouseRules): (device: Device) => number {
  const house = houseOf(doc, system, rules.figures)
  const door = house.doors[0]
  if (!door) return () => 0
  const floors = [...new Set(house.rooms.map((room) => room.floor))]
  return (device) => {
    const room = house.room(device.room)
    if (!room) return 1e6
    return floors.indexOf(room.floor) * 1e4 + (house.walk(door.room, room.id)?.seconds ?? 9e3)
  }
}

/** What does not fit gets no number; what only finds no number is tried, and named where it is left out. */
function takes(fit: Fit | undefined): boolean {
  return fit?.verdict !== 'no' || fit.reasons.every((reason) => reason.code === 'zones')
}

/** Entry doors, then openings, then interior, then carried; life safety together behind them. */
function readingRank({ model }: Wanted, use: Use): number {
  if (model.class === 'contact') return isEntryDoor(use) ? 0 : 1
  if (model.class === 'shock') return 1
  if (model.class === 'motion' || model.class === 'glass-break') return 2
  if (model.class === 'panic') return 4
  return model.class === 'fob' ? 5 : 3
}

function isEntryDoor(use: Use): boolean {
  return isWayIn(use) && use !== 'sees-entry'
}

interface Situation {
  readonly doc: JobDocument
  /** The job with its wired zones where they will stand. */
  readonly standing: JobDocument
  readonly system: System
  readonly panel: PanelModel
  readonly rules: HouseRules
  readonly fresh: boolean
}

interface Placing {
  readonly wanted: readonly Wanted[]
  readonly zones: readonly Zone[]
}

function placeAll(situation: Situation, { wanted, zones }: Placing, allowed: PlanInput['allowed']) {
  const { doc, panel, rules, fresh } = situation
  const ours = new Set(wanted.flatMap((item) => item.loops.map((loop) => `${item.device.id} ${loop.event}`)))
  const byKey = new Map(zones.map((zone) => [`${zone.device} ${zone.event}`, zone]))
  // Zones of no device, or of one that gets no number now, keep theirs.
  const others = new Set(
    zones.filter((zone) => !ours.has(`${zone.device} ${zone.event}`)).map((zone) => zone.number),
  )
  const free = (use: 'wireless' | 'wired'): number[] => allowed[use].filter((number) => !others.has(number))
  const input: PlanInput = {
    items: wanted.flatMap(({ device, loops, use }) => {
      if (use === 'fob') return []
      const mine = loops.map((loop) => byKey.get(`${device.id} ${loop.event}`))
      const fixed = mine.map((zone) => zone !== undefined && (zone.pinned || holdsNumber(doc, zone)))
      const now = mine.map((zone, index) => (zone && (fixed[index] || !fresh) ? zone.number : null))
      return [{ key: device.id, use, now, fixed }]
    }),
    allowed: { wireless: free('wireless'), wired: free('wired') },
    growth: rules.figures.growth,
  }
  const plan = planNumbers(input)
  const numbers = new Map<string, number>()
  const left: { device: string; reason: string }[] = []
  for (const { device, loops, use } of wanted) {
    if (use === 'fob') continue
    const list = plan.numbers.get(device.id)
    if (list) loops.forEach((loop, index) => numbers.set(`${device.id} ${loop.event}`, list[index] as number))
    else left.push({ device: device.id, reason: noNumber(situation, input, { use, events: loops.length }) })
  }
  placeFobs({ panel, wanted, zones }, numbers, left)
  const why = (zone: Zone): string => moveReason({ zone, zones }, input, fresh)
  return { numbers, left, cost: plan.cost, proven: plan.proven, why }
}

interface Lacking {
  readonly use: 'wireless' | 'wired'
  readonly events: number
}

/** The constraint that fails for a device without a number, with its figures. */
function noNumber(situation: Situation, input: PlanInput, { use, events }: Lacking): string {
  const { standing, system, panel, rules } = situation
  const radio = numbersOf(panel.blocks, 'wireless')
  const among = (numbers: Iterable<number>) => [...numbers].filter((number) => radio.has(number))
  const live = new Set(among(liveTerminals(standing, system)))
  const kept = among(keptForWired(standing, system, rules.schools.wiredBlock)).filter(
    (number) => !live.has(number),
  )
  const spoken = among(numbersOf(presentBlocks(standing, system), 'template'))
  const said = (numbers: number, what: string) => (numbers > 0 ? [`${numbers} are ${what}`] : [])
  const notes =
    use === 'wired'
      ? []
      : [
          ...said(live.size, 'live wired terminals'),
          ...said(kept.length, 'kept for the wired block'),
          ...said(spoken.length, 'templates'),
        ]
  const more = notes.length > 0 ? ` (${notes.join(', ')})` : ''
  return `No ${use} number is free for its ${events} ${events === 1 ? 'zone' : 'zones'}: ${panel.name} has ${input.allowed[use].length} to give of ${rangeWords(panel, use)}${more}.`
}

interface Moved {
  readonly zone: Zone
  readonly zones: readonly Zone[]
}

function moveReason({ zone, zones }: Moved, input: PlanInput, fresh: boolean): string {
  const item = input.items.find((entry) => entry.key === zone.device)
  if (item && !input.allowed[item.use].includes(zone.number))
    return `${zone.number} is no number that a ${item.use} zone may take here`
  if (zones.some((other) => other !== zone && other.number === zone.number))
    return `${zone.number} is given to another zone as well`
  return fresh ? 'numbered afresh in reading order' : 'to make room without moving more'
}

interface Fobs {
  readonly panel: PanelModel
  readonly wanted: readonly Wanted[]
  readonly zones: readonly Zone[]
}

/** Fobs on numbers: each takes the highest free group, one number per button. */
function placeFobs(
  { panel, wanted, zones }: Fobs,
  numbers: Map<string, number>,
  left: { device: string; reason: string }[],
): void {
  const taken = new Set(zones.map((zone) => zone.number))
  const has = new Map(zones.map((zone) => [`${zone.device} ${zone.event}`, zone.number]))
  for (const { device, loops, use } of wanted) {
    if (use !== 'fob') continue
    const open = loops.filter((loop) => !has.has(`${device.id} ${loop.event}`))
    for (const loop of loops) {
      const number = has.get(`${device.id} ${loop.event}`)
      if (number !== undefined) numbers.set(`${device.id} ${loop.event}`, number)
    }
    if (open.length === 0) continue
    const group = fobGroup(panel, taken, open)
    if (!group) {
      left.push({
        device: device.id,
        reason: `No group of ${panel.slots.fobs.group} fob numbers is free for its ${open.length} buttons.`,
      })
      continue
    }
    open.forEach((loop, index) => {
      numbers.set(`${device.id} ${loop.event}`, group[index] as number)
      taken.add(group[index] as number)
    })
  }
}

/** The highest free group of the fob range: groups are filled from the top down, one number per button. */
function fobGroup(
  panel: PanelModel,
  taken: ReadonlySet<number>,
  loops: readonly LoopEvent[],
): number[] | null {
  const { group } = panel.slots.fobs
  const block = panel.blocks.find((item) => item.use === 'fob')
  if (!block || loops.length > group) return null
  for (let base = block.to - group + 1; base >= block.from; base -= group) {
    const numbers = Array.from({ length: group }, (_, index) => base + index)
    if (numbers.every((number) => !taken.has(number))) return numbers
  }
  return null
}

/** Slots for fobs, keypads and sirens that have none yet: the lowest free of each class. */
function slotOps(system: System, panel: PanelModel): Op[] {
  const ops: Op[] = []
  const fits = fitAll(system)
  for (const kind of ['fob', 'keypad', 'siren'] as const) {
    if (kind === 'fob' && panel.slots.fobs.by === 'numbers') continue
    const count = { fob: panel.slots.fobs, keypad: panel.slots.keypads, siren: panel.slots.sirens }[kind]
      .count
    const mine = system.devices.filter(
      ({ model, device }) =>
        model.slot === kind && device.deferred === null && fits.get(device.id)?.verdict !== 'no',
    )
    const taken = new Set(mine.map(({ device }) => device.slot))
    for (const { device } of mine) {
      if (device.slot !== null) continue
      const slot = Array.from({ length: count }, (_, index) => index + 1).find((number) => !taken.has(number))
      if (slot === undefined) continue
      taken.add(slot)
      ops.push({ op: 'set', id: device.id, field: 'slot', from: null, to: slot })
    }
  }
  return ops
}
