import { pdfOf } from '../server/src/documents/pdf.ts'

/** A made-up leaflet of two pages, as a maker might print it. */
export function leafletPdf(name: string): Promise<Buffer> {
  return pdfOf({
    pageSize: 'A5',
    defaultStyle: { font: 'Roboto', fontSize: 11 },
    content: [
      { text: name, fontSize: 22, bold: true },
      { text: 'Fitting and learning', margin: [0, 4, 0, 12] },
      'Magnet and reed may stand 22 mm apart in wood, half of that on metal.',
      'To make it send: open the door, or press the tamper for one second.',
      {
        text: 'The sticker is inside, beside the battery. Read it before the cover closes.',
        margin: [0, 8, 0, 0],
      },
      { text: 'Loops', fontSize: 16, bold: true, pageBreak: 'before' },
      { ul: ['1 the reed', '2 the terminals', '8 the tamper'] },
    ],
  })
}
