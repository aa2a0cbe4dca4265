import { setOp } from '../../job/edit.ts'
import type { Context, ZoneView } from '../context.ts'
import type { FoundFix } from '../finding.ts'

/** The advised type with what it needs beside it; null for a silent one that would reach nobody. */
export function useAdvisedType(c: Context, view: ZoneView): FoundFix | null {
  const type = view.advice?.type
  if (!type || type.key === view.zone.response) return null
  const silent = type.sound === 'silent'
  if (silent && !c.info.monitored) return null
  const { transmissionDelay, report, sirens, dayZone } = view.zone
  const ops = [
    setOp(view.zone, 'response', type.key),
    ...(!type.transmissionDelayAllowed && transmissionDelay
      ? [setOp(view.zone, 'transmissionDelay', false)]
      : []),
    ...(silent && !report ? [setOp(view.zone, 'report', true)] : []),
    ...(silent && c.panel?.couplings?.sirenOutputs && sirens?.length !== 0
      ? [setOp(view.zone, 'sirens', [])]
      : []),
    ...(dayZone && type.kind !== 'burglary' ? [setOp(view.zone, 'dayZone', false)] : []),
  ]
  return { does: 'use-type', facts: { type: type.name }, ops }
}
