import type { CanvasElement, Content, TDocumentDefinitions } from 'pdfmake/interfaces.js'
import { create } from 'qrcode'
import {
  boxLabels,
  jobInfo,
  labelLink,
  labelPlaces,
  zoneCard,
  type BoxLabel,
  type Catalogue,
  type JobDocument,
  type LabelPaper,
} from '#core'
import { pdfOf } from './pdf.ts'

/** Points of 1/72 inch to a millimetre. */
const PT = 72 / 25.4
/** Kept free along the edges of a label, mm: printers and scissors are not exact. */
const EDGE = 2.5
/** A code larger than this is no easier to scan, mm. */
const LARGEST_CODE = 24

/** How labels are asked for: the paper, the first free label of a begun sheet, and the address that codes lead to. */
export interface LabelsAsked {
  readonly jobId: string
  readonly origin: string
  readonly paper: LabelPaper
  /** From 1. */
  readonly from: number
}

/** The labels of a job's boxes as a PDF, each with a code that opens its device. */
export async function labelsPdf(
  document: JobDocument,
  catalogue: Catalogue,
  asked: LabelsAsked,
): Promise<Buffer> {
  return pdfOf(labelsDefinition(document, catalogue, asked))
}

/** What is printed; apart, so that a test can read it uncompressed. */
export function labelsDefinition(
  document: JobDocument,
  catalogue: Catalogue,
  { jobId, origin, paper, from }: LabelsAsked,
): TDocumentDefinitions {
  const { name, practice } = jobInfo(document)
  const labels = boxLabels(document, catalogue)
  const places = labelPlaces(paper, labels.length, from)
  const content: Content[] = []
  let page = 0
  for (const [index, label] of labels.entries()) {
    const place = places[index]
    if (!place) continue
    // What is placed absolutely does not move on to a next page by itself.
    for (; page < place.page; page++) content.push({ text: '', pageBreak: 'after' })
    content.push(
      ...labelContent(label, paper, {
        ...{ x: place.x, y: place.y },
        link: labelLink(origin, jobId, label.id),
        foot: practice ? 'PRACTICE' : name,
      }),
    )
  }
  return {
    pageSize: { width: paper.page[0] * PT, height: paper.page[1] * PT },
    pageMargins: 0,
    info: { title: `${name}: box labels`, creator: 'Kapelle' },
    defaultStyle: { font: 'Roboto', fontSize: 7.5, lineHeight: 1.05 },
    content: labels.length === 0 ? [{ text: 'No devices yet.', margin: 8 }] : content,
  }
}

interface Laid {
  readonly x: number
  readonly y: number
  readonly link: string
  readonly foot: string
}

function labelContent(label: BoxLabel, paper: LabelPaper, { x, y, link, foot }: Laid): Content[] {
  const [width, height] = paper.label
  const code = Math.min(LARGEST_CODE, height - 2 * EDGE)
  const free = (width - code - 3 * EDGE) * PT
  // Below the number, and above place, model, ID and the job.
  const rows = Math.max(1, Math.floor(((height - 2 * EDGE) * PT - 48) / 10))
  const line = (text: string, size: number): string => cut(text, free, size)
  return [
    { canvas: codeOf(link, code * PT), absolutePosition: { x: (x + EDGE) * PT, y: (y + EDGE) * PT } },
    {
      columns: [
        {
          width: free,
          stack: [
            { text: line(label.numbers, 11), fontSize: 11, bold: true },
            ...inLines(label.names, rows).map((text) => ({ text: line(text, 8), fontSize: 8, bold: true })),
            ...(label.place === '' ? [] : [{ text: line(label.place, 7.5) }]),
            { text: line(label.model, 7.5) },
            { text: line(label.serial === '' ? 'ID not known yet' : `ID ${label.serial}`, 7.5) },
            { text: line(foot, 6), fontSize: 6 },
          ],
        },
      ],
      absolutePosition: { x: (x + code + 2 * EDGE) * PT, y: (y + EDGE) * PT },
    },
  ]
}

/** Texts each on a line of its own, as far as there are lines; the last takes the rest. */
function inLines(texts: readonly string[], rows: number): string[] {
  if (texts.length <= rows) return [...texts]
  return [...texts.slice(0, rows - 1), texts.slice(rows - 1).join(', ')]
}

/** A QR code (ISO/IEC 18004, level M) as rectangles on a square of so many points, without its quiet zone: the label's edge is one. */
function codeOf(text: string, size: number): CanvasElement[] {
  const { modules } = create(text, { errorCorrectionLevel: 'M' })
  const step = size / modules.size
  const rects: CanvasElement[] = []
  for (let row = 0; row < modules.size; row++)
    for (let column = 0, run = 1; column < modules.size; column += run) {
      const dark = modules.get(row, column)
      for (run = 1; column + run < modules.size && modules.get(row, column + run) === dark; run++);
      if (dark)
        rects.push({
          ...{ type: 'rect', x: column * step, y: row * step, w: run * step, h: step },
          ...{ color: 'black', lineWidth: 0 },
        })
    }
  return rects
}

/** A text that keeps to one line: cut where it is longer than the label is wide, as its last sign says. */
function cut(text: string, width: number, size: number): string {
  // On the average a letter of Roboto is a little over half as wide as it is high.
  const most = Math.floor(width / (size * 0.54))
  return text.length <= most ? text : `${text.slice(0, Math.max(1, most - 1)).trimEnd()}…`
}

/** The card that tells zones by number where the panel shows no label; null where the panel shows them. */
export async function zoneCardPdf(document: JobDocument, catalogue: Catalogue): Promise<Buffer | null> {
  const card = zoneCard(document, catalogue)
  if (!card) return null
  const { name, region, practice } = jobInfo(document)
  return pdfOf({
    pageSize: region === 'north-america' ? 'LETTER' : 'A4',
    pageMargins: [48, 48, 48, 48],
    info: { title: `${name}: zone card`, creator: 'Kapelle' },
    defaultStyle: { font: 'Roboto', fontSize: 13 },
    content: [
      { text: name, fontSize: 18, bold: true },
      {
        text: `Zones of this system. Kept as ${card.on}; it holds no codes.${practice ? ' PRACTICE: nothing here was seen on a real system.' : ''}`,
        fontSize: 9,
        margin: [0, 2, 0, 10],
      },
      card.lines.length === 0
        ? { text: 'No zones yet.' }
        : {
            table: {
              headerRows: 1,
              widths: ['auto', '*', 'auto'],
              body: [
                ['Zone', 'Label', 'Room'].map((text) => ({ text, bold: true })),
                ...card.lines.map(({ number, label, room }) => [number, label || 'no label yet', room]),
              ],
            },
            layout: 'lightHorizontalLines',
          },
    ],
  })
}
