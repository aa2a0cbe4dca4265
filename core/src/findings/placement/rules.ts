import { setOp } from '../../job/edit.ts'
import type { Room, Use } from '../../job/records.ts'
import type { NeededFact, PlaceFact } from '../../premises/places.ts'
import { openingName } from '../../premises/house.ts'
import { isWindowLike } from '../../premises/opening-names.ts'
import { MOTION_HEIGHT, ON_STEEL } from '../../proof/mounting.ts'
import type { Context } from '../context.ts'
import type { Found, RulesOf } from '../finding.ts'

/** Assumed of unheated rooms unless the job says otherwise, °C (usual practice). */
const UNHEATED = { from: -10, to: 45 }

/** A device in its room. */
interface Placed {
  readonly model: string
  readonly room: string
}

/** What the rules on places find. Lengths in m or mm, temperatures in °C, weights in kg. */
export interface PlacementFacts {
  readonly 'metal-building': Placed
  readonly 'too-cold': Placed & {
    /** Null for a heated room. */
    readonly cold: number | null
    readonly hot: number
    /** Null for an end that is not stated. */
    readonly from: number | null
    readonly to: number | null
  }
  readonly 'not-for-outdoors': Placed
  readonly 'motion-unheated': Placed
  readonly 'motion-height': Placed & { readonly m: number; readonly from: number; readonly to: number }
  readonly 'gap-too-wide': Placed & {
    readonly mm: number
    readonly usable: number
    readonly stated: boolean
    /** What is left of it on steel; null where it sits on none. */
    readonly onSteel: number | null
  }
  readonly 'sensitivity-high': Placed & { readonly setting: string; readonly begin: string }
  readonly 'pet-too-heavy': Placed & {
    readonly kg: number
    /** What it tolerates; null for no pet immunity. */
    readonly tolerates: number | null
    readonly setting: string | null
  }
  /** A motion with pet settings of which none is noted, where a pet lives. */
  readonly 'pet-setting': Placed & {
    readonly kg: number
    readonly offers: readonly { readonly setting: string; readonly kg: number }[]
  }
  readonly 'use-differs': Placed & {
    readonly said: Use
    readonly derived: Use
    readonly why: PlaceFact | null
  }
  /** Contacts and motions whose use nobody stated, in a house that nobody described. */
  readonly 'use-unstated': { readonly devices: readonly string[] }
  readonly 'window-way-in': { readonly opening: string; readonly use: 'everyday' | 'occasional' }
  readonly 'fact-missing': Placed & {
    readonly needed: readonly NeededFact[]
    /** What is assumed meanwhile; null when nothing can be. */
    readonly assumed: PlaceFact | null
  }
}

