import {
  BinaryBitmap,
  DecodeHintType,
  GlobalHistogramBinarizer,
  QRCodeReader,
  RGBLuminanceSource,
} from '@zxing/library'
import pdfmake from 'pdfmake'
import { beforeAll, describe, expect, it } from 'vitest'
import {
  applyOps,
  boxLabels,
  Catalogue,
  emptyDocument,
  labelLink,
  labelPapers,
  labelPlaces,
  readJobFile,
  readLabelLink,
  type JobDocument,
  type LabelPaper,
} from '#core'
import { builds } from '../../../core/src/testing/builds.ts'
import { SmallJob } from '../../../core/src/testing/small-job.ts'
import { labelsDefinition, labelsPdf, zoneCardPdf } from './labels-pdf.ts'

const JOB = '0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a001'
const ORIGIN = 'https://kapelle.example:4680'
const PT = 72 / 25.4

let doc: JobDocument
let catalogue: Catalogue
beforeAll(() => {
  const read = readJobFile(builds.at(-1)?.jobs['the-old-ropewalk'])
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  catalogue = new Catalogue(read.entries)
  const applied = applyOps(emptyDocument, [...read.plan, ...read.told])
  if (!applied.ok) throw new Error(JSON.stringify(applied.conflict))
  doc = applied.doc
})

/** The pages as they are drawn, uncompressed: filled rectangles in points from the left upper corner, page by page. */
async function rectangles(paper: LabelPaper, from: number): Promise<number[][][]> {
  const definition = {
    ...labelsDefinition(doc, catalogue, { jobId: JOB, origin: ORIGIN, paper, from }),
    compress: false,
  }
  const text = (await pdfmake.createPdf(definition).getBuffer()).toString('latin1')
  // Every page begins by turning its axis down.
  return text
    .split(/stream\n1 0 0 -1 0 [\d.]+ cm/)
    .slice(1)
    .map((page) =>
      [...page.matchAll(/^([\d.]+) ([\d.]+) ([\d.]+) ([\d.]+) re$/gm)].map((found) =>
        found.slice(1).map(Number),
      ),
    )
}

/** What a reader of codes sees on one label. */
function read(rects: readonly number[][], place: { x: number; y: number }, paper: LabelPaper): string {
  const scale = 6
  const [width, height] = paper.label.map((mm) => Math.round(mm * PT * scale)) as [number, number]
  const grey = new Uint8ClampedArray(width * height).fill(255)
  for (const [x = 0, y = 0, w = 0, h = 0] of rects) {
    const at = (value: number, origin: number): number => Math.round((value - origin * PT) * scale)
    for (let row = Math.max(0, at(y, place.y)); row < Math.min(height, at(y + h, place.y)); row++)
      for (let column = Math.max(0, at(x, place.x)); column < Math.min(width, at(x + w, place.x)); column++)
        grey[row * width + column] = 0
  }
  const source = new RGBLuminanceSource(grey, width, height)
  // It is drawn, not photographed: there is nothing to straighten.
  const hints = new Map([[DecodeHintType.PURE_BARCODE, true]])
  return new QRCodeReader().decode(new BinaryBitmap(new GlobalHistogramBinarizer(source)), hints).getText()
}

describe('box labels', () => {
  it.each(labelPapers.map((paper) => [paper.title, paper] as const))(
    'carry codes that an independent reader reads back, each of its own device: %s',
    async (_, paper) => {
      const from = Math.min(3, paper.columns * paper.rows)
      const pages = await rectangles(paper, from)
      const labels = boxLabels(doc, catalogue)
      const places = labelPlaces(paper, labels.length, from)
      expect(labels.length).toBeGreaterThan(10)
      expect(pages).toHaveLength((places.at(-1)?.page ?? 0) + 1)
      for (const [index, label] of labels.entries()) {
        const place = places[index]
        if (!place) expect.fail('a label without a place')
        const text = read(pages[place.page] ?? [], place, paper)
        expect(text).toBe(labelLink(ORIGIN, JOB, label.id))
        expect(readLabelLink(text)).toEqual({ job: JOB, device: label.id })
      }
    },
  )

  it('come on paper of the size that was asked for, with their fonts inside', async () => {
    const roll = labelPapers.find(({ key }) => key === 'roll-62') ?? expect.fail('no roll')
    const pdf = (
      await labelsPdf(doc, catalogue, { jobId: JOB, origin: ORIGIN, paper: roll, from: 1 })
    ).toString('latin1')
    // 62 by 29 mm in points of 1/72 inch.
    expect(/\/MediaBox \[0 0 ([\d. ]+)\]/.exec(pdf)?.[1]).toMatch(/^175\.7\d* 82\.2\d*$/)
    expect(pdf).toContain('/FontFile2')
  })

  it('are one page that says so for a job without devices', async () => {
    const [paper] = labelPapers
    const pdf =
      paper && (await labelsPdf(emptyJob(), catalogue, { jobId: JOB, origin: ORIGIN, paper, from: 1 }))
    expect(pdf?.toString('latin1').match(/\/MediaBox/g)).toHaveLength(1)
  })
})

/** The job without what is planned. */
function emptyJob(): JobDocument {
  const kept = Object.entries(doc.records).filter(
    ([, record]) => record.type === 'job' || record.type === 'pin',
  )
  return { ...emptyDocument, records: Object.fromEntries(kept) }
}

describe('the zone card', () => {
  it('is a page where the panel shows no label, and nothing where it shows them', async () => {
    expect(await zoneCardPdf(doc, catalogue)).toBeNull()
    const silent = new SmallJob({ panel: 'panel/pinfold-16' }).number()
    const card = await zoneCardPdf(silent.doc, silent.catalogue)
    expect(card?.toString('latin1').match(/\/MediaBox/g)).toHaveLength(1)
  })
})
