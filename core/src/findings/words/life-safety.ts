import type { WordsOf } from '../finding.ts'
import type { LifeSafetyFacts } from '../life-safety/rules.ts'
import type { Absence } from '../partners.ts'
import { here } from './plural.ts'
import { wrongKind } from './response.ts'

/** How the rules on fire and gas read. */
export const lifeSafetyWords: WordsOf<LifeSafetyFacts> = {
  'fire-not-instant': {
    title: 'smoke or heat not instant in every mode',
    source: 'Fire is always on; the fire code rules',
    says: (facts) => `${wrongKind(facts)} A fire must alarm at once in every mode, as fire.`,
  },
  'gas-wrong-kind': {
    title: 'carbon monoxide not typed as gas',
    source: 'CO is its own kind, never fire, auxiliary or burglary',
    says: (facts) => `${wrongKind(facts)} Carbon monoxide needs the gas type, instant in every mode.`,
  },
  'life-unreported': {
    title: 'fire or gas zone that does not report',
    source: 'Report off on a fire or gas zone stops on a monitored job',
    says: ({ zone, kind }) => `Zone ${zone} is ${kind} and does not report, and this job is monitored.`,
  },
  'life-unsupervised': {
    title: 'fire or gas device that is not supervised',
    source: 'A life-safety device needs a supervised zone',
    says: ({ zone, kind }) =>
      `Zone ${zone} is ${kind} and no zone of its device is supervised: nobody would notice that it fell silent.`,
  },
  'fire-departure': {
    title: 'delayed or verified fire without a written reason',
    source: 'Fire is plain by default; a departure needs its reason in writing, and the fire code’s leave',
    says: ({ zone, fire, type }) =>
      `Zone ${zone} is a ${fire} fire zone (“${type}”) and no reason is written.`,
  },
  'fire-school': {
    title: 'plain fire where the firm’s school is another',
    source: 'House rule; plain is the safer, so no plan is made otherwise by itself, and the fire code rules',
    says: ({ zone, school, type }) =>
      `Zone ${zone} is plain fire; the house rule is ${school === 'delayed' ? 'a time to acknowledge' : 'two detectors'}: “${type}” gives it, with the reason in writing.`,
  },
  'verified-alone': {
    title: 'verified fire with fewer than two detectors',
    source: 'Verified fire needs two detectors in one group and one fire compartment',
    says: ({ zone, group, why, panel, groups, compartment, absent }) => {
      const because = {
        'no-group': 'is in no group',
        beyond: `is in group ${group}, and ${panel} has ${groups}`,
        compartment: `is the only one of group ${group} in the fire compartment ${compartment}`,
        alone: `is alone in group ${group}`,
        absent: `no other of group ${group} counts (${absent.map(absentWords).join('; ')})`,
      }
      const then = {
        'no-group': 'it would never alarm',
        beyond: 'it cannot be stored so',
        compartment: 'a fire there alarms only once it has spread',
        alone: 'it would never alarm',
        absent: 'it would never alarm',
      }
      return `Zone ${zone} needs a second detector to agree but ${because[why]}: ${then[why]}.`
    },
  },
  'compartment-unknown': {
    title: 'verified fire whose fire compartment was not said',
    source: 'Verified fire needs two detectors in one group and one fire compartment',
    says: ({ zone, room }) =>
      `Whether zone ${zone} and its second detector are in one fire compartment cannot be told; needed: the compartment of ${room}.`,
  },
  'joined-events': {
    title: 'smoke and heat joined on one zone',
    source: 'House rule: apart, so that the station learns which of the two it was',
    says: ({ model, room }) =>
      `${model}${here(room)} joins smoke and heat on one loop; the house rule is a zone each.`,
  },
}

const absences: Readonly<Record<Absence, string>> = {
  removed: 'has no device',
  deferred: 'has no place yet',
  replaced: 'is to be replaced',
  'not-used': 'is set to not used',
  'not-learned': 'is not enrolled yet',
}

function absentWords({ zone, why }: { readonly zone: string; readonly why: Absence }): string {
  return `zone ${zone} ${absences[why]}`
}
