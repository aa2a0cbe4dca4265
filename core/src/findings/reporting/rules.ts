import type { AlarmKind } from '../../catalogue/schema.ts'
import { setOp } from '../../job/edit.ts'
import type { Context, ZoneView } from '../context.ts'
import type { Found, RulesOf } from '../finding.ts'
import { useAdvisedType } from '../response/use-type.ts'

/** What the rules on sound and report find. */
export interface ReportingFacts {
  readonly 'held-back': {
    readonly zone: string
    readonly kind: AlarmKind
    /** By how long; null where no time is set. */
    readonly seconds: number | null
  }
  readonly 'silent-unreported': { readonly zone: string; readonly monitored: boolean }
  readonly 'silent-call-loud': { readonly zone: string; readonly type: string }
  readonly 'loud-call-silent': { readonly zone: string; readonly type: string }
  readonly 'call-unreported': { readonly zone: string; readonly kind: AlarmKind }
  readonly 'burglary-unreported': { readonly zones: readonly string[] }
  readonly 'silent-siren': {
    readonly zone: string
    /** Siren outputs; null for all. */
    readonly outputs: readonly number[] | null
  }
  readonly 'siren-none': { readonly zone: string; readonly type: string }
  readonly 'report-mixed': { readonly zone: string; readonly report: boolean; readonly wanted: boolean }
  readonly 'chime-wrong': { readonly zone: string; readonly event: string }
  readonly 'chime-style': {
    readonly zone: string
    readonly style: string
    readonly panel: string
    readonly styles: readonly string[]
  }
}

