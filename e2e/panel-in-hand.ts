import { readFileSync } from 'node:fs'
import { mouse, type Hands } from './help.ts'
import { expect, type Locator, type Page } from '@playwright/test'
import { Catalogue, jobInfo, readKept, readPack, type OpenedJob } from '#core'
import { targetMemory } from '../core/src/memory/target.ts'
import { interfaceOf, type Compiled } from '../core/src/panel/compiled.ts'
import { display } from '../core/src/panel/display.ts'
import { readKeys } from '../core/src/panel/keys.ts'
import { act, switchedOn } from '../core/src/panel/machine.ts'
import type { PanelState } from '../core/src/panel/state.ts'

/** A panel of the demo pack that stands in for the one on the wall: keys that are read off the page go in, its display comes out. */
export class PanelOnTheWall {
  readonly #panel: Compiled
  #state: PanelState

  /** How it came, but for what it is to hold already. */
  constructor(id: string, holds: ReadonlyMap<string, string> = new Map()) {
    const read = readPack(JSON.parse(readFileSync('demo/packs/world.json', 'utf8')))
    if (!read.ok) throw new Error('the demo pack cannot be read')
    const catalogue = new Catalogue(read.entries)
    const panel = catalogue.get('panel', id)
    const ready = panel && interfaceOf(catalogue, panel)
    if (!ready) throw new Error(`no interface of ${id}`)
    this.#panel = ready
    this.#state = switchedOn(ready, new Map([...ready.factory, ...holds]))
  }

  /** Presses keys as a sheet writes them. */
  press(text: string): void {
    const read = readKeys(this.#panel, text)
    if (!read.ok) throw new Error(`${text}: ${read.reason}`)
    for (const input of read.inputs) this.#state = act(this.#panel, this.#state, input)
  }

  /** A device transmits. */
  hear(serial: string, loop: number | null): void {
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

/**
 * Reads the panel of the open job back from Hand over, display by display: one that holds what is planned. Ends on Hand over.
 */
export async function readBackAsPlanned(page: Page, hands: Hands = mouse): Promise<void> {
  const id = /jobs\/([0-9a-f-]+)/.exec(page.url())?.[1] ?? ''
  const answer = await page.request.get(`${new URL(page.url()).origin}/api/jobs/${id}`)
  const { document, entries } = (await answer.json()) as OpenedJob
  const wanted = targetMemory(document, new Catalogue(entries.map(readKept)))?.wanted
  const panel = new PanelOnTheWall(jobInfo(document).panel ?? '', wanted)
  await hands.press(page.getByRole('link', { name: 'Read back' }))
  const reading = page.getByRole('region', { name: 'Read back' })
  const compare = reading.getByRole('button', { name: 'Compare' })
  const shows = reading.getByRole('button', { name: 'It shows this' })
  await expect(shows.or(compare)).toBeVisible()
  while (await shows.or(compare).isVisible()) {
    const far = (await reading.getByText(/^\d+ of \d+$/).textContent()) ?? ''
    if ((await reading.locator('.press').count()) > 0) panel.press(await keysOn(reading.locator('.press')))
    if (await shows.isVisible()) {
      expect((await linesOn(reading)).join('|')).toBe(panel.shows.join('|'))
      await hands.press(shows)
    } else {
      for (const [index, line] of panel.shows.entries())
        if (line !== '')
          await hands.type(
            reading.getByLabel(
              panel.shows.length === 1 ? 'What the display shows' : `Line ${index + 1} of the display`,
            ),
            line,
          )
      await hands.press(compare)
      await expect(reading.getByText(far, { exact: true })).toHaveCount(0)
    }
  }
  await expect(reading).toContainText('none otherwise')
  await hands.press(reading.getByRole('button', { name: 'Done' }))
  await hands.press(page.getByRole('link', { name: /^Hand over/ }).first())
}
