import { receiverLoad } from '../fit/fit.ts'
import { eventsToZone, newZone } from '../zones/new-zone.ts'
import { numberAll } from '../zones/number-all.ts'
import { labelKey } from '../zones/labels.ts'
import { numbersFor } from '../zones/numbers.ts'
import { setOp, type Context, type Fix, type Rule } from './context.ts'

/** Rules on devices, receivers and users. */
export const kitRules: readonly Rule[] = [
  {
    id: 'no-fit',
    severity: 'stops',
    waive: 'never',
    title: 'device does not fit',
    source: 'Band, protocol, encryption, firmware, class and region of receiver and device',
    stage: 'kit',
    find: (c) =>
      c.system.devices.flatMap(({ device, model }) => {
        const fit = c.fits.get(device.id)
        if (fit?.verdict !== 'no' || fit.reasons[0]?.code === 'capacity') return []
        return [
          {
            subject: device.id,
            field: null,
            text: `${model.name}${where(device.room)} does not work: ${fit.reasons.map((reason) => reason.text).join(' ')}`,
            fix: null,
          },
        ]
      }),
  },
  {
    id: 'receiver-full',
    severity: 'stops',
    waive: 'never',
    title: 'more transmitters than the receiver holds',
    source: 'Capacity of the receiver',
    stage: 'kit',
    find: (c) => {
      const beyond = c.system.devices.filter(
        ({ device }) => c.fits.get(device.id)?.reasons[0]?.code === 'capacity',
      )
      if (beyond.length === 0) return []
      const loads = receiverLoad(c.system)
      const words = loads.map(
        ({ receiver, used }) => `${receiver.model.name} holds ${receiver.model.transmitters} and has ${used}`,
      )
      return beyond.map(({ device, model }) => ({
        subject: device.id,
        field: null,
        text: `No room for ${model.name}${where(device.room)}: ${words.join(', ')}; ${beyond.length} too many.`,
        fix: null,
      }))
    },
  },
  {
    id: 'fit-loss',
    severity: 'risks',
    title: 'works with a loss',
    source: 'A plain one-way command can be recorded and sent again',
    stage: 'kit',
    find: (c) =>
      c.system.devices.flatMap(({ device }) => {
        const fit = c.fits.get(device.id)
        return fit?.verdict === 'loss'
          ? [
              {
                subject: device.id,
                field: null,
                text: fit.reasons.map((reason) => reason.text).join(' '),
                fix: null,
              },
            ]
          : []
      }),
  },
  {
    id: 'fit-unknown',
    severity: 'risks',
    title: 'cannot tell whether it fits',
    source: 'A fact is missing',
    stage: 'kit',
    find: (c) =>
      c.panel === null
        ? []
        : c.system.devices.flatMap(({ device }) => {
            const fit = c.fits.get(device.id)
            return fit?.verdict === 'unknown'
              ? [
                  {
                    subject: device.id,
                    field: null,
                    text: fit.reasons.map((reason) => reason.text).join(' '),
                    fix: null,
                  },
                ]
              : []
          }),
  },
  {
    id: 'event-without-zone',
    severity: 'stops',
    waive: 'owner',
    title: 'device event without a zone',
    source: 'An event that is not programmed is a gap: smoke alone reports neither heat nor frost',
    stage: 'zones',
    find: (c) =>
      c.system.devices.flatMap(({ device, model }) => {
        // Without a panel there are no zones to have: the job owes a panel first.
        if (!c.panel || device.deferred !== null || c.fits.get(device.id)?.verdict === 'no') return []
        const has = new Set((c.zonesOf.get(device.id) ?? []).map((view) => view.zone.event))
        const used =
          has.size > 0
            ? eventsToZone(model, c.panel).filter((loop) => !(loop.event === 'open' && has.has('terminals')))
            : eventsToZone(model, c.panel)
        const missing = used.filter((loop) => !has.has(loop.event))
        if (missing.length === 0) return []
        const names = missing.map((loop) => loop.name).join(' and ')
        return [
          {
            subject: device.id,
            field: null,
            text: `${model.name}${where(device.room)} has no zone for ${names} (loop ${missing.map((loop) => loop.loop).join(', ')}): the panel would not report it.`,
            fix: addZones(c, device.id),
          },
        ]
      }),
  },
  {
    id: 'deferred',
    severity: 'advice',
    title: 'place still open',
    source: 'A device whose place is not known is deferred, with a reason',
    stage: 'kit',
    find: (c) =>
      c.system.devices.flatMap(({ device, model }) =>
        device.deferred === null
          ? []
          : [
              {
                subject: device.id,
                field: 'deferred',
                text: `${model.name} has no place yet: ${device.deferred}.`,
                fix: null,
              },
            ],
      ),
  },
  {
    id: 'pet-too-heavy',
    severity: 'risks',
    title: 'pet heavier than the motion tolerates',
    source: 'No motion where pets roam while armed unless its setting covers their weight',
    stage: 'kit',
    find: (c) =>
      c.system.devices.flatMap(({ device, model }) => {
        const room = c.places.get(device.id)?.room ?? null
        // A described room tells whether the pet comes there; else the heaviest pet of the house may.
        const pet = room ? room.petKg : c.info.petKg
        if (model.class !== 'motion' || pet === null || pet === 0) return []
        const set = model.petSettings?.find((item) => item.setting === device.setting)
        const most = set?.kg ?? model.petKg
        if ((most ?? 0) >= pet) return []
        const better = model.petSettings?.find((item) => item.kg >= pet)
        const limit =
          most === null ? 'has no pet immunity' : `tolerates ${most} kg${set ? ` at ${set.setting}` : ''}`
        return [
          {
            subject: device.id,
            field: 'setting',
            text: `A pet of ${pet} kg lives here; ${model.name}${where(device.room)} ${limit}. Keep the pet out of the room while set, or swap the motion.`,
            fix: better
              ? { title: `Set it to ${better.setting}`, ops: [setOp(device, 'setting', better.setting)] }
              : null,
          },
        ]
      }),
  },
  {
    id: 'fob-unbound',
    severity: 'risks',
    title: 'fob bound to nobody',
    source: 'A fob does nothing until it is bound to a user',
    stage: 'zones',
    find: (c) =>
      c.system.devices.flatMap(({ device, model }) =>
        model.slot === 'fob' && device.user === null
          ? [
              {
                subject: device.id,
                field: 'user',
                text: `${model.name} is bound to no user: it will do nothing.`,
                fix: null,
              },
            ]
          : [],
      ),
  },
  {
    id: 'user-two-fobs',
    severity: 'advice',
    title: 'user with several fobs',
    source: 'Each fob is bound to one user, so that the log tells who came',
    stage: 'zones',
    find: (c) => {
      const first = new Map<string, string>()
      return c.system.devices.flatMap(({ device, model }) => {
        if (model.slot !== 'fob' || device.user === null) return []
        const known = first.get(device.user)
        if (!known) first.set(device.user, model.name)
        return known
          ? [
              {
                subject: device.id,
                field: 'user',
                text: `This user already carries a ${known}: give each person one fob, so that a lost one can be told apart.`,
                fix: null,
              },
            ]
          : []
      })
    },
  },
  {
    id: 'slot-twice',
    severity: 'stops',
    waive: 'never',
    title: 'slot used twice',
    source: 'A fob, keypad or siren slot holds one device',
    stage: 'zones',
    find: (c) => {
      const seen = new Map<string, string>()
      return c.system.devices.flatMap(({ device, model }) => {
        if (device.slot === null) return []
        const key = `${model.slot} ${device.slot}`
        const there = seen.get(key)
        seen.set(key, model.name)
        return there
          ? [
              {
                subject: device.id,
                field: 'slot',
                text: `${model.slot} slot ${device.slot} is given to ${there} and to ${model.name}.`,
                fix: {
                  title: 'Take it out of the slot; number again to find a free one',
                  ops: [setOp(device, 'slot', null)],
                },
              },
            ]
          : []
      })
    },
  },
]

