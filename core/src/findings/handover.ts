import { systemOf } from '../system/system.ts'
import { recordsOf } from '../job/document.ts'
import { changedKeying, CODE_SIGNOFF, keyedNow } from '../proof/keyed.ts'
import { proofRoute, type ProofItem } from '../proof/owed.ts'
import { openStates, openTasks, stateAbout, stateRules } from '../proof/states.ts'
import { rulesInForce } from '../job/rules-in-force.ts'
import type { JudgeInput } from './context.ts'
import type { Finding } from './finding.ts'
import { stops } from './judge.ts'
import { isDeviceEnrolled, isEnrolled } from '../job/enrolment.ts'
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
export function owedList(input: JudgeInput, findings: readonly Finding[]): Owed[] {
  const { doc, catalogue, now } = input
  const rules = rulesInForce(doc, input.houseRules)
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
      `${stateRules[state.kind].name}${about(stateAbout(doc, catalogue, state))}, by ${state.who}, since ${clock(state.at)} until ${clock(state.until)}: ${state.why}. Meanwhile ${stateRules[state.kind].costs}.`,
    )
  const zones = recordsOf(doc, 'zone').filter(
    (zone) => !isEnrolled(doc, zone.id) && zone.device !== null && system.byId.get(zone.device)?.family,
  ).length
  const slots = system.devices.filter(
    ({ device, model, family }) =>
      family &&
      (device.slot !== null || model.class === 'repeater') &&
      !isDeviceEnrolled(doc, device.id) &&
      device.deferred === null,
  ).length
  const parts = [
    ...(zones > 0 ? [`${zones} ${zones === 1 ? 'zone' : 'zones'}`] : []),
    ...(slots > 0
      ? [`${slots} ${slots === 1 ? 'fob, keypad, siren or repeater' : 'fobs, keypads, sirens or repeaters'}`]
      : []),
  ]
  if (parts.length > 0)
    add(
      'enrol',
      true,
      'enrol',
      `${parts.join(' and ')} ${zones + slots === 1 ? 'is' : 'are'} not enrolled.`,
      zones + slots,
    )
  const items = proofRoute(doc, catalogue, now).flatMap((stop) => stop.items)
  const open = items.filter((item) => item.state !== 'pass')
  const averages = open.filter((item) => item.from !== null && item.kind === 'average')
  const settling = open.filter((item) => item.from !== null && item.kind === 'settled')
  const stale = open.filter(
    (item) => item.state === 'stale' || (item.changed.length > 0 && item.waits !== ''),
  )
  const rest = open.length - averages.length - settling.length - stale.length
  if (rest > 0) add('proofs', true, 'prove', `${rest} ${rest === 1 ? 'proof is' : 'proofs are'} open.`, rest)
  if (stale.length > 0)
    add(
      'stale',
      true,
      'prove',
      `${stale.length} ${stale.length === 1 ? 'proof is' : 'proofs are'} of what has changed since: ${changes(stale)}.`,
      stale.length,
    )
  if (averages.length > 0)
    add(
      'averages',
      true,
      'prove',
      `${averages.length} 24-hour ${averages.length === 1 ? 'reading waits' : 'readings wait'} for ${averages.length === 1 ? 'its' : 'their'} day to pass, the last until ${clock(latest(averages))}.`,
      averages.length,
    )
  if (settling.length > 0)
    add('settling', true, 'prove', `The mesh is to be left quiet until ${clock(latest(settling))}.`)
  const signed = new Map(evidenceOf(doc, 'signoff').map((record) => [record.what, record]))
  /** A sign-off of what is keyed is owed again once the plan keys it otherwise. */
  const vouched = (what: string): readonly string[] | null => {
    const record = signed.get(what)
    return record ? changedKeying(record, keyedNow(doc, catalogue, rules, what)) : null
  }
  for (const code of system.panel?.codes ?? []) {
    const changed = vouched(`${CODE_SIGNOFF}${code.key}`)
    if (changed === null || changed.length > 0)
      add(
        `code ${code.key}`,
        true,
        'handover',
        changed === null
          ? `${code.name}: the default is still set, or nobody noted its change.`
          : `${code.name}: its change was noted on another panel, and is owed on this one.`,
      )
  }
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
  const readBack = vouched('read-back')
  if (readBack === null || readBack.length > 0)
    add(
      'read-back',
      true,
      'handover',
      readBack === null
        ? 'The panel’s summary was not compared with the plan after save and reboot.'
        : `The panel’s summary was compared before this was keyed otherwise: ${some(readBack)}. Compare it again.`,
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
  const tasks = openTasks(doc).filter(({ state }) => !openStates(doc).includes(state))
  for (const { state, task, from } of tasks)
    add(
      `task ${state.id}`,
      false,
      'prove',
      `From ${clock(from).slice(0, 10)}: ${task} ${state.who} had noted: ${stateRules[state.kind].name}${about(stateAbout(doc, catalogue, state))}.`,
    )
  return [...list.filter((item) => item.blocks), ...list.filter((item) => !item.blocks)]
}

/** The stage whose work is next: the first in working order that owes something. */
export function nextStage(owed: readonly Owed[]): Owed['stage'] {
  const order: readonly Owed['stage'][] = ['survey', 'kit', 'zones', 'program', 'enrol', 'prove', 'handover']
  return order.find((stage) => owed.some((item) => item.stage === stage)) ?? 'handover'
}

/** What has changed under proofs, each change once, the first few by name. */
function changes(items: readonly ProofItem[]): string {
  return some([...new Set(items.flatMap((item) => item.changed))])
}

/** The first few by name, and how many more. */
function some(names: readonly string[]): string {
  const shown = names.slice(0, 3).join('; ')
  return names.length > 3 ? `${shown}; and ${names.length - 3} more` : shown
}

function latest(items: readonly ProofItem[]): string {
  return items.reduce((last, { from }) => (from !== null && from > last ? from : last), '')
}

function about(name: string): string {
  return name === '' ? '' : ` (${name})`
}

function clock(time: string): string {
  return `${time.slice(0, 10)} ${time.slice(11, 16)} UTC`
}
