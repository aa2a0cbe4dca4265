import type { DataSource } from 'typeorm'
import type { Helped } from '#core'

/** A job that wants to be summed up anew, and what by. */
export interface StaleJob {
  readonly firmId: string
  readonly id: string
  /** Revision of the firm's house rules. */
  readonly rules: number
}

/** How long a process that took a job on has to sum it up; then another may. */
const CLAIM_MS = 60_000

const stale = `(job.summary_revision <> job.revision OR job.summary_rules <> firm.rules_revision OR job.summary_build <> ?
  OR job.summary_due <= ?)`

/** Which jobs' summaries are old, over all firms; several processes share the work without doing any of it twice. */
export class SummaryRows {
  constructor(
    readonly source: DataSource,
    readonly build: string,
  ) {}

  /** Takes on up to `limit` jobs whose summary is old and that nobody else has taken on, the latest changed first. */
  async claim(limit: number, now: Date): Promise<StaleJob[]> {
    const rows = await this.source.query<StaleJob[]>(
      `SELECT job.firm_id AS firmId, job.id AS id, firm.rules_revision AS rules
       FROM job JOIN firm ON firm.id = job.firm_id
       WHERE ${stale} AND (job.claimed_until IS NULL OR job.claimed_until <= ?)
       ORDER BY job.changed_at DESC LIMIT ${limit}`,
      [this.build, now, now],
    )
    const mine: StaleJob[] = []
    for (const row of rows) {
      const { affectedRows } = await this.source.query<{ affectedRows: number }>(
        'UPDATE job SET claimed_until = ? WHERE firm_id = ? AND id = ? AND (claimed_until IS NULL OR claimed_until <= ?)',
        [new Date(now.getTime() + CLAIM_MS), row.firmId, row.id, now],
      )
      if (affectedRows === 1) mine.push(row)
    }
    return mine
  }

  /** Keeps what the job list shows, unless one of a later revision is kept already; the job is free again. */
  async keep(
    { firmId, id, rules }: StaleJob,
    made: { readonly revision: number; readonly summary: unknown; readonly due: Date | null },
  ): Promise<void> {
    await this.source.query(
      `UPDATE job SET summary = ?, summary_revision = ?, summary_rules = ?, summary_build = ?, summary_due = ?, claimed_until = NULL
       WHERE firm_id = ? AND id = ? AND (summary_revision <= ? OR summary_build <> ?)`,
      [
        JSON.stringify(made.summary),
        made.revision,
        rules,
        this.build,
        made.due,
        firmId,
        id,
        made.revision,
        this.build,
      ],
    )
  }

  /**
   * What made devices heard in the firm's other jobs of the same kind, practice or real, added up by model and rung. Of a job that
   * waits to be summed up anew it is what was so before.
   */
  async helped(firmId: string, jobId: string): Promise<Helped[]> {
    const rows = await this.source.query<{ summary: string }[]>(
      `SELECT other.summary AS summary FROM job JOIN job other
         ON other.firm_id = job.firm_id AND other.id <> job.id AND other.practice = job.practice
       WHERE job.firm_id = ? AND job.id = ? AND other.summary LIKE '%"helped":[{%'`,
      [firmId, jobId],
    )
    const sums = new Map<string, Helped>()
    for (const { summary } of rows)
      for (const one of (JSON.parse(summary) as { readonly helped: readonly Helped[] }).helped) {
        const key = `${one.model} ${one.rung}`
        sums.set(key, { ...one, times: one.times + (sums.get(key)?.times ?? 0) })
      }
    return [...sums.values()]
  }

  /** Gives a job back that could not be summed up now. */
  async release({ firmId, id }: StaleJob, until: Date): Promise<void> {
    await this.source.query('UPDATE job SET claimed_until = ? WHERE firm_id = ? AND id = ?', [
      until,
      firmId,
      id,
    ])
  }

  /** How many jobs of a firm wait for it. */
  async waiting(firmId: string, now: Date): Promise<number> {
    const [row] = await this.source.query<{ count: string | number }[]>(
      `SELECT COUNT(*) AS count FROM job JOIN firm ON firm.id = job.firm_id WHERE job.firm_id = ? AND ${stale}`,
      [firmId, this.build, now],
    )
    return Number(row?.count ?? 0)
  }
}
