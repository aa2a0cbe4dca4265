import { readFileSync } from 'node:fs'
import type { Locator } from '@playwright/test'
import { Catalogue, readPack } from '#core'
import { interfaceOf, type Compiled } from '../core/src/panel/compiled.ts'
import { display } from '../core/src/panel/display.ts'
import { readKeys } from '../core/src/panel/keys.ts'
import { act, switchedOn } from '../core/src/panel/machine.ts'
import type { PanelState } from '../core/src/panel/state.ts'

/** A panel of the demo pack that stands in for the one on the wall: keys that are read off the page go in, its display comes out. */
export class PanelOnTheWall {
  readonly #panel: Compiled
  #state: PanelState
  #devices = 0

  constructor(id: string) {
    const read = readPack(JSON.parse(readFileSync('demo/packs/world.json', 'utf8')))
    if (!read.ok) throw new Error('the demo pack cannot be read')
    const catalogue = new Catalogue(read.entries)
    const panel = catalogue.get('panel', id)
    const ready = panel && interfaceOf(catalogue, panel)
    if (!ready) throw new Error(`no interface of ${id}`)
    this.#panel = ready
    this.#state = switchedOn(ready, ready.factory)
  }

  /** Presses keys as a sheet writes them. */
  press(text: string): void {
    const read = readKeys(this.#panel, text)
    if (!read.ok) throw new Error(`${text}: ${read.reason}`)
    for (const input of read.inputs) this.#state = act(this.#panel, this.#state, input)
  }

  /** Some device transmits: one that nobody has heard before. */
  hear(loop: number): void {
    this.#devices += 1
    const serial = String(77_000_000 + this.#devices)
    this.#state = act(this.#panel, this.#state, { kind: 'hear', serial, loop })
  }

  get shows(): readonly string[] {
    return display(this.#panel, this.#state)
  }

  /** What it has kept at an address. */
  kept(address: string): string {
    return this.#state.kept.get(address) ?? ''
  }
}

/** Keys as they stand on a page, written so that they can be pressed. */
export async function keysOn(place: Locator): Promise<string> {
  return place.evaluate((element) => {
    const parts = [...element.querySelectorAll('.keys > *')].map((part) =>
      part.tagName === 'KBD' ? `[${part.textContent ?? ''}]` : (part.textContent ?? ''),
    )
    return parts.join(' ')
  })
}

/** The lines of the display that stands on a page. */
export async function linesOn(place: Locator): Promise<readonly string[]> {
  const lines = await place.locator('.line').allTextContents()
  return lines.map((line) => line.trimEnd())
}
