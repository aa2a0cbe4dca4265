import type { ResponseType } from '../../catalogue/schema.ts'
import { setOp, type Op } from '../../job/edit.ts'
import type { Context, ZoneView } from '../context.ts'
import type { FoundFix } from '../finding.ts'

/** The advised type with what it needs beside it; null for a silent one that would reach nobody. */
export function useAdvisedType(c: Context, view: ZoneView): FoundFix | null {
  const type = view.advice?.type
  if (!type || type.key === view.zone.response) return null
  const silent = type.sound === 'silent'
  if (silent && !c.info.monitored) return null
  const ops = [
    setOp(view.zone, 'response', type.key),
    ...(silent ? silentOps(c, view) : []),
    ...letGo(view, type),
  ]
  return { does: 'use-type', facts: { type: type.name }, ops }
}

/** A silent call is reported, and sounds nowhere. */
function silentOps({ panel }: Context, { zone }: ZoneView): Op[] {
  return [
    ...(zone.report ? [] : [setOp(zone, 'report', true)]),
    ...(panel?.couplings?.sirenOutputs && zone.sirens?.length !== 0 ? [setOp(zone, 'sirens', [])] : []),
  ]
}

/** What the zone has that the type does not take. */
function letGo({ zone }: ZoneView, type: ResponseType): Op[] {
  return [
    ...(zone.transmissionDelay && !type.transmissionDelayAllowed
      ? [setOp(zone, 'transmissionDelay', false)]
      : []),
    ...(zone.dayZone && type.kind !== 'burglary' ? [setOp(zone, 'dayZone', false)] : []),
  ]
}
