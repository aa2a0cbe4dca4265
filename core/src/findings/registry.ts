import type { Op } from '../job/edit.ts'
import { areaRules } from './areas/rules.ts'
import { delayRules } from './delays/rules.ts'
import type { Declared, Fact, FoundFix, Rule, RulesOf, WordsOf } from './finding.ts'
import { fitRules } from './fit/rules.ts'
import { identityRules } from './identity/rules.ts'
import { labelRules } from './labels/rules.ts'
import { lifeSafetyRules } from './life-safety/rules.ts'
import { needRules } from './needs/rules.ts'
import { numberRules } from './numbers/rules.ts'
import { placementRules } from './placement/rules.ts'
import { reportingRules } from './reporting/rules.ts'
import { responseRules } from './response/rules.ts'
import { settingRules } from './settings/rules.ts'
import { slotRules } from './slots/rules.ts'
import { overdueRules } from './states/rules.ts'
import { supervisionRules } from './supervision/rules.ts'
import { areaWords } from './words/areas.ts'
import { delayWords } from './words/delays.ts'
import { fitWords } from './words/fit.ts'
import { fixWords } from './words/fixes.ts'
import { identityWords } from './words/identity.ts'
import { labelWords } from './words/labels.ts'
import { lifeSafetyWords } from './words/life-safety.ts'
import { needWords } from './words/needs.ts'
import { numberWords } from './words/numbers.ts'
import { placementWords } from './words/placement.ts'
import { upperFirst } from '../units/words.ts'
import { reportingWords } from './words/reporting.ts'
import { responseWords } from './words/response.ts'
import { settingWords } from './words/settings.ts'
import { slotWords } from './words/slots.ts'
import { stateWords } from './words/states.ts'
import { supervisionWords } from './words/supervision.ts'
import { zoneWords } from './words/zones.ts'
import { zoneRules } from './zones/rules.ts'

/** Every finding rule with its words, in the order findings are shown within one severity. */
export const rules: readonly Rule[] = [
  ...topic(numberRules, numberWords),
  ...topic(identityRules, identityWords),
  ...topic(fitRules, fitWords),
  ...topic(zoneRules, zoneWords),
  ...topic(slotRules, slotWords),
  ...topic(placementRules, placementWords),
  ...topic(lifeSafetyRules, lifeSafetyWords),
  ...topic(responseRules, responseWords),
  ...topic(needRules, needWords),
  ...topic(reportingRules, reportingWords),
  ...topic(supervisionRules, supervisionWords),
  ...topic(areaRules, areaWords),
  ...topic(settingRules, settingWords),
  ...topic(delayRules, delayWords),
  ...topic(labelRules, labelWords),
  ...topic(overdueRules, stateWords),
]

const byId = new Map(rules.map((rule) => [rule.id, rule]))

/** The rule of an id; null for one that no rule has, such as one of another build. */
export function ruleNamed(id: string): Rule | null {
  return byId.get(id) ?? null
}

/** The rule of a finding; RangeError for an id that no rule has. */
export function ruleOf(id: string): Rule {
  const rule = ruleNamed(id)
  if (!rule) throw new RangeError(`ruleOf: no rule ${id}`)
  return rule
}

type Facts = Readonly<Record<string, Fact>>

/** Joins the rules of a topic with their words; which facts they are is known to both, and to nobody behind. */
function topic<T>(declared: RulesOf<T>, words: WordsOf<T>): Rule[] {
  return (Object.keys(declared) as (keyof T & string)[]).map((id) => joined(id, declared[id], words[id]))
}

function joined<F>(id: string, rule: Declared<F>, words: WordsOf<Record<'says', F>>['says']): Rule {
  return {
    ...rule,
    id,
    title: words.title,
    source: words.source,
    find: (context) =>
      rule.find(context).map(({ subject, field, facts, fix, others }) => ({
        subject,
        field,
        facts: facts as Facts,
        // As much as a waiver keeps of it.
        key: JSON.stringify(rule.key.map((name) => facts[name])).slice(0, 1000),
        text: upperFirst(words.says(facts)),
        fix: fix && titled(fix),
        others: (others ?? []).map(titled),
      })),
  }
}

function titled(fix: FoundFix): { readonly title: string; readonly ops: readonly Op[] } {
  return { title: fixTitle(fix), ops: fix.ops }
}

function fixTitle<K extends FoundFix['does']>({ does, facts }: Extract<FoundFix, { does: K }>): string {
  return fixWords[does as K](facts as never)
}
