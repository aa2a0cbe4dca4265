import { randomUUID } from 'node:crypto'
import { In, type DataSource, type EntityManager } from 'typeorm'
import { readKept, type CatalogueAct, type CatalogueActInput, type KeptEntry } from '#core'
import {
  CatalogueActs,
  CatalogueEntry,
  CatalogueVersion,
  type CatalogueActRow,
  type CatalogueEntryRow,
  type OfferedBy,
} from './catalogue-entities.ts'

/** By whom, when and by what entries come to be offered. */
export interface Offering {
  readonly how: OfferedBy
  readonly by: string
  readonly at: Date
  /** In the words of whoever offers them; may be empty. */
  readonly why: string
}

/** What Kapelle itself comes with. */
export function shippedAt(at: Date): Offering {
  return { how: 'shipped', by: 'Kapelle', at, why: '' }
}

/** What an entry was, from the latest version on. */
export interface Versions {
  readonly versions: readonly {
    readonly hash: string
    /** Null where it was offered before that was written down. */
    readonly how: OfferedBy | null
    readonly by: string | null
    readonly at: Date | null
    readonly why: string
  }[]
  readonly kept: readonly KeptEntry[]
  /** Hash of the version that is offered now. */
  readonly current: string | null
}

/** The catalogue of one firm: the entries in use and every one a job ever pinned, each kept for good under its hash. */
export class CatalogueStore {
  constructor(
    readonly source: DataSource,
    readonly firmId: string,
  ) {}

  /** The entries offered for new work; `within` a transaction by its own connection. */
  async current(within: EntityManager = this.source.manager): Promise<KeptEntry[]> {
    const rows = await within
      .getRepository(CatalogueEntry)
      .find({ where: { firmId: this.firmId, current: true }, order: { entryId: 'ASC' } })
    return rows.map(keptOf)
  }

  async byHashes(hashes: readonly string[]): Promise<KeptEntry[]> {
    if (hashes.length === 0) return []
    const rows = await this.source
      .getRepository(CatalogueEntry)
      .findBy({ firmId: this.firmId, hash: In([...hashes]) })
    return rows.map(keptOf)
  }

  /** Hash → entry id of those of these hashes that are kept. */
  async known(hashes: readonly string[]): Promise<Map<string, string>> {
    if (hashes.length === 0) return new Map()
    const rows = await this.source
      .getRepository(CatalogueEntry)
      .find({ where: { firmId: this.firmId, hash: In([...hashes]) }, select: { hash: true, entryId: true } })
    return new Map(rows.map((row) => [row.hash, row.entryId]))
  }

  /**
   * Takes entries in, each as it was written. With `offering` they become the ones offered, and that is written down; without, they
   * are only kept for the jobs that pin them. Nothing that was ever offered goes: an edit still waiting somewhere may pin it.
   */
  async add(entries: readonly KeptEntry[], offering: Offering | null, within?: EntityManager): Promise<void> {
    const { firmId } = this
    const work = async (manager: EntityManager): Promise<void> => {
      for (const { hash, form, raw, entry } of entries) {
        const there = await manager.findOneBy(CatalogueEntry, { firmId, hash })
        if (!there) {
          const body = JSON.stringify(raw)
          await manager.insert(CatalogueEntry, {
            ...{ firmId, hash, entryId: entry.id, current: false, form, body },
          })
        }
        if (!offering || there?.current) continue
        await manager.update(CatalogueEntry, { firmId, entryId: entry.id }, { current: false })
        await manager.update(CatalogueEntry, { firmId, hash }, { current: true })
        await manager.insert(CatalogueVersion, {
          ...{ firmId, id: randomUUID(), entryId: entry.id, hash },
          ...{ how: offering.how, offeredBy: offering.by, offeredAt: offering.at, why: offering.why },
        })
      }
    }
    await (within ? work(within) : this.source.transaction(work))
  }

