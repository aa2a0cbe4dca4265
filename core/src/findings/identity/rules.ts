import { groupId } from '../../identity/sticker.ts'
import { enrolmentOf, isDeviceKnown, learnedSerial } from '../../job/enrolment.ts'
import { evidenceOf } from '../../job/evidence.ts'
import type { Context } from '../context.ts'
import type { Found, RulesOf } from '../finding.ts'
import { here } from '../words/plural.ts'

/** What the rules on IDs find; IDs in the groups of their stickers. */
export interface IdentityFacts {
  readonly 'sticker-differs': { readonly zone: string; readonly learned: string; readonly sticker: string }
  readonly 'serial-elsewhere': { readonly serial: string; readonly job: string }
  /** Two devices that the panel knows, or is told to know, by one ID. */
  readonly 'serial-twice': Pair & { readonly serial: string }
  /** Two devices with one sticker. */
  readonly 'sticker-twice': Pair & { readonly sticker: string }
  /** One device whose zones are known by two IDs. */
  readonly 'two-serials': {
    readonly zone: string
    readonly serial: string
    readonly first: string
    readonly other: string
    readonly model: string
  }
  /** Two IDs that were accepted for one target, and no sticker to tell which is right; `of` is how the target is called. */
  readonly 'two-readings': { readonly of: string; readonly serial: string; readonly other: string }
  readonly 'replaced-beside': { readonly model: string; readonly room: string; readonly successor: string }
}

interface Pair {
  readonly device: Named
  readonly first: Named
}

/** A device by what tells it from its sisters. */
interface Named {
  readonly model: string
  readonly room: string
  readonly position: string
}

/** Rules on IDs: the learned one is the sticker’s, and belongs to one device of this job alone. */
export const identityRules: RulesOf<IdentityFacts> = {
  'sticker-differs': {
    severity: 'stops',
    stage: 'enrol',
    key: ['zone', 'learned', 'sticker'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const { device, zone, family } = view
        const serial = learnedSerial(c.doc, zone.id)
        if (!device?.sticker || !serial || device.sticker === serial) return []
        return [
          {
            subject: zone.id,
            field: 'serial',
            facts: {
              zone: view.number,
              learned: groupId(family, serial),
              sticker: groupId(family, device.sticker),
            },
            fix: null,
          },
        ]
      }),
  },
  'serial-elsewhere': {
    severity: 'risks',
    stage: 'enrol',
    key: ['serial', 'job'],
    find: (c) =>
      (c.elsewhere ?? []).flatMap(({ serial, job }) => {
        const device = c.system.devices.find(
          (item) => item.device.sticker === serial || learnedSerial(c.doc, item.device.id) === serial,
        )
        const view = c.zones.find((item) => learnedSerial(c.doc, item.zone.id) === serial)
        const subject = view?.zone.id ?? device?.device.id
        if (!subject) return []
        const family = view?.family ?? device?.family ?? null
        return [{ subject, field: null, facts: { serial: groupId(family, serial), job }, fix: null }]
      }),
  },
  'serial-twice': {
    severity: 'stops',
    waive: 'never',
    stage: 'enrol',
    key: ['device', 'first', 'serial'],
    find: (c) =>
      laterOf(c, serialsOfDevice).map(({ item, first, id }) => ({
        subject: item.device.id,
        field: null,
        facts: { device: named(item), first: named(first), serial: groupId(item.family, id) },
        fix: null,
      })),
  },
  'sticker-twice': {
    severity: 'stops',
    waive: 'never',
    stage: 'enrol',
    key: ['device', 'first', 'sticker'],
    find: (c) =>
      laterOf(c, (_, { device }) => (device.sticker ? [device.sticker] : []))
        // Once both are known by it, that is the one finding.
        .filter(({ item, first, id }) => ![item, first].every((one) => serialsOfDevice(c, one).includes(id)))
        .map(({ item, first, id }) => ({
          subject: item.device.id,
          field: 'sticker',
          facts: { device: named(item), first: named(first), sticker: groupId(item.family, id) },
          fix: null,
        })),
  },
  'two-serials': {
    severity: 'stops',
    stage: 'enrol',
    key: ['zone', 'serial', 'other'],
    find: (c) =>
      [...c.zonesOf.values()].flatMap((views): Found<IdentityFacts['two-serials']>[] => {
        const known = views.flatMap((view) => {
          const serial = learnedSerial(c.doc, view.zone.id)
          return serial && view.model ? [{ view, serial, model: view.model.name }] : []
        })
        const [first] = known
        const odd = known.find(({ serial }) => serial !== first?.serial)
        if (!first || !odd) return []
        const { family, number } = odd.view
        const facts = {
          ...{ zone: number, serial: groupId(family, odd.serial), model: odd.model },
          ...{ first: first.view.number, other: groupId(family, first.serial) },
        }
        return [{ subject: odd.view.zone.id, field: 'serial', facts, fix: null }]
      }),
  },
  'two-readings': {
    severity: 'stops',
    stage: 'enrol',
    key: ['of', 'serial', 'other'],
    find: (c) => {
      const tripped = lastTrips(c)
      return c.system.devices.flatMap(({ device, model, family }) => {
        if (device.sticker !== null) return []
        const zones = c.zonesOf.get(device.id) ?? []
        const targets = [
          ...zones.map(({ zone, number }) => ({ id: zone.id, of: `Zone ${number}` })),
          { id: device.id, of: `${model.name}${here(device.room)}` },
        ]
        return targets.flatMap(({ id, of }) => {
          const known = enrolmentOf(c.doc, id)
          // A trip at its place shows which of the two hangs there.
          if (known?.other == null || (tripped.get(id) ?? '') > known.evidence.at) return []
          const facts = { of, serial: groupId(family, known.serial), other: groupId(family, known.other) }
          return [{ subject: id, field: 'serial', facts, fix: null }]
        })
      })
    },
  },
  'replaced-beside': {
    severity: 'risks',
    stage: 'enrol',
    key: ['model', 'room', 'successor'],
    find: (c) =>
      c.system.devices.flatMap((old) => {
        if (old.device.plan !== 'replace' || !isDeviceKnown(c.doc, old.device.id)) return []
        const next = c.system.devices.find(
          (item) => succeeds(item, old) && isDeviceKnown(c.doc, item.device.id),
        )
        if (!next) return []
        const facts = { model: old.model.name, room: old.device.room, successor: next.model.name }
        return [{ subject: old.device.id, field: 'plan', facts, fix: null }]
      }),
  },
}

