import type { WordsOf } from '../finding.ts'
import type { ZoneFacts } from '../zones/rules.ts'
import { inputNames } from '../../response/use-names.ts'
import { here } from './plural.ts'

/** How the rules on a zone and its device read. */
export const zoneWords: WordsOf<ZoneFacts> = {
  'event-without-zone': {
    title: 'device event without a zone',
    source: 'An event that is not programmed is a gap: smoke alone reports neither heat nor frost',
    says: ({ model, room, events, loops }) =>
      `${model}${here(room)} has no zone for ${events.join(' and ')} (loop ${loops.join(', ')}): the panel would not report it.`,
  },
  deferred: {
    title: 'place still open',
    source: 'A device whose place is not known is deferred, with a reason',
    says: ({ model, reason }) => `${model} has no place yet: ${reason}.`,
  },
  'loop-wrong': {
    title: 'loop that is not the event’s',
    source: 'Loop maps belong to the model',
    says: ({ zone, loop, event, model, right }) =>
      `Zone ${zone} listens to loop ${loop ?? 'none'}; the ${event} of ${model} is loop ${right}.`,
  },
  'zone-open': {
    title: 'zone without a device',
    source: 'A zone is a number bound to an ID and a loop: without a device nothing reports on it',
    says: ({ zone, label }) =>
      `Zone ${zone}${label === '' ? '' : ` (${label})`} has no device: a successor takes it over, or it goes.`,
  },
  'inputs-differ': {
    title: 'inputs of a contact',
    source: 'Reed and terminals are inputs of their own: each is used or stated not to be',
    says: (facts) =>
      facts.of === 'model'
        ? `${facts.model}${here(facts.room)} is planned with ${inputNames[facts.planned]}, which this model does not have to choose from.`
        : `${facts.model}${here(facts.room)} is planned with ${inputNames[facts.planned]}; its zones listen to ${inputNames[facts.heard]}.`,
  },
  'equipment-wrong': {
    title: 'equipment code or kind is another’s',
    source: 'An encrypted device under the plain code, or a freeze loop as smoke, contradict each other',
    says: (facts) =>
      facts.of === 'code'
        ? `Zone ${facts.zone} has equipment code ${facts.given ?? 'none'}; ${facts.model} is ${facts.right} on ${facts.panel}.`
        : `Zone ${facts.zone} reports ${facts.event} but its equipment kind is ${facts.given ?? 'not given'}; ${facts.panel} wants ${facts.right}.`,
  },
  'switches-off': {
    title: 'contact with all its inputs off',
    source: 'With reed and terminals both off it never trips',
    says: ({ zone }) => `Zone ${zone} has reed and terminals off: it never trips.`,
  },
  'end-of-line-alone': {
    title: 'end-of-line without its terminals',
    source: 'End-of-line works only with the terminals on',
    says: ({ zone }) => `Zone ${zone} has end-of-line on and its terminals off.`,
  },
  'resistor-wrong': {
    title: 'end-of-line resistor that the panel does not expect',
    source: 'The panel’s own end-of-line value',
    says: ({ zone, ohm, panel, wanted }) =>
      `Zone ${zone} ends in ${ohm === null ? 'a resistor of unknown value' : `${ohm} ohms`}; ${panel} expects ${wanted} ohms.`,
  },
}
