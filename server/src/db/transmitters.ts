import type { DataSource, EntityManager } from 'typeorm'
import { serialsOf, type JobDocument } from '#core'
import { Transmitter } from './entities.ts'

/** Where an ID is used: the ID and the name of the job. */
export interface Use {
  readonly serial: string
  readonly job: string
}

/** Which transmitter IDs a firm's jobs use: rows derived from the documents, for looking IDs up. */
export class TransmitterRows {
  constructor(
    readonly source: DataSource,
    readonly firmId: string,
  ) {}

  /** The firm's other jobs that use one of a document's serials. */
  async elsewhereOf(jobId: string, document: JobDocument): Promise<Use[]> {
    return this.elsewhere(jobId, [...serialsOf(document)])
  }

  /**
   * Other jobs of the firm that use this very ID, or one that is nearly it: a sign off, or two neighbours swapped. For an ID that
   * was heard or typed and is of no device here yet.
   */
  async around(jobId: string, serial: string): Promise<Use[]> {
    const swapped = Array.from(
      { length: serial.length - 1 },
      (_, at) => serial.slice(0, at) + serial.charAt(at + 1) + serial.charAt(at) + serial.slice(at + 2),
    )
    const offByOne = Array.from(serial, (_, at) => `${serial.slice(0, at)}_${serial.slice(at + 1)}`)
    return this.source.query(
      `SELECT t.serial AS serial, job.name AS job FROM transmitter t
       JOIN job ON job.firm_id = t.firm_id AND job.id = t.job_id
       WHERE t.firm_id = ? AND t.job_id <> ? AND (t.serial IN (?) OR ${offByOne.map(() => 't.serial LIKE ?').join(' OR ')})
       ORDER BY t.serial = ? DESC, t.serial LIMIT 20`,
      [this.firmId, jobId, [serial, ...swapped], ...offByOne, serial],
    )
  }

  /** Jobs of this firm, other than `jobId`, that use one of these serials: serial → job name. */
  async elsewhere(jobId: string, serials: readonly string[]): Promise<Use[]> {
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

  /** The IDs that a job's rows hold. */
  async of(jobId: string): Promise<string[]> {
    const rows = await this.source.getRepository(Transmitter).findBy({ firmId: this.firmId, jobId })
    return rows.map((row) => row.serial)
  }

  /** Makes a job's rows anew from its document. */
  async make(manager: EntityManager, jobId: string, document: JobDocument): Promise<void> {
    await manager.delete(Transmitter, { firmId: this.firmId, jobId })
    await this.#add(manager, jobId, serialsOf(document))
  }

  /** Brings a job's rows from one document to another: only the difference is written. */
  async keep(manager: EntityManager, jobId: string, before: JobDocument, after: JobDocument): Promise<void> {
    const had = serialsOf(before)
    const has = serialsOf(after)
    const gone = [...had].filter((serial) => !has.has(serial))
    for (const serial of gone) await manager.delete(Transmitter, { firmId: this.firmId, jobId, serial })
    await this.#add(manager, jobId, new Set([...has].filter((serial) => !had.has(serial))))
  }

  async #add(manager: EntityManager, jobId: string, serials: ReadonlySet<string>): Promise<void> {
    if (serials.size === 0) return
    await manager.insert(
      Transmitter,
      [...serials].map((serial) => ({ firmId: this.firmId, jobId, serial })),
    )
  }
}
