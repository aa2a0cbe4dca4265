import type { DeviceModel } from '../../catalogue/schema.ts'
import { eventsToZone, hasInputs } from '../../catalogue/zone-loops.ts'
import type { Device, Inputs, Zone } from '../../job/records.ts'
import { inputsHeard, inputsOps } from '../../zones/inputs.ts'
import { newZone, takeZoneOps } from '../../zones/new-zone.ts'
import { changeOps, setOp } from '../../job/edit.ts'
import { labelKey } from '../../zones/labels.ts'
import { isLeftUnprogrammed } from '../../zones/left-unprogrammed.ts'
import { numberAll } from '../../zones/number-all.ts'
import { numbersFor } from '../../zones/numbers.ts'
import type { Context, ZoneView } from '../context.ts'
import type { Found, FoundFix, RulesOf } from '../finding.ts'

/** What the rules on a zone and its device find. */
export interface ZoneFacts {
  readonly 'event-without-zone': {
    readonly model: string
    readonly room: string
    readonly events: readonly string[]
    readonly loops: readonly number[]
  }
  readonly deferred: { readonly model: string; readonly reason: string }
  readonly 'loop-wrong': {
    readonly zone: string
    readonly loop: number | null
    readonly event: string
    readonly model: string
    readonly right: number
  }
  /** A zone that waits for a device. */
  readonly 'zone-open': { readonly zone: string; readonly label: string }
  readonly 'inputs-differ':
    | {
        readonly of: 'zones'
        readonly model: string
        readonly room: string
        readonly planned: Inputs
        readonly heard: Inputs
      }
    | { readonly of: 'model'; readonly model: string; readonly room: string; readonly planned: Inputs }
  readonly 'equipment-wrong':
    | {
        readonly of: 'code'
        readonly zone: string
        readonly given: string | null
        readonly right: string
        readonly model: string
        readonly panel: string
      }
    | {
        readonly of: 'kind'
        readonly zone: string
        readonly given: string | null
        readonly right: string
        readonly event: string
        readonly panel: string
      }
  readonly 'switches-off': { readonly zone: string }
  readonly 'end-of-line-alone': { readonly zone: string }
  readonly 'resistor-wrong': {
    readonly zone: string
    readonly ohm: number | null
    readonly panel: string
    readonly wanted: number
  }
}

/** Rules on what a zone listens to: every event has one, on its own loop, code and inputs. */
export const zoneRules: RulesOf<ZoneFacts> = {
  'event-without-zone': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['model', 'events'],
    find: (c) =>
      c.system.devices.flatMap((item) => {
        const { device, model } = item
        // Without a panel there are no zones to have: the job owes a panel first.
        if (!c.panel || device.deferred !== null || c.fits.get(device.id)?.verdict === 'no') return []
        const zones = (c.zonesOf.get(device.id) ?? []).map(({ zone }) => zone)
        const has = new Set(zones.map((zone) => zone.event))
        const heard = inputsHeard(zones, { device, model })
        // A zone on the other input is told as that; where nobody chose, whatever is planned will do.
        if (inputsDiffer({ device, model }, heard)) return []
        const used = eventsToZone({ model, device: { inputs: device.inputs ?? heard } }, c.panel)
        const fit = c.fits.get(device.id)
        const missing = used.filter(({ event }) => !has.has(event) && !isLeftUnprogrammed(event, has, fit))
        if (missing.length === 0) return []
        const facts = {
          ...{ model: model.name, room: device.room },
          events: missing.map((loop) => loop.name),
          loops: missing.map((loop) => loop.loop),
        }
        return [{ subject: device.id, field: null, facts, fix: addZones(c, item, missing) }]
      }),
  },
  deferred: {
    severity: 'advice',
    stage: 'kit',
    key: ['model', 'reason'],
    find: (c) =>
      c.system.devices.flatMap(({ device, model }) =>
        device.deferred === null
          ? []
          : [
              {
                subject: device.id,
                field: 'deferred',
                facts: { model: model.name, reason: device.deferred },
                fix: null,
              },
            ],
      ),
  },
  'loop-wrong': {
    severity: 'stops',
    stage: 'zones',
    key: ['zone', 'loop', 'right'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const { zone, loop, model, family } = view
        if (!loop || !family || !model || model.switches || zone.loop === loop.loop) return []
        return [
          {
            subject: zone.id,
            field: 'loop',
            facts: {
              ...{ zone: view.number, loop: zone.loop, event: loop.name },
              ...{ model: model.name, right: loop.loop },
            },
            fix: {
              does: 'use-loop' as const,
              facts: { loop: loop.loop },
              ops: [setOp(zone, 'loop', loop.loop)],
            },
            others: otherEvent(c, view),
          },
        ]
      }),
  },
  'zone-open': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone'],
    find: (c) =>
      c.zones.flatMap(({ zone, device, number }) => {
        if (device || !c.panel) return []
        const removal: FoundFix = { does: 'remove-zone', facts: {}, ops: [{ op: 'remove', record: zone }] }
        const [fix = removal, ...others] = [...takers(c, zone), removal]
        const facts = { zone: number, label: zone.label }
        return [{ subject: zone.id, field: 'device', facts, fix, others }]
      }),
  },
  'inputs-differ': {
    severity: 'stops',
    waive: 'owner',
    stage: 'kit',
    key: ['of', 'model', 'planned'],
    find: (c) => c.system.devices.flatMap((item) => otherInputs(c, item)),
  },
  'equipment-wrong': {
    severity: 'stops',
    stage: 'zones',
    key: ['of', 'zone', 'given', 'right'],
    find: (c) => c.zones.flatMap((view) => wrongEquipment(c, view)),
  },
  'switches-off': {
    severity: 'stops',
    waive: 'never',
    stage: 'zones',
    key: ['zone'],
    find: (c) =>
      withSwitches(c, (view) => {
        if (view.zone.reedOn === true || view.zone.terminalsOn === true) return []
        const reed = view.model?.switches?.some((item) => item.switch === 'reed')
        const field = reed ? 'reedOn' : 'terminalsOn'
        return [
          {
            ...{ subject: view.zone.id, field, facts: { zone: view.number } },
            fix: {
              does: 'input-on',
              facts: { input: reed ? 'reed' : 'terminals' },
              ops: [setOp(view.zone, field, true)],
            },
          },
        ]
      }),
  },
  'end-of-line-alone': {
    severity: 'stops',
    stage: 'zones',
    key: ['zone'],
    find: (c) =>
      withSwitches(c, (view) =>
        view.zone.endOfLineOn !== true || view.zone.terminalsOn === true
          ? []
          : [
              {
                ...{ subject: view.zone.id, field: 'endOfLineOn', facts: { zone: view.number } },
                fix: { does: 'end-of-line-off', facts: {}, ops: [setOp(view.zone, 'endOfLineOn', false)] },
              },
            ],
      ),
  },
  'resistor-wrong': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'ohm', 'wanted'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const wanted = c.panel?.couplings?.endOfLineOhm
        const { wiring, resistorOhm } = view.zone
        const ends = wiring === 'end-of-line' || wiring === 'double'
        if (!wanted || !ends || resistorOhm === wanted) return []
        return [
          {
            subject: view.zone.id,
            field: 'resistorOhm',
            facts: { zone: view.number, ohm: resistorOhm, panel: c.panel?.name ?? '', wanted },
            fix: {
              does: 'note-resistor' as const,
              facts: { ohm: wanted },
              ops: [setOp(view.zone, 'resistorOhm', wanted)],
            },
          },
        ]
      }),
  },
}

