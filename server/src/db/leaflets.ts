import { createHash, randomUUID } from 'node:crypto'
import type { DataSource, EntityManager } from 'typeorm'
import type { LeafletType } from '#core'
import { Leaflet, LeafletPart, type LeafletRow } from './catalogue-entities.ts'

/** How much of a leaflet lies in one part, bytes: as base64 half a megabyte. */
const PART = 384 * 1024

/** A leaflet to be kept. */
export interface NewLeaflet {
  /** Id of an entry, or `draft/` and the id of a draft. */
  readonly about: string
  readonly name: string
  readonly type: LeafletType
  readonly content: Buffer
  readonly by: string
  readonly at: Date
}

/** The leaflets of one firm's entries and drafts. */
export class LeafletStore {
  constructor(
    readonly source: DataSource,
    readonly firmId: string,
  ) {}

  /** Every leaflet without its content, in the order in which they came. */
  async list(): Promise<LeafletRow[]> {
    return this.source
      .getRepository(Leaflet)
      .find({ where: { firmId: this.firmId }, order: { addedAt: 'ASC', id: 'ASC' } })
  }

  /**
   * Keeps a leaflet; the same content about the same entry is there once, however often it is sent. Null where there are `most`
   * already.
   */
  async add(leaflet: NewLeaflet, most: number): Promise<LeafletRow | null> {
    const { firmId } = this
    const { about, name, type, content, by, at } = leaflet
    const digest = createHash('sha256').update(content).digest('hex')
    return this.source.transaction(async (manager) => {
      // Of two that come at once the second one sees the first.
      await manager.query('SELECT id FROM firm WHERE id = ? FOR UPDATE', [firmId])
      const there = await manager.findOneBy(Leaflet, { firmId, about, digest })
      if (there) return there
      if ((await manager.countBy(Leaflet, { firmId, about })) >= most) return null
      const row: LeafletRow = {
        ...{ firmId, id: randomUUID(), about, name, type, digest },
        ...{ bytes: content.length, addedBy: by, addedAt: at },
      }
      await manager.insert(Leaflet, row)
      for (let from = 0, number = 0; from < content.length; from += PART, number++)
        await manager.insert(LeafletPart, {
          ...{ firmId, leafletId: row.id, number },
          content: content.subarray(from, from + PART).toString('base64'),
        })
      return row
    })
  }

  async head(id: string): Promise<LeafletRow | null> {
    return this.source.getRepository(Leaflet).findOneBy({ firmId: this.firmId, id })
  }

  async content(id: string): Promise<Buffer> {
    const parts = await this.source
      .getRepository(LeafletPart)
      .find({ where: { firmId: this.firmId, leafletId: id }, order: { number: 'ASC' } })
    return Buffer.concat(parts.map(({ content }) => Buffer.from(content, 'base64')))
  }

  /** Takes a leaflet away for good. */
  async remove(id: string): Promise<void> {
    await this.source.getRepository(Leaflet).delete({ firmId: this.firmId, id })
  }

  /** What was about a draft is about the entry that came of it; what the entry has already is not there twice. */
  async handOver(from: string, to: string, manager: EntityManager): Promise<void> {
    const { firmId } = this
    for (const { id, digest } of await manager.findBy(Leaflet, { firmId, about: from })) {
      const there = await manager.existsBy(Leaflet, { firmId, about: to, digest })
      if (there) await manager.delete(Leaflet, { firmId, id })
      else await manager.update(Leaflet, { firmId, id }, { about: to })
    }
  }

  /** Takes away all that is about a draft that was put aside. */
  async removeAbout(about: string): Promise<void> {
    await this.source.getRepository(Leaflet).delete({ firmId: this.firmId, about })
  }
}
