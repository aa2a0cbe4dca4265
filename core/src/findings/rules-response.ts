import type { Trip } from '../catalogue/schema.ts'
import { isLifeSafety, isWayIn, tripWords } from '../response/advise.ts'
import { formatSeconds } from '../units/seconds.ts'
import { setOp, type Context, type Found, type Fix, type Rule, type ZoneView } from './context.ts'

/** Rules on response types, delays and reporting. */
export const responseRules: readonly Rule[] = [
  {
    id: 'response-missing',
    severity: 'stops',
    title: 'no response type',
    source: 'A type that is not stated is asked for, never guessed',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        if (!c.panel || view.type || !view.advice) return []
        const none = view.advice.type === null
        const text = none
          ? `${c.panel.name} has no response type for a ${view.advice.need.kind} alarm: ${view.name} cannot be programmed.`
          : `${upper(view.name)} has no response type of ${c.panel.name}.`
        return [{ subject: view.zone.id, field: 'response', text, fix: adviceFix(c, view) }]
      }),
  },
  {
    id: 'fire-not-instant',
    severity: 'stops',
    waive: 'owner',
    title: 'smoke or heat not instant in every mode',
    source: 'Fire is always on; the fire code rules',
    stage: 'zones',
    find: (c) => wrongKind(c, ['smoke', 'heat'], 'fire', 'A fire must alarm at once in every mode, as fire.'),
  },
  {
    id: 'gas-wrong-kind',
    severity: 'stops',
    waive: 'owner',
    title: 'carbon monoxide not typed as gas',
    source: 'CO is its own kind, never fire, auxiliary or burglary',
    stage: 'zones',
    find: (c) => wrongKind(c, ['co'], 'gas', 'Carbon monoxide needs the gas type, instant in every mode.'),
  },
  {
    id: 'panic-wrong-kind',
    severity: 'stops',
    waive: 'owner',
    title: 'panic device on a type that is not panic',
    source: 'Contradictions are findings',
    stage: 'zones',
    find: (c) =>
      wrongKind(
        c,
        ['panic', 'panic-silent'],
        'panic',
        'A call for help needs a panic type, instant in every mode.',
      ),
  },
  {
    id: 'house-watch-wrong-kind',
    severity: 'risks',
    title: 'frost or water not on an always-on type',
    source: 'Freeze and flood are auxiliary, always on',
    stage: 'zones',
    find: (c) =>
      wrongKind(
        c,
        ['freeze', 'flood'],
        'auxiliary',
        'Frost and water must be watched in every mode, with their own tone.',
      ),
  },
  {
    id: 'held-back',
    severity: 'stops',
    waive: 'owner',
    title: 'transmission delay on a fire, gas or panic zone',
    source: 'Must report at once',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        const kind = view.advice?.need.kind ?? view.type?.kind
        if (
          !view.zone.transmissionDelay ||
          !kind ||
          !['fire', 'gas', 'panic', 'medical', 'auxiliary'].includes(kind)
        )
          return []
        const held = c.info.abortWindow === null ? '' : ` by ${formatSeconds(c.info.abortWindow)}`
        return [
          {
            subject: view.zone.id,
            field: 'transmissionDelay',
            text: `${upper(view.name)} is ${kind} and its report would be held back${held}: it must go out at once.`,
            fix: { title: 'Send it at once', ops: [setOp(view.zone, 'transmissionDelay', false)] },
          },
        ]
      }),
  },
  {
    id: 'delay-no-entry',
    severity: 'risks',
    title: 'entry delay on a device that is no entry',
    source: 'Only ways in, and what sees their leaf, start a delay',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        const { type, trips, device, advice } = view
        if (
          !type ||
          !trips ||
          !device ||
          advice?.need.kind !== 'burglary' ||
          isWayIn(view.place?.use ?? device.use)
        )
          return []
        const delayed = (['away', 'stay'] as const).filter(
          (mode) => isEntry(trips[mode]) && !isEntry(advice.need[mode]),
        )
        // A panel without a follow type offers the delay as the nearest safe one: that is advice, not a slip.
        if (delayed.length === 0 || advice.type?.key === type.key) return []
        return [
          {
            subject: view.zone.id,
            field: 'response',
            text: `${upper(view.name)} starts an entry delay in ${delayed.join(' and ')}, but its device is no way in: an intruder there would have ${delayWords(c, trips[delayed[0] as 'away'])} of silence.`,
            fix: adviceFix(c, view),
          },
        ]
      }),
  },
  {
    id: 'entry-not-delayed',
    severity: 'risks',
    title: 'everyday door without an entry delay',
    source: 'A door used every day starts an entry delay, else it alarms on its owner',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        if (
          !view.trips ||
          view.advice?.need.kind !== 'burglary' ||
          !isEntry(view.advice.need.away) ||
          isEntry(view.trips.away)
        )
          return []
        return [
          {
            subject: view.zone.id,
            field: 'response',
            text: `${upper(view.name)} does ${tripWords(view.trips.away)} in away, and people come in there: it would alarm on its owner.`,
            fix: adviceFix(c, view),
          },
        ]
      }),
  },
  {
    id: 'follow-alone',
    severity: 'risks',
    title: 'follow zone without an entry zone in its area',
    source: 'A follow zone waits only for an entry delay of its own area',
    stage: 'zones',
    find: (c) => {
      const has = new Set(
        c.zones.flatMap(({ zone, trips }) =>
          modes.flatMap((mode) =>
            trips && isEntry(trips[mode]) ? areasOf(zone).map((area) => `${area} ${mode}`) : [],
          ),
        ),
      )
      return c.zones.flatMap((view): Found[] => {
        const { trips, zone } = view
        const alone = trips
          ? modes.filter(
              (mode) => trips[mode] === 'follow' && !areasOf(zone).some((area) => has.has(`${area} ${mode}`)),
            )
          : []
        if (alone.length === 0) return []
        return [
          {
            subject: zone.id,
            field: 'response',
            text: `${upper(view.name)} follows in ${alone.join(' and ')}, but no zone of its area starts an entry delay there: it is only ever instant.`,
            fix: null,
          },
        ]
      })
    },
  },
  {
    id: 'life-unreported',
    severity: 'stops',
    waive: 'owner',
    title: 'fire or gas zone that does not report',
    source: 'Report off on a fire or gas zone stops on a monitored job',
    stage: 'zones',
    find: (c) =>
      lifeFlag(c, 'report', c.info.monitored, 'does not report, and this job is monitored', 'Report it'),
  },
  {
    id: 'life-unsupervised',
    severity: 'stops',
    waive: 'owner',
    title: 'fire or gas device that is not supervised',
    source: 'A life-safety device needs a supervised zone',
    stage: 'zones',
    find: (c) =>
      lifeFlag(
        c,
        'supervise',
        true,
        'is not supervised: nobody would notice that it fell silent',
        'Supervise it',
      ),
  },
  {
    id: 'equipment-wrong',
    severity: 'stops',
    title: 'equipment code or kind is another’s',
    source: 'An encrypted device under the plain code, or a freeze loop as smoke, contradict each other',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view): Found[] => {
        const { panel } = c
        const { zone, model, loop } = view
        if (!panel || !model || !loop) return []
        const code = panel.equipment.code
          ? (model.equipmentCodes.find((item) => item.panel === panel.id)?.code ?? null)
          : null
        const kind = panel.equipment.kinds.find((item) => item.events.includes(loop.event))?.key ?? null
        if (panel.equipment.code && code !== null && zone.equipmentCode !== code)
          return [
            {
              subject: zone.id,
              field: 'equipmentCode',
              text: `${upper(view.name)} has equipment code ${zone.equipmentCode ?? 'none'}; ${model.name} is ${code} on ${panel.name}.`,
              fix: { title: `Use ${code}`, ops: [setOp(zone, 'equipmentCode', code)] },
            },
          ]
        if (kind !== null && zone.equipmentKind !== kind)
          return [
            {
              subject: zone.id,
              field: 'equipmentKind',
              text: `${upper(view.name)} reports ${loop.name} but its equipment kind is ${zone.equipmentKind ?? 'not given'}; ${panel.name} wants ${kind}.`,
              fix: { title: `Use ${kind}`, ops: [setOp(zone, 'equipmentKind', kind)] },
            },
          ]
        return []
      }),
  },
  {
    id: 'loop-wrong',
    severity: 'stops',
    title: 'loop that is not the event’s',
    source: 'Loop maps belong to the model',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view): Found[] => {
        const { zone, loop, model, family } = view
        if (!loop || !family || !model || model.switches || zone.loop === loop.loop) return []
        return [
          {
            subject: zone.id,
            field: 'loop',
            text: `${upper(view.name)} listens to loop ${zone.loop ?? 'none'}; the ${loop.name} of ${model.name} is loop ${loop.loop}.`,
            fix: { title: `Use loop ${loop.loop}`, ops: [setOp(zone, 'loop', loop.loop)] },
          },
        ]
      }),
  },
]

