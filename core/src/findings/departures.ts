import type { PanelModel } from '../catalogue/schema.ts'
import { schools, choiceWords } from '../house-rules/schools.ts'
import { recordOf, recordsOf, type JobDocument } from '../job/document.ts'
import { unconfirmedByReason } from '../job/enrolment.ts'
import type { Waiver } from '../job/records.ts'
import type { Finding } from './finding.ts'
import { ruleNamed, ruleOf } from './registry.ts'
import type { Role } from '../records/roles.ts'
import { printNumber } from '../zones/numbers.ts'

/** One departure from a rule, as the hand-over prints it. */
export interface DepartureLine {
  /** `life-safety` stands first on the hand-over. */
  readonly kind: 'life-safety' | 'finding' | 'house-rule' | 'zone'
  readonly what: string
  readonly reason: string
  /** Who took it upon themselves; empty where the plan only says the reason. */
  readonly by: string
  readonly at: string
}

const order: readonly DepartureLine['kind'][] = ['life-safety', 'finding', 'house-rule', 'zone']

/** Every departure with its reason, zone numbers as the panel prints them: life safety first: waived findings, house rules left, reasons written on zones. */
export function departureLines(
  doc: JobDocument,
  findings: readonly Finding[],
  panel: PanelModel | null,
): DepartureLine[] {
  const waived = findings.flatMap((finding): DepartureLine[] => {
    const { waived: waiver } = finding
    if (!waiver) return []
    const life = finding.severity === 'stops' && ruleOf(finding.rule).waive === 'owner'
    return [
      {
        kind: life ? 'life-safety' : 'finding',
        what: finding.text,
        reason: waiver.reason,
        by: waiver.made.name,
        at: waiver.at,
      },
    ]
  })
  const left = recordsOf(doc, 'departure').map((record): DepartureLine => {
    const question = schools.find((item) => item.key === record.rule)?.question ?? record.rule
    return {
      kind: 'house-rule',
      what: `${question}: ${choiceWords(record.rule, record.choice)}`,
      reason: record.reason,
      by: record.made.name,
      at: record.at,
    }
  })
  const zones = recordsOf(doc, 'zone').flatMap((zone): DepartureLine[] =>
    zone.reason.trim() === ''
      ? []
      : [
          {
            kind: 'zone',
            what: `Zone ${printNumber(panel, zone.number)}${zone.label ? `, ${zone.label}` : ''}`,
            reason: zone.reason,
            by: '',
            at: '',
          },
        ],
  )
  const unconfirmed = [...unconfirmedByReason(doc)].flatMap(([reason, set]): DepartureLine[] => {
    const [first] = set
    if (!first) return []
    const { made, at } = first.evidence
    const names = set.map(({ evidence }) => subjectWords(doc, panel, evidence.subject)).join(', ')
    const what = `Accepted without the second transmission that the house rule asks for: ${names}`
    return [{ kind: 'house-rule', what, reason, by: made.name, at }]
  })
  return [...waived, ...left, ...unconfirmed, ...zones].sort(
    (a, b) => order.indexOf(a.kind) - order.indexOf(b.kind),
  )
}

function subjectWords(doc: JobDocument, panel: PanelModel | null, subject: string): string {
  const zone = recordOf(doc, 'zone', subject)
  if (zone) return `zone ${printNumber(panel, zone.number)}`
  const device = recordOf(doc, 'device', subject)
  return device?.slot ? `slot ${device.slot}` : 'a device'
}

/** Why somebody may not take a finding upon themselves; null when they may. */
export function waiverTrouble(waiver: Waiver, role: Role): string | null {
  const rule = ruleNamed(waiver.rule)
  if (!rule) return `names no rule: there is none called ${waiver.rule}`
  if (rule.waive === 'never')
    return 'cannot be taken on by anybody: the panel or physics forbids it, it must be put right'
  if (rule.waive === 'owner' && role !== 'owner')
    return 'is life safety: only an owner of the firm can take it upon themselves'
  return null
}
