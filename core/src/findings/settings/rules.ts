import { setOp } from '../../job/edit.ts'
import { evidenceOf } from '../../job/evidence.ts'
import { keysSwitchedOff } from '../../response/setting-words.ts'
import { heldValue } from '../../memory/held.ts'
import type { Context } from '../context.ts'
import type { RulesOf } from '../finding.ts'

/** What the rules on settings of the whole panel find. */
export interface SettingFacts {
  readonly 'key-consent': { readonly key: string }
  readonly 'key-latching': { readonly panel: string }
  readonly 'beeps-off': { readonly runs: 'entry' | 'exit'; readonly shipped: boolean }
  readonly 'outputs-latched': { readonly has: boolean; readonly panel: string; readonly shipped: boolean }
  /** Whether the plan leaves it as the panel is, which is so. */
  readonly 'open-excluded': { readonly shipped: boolean }
}

/** Rules on settings of the whole panel, and how they bear on each other. */
export const settingRules: RulesOf<SettingFacts> = {
  'key-consent': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['key'],
    find: (c) => {
      const signed = new Set(evidenceOf(c.doc, 'signoff').map((record) => record.what))
      return keysSwitchedOff(c.panel, c.info)
        .filter((key) => !signed.has(`consent ${key}`))
        .map((key) => {
          const left = c.info.keysOff.filter((item) => item !== key)
          return {
            ...{ subject: 'job:main', field: 'keysOff', facts: { key } },
            fix: { does: 'key-on', facts: { key }, ops: [setOp(c.info, 'keysOff', left)] },
          }
        })
    },
  },
  'key-latching': {
    severity: 'risks',
    stage: 'zones',
    key: ['panel'],
    find: (c) => {
      if (c.info.keySwitch !== 'latching' || !c.panel?.couplings?.latchingKeySwitch) return []
      return [
        {
          ...{ subject: 'job:main', field: 'keySwitch', facts: { panel: c.panel.name } },
          fix: { does: 'momentary-key', facts: {}, ops: [setOp(c.info, 'keySwitch', 'momentary')] },
        },
      ]
    },
  },
  'beeps-off': {
    severity: 'risks',
    stage: 'zones',
    key: ['runs'],
    find: (c) =>
      (['entryBeeps', 'exitBeeps'] as const).flatMap((field) =>
        isOff(c, field) && c.panel?.couplings?.beeps
          ? [
              {
                ...{ subject: 'job:main', field },
                facts: {
                  runs: field === 'entryBeeps' ? ('entry' as const) : ('exit' as const),
                  shipped: c.info[field] === null,
                },
                fix: { does: 'beeps' as const, facts: {}, ops: [setOp(c.info, field, true)] },
              },
            ]
          : [],
      ),
  },
  'outputs-latched': {
    severity: 'advice',
    stage: 'zones',
    key: ['has', 'panel'],
    find: (c) => {
      const modes = c.panel?.couplings?.outputs
      const outputs = c.info.outputs ?? heldValue(c, 'system.outputs')
      if (outputs !== 'latched' || !modes) return []
      return [
        {
          subject: 'job:main',
          field: 'outputs',
          facts: {
            ...{ has: modes.includes('latched'), panel: c.panel?.name ?? 'The panel' },
            shipped: c.info.outputs === null,
          },
          fix: modes.includes('momentary')
            ? { does: 'pulse-outputs', facts: {}, ops: [setOp(c.info, 'outputs', 'momentary')] }
            : null,
        },
      ]
    },
  },
  'open-excluded': {
    severity: 'advice',
    stage: 'zones',
    key: [],
    find: (c) => {
      const choices = c.panel?.couplings?.openAtExit
      // A panel that knows one way only goes by it, whatever the plan says.
      const only = choices?.length === 1 ? choices[0] : null
      const now = c.info.openAtExit ?? heldValue(c, 'system.openAtExit') ?? only
      if (!choices?.includes('exclude') || now !== 'exclude') return []
      return [
        {
          ...{ subject: 'job:main', field: 'openAtExit', facts: { shipped: c.info.openAtExit === null } },
          fix: choices.includes('alarm')
            ? { does: 'alarm-at-exit', facts: {}, ops: [setOp(c.info, 'openAtExit', 'alarm')] }
            : null,
        },
      ]
    },
  },
}

/** Whether keypads are silent then: by the plan, or as the panel is where the plan leaves it. */
function isOff(c: Context, field: 'entryBeeps' | 'exitBeeps'): boolean {
  const planned = c.info[field]
  return planned === null ? heldValue(c, `system.${field}`) === 'off' : !planned
}
