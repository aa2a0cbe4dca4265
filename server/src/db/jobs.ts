import type { DataSource, EntityManager } from 'typeorm'
import {
  applyOps,
  emptyDocument,
  jobInfo,
  replay,
  SCHEMA,
  upgraded,
  UPGRADE,
  upgradeOps,
  type Conflict,
  type Edit,
  type JobDocument,
  type JournalEntry,
  type Person,
  type Problem,
  type UndoStacks,
} from '#core'
import type { Batches } from './batches.ts'
import type { DocumentCache } from './cache.ts'
import { Job, JobSnapshot, type JobRow } from './entities.ts'
import { JournalRows } from './journal-rows.ts'
import type { Later } from './later.ts'
import { isDuplicate, retrying } from './retry.ts'
import { TransmitterRows } from './transmitters.ts'

/** How many edits lie between two snapshots: a whole snapshot per edit costs more than replaying a short tail. */
const SNAPSHOT_EVERY = 20

/** A conflict with the colleague's name and time, where the journal knows them. */
export interface NamedConflict extends Conflict {
  readonly who: string | null
  readonly when: string | null
}

/** What became of an edit. */
export type Taken =
  | { readonly outcome: 'taken'; readonly entry: JournalEntry }
  | { readonly outcome: 'conflict'; readonly conflict: NamedConflict }
  | { readonly outcome: 'invalid'; readonly problems: readonly Problem[] }
  | { readonly outcome: 'no-job' }

/** An edit to be taken, and when; with `create`, a job that is not there is begun by it. */
export interface Take {
  readonly edit: Edit
  readonly now: Date
  readonly create: boolean
  /** Asked on the locked head, before the edit is taken: what stands against it. */
  readonly guard?: (head: JobDocument) => Promise<readonly Problem[]>
}

/** A job’s head, locked or read. */
export interface JobHead {
  readonly revision: number
  readonly document: JobDocument
}

/** A job in the list. */
export interface JobListRow {
  readonly id: string
  readonly revision: number
  readonly name: string
  readonly address: string
  readonly practice: boolean
  readonly summary: string
  /** Whether the summary is of this revision, by the house rules and the build given. */
  readonly fresh: boolean
  readonly changedAt: string
  /** Who made the latest change. */
  readonly changedBy: string
}

/** A job as text, for whoever parses it elsewhere: a snapshot, and the journal behind it. */
export interface JobText {
  readonly revision: number
  /** JSON of the document at the snapshot; null where the journal begins from nothing. */
  readonly snapshot: string | null
  /** JSON of the journal entries behind it, in order. */
  readonly tail: readonly string[]
}

/** What a summary must be made by to count as fresh. */
export interface SummaryBasis {
  readonly rules: number
  readonly build: string
  readonly now: Date
}

/** The jobs of one firm; another firm's job is simply not there. */
export class JobStore {
  readonly #journal: JournalRows
  /** Which IDs the firm's jobs use. */
  readonly transmitters: TransmitterRows

  constructor(
    readonly source: DataSource,
    readonly firmId: string,
    readonly cache: DocumentCache,
    readonly takes: Batches<Take, Taken>,
    readonly later: Later,
  ) {
    this.#journal = new JournalRows(firmId)
    this.transmitters = new TransmitterRows(source, firmId)
  }

  /** Jobs by last change, newest first, found by name, address or serial; empty text finds all. */
  async list(text: string, limit: number, basis: SummaryBasis): Promise<JobListRow[]> {
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
    const rows = await query.getMany()
    const makers = await this.#lastMakers(rows)
    return rows.map((row) => ({ ...listRow(row, basis), changedBy: makers.get(row.id) ?? '' }))
  }

