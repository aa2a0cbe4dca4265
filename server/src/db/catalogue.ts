import { In, type DataSource } from 'typeorm'
import { hashOf, type CatalogueEntry as Entry } from '#core'
import { CatalogueEntry } from './entities.ts'

/** The catalogue of one firm: the entries in use and every one a job ever pinned, each kept for good under its hash. */
export class CatalogueStore {
  constructor(
    readonly source: DataSource,
    readonly firmId: string,
  ) {}

  /** The entries offered for new work. */
  async current(): Promise<Entry[]> {
    const rows = await this.source
      .getRepository(CatalogueEntry)
      .find({ where: { firmId: this.firmId, current: true }, order: { entryId: 'ASC' } })
    return rows.map((row) => JSON.parse(row.body) as Entry)
  }

  async byHashes(hashes: readonly string[]): Promise<Entry[]> {
    if (hashes.length === 0) return []
    const rows = await this.source
      .getRepository(CatalogueEntry)
      .findBy({ firmId: this.firmId, hash: In([...hashes]) })
    return rows.map((row) => JSON.parse(row.body) as Entry)
  }

  /** Hash → entry id of those of these hashes that are kept. */
  async known(hashes: readonly string[]): Promise<Map<string, string>> {
    if (hashes.length === 0) return new Map()
    const rows = await this.source
      .getRepository(CatalogueEntry)
      .find({ where: { firmId: this.firmId, hash: In([...hashes]) }, select: { hash: true, entryId: true } })
    return new Map(rows.map((row) => [row.hash, row.entryId]))
  }

  /** Takes entries in. With `offer` they become the ones offered; without, they are only kept for the jobs that pin them. */
  async add(entries: readonly Entry[], offer: boolean): Promise<void> {
    await this.source.transaction(async (manager) => {
      for (const entry of entries) {
        const hash = hashOf(entry)
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
            body: JSON.stringify(entry),
          })
      }
    })
  }
}
