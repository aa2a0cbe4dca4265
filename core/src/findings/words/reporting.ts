import type { AlarmKind } from '../../catalogue/schema.ts'
import { formatSeconds } from '../../units/seconds.ts'
import type { WordsOf } from '../finding.ts'
import type { ReportingFacts } from '../reporting/rules.ts'

/** How the rules on sound and report read. */
export const reportingWords: WordsOf<ReportingFacts> = {
  'held-back': {
    title: 'held before sending on a fire, gas or panic zone',
    source: 'Must report at once',
    says: ({ zone, kind, seconds }) =>
      `Zone ${zone} is ${kindWords[kind] ?? kind} and its report would be held back${seconds === null ? '' : ` by ${formatSeconds(seconds)}`}: it must go out at once.`,
  },
  'silent-unreported': {
    title: 'silent zone that reports to nobody',
    source: 'A silent call that is not reported helps nobody',
    says: ({ zone, monitored }) =>
      `Zone ${zone} makes no sound and ${monitored ? 'its report is off' : 'this job has no station'}: nobody would notice the call.`,
  },
  'silent-call-loud': {
    title: 'quiet call for help on a loud type',
    source: 'A hold-up call makes no sound, light or display at the premises',
    says: ({ zone, type }) =>
      `Zone ${zone} is a quiet call for help but does “${type}”: its sound betrays the caller.`,
  },
  'loud-call-silent': {
    title: 'loud call for help on a silent type',
    source: 'An audible panic warns the house as well',
    says: ({ zone, type }) =>
      `Zone ${zone} is a call for help that should be heard but does “${type}”: nobody in the house is warned.`,
  },
  'call-unreported': {
    title: 'call for help, frost or water that does not report',
    source: 'Report off on a monitored job: nobody comes',
    says: ({ zone, kind }) =>
      `Zone ${zone} is ${kindWords[kind]} and does not report, and this job is monitored: nobody comes.`,
  },
  'burglary-unreported': {
    title: 'burglary zones that do not report',
    source: 'Report off on a monitored job: the station hears nothing of it',
    says: ({ zones }) =>
      `${zones.length === 1 ? `Zone ${zones[0]} does` : `Zones ${zones.join(', ')} do`} not report though this job is monitored: the station hears nothing of a burglary there.`,
  },
  'silent-siren': {
    title: 'silent zone that drives a siren',
    source: 'A silent zone has no siren output: its sound would warn the wrong person',
    says: ({ zone, outputs }) =>
      `Zone ${zone} is silent and drives ${outputs === null ? 'all siren outputs' : `siren output ${outputs.join(', ')}`}.`,
  },
  'siren-none': {
    title: 'loud zone that drives no siren',
    source: 'An alarm that should be heard needs a siren output',
    says: ({ zone, type }) => `Zone ${zone} should be heard (${type}) and drives no siren output.`,
  },
  'report-mixed': {
    title: 'report flags mixed on a job without a station',
    source: 'House rule: all off, or all on; a job must not mix',
    says: ({ zone, report, wanted }) =>
      `Zone ${zone} has report ${onOff(report)}; this job has no station and the house rule is ${onOff(wanted)} for all.`,
  },
  'chime-wrong': {
    title: 'chime on a zone that is no opening',
    source: 'Chime is for doors and windows; never for shock, motion, fire, gas or panic',
    says: ({ zone, event }) => `Zone ${zone} chimes at every ${event} while the house is unset.`,
  },
  'chime-style': {
    title: 'chime that the panel does not have',
    source: 'The panel’s own ways to chime',
    says: ({ zone, style, panel, styles }) =>
      `Zone ${zone} is to chime “${style}”; ${panel} ${styles.length === 0 ? 'has one chime for all' : `has ${styles.join(', ')}`}.`,
  },
}

function onOff(on: boolean): string {
  return on ? 'on' : 'off'
}

const kindWords: Readonly<Partial<Record<AlarmKind, string>>> = {
  panic: 'a call for help',
  medical: 'a care call',
  auxiliary: 'frost or water',
}
