import type { WordsOf } from '../finding.ts'
import type { StateFacts } from '../states/rules.ts'

/** How the rules on temporary states read. */
export const stateWords: WordsOf<StateFacts> = {
  'state-overdue': {
    title: 'temporary state past its time',
    source: 'Temporary states expire: each says until when, and blocks hand-over while open',
    says: ({ state, about, who, ended }) =>
      `${state}${about === '' ? '' : ` (${about})`}, by ${who}, was to end at ${ended} and is still open.`,
  },
}
