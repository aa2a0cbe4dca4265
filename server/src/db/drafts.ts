import type { DataSource, EntityManager } from 'typeorm'
import {
  draftInfo,
  draftKernel,
  type DraftDocument,
  type DraftEdit as Edit,
  type DraftJournalEntry,
  type KeptEntry,
  type Problem,
} from '#core'
import { Draft, DraftEdit, type DraftEditRow, type DraftRow } from './catalogue-entities.ts'
import { isDuplicate, retrying } from './retry.ts'

/** A draft in the list. */
export type DraftListRow = Omit<DraftRow, 'firmId'>

/** What became of an edit of a draft. */
export type DraftTaken =
  | { readonly outcome: 'taken'; readonly revision: number }
  | { readonly outcome: 'conflict'; readonly field: string }
  /** There is none, or it is closed: published or dropped. */
  | { readonly outcome: 'no-draft' | 'closed' }

/** What came of publishing a draft. */
export type Published =
  | { readonly outcome: 'published'; readonly kept: KeptEntry }
  | { readonly outcome: 'invalid'; readonly problems: readonly Problem[] }
  | { readonly outcome: 'moved' | 'no-draft' | 'closed' }

/** Drafts of one firm's catalogue entries. A draft's document is its journal, replayed: it is short. */
export class DraftStore {
  constructor(
    readonly source: DataSource,
    readonly firmId: string,
  ) {}

  /** Drafts by last change, the latest first: those at work, and the last that were published. */
  async list(limit: number): Promise<DraftListRow[]> {
    return this.source.getRepository(Draft).find({
      where: [
        { firmId: this.firmId, state: 'open' },
        { firmId: this.firmId, state: 'published' },
      ],
      order: { changedAt: 'DESC', id: 'ASC' },
      take: limit,
    })
  }

  async row(id: string): Promise<DraftListRow | null> {
    return this.source.getRepository(Draft).findOneBy({ firmId: this.firmId, id })
  }

  /** Journal entries after a revision, oldest first. */
  async since(id: string, revision: number): Promise<DraftJournalEntry[]> {
    return (await this.#rows(this.source.manager, id))
      .filter((row) => row.revision > revision)
      .map((row) => ({
        revision: row.revision,
        edit: JSON.parse(row.body) as Edit,
        takenAt: row.takenAt.toISOString(),
      }))
  }

  /** Takes one edit onto the head. An edit that is known already gets its first answer again. */
  async take(
    id: string,
    { edit, now, create }: { readonly edit: Edit; readonly now: Date; readonly create: boolean },
  ): Promise<DraftTaken> {
    return this.#locked(id, create ? { now, by: edit.by.name } : null, async (manager, row) => {
      if (!row) return { outcome: 'no-draft' }
      const rows = await this.#rows(manager, id)
      const known = rows.find((one) => one.editId === edit.id)
      if (known) return { outcome: 'taken', revision: known.revision }
      if (row.state !== 'open') return { outcome: 'closed' }
      const result = draftKernel.applyOps(documentOf(rows), edit.ops)
      if (!result.ok) return { outcome: 'conflict', field: result.conflict.field ?? result.conflict.id }
      const revision = row.revision + 1
      const body = JSON.stringify({ ...edit, ops: result.took })
      await manager.insert(DraftEdit, {
        firmId: this.firmId,
        draftId: id,
        revision,
        editId: edit.id,
        takenAt: now,
        body,
      })
      await manager.update(
        Draft,
        { firmId: this.firmId, id },
        { revision, ...headOf(result.doc), changedBy: edit.by.name, changedAt: now },
      )
      return { outcome: 'taken', revision }
    })
  }

  /**
   * Publishes what a draft comes to by `judge`, or says what stands against it; `keep` takes the entry into the catalogue within
   * the same transaction. A draft that somebody changed since it was looked at is not published.
   */
  async publish(
    id: string,
    {
      revision,
      why,
      by,
      now,
    }: { readonly revision: number; readonly why: string; readonly by: string; readonly now: Date },
    work: {
      readonly judge: (doc: DraftDocument, manager: EntityManager) => Promise<KeptEntry | readonly Problem[]>
      readonly keep: (kept: KeptEntry, manager: EntityManager) => Promise<void>
    },
  ): Promise<Published> {
    return this.#locked<Published>(id, null, async (manager, row) => {
      if (!row) return { outcome: 'no-draft' }
      if (row.state !== 'open') return { outcome: 'closed' }
      if (row.revision !== revision) return { outcome: 'moved' }
      // Of two that are published at once the second is judged by what the first one left.
      await manager.query('SELECT id FROM firm WHERE id = ? FOR UPDATE', [this.firmId])
      const judged = await work.judge(documentOf(await this.#rows(manager, id)), manager)
      if (!('entry' in judged)) return { outcome: 'invalid', problems: judged }
      await work.keep(judged, manager)
      await manager.update(
        Draft,
        { firmId: this.firmId, id },
        {
          state: 'published',
          entryId: judged.entry.id,
          hash: judged.hash,
          why,
          changedBy: by,
          changedAt: now,
        },
      )
      return { outcome: 'published', kept: judged }
    })
  }

  /** Puts a draft aside for good; whether there was one at work. */
  async drop(id: string, by: string, now: Date): Promise<boolean> {
    const result = await this.source
      .getRepository(Draft)
      .update({ firmId: this.firmId, id, state: 'open' }, { state: 'dropped', changedBy: by, changedAt: now })
    return (result.affected ?? 0) > 0
  }

  async #locked<T>(
    id: string,
    create: { readonly now: Date; readonly by: string } | null,
    work: (manager: EntityManager, row: DraftRow | null) => Promise<T>,
  ): Promise<T> {
    const find = (manager: EntityManager): Promise<DraftRow | null> =>
      manager.findOne(Draft, { where: { firmId: this.firmId, id }, lock: { mode: 'pessimistic_write' } })
    return retrying(() =>
      this.source.transaction(async (manager) => {
        let row = await find(manager)
        if (!row && create) {
          await manager
            .insert(Draft, {
              ...{ firmId: this.firmId, id, revision: 0, kind: '', name: '', corrects: null, state: 'open' },
              ...{
                entryId: null,
                hash: null,
                why: '',
                changedBy: create.by,
                createdAt: create.now,
                changedAt: create.now,
              },
            })
            .catch((error: unknown) => {
              // Begun twice at once: the other one's row is there now.
              if (!isDuplicate(error)) throw error
            })
          row = await find(manager)
        }
        return work(manager, row)
      }),
    )
  }

  async #rows(manager: EntityManager, id: string): Promise<DraftEditRow[]> {
    return manager.find(DraftEdit, {
      where: { firmId: this.firmId, draftId: id },
      order: { revision: 'ASC' },
    })
  }
}

function documentOf(rows: readonly DraftEditRow[]): DraftDocument {
  return draftKernel.replay(
    rows.map((row) => ({
      revision: row.revision,
      edit: JSON.parse(row.body) as Edit,
      takenAt: row.takenAt.toISOString(),
    })),
  )
}

/** What the list shows of a draft. */
function headOf(doc: DraftDocument): Pick<DraftRow, 'kind' | 'name' | 'corrects'> {
  const info = draftInfo(doc)
  const name = doc.records['answer:name']
  const text = name?.type === 'answer' && typeof name.value === 'string' ? name.value : ''
  return { kind: info?.kind ?? '', name: text.slice(0, 120), corrects: info?.corrects ?? null }
}
