import type { HouseRules } from '../house-rules/house-rules.ts'
import { systemOf, type System } from '../system/system.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import { changedKeying, CODE_SIGNOFF, keyedNow } from '../proof/keyed.ts'
import { readBackState } from '../proof/read-back.ts'
import { fieldOf, partOf, type MemoryWords } from '../memory/words.ts'
import { proofRoute, type ProofItem, type ProofStop } from '../proof/owed.ts'
import { openStates, openTasks, stateAbout, stateRules } from '../proof/states.ts'
import { rulesInForce } from '../job/rules-in-force.ts'
import type { JudgeInput } from './context.ts'
import type { Finding } from './finding.ts'
import { stops } from './judge.ts'
import { utcTimes, type WrittenTimes } from '../units/times.ts'
import { counted, plural } from './words/plural.ts'
import { stageKeys, type Stage } from '../job/stages.ts'
import { isDeviceInPanel, isInPanel } from '../job/enrolment.ts'
import { evidenceOf } from '../job/evidence.ts'
import { leftInPanel } from '../job/left-in-panel.ts'
import { wipedAt } from '../job/wiped.ts'
import { openCleanSteps } from '../proof/clean-start.ts'

/** One thing that the job still owes before hand-over. */
export interface Owed {
  readonly key: string
  /** True when hand-over must wait for it. */
  readonly blocks: boolean
  readonly text: string
  /** What the text counts as 'more', by name. */
  readonly rest?: readonly string[]
  /** How many single things it sums up. */
  readonly count: number
  /** Stage where it is done. */
  readonly stage: Stage
}

/** Everything owed, what blocks first: nothing half-done is silently missing. */
export function owedList(input: JudgeInput, findings: readonly Finding[]): Owed[] {
  const look: Look = {
    ...{ input, doc: input.doc, system: systemOf(input.doc, input.catalogue) },
    rules: rulesInForce(input.doc, input.houseRules),
  }
  const list = [
    ...planOwed(look, findings),
    ...statesOwed(look),
    ...enrolOwed(look),
    ...proofsOwed(look),
    ...cleanOwed(look),
    ...signoffsOwed(look),
    ...laterOwed(look),
  ]
  return [...list.filter((item) => item.blocks), ...list.filter((item) => !item.blocks)]
}

interface Look {
  readonly input: JudgeInput
  readonly doc: JobDocument
  readonly system: System
  readonly rules: HouseRules
}

/** Something that blocks, counted once where no count is given; nothing for a count of none. */
function blocking({ key, stage }: Pick<Owed, 'key' | 'stage'>, text: string, count = 1): Owed[] {
  return count === 0 ? [] : [{ key, blocks: true, stage, text, count }]
}

function planOwed({ system }: Look, findings: readonly Finding[]): Owed[] {
  const stopping = findings.filter(stops).length
  const unbound = system.devices.filter(
    ({ device, model }) => model.slot === 'fob' && device.user === null,
  ).length
  return [
    ...(system.panel ? [] : blocking({ key: 'panel', stage: 'survey' }, 'No panel is chosen.')),
    ...(system.devices.length > 0 ? [] : blocking({ key: 'kit', stage: 'kit' }, 'The kit is empty.')),
    ...blocking(
      { key: 'stops', stage: 'zones' },
      `${counted(stopping, 'finding stops', 'findings stop')}.`,
      stopping,
    ),
    ...blocking(
      { key: 'fobs', stage: 'zones' },
      `${counted(unbound, 'fob is', 'fobs are')} bound to no user.`,
      unbound,
    ),
  ]
}

function statesOwed({ input, doc }: Look): Owed[] {
  const { moment } = times(input)
  return openStates(doc).flatMap((state) => {
    const { name, costs } = stateRules[state.kind]
    const whose = `${name}${about(stateAbout(doc, input.catalogue, state))}, by ${state.who}`
    const text = `${whose}, since ${moment(state.at)} until ${moment(state.until)}: ${state.why}. Meanwhile ${costs}.`
    return blocking({ key: `state ${state.id}`, stage: 'prove' }, text)
  })
}

function enrolOwed({ input, doc, system }: Look): Owed[] {
  const zones = recordsOf(doc, 'zone').filter(
    (zone) => !isInPanel(doc, zone.id) && zone.device !== null && system.byId.get(zone.device)?.family,
  ).length
  const slots = system.devices.filter(
    ({ device, model, family }) =>
      family &&
      (device.slot !== null || model.class === 'repeater') &&
      !isDeviceInPanel(doc, device.id) &&
      device.deferred === null,
  ).length
  const parts = [
    ...(zones > 0 ? [counted(zones, 'zone')] : []),
    ...(slots > 0
      ? [counted(slots, 'fob, keypad, siren or repeater', 'fobs, keypads, sirens or repeaters')]
      : []),
  ]
  const text = `${parts.join(' and ')} ${plural(zones + slots, 'is', 'are')} not enrolled.`
  const left = leftInPanel(doc, input.catalogue)
  const names = left.map(({ evidence }) =>
    [input.catalogue.nameOf(evidence.of?.model ?? null), evidence.of?.room].filter(Boolean).join(' in '),
  )
  return [
    ...blocking({ key: 'enrol', stage: 'enrol' }, text, zones + slots),
    ...blocking(
      { key: 'left', stage: 'enrol' },
      `${counted(left.length, 'ID is', 'IDs are')} still in the panel, of what the plan has there no more: ${some(names)}. Delete ${plural(left.length, 'it', 'them')} there, and note it at Enrol.`,
      left.length,
    ).map((owed) => ({ ...owed, rest: names.slice(NAMED) })),
  ]
}

