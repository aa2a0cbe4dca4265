import {
  Catalogue,
  lostFor,
  type JobDocument,
  type KeptEntry,
  type LostAnswer,
  type LostAsked,
  type SheetStart,
} from '#core'

/** What the page asks of the worker: first the job, then each time what was read. */
export type LostRequest =
  | {
      readonly job: {
        readonly doc: JobDocument
        readonly entries: readonly KeptEntry[]
        readonly start: SheetStart
      }
    }
  | { readonly asked: LostAsked }

let find: ReturnType<typeof lostFor> = null

/** Finds the way out of the panel's menus off the main thread: the map of a panel takes a moment to draw. */
self.onmessage = (event: MessageEvent<LostRequest>) => {
  if ('job' in event.data) {
    const { doc, entries, start } = event.data.job
    find = lostFor({ doc, catalogue: new Catalogue(entries), start })
    return
  }
  self.postMessage((find?.(event.data.asked) ?? null) satisfies LostAnswer | null)
}