/** A common zone belongs to both its areas. */
function areasOf(zone: { readonly area: string | null; readonly area2: string | null }): (string | null)[] {
  return zone.area2 === null ? [zone.area] : [zone.area, zone.area2]
}

const modes = ['away', 'stay'] as const

function wrongKind(c: Context, events: readonly string[], kind: string, why: string): Found[] {
  return c.zones.flatMap((view) => {
    const { type, trips, loop } = view
    if (!type || !trips || !loop || !events.includes(loop.event)) return []
    const weak = (['away', 'stay', 'unset'] as const).filter((mode) => trips[mode] !== 'instant')
    if (type.kind === kind && weak.length === 0) return []
    const what =
      type.kind === kind
        ? `${weak.join(', ')}: ${tripWords(trips[weak[0] ?? 'away'])}`
        : `a ${type.kind} type`
    return [
      {
        subject: view.zone.id,
        field: 'response',
        text: `${upper(view.name)} reports ${loop.name} as “${type.name}” (${what}). ${why}`,
        fix: adviceFix(c, view),
      },
    ]
  })
}

function lifeFlag(
  c: Context,
  field: 'report' | 'supervise',
  applies: boolean,
  text: string,
  title: string,
): Found[] {
  if (!applies) return []
  return c.zones.flatMap((view) => {
    const kind = view.advice?.need.kind
    if (view.zone[field] || (kind !== 'fire' && kind !== 'gas')) return []
    // One supervised zone of the device is enough where the house rule is one: then it is a fire or gas zone.
    if (field === 'supervise' && c.rules.schools.sisters === 'one' && sisterWatched(c, view)) return []
    return [
      {
        subject: view.zone.id,
        field,
        text: `${upper(view.name)} is ${kind} and ${text}.`,
        fix: { title, ops: [setOp(view.zone, field, true)] },
      },
    ]
  })
}

