import { isRecalled, type Recall } from '../catalogue/standing.ts'
import { isPractice, recordsOf, type JobDocument } from './document.ts'
import { enrolments } from './enrolment.ts'

/** A device of a job that a recall is about, or may be. */
export interface RecalledHere {
  readonly device: string
  readonly room: string
  readonly position: string
  readonly serial: string | null
  readonly madeYear: number | null
  /** `unknown` where its ID or year is not known: it is looked at. */
  readonly answer: 'yes' | 'unknown'
}

/** Devices of a job that a recall is about, by the ID that they were learned by, else that of their sticker. A practice job has none. */
export function recalledIn(doc: JobDocument, recall: Recall): readonly RecalledHere[] {
  if (isPractice(doc)) return []
  const learned = enrolments(doc)
  const byDevice = new Map<string, string>()
  for (const zone of recordsOf(doc, 'zone')) {
    const known = learned.get(zone.id)
    if (zone.device !== null && known) byDevice.set(zone.device, known.serial)
  }
  return recordsOf(doc, 'device')
    .filter(({ model }) => model === recall.entryId)
    .flatMap(({ id, room, position, sticker, madeYear }): RecalledHere[] => {
      const serial = learned.get(id)?.serial ?? byDevice.get(id) ?? sticker
      const answer = isRecalled(recall, { serial, madeYear })
      return answer === 'no' ? [] : [{ device: id, room, position, serial, madeYear, answer }]
    })
}
