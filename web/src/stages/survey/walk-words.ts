import type { LinkBand, SpotNeed } from '#core'

/** Glyph and word of a link's band: never colour alone. */
export const bandLook: Readonly<Record<LinkBand, { readonly glyph: string; readonly word: string }>> = {
  best: { glyph: '✓', word: 'best band' },
  holds: { glyph: '◐', word: 'holds' },
  unjudged: { glyph: '?', word: 'cannot tell' },
  fails: { glyph: '■', word: 'does not hold' },
}

/** What a spot needs, in a sentence. */
export function needWords(need: SpotNeed): string {
  switch (need.need) {
    case 'nothing':
      return 'Nothing.'
    case 'better':
      return `It holds, not more: try a quarter wave aside (${need.cm} cm), else accept it with a reason.`
    case 'repeater':
      return `A repeater at ${need.at}.`
    case 'repeater-link':
      return `Read the repeater’s own link at ${need.at} first.`
    case 'repeater-nearer':
      return `The repeater at ${need.at} hears too little itself: try it nearer to the receiver.`
    case 'repeater-short':
      return `The repeater at ${need.at} does not reach here: try it nearer to this spot.`
    case 'repeater-untried':
      return 'Try a repeater between, its own link first; or the receiver elsewhere.'
    case 'mesh':
      return 'Devices between may carry it on: try again once they hang; or the receiver elsewhere.'
    case 'no-repeater':
      return 'The receiver elsewhere, another family, or a wire: no repeater helps here.'
    case 'unjudged':
      return 'Cannot tell: from which level on a link is good or holds is not stated of its family. Correct its entry once it is known.'
    case 'no-radio':
      return 'No radio device: it is inside metal. A wire, or another spot.'
  }
}
