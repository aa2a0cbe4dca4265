import type { DataSource, EntityManager } from 'typeorm'
import {
  applyOps,
  emptyDocument,
  jobInfo,
  lastTouch,
  replay,
  serialsOf,
  upgradeDocument,
  upgradeEdit,
  type Conflict,
  type Edit,
  type JobDocument,
  type JournalEntry,
} from '#core'
import type { Batches } from './batches.ts'
import type { DocumentCache } from './cache.ts'
import { Job, JobEdit, JobSnapshot, Transmitter, type JobEditRow, type JobRow } from './entities.ts'
import type { Later } from './later.ts'
import { isDuplicate, retrying } from './retry.ts'

/** How many edits lie between two snapshots: a whole snapshot per edit costs more than replaying a short tail. */
export const SNAPSHOT_EVERY = 20

/** A conflict with the colleague's name and time, where the journal knows them. */
export interface NamedConflict extends Conflict {
  readonly who: string | null
  readonly when: string | null
}

export type Taken =
  | { readonly outcome: 'taken'; readonly entry: JournalEntry }
  | { readonly outcome: 'conflict'; readonly conflict: NamedConflict }
  | { readonly outcome: 'no-job' }

/** An edit to be taken, and when; with `create`, a job that is not there is begun by it. */
export interface Take {
  readonly edit: Edit
  readonly now: Date
  readonly create: boolean
}

export interface JobHead {
  readonly revision: number
  readonly document: JobDocument
}

export interface JobListRow {
  readonly id: string
  readonly revision: number
  readonly name: string
  readonly address: string
  readonly summary: string
  readonly summaryRevision: number
  readonly changedAt: string
}

/** The jobs of one firm; another firm's job is simply not there. */
export class JobStore {
  constructor(
    readonly source: DataSource,
    readonly firmId: string,
    readonly cache: DocumentCache,
    readonly takes: Batches<Take, Taken>,
    readonly later: Later,
  ) {}

  /** Jobs by last change, newest first, found by name, address or serial; empty text finds all. */
  async list(text: string, limit: number): Promise<JobListRow[]> {
    const query = this.source
      .getRepository(Job)
      .createQueryBuilder('job')
      .where('job.firmId = :firm', { firm: this.firmId })
      .orderBy('job.changedAt', 'DESC')
      .addOrderBy('job.id', 'ASC')
      .limit(limit)
    if (text !== '') {
      const like = `%${text.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`
      const serial = text.replace(/[\s-]/g, '').toUpperCase()
      query.andWhere(
        `(job.name LIKE :like OR job.address LIKE :like OR job.id IN
          (SELECT t.job_id FROM transmitter t WHERE t.firm_id = :firm AND t.serial LIKE :serial))`,
        { like, serial: `${serial.replace(/[^0-9A-Z]/g, '') || '-'}%` },
      )
    }
    return (await query.getMany()).map(listRow)
  }

  /** The document as of now, or null when this firm has no such job. */
  async head(jobId: string): Promise<JobHead | null> {
    const row = await this.source.getRepository(Job).findOneBy({ firmId: this.firmId, id: jobId })
    if (!row) return null
    return {
      revision: row.revision,
      document: await this.#documentAt(this.source.manager, jobId, row.revision),
    }
  }

  /** Journal entries after a revision, oldest first. */
  async editsSince(jobId: string, since: number, limit = 5000): Promise<JournalEntry[]> {
    return this.#entries(this.source.manager, jobId, since, limit)
  }