/** Devices of the kit that lack a zone for what an open one is to report: those of its place first, by its label. */
function takers(c: Context, zone: Zone): FoundFix[] {
  const { panel } = c
  if (!panel) return []
  const named = (room: string): boolean =>
    room !== '' && zone.label.toLowerCase().includes(room.toLowerCase())
  return c.system.devices
    .filter(({ device, model }) => {
      if (device.deferred !== null || model.slot !== 'none') return false
      const use = model.family === null ? 'wired' : 'wireless'
      if (!numbersFor(c, use, c.rules.schools.wiredBlock).includes(zone.number)) return false
      const has = (c.zonesOf.get(device.id) ?? []).map((view) => view.zone.event)
      return eventsToZone({ device, model }, panel).some(
        ({ event }) => event === zone.event && !has.includes(event),
      )
    })
    .sort((a, b) => Number(named(b.device.room)) - Number(named(a.device.room)))
    .slice(0, 3)
    .flatMap((item) => {
      const { device, model } = item
      const loop = model.loops.find(({ event }) => event === zone.event)
      if (!loop) return []
      const first = (c.zonesOf.get(device.id) ?? []).length === 0
      const { doc, system, rules } = c
      return {
        does: 'take-zone' as const,
        facts: { model: model.name, room: device.room },
        ops: takeZoneOps(zone, { doc, system, panel, rules, item, loop, first }),
      }
    })
}

interface Contact {
  readonly device: Device
  readonly model: DeviceModel
}

/** Whether zones listen to an input that is not to be used; what is planned and has no zone yet is no difference. */
function inputsDiffer({ device, model }: Contact, heard: Inputs | null): boolean {
  const { inputs } = device
  if (inputs === null || heard === null || inputs === heard) return false
  return model.switches !== undefined || inputs !== 'both'
}

function otherInputs(c: Context, { device, model }: Contact): Found<ZoneFacts['inputs-differ']>[] {
  const { inputs } = device
  const known = { model: model.name, room: device.room }
  const found = { subject: device.id, field: 'inputs' }
  if (inputs === null || model.class !== 'contact') return []
  if (!hasInputs(model))
    return inputs === 'reed'
      ? []
      : [
          {
            ...found,
            facts: { ...known, of: 'model', planned: inputs },
            fix: { does: 'plan-inputs', facts: { inputs: null }, ops: [setOp(device, 'inputs', null)] },
          },
        ]
  const zones = (c.zonesOf.get(device.id) ?? []).map(({ zone }) => zone)
  const heard = inputsHeard(zones, { device, model })
  if (heard === null || !inputsDiffer({ device, model }, heard)) return []
  return [
    {
      ...found,
      facts: { ...known, of: 'zones', planned: inputs, heard },
      fix: {
        does: 'listen-to',
        facts: { inputs },
        ops: inputsOps(c.doc, { device, model }, inputs),
      },
      others: [{ does: 'plan-inputs', facts: { inputs: heard }, ops: [setOp(device, 'inputs', heard)] }],
    },
  ]
}

