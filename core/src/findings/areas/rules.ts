import { recordOf, recordsOf, type JobDocument } from '../../job/document.ts'
import { changeOps, setOp } from '../../job/edit.ts'
import { isEntry } from '../../act/behaviour.ts'
import type { Area, Zone } from '../../job/records.ts'
import { entryWays, type EntryWay } from '../../premises/entry-ways.ts'
import { servedAreas, serveOps } from '../../premises/served-areas.ts'
import type { Context, ZoneView } from '../context.ts'
import { setsOf } from '../../response/letters.ts'
import type { Found, FoundFix, RulesOf } from '../finding.ts'
import { devicesInService, isProtecting } from '../partners.ts'
import { everybodyHasFob } from '../people.ts'
import { placedOf } from '../placed.ts'
import { passedAfter } from '../../premises/passing.ts'

/** What the rules on areas find; areas by their names. */
export interface AreaFacts {
  readonly 'two-areas': { readonly zone: string; readonly same: boolean; readonly panel: string }
  readonly 'area-number': {
    readonly number: number
    readonly name: string
    readonly panel: string
    readonly has: number
  }
  readonly 'common-entry': { readonly zone: string; readonly areas: readonly string[] }
  readonly 'nothing-unsets': { readonly panel: string }
  readonly 'area-unserved': { readonly area: string }
  readonly 'area-passed': {
    readonly way: string
    readonly zone: string
    readonly passed: string
    readonly area: string
    /** Whether it starts the other area's own delay, which these people cannot end; else it alarms at once. */
    readonly starts: boolean
  }
  /** Zones that a full or part set leaves out though their place needs them watched then. */
  readonly 'left-out-of-set': {
    readonly set: string
    readonly of: 'full' | 'part'
    readonly zones: readonly string[]
  }
  readonly 'area-move': { readonly zone: string; readonly from: string; readonly to: string }
}

/** Rules on areas: which the panel has, what is common to two, and who sets and unsets them. */
export const areaRules: RulesOf<AreaFacts> = {
  'two-areas': {
    severity: 'stops',
    stage: 'zones',
    key: ['zone', 'same', 'panel'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const { panel } = c
        if (view.zone.area2 === null || !panel) return []
        const forbidden = (panel.couplings?.twoAreas ?? 'forbidden') === 'forbidden'
        if (!forbidden && view.zone.area2 !== view.zone.area) return []
        return [
          {
            subject: view.zone.id,
            field: 'area2',
            facts: { zone: view.number, same: !forbidden, panel: panel.name },
            fix: { does: 'one-area' as const, facts: {}, ops: [setOp(view.zone, 'area2', null)] },
          },
        ]
      }),
  },
  'area-number': {
    severity: 'stops',
    waive: 'never',
    stage: 'zones',
    key: ['number', 'panel', 'has'],
    find: (c) =>
      recordsOf(c.doc, 'area').flatMap(({ id, number, name }) =>
        c.panel && number > c.panel.areas.count
          ? [
              {
                subject: id,
                field: 'number',
                facts: { number, name, panel: c.panel.name, has: c.panel.areas.count },
                fix: null,
              },
            ]
          : [],
      ),
  },
  'common-entry': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'areas'],
    find: (c) =>
      c.zones.flatMap((view) => {
        if (view.zone.area2 === null || c.panel?.couplings?.twoAreas !== 'common') return []
        if (view.type?.kind !== 'burglary') return []
        const areas = [view.zone.area, view.zone.area2].map((id) => areaName(c.doc, id))
        return [{ subject: view.zone.id, field: 'area2', facts: { zone: view.number, areas }, fix: null }]
      }),
  },
  'nothing-unsets': {
    severity: 'risks',
    stage: 'kit',
    key: [],
    find: (c) => {
      const guarded = c.zones.some((view) => view.type?.kind === 'burglary' && isProtecting(c, view))
      if (!guarded || padsOf(c).length > 0 || c.info.keySwitch !== 'none') return []
      return [{ subject: 'job:main', field: null, facts: { panel: c.panel?.name ?? '' }, fix: null }]
    },
  },
  'area-unserved': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['area'],
    find: (c) => {
      if (!c.panel?.couplings?.keypadAreas) return []
      const pads = padsOf(c)
      // That there is nothing at all to set the system with is a rule of its own.
      if (pads.length === 0) return []
      const served = pads.map(({ device }) => servedAreas(c.doc, c.panel, device))
      return recordsOf(c.doc, 'area').flatMap((area) => {
        const guarded = zonesIn(c, area).some((view) => view.type?.kind === 'burglary')
        if (!guarded || served.some((areas) => areas === null || areas.has(area.id))) return []
        return [{ subject: area.id, field: 'number', facts: { area: area.name }, fix: letServe(c, area) }]
      })
    },
  },
  'area-passed': {
    severity: 'risks',
    stage: 'zones',
    key: ['way', 'zone', 'passed', 'starts'],
    find: (c) => {
      if (!c.panel?.couplings?.keypadAreas) return []
      return entryWays(c.house, c.system, c.rules.figures)
        .filter((way) => way.nearest)
        .flatMap((way) => {
          const mine = c.house.areaOf(way.door.room)
          const [view] = guardsOn(c, way, mine)
          if (!view) return []
          const facts = {
            ...{ way: way.name, zone: view.number },
            passed: areaName(c.doc, view.zone.area),
            area: areaName(c.doc, mine),
            starts: startsDelay(view),
          }
          return [{ subject: way.door.id, field: 'room', facts, fix: null }]
        })
    },
  },
  'left-out-of-set': {
    severity: 'risks',
    stage: 'zones',
    key: ['of', 'zones'],
    find: (c) => [...leftOut(c, 'full'), ...leftOut(c, 'part')],
  },
  'area-move': {
    severity: 'stops',
    stage: 'zones',
    key: ['zone', 'from', 'to'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const from = recordOf(c.doc, 'area', view.zone.leaves)
        if (!from) return []
        return [
          {
            subject: view.zone.id,
            field: 'leaves',
            facts: { zone: view.number, from: from.name, to: areaName(c.doc, view.zone.area) },
            fix: { does: 'area-keyed' as const, facts: {}, ops: [setOp(view.zone, 'leaves', null)] },
          },
        ]
      }),
  },
}

