import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js'
import {
  customerNotes,
  departureLines,
  jobInfo,
  judge,
  owedList,
  writtenIn,
  recordOf,
  recordsOf,
  rulesInForce,
  scheduleColumns,
  systemOf,
  zoneSchedule,
  type Catalogue,
  type Finding,
  type HouseRules,
  type JobDocument,
} from '#core'
import { pdfOf } from './pdf.ts'

/** The zone schedule of a job as a PDF with its fonts embedded; what is owed stands first. */
export async function schedulePdf(
  document: JobDocument,
  catalogue: Catalogue,
  houseRules: HouseRules,
  now: Date,
): Promise<Buffer> {
  return pdfOf(definition(document, catalogue, houseRules, now))
}

/** What is printed of, and how its days are written. */
interface Printed {
  readonly document: JobDocument
  readonly catalogue: Catalogue
  readonly day: (time: string) => string
}

/** Departures with their reasons, life safety first; nothing where there are none. */
function departures({ document, catalogue, day }: Printed, findings: readonly Finding[]): Content[] {
  const lines = departureLines(document, findings, systemOf(document, catalogue).panel)
  if (lines.length === 0) return []
  const words = {
    'life-safety': 'LIFE SAFETY: ',
    finding: '',
    'house-rule': 'Other than the house rule. ',
    zone: '',
  }
  return [
    { text: 'Departures, each with its reason', style: 'head' },
    {
      ul: lines.map((line) => ({
        text: `${words[line.kind]}${line.what} Reason: ${line.reason}${line.by ? ` (${line.by}, ${day(line.at)})` : ''}`,
        bold: line.kind === 'life-safety',
      })),
    },
  ]
}

function definition(
  document: JobDocument,
  catalogue: Catalogue,
  houseRules: HouseRules,
  now: Date,
): TDocumentDefinitions {
  const info = jobInfo(document)
  const system = systemOf(document, catalogue)
  const times = writtenIn(info.region)
  const input = { doc: document, catalogue, now: now.toISOString(), elsewhere: null, houseRules, times }
  const findings = judge(input)
  const owed = owedList(input, findings)
  const notes = customerNotes(document, catalogue, rulesInForce(document, houseRules))
  const day = times.day(now.toISOString())
  const heads = scheduleColumns.map(([, title]) => ({ text: title, bold: true }))
  const lines = zoneSchedule(document, catalogue).map((line) => scheduleColumns.map(([key]) => line[key]))
  const fobs = system.devices
    .filter(({ model }) => model.slot === 'fob')
    .map(({ device, model }) => [
      `${model.name}${device.slot === null ? '' : `, slot ${device.slot}`}`,
      recordOf(document, 'user', device.user)?.name ?? 'nobody yet: owed',
    ])
  return {
    // Paper is cut by the region of the job.
    pageSize: info.region === 'north-america' ? 'LETTER' : 'A4',
    pageOrientation: 'landscape',
    pageMargins: [32, 36, 32, 40],
    info: { title: `${info.name}: zone schedule`, creator: 'Kapelle' },
    defaultStyle: { font: 'Roboto', fontSize: 9 },
    styles: {
      title: { fontSize: 16, bold: true },
      head: { fontSize: 11, bold: true, margin: [0, 12, 0, 4] },
    },
    footer: (page, pages) => ({
      text: `${info.practice ? 'PRACTICE: nothing here was seen on a real system. ' : ''}${info.name}, zone schedule of ${day}, page ${page} of ${pages}. Holds no codes.`,
      margin: [32, 12, 32, 0],
      fontSize: 8,
    }),
    content: [
      { text: `${info.name}${info.practice ? ' — practice job' : ''}`, style: 'title' },
      {
        text: [
          info.address,
          system.panel ? `Panel ${system.panel.name}` : 'No panel chosen',
          `Printed ${day}`,
        ]
          .filter(Boolean)
          .join('  |  '),
      },
      { text: owed.length === 0 ? 'Nothing is owed' : 'Still owed', style: 'head' },
      ...(owed.length === 0
        ? []
        : [{ ul: owed.map((item) => `${item.blocks ? 'Blocks hand-over: ' : ''}${item.text}`) }]),
      ...departures({ document, catalogue, day: times.day }, findings),
      ...(notes.length === 0 ? [] : [{ text: 'To tell the customer', style: 'head' }, { ul: notes }]),
      { text: 'Zones', style: 'head' },
      lines.length === 0
        ? { text: 'No zones yet.' }
        : {
            table: {
              headerRows: 1,
              widths: scheduleColumns.map(([key]) => (key === 'label' ? '*' : 'auto')),
              body: [heads, ...lines],
            },
            layout: 'lightHorizontalLines',
          },
      { text: 'Users and fobs', style: 'head' },
      {
        text:
          recordsOf(document, 'user')
            .map((user) => user.name)
            .join(', ') || 'No users noted.',
      },
      ...(fobs.length === 0 ? [] : [{ table: { body: fobs }, layout: 'noBorders' }]),
      {
        text: 'Local codes and the makers’ manuals override this sheet. Test yearly; put the station on test before any alarm test.',
        margin: [0, 12, 0, 0],
        italics: true,
      },
    ],
  }
}
