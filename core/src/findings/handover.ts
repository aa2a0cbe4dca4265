import type { Catalogue } from '../catalogue/catalogue.ts'
import { systemOf } from '../fit/system.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import { openProofs, openStates, proofRoute } from '../proof/owed.ts'
import type { Finding } from './context.ts'
import { stops } from './judge.ts'
import { isEnrolled } from '../job/enrolment.ts'
import { evidenceOf } from '../job/evidence.ts'

/** One thing that the job still owes before hand-over. */
export interface Owed {
  readonly key: string
  /** True when hand-over must wait for it. */
  readonly blocks: boolean
  readonly text: string
  /** How many single things it sums up. */
  readonly count: number
  /** Stage where it is done. */
  readonly stage: 'survey' | 'kit' | 'zones' | 'program' | 'enrol' | 'prove' | 'handover'
}

/** Everything owed, what blocks first: nothing half-done is silently missing. */
export function owedList(doc: JobDocument, catalogue: Catalogue, findings: readonly Finding[]): Owed[] {
  const system = systemOf(doc, catalogue)
  const list: Owed[] = []
  const add = (key: string, blocks: boolean, stage: Owed['stage'], text: string, count = 1): void =>
    void list.push({ key, blocks, stage, text, count })
  if (!system.panel) add('panel', true, 'survey', 'No panel is chosen.')
  if (system.devices.length === 0) add('kit', true, 'kit', 'The kit is empty.')
  const stopping = findings.filter(stops).length
  if (stopping > 0)
    add(
      'stops',
      true,
      'zones',
      `${stopping} ${stopping === 1 ? 'finding stops' : 'findings stop'}.`,
      stopping,
    )
  for (const state of openStates(doc))
    add(
      `state ${state.id}`,
      true,
      'prove',
      `${stateWords[state.kind]}, by ${state.who}, since ${clock(state.at)} until ${clock(state.until)}: ${state.why}.`,
    )
  const zones = recordsOf(doc, 'zone').filter(
    (zone) => !isEnrolled(doc, zone.id) && zone.device !== null && system.byId.get(zone.device)?.family,
  ).length
  const slots = system.devices.filter(
    ({ device, family }) =>
      family && device.slot !== null && !isEnrolled(doc, device.id) && device.deferred === null,
  ).length
  const parts = [
    ...(zones > 0 ? [`${zones} ${zones === 1 ? 'zone' : 'zones'}`] : []),
    ...(slots > 0 ? [`${slots} ${slots === 1 ? 'fob, keypad or siren' : 'fobs, keypads or sirens'}`] : []),
  ]
  if (parts.length > 0)
    add(
      'enrol',
      true,
      'enrol',
      `${parts.join(' and ')} ${zones + slots === 1 ? 'is' : 'are'} not enrolled.`,
      zones + slots,
    )
  const open = openProofs(proofRoute(doc, catalogue))
  if (open > 0) add('proofs', true, 'prove', `${open} ${open === 1 ? 'proof is' : 'proofs are'} open.`, open)
  const signed = new Set(evidenceOf(doc, 'signoff').map((record) => record.what))
  for (const code of system.panel?.codes ?? [])
    if (!signed.has(`code ${code.key}`))
      add(
        `code ${code.key}`,
        true,
        'handover',
        `${code.name}: the default is still set, or nobody noted its change.`,
      )
  const unbound = system.devices.filter(
    ({ device, model }) => model.slot === 'fob' && device.user === null,
  ).length
  if (unbound > 0)
    add(
      'fobs',
      true,
      'zones',
      `${unbound} ${unbound === 1 ? 'fob is' : 'fobs are'} bound to no user.`,
      unbound,
    )
  if (!signed.has('read-back'))
    add(
      'read-back',
      true,
      'handover',
      'The panel’s summary was not compared with the plan after save and reboot.',
    )
  if (!signed.has('customer-shown'))
    add('customer-shown', false, 'handover', 'The customer was not shown how to set, silence and clear.')
  const deferred = system.devices.filter(({ device }) => device.deferred !== null).length
  if (deferred > 0)
    add(
      'deferred',
      false,
      'kit',
      `${deferred} ${deferred === 1 ? 'device has' : 'devices have'} no place yet.`,
      deferred,
    )
  return [...list.filter((item) => item.blocks), ...list.filter((item) => !item.blocks)]
}

/** The stage whose work is next: the first in working order that owes something. */
export function nextStage(owed: readonly Owed[]): Owed['stage'] {
  const order: readonly Owed['stage'][] = ['survey', 'kit', 'zones', 'program', 'enrol', 'prove', 'handover']
  return order.find((stage) => owed.some((item) => item.stage === stage)) ?? 'handover'
}

/** What a temporary state is called. */
export const stateWords: Readonly<Record<string, string>> = {
  'station-on-test': 'The station is on test',
  'chime-demo': 'Chime is on for a demonstration',
  'sounder-off': 'A keypad sounder is off',
  'siren-unplugged': 'A siren is unplugged',
  'tamper-linked': 'A tamper is linked out',
  'zone-not-used': 'A zone is set to not used',
}

function clock(time: string): string {
  return `${time.slice(0, 10)} ${time.slice(11, 16)} UTC`
}
