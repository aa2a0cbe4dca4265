import { systemOf } from '../fit/system.ts'
import { groupId } from '../identity/sticker.ts'
import { applyOps, type Op } from '../job/edit.ts'
import { liveTerminals, numbersFor, printNumber, rangeWords, type NumberUse } from '../zones/numbers.ts'
import { setOp, type Context, type Fix, type Rule, type ZoneView } from './context.ts'
import { learnedSerial } from '../job/enrolment.ts'

/** Rules on numbers, loops and serials. */
export const numberRules: readonly Rule[] = [
  {
    id: 'pair-twice',
    severity: 'stops',
    waive: 'never',
    title: 'serial and loop used twice',
    source: 'Panels take a pair of serial and loop once',
    stage: 'enrol',
    find: (c) =>
      laterOf(c.zones, (view) => {
        const serial = learnedSerial(c.doc, view.zone.id)
        return serial && view.zone.loop ? `${serial}/${view.zone.loop}` : null
      }).map(([view, first]) => ({
        subject: view.zone.id,
        field: 'serial',
        text: `${view.name} uses ID ${groupId(view.family, learnedSerial(c.doc, view.zone.id) ?? '')} loop ${view.zone.loop}, which ${first.name} has already: the panel refuses the second. Take it out at Enrol and learn the right one.`,
        fix: null,
      })),
  },
  {
    id: 'number-twice',
    severity: 'stops',
    waive: 'never',
    title: 'number used twice',
    source: 'A zone number stands for one zone',
    stage: 'zones',
    find: (c) =>
      laterOf(c.zones, (view) => String(view.zone.number)).map(([view, first]) => ({
        subject: view.zone.id,
        field: 'number',
        text: `${capital(view.name)} is given twice: to ${labelOr(first)} and to ${labelOr(view)}.`,
        fix: renumber(c, view),
      })),
  },
  {
    id: 'number-range',
    severity: 'stops',
    waive: 'never',
    title: 'number outside its range',
    source: 'The panel’s own number ranges',
    stage: 'zones',
    find: (c) => {
      if (!c.panel) return []
      const allowed = {
        wireless: blockSet(c, 'wireless'),
        wired: blockSet(c, 'wired'),
        fob: blockSet(c, 'fob'),
      }
      const { panel } = c
      return c.zones.flatMap((view) => {
        const use = useOf(view)
        if (!use || allowed[use].has(view.zone.number)) return []
        return [
          {
            subject: view.zone.id,
            field: 'number',
            text: `${printNumber(panel, view.zone.number)} is no number for a ${use === 'fob' ? 'fob button' : `${use} zone`}: ${panel.name} keeps ${rangeWords(panel, use)} for them.`,
            fix: renumber(c, view),
          },
        ]
      })
    },
  },
  {
    id: 'live-terminal',
    severity: 'stops',
    waive: 'never',
    title: 'wireless device on a live wired terminal',
    source: 'Both would trip the zone, and an empty terminal reads open',
    stage: 'zones',
    find: (c) => {
      const live = liveTerminals(c.doc, c.system)
      const wireless = blockSet(c, 'wireless')
      return c.zones.flatMap((view) => {
        const { number } = view.zone
        if (!view.family || !live.has(number) || !wireless.has(number)) return []
        const id = `terminal:${number}`
        const there = c.doc.records[id]
        const ops = there ? [setOp(there, 'state', 'off')] : [terminalOff(number)]
        return [
          {
            subject: view.zone.id,
            field: 'number',
            text: `${capital(view.name)} is also wired terminal ${number}, which is live: left empty it reads open and the panel is never ready.`,
            fix: { title: `Switch wired terminal ${number} off`, ops },
          },
        ]
      })
    },
  },
  {
    id: 'sticker-differs',
    severity: 'stops',
    title: 'learned ID is not the sticker’s',
    source: 'Compare the ID with the sticker every time',
    stage: 'enrol',
    find: (c) =>
      c.zones.flatMap((view) => {
        const { device, zone, family } = view
        const serial = learnedSerial(c.doc, zone.id)
        if (!device?.sticker || !serial || device.sticker === serial) return []
        return [
          {
            subject: zone.id,
            field: 'serial',
            text: `${capital(view.name)} learned ID ${groupId(family, serial)}; the sticker of its device says ${groupId(family, device.sticker)}. Take it out at Enrol and learn the right one.`,
            fix: null,
          },
        ]
      }),
  },
  {
    id: 'serial-elsewhere',
    severity: 'risks',
    title: 'ID used in another job',
    source: 'A device belongs to one system',
    stage: 'enrol',
    find: (c) =>
      (c.elsewhere ?? []).flatMap(({ serial, job }) => {
        const device = c.system.devices.find(
          (item) => item.device.sticker === serial || learnedSerial(c.doc, item.device.id) === serial,
        )
        const view = c.zones.find((item) => learnedSerial(c.doc, item.zone.id) === serial)
        const subject = view?.zone.id ?? device?.device.id
        if (!subject) return []
        const family = view?.family ?? device?.family ?? null
        return [
          {
            subject,
            field: null,
            text: `ID ${groupId(family, serial)} is also used in the job “${job}”.`,
            fix: null,
          },
        ]
      }),
  },
]

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

function renumber(c: Context, view: ZoneView): Fix | null {
  const use = useOf(view)
  if (!use || !c.panel) return null
  const taken = new Set(c.zones.filter((other) => other !== view).map((other) => other.zone.number))
  const free = numbersFor(c.doc, c.system, use, c.rules.schools.wiredBlock).find(
    (number) => !taken.has(number),
  )
  if (free === undefined) return null
  const give = setOp(view.zone, 'number', free)
  const woken = use === 'wired' ? terminalsWoken(c, give) : []
  const also = woken.length > 0 ? `, with the terminals of ${woken.join(', ')} switched off` : ''
  return {
    title: `Give it ${printNumber(c.panel, free)}, the next free number${also}`,
    ops: [give, ...woken.map(terminalOff)],
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

/** What a zone is called when its number does not tell. */
function labelOr(view: ZoneView): string {
  return view.zone.label ? `“${view.zone.label}”` : view.model ? `a ${view.model.name}` : 'an empty zone'
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}
