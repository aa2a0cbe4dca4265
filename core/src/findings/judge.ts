import { contextOf, type Finding, type JudgeInput, type Rule, type Severity } from './context.ts'
import { kitRules } from './rules-kit.ts'
import { labelRules } from './rules-labels.ts'
import { numberRules } from './rules-numbers.ts'
import { responseRules } from './rules-response.ts'

/** Every finding rule, in the order findings are shown within one severity. */
export const rules: readonly Rule[] = [...numberRules, ...kitRules, ...responseRules, ...labelRules]

const ranks: Readonly<Record<Severity, number>> = { stops: 0, risks: 1, advice: 2 }

/**
 * All findings of a job, gravest first. Total and deterministic: a function of its input only.
 * `without` leaves rules out, so that tests can show each one matters.
 */
export function judge(input: JudgeInput, without: ReadonlySet<string> = new Set()): Finding[] {
  const context = contextOf(input)
  const found = rules.flatMap((rule) =>
    without.has(rule.id)
      ? []
      : rule.find(context).map((item): Finding => ({ rule: rule.id, severity: rule.severity, ...item })),
  )
  return found.sort((a, b) => ranks[a.severity] - ranks[b.severity])
}

/** The rule of a finding; throws for an id that no rule has. */
export function ruleOf(id: string): Rule {
  const rule = rules.find((item) => item.id === id)
  if (!rule) throw new RangeError(`ruleOf: no rule ${id}`)
  return rule
}