/** Adds the zones that a device lacks, on the next free numbers. */
function addZones(c: Context, deviceId: string): Fix | null {
  const item = c.system.byId.get(deviceId)
  if (!c.panel || !item) return null
  const { device, model } = item
  const views = c.zonesOf.get(deviceId) ?? []
  const has = new Set(views.map((view) => view.zone.event))
  const missing = eventsToZone(model, c.panel).filter((loop) => !has.has(loop.event))
  if (model.slot === 'fob') return fobZones(c, deviceId)
  const taken = new Set(c.zones.map((view) => view.zone.number))
  const free = numbersFor(
    c.doc,
    c.system,
    model.family === null ? 'wired' : 'wireless',
    c.rules.schools.wiredBlock,
  ).filter((number) => !taken.has(number))
  if (free.length < missing.length) return null
  const labels = new Set(c.zones.map((view) => labelKey(c.panel?.label ?? null, view.zone.label)))
  const ops = missing.map((loop, index) => {
    const record = newZone({
      doc: c.doc,
      system: c.system,
      panel: c.panel as NonNullable<typeof c.panel>,
      rules: c.rules,
      item: { device, model },
      loop,
      number: free[index] as number,
      id: `zone:${device.id.slice(7)}-${loop.loop}`,
      labels,
      first: index === 0 && views.length === 0,
    })
    labels.add(labelKey(c.panel?.label ?? null, record.label))
    return { op: 'add' as const, record }
  })
  return {
    title: `Add ${missing.length === 1 ? 'the zone' : `${missing.length} zones`}: ${missing.map((loop) => loop.name).join(', ')}`,
    ops,
  }
}

/** A fob's buttons come as one group: take what numbering would give them. */
function fobZones(c: Context, deviceId: string): Fix | null {
  const plan = numberAll(c.doc, c.catalogue, { newId: sequence(deviceId), houseRules: c.houseRules })
  const ops = plan.ops.filter(
    (op) => op.op === 'add' && op.record.type === 'zone' && op.record.device === deviceId,
  )
  return ops.length === 0 ? null : { title: `Add its ${ops.length} button zones`, ops }
}

function sequence(deviceId: string): () => string {
  let count = 0
  return () => `zone:${deviceId.slice(7)}-b${(count += 1)}`
}

function where(room: string): string {
  return room === '' ? '' : ` in ${room}`
}
