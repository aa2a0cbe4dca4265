import {
  Catalogue,
  panelSheet,
  type JobDocument,
  type KeptEntry,
  type PanelSheet,
  type RouteOrder,
  type SheetStart,
} from '#core'

/** What the page asks of the worker. */
export interface SheetRequest {
  readonly doc: JobDocument
  readonly entries: readonly KeptEntry[]
  readonly start: SheetStart
  readonly order: RouteOrder
  readonly identity: 'learn' | 'type'
}

/** Makes the sheet off the main thread; the page ends the worker where the plan changes meanwhile. */
self.onmessage = (event: MessageEvent<SheetRequest>) => {
  const { doc, entries, start, order, identity } = event.data
  const sheet = panelSheet({ doc, catalogue: new Catalogue(entries), start, order, identity })
  self.postMessage(sheet satisfies PanelSheet | null)
}
