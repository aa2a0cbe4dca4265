import { hasInputs } from '../catalogue/zone-loops.ts'
import type { DeviceModel } from '../catalogue/schema.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import { changeOps, type Op } from '../job/edit.ts'
import type { Device, Inputs, Zone } from '../job/records.ts'

/** A contact of the kit with its model. */
interface Contact {
  readonly device: Device
  readonly model: DeviceModel
}

/** The inputs that a contact uses; null where its model leaves no choice. */
export function inputsOf({ device, model }: Contact): Inputs | null {
  if (!hasInputs(model)) return null
  return device.inputs ?? (model.switches ? shipped(model) : 'reed')
}

/** The inputs that a contact’s zones listen to; null where it has none, or none of its inputs is on. */
export function inputsHeard(zones: readonly Zone[], { model }: Contact): Inputs | null {
  if (!hasInputs(model)) return null
  const reed = zones.some((zone) => (model.switches ? zone.reedOn === true : zone.event === 'open'))
  const terminals = zones.some((zone) =>
    model.switches ? zone.terminalsOn === true : zone.event === 'terminals',
  )
  if (reed && terminals) return 'both'
  return reed ? 'reed' : terminals ? 'terminals' : null
}

/** How the panel’s switches stand for inputs: end-of-line belongs to the terminals alone. */
export function switchesFor(
  inputs: Inputs | null,
  model: DeviceModel,
): Pick<Zone, 'reedOn' | 'terminalsOn' | 'endOfLineOn'> {
  const on = (name: string): boolean | null =>
    model.switches?.find((item) => item.switch === name)?.on ?? null
  const told = inputs !== null && model.switches !== undefined && hasInputs(model)
  if (!told) return { reedOn: on('reed'), terminalsOn: on('terminals'), endOfLineOn: on('end-of-line') }
  const terminalsOn = inputs !== 'reed'
  const endOfLine = on('end-of-line')
  return {
    reedOn: inputs !== 'terminals',
    terminalsOn,
    endOfLineOn: endOfLine === null ? null : endOfLine && terminalsOn,
  }
}

/**
 * Chooses the inputs of a contact; its zones follow: switches are turned, a zone goes over to the other input’s loop, and the
 * zone of an input that is not used any more goes. A zone that comes to be needed is left to numbering.
 */
export function inputsOps(doc: JobDocument, contact: Contact, to: Inputs | null): Op[] {
  const { device, model } = contact
  const zones = recordsOf(doc, 'zone').filter((zone) => zone.device === device.id)
  const choice = changeOps(device, 'inputs', to)
  const inputs = inputsOf({ model, device: { ...device, inputs: to } })
  if (inputs === null) return choice
  if (model.switches)
    return [
      ...choice,
      ...zones.flatMap((zone) =>
        Object.entries(switchesFor(inputs, model)).flatMap(([field, value]) =>
          // Whether the wired contact ends in a resistor stays as it is while its terminals are on.
          field === 'endOfLineOn' && inputs !== 'reed' ? [] : changeOps(zone, field, value),
        ),
      ),
    ]
  if (inputs === 'both') return choice
  const [stays, goes] = inputs === 'reed' ? ['open', 'terminals'] : ['terminals', 'open']
  const kept = zones.some((zone) => zone.event === stays)
  const loop = model.loops.find((item) => item.event === stays)?.loop ?? null
  return [
    ...choice,
    ...zones
      .filter((zone) => zone.event === goes)
      .flatMap((zone): Op[] =>
        kept
          ? [{ op: 'remove', record: zone }]
          : [...changeOps(zone, 'event', stays), ...changeOps(zone, 'loop', loop)],
      ),
  ]
}

function shipped({ switches }: DeviceModel): Inputs | null {
  const on = (name: string): boolean => switches?.some((item) => item.switch === name && item.on) ?? false
  if (on('reed') && on('terminals')) return 'both'
  return on('reed') ? 'reed' : on('terminals') ? 'terminals' : null
}
