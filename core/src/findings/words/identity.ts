import type { WordsOf } from '../finding.ts'
import type { IdentityFacts } from '../identity/rules.ts'

/** How the rules on IDs read. */
export const identityWords: WordsOf<IdentityFacts> = {
  'sticker-differs': {
    title: 'learned ID is not the sticker’s',
    source: 'Compare the ID with the sticker every time',
    says: ({ zone, learned, sticker }) =>
      `Zone ${zone} learned ID ${learned}; the sticker of its device says ${sticker}. Take it out at Enrol and learn the right one.`,
  },
  'serial-elsewhere': {
    title: 'ID used in another job',
    source: 'A device belongs to one system',
    says: ({ serial, job }) => `ID ${serial} is also used in the job “${job}”.`,
  },
}
