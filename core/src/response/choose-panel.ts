import type { Catalogue } from '../catalogue/catalogue.ts'
import type { PanelModel } from '../catalogue/schema.ts'
import { jobInfo, type JobDocument } from '../job/document.ts'
import { changeOps, setOp, type Op } from '../job/edit.ts'
import type { JobInfo } from '../job/records.ts'
import { pinOps } from '../job/start.ts'
import { firstDelays, type FirstDelays } from './first-delays.ts'

/**
 * The radio firmware that a panel is taken to have when it is chosen: the newest of one that is still to be bought. Null for one that
 * may hang on the wall already, where it is read, and for a panel that tells none.
 */
export function firmwareWhenChosen(
  panel: Pick<PanelModel, 'radioFirmware'> | null,
  kind: JobInfo['kind'],
): string | null {
  return kind === 'new' ? (panel?.radioFirmware.at(-1) ?? null) : null
}

/**
 * Ops that choose a panel, or none, for a job: what it needs pinned, the panel, its firmware, and the usual delays that nobody
 * touched as that panel can keep them. Empty where it is chosen already.
 */
export function choosePanelOps(doc: JobDocument, catalogue: Catalogue, id: string | null): Op[] {
  const info = jobInfo(doc)
  if (info.panel === id) return []
  const [before, after] = [catalogue.get('panel', info.panel), catalogue.get('panel', id)]
  const firmware = firmwareWhenChosen(after, info.kind)
  const [had, has] = [firstDelays(before, info.region), firstDelays(after, info.region)]
  const untouched = (Object.keys(had) as (keyof FirstDelays)[]).filter((field) => info[field] === had[field])
  return [
    ...pinOps(doc, catalogue, [id]),
    setOp(info, 'panel', id),
    ...changeOps(info, 'radioFirmware', firmware),
    ...untouched.flatMap((field) => changeOps(info, field, has[field])),
  ]
}