/** Rules on where devices are mounted. */
export const placementRules: RulesOf<PlacementFacts> = {
  'metal-building': {
    severity: 'stops',
    waive: 'never',
    stage: 'kit',
    key: ['model', 'room'],
    find: (c) =>
      eachDevice(c, ({ device, model, family }) => {
        const room = c.places.get(device.id)?.room
        if (!room?.metal || !family) return []
        return [at(device.id, 'room', { model: model.name, room: device.room })]
      }),
  },
  'too-cold': {
    severity: 'risks',
    stage: 'kit',
    key: ['model', 'room', 'cold', 'hot', 'from', 'to'],
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        const room = c.places.get(device.id)?.room
        const climate = room && climateOf(c, room)
        if (!room || !climate) return []
        const { cold, hot } = climate
        const { from = null, to = null } = model.temperatureC
        // An end that nobody states is no comfort.
        const bearsCold = cold === null || (from !== null && from <= cold)
        if (bearsCold && to !== null && to >= hot) return []
        return [at(device.id, 'room', { model: model.name, room: room.name, cold, hot, from, to })]
      }),
  },
  'not-for-outdoors': {
    severity: 'risks',
    stage: 'kit',
    key: ['model', 'room'],
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        const room = c.places.get(device.id)?.room
        if (room?.kind !== 'outdoors' || model.outdoor === true || model.carried) return []
        return [at(device.id, 'room', { model: model.name, room: room.name })]
      }),
  },
  'motion-unheated': {
    severity: 'risks',
    stage: 'kit',
    key: ['model', 'room'],
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        const room = c.places.get(device.id)?.room
        const shed = room && !room.heated && ['garage', 'store', 'workshop', 'outdoors'].includes(room.kind)
        if (!shed || model.class !== 'motion' || model.outdoor === true) return []
        return [at(device.id, 'room', { model: model.name, room: room.name })]
      }),
  },
  'motion-height': {
    severity: 'advice',
    stage: 'kit',
    key: ['model', 'room', 'm'],
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        const m = device.heightM
        if (model.class !== 'motion' || m === null) return []
        if (m >= MOTION_HEIGHT.from && m <= MOTION_HEIGHT.to) return []
        return [at(device.id, 'heightM', { model: model.name, room: device.room, m, ...MOTION_HEIGHT })]
      }),
  },
  'gap-too-wide': {
    severity: 'risks',
    stage: 'kit',
    key: ['model', 'room', 'mm', 'usable', 'onSteel'],
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        const mm = device.gapMm
        if (model.class !== 'contact' || mm === null) return []
        const usable = model.magnetGapMm ?? c.rules.figures.usualGapMm
        const onSteel = device.onSteel ? usable * ON_STEEL : null
        if (mm <= (onSteel ?? usable)) return []
        const stated = model.magnetGapMm !== null
        return [at(device.id, 'gapMm', { model: model.name, room: device.room, mm, usable, stated, onSteel })]
      }),
  },
  'sensitivity-high': {
    severity: 'advice',
    stage: 'kit',
    key: ['model', 'room', 'setting'],
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        const steps = model.sensitivity ?? []
        const index = steps.indexOf(device.setting ?? '')
        if (steps.length < 2 || index < Math.ceil(steps.length / 2)) return []
        const begin = steps[Math.max(0, Math.ceil(steps.length / 2) - 1)] ?? ''
        const facts = { model: model.name, room: device.room, setting: device.setting ?? '', begin }
        return [
          {
            ...at(device.id, 'setting', facts),
            fix: {
              does: 'set-setting',
              facts: { setting: begin },
              ops: [setOp(device, 'setting', begin)],
            },
          },
        ]
      }),
  },
  'pet-too-heavy': {
    severity: 'risks',
    stage: 'kit',
    key: ['model', 'room', 'kg', 'tolerates', 'setting'],
    find: (c) => eachDevice(c, (item) => heavyPet(c, item)),
  },
  'pet-setting': {
    severity: 'advice',
    stage: 'kit',
    key: ['model', 'room', 'kg'],
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        const kg = petThere(c, device.id)
        const settings = model.petSettings ?? []
        if (device.setting !== null || kg === null || kg === 0 || settings.length === 0) return []
        const [least] = settings.filter((one) => one.kg >= kg).sort((a, b) => a.kg - b.kg)
        const offers = settings.map((one) => ({ setting: one.setting, kg: one.kg }))
        const facts = { model: model.name, room: device.room, kg, offers }
        return [
          {
            ...at(device.id, 'setting', facts),
            fix: least
              ? {
                  does: 'set-setting' as const,
                  facts: { setting: least.setting },
                  ops: [setOp(device, 'setting', least.setting)],
                }
              : null,
          },
        ]
      }),
  },
  'use-differs': {
    severity: 'advice',
    stage: 'zones',
    key: ['model', 'room', 'said', 'derived'],
    find: (c) =>
      eachDevice(c, ({ device, model }) => {
        const place = c.places.get(device.id)
        if (
          !place?.derived ||
          device.use === 'none' ||
          device.use === 'always-on' ||
          place.derived === device.use
        )
          return []
        // Night use is a wish, not something that the rooms tell.
        if (device.use === 'on-way-night' && place.derived !== 'off-way') return []
        const { derived, why } = place
        return [
          {
            ...at(device.id, 'use', {
              ...{ model: model.name, room: device.room },
              ...{ said: device.use, derived, why },
            }),
            fix: { does: 'change-use', facts: { use: derived }, ops: [setOp(device, 'use', derived)] },
          },
        ]
      }),
  },
  'use-unstated': {
    severity: 'advice',
    stage: 'survey',
    key: ['devices'],
    find: (c) => {
      // A described house tells, or asks for the fact that it lacks.
      if (c.house.rooms.length > 0) return []
      const unsaid = c.system.devices.filter(
        ({ device, model }) =>
          device.use === 'none' && device.deferred === null && ['contact', 'motion'].includes(model.class),
      )
      if (unsaid.length === 0) return []
      const devices = unsaid.map(
        ({ device, model }) => `${model.name}${device.room === '' ? '' : ` in ${device.room}`}`,
      )
      return [at('premises', 'use', { devices })]
    },
  },
  'window-way-in': {
    severity: 'risks',
    stage: 'survey',
    key: ['opening', 'use'],
    find: (c) =>
      c.house.doors.flatMap((opening) =>
        opening.use !== 'never' && isWindowLike(opening.name)
          ? [
              {
                ...{ subject: opening.id, field: 'use' },
                facts: { opening: openingName(opening, c.house), use: opening.use },
                fix: { does: 'no-way-in' as const, facts: {}, ops: [setOp(opening, 'use', 'never')] },
              },
            ]
          : [],
      ),
  },
  'fact-missing': {
    severity: 'advice',
    stage: 'survey',
    key: ['model', 'room', 'needed'],
    find: (c) =>
      c.house.rooms.length === 0
        ? []
        : eachDevice(c, ({ device, model }) => {
            const place = c.places.get(device.id)
            if (!place || device.use !== 'none' || device.deferred !== null || place.missing.length === 0)
              return []
            const subject = place.missing[0]?.at === 'premises' ? 'premises' : device.id
            const facts = {
              ...{ model: model.name, room: device.room },
              needed: place.missing.map((item) => item.fact),
              assumed: place.derived === null ? null : place.why,
            }
            return [at(subject, 'use', facts)]
          }),
  },
}

