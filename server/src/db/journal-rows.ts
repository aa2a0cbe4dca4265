import type { EntityManager } from 'typeorm'
import {
  lastTouch,
  SCHEMA,
  undoStacks,
  UPGRADE,
  withMaker,
  type Edit,
  type JobRecord,
  type JournalEntry,
  type Person,
  type UndoStacks,
} from '#core'
import { JobEdit, type JobEditRow } from './entities.ts'

/** How many undo steps are given at most. */
const UNDO_STEPS = 50

/** The journal of a firm's jobs as rows: entries come out as they were written, of whatever number of shapes. */
export class JournalRows {
  constructor(readonly firmId: string) {}

  async add(manager: EntityManager, jobId: string, entry: JournalEntry, takenAt: Date): Promise<void> {
    const { id, kind, by } = entry.edit
    await manager.query(
      'INSERT INTO job_edit (firm_id, job_id, revision, edit_id, kind, made_by, made_by_id, taken_at, body) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
      [this.firmId, jobId, entry.revision, id, kind, by.name, by.id, takenAt, JSON.stringify(entry.edit)],
    )
  }

  /** Entries after a revision, oldest first. */
  async since(manager: EntityManager, jobId: string, since: number, limit: number): Promise<JournalEntry[]> {
    const rows = await this.#rows(manager, jobId)
      .andWhere('e.revision > :since', { since })
      .orderBy('e.revision', 'ASC')
      .limit(limit)
      .getMany()
    return rows.map(entryOf)
  }

  /** Entries after a revision up to another as JSON text, unparsed but for what stands around them. */
  async texts(manager: EntityManager, jobId: string, since: number, to: number): Promise<string[]> {
    const rows = await this.#rows(manager, jobId)
      .andWhere('e.revision > :since AND e.revision <= :to', { since, to })
      .orderBy('e.revision', 'ASC')
      .getMany()
    return rows.map(
      (row) =>
        `{"revision":${row.revision},"takenAt":${JSON.stringify(row.takenAt.toISOString())},"edit":${row.body}}`,
    )
  }

  /** Entries before a revision, newest first; with `about`, those that touch one of these records. */
  async before(
    manager: EntityManager,
    jobId: string,
    before: number,
    limit: number,
    about: readonly string[],
  ): Promise<JournalEntry[]> {
    const query = this.#rows(manager, jobId)
      .andWhere('e.revision < :before', { before })
      .orderBy('e.revision', 'DESC')
      .limit(limit)
    if (about.length > 0)
      query.andWhere(`(${about.map((_, index) => `e.body LIKE :about${index}`).join(' OR ')})`)
    about.forEach((id, index) => query.setParameter(`about${index}`, mentioning(id)))
    return (await query.getMany()).map(entryOf)
  }

  async known(manager: EntityManager, jobId: string, editId: string): Promise<JournalEntry | null> {
    const row = await manager.findOneBy(JobEdit, { firmId: this.firmId, jobId, editId })
    return row && entryOf(row)
  }

  /** The last entry that touched a record's field, or for field null the record as a whole; null when none did. */
  async lastTouch(
    manager: EntityManager,
    jobId: string,
    recordId: string,
    field: string | null,
  ): Promise<JournalEntry | null> {
    let before = Number.MAX_SAFE_INTEGER
    for (;;) {
      const page = await this.before(manager, jobId, before, 50, [recordId])
      const found = lastTouch<JobRecord>([...page].reverse(), recordId, field)
      const last = page.at(-1)
      if (found || !last) return found
      before = last.revision
    }
  }

  /**
   * What a person can take back and bring back, from their own latest entries: further back it is looked only while nothing
   * is left to undo. An upgrade ends it.
   */
  async undoStacks(
    manager: EntityManager,
    jobId: string,
    who: Person & { readonly id: string },
  ): Promise<UndoStacks & { readonly more: boolean }> {
    const floor = await this.#rows(manager, jobId)
      .andWhere('e.kind = :kind', { kind: UPGRADE })
      .select('MAX(e.revision)', 'revision')
      .getRawOne<{ revision: number | null }>()
    for (let size = 4 * UNDO_STEPS; ; size *= 4) {
      const rows = await this.#rows(manager, jobId)
        .andWhere('e.madeById = :who AND e.revision > :floor', { who: who.id, floor: floor?.revision ?? 0 })
        .orderBy('e.revision', 'DESC')
        .limit(size)
        .getMany()
      const entries = rows.map(entryOf).filter((entry) => entry.edit.schema === SCHEMA)
      const { undo, redo } = undoStacks(entries.reverse(), who)
      const whole = rows.length < size
      if (undo.length < UNDO_STEPS && !whole) continue
      const more = undo.length > UNDO_STEPS || redo.length > UNDO_STEPS || !whole
      return { undo: undo.slice(-UNDO_STEPS), redo: redo.slice(-UNDO_STEPS), more }
    }
  }

  #rows(manager: EntityManager, jobId: string) {
    return manager
      .createQueryBuilder(JobEdit, 'e')
      .where('e.firmId = :firm AND e.jobId = :job', { firm: this.firmId, job: jobId })
  }
}

/** A pattern for a body that names this record. */
function mentioning(recordId: string): string {
  return `%"${recordId.replace(/[\\%_]/g, (sign) => `\\${sign}`)}"%`
}

/** The entry as it was written: its shapes are raised in memory, never in the row. */
function entryOf(row: JobEditRow): JournalEntry {
  const edit = withMaker<JobRecord>(JSON.parse(row.body) as Edit)
  return { revision: row.revision, edit, takenAt: row.takenAt.toISOString() }
}