type Item = Context['system']['devices'][number]

/** Every ID that the panel knows a device by, in its slot or on its zones. */
function serialsOfDevice(c: Context, { device }: Item): readonly string[] {
  const zones = c.zonesOf.get(device.id) ?? []
  const all = [device.id, ...zones.map(({ zone }) => zone.id)].flatMap((id) => learnedSerial(c.doc, id) ?? [])
  return [...new Set(all)]
}

/** Each device with an ID that an earlier one of its family has already, once for every ID. */
function laterOf(
  c: Context,
  idsOf: (c: Context, item: Item) => readonly string[],
): { readonly item: Item; readonly first: Item; readonly id: string }[] {
  const firsts = new Map<string, Item>()
  return c.system.devices.flatMap((item) =>
    idsOf(c, item).flatMap((id) => {
      const key = `${item.model.family ?? ''} ${id}`
      const first = firsts.get(key)
      if (!first) firsts.set(key, item)
      return first ? [{ item, first, id }] : []
    }),
  )
}

/** Whether a device stands in the place of another that is to be replaced: one of its class, in its room, at its opening. */
function succeeds({ device, model }: Item, old: Item): boolean {
  const { room, opening, position } = old.device
  if (device.id === old.device.id || device.plan === 'replace' || model.class !== old.model.class)
    return false
  if (device.room !== room || room === '') return false
  return opening !== null && device.opening !== null
    ? device.opening === opening
    : position === '' || device.position === '' || device.position === position
}

function named({ model, device }: Item): Named {
  return { model: model.name, room: device.room, position: device.position }
}

/** When the event of each zone or device was last seen at the panel, ISO 8601. */
function lastTrips(c: Context): ReadonlyMap<string, string> {
  const seen = evidenceOf(c.doc, 'test').filter(
    ({ kind, outcome }) => ['armed', 'agent', 'trip', 'button'].includes(kind) && outcome === 'pass',
  )
  return new Map(seen.map(({ subject, at }) => [subject, at]))
}