/** Between which temperatures a room is, °C; no coldest one where it is heated. Null where nothing more than any room is asked. */
function climateOf({ info }: Context, room: Room): { cold: number | null; hot: number } | null {
  const unheated = !room.heated || room.kind === 'outdoors'
  if (!unheated && room.hottestC === null) return null
  return {
    cold: unheated ? (info.unheatedFrom ?? UNHEATED.from) : null,
    hot: room.hottestC ?? info.unheatedTo ?? UNHEATED.to,
  }
}

type Item = Context['system']['devices'][number]

function heavyPet(c: Context, { device, model }: Item): Found<PlacementFacts['pet-too-heavy']>[] {
  const kg = petThere(c, device.id)
  if (model.class !== 'motion' || kg === null || kg === 0) return []
  const set = model.petSettings?.find((item) => item.setting === device.setting)
  const tolerates = set?.kg ?? model.petKg
  if ((tolerates ?? 0) >= kg) return []
  const better = model.petSettings?.find((item) => item.kg >= kg)
  const facts = { model: model.name, room: device.room, kg, tolerates, setting: set?.setting ?? null }
  return [
    {
      ...at(device.id, 'setting', facts),
      fix: better
        ? {
            does: 'set-setting',
            facts: { setting: better.setting },
            ops: [setOp(device, 'setting', better.setting)],
          }
        : null,
    },
  ]
}

/** A described room tells whether the pet comes there; else the heaviest pet of the house may. */
function petThere(c: Context, device: string): number | null {
  const room = c.places.get(device)?.room
  return room ? room.petKg : c.info.petKg
}

function eachDevice<F>(c: Context, find: (item: Item) => readonly Found<F>[]): readonly Found<F>[] {
  return c.system.devices.flatMap((item) => find(item))
}

function at<F>(subject: string, field: string, facts: F): Found<F> {
  return { subject, field, facts, fix: null }
}
