import { randomUUID } from 'node:crypto'
import { In, type DataSource, type EntityManager } from 'typeorm'
import { readKept, type CatalogueAct, type CatalogueActInput, type KeptEntry } from '#core'
import { CatalogueActs, CatalogueEntry, type CatalogueActRow, type CatalogueEntryRow } from './entities.ts'

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
   * Takes entries in, each as it was written. With `offer` they become the ones offered; without, they are only kept for the
   * jobs that pin them. Nothing that was ever offered goes: an edit still waiting somewhere may pin it.
   */
  async add(entries: readonly KeptEntry[], offer: boolean, within?: EntityManager): Promise<void> {
    const work = async (manager: EntityManager): Promise<void> => {
      for (const { hash, form, raw, entry } of entries) {
        const there = await manager.findOneBy(CatalogueEntry, { firmId: this.firmId, hash })
        if (offer)
          await manager.update(CatalogueEntry, { firmId: this.firmId, entryId: entry.id }, { current: false })
        if (there && offer)
          await manager.update(CatalogueEntry, { firmId: this.firmId, hash }, { current: true })
        if (!there)
          await manager.insert(CatalogueEntry, {
            firmId: this.firmId,
            hash,
            entryId: entry.id,
            current: offer,
            form,
            body: JSON.stringify(raw),
          })
      }
    }
    await (within ? work(within) : this.source.transaction(work))
  }

  /** Does work on what is offered while nobody else publishes or takes a pack in. */
  async alone<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    return this.source.transaction(async (manager) => {
      await manager.query('SELECT id FROM firm WHERE id = ? FOR UPDATE', [this.firmId])
      return work(manager)
    })
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
      await this.add(fresh, true, manager)
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
