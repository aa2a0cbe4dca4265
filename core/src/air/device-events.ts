import { zoneLoops } from '../catalogue/zone-loops.ts'
import type { LoopEvent } from '../catalogue/schema.ts'
import { recordsOf } from '../job/document.ts'
import { isDeviceInPanel } from '../job/enrolment.ts'
import { systemOf, type JobAndCatalogue, type System } from '../system/system.ts'
import { targetsOf, type Target } from './learn.ts'

/** One event of a device that is learned by zones: smoke, heat, frost. */
export interface DeviceEventState {
  readonly loop: LoopEvent
  /** What it is learned as; null where it is not to be learned. */
  readonly target: Target | null
  /** Whether the panel has its zone and keeps it as programmed. Without that and a target no zone stands for it: nobody hears of it. */
  readonly asProgrammed: boolean
}

/** Every event of a target's device, each by itself: those learned, those still missing, and those of no zone; empty for a single one. */
export function deviceEvents(
  { doc, catalogue }: JobAndCatalogue,
  target: Target,
): readonly DeviceEventState[] {
  const item = systemOf(doc, catalogue).byId.get(target.device.id)
  if (!item || !target.zone) return []
  const mine = targetsOf(doc, catalogue).filter(({ device }) => device.id === target.device.id)
  const kept = recordsOf(doc, 'zone').filter((zone) => zone.device === target.device.id && zone.asProgrammed)
  const list = zoneLoops(item).map((loop) => ({
    loop,
    target: mine.find(({ zone }) => zone?.event === loop.event) ?? null,
    asProgrammed: kept.some(({ event }) => event === loop.event),
  }))
  return list.length < 2 ? [] : list
}

/** What a device hangs on, and what hangs on it, where it is heard through a repeater. */
export interface HangingOn {
  /** The repeater that it is heard through, and whether that is learned; null for none. */
  readonly via: { readonly name: string; readonly learned: boolean } | null
  /** What is heard through it; empty for what is no repeater. */
  readonly behind: readonly { readonly name: string; readonly learned: boolean }[]
}

/** How a target hangs on a repeater, or others on it. */
export function hangingOn({ doc, catalogue }: JobAndCatalogue, { device }: Target): HangingOn {
  const system = systemOf(doc, catalogue)
  const told = (item: System['devices'][number]) => ({
    name: [item.model.name, item.device.room].filter(Boolean).join(' in '),
    learned: isDeviceInPanel(doc, item.device.id),
  })
  const via = system.byId.get(device.via ?? '')
  return {
    via: via ? told(via) : null,
    behind: system.devices
      .filter((other) => other.device.via === device.id && other.device.deferred === null)
      .map(told),
  }
}
