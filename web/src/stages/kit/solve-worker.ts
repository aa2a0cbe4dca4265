import { v4 as uuid } from 'uuid'
import {
  Catalogue,
  solveKit,
  type JobDocument,
  type KeptEntry,
  type KitSolution,
  type RemedyCosts,
} from '#core'

/** What the page asks of the worker. */
export interface SolveRequest {
  readonly doc: JobDocument
  readonly entries: readonly KeptEntry[]
  readonly costs: RemedyCosts
}

/** What the worker tells: after each setting tried, and at the end. */
export interface SolveMessage {
  readonly done: number
  readonly of: number
  readonly best: KitSolution | null
  readonly ended: boolean
}

/** Runs the search off the main thread; the page stops it by ending the worker. */
self.onmessage = (event: MessageEvent<SolveRequest>) => {
  const { doc, entries, costs } = event.data
  const search = solveKit(doc, new Catalogue(entries), { newId: uuid, costs })
  let last: SolveMessage = { done: 0, of: 0, best: null, ended: false }
  for (let step = search.next(); ; step = search.next()) {
    if (step.done) {
      self.postMessage({ ...last, best: step.value, ended: true } satisfies SolveMessage)
      return
    }
    last = { ...step.value, ended: false }
    self.postMessage(last)
  }
}
