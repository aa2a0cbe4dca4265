import type { WordsOf } from '../finding.ts'
import type { SupervisionFacts } from '../supervision/rules.ts'

/** How the rules on supervision read. */
export const supervisionWords: WordsOf<SupervisionFacts> = {
  'carried-supervised': {
    title: 'carried transmitter that is supervised',
    source: 'Fobs and worn pendants leave the premises: supervised they show as lost',
    says: (facts) =>
      `Zone ${facts.zone} belongs to a carried ${facts.class}: out of the house it shows as lost.`,
  },
  'fixed-unsupervised': {
    title: 'fixed device that nobody watches',
    source: 'Fixed transmitters are always supervised, on every zone or on one of them',
    says: ({ zone, model }) =>
      `Zone ${zone}: no zone of its ${model} is supervised, so its silence or low battery is noticed by nobody.`,
  },
  'supervision-window': {
    title: 'supervision window too long or too short',
    source:
      'EN 50131-5-3 by grade (confirm against the edition in force), US household; at least three check-ins fit in it',
    says: (facts) => {
      const begin = `A device is called lost after ${facts.window} min`
      if (facts.too === 'short')
        return `${begin}, and ${facts.model} checks in every ${facts.checkIn} min: three check-ins do not fit${facts.more > 0 ? `, nor of ${facts.more} more` : ''}.`
      const who = {
        grade: `EN 50131-5-3 grade ${facts.grade}, to prevent arming,`,
        'household-fire': 'a household fire zone',
        'household-burglary': 'a household burglary system',
      }
      return `${begin}; ${who[facts.asks]} asks for at most ${facts.most} min.`
    },
  },
}
