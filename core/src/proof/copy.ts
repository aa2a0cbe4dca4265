import type { Catalogue } from '../catalogue/catalogue.ts'
import type { PanelModel } from '../catalogue/schema.ts'
import { systemOf } from '../system/system.ts'
import { jobInfo, recordOf, type JobDocument } from '../job/document.ts'
import { deviceSerial, enrolmentOf } from '../job/enrolment.ts'
import { asItIs } from '../job/evidence.ts'
import type { AsItWas, TestResult, Zone } from '../job/records.ts'
import { delaySets } from '../response/delays.ts'
import { fullSet } from '../response/letters.ts'
import { modesOf } from '../response/modes.ts'
import { formatSeconds } from '../units/seconds.ts'
import type { ProofKind } from './table.ts'

/** Name under which results of the panel itself stand. */
export const PANEL = 'panel:main'

/** A copy of what a proof of a zone, a device or the panel is of: with the IDs learned and the delays that a trip starts. */
export function proofCopy(doc: JobDocument, catalogue: Catalogue, subject: string): AsItWas | null {
  const { panel } = systemOf(doc, catalogue)
  if (subject === PANEL) return panelCopy(jobInfo(doc).panel)
  const plain = asItIs(doc, subject)
  if (!plain) return null
  return {
    ...plain,
    serial: deviceSerial(doc, plain.device),
    zones: plain.zones.map((zone) => ({
      ...zone,
      serial: enrolmentOf(doc, zone.zone)?.serial ?? null,
      delay: startedDelay(doc, panel, recordOf(doc, 'zone', zone.zone)),
    })),
  }
}

function panelCopy(panel: string | null): AsItWas | null {
  if (panel === null) return null
  const nothing = { room: '', position: '', slot: null, serial: null, user: null, zones: [] }
  return { panel, device: PANEL, model: panel, ...nothing }
}

/** The entry delay that a trip of a zone starts when the system is fully set, s; null where it starts none. */
export function startedDelay(doc: JobDocument, panel: PanelModel | null, zone: Zone | null): number | null {
  const type = panel?.responseTypes.find((item) => item.key === zone?.response)
  if (!panel || !zone || !type) return null
  const trip = modesOf({ panel, info: jobInfo(doc), fullSet: fullSet(doc, panel) }, zone, type).find(
    ({ mode }) => mode === 'away',
  )?.trip
  if (trip !== 'entry-1' && trip !== 'entry-2') return null
  const key = trip === 'entry-1' ? 'entry1' : 'entry2'
  const [whole, ...areas] = delaySets(doc, panel)
  return areas.find((set) => set.id === zone.area)?.values[key] ?? whole?.values[key] ?? null
}

/** Kinds that prove the place: everything else of the plan may change without them. */
const ofPlace: readonly ProofKind[] = ['mount', 'placement', 'average']

/**
 * What has changed since a result, of what it names: empty where it still stands. Mounting names its place, a reading that and the device's ID;
 * a fob's binding its user; an event its zone with number, loop, type, area, ID and the delay that it starts.
 */
export function changedSince(
  doc: JobDocument,
  catalogue: Catalogue,
  { of, kind, subject }: Pick<TestResult, 'of' | 'kind' | 'subject'>,
): readonly string[] {
  const now = proofCopy(doc, catalogue, subject)
  if (!of) return ['it keeps no copy of what it proved']
  if (!now) return ['it is not in the plan any more']
  const list: string[] = []
  const compare = (
    name: string,
    [was, is]: readonly [unknown, unknown],
    words: (value: never) => string,
  ): void => {
    if (was !== is) list.push(`${name}: ${words(was as never)} then, ${words(is as never)} now`)
  }
  const entry = (id: string | null): string => catalogue.nameOf(id)
  compare('panel', [of.panel, now.panel], entry)
  compare('device', [of.model, now.model], entry)
  if (subject === PANEL) return list
  if (ofPlace.includes(kind)) {
    compare('room', [of.room, now.room], plain)
    compare('position', [of.position, now.position], plain)
    // A device may be mounted before it is learned: what hangs there is the same.
    if (kind !== 'mount') compare('ID', [of.serial, now.serial], plain)
    return list
  }
  if (!subject.startsWith('zone:')) {
    compare('slot', [of.slot, now.slot], plain)
    compare('ID', [of.serial, now.serial], plain)
    if (kind === 'bound') compare('user', [of.user, now.user], (id: string | null) => userName(doc, id))
    return list
  }
  const was = of.zones.find((zone) => zone.zone === subject)
  const is = now.zones.find((zone) => zone.zone === subject)
  if (!was || !is) return [...list, 'it was of another zone']
  const { panel } = systemOf(doc, catalogue)
  compare('number', [was.number, is.number], plain)
  compare('event', [was.event, is.event], plain)
  compare('loop', [was.loop, is.loop], plain)
  compare('ID', [was.serial, is.serial], plain)
  compare('response', [was.response, is.response], (key: string | null) => typeName(panel, key))
  compare('area', [was.area, is.area], (id: string | null) => recordOf(doc, 'area', id)?.name ?? 'none')
  compare('entry delay', [was.delay, is.delay], (s: number | null) =>
    s === null ? 'none' : formatSeconds(s),
  )
  return list
}

function plain(value: string | number | null): string {
  return value === null || value === '' ? 'none' : String(value)
}

function typeName(panel: PanelModel | null, key: string | null): string {
  return panel?.responseTypes.find((type) => type.key === key)?.name ?? 'none'
}

function userName(doc: JobDocument, id: string | null): string {
  return recordOf(doc, 'user', id)?.name ?? 'nobody'
}
