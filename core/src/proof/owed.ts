import type { Catalogue } from '../catalogue/catalogue.ts'
import type { AlarmKind, DeviceModel, Family } from '../catalogue/schema.ts'
import { systemOf } from '../fit/system.ts'
import type { Schools } from '../house-rules/house-rules.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import type { Device, TemporaryState, TestResult, Zone } from '../job/records.ts'
import { printNumber } from '../zones/numbers.ts'
import { asItIs, evidenceOf } from '../job/evidence.ts'
import { sameJson } from '../units/canonical.ts'

/** Kinds of proof, in the order they are made. */
export const proofKinds = ['placement', 'walk', 'armed', 'report'] as const
export type ProofKind = (typeof proofKinds)[number]

/** One proof of one device: what the last result says and every result on record. */
export interface ProofItem {
  readonly kind: ProofKind
  /** `owed` until a first result; a later result corrects an earlier one. */
  readonly state: 'owed' | 'pass' | 'fail' | 'inconclusive'
  readonly results: readonly TestResult[]
}

/** A device on the way through the house, with what it owes. */
export interface ProofDevice {
  readonly device: Device
  readonly model: DeviceModel
  readonly zones: readonly Zone[]
  /** `zone 07, 08` or `fob 1`. */
  readonly name: string
  readonly items: readonly ProofItem[]
  /** Alarm kinds its test would raise: they decide the cautions and whether the station must be on test. */
  readonly kinds: readonly AlarmKind[]
  readonly silentPanic: boolean
}

/** Every device with what it owes, by room and order. Deferred devices are not there yet. */
export function proofRoute(doc: JobDocument, catalogue: Catalogue): ProofDevice[] {
  const system = systemOf(doc, catalogue)
  const results = new Map<string, TestResult[]>()
  for (const result of evidenceOf(doc, 'test'))
    results.set(result.subject, [...(results.get(result.subject) ?? []), result])
  const list = system.devices.flatMap(({ device, model }): ProofDevice[] => {
    if (device.deferred !== null) return []
    const zones = recordsOf(doc, 'zone').filter((zone) => zone.device === device.id)
    const types = zones.flatMap(
      (zone) => system.panel?.responseTypes.find((type) => type.key === zone.response) ?? [],
    )
    const mine = (results.get(device.id) ?? []).filter((result) => stillProves(doc, result))
    const items = wantedProofs(model, zones.length > 0, system.info.monitored).map((kind) =>
      itemOf(kind, mine),
    )
    const slot = device.slot === null ? model.slot : `${model.slot} ${device.slot}`
    const name =
      zones.length > 0
        ? `zone ${zones.map((zone) => printNumber(system.panel, zone.number)).join(', ')}`
        : slot
    return [
      {
        device,
        model,
        zones,
        name,
        items,
        kinds: [...new Set(types.map((type) => type.kind))],
        silentPanic: types.some((type) => type.sound === 'silent'),
      },
    ]
  })
  return list.sort((a, b) => byRoom(a.device.room, b.device.room) || a.device.order - b.device.order)
}

/**
 * Whether a result is of what is planned now: the same device model on the same panel; a reading of the same place, any other
 * test of the same zones with their numbers, loops, response types and areas.
 */
function stillProves(doc: JobDocument, { of, kind, subject }: TestResult): boolean {
  const now = asItIs(doc, subject)
  if (!of || !now || of.model !== now.model || of.panel !== now.panel) return false
  if (kind === 'placement') return of.room === now.room && of.position === now.position
  return of.slot === now.slot && sameJson(of.zones, now.zones)
}

/** Rooms by name; what has no room comes last. */
function byRoom(a: string, b: string): number {
  if (a === b) return 0
  if (a === '') return 1
  return b === '' || a < b ? -1 : 1
}

/** Proofs not passed yet over all devices. */
export function openProofs(route: readonly ProofDevice[]): number {
  return route.reduce((sum, entry) => sum + entry.items.filter((item) => item.state !== 'pass').length, 0)
}

/** The temporary states that are open: begun and not ended; one past its time stays open and says so. */
export function openStates(doc: JobDocument): TemporaryState[] {
  const ended = new Set(evidenceOf(doc, 'state-end').map((end) => end.state))
  return evidenceOf(doc, 'state').filter((state) => !ended.has(state.id))
}

/** Whether the station is on test now: begun, not ended and not past its time. */
export function stationOnTest(doc: JobDocument, now: string): TemporaryState | null {
  return openStates(doc).find((state) => state.kind === 'station-on-test' && state.until > now) ?? null
}

