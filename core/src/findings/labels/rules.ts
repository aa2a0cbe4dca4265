import { setOp } from '../../job/edit.ts'
import { fitLabel, isBareLabel, isDefaultLabel, labelKey, labelTrouble } from '../../zones/labels.ts'
import { zoneLabel } from '../../zones/new-zone.ts'
import type { Context, ZoneView } from '../context.ts'
import type { Found, FoundFix, RulesOf } from '../finding.ts'

/** What the rules on labels find. */
export interface LabelFacts {
  readonly 'label-missing': { readonly zone: string; readonly label: string }
  /** A thing, a number or a try, and no place. */
  readonly 'label-bare': { readonly zone: string; readonly label: string }
  readonly 'label-twice': {
    readonly zone: string
    readonly label: string
    readonly first: string
    /** Whether they are alike only once the panel has cut them. */
    readonly cut: boolean
  }
  readonly 'label-long': { readonly zone: string; readonly label: string; readonly trouble: string }
}

/** Rules on labels: they must say where, and the panel must be able to show them. */
export const labelRules: RulesOf<LabelFacts> = {
  'label-missing': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'label'],
    find: (c) => c.zones.flatMap((view) => (isDefaultLabel(view.zone.label) ? [atLabel(c, view)] : [])),
  },
  'label-bare': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'label'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const { label } = view.zone
        // A carried device has no place to say.
        if (isDefaultLabel(label) || !isBareLabel(label) || view.model?.carried) return []
        return [atLabel(c, view)]
      }),
  },
  'label-twice': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'label', 'first'],
    find: (c) => {
      const rule = c.panel?.label ?? null
      const seen = new Map<string, ZoneView>()
      return c.zones.flatMap((view) => {
        const { label } = view.zone
        if (isDefaultLabel(label)) return []
        const key = labelKey(rule, label)
        const first = seen.get(key)
        if (!first) {
          seen.set(key, view)
          return []
        }
        // Blanks and capitals are alike before anything is cut.
        const cut = labelKey(null, first.zone.label) !== labelKey(null, label)
        return [
          {
            subject: view.zone.id,
            field: 'label',
            facts: { zone: view.number, label, first: first.number, cut },
            fix: labelFix(c, view),
          },
        ]
      })
    },
  },
  'label-long': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'label'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const { label } = view.zone
        const trouble = c.panel && !isDefaultLabel(label) ? labelTrouble(c.panel.label, label) : null
        if (!trouble || !c.panel) return []
        const fitting = fitLabel(c.panel.label, label, takenLabels(c, view))
        const fix =
          fitting === ''
            ? labelFix(c, view)
            : ({
                does: 'use-label',
                facts: { label: fitting },
                ops: [setOp(view.zone, 'label', fitting)],
              } as const)
        return [{ subject: view.zone.id, field: 'label', facts: { zone: view.number, label, trouble }, fix }]
      }),
  },
}

/** A label that does not say where, with one that does. */
function atLabel(c: Context, view: ZoneView): Found<{ readonly zone: string; readonly label: string }> {
  const facts = { zone: view.number, label: view.zone.label }
  return { subject: view.zone.id, field: 'label', facts, fix: labelFix(c, view) }
}

function labelFix(c: Context, view: ZoneView): FoundFix | null {
  if (!c.panel || !view.device || !view.model || !view.loop) return null
  const label = zoneLabel(
    { panel: c.panel, device: view.device, model: view.model, loop: view.loop },
    takenLabels(c, view),
    c.rules.schools.labelOrder,
  )
  return label === '' || label === view.zone.label || isBareLabel(label)
    ? null
    : { does: 'call-it', facts: { label }, ops: [setOp(view.zone, 'label', label)] }
}

function takenLabels(c: Context, view: ZoneView): ReadonlySet<string> {
  return new Set(
    c.zones
      .filter((other) => other !== view)
      .map((other) => labelKey(c.panel?.label ?? null, other.zone.label)),
  )
}
