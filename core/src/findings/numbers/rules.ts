import { systemOf } from '../../system/system.ts'
import { groupId } from '../../identity/sticker.ts'
import { applyOps, setOp, type Op } from '../../job/edit.ts'
import { learnedSerial } from '../../job/enrolment.ts'
import { liveTerminals, numbersFor, printNumber, rangeWords, type NumberUse } from '../../zones/numbers.ts'
import type { Context, ZoneView } from '../context.ts'
import type { FoundFix, RulesOf } from '../finding.ts'

/** What the rules on numbers find; `zone`: a number as the panel prints it. */
export interface NumberFacts {
  readonly 'pair-twice': {
    readonly zone: string
    readonly first: string
    readonly serial: string
    readonly loop: number
  }
  readonly 'number-twice': { readonly zone: string; readonly first: ZoneCalled; readonly second: ZoneCalled }
  readonly 'number-range': {
    readonly zone: string
    readonly use: 'fob' | 'wired' | 'wireless'
    readonly panel: string
    readonly range: string
  }
  readonly 'live-terminal': { readonly zone: string; readonly terminal: number }
  /** A zone left as the panel has it, though its device is new to it. */
  readonly 'left-but-new': { readonly zone: string; readonly model: string | null }
  readonly 'mapped-terminal': { readonly zone: string; readonly number: number; readonly keypad: string }
}

/** What a zone is called when its number does not tell: by its label, else by its model. */
export interface ZoneCalled {
  readonly label: string
  readonly model: string | null
}

/** Rules on zone numbers: each once, in its range, on no terminal that lives. */
export const numberRules: RulesOf<NumberFacts> = {
  'pair-twice': {
    severity: 'stops',
    waive: 'never',
    stage: 'enrol',
    key: ['zone', 'first', 'serial', 'loop'],
    find: (c) =>
      laterOf(c.zones, (view) => {
        const serial = learnedSerial(c.doc, view.zone.id)
        // Two devices with one ID are found as such, whatever their loops.
        return serial && view.zone.loop ? `${view.zone.device ?? ''}/${serial}/${view.zone.loop}` : null
      }).map(([view, first]) => ({
        subject: view.zone.id,
        field: 'serial',
        facts: {
          zone: view.number,
          first: first.number,
          serial: groupId(view.family, learnedSerial(c.doc, view.zone.id) ?? ''),
          loop: view.zone.loop ?? 0,
        },
        fix: null,
      })),
  },
  'number-twice': {
    severity: 'stops',
    waive: 'never',
    stage: 'zones',
    key: ['zone'],
    find: (c) =>
      laterOf(c.zones, (view) => String(view.zone.number)).map(([view, first]) => ({
        subject: view.zone.id,
        field: 'number',
        facts: { zone: view.number, first: called(first), second: called(view) },
        fix: renumber(c, view),
      })),
  },
  'number-range': {
    severity: 'stops',
    waive: 'never',
    stage: 'zones',
    key: ['zone', 'use', 'panel'],
    find: (c) => {
      const { panel } = c
      if (!panel) return []
      const allowed = {
        wireless: blockSet(c, 'wireless'),
        wired: blockSet(c, 'wired'),
        fob: blockSet(c, 'fob'),
      }
      return c.zones.flatMap((view) => {
        const use = useOf(view)
        if (!use || allowed[use].has(view.zone.number)) return []
        return [
          {
            subject: view.zone.id,
            field: 'number',
            facts: { zone: view.number, use, panel: panel.name, range: rangeWords(panel, use) },
            fix: renumber(c, view),
          },
        ]
      })
    },
  },
  'live-terminal': {
    severity: 'stops',
    waive: 'never',
    stage: 'zones',
    key: ['zone', 'terminal'],
    find: (c) => {
      const live = liveTerminals(c.doc, c.system)
      const wireless = blockSet(c, 'wireless')
      return c.zones.flatMap((view) => {
        const { number } = view.zone
        if (!view.family || !live.has(number) || !wireless.has(number)) return []
        const there = c.doc.records[`terminal:${number}`]
        const ops = there ? [setOp(there, 'state', 'off')] : [terminalOff(number)]
        return [
          {
            subject: view.zone.id,
            field: 'number',
            facts: { zone: view.number, terminal: number },
            fix: { does: 'terminal-off' as const, facts: { terminal: number }, ops },
            others: some(renumber(c, view)),
          },
        ]
      })
    },
  },
  'left-but-new': {
    severity: 'stops',
    stage: 'zones',
    key: ['zone', 'model'],
    find: (c) =>
      c.zones.flatMap(({ zone, device, model, number }) => {
        if (!zone.asProgrammed || zone.existing || device?.existing) return []
        return [
          {
            subject: zone.id,
            field: 'asProgrammed',
            facts: { zone: number, model: model?.name ?? null },
            fix: { does: 'key-it' as const, facts: {}, ops: [setOp(zone, 'asProgrammed', false)] },
          },
        ]
      }),
  },
  'mapped-terminal': {
    severity: 'stops',
    waive: 'never',
    stage: 'zones',
    key: ['zone', 'keypad'],
    find: (c) => {
      const keypads = c.system.devices.filter(({ device }) => device.mappedOver !== null)
      return c.zones.flatMap((view) => {
        const keypad = keypads.find(
          ({ device }) => device.mappedOver === view.zone.number && device.id !== view.zone.device,
        )
        if (!keypad) return []
        const facts = { zone: view.number, number: view.zone.number, keypad: keypad.model.name }
        const unmap = {
          does: 'unmap' as const,
          facts: { keypad: keypad.model.name },
          ops: [setOp(keypad.device, 'mappedOver', null)],
        }
        const move = renumber(c, view)
        return [
          {
            ...{ subject: view.zone.id, field: 'number', facts },
            fix: move ?? unmap,
            others: move ? [unmap] : [],
          },
        ]
      })
    },
  },
}

