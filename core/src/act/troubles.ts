import { alarmOfCover, report } from './alarms.ts'
import type { Trouble } from './state.ts'
import { standingOf, type Turn } from './turn.ts'

/* What the panel shows of its devices: opened covers, silence, low batteries, jamming. */

/** A cover is opened or closed: an alarm while any of the device's zones is set, else what the panel's data says. */
export function cover(turn: Turn, device: string, open: boolean): void {
  const zones = turn.zonesOfDevice(device)
  if (zones.length === 0) return
  if (!open) return over(turn, device, 'cover')
  if (!begin(turn, device, 'cover')) return
  const isSet = zones.some((zone) => !['unset', 'outside'].includes(standingOf(turn.state, zone).is))
  if (isSet || turn.behaviour.options.tamperUnset === 'alarm') alarmOfCover(turn, device, zones)
  else report(turn, { what: 'trouble', source: device, hold: null })
}

/** A device is silent for longer than the panel allows, or its battery is low: noticed only where a zone of it is supervised. */
export function watched(turn: Turn, device: string, what: 'lost' | 'battery'): void {
  if (!turn.zonesOfDevice(device).some((zone) => zone.supervised)) return
  if (begin(turn, device, what)) report(turn, { what: 'trouble', source: device, hold: null })
}

/** The radio is jammed. */
export function jammed(turn: Turn): void {
  if (begin(turn, '', 'jammed')) report(turn, { what: 'trouble', source: '', hold: null })
}

/** A trouble is over; nothing where there was none. */
export function over(turn: Turn, device: string, what: Trouble): void {
  const { troubles } = turn.state
  const left = troubles.filter((one) => one.device !== device || one.what !== what)
  if (left.length === troubles.length) return
  turn.put({ troubles: left })
  turn.tell({ does: 'trouble over', device, what })
  report(turn, { what: 'trouble over', source: device, hold: null })
}

/** Notes a trouble; false when it was there already. */
function begin(turn: Turn, device: string, what: Trouble): boolean {
  const { troubles } = turn.state
  if (troubles.some((one) => one.device === device && one.what === what)) return false
  turn.put({ troubles: [...troubles, { device, what }] })
  turn.tell({ does: 'trouble', device, what })
  return true
}
