import { proofRules, type ProofItem, type ProofStop } from '#core'

/** Glyph, word and colour of a proof's state: never colour alone. */
export const stateLook: Readonly<Record<ProofItem['state'], { glyph: string; word: string; color: string }>> =
  {
    owed: { glyph: '○', word: 'not tested', color: 'on-surface' },
    waits: { glyph: '◌', word: 'waits', color: 'on-surface' },
    pass: { glyph: '✓', word: 'passed', color: 'success' },
    fail: { glyph: '■', word: 'failed', color: 'error' },
    inconclusive: { glyph: '?', word: 'inconclusive', color: 'warning' },
    stale: { glyph: '↻', word: 'owed again', color: 'warning' },
  }

/** What a proof is called: with its event or button where the device has several. */
export function proofTitle(item: ProofItem): string {
  const { name } = proofRules[item.kind]
  return item.label === '' ? name : `${name}: ${item.label}`
}

/** The worst first: what a chip for several proofs of one kind shows. */
const worst: readonly ProofItem['state'][] = ['fail', 'stale', 'inconclusive', 'owed', 'waits', 'pass']

/** One chip for each kind of proof of a stop, with how many of several are passed. */
export function chipsOf(stop: ProofStop) {
  const kinds = [...new Set(stop.items.map((item) => item.kind))]
  return kinds.map((kind) => {
    const items = stop.items.filter((item) => item.kind === kind)
    const passed = items.filter((item) => item.state === 'pass').length
    const state = worst.find((one) => items.some((item) => item.state === one)) ?? 'owed'
    const count = items.length > 1 ? ` ${passed}/${items.length}` : ''
    return { kind, state, text: `${proofRules[kind].short}${count}`, name: proofRules[kind].name }
  })
}
