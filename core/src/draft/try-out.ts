import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, PanelModel, ReceiverModel } from '../catalogue/schema.ts'
import { keepEntry } from '../catalogue/written.ts'
import { rankPanels, type PanelChoice } from '../fit/candidates.ts'
import type { Verdict } from '../fit/fit.ts'
import type { FitReason } from '../fit/reasons.ts'
import { blankDevice, blankJob } from '../job/blank.ts'
import { emptyDocument } from '../job/document.ts'
import { applyOps } from '../job/edit.ts'
import type { JobInfo } from '../job/records.ts'
import { startOps } from '../job/start.ts'
import { systemOf } from '../system/system.ts'

/** What one panel makes of a device, as it comes and with the receivers that help. */
export interface PanelTried {
  readonly panel: PanelModel
  readonly verdict: Verdict
  readonly reasons: readonly FitReason[]
  /** Receivers with which it is better; empty where it needs none, or none helps. */
  readonly add: readonly ReceiverModel[]
}

/** A device tried with every panel of the catalogue, in a new job of a region that both are made for, where there is one; those it fits first. */
export function triedWithPanels(device: DeviceModel, catalogue: Catalogue): readonly PanelTried[] {
  const whole = catalogue.with([keepEntry(device)])
  const ranked = new Map<string, readonly PanelChoice[]>()
  const tried = whole.all('panel').flatMap((panel): PanelTried[] => {
    const region = panel.regions.find((one) => device.regions.includes(one)) ?? panel.regions[0]
    if (!region) return []
    const choices = ranked.get(region) ?? rankPanels(systemOfOne(device, whole, region), whole)
    ranked.set(region, choices)
    const choice = choices.find((one) => one.panel.id === panel.id)
    const fit = choice?.fits.get(ONE)
    return choice && fit ? [{ panel, ...bestOf(choice, fit) }] : []
  })
  return tried.toSorted((a, b) => rank(a) - rank(b))
}

/** Best first; of those that do not fit, the ones that could hear it. */
function rank({ verdict, reasons }: PanelTried): number {
  const deaf = reasons.some(({ code }) => code === 'band' || code === 'protocol' || code === 'no-receiver')
  return bestFirst.indexOf(verdict) * 2 + Number(deaf)
}

const bestFirst: readonly Verdict[] = ['works', 'loss', 'unknown', 'no']

const ONE = 'device:tried'

function bestOf(
  { add, countsThen }: PanelChoice,
  { verdict, reasons }: { readonly verdict: Verdict; readonly reasons: readonly FitReason[] },
): Omit<PanelTried, 'panel'> {
  const then = bestFirst.find((one) => countsThen[one] > 0) ?? verdict
  return add.length === 0
    ? { verdict, reasons, add }
    : { verdict: then, reasons: then === 'works' ? [] : reasons, add }
}

function systemOfOne(model: DeviceModel, catalogue: Catalogue, region: JobInfo['region']) {
  const info: JobInfo = {
    ...blankJob,
    ...{ id: 'job:main', name: 'Try-out', region, kind: 'new', monitored: true, grade: 1, panel: null },
    ...{ radioFirmware: null, airSeed: 1 },
  }
  const begun = applyOps(emptyDocument, startOps(emptyDocument, catalogue, info))
  if (!begun.ok) throw new RangeError('triedWithPanels: an empty job takes its first records')
  const device = { ...blankDevice, id: ONE, model: model.id, order: 1 }
  const system = systemOf(begun.doc, catalogue)
  return { ...system, devices: [{ device, model, family: catalogue.get('family', model.family) }] }
}

/** Devices of the catalogue that a receiver would take, by class, and others of its families that it does not; null where it does not state its classes. */
export function heardBy(
  receiver: ReceiverModel,
  catalogue: Catalogue,
): {
  readonly takes: readonly DeviceModel[] | null
  readonly refuses: readonly DeviceModel[]
  readonly spoken: number
} {
  const families = new Set<string | null>(receiver.hears.map(({ family }) => family))
  const spoken = catalogue.all('device').filter(({ family }) => families.has(family))
  const { classes } = receiver
  if (!classes) return { takes: null, refuses: [], spoken: spoken.length }
  const taken = (one: DeviceModel): boolean => classes.includes(one.class)
  return {
    takes: spoken.filter(taken),
    refuses: spoken.filter((one) => !taken(one)),
    spoken: spoken.length,
  }
}
