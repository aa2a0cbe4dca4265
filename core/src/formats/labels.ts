import { learningRound } from '../air/round.ts'
import { targetsOf } from '../air/learn.ts'
import type { Catalogue } from '../catalogue/catalogue.ts'
import { groupId } from '../identity/sticker.ts'
import { recordOf, recordsOf, type JobDocument } from '../job/document.ts'
import { deviceSerial } from '../job/enrolment.ts'
import { systemOf } from '../system/system.ts'
import { printNumber } from '../zones/numbers.ts'

/*
 * Labels for boxes and devices: what goes where, with a code that opens the device here. They hold no user code.
 */

/** What stands on the label of one device. */
export interface BoxLabel {
  /** Device id. */
  readonly id: string
  /** `zone 07, 08`, `fob 1` or `repeater 1`; never empty. */
  readonly numbers: string
  /** Labels of its zones, or who carries it; each once. */
  readonly names: readonly string[]
  /** Room and position; empty where nobody has said. */
  readonly place: string
  readonly model: string
  /** In the groups of its sticker, with what it is known by; empty where no ID is known yet. */
  readonly serial: string
}

/**
 * A label for each device that is there, box by box as the bench is worked through: one kind after the other. Wired devices of a
 * zone come last; deferred ones are not there yet.
 */
export function boxLabels(doc: JobDocument, catalogue: Catalogue): BoxLabel[] {
  const system = systemOf(doc, catalogue)
  const round = learningRound({ doc, catalogue }, targetsOf(doc, catalogue), 'box')
  const names = new Map<string, string>()
  const order: string[] = []
  for (const { device, name } of round.flatMap(({ targets }) => targets)) {
    if (!order.includes(device.id)) order.push(device.id)
    if (!names.has(device.id)) names.set(device.id, name)
  }
  const rest = system.devices.filter(({ device }) => device.deferred === null && !order.includes(device.id))
  return [...order, ...rest.map(({ device }) => device.id)].flatMap((id): BoxLabel[] => {
    const item = system.byId.get(id)
    if (!item || item.device.deferred !== null) return []
    const { device, model, family } = item
    const zones = recordsOf(doc, 'zone').filter((zone) => zone.device === id)
    const numbers = zones.map((zone) => printNumber(system.panel, zone.number)).join(', ')
    const carrier = recordOf(doc, 'user', device.user)?.name
    const serial = device.sticker ?? deviceSerial(doc, id)
    return [
      {
        id,
        numbers: numbers === '' ? (names.get(id) ?? model.class) : `zone ${numbers}`,
        names: [...new Set([...zones.map(({ label }) => label), carrier ?? ''])].filter((one) => one !== ''),
        place: [device.room, device.position].filter(Boolean).join(', '),
        model: model.name,
        serial: serial === null ? '' : groupId(family, serial),
      },
    ]
  })
}

/** Paper that labels are printed on; all lengths in mm. */
export interface LabelPaper {
  readonly key: string
  readonly title: string
  readonly page: readonly [width: number, height: number]
  readonly columns: number
  readonly rows: number
  readonly label: readonly [width: number, height: number]
  /** From the page's edge to the first label. */
  readonly margin: readonly [left: number, top: number]
  readonly gap: readonly [across: number, down: number]
}

const roll = (key: string, width: number, height: number): LabelPaper => ({
  ...{ key, title: `Label printer, ${width} × ${height} mm`, page: [width, height], columns: 1, rows: 1 },
  ...{ label: [width, height], margin: [0, 0], gap: [0, 0] },
})

/** Sheets and rolls in common sizes: A4 (ISO 216), US letter (ANSI), and what label printers take. */
export const labelPapers: readonly LabelPaper[] = [
  {
    ...{ key: 'a4-24', title: 'A4, 24 labels of 70 × 37 mm', page: [210, 297], columns: 3, rows: 8 },
    ...{ label: [70, 37], margin: [0, 0.5], gap: [0, 0] },
  },
  {
    ...{ key: 'a4-21', title: 'A4, 21 labels of 63.5 × 38.1 mm', page: [210, 297], columns: 3, rows: 7 },
    ...{ label: [63.5, 38.1], margin: [7.2, 15.1], gap: [2.5, 0] },
  },
  {
    ...{
      key: 'letter-30',
      title: 'Letter, 30 labels of 2⅝ × 1 in',
      page: [215.9, 279.4],
      columns: 3,
      rows: 10,
    },
    ...{ label: [66.7, 25.4], margin: [4.8, 12.7], gap: [3.1, 0] },
  },
  roll('roll-62', 62, 29),
  roll('roll-57', 57, 32),
  roll('roll-89', 89, 36),
]

/** Where a label lies: its page from 0, and its left upper corner on it, mm. */
export interface LabelPlace {
  readonly page: number
  readonly x: number
  readonly y: number
}

/** Where labels lie on a paper, row by row; `from` is the first free label of a sheet that was begun, from 1. */
export function labelPlaces(paper: LabelPaper, count: number, from = 1): LabelPlace[] {
  const perPage = paper.columns * paper.rows
  return Array.from({ length: count }, (_, index) => {
    const at = index + from - 1
    const [column, row] = [at % paper.columns, Math.floor((at % perPage) / paper.columns)]
    return {
      page: Math.floor(at / perPage),
      x: paper.margin[0] + column * (paper.label[0] + paper.gap[0]),
      y: paper.margin[1] + row * (paper.label[1] + paper.gap[1]),
    }
  })
}

/** The address that a label's code holds: it opens the device here, also by a telephone's own camera. */
export function labelLink(origin: string, job: string, device: string): string {
  return `${origin}/jobs/${job}/enrol?show=${encodeURIComponent(device)}`
}

/** The job and the device that a scanned code names; null for any other text. */
export function readLabelLink(text: string): { readonly job: string; readonly device: string } | null {
  const found = /^https?:\/\/[^/\s]+\/jobs\/([0-9a-f-]{36})\/enrol\?show=([^&\s]+)$/iu.exec(text.trim())
  const [, job, shown] = found ?? []
  if (job === undefined || shown === undefined) return null
  try {
    const device = decodeURIComponent(shown)
    return device.startsWith('device:') ? { job: job.toLowerCase(), device } : null
  } catch {
    // Not an address that anybody wrote here.
    return null
  }
}

/** One line of the card that tells zones where the panel shows no label. */
export interface CardLine {
  readonly number: string
  readonly label: string
  readonly room: string
}

/** What carries the labels instead of the panel, and the zones with them; null where the panel shows labels itself. */
export function zoneCard(
  doc: JobDocument,
  catalogue: Catalogue,
): { readonly on: string; readonly lines: readonly CardLine[] } | null {
  const { panel, byId } = systemOf(doc, catalogue)
  const on = panel?.label.style === 'text' ? panel.label.insteadOn : undefined
  if (!panel || on === undefined) return null
  return {
    on,
    lines: recordsOf(doc, 'zone').map((zone) => ({
      number: printNumber(panel, zone.number),
      label: zone.label,
      room: (zone.device === null ? undefined : byId.get(zone.device)?.device.room) ?? '',
    })),
  }
}
