import type { DeviceModel, LoopEvent, PanelModel } from './schema.ts'

/** The loops of a device that take a zone each: its wired terminals only where there is no reed to be used. */
export function zoneLoops(model: DeviceModel): readonly LoopEvent[] {
  const main = model.loops.filter((loop) => loop.event !== 'terminals')
  return main.length > 0 ? main : model.loops
}

/** The events of a device that need a zone: wired terminals only where the reed is not there to be used. */
export function eventsToZone(model: DeviceModel, panel: PanelModel | null): readonly LoopEvent[] {
  if (model.slot !== 'none')
    return model.slot === 'fob' && panel?.slots.fobs.by === 'numbers' ? model.loops : []
  return zoneLoops(model)
}
