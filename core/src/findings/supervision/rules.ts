import { setOp } from '../../job/edit.ts'
import { kindOf } from '../../response/advise.ts'
import type { Context } from '../context.ts'
import type { RulesOf } from '../finding.ts'

/** What the rules on supervision find; minutes. */
export interface SupervisionFacts {
  readonly 'carried-supervised': { readonly zone: string; readonly class: string }
  readonly 'fixed-unsupervised': { readonly zone: string; readonly model: string }
  readonly 'supervision-window':
    | {
        readonly too: 'long'
        readonly window: number
        /** What it is measured by, in either case: the longest allowed, or the slowest check-in. */
        readonly least: number
        readonly asks: Asking
        readonly most: number
        readonly grade: number
      }
    | {
        readonly too: 'short'
        readonly window: number
        readonly least: number
        readonly model: string
        readonly checkIn: number
        /** Further models that check in too rarely. */
        readonly more: number
      }
}

/** Who asks for a longest silence. */
type Asking = 'grade' | 'household-fire' | 'household-burglary'

/** Rules on who is missed when it falls silent, and after how long. */
export const supervisionRules: RulesOf<SupervisionFacts> = {
  'carried-supervised': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone'],
    find: (c) =>
      c.zones.flatMap((view) => {
        if (!view.model?.carried || !view.zone.supervise || view.type?.hides.includes('supervise')) return []
        return [
          {
            subject: view.zone.id,
            field: 'supervise',
            facts: { zone: view.number, class: view.model.class },
            fix: {
              does: 'no-supervision' as const,
              facts: {},
              ops: [setOp(view.zone, 'supervise', false)],
            },
          },
        ]
      }),
  },
  'fixed-unsupervised': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'model'],
    find: (c) =>
      [...c.zonesOf.values()].flatMap((views) => {
        const [view] = views
        if (!view?.family || view.model?.carried || view.model?.slot !== 'none') return []
        if (views.some((item) => item.zone.supervise || !item.type || item.type.hides.includes('supervise')))
          return []
        // A fire or gas device has a rule of its own, which stops.
        if (views.some((item) => item.loop && ['fire', 'gas'].includes(kindOf(item.loop.event)))) return []
        return [
          {
            subject: view.zone.id,
            field: 'supervise',
            facts: { zone: view.number, model: view.model.name },
            fix: { does: 'supervise' as const, facts: {}, ops: [setOp(view.zone, 'supervise', true)] },
          },
        ]
      }),
  },
  'supervision-window': {
    severity: 'risks',
    stage: 'zones',
    key: ['too', 'window', 'least'],
    find: (c) => {
      const window = c.info.superviseMinutes
      if (window === null) return []
      const { minutes: most, asks } = longestSilence(c)
      const at = { subject: 'job:main', field: 'superviseMinutes' }
      if (window > most)
        return [
          {
            ...at,
            facts: { too: 'long', window, least: most, asks, most, grade: c.info.grade },
            fix: {
              does: 'lost-after',
              facts: { minutes: most },
              ops: [setOp(c.info, 'superviseMinutes', most)],
            },
          },
        ]
      const slow = c.system.devices.flatMap(({ device, model }) =>
        model.checkInMinutes != null && device.deferred === null && 3 * model.checkInMinutes > window
          ? [{ model: model.name, checkIn: model.checkInMinutes }]
          : [],
      )
      const [first] = slow
      if (!first) return []
      return [
        {
          ...at,
          facts: { too: 'short', window, least: first.checkIn, ...first, more: slow.length - 1 },
          fix: null,
        },
      ]
    },
  },
}

/** Longest silence before a device counts as lost: by grade in Europe, by the gravest kind of device in a US household. */
function longestSilence(c: Context): { readonly minutes: number; readonly asks: Asking } {
  if (c.info.region === 'europe') return { minutes: { 1: 60, 2: 20, 3: 1 }[c.info.grade], asks: 'grade' }
  return c.zones.some((view) => view.advice?.need.kind === 'fire')
    ? { minutes: 240, asks: 'household-fire' }
    : { minutes: 1440, asks: 'household-burglary' }
}