/** Every item but the first of each key, with the first. */
function laterOf(views: readonly ZoneView[], key: (view: ZoneView) => string | null): [ZoneView, ZoneView][] {
  const firsts = new Map<string, ZoneView>()
  const later: [ZoneView, ZoneView][] = []
  for (const view of views) {
    const found = key(view)
    if (found === null) continue
    const first = firsts.get(found)
    if (first) later.push([view, first])
    else firsts.set(found, view)
  }
  return later
}

/** The kind of number a zone takes, or null for one whose device is not known. */
function useOf(view: ZoneView): 'fob' | 'wired' | 'wireless' | null {
  if (!view.model) return null
  if (view.model.slot === 'fob') return 'fob'
  return view.family ? 'wireless' : 'wired'
}

function blockSet(c: Context, use: NumberUse): ReadonlySet<number> {
  const numbers = new Set<number>()
  for (const block of c.panel?.blocks ?? [])
    if (block.use === use) for (let n = block.from; n <= block.to; n++) numbers.add(n)
  return numbers
}

function some(fix: FoundFix | null): FoundFix[] {
  return fix ? [fix] : []
}

function renumber(c: Context, view: ZoneView): FoundFix | null {
  const use = useOf(view)
  if (!use || !c.panel) return null
  const taken = new Set(c.zones.filter((other) => other !== view).map((other) => other.zone.number))
  const free = numbersFor({ doc: c.doc, system: c.system }, use, c.rules.schools.wiredBlock).find(
    (number) => !taken.has(number),
  )
  if (free === undefined) return null
  const give = setOp(view.zone, 'number', free)
  const terminals = use === 'wired' ? terminalsWoken(c, give) : []
  return {
    does: 'give-number',
    facts: { number: printNumber(c.panel, free), terminals },
    ops: [give, ...terminals.map(terminalOff)],
  }
}

/** Numbers of wireless zones whose terminals come alive with the first wired zone of a board. */
function terminalsWoken(c: Context, give: Op): number[] {
  const result = applyOps(c.doc, [give])
  if (!result.ok) return []
  const before = liveTerminals(c.doc, c.system)
  const after = liveTerminals(result.doc, systemOf(result.doc, c.catalogue))
  return c.zones
    .filter((view) => view.family && after.has(view.zone.number) && !before.has(view.zone.number))
    .map((view) => view.zone.number)
}

function terminalOff(number: number): Op {
  return { op: 'add', record: { id: `terminal:${number}`, type: 'terminal', number, state: 'off' } }
}

function called(view: ZoneView): ZoneCalled {
  return { label: view.zone.label, model: view.model?.name ?? null }
}
