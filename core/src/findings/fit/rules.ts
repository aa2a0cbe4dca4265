import { fitAll, receiverLoad, sharedRoom, type Fit } from '../../fit/fit.ts'
import { ASSUMED } from '../../catalogue/entry-fields.ts'
import type { CatalogueEntry, DeviceModel } from '../../catalogue/schema.ts'
import { applyOps } from '../../job/edit.ts'
import type { Device } from '../../job/records.ts'
import { systemOf } from '../../system/system.ts'
import { encryptedVariant, neededEvents, stands, swapOps } from '../../fit/remedies.ts'
import type { FitReason, Lack } from '../../fit/reasons.ts'
import type { Region } from '../../units/region.ts'
import type { Context } from '../context.ts'
import type { Found, FoundFix, RulesOf } from '../finding.ts'

/** What the rules on fit find: a model in its room, and the checks that speak against it. */
export interface FitFacts {
  readonly 'no-fit': Judged
  readonly 'receiver-full': {
    readonly model: string
    readonly room: string
    readonly receivers: readonly {
      readonly name: string
      readonly holds: number | null
      readonly has: number
    }[]
    readonly beyond: number
    /** What receivers of one radio hold together, where that is less than each its own; null elsewhere. */
    readonly together: number | null
  }
  /** `variant`: an encrypted model that would cure a plain command; null for none, or where none is missed. */
  readonly 'fit-loss': Judged & { readonly variant: string | null }
  /** Parts that lower the grade of the whole, or (`has` null) state none; each with how many devices it bears on. */
  readonly 'grade-low': {
    readonly parts: readonly {
      readonly part: string
      readonly has: number | null
      readonly devices: number
    }[]
    readonly wanted: number
  }
  /** Models that check in too rarely for the grade; minutes, `most` as printed. */
  readonly 'check-in-rare': {
    readonly models: readonly {
      readonly model: string
      readonly every: number | null
      readonly devices: number
    }[]
    readonly grade: number
    readonly most: string
    readonly source: string
  }
  readonly 'fit-unknown': Judged
  /** What entries leave open and fit hangs on; each with how many devices it bears on. */
  readonly 'fit-unstated': {
    readonly parts: readonly {
      readonly part: string
      readonly lacks: readonly Lack[]
      readonly devices: number
    }[]
  }
  readonly 'life-over': {
    readonly model: string
    readonly room: string
    readonly made: number
    readonly years: number
    readonly until: number
  }
  /** A panel or receiver that is not made for the job's region. */
  readonly 'not-approved': {
    readonly what: 'panel' | 'receiver'
    readonly name: string
    readonly region: Region
    readonly made: readonly Region[]
  }
  readonly discontinued: { readonly model: string; readonly successor: string | null }
  /** Answers of an entry that nobody read, by their questions. */
  readonly assumed: { readonly entry: string; readonly asked: readonly string[] }
}

interface Judged {
  readonly model: string
  readonly room: string
  /** Names of the checks, such as `band`. */
  readonly checks: readonly string[]
  /** What they found, each. */
  readonly reasons: readonly FitReason[]
  /** The figures in them: a waiver holds for these, however the sentence reads. */
  readonly figures: readonly string[]
}

