import { setOp } from '../../job/edit.ts'
import type { Context } from '../context.ts'
import type { Found, RulesOf } from '../finding.ts'

/** What the rules on fobs, slots and users find. */
export interface SlotFacts {
  readonly 'fob-unbound': { readonly model: string }
  readonly 'user-two-fobs': { readonly first: string }
  readonly 'slot-twice': {
    readonly kind: string
    readonly slot: number
    readonly first: string
    readonly second: string
  }
  readonly 'fob-store': {
    readonly model: string
    readonly room: string
    /** Whether the panel can have it there at all. */
    readonly can: boolean
    readonly panel: string
  }
}

/** Rules on fobs, slots and users: one each. */
export const slotRules: RulesOf<SlotFacts> = {
  'fob-unbound': {
    severity: 'risks',
    stage: 'zones',
    key: ['model'],
    find: (c) =>
      c.system.devices.flatMap(({ device, model }) =>
        model.slot === 'fob' && device.user === null
          ? [{ subject: device.id, field: 'user', facts: { model: model.name }, fix: null }]
          : [],
      ),
  },
  'user-two-fobs': {
    severity: 'advice',
    stage: 'zones',
    key: ['first'],
    find: (c) => {
      const firsts = new Map<string, string>()
      return c.system.devices.flatMap(({ device, model }) => {
        if (model.slot !== 'fob' || device.user === null) return []
        const first = firsts.get(device.user)
        if (!first) firsts.set(device.user, model.name)
        return first ? [{ subject: device.id, field: 'user', facts: { first }, fix: null }] : []
      })
    },
  },
  'slot-twice': {
    severity: 'stops',
    waive: 'never',
    stage: 'zones',
    key: ['kind', 'slot'],
    find: (c) => {
      const seen = new Map<string, string>()
      return c.system.devices.flatMap(({ device, model }) => {
        if (device.slot === null) return []
        const key = `${model.slot} ${device.slot}`
        const first = seen.get(key)
        seen.set(key, model.name)
        return first
          ? [
              {
                subject: device.id,
                field: 'slot',
                facts: { kind: model.slot, slot: device.slot, first, second: model.name },
                ...slotWays(c, { device, model }),
              },
            ]
          : []
      })
    },
  },
  'fob-store': {
    severity: 'risks',
    stage: 'kit',
    key: ['model', 'can', 'panel'],
    find: (c) =>
      c.system.devices.flatMap(({ device, model }) => {
        if (device.storedIn !== 'keypad' || model.slot !== 'fob') return []
        const can = c.panel?.couplings?.fobsInKeypad === true
        if (can && c.rules.schools.fobStore === 'keypad') return []
        return [
          {
            subject: device.id,
            field: 'storedIn',
            facts: { model: model.name, room: device.room, can, panel: c.panel?.name ?? 'the panel' },
            fix: {
              does: 'store-in-panel' as const,
              facts: {},
              ops: [setOp(device, 'storedIn', 'panel')],
            },
          },
        ]
      }),
  },
}

/** The next free slot of its kind, or out of the slot. */
function slotWays(
  { panel, system }: Context,
  { device, model }: Pick<Context['system']['devices'][number], 'device' | 'model'>,
): Pick<Found<SlotFacts['slot-twice']>, 'fix' | 'others'> {
  const leave = { does: 'leave-slot' as const, facts: {}, ops: [setOp(device, 'slot', null)] }
  const { fobs, keypads, sirens } = panel?.slots ?? {}
  const count = { fob: fobs?.count, keypad: keypads?.count, siren: sirens?.count, none: 0 }[model.slot] ?? 0
  const taken = new Set(
    system.devices.flatMap((item) => (item.model.slot === model.slot ? (item.device.slot ?? []) : [])),
  )
  const slot = Array.from({ length: count }, (_, index) => index + 1).find((number) => !taken.has(number))
  if (slot === undefined) return { fix: leave }
  return {
    fix: { does: 'give-slot', facts: { slot }, ops: [setOp(device, 'slot', slot)] },
    others: [leave],
  }
}
