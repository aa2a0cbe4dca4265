import { createRequire } from 'node:module'
import { dirname, sep } from 'node:path'
import pdfmake from 'pdfmake'
import type { TDocumentDefinitions } from 'pdfmake/interfaces.js'

const require = createRequire(import.meta.url)
const fonts = require('pdfmake/fonts/Roboto.js') as Record<string, Record<string, string>>
const fontFolder = dirname(require.resolve('pdfmake/fonts/Roboto.js')) + sep

pdfmake.setFonts(fonts as never)
// A document reads its own fonts and nothing else: no address, no other file.
pdfmake.setUrlAccessPolicy(() => false)
pdfmake.setLocalAccessPolicy((path) => path.startsWith(fontFolder))

/** A document as a PDF with its fonts embedded. */
export async function pdfOf(definition: TDocumentDefinitions): Promise<Buffer> {
  return pdfmake.createPdf(definition).getBuffer()
}
