import { alarm } from './alarms.ts'
import { restartExit, setAreas, unsetAreas } from './arming.ts'
import { isAlwaysOn, isEntry, type ActZone, type SetMode } from './behaviour.ts'
import { standingOf, type Turn } from './turn.ts'

/* What a trip of a zone does, by how its areas stand. */

/** A zone opens or trips. */
export function trip(turn: Turn, zone: ActZone): void {
  if (zone.stands) {
    // What stands open already cannot open again.
    if (turn.state.open.includes(zone.id)) return
    turn.put({ open: [...turn.state.open, zone.id] })
  }
  decide(turn, zone)
}

/** What a trip does now, whether it is one just made or a zone that stands open when the exit delay ends. */
export function decide(turn: Turn, zone: ActZone): void {
  if (zone.command !== null) return command(turn, zone)
  if (isAlwaysOn(zone)) return knock(turn, zone)
  if (turn.state.leftOut.includes(zone.id)) return
  const standing = standingOf(turn.state, zone)
  switch (standing.is) {
    case 'outside':
      return
    case 'unset':
      return whileUnset(turn, zone)
    case 'leaving':
      return whileLeaving(turn, zone, standing.mode)
    case 'entering':
    case 'set':
      return whileSet(turn, zone, { mode: standing.mode, enters: standing.is === 'entering' })
  }
}

function whileUnset(turn: Turn, zone: ActZone): void {
  if (zone.chime) turn.tell({ does: 'chime', zone: zone.id })
  if (zone.trips.unset === 'alert') turn.tell({ does: 'notice', zone: zone.id })
}

/** Entry and follow are ignored, an entry door noted as left by, or as come back by; what alarms at once may be live. */
function whileLeaving(turn: Turn, zone: ActZone, mode: SetMode): void {
  const does = zone.trips[mode]
  if (isEntry(does)) restartExit(turn, zone)
  else if (does === 'alert') turn.tell({ does: 'notice', zone: zone.id })
  else if (does === 'instant' && zone.whileExit[mode === 'away' ? 'away' : 'stay'] === 'live')
    knock(turn, zone)
}

function whileSet(turn: Turn, zone: ActZone, { mode, enters }: { mode: SetMode; enters: boolean }): void {
  const does = zone.trips[mode]
  switch (does) {
    case 'ignore':
    case 'command':
      return
    case 'alert':
      return turn.tell({ does: 'notice', zone: zone.id })
    case 'instant':
      return knock(turn, zone)
    case 'follow':
      return enters ? turn.tell({ does: 'wait', zone: zone.id }) : knock(turn, zone)
    case 'entry-1':
    case 'entry-2':
      return enter(turn, zone, does)
  }
}

/** Starts the zone's delay in each of its areas; one that runs is never lengthened, and shortened only where the panel does. */
function enter(turn: Turn, zone: ActZone, delay: 'entry-1' | 'entry-2'): void {
  let atOnce = false
  for (const id of zone.areas) {
    const area = turn.state.areas[id]
    const seconds = secondsOf(turn, id, delay)
    if (!area || area.is === 'unset' || area.is === 'leaving') continue
    const until = turn.state.at + seconds
    if (area.is === 'entering') {
      if (!turn.behaviour.options.shorterEntryWins || until >= area.until)
        turn.tell({ does: 'wait', zone: zone.id })
      else {
        turn.putArea(id, { ...area, until })
        turn.tell({ does: 'enter sooner', area: id, zone: zone.id, until })
      }
    } else if (seconds === 0) atOnce = true
    else {
      const { mode, part } = area
      turn.putArea(id, { is: 'entering', mode, part, until, by: zone.id })
      turn.tell({ does: 'enter', area: id, zone: zone.id, delay, until })
    }
  }
  if (atOnce) alarm(turn, zone)
}

/** One trip, or the second of two where the zone waits for two. */
function knock(turn: Turn, zone: ActZone): void {
  if (!zone.doubleKnock) return fire(turn, zone)
  const first = turn.state.knocks[zone.id]
  const within = turn.behaviour.options.knockSeconds
  if (first !== undefined && (within === null || turn.state.at - first <= within)) {
    const { [zone.id]: _, ...knocks } = turn.state.knocks
    turn.put({ knocks })
    return fire(turn, zone)
  }
  turn.put({ knocks: { ...turn.state.knocks, [zone.id]: turn.state.at } })
  turn.tell({ does: 'first knock', zone: zone.id })
}

/** A fire may first be verified or asked about; everything else alarms. */
function fire(turn: Turn, zone: ActZone): void {
  if (zone.fire === 'verified') return verify(turn, zone)
  const seconds = turn.behaviour.options.acknowledgeSeconds
  if (zone.fire !== 'delayed' || seconds === null) return alarm(turn, zone)
  if (turn.state.asking.some((one) => one.zone === zone.id)) return
  const until = turn.state.at + seconds
  turn.put({ asking: [...turn.state.asking, { zone: zone.id, until }] })
  turn.tell({ does: 'ask', zone: zone.id, until })
}

function verify(turn: Turn, zone: ActZone): void {
  const { verifiedBy, verifySeconds } = turn.behaviour.options
  const { at, seen } = turn.state
  const fresh = seen.filter((one) => verifySeconds === null || at - one.at <= verifySeconds)
  const other = (id: string): boolean => id !== zone.id && turn.zone(id)?.group === zone.group
  const agrees = fresh.some((one) => {
    if (verifiedBy === 'again' || zone.group === null) return one.zone === zone.id
    return other(one.zone)
  })
  if (agrees) {
    turn.put({ seen: [] })
    return alarm(turn, zone)
  }
  turn.put({ seen: [...fresh.filter((one) => one.zone !== zone.id), { zone: zone.id, at }] })
  turn.tell({ does: 'verify', zone: zone.id })
}

function command(turn: Turn, zone: ActZone): void {
  switch (zone.command) {
    case 'unset':
      return unsetAreas(turn, zone.areas, false)
    case 'set-away':
      return setAreas(turn, zone.areas, { mode: 'away', part: null })
    case 'set-stay':
      return setAreas(turn, zone.areas, { mode: 'stay', part: null })
    case 'output':
    case null:
      return turn.tell({ does: 'switch', zone: zone.id })
  }
}

function secondsOf(turn: Turn, area: string, delay: 'entry-1' | 'entry-2'): number {
  const delays = turn.behaviour.areas.find((one) => one.id === area)?.delays
  return (delay === 'entry-1' ? delays?.entry1 : delays?.entry2) ?? 0
}
