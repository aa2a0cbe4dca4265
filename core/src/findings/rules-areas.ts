import { recordOf, recordsOf, type JobDocument } from '../job/document.ts'
import type { Area } from '../job/records.ts'
import { entryWays, type EntryWay } from '../premises/entry-ways.ts'
import { servedAreas, serveOps } from '../premises/served-areas.ts'
import { setOp, type Context, type Fix, type Found, type Rule, type ZoneView } from './context.ts'
import { upper } from './words.ts'

/** Rules on areas: which the panel has, what is common to two, and who sets and unsets them. */
export const areaRules: readonly Rule[] = [
  {
    id: 'two-areas',
    severity: 'stops',
    title: 'zone in two areas',
    source: 'The panel’s own meaning of an area',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        if (view.zone.area2 === null || !c.panel) return []
        const rule = c.panel.couplings?.twoAreas ?? 'forbidden'
        if (rule !== 'forbidden' && view.zone.area2 !== view.zone.area) return []
        const why =
          rule === 'forbidden' ? `${c.panel.name} takes one area per zone` : 'both are the same area'
        return [
          {
            ...at(view, 'area2', `${view.name} is in two areas: ${why}.`),
            fix: { title: 'Leave it in the first', ops: [setOp(view.zone, 'area2', null)] },
          },
        ]
      }),
  },
  {
    id: 'area-number',
    severity: 'stops',
    waive: 'never',
    title: 'area that the panel does not have',
    source: 'The panel’s own number of areas',
    stage: 'zones',
    find: (c) =>
      recordsOf(c.doc, 'area').flatMap((area) =>
        c.panel && area.number > c.panel.areas.count
          ? [
              {
                subject: area.id,
                field: 'number',
                text: `Area ${area.number} (${area.name}): ${c.panel.name} has ${c.panel.areas.count}.`,
                fix: null,
              },
            ]
          : [],
      ),
  },
  {
    id: 'common-entry',
    severity: 'risks',
    title: 'entry door common to two areas',
    source: 'A common zone is armed only when all its areas are: one area alone stands open there',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        if (view.zone.area2 === null || c.panel?.couplings?.twoAreas !== 'common') return []
        if (!view.type || view.type.kind !== 'burglary') return []
        const areas = [view.zone.area, view.zone.area2].map((id) => areaName(c.doc, id))
        return [
          at(
            view,
            'area2',
            `${view.name} is common to ${areas.join(' and ')}: while only one of them is set, it is not watched.`,
          ),
        ]
      }),
  },
  {
    id: 'area-unserved',
    severity: 'stops',
    waive: 'owner',
    title: 'area that no keypad or fob unsets',
    source: 'A keypad or fob sets and unsets only its own areas',
    stage: 'zones',
    find: (c) => {
      if (!c.panel?.couplings?.keypadAreas) return []
      const pads = c.system.devices.filter(
        ({ model }) => model.class === 'keypad' || (model.slot === 'fob' && model.disarms),
      )
      // That there is nothing at all to set the system with is another matter.
      if (pads.length === 0) return []
      const served = pads.map(({ device }) => servedAreas(c.doc, c.panel, device))
      return recordsOf(c.doc, 'area').flatMap((area): Found[] => {
        const guarded = zonesIn(c, area).some((view) => view.type?.kind === 'burglary')
        if (!guarded || served.some((areas) => areas === null || areas.has(area.id))) return []
        return [
          {
            subject: area.id,
            field: 'number',
            text: `${area.name} has zones that are set, and no keypad or fob sets and unsets it.`,
            fix: letServe(c, area),
          },
        ]
      })
    },
  },
  {
    id: 'area-passed',
    severity: 'risks',
    title: 'way in that passes another area',
    source: 'Follow counts only an entry delay of its own area: the other area alarms on who walks through',
    stage: 'zones',
    find: (c) => {
      if (!c.panel?.couplings?.keypadAreas) return []
      return entryWays(c.house, c.system, c.rules.figures)
        .filter((way) => way.nearest)
        .flatMap((way): Found[] => {
          const mine = c.house.areaOf(way.door.room)
          const passed = roomsOfOthers(c, way, mine).flatMap((room) =>
            c.zones.flatMap((view) =>
              view.place?.room?.id === room &&
              view.zone.area !== mine &&
              view.zone.area2 !== mine &&
              guards(view)
                ? [view]
                : [],
            ),
          )
          const view = passed[0]
          if (!view) return []
          return [
            {
              subject: way.door.id,
              field: 'room',
              text: `From ${way.name} to its keypad people pass ${view.name} of ${areaName(c.doc, view.zone.area)}: while that is set, it alarms on them, for ${areaName(c.doc, mine)}’s entry delay does not count there.`,
              fix: null,
            },
          ]
        })
    },
  },
  {
    id: 'area-move',
    severity: 'stops',
    title: 'zone moved to another area in the plan only',
    source: 'Moving a zone to another area is two acts at the panel: add there, remove here',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view): Found[] => {
        const from = recordOf(c.doc, 'area', view.zone.leaves)
        if (!from) return []
        return [
          {
            subject: view.zone.id,
            field: 'leaves',
            text: upper(
              `${view.name} moves from ${from.name} to ${areaName(c.doc, view.zone.area)}: add it there at the panel, then take it out of ${from.name}.`,
            ),
            fix: { title: 'Both are keyed', ops: [setOp(view.zone, 'leaves', null)] },
          },
        ]
      }),
  },
]

/** Lets the first keypad set an area as well; a fob only where it has areas of its own. */
function letServe(c: Context, area: Area): Fix | null {
  const pad =
    c.system.devices.find(({ model }) => model.class === 'keypad') ??
    c.system.devices.find(({ model }) => model.slot === 'fob' && c.panel?.slots.fobs.by === 'slots')
  if (!pad) return null
  const { device, model } = pad
  const now = servedAreas(c.doc, c.panel, device) ?? []
  return {
    title: `Let ${model.name}${device.room ? ` in ${device.room}` : ''} set it too`,
    ops: serveOps(c.doc, device, new Set([...now, area.id])),
  }
}

/** Rooms on a way in that belong to another area than the door's. */
function roomsOfOthers(c: Context, way: EntryWay, mine: string | null): string[] {
  return way.walk.rooms.filter((room) => c.house.areaOf(room.id) !== mine).map((room) => room.id)
}

/** Whether a trip of it alarms while its area is set and no entry delay of its own runs. */
function guards(view: ZoneView): boolean {
  return view.type?.kind === 'burglary' && (view.trips?.away === 'instant' || view.trips?.away === 'follow')
}

function zonesIn(c: Context, area: Area): readonly ZoneView[] {
  return c.zones.filter((view) => view.zone.area === area.id || view.zone.area2 === area.id)
}

function at(view: ZoneView, field: string, text: string): Found {
  return { subject: view.zone.id, field, text: upper(text), fix: null }
}

function areaName(doc: JobDocument, id: string | null): string {
  return recordOf(doc, 'area', id)?.name ?? 'no area'
}
