import type { DeviceModel, LoopEvent } from './schema.ts'

/** The loops of a device that take a zone each: its wired terminals only where there is no reed to be used. */
export function zoneLoops(model: DeviceModel): readonly LoopEvent[] {
  const main = model.loops.filter((loop) => loop.event !== 'terminals')
  return main.length > 0 ? main : model.loops
}
