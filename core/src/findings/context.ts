import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, Family, LoopEvent, PanelModel, ResponseType } from '../catalogue/schema.ts'
import { fitAll, type Fit } from '../fit/fit.ts'
import { systemOf, type System } from '../system/system.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import type { Device, JobInfo, TemporaryState, Zone } from '../job/records.ts'
import type { HouseRules } from '../house-rules/house-rules.ts'
import { rulesInForce } from '../job/rules-in-force.ts'
import { houseOf, type House } from '../premises/house.ts'
import { placesOf, type DevicePlace } from '../premises/places.ts'
import type { Advice } from '../response/advise.ts'
import { adviseDevice } from '../response/advise-device.ts'
import { fullSet, setsOf, tripsInSets } from '../response/letters.ts'
import { tripsOf, type Trips } from '../response/modes.ts'
import { openStates } from '../proof/states.ts'
import type { WrittenTimes } from '../units/times.ts'
import { printNumber } from '../zones/numbers.ts'

/** Everything judging depends on; the same input gives the same findings. */
export interface JudgeInput {
  readonly doc: JobDocument
  readonly catalogue: Catalogue
  /** The clock as UTC text, for what expires. */
  readonly now: string
  /** How times are written in what is told; UTC where it is left out. No verdict and no key depends on it. */
  readonly times?: WrittenTimes
  /** The firm's other uses of this job's serials; null means that it was not checked. */
  readonly elsewhere: readonly { readonly serial: string; readonly job: string }[] | null
  /** The firm's house rules; those in force for the job follow from them. */
  readonly houseRules: HouseRules
}

/** A zone with all that judging it needs looked up. */
export interface ZoneView {
  readonly zone: Zone
  readonly device: Device | null
  readonly model: DeviceModel | null
  readonly family: Family | null
  readonly loop: LoopEvent | null
  readonly type: ResponseType | null
  /** What a trip of its type does in each mode, by itself and in the sets that it is in; null without a type. */
  readonly trips: Trips | null
  readonly advice: Advice | null
  readonly place: DevicePlace | null
  /** Its number as the panel prints it, such as 07. */
  readonly number: string
}

/** What every rule looks at: the input with all of it looked up. */
export interface Context extends JudgeInput {
  readonly info: JobInfo
  readonly system: System
  readonly panel: PanelModel | null
  /** The house rules in force. */
  readonly rules: HouseRules
  readonly house: House
  readonly places: ReadonlyMap<string, DevicePlace>
  /** The area of the full set where areas are letters of sets; null elsewhere. */
  readonly fullSet: string | null
  /** Temporary states that are still open. */
  readonly openStates: readonly TemporaryState[]
  readonly fits: ReadonlyMap<string, Fit>
  readonly zones: readonly ZoneView[]
  /** Zones of a device, by device id. */
  readonly zonesOf: ReadonlyMap<string, readonly ZoneView[]>
}

interface KeptView {
  readonly device: Device | null
  readonly panel: PanelModel | null
  readonly system: System
  readonly rules: HouseRules
  readonly full: string | null
  readonly view: ZoneView
}
const views = new WeakMap<Zone, KeptView>()

/** Looks up what the rules need, reusing what unchanged records gave before. */
export function contextOf(input: JudgeInput): Context {
  const system = systemOf(input.doc, input.catalogue)
  const { panel, info } = system
  const rules = rulesInForce(input.doc, input.houseRules)
  const house = houseOf(input.doc, system, rules.figures)
  const places = placesOf(input.doc, system, rules)
  const full = fullSet(input.doc, panel)
  const zones = recordsOf(input.doc, 'zone').map((zone) => viewOf(zone, { system, places, rules, full }))
  const zonesOf = new Map<string, ZoneView[]>()
  for (const view of zones) {
    const key = view.zone.device ?? ''
    const list = zonesOf.get(key)
    if (list) list.push(view)
    else zonesOf.set(key, [view])
  }
  return {
    ...input,
    info,
    system,
    panel,
    rules,
    house,
    places,
    fullSet: full,
    openStates: openStates(input.doc),
    fits: fitAll(system),
    zones,
    zonesOf,
  }
}

interface Around {
  readonly system: System
  readonly places: ReadonlyMap<string, DevicePlace>
  readonly rules: HouseRules
  readonly full: string | null
}

function viewOf(zone: Zone, { system, places, rules, full }: Around): ZoneView {
  const item = zone.device === null ? undefined : system.byId.get(zone.device)
  const place = (item && places.get(item.device.id)) ?? null
  const known = { zone, item, place, system, rules, full }
  const kept = views.get(zone)
  // What is advised hangs on a few things of the place; where it is looked up anew, the view has it as it now is.
  if (kept && isStillRight(kept, known))
    return kept.view.place === place ? kept.view : { ...kept.view, place }
  const view = freshView(known)
  views.set(zone, { device: view.device, panel: system.panel, system, rules, full, view })
  return view
}

/** What a zone's view is made of. */
interface Known {
  readonly zone: Zone
  readonly item: System['devices'][number] | undefined
  readonly place: DevicePlace | null
  readonly system: System
  readonly rules: HouseRules
  readonly full: string | null
}

function isStillRight(kept: KeptView, { item, place, system, rules, full }: Known): boolean {
  return (
    kept.device === (item?.device ?? null) &&
    kept.panel === system.panel &&
    kept.view.model === (item?.model ?? null) &&
    kept.rules === rules &&
    kept.full === full &&
    samePlace(kept.view.place, place) &&
    kept.system.info.region === system.info.region
  )
}

function freshView(known: Known): ZoneView {
  const { zone, item, place, system, full } = known
  const { panel } = system
  const loop = item?.model.loops.find((entry) => entry.event === zone.event) ?? null
  const type = panel?.responseTypes.find((one) => one.key === zone.response) ?? null
  // Written out: spreading small objects together costs a third of judging a large job from nothing.
  return {
    zone,
    place,
    loop,
    type,
    device: item?.device ?? null,
    model: item?.model ?? null,
    family: item?.family ?? null,
    trips: panel && type ? tripsInSets(tripsOf(panel, type), setsOf(zone, full)) : null,
    advice: loop && adviceFor(known, loop),
    number: printNumber(panel, zone.number),
  }
}

function adviceFor({ item, place, system, rules }: Known, loop: LoopEvent): Advice | null {
  const { panel, info } = system
  if (!panel || !item) return null
  const { device } = item
  const { schools } = rules
  return adviseDevice({ panel, device, event: loop.event, place, region: info.region, schools })
}

const placeFields = ['use', 'derived', 'noisy', 'room', 'opening'] as const

/** Whether a place says the same: the house is looked up anew with every edit. */
function samePlace(a: DevicePlace | null, b: DevicePlace | null): boolean {
  if (a === b) return true
  if (a === null || b === null) return false
  return (
    placeFields.every((field) => a[field] === b[field]) &&
    JSON.stringify(a.why) === JSON.stringify(b.why) &&
    a.way?.seconds === b.way?.seconds &&
    a.way?.delay === b.way?.delay &&
    a.missing.length === b.missing.length
  )
}
