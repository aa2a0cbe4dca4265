import { expect } from 'vitest'
import type { Memory } from '../memory/memory.ts'
import { interfaceOf, type Compiled } from '../panel/compiled.ts'
import { display } from '../panel/display.ts'
import { readKeys } from '../panel/keys.ts'
import { act, switchedOn } from '../panel/machine.ts'
import type { Input, PanelState } from '../panel/state.ts'
import { catalogue, cleanMorrow, cleanTarn, SmallJob } from './small-job.ts'

/** A panel of the demo pack with its interface, ready to be acted out; throws for one without. */
export function demoPanel(id: string): Compiled {
  const panel = catalogue.get('panel', `panel/${id}`)
  const ready = panel && interfaceOf(catalogue, panel)
  if (!ready) throw new RangeError(`demoPanel: no interface of ${id}`)
  return ready
}

/** Inputs of keys as a sheet writes them; throws for keys that the panel does not have. */
function keysOf(panel: Compiled, text: string): readonly Input[] {
  const read = readKeys(panel, text)
  if (!read.ok) throw new RangeError(`${text}: ${read.reason}`)
  return read.inputs
}

/** A panel in hand: keys go in, the display comes out. */
export class PanelInHand {
  readonly panel: Compiled
  state: PanelState

  constructor(panel: Compiled, memory: Memory = panel.factory) {
    this.panel = panel
    this.state = switchedOn(panel, memory)
  }

  /** Keys as a sheet writes them; what the display then shows, its lines with a bar between. */
  keys(text: string): string {
    for (const input of keysOf(this.panel, text)) this.state = act(this.panel, this.state, input)
    return this.shows
  }

  get shows(): string {
    return display(this.panel, this.state).join(' | ').trim()
  }

  /** What it keeps otherwise than it was shipped. */
  get kept(): Readonly<Record<string, string>> {
    const { kept } = this.state
    const all = new Set([...kept.keys(), ...this.panel.factory.keys()])
    const changed = [...all].filter((address) => kept.get(address) !== this.panel.factory.get(address))
    return Object.fromEntries(changed.sort().map((address) => [address, kept.get(address) ?? '']))
  }
}

/** Presses each line's keys in turn; after them the display must show what stands beside. */
export function follow(hand: PanelInHand, table: readonly (readonly [keys: string, shows: string])[]): void {
  for (const [keys, shows] of table) expect([keys, hand.keys(keys)]).toEqual([keys, shows])
}

/** One door on the Tarn, named and with an ID. */
export function oneDoor(): SmallJob {
  const job = new SmallJob({ entry2: 45 }).add('porch', 'reedling', { sticker: '20417733' }).number()
  return job.set(job.zone('porch').id, {
    ...{ response: 'entry-1', number: 1, label: 'Front door', loop: 3 },
    ...{ chime: true, report: true, supervise: true, transmissionDelay: false },
  })
}

/** A job on each panel that is described: a whole small one on two, a door with its sticker and a delay on the others. */
export const jobOnEach: readonly (readonly [panel: string, job: () => SmallJob])[] = [
  ['tarn-40', cleanTarn],
  ['morrow-60', cleanMorrow],
  ...(
    [
      ['quillet-32', 'sill-8', 'H204177'],
      ['ostler-s-8', 'sill-8', 'H204177'],
      ['ostler-s-9', 'sill-9', 'K204177'],
      ['pinfold-16', 'pebble', '9C204A'],
      ['sallow-m', 'jetty-slim', '0A1B2C3D4E'],
    ] as const
  ).map(([id, model, sticker]): readonly [string, () => SmallJob] => [
    id,
    () =>
      new SmallJob({
        ...{ panel: `panel/${id}`, radioFirmware: null, entry2: 30 },
        region: catalogue.get('panel', `panel/${id}`)?.regions[0] ?? 'europe',
      })
        .add('porch', model, { sticker })
        .number(),
  ]),
]
