import { In, type DataSource, type EntityManager } from 'typeorm'
import { readKept, type KeptEntry } from '#core'
import { CatalogueEntry, type CatalogueEntryRow } from './entities.ts'

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
}

function keptOf({ hash, form, body }: CatalogueEntryRow): KeptEntry {
  return readKept({ hash, form, raw: JSON.parse(body) as unknown })
}
