import type { DataSource } from 'typeorm'
import { completeHouseRules, NewerShape, type HouseRules } from '#core'
import { Firm, type FirmRow } from './entities.ts'

/** Number of the shape of a firm's settings, the house rules with them; one that stored none is 1. */
const SETTINGS_SCHEMA = 2

interface Stored {
  readonly schema?: number
  readonly houseRules?: unknown
  /** Counts the changes of the house rules, so that two owners do not overwrite each other unseen. */
  readonly houseRulesRevision?: number
  /** What a heading of this firm's equipment lists means, by the heading in small letters. */
  readonly columns?: Readonly<Record<string, string>>
}

/** What a firm has set for itself. */
export class SettingsStore {
  constructor(
    readonly source: DataSource,
    readonly firmId: string,
  ) {}

  async houseRules(): Promise<{ rules: HouseRules; revision: number }> {
    const stored = await this.#read()
    return { rules: completeHouseRules(stored.houseRules), revision: stored.houseRulesRevision ?? 0 }
  }

  /** Takes new house rules if nobody changed them since `revision`; null otherwise. Summaries of jobs are made anew. */
  async setHouseRules(rules: HouseRules, revision: number): Promise<number | null> {
    return this.#locked(async (stored, keep) => {
      if ((stored.houseRulesRevision ?? 0) !== revision) return null
      await keep({ houseRules: rules, houseRulesRevision: revision + 1 }, { rulesRevision: revision + 1 })
      return revision + 1
    })
  }

  async columns(): Promise<Readonly<Record<string, string>>> {
    return (await this.#read()).columns ?? {}
  }

  /** Remembers what headings mean; those known keep their meaning unless it is given anew. */
  async addColumns(columns: Readonly<Record<string, string>>): Promise<void> {
    await this.#locked(async (stored, keep) => {
      const all = Object.entries({ ...stored.columns, ...columns }).slice(-MOST_COLUMNS)
      await keep({ columns: Object.fromEntries(all) })
    })
  }

  /** Does work on the settings while nobody else changes them; `keep` stores what of them is new. */
  async #locked<T>(
    work: (
      stored: Stored,
      keep: (changed: Stored, columns?: Partial<FirmRow>) => Promise<unknown>,
    ) => Promise<T>,
  ): Promise<T> {
    return this.source.transaction(async (manager) => {
      const firms = manager.getRepository(Firm)
      const firm = await firms.findOne({ where: { id: this.firmId }, lock: { mode: 'pessimistic_write' } })
      const stored = read(firm?.settings ?? '{}')
      return work(stored, (changed, columns = {}) =>
        firms.update(
          { id: this.firmId },
          { settings: JSON.stringify({ ...stored, schema: SETTINGS_SCHEMA, ...changed }), ...columns },
        ),
      )
    })
  }

  async #read(): Promise<Stored> {
    const firm = await this.source.getRepository(Firm).findOneByOrFail({ id: this.firmId })
    return read(firm.settings)
  }
}

/** Settings as they were stored; those of a newer version are left as they are. */
function read(text: string): Stored {
  const stored = JSON.parse(text) as Stored
  if ((stored.schema ?? 1) > SETTINGS_SCHEMA)
    throw new NewerShape({ name: 'set of firm settings', schema: SETTINGS_SCHEMA }, stored.schema ?? 1)
  return stored
}

/** Headings kept per firm; the oldest go. */
const MOST_COLUMNS = 500
