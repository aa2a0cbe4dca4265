import { isChoice, type HouseRules } from '../house-rules/house-rules.ts'
import { recordsOf, type JobDocument } from './document.ts'
import { evidenceOf } from './evidence.ts'

const kept = new WeakMap<JobDocument, { firm: HouseRules; rules: HouseRules }>()

/**
 * The house rules that hold for a job: those fixed at its hand-over, else the firm's; the job's own departures on top.
 * A job without departures gives back the firm's own object.
 */
export function rulesInForce(doc: JobDocument, firm: HouseRules): HouseRules {
  const known = kept.get(doc)
  if (known?.firm === firm) return known.rules
  const base = evidenceOf(doc, 'fixed-rules')[0]?.rules ?? firm
  const departures = recordsOf(doc, 'departure').filter((item) => isChoice(item.rule, item.choice))
  const rules =
    departures.length === 0
      ? base
      : {
          ...base,
          schools: {
            ...base.schools,
            ...Object.fromEntries(departures.map((item) => [item.rule, item.choice])),
          },
        }
  kept.set(doc, { firm, rules })
  return rules
}
