import type {
  CatalogueEntry,
  DeviceModel,
  EntryKind,
  Family,
  PanelInterface,
  PanelModel,
  ReceiverModel,
} from './schema.ts'
import type { KeptEntry } from './written.ts'

interface KindMap {
  family: Family
  receiver: ReceiverModel
  device: DeviceModel
  panel: PanelModel
  interface: PanelInterface
}

/** Catalogue entries by id, for look-up while judging. One instance is one fixed set. */
export class Catalogue {
  readonly #kept: ReadonlyMap<string, KeptEntry>
  readonly #byId: ReadonlyMap<string, CatalogueEntry>

  constructor(kept: readonly KeptEntry[]) {
    this.#kept = new Map(kept.map((item) => [item.entry.id, item]))
    this.#byId = new Map([...this.#kept].map(([id, item]) => [id, item.entry]))
  }

  /** Every entry as it was written and as it reads. */
  get kept(): readonly KeptEntry[] {
    return [...this.#kept.values()]
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

  /** An entry's name; its id where it is not here, `none` for none. */
  nameOf(id: string | null): string {
    return id === null ? 'none' : (this.#byId.get(id)?.name ?? id)
  }

  /** All entries of one kind, by name. */
  all<K extends EntryKind>(kind: K): KindMap[K][] {
    const list = [...this.#byId.values()].filter((entry) => entry.kind === kind) as KindMap[K][]
    return list.sort((a, b) => (a.name < b.name ? -1 : 1))
  }

  /** Whether there is an entry of this id. */
  has(id: string): boolean {
    return this.#byId.has(id)
  }

  /** SHA-256 of the entry as it was written; throws for an id that is not here. */
  hash(id: string): string {
    const item = this.#kept.get(id)
    if (!item) throw new RangeError(`Catalogue.hash: no entry ${id}`)
    return item.hash
  }

  /** The same set with these entries in place of those of the same id. */
  with(kept: readonly KeptEntry[]): Catalogue {
    return kept.length === 0 ? this : new Catalogue([...this.#kept.values(), ...kept])
  }
}
