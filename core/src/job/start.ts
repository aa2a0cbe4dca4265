import type { Catalogue } from '../catalogue/catalogue.ts'
import { closureOf } from '../catalogue/closure.ts'
import { blankArea } from './blank.ts'
import type { JobDocument } from './document.ts'
import type { Op } from './edit.ts'
import { pinId, type JobInfo } from './records.ts'

/** Ops that pin these entries and what they need, where `doc` does not pin them yet. */
export function pinOps(doc: JobDocument, catalogue: Catalogue, entries: readonly (string | null)[]): Op[] {
  return closureOf(catalogue, entries)
    .filter((entry) => !(pinId(entry) in doc.records))
    .map((entry) => ({
      op: 'add',
      record: { id: pinId(entry), type: 'pin', entry, hash: catalogue.hash(entry) },
    }))
}

/** The first edit's ops: the job, its pins, and the areas that its panel has, at least one. */
export function startOps(doc: JobDocument, catalogue: Catalogue, info: JobInfo): Op[] {
  return [
    ...pinOps(doc, catalogue, [info.panel]),
    { op: 'add', record: info },
    { op: 'add', record: { ...blankArea, id: 'area:1', number: 1, name: 'Whole premises', order: 1 } },
  ]
}
