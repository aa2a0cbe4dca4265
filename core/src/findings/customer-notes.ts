import { ask, type Answer } from '../act/ask.ts'
import type { Catalogue } from '../catalogue/catalogue.ts'
import { systemOf, type System } from '../system/system.ts'
import type { HouseRules } from '../house-rules/house-rules.ts'
import { recordOf, recordsOf, type JobDocument } from '../job/document.ts'
import type { Zone } from '../job/records.ts'
import { heldValue } from '../memory/held.ts'
import { servedAreas } from '../premises/served-areas.ts'
import { behaviourOf } from '../response/behaviour-of.ts'
import { exitWords, keysSwitchedOff, storedInKeypad } from '../response/setting-words.ts'
import { printNumber } from '../zones/numbers.ts'
import { upperFirst } from '../units/words.ts'
import { counted } from './words/plural.ts'

/**
 * What the customer should be told of how this plan behaves, one sentence each: what is left unwatched and when, what
 * they choose themselves, what they must do. Nothing where the plan has nothing of the kind.
 */
// eslint-disable-next-line complexity -- one sentence per fact, read from top to bottom
export function customerNotes(doc: JobDocument, catalogue: Catalogue, rules: HouseRules): string[] {
  const system = systemOf(doc, catalogue)
  const { panel, info } = system
  const job = { doc, catalogue }
  if (!panel) return []
  const zones = recordsOf(doc, 'zone')
  const called = (zone: Zone): string => `${printNumber(panel, zone.number)} ${zone.label}`.trim()
  const list = (some: readonly Zone[]): string => some.map(called).join(', ')
  const behaviour = behaviourOf(doc, system)
  const whileUnset = (zone: Zone): Answer | null =>
    behaviour?.zones.some(({ id }) => id === zone.id)
      ? ask(behaviour, zone.id, { mode: 'unset', while: 'still' })
      : null
  const common = panel.couplings?.twoAreas === 'common' ? zones.filter((zone) => zone.area2 !== null) : []
  const noticed = zones.filter((zone) => whileUnset(zone)?.notices)
  const isOffered = (zone: Zone): boolean => zone.dayZone && panel.couplings?.dayZones === 'user'
  const offered = noticed.filter(isOffered)
  const day = noticed.filter((zone) => !isOffered(zone))
  const chimes = zones.filter((zone) => whileUnset(zone)?.chimes)
  const keysOff = keysSwitchedOff(panel, info)
  const inKeypad = system.devices.filter(
    ({ device, model }) => model.slot === 'fob' && storedInKeypad(panel, device, rules),
  )
  return [
    ...keypadLines(doc, system),
    ...common.map(
      (zone) =>
        `Zone ${called(zone)} is common to ${[zone.area, zone.area2].map((id) => recordOf(doc, 'area', id)?.name ?? '').join(' and ')}: it is watched only while both are set.`,
    ),
    ...(chimes.length > 0 ? [`While the system is unset these zones chime: ${list(chimes)}.`] : []),
    ...(day.length > 0
      ? [`While the system is unset these zones give a local notice, and call nobody: ${list(day)}.`]
      : []),
    ...(offered.length > 0
      ? [
          `At the keypad these may be made day zones, which then give a local notice while unset: ${list(offered)}.`,
        ]
      : []),
    ...(info.exitBy === null ? [] : [`The time to leave ends ${exitWords[info.exitBy]}.`]),
    ...((info.openAtExit ?? heldValue(job, 'system.openAtExit')) === 'exclude'
      ? [
          'A window or door left open when the time to leave ends is left out: it is not protected until the system is set again.',
        ]
      : []),
    ...(info.swinger !== null && info.swinger > 0
      ? [
          `After ${counted(info.swinger, 'alarm')} in one set period a zone is left out until the system is set again.`,
        ]
      : []),
    ...((info.outputs ?? heldValue(job, 'system.outputs')) === 'latched'
      ? ['What the outputs drive stays on after an alarm until a code is keyed.']
      : []),
    ...(info.keySwitch === 'latching' && panel.couplings?.latchingKeySwitch
      ? ['The system is set by the key switch alone: no keypad or fob sets it.']
      : []),
    ...(keysOff.length > 0
      ? [`These keys of the keypads do nothing: ${keysOff.join(', ')}. In need, call the emergency number.`]
      : []),
    ...(inKeypad.length > 0
      ? [
          'Fobs are kept in the keypad: if it is replaced or its codes are changed, they must be taught again.',
        ]
      : []),
    ...(panel.secondDisarmClears
      ? ['After an alarm unset twice: the first time silences, the second clears.']
      : []),
  ]
}

/** Which keypad or fob sets which areas, where that differs. */
function keypadLines(doc: JobDocument, system: System): string[] {
  return system.devices.flatMap(({ device, model }) => {
    const areas = servedAreas(doc, system.panel, device)
    const all = recordsOf(doc, 'area')
    if (areas === null || all.every((area) => areas.has(area.id))) return []
    if (model.class !== 'keypad' && model.slot !== 'fob') return []
    const user = recordOf(doc, 'user', device.user)
    const who = user
      ? `the fob of ${user.name}`
      : `the ${model.name}${device.room ? ` in ${device.room}` : ''}`
    const names = all.flatMap((area) => (areas.has(area.id) ? area.name : []))
    return [upperFirst(`${who} sets and unsets ${names.join(' and ')} only.`)]
  })
}
