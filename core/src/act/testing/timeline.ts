import { act } from '../machine.ts'
import { nothingStated, type ActArea, type ActOptions, type ActZone, type Behaviour } from '../behaviour.ts'
import type { ActEvent, ActOutput } from '../events.ts'
import { atRest, type ActState } from '../state.ts'

/* Timelines as text: what happens, and after the arrow what the panel does. Written by hand, acted by the machine. */

/** The options of a plain panel, whose siren sounds three minutes; a test names what differs. */
const plainOptions: ActOptions = { ...nothingStated, sirenSeconds: 180 }

/** Exit 60 s, in stay 20 s, entry 30 s and 90 s. */
export const plainArea: ActArea = {
  id: 'house',
  delays: { entry1: 30, entry2: 90, exit: 60, exitStay: 20 },
}

/** A burglary zone that is always ignored: a test names what it does. */
export function zone(id: string, differs: Partial<ActZone> = {}): ActZone {
  return {
    id,
    device: id,
    areas: ['house'],
    parts: [],
    kind: 'burglary',
    sound: 'siren',
    trips: { away: 'ignore', stay: 'ignore', night: 'ignore', unset: 'ignore' },
    whileExit: { away: 'ignored', stay: 'ignored' },
    command: null,
    chime: false,
    report: true,
    held: false,
    supervised: true,
    doubleKnock: false,
    fire: 'plain',
    group: null,
    stands: false,
    ...differs,
  }
}

/** What a zone does in away, stay, night and unset, as four words. */
export function trips(words: string): ActZone['trips'] {
  const [away, stay, night, unset] = words.split(' ') as ActZone['trips']['away'][]
  if (!away || !stay || !night || !unset) throw new RangeError(`trips needs four words, not "${words}"`)
  return { away, stay, night, unset }
}

/** A zone that alarms at any hour. */
export function always(id: string, differs: Partial<ActZone>): ActZone {
  return zone(id, {
    trips: trips('instant instant instant instant'),
    whileExit: { away: 'live', stay: 'live' },
    ...differs,
  })
}

/** A behaviour of zones and options. */
export function panelOf(
  zones: readonly ActZone[],
  options: Partial<ActOptions> = {},
  areas: readonly ActArea[] = [plainArea],
): Behaviour {
  return { areas, zones, options: { ...plainOptions, ...options } }
}

/** What is expected, line by line, and what the machine does with the same events. */
export function played(
  behaviour: Behaviour,
  text: string,
): { wanted: string[]; given: string[]; end: ActState } {
  const wanted = text
    .trim()
    .split('\n')
    .map((line) => line.trim().replace(/\s+/g, ' '))
  let state = atRest(behaviour)
  const given = wanted.map((line) => {
    const words = line.split(' → ')[0] ?? ''
    const event = eventOf(words)
    const acted = act(behaviour, state, event)
    state = acted.state
    const outputs = acted.outputs.map((output) => outputWords(output, event.at, behaviour))
    return outputs.length === 0 ? words : `${words} → ${outputs.join('; ')}`
  })
  return { wanted, given, end: state }
}

function eventOf(words: string): ActEvent {
  const [time = '', does = '', ...rest] = words.split(' ')
  const at = Number(time)
  const one = rest[0] ?? ''
  switch (does) {
    case 'set': {
      // set MODE [letter X] [AREA …]
      const part = rest[1] === 'letter' ? (rest[2] ?? null) : null
      const areas = part === null ? rest.slice(1) : rest.slice(3)
      return { at, do: 'set', mode: one as 'away', areas, part }
    }
    case 'unset':
      return { at, do: 'unset', areas: rest, duress: false }
    case 'duress':
      return { at, do: 'unset', areas: rest, duress: true }
    case 'open':
    case 'trip':
      return { at, do: 'trip', zone: one }
    case 'close':
      return { at, do: 'close', zone: one }
    case 'leave-out':
      return { at, do: 'leave-out', zone: one }
    case 'cover':
      return { at, do: 'cover', device: one, open: rest[1] === 'off' }
    case 'lost':
    case 'back':
      return { at, do: does, device: one }
    case 'battery':
      return { at, do: 'battery', device: one, low: rest[1] === 'low' }
    case 'jam':
      return { at, do: 'jam', on: one === 'on' }
    case 'wait':
      return { at, do: 'wait' }
    default:
      throw new RangeError(`a timeline has no event "${does}"`)
  }
}

function outputWords(output: ActOutput, now: number, { areas }: Behaviour): string {
  const when = output.at === now ? '' : `${output.at} `
  const area = 'area' in output && areas.length > 1 ? ` ${output.area}` : ''
  return `${when}${does(output, area)}`
}

function does(output: ActOutput, area: string): string {
  switch (output.does) {
    case 'leave':
      return `leave${area} ${output.mode} until ${output.until ?? 'the door'}`
    case 'leave again':
      return `leave again${area} until ${output.until ?? 'the door'}`
    case 'set':
      return `set${area} ${output.mode}`
    case 'unset':
      return `unset${area}`
    case 'enter':
      return `enter${area} by ${output.zone} ${output.delay} until ${output.until}`
    case 'enter sooner':
      return `enter sooner${area} by ${output.zone} until ${output.until}`
    case 'alarm':
      return `alarm ${output.kind} ${output.source}`
    case 'sound':
      return `sound ${output.sound}`
    case 'report':
      return `report ${output.what} ${output.source}`.trim()
    case 'leave out':
      return `leave out ${output.zone} ${output.why}`
    case 'trouble':
    case 'trouble over':
      return `${output.does} ${output.what} ${output.device}`.trim()
    case 'ask':
      return `ask ${output.zone} until ${output.until}`
    case 'refuse':
      return `refuse ${output.why} ${output.of.join(' ')}`.trim()
    case 'abort':
      return `abort ${output.source}`
    case 'wait':
    case 'chime':
    case 'notice':
    case 'first knock':
    case 'verify':
    case 'switch':
      return `${output.does} ${output.zone}`
    case 'quiet':
    case 'clear':
      return output.does
  }
}
