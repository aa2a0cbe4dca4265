import type { AreaFacts } from '../areas/rules.ts'
import type { WordsOf } from '../finding.ts'
import { plural } from './plural.ts'

/** How the rules on areas read. */
export const areaWords: WordsOf<AreaFacts> = {
  'two-areas': {
    title: 'zone in two areas',
    source: 'The panel’s own meaning of an area',
    says: ({ zone, same, panel }) =>
      `Zone ${zone} is in two areas: ${same ? 'both are the same area' : `${panel} takes one area per zone`}.`,
  },
  'area-number': {
    title: 'area that the panel does not have',
    source: 'The panel’s own number of areas',
    says: ({ number, name, panel, has }) => `Area ${number} (${name}): ${panel} has ${has}.`,
  },
  'common-entry': {
    title: 'entry door common to two areas',
    source: 'A common zone is armed only when all its areas are: one area alone stands open there',
    says: ({ zone, areas }) =>
      `Zone ${zone} is common to ${areas.join(' and ')}: while only one of them is set, it is not watched.`,
  },
  'nothing-unsets': {
    title: 'no keypad and no fob',
    source: 'A burglary system is set and unset by keypad, fob or key switch',
    says: ({ panel }) =>
      `Zones watch for burglars, and the kit has neither a keypad nor a fob that unsets: nobody could set ${panel} or stop its alarm, unless it has keys of its own.`,
  },
  'area-unserved': {
    title: 'area that no keypad or fob unsets',
    source: 'A keypad or fob sets and unsets only its own areas',
    says: ({ area }) => `${area} has zones that are set, and no keypad or fob sets and unsets it.`,
  },
  'area-passed': {
    title: 'way in that passes another area',
    source: 'Follow counts only an entry delay of its own area: the other area alarms on who walks through',
    says: ({ way, zone, passed, area, starts }) =>
      starts
        ? `From ${way} to its keypad people pass zone ${zone} of ${passed}: while that is set, they start its entry delay, and their keypad does not unset ${passed}, so it alarms on them.`
        : `From ${way} to its keypad people pass zone ${zone} of ${passed}: while that is set, it alarms on them, for ${area}’s entry delay does not count there.`,
  },
  'left-out-of-set': {
    title: 'left out of a set',
    source: 'A full or part set watches the zones that carry its letter',
    says: ({ set, of, zones }) =>
      `${set} leaves ${plural(zones.length, 'zone', 'zones')} ${zones.join(', ')} out: ${of === 'full' ? 'nobody is stopped there while the house is empty' : 'doors and windows that are to be watched while people are in the house, so the night is open'}.`,
  },
  'area-move': {
    title: 'zone moved to another area in the plan only',
    source: 'Moving a zone to another area is two acts at the panel: add there, remove here',
    says: ({ zone, from, to }) =>
      `Zone ${zone} moves from ${from} to ${to}: add it there at the panel, then take it out of ${from}.`,
  },
}