/** Rules on who hears of an alarm: sirens, chime, the station. */
export const reportingRules: RulesOf<ReportingFacts> = {
  'held-back': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'kind', 'seconds'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const kind = view.advice?.need.kind ?? view.type?.kind
        if (!view.zone.transmissionDelay || kind === undefined || !atOnce.has(kind)) return []
        return [
          {
            subject: view.zone.id,
            field: 'transmissionDelay',
            facts: { zone: view.number, kind, seconds: c.info.abortWindow },
            fix: {
              does: 'send-at-once' as const,
              facts: {},
              ops: [setOp(view.zone, 'transmissionDelay', false)],
            },
          },
        ]
      }),
  },
  'silent-unreported': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'monitored'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const { monitored } = c.info
        if (view.type?.sound !== 'silent' || (view.zone.report && monitored)) return []
        return [
          {
            subject: view.zone.id,
            field: 'report',
            facts: { zone: view.number, monitored },
            fix:
              monitored && !view.zone.report
                ? { does: 'report' as const, facts: {}, ops: [setOp(view.zone, 'report', true)] }
                : null,
          },
        ]
      }),
  },
  'silent-call-loud': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'type'],
    find: (c) => calls(c, true),
  },
  'loud-call-silent': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'type'],
    find: (c) => calls(c, false),
  },
  'call-unreported': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'kind'],
    find: (c) =>
      unreported(c, (view) => view.type?.sound !== 'silent').flatMap((view) => {
        const kind = view.advice?.need.kind
        if (kind === undefined || !mustBeHeard.has(kind)) return []
        return [
          {
            subject: view.zone.id,
            field: 'report',
            facts: { zone: view.number, kind },
            fix: { does: 'report' as const, facts: {}, ops: [setOp(view.zone, 'report', true)] },
          },
        ]
      }),
  },
  'burglary-unreported': {
    severity: 'advice',
    stage: 'zones',
    key: ['zones'],
    find: (c) => {
      const quiet = unreported(c, (view) => view.type?.kind === 'burglary' && view.trips?.away !== 'alert')
      if (quiet.length === 0) return []
      const fix = {
        does: 'report' as const,
        facts: {},
        ops: quiet.map(({ zone }) => setOp(zone, 'report', true)),
      }
      return [{ subject: 'job:main', field: null, facts: { zones: quiet.map(({ number }) => number) }, fix }]
    },
  },
  'silent-siren': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'outputs'],
    find: (c) =>
      sirenZones(c, (view) => {
        const outputs = view.zone.sirens
        if (view.type?.sound !== 'silent' || outputs?.length === 0) return []
        return [
          {
            ...{ subject: view.zone.id, field: 'sirens', facts: { zone: view.number, outputs } },
            fix: { does: 'no-sirens', facts: {}, ops: [setOp(view.zone, 'sirens', [])] },
          },
        ]
      }),
  },
  'siren-none': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'type'],
    find: (c) =>
      sirenZones(c, (view) => {
        const { type } = view
        const loud = type && !['silent', 'none'].includes(type.sound)
        if (!loud || view.zone.sirens === null || view.zone.sirens.length > 0) return []
        return [
          {
            ...{ subject: view.zone.id, field: 'sirens', facts: { zone: view.number, type: type.name } },
            fix: { does: 'all-sirens', facts: {}, ops: [setOp(view.zone, 'sirens', null)] },
          },
        ]
      }),
  },
  'report-mixed': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'report', 'wanted'],
    find: (c) => {
      if (c.info.monitored) return []
      const wanted = c.rules.schools.localReport === 'on'
      return c.zones.flatMap((view) => {
        const { report } = view.zone
        // A silent zone that reports to nobody is found as that, and its report is no mixture.
        if (report === wanted || view.type?.hides.includes('report') || view.type?.sound === 'silent')
          return []
        return [
          {
            ...{ subject: view.zone.id, field: 'report', facts: { zone: view.number, report, wanted } },
            fix: {
              does: 'report-like-others' as const,
              facts: { on: wanted },
              ops: [setOp(view.zone, 'report', wanted)],
            },
          },
        ]
      })
    },
  },
  'chime-wrong': {
    severity: 'advice',
    stage: 'zones',
    key: ['zone', 'event'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const { loop } = view
        const opening = loop?.event === 'open' || loop?.event === 'terminals'
        if (!view.zone.chime || !loop || opening || view.type?.hides.includes('chime')) return []
        return [
          {
            ...{ subject: view.zone.id, field: 'chime', facts: { zone: view.number, event: loop.name } },
            fix: { does: 'chime-off' as const, facts: {}, ops: [setOp(view.zone, 'chime', false)] },
          },
        ]
      }),
  },
  'chime-style': {
    severity: 'advice',
    stage: 'zones',
    key: ['zone', 'style', 'panel'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const style = view.zone.chimeStyle
        const styles = c.panel?.couplings?.chimeStyles ?? []
        if (style === null || !c.panel || styles.some((item) => item.key === style)) return []
        const names = styles.map((item) => item.name)
        return [
          {
            subject: view.zone.id,
            field: 'chimeStyle',
            facts: { zone: view.number, style, panel: c.panel.name, styles: names },
            fix: { does: 'first-chime' as const, facts: {}, ops: [setOp(view.zone, 'chimeStyle', null)] },
          },
        ]
      }),
  },
}

/** Kinds of which somebody must hear who can come; fire and gas have a rule of their own. */
const mustBeHeard: ReadonlySet<AlarmKind> = new Set(['panic', 'medical', 'auxiliary'])

/** Calls for help that sound although they must not, or make no sound although they must. */
function calls(c: Context, silent: boolean): Found<{ readonly zone: string; readonly type: string }>[] {
  return c.zones.flatMap((view) => {
    const { type, advice, zone, number } = view
    if (type?.kind !== 'panic' || advice?.need.kind !== 'panic') return []
    if (advice.need.silent !== silent || (type.sound === 'silent') === silent) return []
    const facts = { zone: number, type: type.name }
    return [{ subject: zone.id, field: 'response', facts, fix: useAdvisedType(c, view) }]
  })
}

/** Zones of a monitored job whose report is off although their type has one. */
function unreported(c: Context, which: (view: ZoneView) => boolean): ZoneView[] {
  if (!c.info.monitored) return []
  return c.zones.filter(
    (view) => view.type !== null && !view.zone.report && !view.type.hides.includes('report') && which(view),
  )
}

/** Kinds whose report must go out at once. */
const atOnce: ReadonlySet<string> = new Set(['fire', 'gas', 'panic', 'medical', 'auxiliary'])

function sirenZones<F>(c: Context, find: (view: ZoneView) => readonly Found<F>[]): Found<F>[] {
  return c.panel?.couplings?.sirenOutputs ? c.zones.flatMap((view) => find(view)) : []
}
