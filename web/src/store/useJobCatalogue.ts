import { computed, shallowRef, watch, type ComputedRef, type Ref } from 'vue'
import {
  Catalogue,
  pinOps,
  readKept,
  recordsOf,
  type JobDocument,
  type KeptEntry,
  type Op,
  type WrittenEntry,
} from '#core'
import { api } from '../line/api.ts'

/** The catalogue entries of an open job: those offered for new work, and those that it pins, whatever is offered now. */
export function useJobCatalogue(doc: Ref<JobDocument>): {
  readonly offered: Ref<Catalogue>
  readonly catalogue: ComputedRef<Catalogue>
  /** Takes in what is offered, and the pinned entries as they came. */
  readonly begin: (current: Catalogue, entries: readonly WrittenEntry[]) => void
  /** What is offered now, while the job is open: what it pins stays. */
  readonly renew: (current: Catalogue) => void
  /** Ops that pin these entries, and what they need, where the job does not pin them yet. */
  readonly pins: (entries: readonly (string | null)[]) => Op[]
} {
  const offered = shallowRef(new Catalogue([]))
  /** Every entry known by its hash: a job is judged by those it pins. */
  const known = shallowRef<ReadonlyMap<string, KeptEntry>>(new Map())
  const pinned = computed(() =>
    recordsOf(doc.value, 'pin')
      .map((pin) => pin.hash)
      .join(' '),
  )
  const catalogue = computed(() =>
    offered.value.with(pinned.value.split(' ').flatMap((hash) => known.value.get(hash) ?? [])),
  )
  // A colleague's edit or an undo may pin an entry that this page has not seen: it is asked for by its hash.
  watch(pinned, () => void fetchMissing())

  function learn(entries: readonly KeptEntry[]): void {
    known.value = new Map([...known.value, ...entries.map((item) => [item.hash, item] as const)])
  }

  async function fetchMissing(): Promise<void> {
    const missing = pinned.value.split(' ').filter((hash) => hash !== '' && !known.value.has(hash))
    if (missing.length === 0) return
    const path = `/api/catalogue/entries?hashes=${missing.slice(0, 100).join(',')}`
    const answer = await api<{ entries: WrittenEntry[] }>('GET', path).catch(() => null)
    if (answer) learn(answer.entries.map(readKept))
  }

  return {
    offered,
    catalogue,
    begin(current, entries) {
      offered.value = current
      learn(current.kept)
      learn(entries.map(readKept))
    },
    renew(current) {
      offered.value = current
      learn(current.kept)
    },
    pins: (entries) => pinOps(doc.value, catalogue.value, entries),
  }
}
