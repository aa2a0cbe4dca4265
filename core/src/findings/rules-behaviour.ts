import type { TemporaryState } from '../job/records.ts'
import { stateAbout, stateRules } from '../proof/states.ts'
import { kindOf } from '../response/advise.ts'
import { setOp, type Context, type Found, type Rule, type ZoneView } from './context.ts'
import { upper } from './words.ts'

/** Rules on what zones do beside their response type: inputs, sirens, report, chime, supervision, fire departures. */
export const behaviourRules: readonly Rule[] = [
  {
    id: 'switches-off',
    severity: 'stops',
    waive: 'never',
    title: 'contact with all its inputs off',
    source: 'With reed and terminals both off it never trips',
    stage: 'zones',
    find: (c) =>
      withSwitches(c, (view) => {
        if (view.zone.reedOn === true || view.zone.terminalsOn === true) return []
        const field = view.model?.switches?.some((item) => item.switch === 'reed') ? 'reedOn' : 'terminalsOn'
        return [
          {
            ...at(view, field, `${view.name} has reed and terminals off: it never trips.`),
            fix: {
              title: `Switch the ${field === 'reedOn' ? 'reed' : 'terminals'} on`,
              ops: [setOp(view.zone, field, true)],
            },
          },
        ]
      }),
  },
  {
    id: 'end-of-line-alone',
    severity: 'stops',
    title: 'end-of-line without its terminals',
    source: 'End-of-line works only with the terminals on',
    stage: 'zones',
    find: (c) =>
      withSwitches(c, (view) => {
        if (view.zone.endOfLineOn !== true || view.zone.terminalsOn === true) return []
        return [
          {
            ...at(view, 'endOfLineOn', `${view.name} has end-of-line on and its terminals off.`),
            fix: { title: 'Switch end-of-line off', ops: [setOp(view.zone, 'endOfLineOn', false)] },
          },
        ]
      }),
  },
  {
    id: 'medical-wrong-kind',
    severity: 'stops',
    waive: 'owner',
    title: 'care call typed as something else',
    source: 'A help pendant is its own kind: typed as panic it sends the police',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        if (view.loop?.event !== 'medical' || !view.type || view.type.kind === 'medical') return []
        const type = view.advice?.type
        return [
          {
            ...at(
              view,
              'response',
              `${view.name} is a care call but does “${view.type.name}”, a ${view.type.kind} type.`,
            ),
            fix: type ? { title: `Use “${type.name}”`, ops: [setOp(view.zone, 'response', type.key)] } : null,
          },
        ]
      }),
  },
  {
    id: 'silent-unreported',
    severity: 'stops',
    waive: 'owner',
    title: 'silent zone that reports to nobody',
    source: 'A silent call that is not reported helps nobody',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        if (view.type?.sound !== 'silent' || (view.zone.report && c.info.monitored)) return []
        const why = c.info.monitored ? 'its report is off' : 'this job has no station'
        return [
          {
            ...at(view, 'report', `${view.name} makes no sound and ${why}: nobody would notice the call.`),
            fix:
              c.info.monitored && !view.zone.report
                ? { title: 'Report it', ops: [setOp(view.zone, 'report', true)] }
                : null,
          },
        ]
      }),
  },
  {
    id: 'silent-siren',
    severity: 'stops',
    waive: 'owner',
    title: 'silent zone that drives a siren',
    source: 'A silent zone has no siren output: its sound would warn the wrong person',
    stage: 'zones',
    find: (c) =>
      sirenZones(c, (view) => {
        if (view.type?.sound !== 'silent' || view.zone.sirens?.length === 0) return []
        const outputs =
          view.zone.sirens === null ? 'all siren outputs' : `siren output ${view.zone.sirens.join(', ')}`
        return [
          {
            ...at(view, 'sirens', `${view.name} is silent and drives ${outputs}.`),
            fix: { title: 'Take it off every siren output', ops: [setOp(view.zone, 'sirens', [])] },
          },
        ]
      }),
  },
  {
    id: 'siren-none',
    severity: 'risks',
    title: 'loud zone that drives no siren',
    source: 'An alarm that should be heard needs a siren output',
    stage: 'zones',
    find: (c) =>
      sirenZones(c, (view) => {
        const loud = view.type && !['silent', 'none'].includes(view.type.sound)
        if (!loud || view.zone.sirens === null || view.zone.sirens.length > 0) return []
        return [
          {
            ...at(
              view,
              'sirens',
              `${view.name} should be heard (${view.type?.name ?? ''}) and drives no siren output.`,
            ),
            fix: { title: 'Let it drive all of them', ops: [setOp(view.zone, 'sirens', null)] },
          },
        ]
      }),
  },
  {
    id: 'report-mixed',
    severity: 'risks',
    title: 'report flags mixed on a job without a station',
    source: 'House rule: all off, or all on; a job must not mix',
    stage: 'zones',
    find: (c) => {
      if (c.info.monitored) return []
      const wanted = c.rules.schools.localReport === 'on'
      return c.zones.flatMap((view) => {
        if (view.zone.report === wanted || view.type?.hides.includes('report')) return []
        return [
          {
            ...at(
              view,
              'report',
              `${view.name} has report ${view.zone.report ? 'on' : 'off'}; this job has no station and the house rule is ${wanted ? 'on' : 'off'} for all.`,
            ),
            fix: { title: `Turn it ${wanted ? 'on' : 'off'}`, ops: [setOp(view.zone, 'report', wanted)] },
          },
        ]
      })
    },
  },
  {
    id: 'chime-wrong',
    severity: 'advice',
    title: 'chime on a zone that is no opening',
    source: 'Chime is for doors and windows; never for shock, motion, fire, gas or panic',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        const opening = view.loop?.event === 'open' || view.loop?.event === 'terminals'
        if (!view.zone.chime || !view.loop || opening || view.type?.hides.includes('chime')) return []
        return [
          {
            ...at(view, 'chime', `${view.name} chimes at every ${view.loop.name} while the house is unset.`),
            fix: { title: 'Turn its chime off', ops: [setOp(view.zone, 'chime', false)] },
          },
        ]
      }),
  },
  {
    id: 'carried-supervised',
    severity: 'risks',
    title: 'carried transmitter that is supervised',
    source: 'Fobs and worn pendants leave the premises: supervised they show as lost',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        if (!view.model?.carried || !view.zone.supervise || view.type?.hides.includes('supervise')) return []
        return [
          {
            ...at(
              view,
              'supervise',
              `${view.name} belongs to a carried ${view.model.class}: out of the house it shows as lost.`,
            ),
            fix: { title: 'Do not supervise it', ops: [setOp(view.zone, 'supervise', false)] },
          },
        ]
      }),
  },
  {
    id: 'fixed-unsupervised',
    severity: 'risks',
    title: 'fixed device that nobody watches',
    source: 'Fixed transmitters are always supervised, on every zone or on one of them',
    stage: 'zones',
    find: (c) =>
      [...c.zonesOf.values()].flatMap((views) => {
        const view = views[0]
        if (!view?.family || view.model?.carried || view.model?.slot !== 'none') return []
        if (views.some((item) => item.zone.supervise || !item.type || item.type.hides.includes('supervise')))
          return []
        // A fire or gas device has a rule of its own, which stops.
        if (views.some((item) => item.loop && ['fire', 'gas'].includes(kindOf(item.loop.event)))) return []
        return [
          {
            ...at(
              view,
              'supervise',
              `${view.name}: no zone of its ${view.model?.name ?? 'device'} is supervised, so its silence or low battery is noticed by nobody.`,
            ),
            fix: { title: 'Supervise it', ops: [setOp(view.zone, 'supervise', true)] },
          },
        ]
      }),
  },
  {
    id: 'joined-events',
    severity: 'advice',
    title: 'smoke and heat joined on one zone',
    source: 'House rule: apart, so that the station learns which of the two it was',
    stage: 'kit',
    find: (c) =>
      c.rules.schools.smokeHeat === 'joined'
        ? []
        : c.system.devices.flatMap(({ device, model }): Found[] =>
            model.loops.some((loop) => loop.event === 'smoke' && /heat/i.test(loop.name))
              ? [
                  {
                    subject: device.id,
                    field: 'model',
                    text: `${model.name}${device.room ? ` in ${device.room}` : ''} joins smoke and heat on one loop; the house rule is a zone each.`,
                    fix: null,
                  },
                ]
              : [],
          ),
  },
  {
    id: 'state-overdue',
    severity: 'risks',
    title: 'temporary state past its time',
    source: 'Temporary states expire: each says until when, and blocks hand-over while open',
    stage: 'prove',
    find: (c) =>
      c.openStates.flatMap((state) =>
        c.now !== '' && Date.parse(state.until) < Date.parse(c.now)
          ? [
              {
                subject: state.id,
                field: 'until',
                text: `${stateRules[state.kind].name}${aboutWords(c, state)}, by ${state.who}, was to end at ${state.until.slice(0, 16).replace('T', ' ')} UTC and is still open.`,
                fix: null,
              },
            ]
          : [],
      ),
  },
]

function aboutWords(c: Context, state: TemporaryState): string {
  const about = stateAbout(c.doc, c.catalogue, state)
  return about === '' ? '' : ` (${about})`
}

function withSwitches(c: Context, find: (view: ZoneView) => readonly Found[]): Found[] {
  return c.zones.flatMap((view) => (view.model?.switches ? find(view) : []))
}

function sirenZones(c: Context, find: (view: ZoneView) => readonly Found[]): Found[] {
  return c.panel?.couplings?.sirenOutputs ? c.zones.flatMap((view) => find(view)) : []
}

function at(view: ZoneView, field: string, text: string): Found {
  return { subject: view.zone.id, field, text: upper(text), fix: null }
}
