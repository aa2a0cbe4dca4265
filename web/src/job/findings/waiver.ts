import { v4 as uuid } from 'uuid'
import { ruleOf, type Finding, type JobRecord } from '#core'

type Waiver = Extract<JobRecord, { type: 'waiver' }>

/** Why nobody, or not a person of this role, can take a finding upon themselves; empty when they can. */
export function barredFrom(finding: Finding, role: string | undefined): string {
  const { waive } = ruleOf(finding.rule)
  if (waive === 'never')
    return 'Nobody can take this upon themselves: the panel or physics forbids it. It must be put right.'
  return waive === 'owner' && finding.severity === 'stops' && role !== 'owner'
    ? 'Too much hangs on it: only an owner of the firm can take it upon themselves.'
    : ''
}

/** A waiver of a finding as it stands, bound to its facts; `fresh`: what new evidence carries of its maker and moment. */
export function waiverOf(
  finding: Finding,
  reason: string,
  fresh: Pick<Waiver, 'made' | 'at' | 'corrects'>,
): Waiver {
  const { rule, subject, text, key } = finding
  return {
    ...{ id: `waiver:${uuid()}`, type: 'waiver', rule, subject, text: text.slice(0, 1000), key, reason },
    ...fresh,
  }
}