  /** One journalled edit by its id, or null when this job has none of it. */
  async editOf(jobId: string, editId: string): Promise<Edit | null> {
    return (await this.#known(this.source.manager, jobId, editId))?.edit ?? null
  }

  /**
   * Takes one edit onto the head, all or nothing. An edit id known already gets its first answer again.
   * With `create`, a job that is not there is begun by this edit. Edits that wait for the same job go into one transaction.
   */
  async take(jobId: string, edit: Edit, now: Date, create = false): Promise<Taken> {
    return this.takes.add(this.#key(jobId), { edit, now, create }, async (takes) => {
      const { answers, head, due } = await retrying(() =>
        this.source.transaction((manager) => this.#takeLocked(manager, jobId, takes)),
      )
      if (head) this.cache.set(this.#key(jobId), head.revision, head.document)
      // Nobody waits for a snapshot: without it the journal's tail is longer, and the next one makes up for it.
      for (const snapshot of due) this.later.add(this.#snapshot(jobId, snapshot))
      return answers
    })
  }

  /** Keeps what the job list shows, unless a newer one is kept already. */
  async keepSummary(jobId: string, revision: number, summary: unknown): Promise<void> {
    await this.source
      .createQueryBuilder()
      .update(Job)
      .set({ summary: JSON.stringify(summary), summaryRevision: revision })
      .where('firmId = :firm AND id = :job AND summaryRevision <= :revision', {
        firm: this.firmId,
        job: jobId,
        revision,
      })
      .execute()
  }

  /** Jobs of this firm, other than `jobId`, that use one of these serials: serial → job name. */
  async elsewhere(jobId: string, serials: readonly string[]): Promise<{ serial: string; job: string }[]> {
    if (serials.length === 0) return []
    return this.source
      .getRepository(Transmitter)
      .createQueryBuilder('t')
      .innerJoin('job', 'job', 'job.firm_id = t.firm_id AND job.id = t.job_id')
      .select('t.serial', 'serial')
      .addSelect('job.name', 'job')
      .where('t.firmId = :firm AND t.jobId <> :job AND t.serial IN (:...serials)', {
        firm: this.firmId,
        job: jobId,
        serials,
      })
      .getRawMany()
  }

  /** Makes the serial look-up of every job of this firm anew from its document. */
  async rebuildTransmitters(): Promise<number> {
    const jobs = await this.source
      .getRepository(Job)
      .find({ where: { firmId: this.firmId }, order: { id: 'ASC' } })
    for (const { id } of jobs)
      await retrying(() =>
        this.source.transaction(async (manager) => {
          const row = await this.#lock(manager, id)
          if (!row) return
          const document = await this.#documentAt(manager, id, row.revision)
          await manager.delete(Transmitter, { firmId: this.firmId, jobId: id })
          await this.#addSerials(manager, id, serialsOf(document))
        }),
      )
    return jobs.length
  }

  /** Takes edits in their order onto the locked head; each is answered for itself. Gives the head as it then is. */
  async #takeLocked(
    manager: EntityManager,
    jobId: string,
    takes: readonly Take[],
  ): Promise<{
    readonly answers: readonly Taken[]
    readonly head: JobHead | null
    /** Heads of which a snapshot is due. */
    readonly due: readonly JobHead[]
  }> {
    let row = await this.#lock(manager, jobId)
    let start = row && {
      revision: row.revision,
      document: await this.#documentAt(manager, jobId, row.revision),
    }
    let head = start
    const answers: Taken[] = []
    const due: JobHead[] = []
    for (const take of takes) {
      if (!head && take.create) {
        row = await this.#begin(manager, jobId, take.now)
        start = { revision: row.revision, document: await this.#documentAt(manager, jobId, row.revision) }
        head = start
      }
      if (!head) {
        answers.push({ outcome: 'no-job' })
        continue
      }
      const { answer, document } = await this.#takeOne(manager, jobId, take, head)
      answers.push(answer)
      if (!document || answer.outcome !== 'taken') continue
      head = { revision: answer.entry.revision, document }
      if (head.revision % SNAPSHOT_EVERY === 0) due.push(head)
    }
    if (start && head && head.revision > start.revision) {
      const { name, address } = jobInfo(head.document)
      await manager.query(
        'UPDATE job SET revision = ?, name = ?, address = ?, changed_at = ? WHERE firm_id = ? AND id = ?',
        [head.revision, name, address, takes.at(-1)?.now, this.firmId, jobId],
      )
      await this.#keepSerials(manager, jobId, start.document, head.document)
    }
    return { answers, head, due }
  }

  /** Takes one edit onto `head` and journals it; the document is null when nothing came of it. */
  async #takeOne(
    manager: EntityManager,
    jobId: string,
    { edit, now }: Take,
    head: JobHead,
  ): Promise<{ readonly answer: Taken; readonly document: JobDocument | null }> {
    const result = applyOps(head.document, edit.ops)
    if (!result.ok) {
      const known = await this.#known(manager, jobId, edit.id)
      const answer: Taken = known
        ? { outcome: 'taken', entry: known }
        : { outcome: 'conflict', conflict: await this.#named(manager, jobId, result.conflict) }
      return { answer, document: null }
    }
    const entry: JournalEntry = {
      revision: head.revision + 1,
      edit: { ...edit, ops: result.took },
      takenAt: now.toISOString(),
    }
    try {
      await this.#journal(manager, jobId, entry, now)
    } catch (error) {
      if (!isDuplicate(error)) throw error
      const known = await this.#known(manager, jobId, edit.id)
      if (!known) throw error
      return { answer: { outcome: 'taken', entry: known }, document: null }
    }
    return { answer: { outcome: 'taken', entry }, document: result.doc }
  }

  // The three statements every edit makes are written out: building them anew each time cost more than running them.
  async #lock(manager: EntityManager, jobId: string): Promise<{ readonly revision: number } | null> {
    const rows = await manager.query<{ revision: number }[]>(
      'SELECT revision FROM job WHERE firm_id = ? AND id = ? FOR UPDATE',
      [this.firmId, jobId],
    )
    return rows[0] ?? null
  }

  async #journal(manager: EntityManager, jobId: string, entry: JournalEntry, takenAt: Date): Promise<void> {
    const { id, kind, by } = entry.edit
    await manager.query(
      'INSERT INTO job_edit (firm_id, job_id, revision, edit_id, kind, made_by, taken_at, body) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      [this.firmId, jobId, entry.revision, id, kind, by, takenAt, JSON.stringify(entry.edit)],
    )
  }

  async #begin(manager: EntityManager, jobId: string, now: Date): Promise<{ readonly revision: number }> {
    const row: JobRow = {
      firmId: this.firmId,
      id: jobId,
      revision: 0,
      name: '',
      address: '',
      summary: '{}',
      summaryRevision: 0,
      createdAt: now,
      changedAt: now,
    }
    // Two requests may begin the same job at once: the second waits for the first and then finds the row.
    await manager.createQueryBuilder().insert().into(Job).values(row).orIgnore().execute()
    return (await this.#lock(manager, jobId)) ?? row
  }

  async #documentAt(manager: EntityManager, jobId: string, revision: number): Promise<JobDocument> {
    const kept = this.cache.get(this.#key(jobId))
    if (kept && kept.revision === revision) return kept.document
    const start =
      kept && kept.revision < revision ? kept : await this.#newestSnapshot(manager, jobId, revision)
    const tail = await this.#entries(manager, jobId, start.revision, revision - start.revision)
    const document = replay(tail, start.document)
    this.cache.set(this.#key(jobId), revision, document)
    return document
  }

  async #newestSnapshot(manager: EntityManager, jobId: string, revision: number): Promise<JobHead> {
    const row = await manager
      .createQueryBuilder(JobSnapshot, 's')
      .where('s.firmId = :firm AND s.jobId = :job AND s.revision <= :revision', {
        firm: this.firmId,
        job: jobId,
        revision,
      })
      .orderBy('s.revision', 'DESC')
      .limit(1)
      .getOne()
    if (!row) return { revision: 0, document: emptyDocument }
    const read = upgradeDocument(JSON.parse(row.document) as JobDocument)
    if (!read.ok) throw new Error(`snapshot ${jobId}@${row.revision}: ${read.reason}`)
    return { revision: row.revision, document: read.value }
  }

  async #entries(
    manager: EntityManager,
    jobId: string,
    since: number,
    limit: number,
  ): Promise<JournalEntry[]> {
    const rows = await manager
      .createQueryBuilder(JobEdit, 'e')
      .where('e.firmId = :firm AND e.jobId = :job AND e.revision > :since', {
        firm: this.firmId,
        job: jobId,
        since,
      })
      .orderBy('e.revision', 'ASC')
      .limit(limit)
      .getMany()
    return rows.map(entryOf)
  }