function sisterWatched(c: Context, view: ZoneView): boolean {
  const sisters = c.zonesOf.get(view.zone.device ?? '') ?? []
  return sisters.some((item) => item.zone.supervise && isLifeSafety(item.advice?.need.kind ?? 'burglary'))
}

/** The advised type with what it needs beside it; null for a silent one that would reach nobody. */
function adviceFix(c: Context, view: ZoneView): Fix | null {
  const type = view.advice?.type
  if (!type || type.key === view.zone.response) return null
  const silent = type.sound === 'silent'
  if (silent && !c.info.monitored) return null
  const { transmissionDelay, report, sirens, dayZone } = view.zone
  const ops = [
    setOp(view.zone, 'response', type.key),
    ...(!type.transmissionDelayAllowed && transmissionDelay
      ? [setOp(view.zone, 'transmissionDelay', false)]
      : []),
    ...(silent && !report ? [setOp(view.zone, 'report', true)] : []),
    ...(silent && c.panel?.couplings?.sirenOutputs && sirens?.length !== 0
      ? [setOp(view.zone, 'sirens', [])]
      : []),
    ...(dayZone && type.kind !== 'burglary' ? [setOp(view.zone, 'dayZone', false)] : []),
  ]
  return { title: `Use “${type.name}”`, ops }
}

function delayWords(c: Context, trip: Trip): string {
  const seconds = trip === 'entry-2' ? c.info.entry2 : c.info.entry1
  return seconds === null ? 'the whole delay' : formatSeconds(seconds)
}

function isEntry(trip: Trip): boolean {
  return trip === 'entry-1' || trip === 'entry-2'
}

function upper(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}
