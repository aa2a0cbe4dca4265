import { hashOf } from '../units/canonical.ts'
import type { CatalogueEntry, DeviceModel, EntryKind, Family, PanelModel, ReceiverModel } from './schema.ts'

interface KindMap {
  family: Family
  receiver: ReceiverModel
  device: DeviceModel
  panel: PanelModel
}

/** Catalogue entries by id, for look-up while judging. One instance is one fixed set. */
export class Catalogue {
  readonly #byId: ReadonlyMap<string, CatalogueEntry>
  readonly #hashes = new Map<string, string>()

  constructor(entries: readonly CatalogueEntry[]) {
    this.#byId = new Map(entries.map((entry) => [entry.id, entry]))
  }

  /** Every entry, by id. */
  get entries(): readonly CatalogueEntry[] {
    return [...this.#byId.values()].sort((a, b) => (a.id < b.id ? -1 : 1))
  }

  /** The entry of one kind under this id, or null. */
  get<K extends EntryKind>(kind: K, id: string | null): KindMap[K] | null {
    const entry = id === null ? undefined : this.#byId.get(id)
    return entry?.kind === kind ? (entry as KindMap[K]) : null
  }

  /** All entries of one kind, by name. */
  all<K extends EntryKind>(kind: K): KindMap[K][] {
    const list = [...this.#byId.values()].filter((entry) => entry.kind === kind) as KindMap[K][]
    return list.sort((a, b) => (a.name < b.name ? -1 : 1))
  }

  /** SHA-256 of the entry's canonical JSON; throws for an id that is not here. */
  hash(id: string): string {
    const known = this.#hashes.get(id)
    if (known) return known
    const entry = this.#byId.get(id)
    if (!entry) throw new RangeError(`Catalogue.hash: no entry ${id}`)
    const hash = hashOf(entry)
    this.#hashes.set(id, hash)
    return hash
  }

  /** The same set with these entries in place of those of the same id. */
  with(entries: readonly CatalogueEntry[]): Catalogue {
    return entries.length === 0 ? this : new Catalogue([...this.#byId.values(), ...entries])
  }
}