/** Rules on whether a device works with the receivers and the panel, and for how long. */
export const fitRules: RulesOf<FitFacts> = {
  'no-fit': {
    severity: 'stops',
    waive: 'never',
    stage: 'kit',
    key: ['model', 'checks', 'figures'],
    find: (c) => judged(c, (fit) => fit.verdict === 'no' && fit.reasons[0]?.code !== 'capacity'),
  },
  'receiver-full': {
    severity: 'stops',
    waive: 'never',
    stage: 'kit',
    key: ['model', 'beyond'],
    find: (c) => {
      const beyond = c.system.devices.filter(
        ({ device }) => c.fits.get(device.id)?.reasons[0]?.code === 'capacity',
      )
      if (beyond.length === 0) return []
      const receivers = receiverLoad(c.system).map(({ receiver, used }) => ({
        name: receiver.model.name,
        holds: receiver.model.transmitters ?? null,
        has: used,
      }))
      return beyond.map(({ device, model }) => ({
        subject: device.id,
        field: null,
        facts: {
          model: model.name,
          room: device.room,
          receivers,
          beyond: beyond.length,
          together: sharedRoom(c.system)[0]?.most ?? null,
        },
        fix: null,
      }))
    },
  },
  'fit-loss': {
    severity: 'risks',
    stage: 'kit',
    key: ['model', 'checks', 'figures'],
    find: (c) =>
      judged(c, (fit) => fit.verdict === 'loss', lostHere).map((found) => {
        const item = c.system.byId.get(found.subject)
        const variant =
          item && found.facts.checks.includes('replay') ? encryptedVariant(c, item)?.name : undefined
        return { ...found, facts: { ...found.facts, variant: variant ?? null } }
      }),
  },
  'grade-low': {
    severity: 'risks',
    stage: 'kit',
    key: ['parts', 'wanted'],
    find: (c) =>
      [true, false].flatMap((stated) =>
        together(c, ({ code, facts }) =>
          code === 'grade' && (facts.has !== null) === stated
            ? [{ name: facts.part, facts: { part: facts.part, has: facts.has } }]
            : [],
        ).map(({ facts, ...found }) => ({
          ...found,
          facts: { parts: facts.map((one) => alone(c, one)), wanted: c.info.grade },
        })),
      ),
  },
  'check-in-rare': {
    severity: 'risks',
    stage: 'kit',
    key: ['models', 'grade'],
    find: (c) => {
      const limit = { most: '', source: '' }
      return together(c, ({ code, facts }) => {
        if (code !== 'check-in') return []
        Object.assign(limit, { most: facts.most, source: facts.source })
        return [{ name: facts.model, facts: { model: facts.model, every: facts.every } }]
      }).map(({ facts, ...found }) => ({
        ...found,
        facts: { models: facts, grade: c.info.grade, ...limit },
      }))
    },
  },
  'fit-unknown': {
    severity: 'risks',
    stage: 'kit',
    key: ['model', 'checks', 'figures'],
    find: (c) =>
      c.panel === null
        ? []
        : judged(
            c,
            (fit) => fit.verdict === 'unknown',
            (_, { code }) => code !== 'unstated',
          ),
  },
  'fit-unstated': {
    severity: 'risks',
    stage: 'kit',
    key: ['parts'],
    find: (c) =>
      together(c, ({ code, facts }) =>
        code === 'unstated'
          ? facts.of.flatMap(({ part, lacks }) =>
              lacks.map((lack) => ({ name: `${part}: ${lack}`, facts: { part, lack } })),
            )
          : [],
      ).map(({ facts, ...found }) => ({ ...found, facts: { parts: byPart(c, facts) } })),
  },
  'life-over': {
    severity: 'risks',
    stage: 'kit',
    key: ['model', 'made', 'years'],
    find: (c) => {
      const year = Number(c.now.slice(0, 4))
      return c.system.devices.flatMap(({ device, model }) => {
        if (!model.lifeYears || device.madeYear === null || device.plan === 'replace') return []
        const until = device.madeYear + model.lifeYears
        if (!(year > until)) return []
        const facts = {
          ...{ model: model.name, room: device.room },
          ...{ made: device.madeYear, years: model.lifeYears, until },
        }
        return [{ subject: device.id, field: 'madeYear', facts, fix: null }]
      })
    },
  },
  'not-approved': {
    severity: 'stops',
    waive: 'owner',
    stage: 'kit',
    key: ['what', 'name', 'region'],
    find: (c) => {
      const { region, panel } = c.info
      const found = (
        what: 'panel' | 'receiver',
        subject: string,
        entry: { readonly name: string; readonly regions: readonly Region[] },
      ): Found<FitFacts['not-approved']>[] =>
        region === 'own' || entry.regions.includes(region)
          ? []
          : [
              {
                ...{ subject, field: what === 'panel' ? 'panel' : 'model', fix: null },
                facts: { what, name: entry.name, region, made: entry.regions },
              },
            ]
      return [
        ...(c.panel && panel ? found('panel', 'job:main', c.panel) : []),
        ...c.system.receivers.flatMap(({ id, model }) =>
          id === 'built-in' ? [] : found('receiver', id, model),
        ),
      ]
    },
  },
  discontinued: {
    severity: 'advice',
    stage: 'kit',
    key: ['model', 'successor'],
    find: (c) =>
      c.system.devices.flatMap((item) => {
        const { device, model } = item
        if (!model.discontinued || device.existing) return []
        const next = c.catalogue.get('device', model.discontinued.successor)
        const facts = { model: model.name, successor: next?.name ?? null }
        const fix = next && successorFits(c, item, next) ? swapFix(c, device, next) : null
        return [{ subject: device.id, field: 'model', facts, fix }]
      }),
  },
  assumed: {
    severity: 'risks',
    stage: 'kit',
    key: ['entry', 'asked'],
    find: (c) =>
      entriesUsed(c).flatMap(({ subject, field, entry }) => {
        const asked = (entry.sources ?? []).filter(({ from }) => from === ASSUMED).map((one) => one.asked)
        return asked.length === 0 ? [] : [{ subject, field, facts: { entry: entry.name, asked }, fix: null }]
      }),
  },
}

interface Used {
  readonly subject: string
  readonly field: string
  readonly entry: CatalogueEntry
}

