import { getDocument, GlobalWorkerOptions, type PDFDocumentProxy } from 'pdfjs-dist'
import worker from 'pdfjs-dist/build/pdf.worker.min.mjs?url'

GlobalWorkerOptions.workerSrc = worker

/** A PDF whose pages can be drawn; `close` lets go of it. */
export interface PdfPages {
  readonly count: number
  /** Draws a page, 1-based, as wide as asked, CSS pixels; gives the words on it. */
  draw(page: number, on: HTMLCanvasElement, width: number): Promise<string>
  close(): void
}

/** How many pixels a canvas may have: more than this a phone does not draw. */
const MOST_PIXELS = 16_000_000

/** Opens a PDF; throws with what is wrong with it in words. */
export async function openPdf(data: Uint8Array): Promise<PdfPages> {
  const task = getDocument({ data, useSystemFonts: true, enableXfa: false, verbosity: 0 })
  try {
    return pagesOf(await task.promise, () => void task.destroy())
  } catch (thrown) {
    void task.destroy()
    throw new Error(
      thrown instanceof Error && thrown.name === 'PasswordException'
        ? 'This PDF is locked by a password, so it cannot be shown here. Attach one without.'
        : 'This PDF cannot be shown here: it may be damaged. Save it and open it with another program.',
      { cause: thrown },
    )
  }
}

function pagesOf(pdf: PDFDocumentProxy, close: () => void): PdfPages {
  return {
    count: pdf.numPages,
    async draw(number, canvas, width) {
      const page = await pdf.getPage(number)
      const whole = page.getViewport({ scale: 1 })
      const wanted = (width / whole.width) * (window.devicePixelRatio || 1)
      const scale = Math.min(wanted, Math.sqrt(MOST_PIXELS / (whole.width * whole.height)))
      const viewport = page.getViewport({ scale })
      canvas.width = Math.floor(viewport.width)
      canvas.height = Math.floor(viewport.height)
      await page.render({ canvas, viewport }).promise
      const { items } = await page.getTextContent()
      return items.map((item) => ('str' in item ? item.str : '')).join(' ')
    },
    close,
  }
}
