import type { DeviceModel, LoopEvent, PanelModel } from './schema.ts'

/** Which inputs of a contact are used: its own reed, the contact wired to its terminals, or both. */
type Inputs = 'reed' | 'terminals' | 'both'

/** A device as far as the zones that it needs depend on it; `inputs` is null where nobody chose. */
interface Used {
  readonly model: DeviceModel
  readonly device: { readonly inputs: Inputs | null }
}

/** Whether a contact has a reed and terminals to choose from: on loops of their own, or switched on and off. */
export function hasInputs({ loops, switches }: DeviceModel): boolean {
  return switches
    ? ['reed', 'terminals'].every((name) => switches.some((item) => item.switch === name))
    : ['open', 'terminals'].every((event) => loops.some((loop) => loop.event === event))
}

/**
 * The loops of a device that take a zone each. Of a contact with loops for reed and terminals those that are used: its reed
 * where nobody chose. Where its panel switches the inputs, one zone stands for both.
 */
export function zoneLoops({ model, device }: Used): readonly LoopEvent[] {
  if (model.switches || !hasInputs(model) || device.inputs === 'both') return model.loops
  const unused = device.inputs === 'terminals' ? 'open' : 'terminals'
  return model.loops.filter((loop) => loop.event !== unused)
}

/** The events of a device that need a zone; what is kept in a slot of the panel needs none. */
export function eventsToZone(item: Used, panel: PanelModel | null): readonly LoopEvent[] {
  const { model } = item
  if (model.slot !== 'none')
    return model.slot === 'fob' && panel?.slots.fobs.by === 'numbers' ? model.loops : []
  return zoneLoops(item)
}