/** Entries that a job rests on, each once: the panel, what hears, what hangs, and the families that they speak. */
function entriesUsed({ system, panel }: Context): readonly Used[] {
  const receivers = system.receivers.map(({ id, model, families }) => ({
    ...{ subject: id === 'built-in' ? 'job:main' : id, field: id === 'built-in' ? 'panel' : 'model' },
    entries: [model, ...families],
  }))
  const devices = system.devices.map(({ device, model, family }) => ({
    ...{ subject: device.id, field: 'model', entries: family ? [model, family] : [model] },
  }))
  const all = [
    ...(panel ? [{ subject: 'job:main', field: 'panel', entries: [panel] }] : []),
    // A family is told with the device that speaks it.
    ...devices,
    ...receivers.map((one) => ({ ...one, entries: one.entries.slice(0, 1) })),
  ]
  const used = new Map<string, Used>()
  for (const { subject, field, entries } of all)
    for (const entry of entries) if (!used.has(entry.id)) used.set(entry.id, { subject, field, entry })
  return [...used.values()]
}

/** Whether a successor can stand in a device's place and is heard there without a new loss. */
function successorFits(c: Context, { device, model }: Item, next: DeviceModel): boolean {
  if (!stands(c.system, { model, other: next }, neededEvents(c, device, model))) return false
  const after = applyOps(c.doc, swapOps(c, device, next))
  const fit = after.ok ? fitAll(systemOf(after.doc, c.catalogue)).get(device.id) : undefined
  return fit?.verdict === 'works' || (fit?.verdict === 'loss' && c.fits.get(device.id)?.verdict === 'loss')
}

function swapFix(c: Context, device: Device, next: DeviceModel): FoundFix {
  return { does: 'swap', facts: { model: next.name }, ops: swapOps(c, device, next) }
}

type Item = Context['system']['devices'][number]

/** What one device loses: grades of the whole and check-ins by model are told once, a disarm button without a zone sends nothing. */
function lostHere(c: Context, reason: FitReason, device: Device): boolean {
  if (reason.code === 'grade' || reason.code === 'check-in') return false
  if (reason.code !== 'replay') return true
  const views = c.zonesOf.get(device.id) ?? []
  return views.length === 0 || views.some(({ zone }) => zone.event === 'disarm')
}

type Told = (c: Context, reason: FitReason, device: Device) => boolean

function judged(c: Context, is: (fit: Fit) => boolean, told: Told = () => true): Found<Judged>[] {
  return c.system.devices.flatMap(({ device, model }) => {
    const fit = c.fits.get(device.id)
    if (!fit || !is(fit)) return []
    const reasons = fit.reasons.filter((reason) => told(c, reason, device))
    if (reasons.length === 0) return []
    const facts = {
      ...{ model: model.name, room: device.room },
      ...{ checks: reasons.map((reason) => reason.code), reasons },
      figures: reasons.flatMap(({ facts: found }) => JSON.stringify(found).match(/\d+(\.\d+)?/g) ?? []),
    }
    return [{ subject: device.id, field: null, facts, fix: null }]
  })
}

/** A panel or receiver is one part, however many devices it holds. */
function alone<T extends { readonly part: string; readonly devices: number }>(c: Context, one: T): T {
  const wholes = [c.panel?.name, ...c.system.receivers.map(({ model }) => model.name)]
  return wholes.includes(one.part) ? { ...one, devices: 1 } : one
}

/** What each part leaves open, with the most devices that any of it bears on. */
function byPart(
  c: Context,
  open: readonly { readonly part: string; readonly lack: Lack; readonly devices: number }[],
): FitFacts['fit-unstated']['parts'] {
  return [...new Set(open.map(({ part }) => part))].map((part) => {
    const mine = open.filter((one) => one.part === part)
    const devices = Math.max(...mine.map((one) => one.devices))
    return alone(c, { part, lacks: mine.map(({ lack }) => lack), devices })
  })
}

/** One finding for all devices that a check speaks of, by what it names: the first of them stands for it. */
function together<F>(
  c: Context,
  of: (reason: FitReason) => readonly { readonly name: string; readonly facts: F }[],
): Found<readonly (F & { readonly devices: number })[]>[] {
  const named = new Map<string, { readonly facts: F; devices: number }>()
  let subject = ''
  for (const { device } of c.system.devices)
    for (const told of (c.fits.get(device.id)?.reasons ?? []).flatMap(of)) {
      subject ||= device.id
      const known = named.get(told.name)
      if (known) known.devices += 1
      else named.set(told.name, { facts: told.facts, devices: 1 })
    }
  const facts = [...named.values()].map((one) => ({ ...one.facts, devices: one.devices }))
  return facts.length === 0 ? [] : [{ subject, field: null, facts, fix: null }]
}