/** The other input of the contact, where its loop is the one that the zone listens to: it may be what is meant. */
function otherEvent(c: Context, { zone, device, model }: ZoneView): FoundFix[] {
  const meant = model?.loops.find((loop) => loop.loop === zone.loop)
  if (!device || !model || !meant || !hasInputs(model)) return []
  if (meant.event !== 'open' && meant.event !== 'terminals') return []
  const mine = c.zonesOf.get(device.id) ?? []
  if (mine.some((view) => view.zone.event === meant.event)) return []
  const inputs =
    mine.length > 1 ? ('both' as const) : meant.event === 'open' ? ('reed' as const) : ('terminals' as const)
  return [
    {
      does: 'use-input',
      facts: { input: meant.name },
      ops: [setOp(zone, 'event', meant.event), ...changeOps(device, 'inputs', inputs)],
    },
  ]
}

function wrongEquipment(c: Context, view: ZoneView): Found<ZoneFacts['equipment-wrong']>[] {
  const { panel } = c
  const { zone, model, loop } = view
  if (!panel || !model || !loop) return []
  const code = panel.equipment.code
    ? (model.equipmentCodes.find((item) => item.panel === panel.id)?.code ?? null)
    : null
  const kind = panel.equipment.kinds.find((item) => item.events.includes(loop.event))?.key ?? null
  const known = { zone: view.number, panel: panel.name }
  if (panel.equipment.code && code !== null && zone.equipmentCode !== code)
    return [
      {
        subject: zone.id,
        field: 'equipmentCode',
        facts: { ...known, of: 'code', given: zone.equipmentCode, right: code, model: model.name },
        fix: useEquipment(view, 'equipmentCode', code),
      },
    ]
  if (kind !== null && zone.equipmentKind !== kind)
    return [
      {
        subject: zone.id,
        field: 'equipmentKind',
        facts: { ...known, of: 'kind', given: zone.equipmentKind, right: kind, event: loop.name },
        fix: useEquipment(view, 'equipmentKind', kind),
      },
    ]
  return []
}

function useEquipment(view: ZoneView, field: string, value: string): FoundFix {
  return { does: 'use-equipment', facts: { value }, ops: [setOp(view.zone, field, value)] }
}

function withSwitches<F>(c: Context, find: (view: ZoneView) => readonly Found<F>[]): Found<F>[] {
  return c.zones.flatMap((view) => (view.model?.switches ? find(view) : []))
}

type Loop = DeviceModel['loops'][number]

/** Adds the zones that a device lacks, on the next free numbers. */
function addZones(c: Context, { device, model }: Contact, missing: readonly Loop[]): FoundFix | null {
  const { panel } = c
  if (!panel) return null
  const first = !c.zonesOf.has(device.id)
  if (model.slot === 'fob') return fobZones(c, device.id)
  const taken = new Set(c.zones.map((view) => view.zone.number))
  const use = model.family === null ? 'wired' : 'wireless'
  const free = numbersFor({ doc: c.doc, system: c.system }, use, c.rules.schools.wiredBlock).filter(
    (number) => !taken.has(number),
  )
  if (free.length < missing.length) return null
  const labels = new Set(c.zones.map((view) => labelKey(panel.label, view.zone.label)))
  const ops = missing.map((loop, index) => {
    const record = newZone({
      ...{ doc: c.doc, system: c.system, panel, rules: c.rules, item: { device, model }, loop, labels },
      number: free[index] ?? 0,
      id: `zone:${device.id.slice(7)}-${loop.loop}`,
      first: index === 0 && first,
    })
    labels.add(labelKey(panel.label, record.label))
    return { op: 'add' as const, record }
  })
  return { does: 'add-zones', facts: { events: missing.map((loop) => loop.name) }, ops }
}

/** A fob's buttons come as one group: those that are missing take what numbering would give them. */
function fobZones(c: Context, deviceId: string): FoundFix | null {
  const plan = numberAll(c.doc, c.catalogue, { newId: sequence(deviceId), houseRules: c.houseRules })
  const ops = plan.ops.filter(
    (op) => op.op === 'add' && op.record.type === 'zone' && op.record.device === deviceId,
  )
  return ops.length === 0 ? null : { does: 'add-buttons', facts: { buttons: ops.length }, ops }
}

function sequence(deviceId: string): () => string {
  let count = 0
  return () => `zone:${deviceId.slice(7)}-b${(count += 1)}`
}