  async #known(manager: EntityManager, jobId: string, editId: string): Promise<JournalEntry | null> {
    const row = await manager.findOneBy(JobEdit, { firmId: this.firmId, jobId, editId })
    return row && entryOf(row)
  }

  async #named(manager: EntityManager, jobId: string, conflict: Conflict): Promise<NamedConflict> {
    const entry = lastTouch(await this.#entries(manager, jobId, 0, 100_000), conflict.id, conflict.field)
    return { ...conflict, who: entry?.edit.by ?? null, when: entry?.takenAt ?? null }
  }

  /** Keeps a snapshot and the one before it. */
  async #snapshot(jobId: string, { revision, document }: JobHead): Promise<void> {
    await this.source.transaction(async (manager) => {
      await manager.query(
        'INSERT IGNORE INTO job_snapshot (firm_id, job_id, revision, document) VALUES (?, ?, ?, ?)',
        [this.firmId, jobId, revision, JSON.stringify(document)],
      )
      await manager.query('DELETE FROM job_snapshot WHERE firm_id = ? AND job_id = ? AND revision < ?', [
        this.firmId,
        jobId,
        revision - SNAPSHOT_EVERY,
      ])
    })
  }

  async #keepSerials(
    manager: EntityManager,
    jobId: string,
    before: JobDocument,
    after: JobDocument,
  ): Promise<void> {
    const had = serialsOf(before)
    const has = serialsOf(after)
    const gone = [...had].filter((serial) => !has.has(serial))
    for (const serial of gone) await manager.delete(Transmitter, { firmId: this.firmId, jobId, serial })
    await this.#addSerials(manager, jobId, new Set([...has].filter((serial) => !had.has(serial))))
  }

  async #addSerials(manager: EntityManager, jobId: string, serials: ReadonlySet<string>): Promise<void> {
    if (serials.size === 0) return
    await manager.insert(
      Transmitter,
      [...serials].map((serial) => ({ firmId: this.firmId, jobId, serial })),
    )
  }

  #key(jobId: string): string {
    return `${this.firmId}|${jobId}`
  }
}

function entryOf(row: JobEditRow): JournalEntry {
  const read = upgradeEdit(JSON.parse(row.body) as Edit)
  if (!read.ok) throw new Error(`journal ${row.jobId}@${row.revision}: ${read.reason}`)
  return { revision: row.revision, edit: read.value, takenAt: row.takenAt.toISOString() }
}

function listRow(row: JobRow): JobListRow {
  const { id, revision, name, address, summary, summaryRevision } = row
  return { id, revision, name, address, summary, summaryRevision, changedAt: row.changedAt.toISOString() }
}