/**
 * Why a test may not be made now; null when it may. On a monitored job an alarm, panic or fire test needs the station on
 * test first, or it sends help to a test.
 */
export function testBlocked(
  doc: JobDocument,
  catalogue: Catalogue,
  kind: ProofKind,
  now: string,
): string | null {
  const { monitored } = systemOf(doc, catalogue).info
  if (!monitored || kind === 'placement' || kind === 'walk') return null
  return stationOnTest(doc, now)
    ? null
    : 'Put the station on test first: an alarm sent now would bring help to a test.'
}

/** Cautions that belong to a test of this device, in the order of harm. */
export function cautions(entry: ProofDevice, kind: ProofKind): string[] {
  if (kind === 'placement')
    return ['On a ladder: have it held, both feet on the rungs, never reach sideways.']
  const list: string[] = []
  if (kind === 'walk') return list
  if (entry.silentPanic)
    list.push('A silent panic test can bring armed police: the station must know before it is pressed.')
  else if (entry.kinds.includes('panic'))
    list.push('A panic test can bring police: the station must know before it is pressed.')
  if (entry.kinds.includes('fire'))
    list.push(
      'Test smoke with the maker’s aerosol and button only, by the fire code’s method; never with a flame. A fire alarm may bring the fire service.',
    )
  if (entry.kinds.includes('gas'))
    list.push('Test CO with the maker’s test gas or button only; never with exhaust or charcoal.')
  if (kind === 'armed' && (entry.model.class === 'siren' || entry.kinds.includes('burglary')))
    list.push('Siren sound harms hearing: protect your ears, keep people away from it, sound it briefly.')
  return list
}

/** What a proof shows and how it is done without fooling oneself (work.md section 9). */
export function hints(entry: ProofDevice, kind: ProofKind, family: Family | null): string[] {
  const motion = entry.model.class === 'motion'
  switch (kind) {
    case 'placement':
      return family
        ? [
            `Read it at the ${family.placement.readAt}. Aim for ${family.placement.best} ${family.placement.unit} or more; below ${family.placement.least} ${family.placement.unit} it does not hold. Moving it a quarter wave often helps.`,
          ]
        : []
    case 'walk':
      return [
        'Shows that trips arrive; the keypad sounder must be on. It is not the final test.',
        ...(motion
          ? ['A walk test does not wake a sleeping motion: no answer is inconclusive, not failed.']
          : []),
      ]
    case 'armed':
      return [
        'Arm, trip it, see the alarm and the right zone, silence, clear.',
        ...(motion && family?.way === 'one-way'
          ? [
              'One-way motions sleep after a trip: leave the room for the sleep time first, else it is inconclusive.',
            ]
          : []),
      ]
    case 'report':
      return ['Ask the station to read back what arrived: the zone, the kind and the time.']
  }
}

/**
 * Why a result cannot be recorded as it stands; null when it can. A placement passes on a reading that holds, and below
 * the best band only with a reason (house rule: best band; work.md section 4).
 */
export function resultProblem(
  kind: ProofKind,
  family: Family | null,
  result: { readonly outcome: TestResult['outcome']; readonly reading: number | null; readonly note: string },
  school: Schools['reading'] = 'best',
): string | null {
  if (kind !== 'placement' || result.outcome !== 'pass' || !family) return null
  const { unit, best, least } = family.placement
  if (result.reading === null) return `Reading: state it in ${unit}.`
  if (result.reading < least)
    return `Reading: ${result.reading} ${unit} does not hold, at least ${least} ${unit} is needed. Record it as failed and move the device.`
  if (school === 'best' && result.reading < best && result.note.trim() === '')
    return `Reading: ${result.reading} ${unit} is below the best band (${best} ${unit}). Improve it, or note why it stays.`
  return null
}

function wantedProofs(model: DeviceModel, hasZones: boolean, monitored: boolean): ProofKind[] {
  const list: ProofKind[] = []
  if (model.family !== null && !model.carried) list.push('placement')
  if (hasZones && model.class !== 'fob') list.push('walk')
  list.push('armed')
  if (monitored && hasZones && model.class !== 'fob') list.push('report')
  return list
}

function itemOf(kind: ProofKind, results: readonly TestResult[]): ProofItem {
  const mine = results.filter((result) => result.kind === kind)
  return { kind, state: mine.at(-1)?.outcome ?? 'owed', results: mine }
}
