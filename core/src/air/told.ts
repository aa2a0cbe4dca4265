import { asItIs, freshEvidence } from '../job/evidence.ts'
import { recordOf, type JobDocument } from '../job/document.ts'
import type { Told } from '../job/records.ts'
import { listeningFor, type Listening } from '../panel/listening.ts'
import type { Person } from '../records/fields.ts'
import { systemOf, type JobAndCatalogue } from '../system/system.ts'
import type { Target } from './learn.ts'

/* A panel learns only while it listens, and takes whatever is sent meanwhile: what it was told to learn, and until when. */

/** How the panel is told to learn a target, by its description; null where nobody has described it. */
export function listeningOf({ doc, catalogue }: JobAndCatalogue, target: Target): Listening | null {
  const { panel, byId } = systemOf(doc, catalogue)
  if (target.zone) return listeningFor(catalogue, panel, { group: 'zone', number: target.zone.number })
  const { slot: group } = byId.get(target.device.id)?.model ?? {}
  const number = recordOf(doc, 'device', target.device.id)?.slot ?? null
  if (number === null || (group !== 'fob' && group !== 'keypad' && group !== 'siren')) return null
  return listeningFor(catalogue, panel, { group, number })
}

/** The record that the panel was told to learn a target. */
export function toldRecord(
  doc: JobDocument,
  opts: {
    readonly id: string
    readonly target: Target
    readonly seconds: number
    readonly who: Person
    readonly at: string
  },
): Told {
  const { id, target, seconds, who, at } = opts
  return {
    ...freshEvidence(who, at),
    ...{ id, type: 'told', subject: target.id, of: asItIs(doc, target.id), seconds },
  }
}
