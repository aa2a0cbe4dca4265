import { fitAll, receiverLoad, type Fit } from '../../fit/fit.ts'
import type { DeviceModel } from '../../catalogue/schema.ts'
import { applyOps } from '../../job/edit.ts'
import type { Device } from '../../job/records.ts'
import { systemOf } from '../../system/system.ts'
import { encryptedVariant, neededEvents, stands, swapOps } from '../../fit/remedies.ts'
import type { FitReason } from '../../fit/reasons.ts'
import type { Region } from '../../units/region.ts'
import type { Context } from '../context.ts'
import type { Found, FoundFix, RulesOf } from '../finding.ts'

/** What the rules on fit find: a model in its room, and the checks that speak against it. */
export interface FitFacts {
  readonly 'no-fit': Judged
  readonly 'receiver-full': {
    readonly model: string
    readonly room: string
    readonly receivers: readonly { readonly name: string; readonly holds: number; readonly has: number }[]
    readonly beyond: number
  }
  /** `variant`: an encrypted model that would cure a plain command; null for none, or where none is missed. */
  readonly 'fit-loss': Judged & { readonly variant: string | null }
  readonly 'fit-unknown': Judged
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
        holds: receiver.model.transmitters,
        has: used,
      }))
      return beyond.map(({ device, model }) => ({
        subject: device.id,
        field: null,
        facts: { model: model.name, room: device.room, receivers, beyond: beyond.length },
        fix: null,
      }))
    },
  },
  'fit-loss': {
    severity: 'risks',
    stage: 'kit',
    key: ['model', 'checks', 'figures'],
    find: (c) =>
      judged(c, (fit) => fit.verdict === 'loss').map((found) => {
        const item = c.system.byId.get(found.subject)
        const variant =
          item && found.facts.checks.includes('replay') ? encryptedVariant(c, item)?.name : undefined
        return { ...found, facts: { ...found.facts, variant: variant ?? null } }
      }),
  },
  'fit-unknown': {
    severity: 'risks',
    stage: 'kit',
    key: ['model', 'checks', 'figures'],
    find: (c) => (c.panel === null ? [] : judged(c, (fit) => fit.verdict === 'unknown')),
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

function judged(c: Context, is: (fit: Fit) => boolean): Found<Judged>[] {
  return c.system.devices.flatMap(({ device, model }) => {
    const fit = c.fits.get(device.id)
    if (!fit || !is(fit)) return []
    const facts = {
      ...{ model: model.name, room: device.room },
      checks: fit.reasons.map((reason) => reason.code),
      reasons: fit.reasons,
      figures: fit.reasons.flatMap(({ facts }) => JSON.stringify(facts).match(/\d+(\.\d+)?/g) ?? []),
    }
    return [{ subject: device.id, field: null, facts, fix: null }]
  })
}
