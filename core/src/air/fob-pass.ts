import { systemOf, type JobAndCatalogue } from '../system/system.ts'
import type { Heard } from '../job/records.ts'
import type { Person } from '../records/fields.ts'
import { heardRecord, sisterSerial, targetsOf, type Target } from './learn.ts'

/*
 * A panel that keeps a fob by numbers, one per button, learns all of them by one press of any. Each button is still proved by
 * itself: that the panel knows the fob is no sign that a button does what it should.
 */

/** The other buttons that a panel learned with one of a fob; empty where it learns each by itself, or none is learned whole yet. */
export function fobPass({ doc, catalogue }: JobAndCatalogue, target: Target): readonly Target[] {
  const { panel, byId } = systemOf(doc, catalogue)
  const isFob = byId.get(target.device.id)?.model.class === 'fob'
  if (!isFob || panel?.slots.fobs.by !== 'numbers') return []
  return targetsOf(doc, catalogue).filter(
    (other) => other.device.id === target.device.id && !other.done && sisterSerial(doc, other) !== null,
  )
}

/** The records that the other buttons of a fob are learned with the one that was heard. */
export function fobPassRecords(
  job: JobAndCatalogue,
  target: Target,
  made: {
    readonly newId: () => string
    readonly who: Person
    readonly at: string
    readonly source: Heard['source']
  },
): readonly Heard[] {
  const family = systemOf(job.doc, job.catalogue).byId.get(target.device.id)?.model.family ?? ''
  return fobPass(job, target).map((other) =>
    heardRecord(job.doc, {
      ...{
        id: made.newId(),
        target: other,
        who: made.who,
        at: made.at,
        decision: 'accepted',
        code: 'one-press',
      },
      facts: {
        ...{ serial: sisterSerial(job.doc, other) ?? '', family, cause: 'sister' },
        ...{ loop: other.loop?.loop ?? null, level: null, source: made.source },
      },
      reason: 'Learned with another button of the same fob, by one press: this button itself was not heard.',
    }),
  )
}
