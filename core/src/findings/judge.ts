import type { JobDocument } from '../job/document.ts'
import { evidenceOf } from '../job/evidence.ts'
import type { Waiver } from '../job/records.ts'
import { contextOf, type Finding, type JudgeInput, type Rule, type Severity } from './context.ts'
import { areaRules } from './rules-areas.ts'
import { behaviourRules } from './rules-behaviour.ts'
import { couplingRules } from './rules-couplings.ts'
import { delayRules } from './rules-delays.ts'
import { fireRules } from './rules-fire.ts'
import { kitRules } from './rules-kit.ts'
import { labelRules } from './rules-labels.ts'
import { numberRules } from './rules-numbers.ts'
import { placementRules } from './rules-placement.ts'
import { responseRules } from './rules-response.ts'

/** Every finding rule, in the order findings are shown within one severity. */
export const rules: readonly Rule[] = [
  ...numberRules,
  ...kitRules,
  ...placementRules,
  ...responseRules,
  ...behaviourRules,
  ...fireRules,
  ...areaRules,
  ...couplingRules,
  ...delayRules,
  ...labelRules,
]

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
          waived: waivers.get(waiverKey(rule.id, item.subject, item.text)) ?? null,
        })),
  )
  return found.sort((a, b) => ranks[a.severity] - ranks[b.severity])
}

/**
 * Waivers that nobody took back, by rule, subject and text: one holds for the finding as it read when it was given, and only
 * while the role it was given in may waive that rule.
 */
function openWaivers(doc: JobDocument): ReadonlyMap<string, Waiver> {
  const ended = new Set(evidenceOf(doc, 'waiver-end').map((record) => record.waiver))
  return new Map(
    evidenceOf(doc, 'waiver')
      .filter((waiver) => !ended.has(waiver.id) && mayWaive(waiver))
      .map((waiver) => [waiverKey(waiver.rule, waiver.subject, waiver.text), waiver]),
  )
}

/** Whether the role in which a waiver was given may waive its rule now; one of an unknown role waives no life safety. */
function mayWaive(waiver: Waiver): boolean {
  const needed = rules.find((rule) => rule.id === waiver.rule)?.waive
  // Until the server has taken it, the role is its maker's own and the server asks.
  if (waiver.made.takenAt === null && waiver.made.id !== null) return needed !== 'never'
  return needed === undefined || (needed === 'owner' && waiver.made.role === 'owner')
}

function waiverKey(rule: string, subject: string, text: string): string {
  return `${rule}|${subject}|${text}`
}

/** Whether a finding still stops the hand-over. */
export function stops(finding: Finding): boolean {
  return finding.severity === 'stops' && finding.waived === null
}

/** The rule of a finding; throws for an id that no rule has. */
export function ruleOf(id: string): Rule {
  const rule = rules.find((item) => item.id === id)
  if (!rule) throw new RangeError(`ruleOf: no rule ${id}`)
  return rule
}