  /**
   * The versions of an entry that were offered, the latest first, with the entries themselves. Of what was offered before that was
   * written down only the version of today is among them, of which nobody knows when.
   */
  async versions(entryId: string): Promise<Versions> {
    const { firmId } = this
    const rows = await this.source
      .getRepository(CatalogueVersion)
      .find({ where: { firmId, entryId }, order: { offeredAt: 'DESC', id: 'ASC' } })
    const current = await this.source
      .getRepository(CatalogueEntry)
      .find({ where: { firmId, entryId, current: true } })
    const told = new Set(rows.map(({ hash }) => hash))
    const untold = current.filter(({ hash }) => !told.has(hash))
    const kept = [...(await this.byHashes([...told])), ...untold.map(keptOf)]
    const versions = [
      // Whatever was offered since is written down: one that is in use and is not came after all that drafts tell of.
      ...untold.map(({ hash }) => ({ hash, how: null, by: null, at: null, why: '' })),
      ...rows.map(({ hash, how, offeredBy, offeredAt, why }) => ({
        hash,
        how,
        by: offeredBy,
        at: offeredAt,
        why,
      })),
    ]
    return { versions, kept, current: current[0]?.hash ?? null }
  }

  /** Does work on what is offered while nobody else publishes or takes a pack in. */
  async alone<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    return this.source.transaction(async (manager) => {
      await manager.query('SELECT id FROM firm WHERE id = ? FOR UPDATE', [this.firmId])
      return work(manager)
    })
  }

  /** Changes with what is offered, what was said of it, and its leaflets: two answers alike mean that nothing moved between them. */
  async state(): Promise<string> {
    const [row] = await this.source.query<Record<string, unknown>[]>(
      `SELECT (SELECT COUNT(*) FROM catalogue_entry WHERE firm_id = ? AND current = 1) AS entries,
        (SELECT COUNT(*) FROM catalogue_version WHERE firm_id = ?) AS versions,
        (SELECT COUNT(*) FROM catalogue_act WHERE firm_id = ?) AS acts,
        (SELECT CONCAT(COUNT(*), ' ', COALESCE(MAX(added_at), ''), ' ', COALESCE(SUM(CRC32(CONCAT(id, about))), 0))
          FROM leaflet WHERE firm_id = ?) AS leaflets`,
      Array.from({ length: 4 }, () => this.firmId),
    )
    return Object.values(row ?? {})
      .map(String)
      .join(' ')
  }

  /** Whether there is an entry of this id, whatever its version. */
  async has(entryId: string): Promise<boolean> {
    return this.source.getRepository(CatalogueEntry).existsBy({ firmId: this.firmId, entryId })
  }

  /** What was said of entries as a whole, oldest first. */
  async acts(): Promise<CatalogueAct[]> {
    const rows = await this.source
      .getRepository(CatalogueActs)
      .find({ where: { firmId: this.firmId }, order: { saidAt: 'ASC', id: 'ASC' } })
    return rows.map(actOf)
  }

  /** Keeps what a person says of an entry. */
  async say(
    input: CatalogueActInput,
    by: string,
    at: Date,
    within: EntityManager = this.source.manager,
  ): Promise<CatalogueAct> {
    const row: CatalogueActRow = {
      ...{ firmId: this.firmId, id: randomUUID(), entryId: input.entryId, kind: input.kind },
      ...{ saidBy: by, saidAt: at, body: JSON.stringify(input) },
    }
    await within.insert(CatalogueActs, row)
    return actOf(row)
  }

  /** Takes entries in for practice only, those whose ids this firm has not got: its own are left as they are. Gives how many came. */
  async addForPractice(entries: readonly KeptEntry[], by: string, at: Date): Promise<number> {
    return this.source.transaction(async (manager) => {
      const there = new Set((await this.current(manager)).map(({ entry }) => entry.id))
      const fresh = entries.filter(({ entry }) => !there.has(entry.id))
      await this.add(fresh, { how: 'shipped', by, at, why: 'invented, for practice' }, manager)
      for (const { entry } of fresh)
        await this.say(
          { kind: 'practice', entryId: entry.id, why: 'invented, for practice' },
          by,
          at,
          manager,
        )
      return fresh.length
    })
  }
}

function actOf({ id, saidBy, saidAt, body }: CatalogueActRow): CatalogueAct {
  return { ...(JSON.parse(body) as CatalogueActInput), id, by: saidBy, at: saidAt.toISOString() }
}

function keptOf({ hash, form, body }: CatalogueEntryRow): KeptEntry {
  return readKept({ hash, form, raw: JSON.parse(body) as unknown })
}