  /** Who made the latest change of each job. */
  async #lastMakers(rows: readonly JobRow[]): Promise<ReadonlyMap<string, string>> {
    if (rows.length === 0) return new Map()
    const last: { id: string; name: string }[] = await this.source.query(
      `SELECT e.job_id AS id, e.made_by AS name FROM job_edit e
         JOIN job j ON j.firm_id = e.firm_id AND j.id = e.job_id AND j.revision = e.revision
        WHERE e.firm_id = ? AND e.job_id IN (?)`,
      [this.firmId, rows.map(({ id }) => id)],
    )
    return new Map(last.map(({ id, name }) => [id, name]))
  }

  /** Whether this firm has the job, and at which revision; null when it has none. */
  async revision(jobId: string): Promise<number | null> {
    const row = await this.source
      .getRepository(Job)
      .findOne({ where: { firmId: this.firmId, id: jobId }, select: { id: true, revision: true } })
    return row?.revision ?? null
  }

  /** The document as of now in the shapes in force, or null when this firm has no such job. */
  async head(jobId: string): Promise<JobHead | null> {
    const revision = await this.revision(jobId)
    if (revision === null) return null
    const document = await this.#documentAt(this.source.manager, jobId, revision)
    return { revision, document: upgraded(document) }
  }

  /** The job as text, unparsed: a snapshot and what was journalled behind it; null when this firm has no such job. */
  async text(jobId: string): Promise<JobText | null> {
    const revision = await this.revision(jobId)
    if (revision === null) return null
    const snapshot = await this.#snapshotRow(this.source.manager, jobId, revision)
    const tail = await this.#journal.texts(this.source.manager, jobId, snapshot?.revision ?? 0, revision)
    return { revision, snapshot: snapshot?.document ?? null, tail }
  }

  /** Journal entries after a revision, oldest first. */
  async editsSince(jobId: string, since: number, limit = 5000): Promise<JournalEntry[]> {
    return this.#journal.since(this.source.manager, jobId, since, limit)
  }

  /** Journal entries before a revision, newest first; with `about`, those that touch one of these records. */
  async editsBefore(
    jobId: string,
    before: number,
    limit: number,
    about: readonly string[],
  ): Promise<JournalEntry[]> {
    return this.#journal.before(this.source.manager, jobId, before, limit, about)
  }

  /** What a person can take back and bring back; `more` when there is more than is given. */
  async undoStacks(
    jobId: string,
    who: Person & { readonly id: string },
  ): Promise<UndoStacks & { readonly more: boolean }> {
    return this.#journal.undoStacks(this.source.manager, jobId, who)
  }

  /** One journalled edit by its id, or null when this job has none of it. */
  async editOf(jobId: string, editId: string): Promise<Edit | null> {
    return (await this.#journal.known(this.source.manager, jobId, editId))?.edit ?? null
  }

  /**
   * Takes one edit onto the head, all or nothing. An edit id known already gets its first answer again.
   * With `create`, a job that is not there is begun by this edit. Edits that wait for the same job go into one transaction.
   */
  async take(jobId: string, take: Take): Promise<Taken> {
    return this.takes.add(this.#key(jobId), take, async (takes) => {
      const { answers, head, due } = await retrying(() =>
        this.source.transaction((manager) => this.#takeLocked(manager, jobId, takes)),
      )
      if (head) this.cache.set(this.#key(jobId), head.revision, head.document)
      // Nobody waits for a snapshot: without it the journal's tail is longer, and the next one makes up for it.
      for (const snapshot of due) this.later.add(this.#snapshot(jobId, snapshot))
      return answers
    })
  }

  /** The job's name for a file, with a word where it is practice; null when this firm has no such job. */
  async titleOf(jobId: string): Promise<string | null> {
    const row = await this.source.getRepository(Job).findOne({
      where: { firmId: this.firmId, id: jobId },
      select: { id: true, name: true, practice: true },
    })
    return row ? `${row.name}${row.practice ? ' practice' : ''}` : null
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
          const document = upgraded(await this.#documentAt(manager, id, row.revision))
          await this.transmitters.make(manager, id, document)
        }),
      )
    return jobs.length
  }

  /** Takes a job out with its journal; only a demo that is loaded anew is ever taken out. */
  async drop(jobId: string): Promise<void> {
    await this.source.transaction(async (manager) => {
      for (const table of ['transmitter', 'job_snapshot', 'job_edit'])
        await manager.query(`DELETE FROM ${table} WHERE firm_id = ? AND job_id = ?`, [this.firmId, jobId])
      await manager.query('DELETE FROM job WHERE firm_id = ? AND id = ?', [this.firmId, jobId])
    })
    this.cache.drop(this.#key(jobId))
  }

  /** Ids of the firm's jobs. */
  async ids(): Promise<string[]> {
    const rows = await this.source
      .getRepository(Job)
      .find({ where: { firmId: this.firmId }, select: { id: true }, order: { id: 'ASC' } })
    return rows.map((row) => row.id)
  }

  /** What the journal replays to, what is kept, and the look-up rows; `failed` says what could not even be read. */
  async prove(jobId: string): Promise<{
    readonly revision: number
    readonly replayed: JobDocument
    readonly kept: JobDocument
    readonly serials: readonly string[]
    readonly failed: string | null
  }> {
    const { manager } = this.source
    const row = await this.source.getRepository(Job).findOneByOrFail({ firmId: this.firmId, id: jobId })
    const { revision } = row
    const serials = await this.transmitters.of(jobId)
    try {
      const entries = await this.#journal.since(manager, jobId, 0, revision + 1)
      const snapshot = await this.#newestSnapshot(manager, jobId, revision)
      const gap = entries.findIndex((entry, index) => entry.revision !== index + 1)
      if (gap >= 0 || entries.length !== revision) throw new RangeError('its journal has a gap')
      const kept = replay(entries.slice(snapshot.revision), snapshot.document)
      return { revision, replayed: replay(entries), kept, serials, failed: null }
    } catch (error) {
      const failed = error instanceof Error ? error.message : String(error)
      return { revision, replayed: emptyDocument, kept: emptyDocument, serials, failed }
    }
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
    let head = start && (await this.#upgraded(manager, jobId, start, takes[0]?.now ?? new Date()))
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
      const { name, address, practice } = jobInfo(head.document)
      await manager.query(
        'UPDATE job SET revision = ?, name = ?, address = ?, practice = ?, changed_at = GREATEST(changed_at, ?) WHERE firm_id = ? AND id = ?',
        [head.revision, name, address, practice, takes.at(-1)?.now, this.firmId, jobId],
      )
      await this.transmitters.keep(manager, jobId, upgraded(start.document), head.document)
    }
    return { answers, head, due }
  }

  /**
   * The head in the shapes in force. An older one is brought there once, as an entry of its own with ordinary ops and a
   * snapshot; nothing behind it is rewritten.
   */
  async #upgraded(manager: EntityManager, jobId: string, head: JobHead, now: Date): Promise<JobHead> {
    const document = upgraded(head.document)
    if (document === head.document || head.revision === 0) return { ...head, document }
    const revision = head.revision + 1
    const edit: Edit = {
      id: `upgrade-${SCHEMA}-at-${revision}`,
      kind: UPGRADE,
      schema: SCHEMA,
      by: { id: null, name: 'Kapelle' },
      madeAt: now.toISOString(),
      ops: upgradeOps(head.document, document),
    }
    await this.#journal.add(manager, jobId, { revision, edit, takenAt: now.toISOString() }, now)
    await this.#keepSnapshot(manager, jobId, { revision, document })
    return { revision, document }
  }

  /** Takes one edit onto `head` and journals it; the document is null when nothing came of it. */
  async #takeOne(
    manager: EntityManager,
    jobId: string,
    { edit, now, guard }: Take,
    head: JobHead,
  ): Promise<{ readonly answer: Taken; readonly document: JobDocument | null }> {
    const refuse = async (refusal: () => Promise<Taken>) => {
      const known = await this.#journal.known(manager, jobId, edit.id)
      return {
        answer: known ? ({ outcome: 'taken', entry: known } as const) : await refusal(),
        document: null,
      }
    }
    const problems = (await guard?.(head.document)) ?? []
    if (problems.length > 0) return refuse(() => Promise.resolve({ outcome: 'invalid', problems }))
    const result = applyOps(head.document, edit.ops)
    if (!result.ok)
      return refuse(async () => ({
        outcome: 'conflict',
        conflict: await this.#named(manager, jobId, result.conflict),
      }))
    const entry: JournalEntry = {
      revision: head.revision + 1,
      edit: { ...edit, ops: result.took },
      takenAt: now.toISOString(),
    }
    try {
      await this.#journal.add(manager, jobId, entry, now)
    } catch (error) {
      if (!isDuplicate(error)) throw error
      const known = await this.#journal.known(manager, jobId, edit.id)
      if (!known) throw error
      return { answer: { outcome: 'taken', entry: known }, document: null }
    }
    return { answer: { outcome: 'taken', entry }, document: result.doc }
  }

  // What every edit asks is written out: building it anew each time cost more than running it.
  async #lock(manager: EntityManager, jobId: string): Promise<{ readonly revision: number } | null> {
    const rows = await manager.query<{ revision: number }[]>(
      'SELECT revision FROM job WHERE firm_id = ? AND id = ? FOR UPDATE',
      [this.firmId, jobId],
    )
    return rows[0] ?? null
  }

  async #begin(manager: EntityManager, jobId: string, now: Date): Promise<{ readonly revision: number }> {
    const row: JobRow = {
      firmId: this.firmId,
      id: jobId,
      revision: 0,
      name: '',
      address: '',
      practice: false,
      summary: '{}',
      summaryRevision: 0,
      summaryRules: 0,
      summaryBuild: '',
      summaryDue: null,
      claimedUntil: null,
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
    const tail = await this.#journal.since(manager, jobId, start.revision, revision - start.revision)
    const document = replay(tail, start.document)
    this.cache.set(this.#key(jobId), revision, document)
    return document
  }

  async #newestSnapshot(manager: EntityManager, jobId: string, revision: number): Promise<JobHead> {
    const row = await this.#snapshotRow(manager, jobId, revision)
    if (!row) return { revision: 0, document: emptyDocument }
    return { revision: row.revision, document: JSON.parse(row.document) as JobDocument }
  }

  async #snapshotRow(manager: EntityManager, jobId: string, revision: number) {
    return manager
      .createQueryBuilder(JobSnapshot, 's')
      .where('s.firmId = :firm AND s.jobId = :job AND s.revision <= :revision', {
        firm: this.firmId,
        job: jobId,
        revision,
      })
      .orderBy('s.revision', 'DESC')
      .limit(1)
      .getOne()
  }

  async #named(manager: EntityManager, jobId: string, conflict: Conflict): Promise<NamedConflict> {
    const entry = await this.#journal.lastTouch(manager, jobId, conflict.id, conflict.field)
    return { ...conflict, who: entry?.edit.by.name ?? null, when: entry?.takenAt ?? null }
  }

  /** Keeps a snapshot and the one before it. */
  async #snapshot(jobId: string, head: JobHead): Promise<void> {
    await this.source.transaction((manager) => this.#keepSnapshot(manager, jobId, head))
  }

  async #keepSnapshot(manager: EntityManager, jobId: string, { revision, document }: JobHead): Promise<void> {
    await manager.query(
      'INSERT IGNORE INTO job_snapshot (firm_id, job_id, revision, document) VALUES (?, ?, ?, ?)',
      [this.firmId, jobId, revision, JSON.stringify(document)],
    )
    await manager.query('DELETE FROM job_snapshot WHERE firm_id = ? AND job_id = ? AND revision < ?', [
      this.firmId,
      jobId,
      revision - SNAPSHOT_EVERY,
    ])
  }

  #key(jobId: string): string {
    return `${this.firmId}|${jobId}`
  }
}

function listRow(row: JobRow, basis: SummaryBasis): Omit<JobListRow, 'changedBy'> {
  const { id, revision, name, address, summary } = row
  const practice = Boolean(row.practice)
  const fresh =
    row.summaryRevision === revision &&
    row.summaryRules === basis.rules &&
    row.summaryBuild === basis.build &&
    (row.summaryDue === null || row.summaryDue > basis.now)
  return { id, revision, name, address, practice, summary, fresh, changedAt: row.changedAt.toISOString() }
}
