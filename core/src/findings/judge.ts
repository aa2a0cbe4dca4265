import type { JobDocument } from '../job/document.ts'
import { evidenceOf } from '../job/evidence.ts'
import type { Waiver } from '../job/records.ts'
import { contextOf, type JudgeInput } from './context.ts'
import type { Finding, Severity } from './finding.ts'
import { ruleNamed, rules } from './registry.ts'

const ranks: Readonly<Record<Severity, number>> = { stops: 0, risks: 1, advice: 2 }

/**
 * All findings of a job, gravest first. Total and deterministic: a function of its input only.
 * `without` leaves rules out, so that tests can show each one matters.
 */
export function judge(input: JudgeInput, without: ReadonlySet<string> = new Set()): Finding[] {
  const context = contextOf(input)
  const waivers = openWaivers(input.doc)
  const found = rules.flatMap((rule) =>
    without.has(rule.id)
      ? []
      : rule.find(context).map((item): Finding => ({
          rule: rule.id,
          severity: rule.severity,
          ...item,
          ...waiverOf(waivers, rule.id, item),
        })),
  )
  return found.sort((a, b) => ranks[a.severity] - ranks[b.severity])
}

/** Waivers that nobody took back, by rule and subject, as far as the role they were given in may waive that rule. */
function openWaivers(doc: JobDocument): ReadonlyMap<string, readonly Waiver[]> {
  const ended = new Set(evidenceOf(doc, 'waiver-end').map((record) => record.waiver))
  const open = new Map<string, Waiver[]>()
  for (const waiver of evidenceOf(doc, 'waiver')) {
    if (ended.has(waiver.id) || !mayWaive(waiver)) continue
    const at = `${waiver.rule}|${waiver.subject}`
    open.set(at, [...(open.get(at) ?? []), waiver])
  }
  return open
}

/**
 * What was taken on of a finding. A waiver holds for the facts it was given for, however the sentence reads; one of before, that kept
 * the sentence alone, holds as long as it reads the same, and is shown as given for an earlier wording afterwards.
 */
function waiverOf(
  waivers: ReadonlyMap<string, readonly Waiver[]>,
  rule: string,
  { subject, key, text }: Pick<Finding, 'subject' | 'key' | 'text'>,
): Pick<Finding, 'waived' | 'earlier'> {
  const given = waivers.get(`${rule}|${subject}`) ?? []
  const waived = given.findLast((one) => (one.key === null ? one.text === text : one.key === key)) ?? null
  const earlier = waived ? null : (given.findLast((one) => one.key === null) ?? null)
  return { waived, earlier }
}

/** Whether the role in which a waiver was given may waive its rule now; one of an unknown role waives no life safety. */
function mayWaive(waiver: Waiver): boolean {
  const needed = ruleNamed(waiver.rule)?.waive
  // Until the server has taken it, the role is its maker's own and the server asks.
  if (waiver.made.takenAt === null && waiver.made.id !== null) return needed !== 'never'
  return needed === undefined || (needed === 'owner' && waiver.made.role === 'owner')
}

/** Whether a finding still stops the hand-over. */
export function stops(finding: Finding): boolean {
  return finding.severity === 'stops' && finding.waived === null
}
