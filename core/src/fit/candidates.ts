import type { Catalogue } from '../catalogue/catalogue.ts'
import type { PanelModel, ReceiverModel } from '../catalogue/schema.ts'
import { kindOf } from '../response/advise.ts'
import { eventsToZone } from '../catalogue/zone-loops.ts'
import { fitAll, type Fit, type Verdict } from './fit.ts'
import { firmwareWhenChosen } from '../response/choose-panel.ts'
import type { PresentReceiver, System } from '../system/system.ts'

/** What a panel would be for this kit. */
export interface PanelChoice {
  readonly panel: PanelModel
  /** True for the panel that the job has now. */
  readonly current: boolean
  /** Each device with the receivers the panel would have as it comes. */
  readonly fits: ReadonlyMap<string, Fit>
  readonly counts: Readonly<Record<Verdict, number>>
  /** The fewest further receivers that let most devices fit, and the counts then; empty when none helps. */
  readonly add: readonly ReceiverModel[]
  readonly countsThen: Readonly<Record<Verdict, number>>
  /** Places left for growth, with the further receivers; negative when there are too few. */
  readonly left: {
    readonly zones: number
    readonly fobs: number
    readonly keypads: number
    readonly sirens: number
  }
  /** What this panel cannot do for the kit, or does less well than the present one. */
  readonly loses: readonly string[]
}

/** The job's hardware as if it had another panel: its built-in receiver, and those of the job that it takes. */
export function systemWithPanel(system: System, catalogue: Catalogue, panel: PanelModel): System {
  if (system.panel?.id === panel.id) return system
  const builtIn = catalogue.get('receiver', panel.builtIn)
  const kept = system.receivers.filter(
    (item) => item.id !== 'built-in' && panel.receivers.includes(item.model.id),
  )
  return {
    ...system,
    info: {
      ...system.info,
      panel: panel.id,
      radioFirmware: firmwareWhenChosen(panel, system.info.kind),
    },
    panel,
    receivers: [...(builtIn ? [present('built-in', builtIn, catalogue)] : []), ...kept],
  }
}

/** All panels for this kit, best first: most devices that fit, fewest losses, most room; equal ones by name. */
export function rankPanels(system: System, catalogue: Catalogue): PanelChoice[] {
  const choices = catalogue.all('panel').map((panel) => choiceOf(system, catalogue, panel))
  return choices.sort(
    (a, b) =>
      a.countsThen.no - b.countsThen.no ||
      a.countsThen.unknown - b.countsThen.unknown ||
      a.countsThen.loss - b.countsThen.loss ||
      a.add.length - b.add.length ||
      Number(b.current) - Number(a.current) ||
      b.left.zones - a.left.zones ||
      (a.panel.name < b.panel.name ? -1 : 1),
  )
}

function choiceOf(system: System, catalogue: Catalogue, panel: PanelModel): PanelChoice {
  const asIs = systemWithPanel(system, catalogue, panel)
  const fits = fitAll(asIs)
  const counts = count(fits)
  const best = bestReceivers({ asIs, catalogue, panel }, counts)
  return {
    panel,
    current: system.panel?.id === panel.id,
    fits,
    counts,
    add: best.add,
    countsThen: count(best.fits),
    left: roomLeft(asIs, panel, best.fits),
    loses: losses(system, panel),
  }
}

interface Choice {
  readonly asIs: System
  readonly catalogue: Catalogue
  readonly panel: PanelModel
}

