import { completeHouseRules } from '../house-rules/house-rules.ts'
import type { MovedSet, RawRecord, Step } from '../records/upgrade.ts'
import { evidenceStep } from './upgrade-evidence.ts'
import { sourcesStep } from './upgrade-sources.ts'

/** A step that only adds to each record what it lacks; `set` stays as it is. */
function filling(to: number, fill: Readonly<Record<string, Readonly<Record<string, unknown>>>>): Step {
  const record = (raw: RawRecord): RawRecord => ({ ...fill[raw.type], ...raw })
  return {
    to,
    record,
    records: (records) => Object.fromEntries(Object.entries(records).map(([id, raw]) => [id, record(raw)])),
    set: (op): MovedSet => [op],
  }
}

/** Shape 2: a device of a takeover says what becomes of it, its year and its last battery. */
const takeovers = filling(2, { device: { plan: null, madeYear: null, batteryAt: null } })

/** What shape 3 added: premises in words, placement facts, contact switches, common zones and what a panel couples. */
export const shape3: Readonly<Record<string, Readonly<Record<string, unknown>>>> = {
  job: {
    exitUnitSwitched: false,
    sirenSeconds: null,
    swinger: null,
    superviseMinutes: null,
    exitBy: null,
    openAtExit: null,
    stayToEntry2: false,
    exitStay: null,
    keySwitch: 'none',
    entryBeeps: null,
    exitBeeps: null,
    outputs: null,
    keysOff: [],
    unheatedFrom: null,
    unheatedTo: null,
  },
  area: { entry1: null, entry2: null, exit: null, exitStay: null },
  device: {
    opening: null,
    via: null,
    mappedOver: null,
    heightM: null,
    gapMm: null,
    onSteel: false,
    storedIn: null,
    setting: null,
  },
  zone: {
    area2: null,
    leaves: null,
    chimeStyle: null,
    dayZone: false,
    reedOn: null,
    terminalsOn: null,
    endOfLineOn: null,
    sirens: null,
    doubleKnock: false,
    fireGroup: null,
    reason: '',
    wiring: null,
    resistorOhm: null,
  },
  room: { compartment: '' },
}

/** House rules fixed at hand-over get what they lacked by its default. */
function rulesStep(to: number): Step {
  const record = (raw: RawRecord): RawRecord =>
    raw.type === 'fixed-rules' ? ({ ...raw, rules: completeHouseRules(raw.rules) } as RawRecord) : raw
  return {
    to,
    record,
    records: (records) => Object.fromEntries(Object.entries(records).map(([id, raw]) => [id, record(raw)])),
    set: (op): MovedSet => [op],
  }
}

/** The steps so far. Shape 3 grew while it was in force: shape 4 begins by filling whatever a record of it lacks. */
export const upgrades: readonly Step[] = [
  takeovers,
  filling(3, shape3),
  evidenceStep(4, shape3),
  // Shape 5 only allows more: evidence that an owner handed in for somebody who left.
  filling(5, {}),
  sourcesStep(6),
  // Shape 7: a waiver is bound to facts; one of before to its sentence.
  filling(7, { waiver: { key: null } }),
  // Shape 8: listed installations, and zones that are left as the panel has them.
  filling(8, { job: { listed: false }, zone: { asProgrammed: false } }),
  // Shape 9: the inputs of a contact are chosen, and a place that is never opened is a use.
  filling(9, { device: { inputs: null } }),
  // Shape 10: how a panel is keyed can be pinned, what it holds is evidence, and the order of the sheet is a house rule.
  rulesStep(10),
  // Shape 11 only allows more: what ends the readings of a panel.
  filling(11, {}),
  // Shape 12 only adds: what was tried when a device was not heard.
  filling(12, {}),
  // Shape 13: a pace that was timed; readings at spots, mounting and coming home only add.
  filling(13, { job: { pace: null } }),
  // Shape 14: how the panel came, when a device was moved; that a panel was told to learn only adds.
  filling(14, { job: { panelCame: null }, device: { movedAt: null } }),
  // Shape 15 only allows more: a second unset that clears, and mains that are off to see their report.
  filling(15, {}),
  // Shape 16: coming home is timed at each keypad; before it was not said at which.
  filling(16, { test: { unsetAt: '' } }),
  // Shape 17: how hot a room gets.
  filling(17, { room: { hottestC: null } }),
]