function proofsOwed({ input, doc }: Look): Owed[] {
  const route = proofRoute(doc, input.catalogue, input.now)
  const items = route.flatMap((stop) => stop.items)
  const open = items.filter((item) => item.state !== 'pass')
  const averages = open.filter((item) => item.from !== null && item.kind === 'average')
  const settling = open.filter((item) => item.from !== null && item.kind === 'settled')
  const stale = open.filter(
    (item) => item.state === 'stale' || (item.changed.length > 0 && item.waits !== ''),
  )
  const rest = open.length - averages.length - settling.length - stale.length
  const waiting = averages.length
  const changed = [...new Set(stale.flatMap((item) => item.changed))]
  return [
    ...blocking(
      { key: 'proofs', stage: 'prove' },
      `${counted(rest, 'proof is', 'proofs are')} open.`,
      Math.max(0, rest),
    ),
    ...blocking(
      { key: 'stale', stage: 'prove' },
      `${counted(stale.length, 'proof is', 'proofs are')} of what has changed since: ${some(changed)}.`,
      stale.length,
    ).map((owed) => ({ ...owed, rest: changed.slice(NAMED) })),
    ...blocking(
      { key: 'averages', stage: 'prove' },
      `${waiting} 24-hour ${plural(waiting, 'reading waits for its', 'readings wait for their')} day to pass, the last until ${times(input).moment(latest(averages))}.`,
      waiting,
    ),
    ...(settling.length > 0
      ? blocking(
          { key: 'settling', stage: 'prove' },
          `The mesh is to be left quiet until ${times(input).moment(latest(settling))}.`,
        )
      : []),
    ...batteriesOwed(input, route),
  ]
}

/** Batteries that were read in their first day: a task for later, which blocks nothing. */
function batteriesOwed(input: JudgeInput, route: readonly ProofStop[]): Owed[] {
  const early = route.flatMap(({ title, room, items }) =>
    items.flatMap(({ again }) =>
      again === null ? [] : [{ name: [title, room].filter(Boolean).join(', '), again }],
    ),
  )
  const from = early
    .map(({ again }) => again)
    .sort()
    .at(-1)
  if (from === undefined) return []
  const names = early.map(({ name }) => name)
  const text = `From ${times(input).moment(from)}: ${plural(early.length, 'a battery is', 'batteries are')} to be read once more, read in ${plural(early.length, 'its', 'their')} first day so far: ${some(names)}.`
  return [
    { key: 'batteries', blocks: false, stage: 'prove', text, count: early.length, rest: names.slice(NAMED) },
  ]
}

/** The clean start of a panel that was used before, and what was left in one that forgot it. */
function cleanOwed({ input, doc }: Look): Owed[] {
  const gone = wipedAt(doc) === '' ? 0 : recordsOf(doc, 'zone').filter((zone) => zone.asProgrammed).length
  const open = openCleanSteps({ doc, catalogue: input.catalogue })
  const names = open.map(({ title }) => title)
  const forgot = blocking(
    { key: 'forgot', stage: 'zones' },
    `${counted(gone, 'zone is', 'zones are')} left as programmed, and the panel was brought back to how it came: key and learn ${plural(gone, 'it', 'them')}.`,
    gone,
  )
  const steps = blocking(
    { key: 'clean', stage: 'program' },
    `Clean start of a panel that was used before, ${counted(open.length, 'step is', 'steps are')} open: ${some(names)}.`,
    open.length,
  ).map((owed) => ({ ...owed, rest: names.slice(NAMED) }))
  return [...forgot, ...steps]
}

