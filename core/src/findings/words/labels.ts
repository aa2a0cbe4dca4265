import type { WordsOf } from '../finding.ts'
import type { LabelFacts } from '../labels/rules.ts'

/** How the rules on labels read. */
export const labelWords: WordsOf<LabelFacts> = {
  'label-missing': {
    title: 'label missing or the panel’s default',
    source: '“Zone 23” sends nobody anywhere',
    says: ({ zone, label }) =>
      `Zone ${zone} has ${label.trim() === '' ? 'no label' : `only the label “${label}”`}: it does not say where.`,
  },
  'label-bare': {
    title: 'label without a place',
    source: 'A label says where: a thing or a number alone sends nobody anywhere',
    says: ({ zone, label }) => `Zone ${zone} is labelled “${label}”: it says what or which, and not where.`,
  },
  'label-twice': {
    title: 'label used twice',
    source: 'Never two alike, also after the panel has cut them to length',
    says: ({ zone, label, first, cut }) =>
      `Zone ${zone} is labelled “${label}” like zone ${first}${cut ? ' once the panel has cut it to length' : ''}.`,
  },
  'label-long': {
    title: 'label the panel cannot show',
    source: 'The panel’s own label length, characters or word list',
    says: ({ zone, label, trouble }) => `“${label}” of zone ${zone}: ${trouble}.`,
  },
}