/** One cause is one finding: all zones that a set leaves out, with the letters that they lack. */
function leftOut(c: Context, of: 'full' | 'part'): Found<AreaFacts['left-out-of-set']>[] {
  const full = recordOf(c.doc, 'area', c.fullSet)
  if (!full) return []
  const part = usualPart(c, full)
  const out = c.zones.filter(
    ({ zone, type, trips, advice }) =>
      type?.kind === 'burglary' &&
      trips?.unset !== 'instant' &&
      advice?.need.kind === 'burglary' &&
      (of === 'full' || advice.need.stay !== 'ignore') &&
      !setsOf(zone, full.id)[of],
  )
  if (out.length === 0 || !part) return []
  const ops = out.flatMap(({ zone }) =>
    of === 'part'
      ? changeOps(zone, 'area2', part.id)
      : [...changeOps(zone, 'area2', zone.area), ...changeOps(zone, 'area', full.id)],
  )
  const set = (of === 'full' ? full : part).name
  const facts = { set, of, zones: out.map(({ number }) => number) }
  return [
    {
      subject: of === 'full' ? full.id : part.id,
      field: 'number',
      facts,
      fix: { does: 'join-set', facts: { set }, ops },
    },
  ]
}

/** The part set that most zones are in; the first where none is in any. */
function usualPart(c: Context, full: Area): Area | undefined {
  const parts = recordsOf(c.doc, 'area')
    .filter(({ id }) => id !== full.id)
    .sort((a, b) => a.number - b.number)
  return [...parts].sort((a, b) => zonesIn(c, b).length - zonesIn(c, a).length)[0]
}

/** Lets the first keypad set an area as well; a fob only where it has areas of its own. */
function letServe(c: Context, area: Area): FoundFix | null {
  const pad =
    devicesInService(c).find(({ model }) => model.class === 'keypad') ??
    devicesInService(c).find(({ model }) => model.slot === 'fob' && c.panel?.slots.fobs.by === 'slots')
  if (!pad) return null
  const { device, model } = pad
  const now = servedAreas(c.doc, c.panel, device) ?? []
  return {
    does: 'let-serve',
    facts: { model: model.name, room: device.room },
    ops: serveOps(c.doc, device, new Set([...now, area.id])),
  }
}

/**
 * Zones of other areas that people trip on a way in, by where they are on it: they alarm there while no entry delay of their own
 * runs, or start one that the keypad at the end of the way does not end.
 */
function guardsOn(c: Context, way: EntryWay, mine: string | null): readonly ZoneView[] {
  const pad = servedAreas(c.doc, c.panel, way.keypad)
  const isEnded = ({ zone }: ZoneView) =>
    pad === null || [zone.area, zone.area2].every((id) => id === null || pad.has(id))
  const passed = c.zones.flatMap((view) => {
    const { zone, type, trips } = view
    if (zone.area === mine || zone.area2 === mine || type?.kind !== 'burglary') return []
    if (!isProtecting(c, view) || unsetAtTheDoor(c, zone)) return []
    const alarms = trips?.away === 'instant' || trips?.away === 'follow'
    if (!alarms && (!startsDelay(view) || isEnded(view))) return []
    const placed = placedOf(c, view)
    const after = placed && passedAfter(c.house, way, placed)
    return after === null ? [] : [{ view, after }]
  })
  return passed.sort((a, b) => a.after - b.after).map(({ view }) => view)
}

function startsDelay({ trips }: ZoneView): boolean {
  return trips !== null && isEntry(trips.away)
}

/** Whether everybody carries a fob that unsets the areas of a zone before they walk in. */
function unsetAtTheDoor(c: Context, { area, area2 }: Zone): boolean {
  if (!everybodyHasFob(c)) return false
  return devicesInService(c)
    .filter(({ device, model }) => model.slot === 'fob' && model.disarms && device.user !== null)
    .every(({ device }) => {
      const served = servedAreas(c.doc, c.panel, device)
      return served === null || [area, area2].every((id) => id === null || served.has(id))
    })
}

function zonesIn(c: Context, area: Area): readonly ZoneView[] {
  return c.zones.filter(
    (view) => (view.zone.area === area.id || view.zone.area2 === area.id) && isProtecting(c, view),
  )
}

function areaName(doc: JobDocument, id: string | null): string {
  return recordOf(doc, 'area', id)?.name ?? 'no area'
}

/** What sets and unsets: keypads, and fobs that can do both. */
function padsOf(c: Context): Context['system']['devices'] {
  return devicesInService(c).filter(
    ({ model }) => model.class === 'keypad' || (model.slot === 'fob' && model.disarms),
  )
}
