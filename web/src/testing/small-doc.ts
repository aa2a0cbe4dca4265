import pack from '../../../demo/packs/world.json' with { type: 'json' }
import {
  applyOps,
  asItIs,
  blankDevice,
  blankJob,
  blankZone,
  Catalogue,
  emptyDocument,
  freshEvidence,
  pinOps,
  readPack,
  startOps,
  type JobDocument,
  type Op,
} from '#core'

/** The demo catalogue, for tests. */
export const catalogue = ((): Catalogue => {
  const read = readPack(pack)
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return new Catalogue(read.entries)
})()

/** Applies ops that must hold. */
export function after(doc: JobDocument, ops: readonly Op[]): JobDocument {
  const result = applyOps(doc, ops)
  if (!result.ok) throw new Error(JSON.stringify(result.conflict))
  return result.doc
}

/** An empty monitored job on a panel. */
export function docOn(panel: string, radioFirmware: string | null): JobDocument {
  const job = {
    ...blankJob,
    id: 'job:main',
    name: 'Mill Cottage',
    region: 'europe',
    kind: 'new',
    monitored: true,
    grade: 2,
    panel,
    radioFirmware,
    airSeed: 1,
  } as const
  return after(emptyDocument, startOps(emptyDocument, catalogue, job))
}

/** A job on the Tarn 40 with one contact in the porch on zone 7. */
export function smallDoc(): JobDocument {
  const doc = docOn('panel/tarn-40', '1.31')
  return after(doc, [
    ...pinOps(doc, catalogue, ['device/reedling']),
    {
      op: 'add',
      record: { ...blankDevice, id: 'device:porch', model: 'device/reedling', room: 'porch', order: 1 },
    },
    {
      op: 'add',
      record: {
        ...blankZone,
        id: 'zone:one',
        number: 7,
        device: 'device:porch',
        event: 'open',
        label: 'Porch Door',
      },
    },
  ])
}

/** The document with a zone or device learned by this ID, as heard over the air. */
export function learned(doc: JobDocument, subject: string, serial: string): JobDocument {
  return after(doc, [
    {
      op: 'add',
      record: {
        ...freshEvidence({ id: 'p1', name: 'Nell' }, '2026-05-04T09:00:00.000Z'),
        id: `heard:${subject.replace(':', '-')}`,
        type: 'heard',
        serial,
        family: '',
        cause: 'event',
        loop: null,
        level: 4,
        source: 'display',
        shown: null,
        times: null,
        decision: 'accepted',
        code: 'accept',
        reason: '',
        subject,
        of: asItIs(doc, subject),
      },
    },
  ])
}
