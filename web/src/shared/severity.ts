import type { Severity, Verdict } from '#core'

/** Glyph, word and theme colour of a severity: never colour alone. */
export const severityLook: Readonly<Record<Severity, { glyph: string; word: string; color: string }>> = {
  stops: { glyph: '■', word: 'Stops', color: 'error' },
  risks: { glyph: '▲', word: 'Risk', color: 'warning' },
  advice: { glyph: '●', word: 'Advice', color: 'info' },
}

/** Glyph, word and theme colour of a fit verdict. */
export const verdictLook: Readonly<Record<Verdict, { glyph: string; word: string; color: string }>> = {
  works: { glyph: '✓', word: 'fits', color: 'success' },
  loss: { glyph: '▲', word: 'fits, with a loss', color: 'warning' },
  no: { glyph: '■', word: 'does not fit', color: 'error' },
  unknown: { glyph: '?', word: 'cannot tell', color: 'info' },
}
