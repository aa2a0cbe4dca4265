import type { ActOptions, ActZone, Behaviour } from '../behaviour.ts'
import { always, panelOf, trips, zone } from './timeline.ts'

/* A house with one zone of every need of the trade, each typed as it should be. */

const inStay = { away: 'ignored', stay: 'live' } as const

/** Every zone of the house. Contacts stand open until they close; the rest only trips. */
export const homeZones: readonly ActZone[] = [
  zone('front', { trips: trips('entry-1 entry-1 entry-1 ignore'), chime: true, stands: true }),
  zone('garage', { trips: trips('entry-2 entry-2 entry-2 ignore'), chime: true, stands: true }),
  zone('back', { trips: trips('entry-1 instant instant ignore'), chime: true, stands: true }),
  zone('side', { trips: trips('entry-1 follow follow ignore'), chime: true, stands: true }),
  zone('window', {
    trips: trips('instant instant instant ignore'),
    whileExit: inStay,
    chime: true,
    stands: true,
  }),
  zone('frame', { trips: trips('instant instant instant ignore'), whileExit: inStay }),
  zone('inner', { trips: trips('follow ignore ignore ignore'), stands: true }),
  zone('leaf', { trips: trips('entry-1 ignore ignore ignore') }),
  zone('far-leaf', { trips: trips('entry-2 ignore ignore ignore') }),
  zone('hall', { trips: trips('follow ignore ignore ignore') }),
  zone('lounge', { trips: trips('instant ignore ignore ignore') }),
  zone('landing', { trips: trips('follow entry-1 entry-1 ignore') }),
  zone('glass', { trips: trips('instant instant instant ignore'), whileExit: inStay }),
  zone('kitchen-glass', { trips: trips('instant ignore ignore ignore') }),
  zone('shop', { trips: trips('instant instant instant alert'), stands: true, chime: true }),
  always('smoke', { kind: 'fire', sound: 'three-pulse', device: 'detector' }),
  always('heat', { kind: 'fire', sound: 'three-pulse', device: 'detector' }),
  always('frost', { kind: 'auxiliary', sound: 'tone', device: 'detector', supervised: false }),
  always('co', { kind: 'gas', sound: 'four-pulse' }),
  always('flood', { kind: 'auxiliary', sound: 'tone' }),
  always('panic', { kind: 'panic', sound: 'siren' }),
  always('hold-up', { kind: 'panic', sound: 'silent' }),
  always('pendant', { kind: 'medical', sound: 'tone', supervised: false }),
  always('safe', { stands: true }),
  ...(['set-away', 'set-stay', 'unset', 'output'] as const).map((command) =>
    zone(`fob-${command}`, {
      device: 'fob',
      kind: 'command',
      sound: 'none',
      supervised: false,
      trips: trips('command command command command'),
      command,
    }),
  ),
]

/** The house with a panel of other options, or zones that differ by id. */
export function home(
  options: Partial<ActOptions> = {},
  differ: Readonly<Record<string, Partial<ActZone>>> = {},
): Behaviour {
  return panelOf(
    homeZones.map((one) => ({ ...one, ...differ[one.id] })),
    options,
  )
}
