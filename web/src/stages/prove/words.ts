import type { ProofItem, ProofKind } from '#core'

/** What each proof is called. */
export const proofNames: Readonly<Record<ProofKind, string>> = {
  placement: 'Placement reading',
  walk: 'Walk test',
  armed: 'Armed test',
  report: 'Report received',
}

export const proofShort: Readonly<Record<ProofKind, string>> = {
  placement: 'place',
  walk: 'walk',
  armed: 'armed',
  report: 'report',
}

/** Glyph, word and colour of a proof's state: never colour alone. */
export const stateLook: Readonly<Record<ProofItem['state'], { glyph: string; word: string; color: string }>> =
  {
    owed: { glyph: '○', word: 'not tested', color: 'on-surface' },
    pass: { glyph: '✓', word: 'passed', color: 'success' },
    fail: { glyph: '■', word: 'failed', color: 'error' },
    inconclusive: { glyph: '?', word: 'inconclusive', color: 'warning' },
  }

/** Temporary states that a person can note by hand; the station has a place of its own. */
export const stateItems = [
  { title: 'Chime on for a demonstration', value: 'chime-demo' },
  { title: 'Keypad sounder off', value: 'sounder-off' },
  { title: 'Siren unplugged', value: 'siren-unplugged' },
  { title: 'Tamper linked out', value: 'tamper-linked' },
  { title: 'Zone set to not used', value: 'zone-not-used' },
] as const

/** A time as people on site read it. */
export function clock(time: string): string {
  return new Date(time).toLocaleString(undefined, { dateStyle: 'short', timeStyle: 'short' })
}