/** Codes still at their default, and the panel's summary not compared: owed again once the plan keys them otherwise. */
function signoffsOwed({ input, doc, system, rules }: Look): Owed[] {
  const signed = new Map(evidenceOf(doc, 'signoff').map((record) => [record.what, record]))
  const vouched = (what: string): readonly string[] | null => {
    const record = signed.get(what)
    return record ? changedKeying(record, keyedNow({ doc, catalogue: input.catalogue }, rules, what)) : null
  }
  const codes = (system.panel?.codes ?? []).flatMap((code) => {
    const what = `${CODE_SIGNOFF}${code.key}`
    const changed = vouched(what)
    const isWiped = (signed.get(what)?.at ?? '') < wipedAt(doc)
    if (changed?.length === 0 && !isWiped) return []
    const text =
      changed?.length === 0
        ? `${code.name}: it was changed before the panel was brought back to how it came, and is the maker’s again.`
        : changed === null
          ? `${code.name}: the default is still set, or nobody noted its change.`
          : `${code.name}: its change was noted on another panel, and is owed on this one.`
    return blocking({ key: `code ${code.key}`, stage: 'handover' }, text)
  })
  return [...codes, ...readBackOwed({ input, doc, system, rules }, vouched('read-back'))]
}

/**
 * The panel compared with the plan: value by value where its displays are described, else as a whole. What somebody vouched for in an
 * earlier build counts as long as the same is keyed.
 */
function readBackOwed({ input, doc, system, rules }: Look, vouched: readonly string[] | null): Owed[] {
  const key = { key: 'read-back', stage: 'handover' } as const
  const state = readBackState({ doc, catalogue: input.catalogue }, rules)
  if (!state || !system.panel) {
    if (vouched?.length === 0) return []
    const text =
      vouched === null
        ? 'The panel’s summary was not compared with the plan after save and reboot.'
        : `The panel’s summary was compared before this was keyed otherwise: ${some(vouched)}. Compare it again.`
    return blocking(key, text).map((one) => ({ ...one, rest: vouched?.slice(NAMED) ?? [] }))
  }
  const words: MemoryWords = { doc, panel: system.panel, catalogue: input.catalogue }
  const named = (addresses: readonly string[]): string[] => [
    ...new Set(addresses.map((address) => partOf(words, address))),
  ]
  const listed = (addresses: readonly string[], text: (names: string) => string): Owed[] => {
    const names = named(addresses)
    return blocking(key, text(some(names)), addresses.length).map((one) => ({
      ...one,
      rest: names.slice(NAMED),
    }))
  }
  const { different, open, drawn } = state
  const places = different.map(({ address }) => `${partOf(words, address)}, ${fieldOf(words, address)}`)
  return [
    ...blocking(
      { key: 'read-back differs', stage: 'handover' },
      `${counted(different.length, 'value stands', 'values stand')} otherwise in the panel than in the plan: ${some(places)}. Key it again, or let the plan follow.`,
      different.length,
    ).map((one) => ({ ...one, rest: places.slice(NAMED) })),
    ...listed(open, (names) => `${counted(open.length, 'value is', 'values are')} not read back: ${names}.`),
    ...listed(
      drawn,
      (names) =>
        `After the panel saved and started again, ${counted(drawn.length, 'line is', 'lines are')} to be read once more: ${names}.`,
    ),
  ]
}

/** What is owed and blocks nothing. */
function laterOwed({ input, doc, system }: Look): Owed[] {
  const later = ({ key, stage }: Pick<Owed, 'key' | 'stage'>, text: string, count = 1): Owed[] =>
    blocking({ key, stage }, text, count).map((owed) => ({ ...owed, blocks: false }))
  const shown = evidenceOf(doc, 'signoff').some(({ what }) => what === 'customer-shown')
  const deferred = system.devices.filter(({ device }) => device.deferred !== null).length
  const open = new Set(openStates(doc))
  return [
    ...(shown
      ? []
      : later(
          { key: 'customer-shown', stage: 'handover' },
          'The customer was not shown how to set, silence and clear.',
        )),
    ...later(
      { key: 'deferred', stage: 'kit' },
      `${counted(deferred, 'device has', 'devices have')} no place yet.`,
      deferred,
    ),
    ...openTasks(doc)
      .filter(({ state }) => !open.has(state))
      .flatMap(({ state, task, from }) => {
        const had = `${state.who} had noted: ${stateRules[state.kind].name}`
        const text = `From ${times(input).day(from)}: ${task} ${had}${about(stateAbout(doc, input.catalogue, state))}.`
        return later({ key: `task ${state.id}`, stage: 'prove' }, text)
      }),
  ]
}

/** The stage whose work is next: the first in working order that owes something. */
export function nextStage(owed: readonly Owed[]): Owed['stage'] {
  return stageKeys.find((stage) => owed.some((item) => item.stage === stage)) ?? 'handover'
}

/** So many are told by name in a text. */
const NAMED = 3

/** The first few by name, and how many more. */
function some(names: readonly string[]): string {
  const shown = names.slice(0, NAMED).join('; ')
  return names.length > NAMED ? `${shown}; and ${names.length - NAMED} more` : shown
}

function latest(items: readonly ProofItem[]): string {
  return items.reduce((last, { from }) => (from !== null && from > last ? from : last), '')
}

function about(name: string): string {
  return name === '' ? '' : ` (${name})`
}

function times({ times: asked }: JudgeInput): WrittenTimes {
  return asked ?? utcTimes
}
