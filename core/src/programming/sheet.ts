import type { Catalogue } from '../catalogue/catalogue.ts'
import type { PanelModel } from '../catalogue/schema.ts'
import { systemOf, type System } from '../system/system.ts'
import type { HouseRules } from '../house-rules/house-rules.ts'
import { recordOf, recordsOf, type JobDocument } from '../job/document.ts'
import type { Zone } from '../job/records.ts'
import { printNumber } from '../zones/numbers.ts'
import { zoneCells } from '../memory/zone-cells.ts'
import { fieldKeyed, keyedZone } from './field-values.ts'
import { makeStep, type SheetSection, type SheetStep } from './step.ts'
import { servedSection, settingSteps, slotSection, systemSteps } from './system-steps.ts'

/** The programming sheet of a job for its panel's own style. */
export interface Sheet {
  readonly panel: string
  readonly style: string
  readonly sections: readonly SheetSection[]
  /** Printed numbers of the zones that are left as the panel has them: nothing is keyed for them. */
  readonly left: readonly string[]
  /** How many values are still open. */
  readonly open: number
}

/** Makes the sheet by the house rules in force: way in, system fields, zones in number order, slots, way out and save. Null without a panel. */
export function programmingSheet(doc: JobDocument, catalogue: Catalogue, rules: HouseRules): Sheet | null {
  const system = systemOf(doc, catalogue)
  const { panel } = system
  if (!panel) return null
  const text = panel.programming
  const plain = (steps: PanelModel['programming']['wayIn']) =>
    steps.map((step) => makeStep({ step, fill: {}, field: '', meaning: '' }))
  const all = recordsOf(doc, 'zone')
  const zones = all
    .filter((zone) => !zone.asProgrammed)
    .map((zone) => zoneSection({ doc, panel }, system, zone))
  const left = all.filter((zone) => zone.asProgrammed).map((zone) => printNumber(panel, zone.number))
  const slots = slotSection({ doc, panel }, system, rules)
  const sections = [
    { title: 'Way in', steps: plain(text.wayIn) },
    { title: 'Whole system', steps: [...systemSteps(doc, panel), ...settingSteps(doc, panel)] },
    ...zones,
    ...(slots.steps.length > 0 ? [slots] : []),
    ...servedSection(doc, system, panel),
    { title: 'Way out and save', steps: plain(text.wayOut) },
  ]
  const open = sections.reduce((sum, section) => sum + section.steps.filter((step) => step.open).length, 0)
  return { panel: panel.name, style: panel.style, sections, left, open }
}

interface Programmed {
  readonly doc: JobDocument
  readonly panel: PanelModel
}

/** The two acts by which a zone that the panel has in one area comes into another. */
function moveSteps({ doc, panel }: Programmed, zone: Zone, number: string): SheetStep[] {
  const from = recordOf(doc, 'area', zone.leaves)
  const to = recordOf(doc, 'area', zone.area)
  const text = panel.programming.areaMove
  if (!from || !to || !text) return []
  return [
    makeStep({
      step: text.add,
      fill: { number, value: String(to.number) },
      field: 'add to area',
      meaning: to.name,
    }),
    makeStep({
      step: text.remove,
      fill: { number, value: String(from.number) },
      field: 'take out of area',
      meaning: from.name,
    }),
  ]
}

function zoneSection({ doc, panel }: Programmed, system: System, zone: Zone): SheetSection {
  const number = printNumber(panel, zone.number)
  const text = panel.programming
  const at = keyedZone(doc, system, zone)
  const steps = text.zone.flatMap((step): SheetStep[] => {
    const { words: field } = zoneCells[step.field]
    const result = at && fieldKeyed[step.field](at)
    if (result === null) return []
    if (result === 'open')
      return [makeStep({ step, fill: { number }, field, meaning: 'still open in the plan', open: true })]
    return [
      makeStep({
        step,
        fill: { number, value: result.value, meaning: result.meaning },
        field,
        meaning: result.meaning,
        ...(result.note ? { note: result.note } : {}),
      }),
    ]
  })
  return {
    title: `Zone ${number}${zone.label ? ` — ${zone.label}` : ''}`,
    steps: [
      makeStep({ step: text.zoneStart, fill: { number }, field: 'zone', meaning: number }),
      ...steps,
      ...moveSteps({ doc, panel }, zone, number),
      makeStep({ step: text.zoneEnd, fill: { number }, field: '', meaning: '' }),
    ],
  }
}
