import { fitLabel, isDefaultLabel, labelKey, labelTrouble } from '../zones/labels.ts'
import { zoneLabel } from '../zones/new-zone.ts'
import { setOp, type Context, type Fix, type Rule, type ZoneView } from './context.ts'

/** Rules on labels: they must say where, and the panel must be able to show them. */
export const labelRules: readonly Rule[] = [
  {
    id: 'label-missing',
    severity: 'risks',
    title: 'label missing or the panel’s default',
    source: '“Zone 23” sends nobody anywhere',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) =>
        isDefaultLabel(view.zone.label)
          ? [
              {
                subject: view.zone.id,
                field: 'label',
                text: `${upper(view.name)} has ${view.zone.label.trim() === '' ? 'no label' : `only the label “${view.zone.label}”`}: it does not say where.`,
                fix: labelFix(c, view),
              },
            ]
          : [],
      ),
  },
  {
    id: 'label-twice',
    severity: 'risks',
    title: 'label used twice',
    source: 'Never two alike, also after the panel has cut them to length',
    stage: 'zones',
    find: (c) => {
      const rule = c.panel?.label ?? null
      const seen = new Map<string, ZoneView>()
      return c.zones.flatMap((view) => {
        if (isDefaultLabel(view.zone.label)) return []
        const key = labelKey(rule, view.zone.label)
        const first = seen.get(key)
        if (!first) {
          seen.set(key, view)
          return []
        }
        const cut =
          first.zone.label.toUpperCase() === view.zone.label.toUpperCase()
            ? ''
            : ' once the panel has cut it to length'
        return [
          {
            subject: view.zone.id,
            field: 'label',
            text: `${upper(view.name)} is labelled “${view.zone.label}” like ${first.name}${cut}.`,
            fix: labelFix(c, view),
          },
        ]
      })
    },
  },
  {
    id: 'label-long',
    severity: 'risks',
    title: 'label the panel cannot show',
    source: 'The panel’s own label length, characters or word list',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        const trouble =
          c.panel && !isDefaultLabel(view.zone.label) ? labelTrouble(c.panel.label, view.zone.label) : null
        if (!trouble || !c.panel) return []
        const fitting = fitLabel(c.panel.label, view.zone.label, takenLabels(c, view))
        const fix =
          fitting === ''
            ? labelFix(c, view)
            : { title: `Use “${fitting}”`, ops: [setOp(view.zone, 'label', fitting)] }
        return [
          {
            subject: view.zone.id,
            field: 'label',
            text: `“${view.zone.label}” of ${view.name}: ${trouble}.`,
            fix,
          },
        ]
      }),
  },
]

function labelFix(c: Context, view: ZoneView): Fix | null {
  if (!c.panel || !view.device || !view.model || !view.loop) return null
  const label = zoneLabel(
    c.panel,
    view.device,
    view.model,
    view.loop,
    takenLabels(c, view),
    c.rules.schools.labelOrder,
  )
  return label === '' || label === view.zone.label
    ? null
    : { title: `Call it “${label}”`, ops: [setOp(view.zone, 'label', label)] }
}

function takenLabels(c: Context, view: ZoneView): ReadonlySet<string> {
  return new Set(
    c.zones
      .filter((other) => other !== view)
      .map((other) => labelKey(c.panel?.label ?? null, other.zone.label)),
  )
}

function upper(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}