/** Tries every set of receivers that the panel could still have, small sets first. */
function bestReceivers(
  { asIs, catalogue, panel }: Choice,
  counts: Readonly<Record<Verdict, number>>,
): { add: ReceiverModel[]; fits: ReadonlyMap<string, Fit> } {
  const has = new Set(asIs.receivers.map((item) => item.model.id))
  const open = panel.receivers
    .filter((id) => !has.has(id))
    .flatMap((id) => catalogue.get('receiver', id) ?? [])
  let best = { add: [] as ReceiverModel[], fits: fitAll(asIs) }
  let least = counts.no
  for (const add of subsets(open)) {
    if (add.length === 0) continue
    const receivers = [...asIs.receivers, ...add.map((model) => present(`new ${model.id}`, model, catalogue))]
    const fits = fitAll({ ...asIs, receivers })
    const { no } = count(fits)
    if (no < least) {
      least = no
      best = { add, fits }
    }
  }
  return best
}

function roomLeft(system: System, panel: PanelModel, fits: ReadonlyMap<string, Fit>): PanelChoice['left'] {
  const taken = system.devices.filter(({ device }) => fits.get(device.id)?.verdict !== 'no')
  const zones = taken.reduce(
    (sum, item) => sum + (item.model.slot === 'none' ? eventsToZone(item, panel).length : 0),
    0,
  )
  const slots = (slot: string): number => taken.filter(({ model }) => model.slot === slot).length
  const numbers = new Set(
    panel.blocks
      .filter((block) => (block.use === 'wireless' || block.use === 'wired') && !block.optional)
      .flatMap((block) =>
        Array.from({ length: block.to - block.from + 1 }, (_, index) => block.from + index),
      ),
  )
  return {
    zones: numbers.size - zones,
    fobs: panel.slots.fobs.count - slots('fob'),
    keypads: panel.slots.keypads.count - slots('keypad'),
    sirens: panel.slots.sirens.count - slots('siren'),
  }
}

// eslint-disable-next-line complexity -- one guard per fact, read from top to bottom
function losses(system: System, panel: PanelModel): string[] {
  const list: string[] = []
  const { info } = system
  const events = new Set(
    system.devices.flatMap(({ model }) =>
      model.slot === 'none' ? model.loops.map((loop) => loop.event) : [],
    ),
  )
  const kinds = new Set([...events].map((event) => kindOf(event)))
  for (const kind of kinds)
    if (!panel.responseTypes.some((type) => type.kind === kind)) list.push(`has no ${kind} type`)
  if (info.region !== 'own' && !panel.regions.includes(info.region)) list.push('is not made for this region')
  if (info.region === 'europe' && panel.grade === undefined)
    list.push(`states no grade, the job is grade ${info.grade}`)
  else if (info.region === 'europe' && panel.grade !== undefined && panel.grade < info.grade)
    list.push(`is grade ${panel.grade}, the job grade ${info.grade}`)
  if (panel.label.style === 'text' && panel.label.insteadOn)
    list.push(`shows no labels: ${panel.label.insteadOn}`)
  const now = system.panel
  if (now && now.id !== panel.id) {
    if (now.areas.count > panel.areas.count)
      list.push(`has ${panel.areas.count} areas instead of ${now.areas.count}`)
    if (hasNight(now) && !hasNight(panel)) list.push('has no night mode')
    if (now.delays.abort && !panel.delays.abort) list.push('cannot hold an alarm before it is sent')
  }
  return list
}

function hasNight(panel: PanelModel): boolean {
  return panel.responseTypes.some((type) => type.night !== undefined)
}

function count(fits: ReadonlyMap<string, Fit>): Record<Verdict, number> {
  const counts = { works: 0, loss: 0, no: 0, unknown: 0 }
  for (const fit of fits.values()) counts[fit.verdict] += 1
  return counts
}

function present(id: string, model: ReceiverModel, catalogue: Catalogue): PresentReceiver {
  const families = model.hears.flatMap((item) => catalogue.get('family', item.family) ?? [])
  return { id, model, families, encryptedOnly: false }
}

/** All subsets, smaller ones first. */
export function subsets<T>(items: readonly T[]): T[][] {
  const all = Array.from({ length: 1 << items.length }, (_, bits) =>
    items.filter((_item, index) => bits & (1 << index)),
  )
  return all.sort((a, b) => a.length - b.length)
}
