import type { DataSource } from 'typeorm'
import { Attempt } from './entities.ts'
import { hashToken } from './people.ts'

/** What failed attempts are counted by, and how many are free before the waiting begins. */
export interface AttemptKey {
  readonly key: string
  readonly free: number
}

/** The first wait, and the longest, milliseconds: it doubles with each failure. */
const FIRST_MS = 1_000
const LONGEST_MS = 15 * 60_000
/** After so long without a failure the count begins anew, milliseconds. */
const FORGET_MS = 60 * 60_000

/** Failed attempts, counted in the database so that several processes count together. */
export class AttemptStore {
  constructor(readonly source: DataSource) {}

  /** How long an attempt must still wait, milliseconds; 0 for not at all. */
  async wait(keys: readonly AttemptKey[], now: Date): Promise<number> {
    const hashes = keys.map(({ key }) => hashToken(key))
    const rows = await this.source
      .getRepository(Attempt)
      .createQueryBuilder('attempt')
      .where('attempt.keyHash IN (:...hashes)', { hashes })
      .getMany()
    const waits = rows.map((row) => {
      const free = keys[hashes.indexOf(row.keyHash)]?.free ?? 0
      return row.changedAt.getTime() + waitAfter(row.failures - free) - now.getTime()
    })
    return Math.max(0, ...waits)
  }

  /** Counts a failure. */
  async failed(keys: readonly AttemptKey[], now: Date): Promise<void> {
    const old = new Date(now.getTime() - FORGET_MS)
    await this.source.query('DELETE FROM attempt WHERE changed_at < ?', [old])
    for (const { key } of keys)
      await this.source.query(
        `INSERT INTO attempt (key_hash, failures, changed_at) VALUES (?, 1, ?)
         ON DUPLICATE KEY UPDATE failures = failures + 1, changed_at = VALUES(changed_at)`,
        [hashToken(key), now],
      )
  }

  /** Forgets the failures of one key, after somebody was right. */
  async forget({ key }: AttemptKey): Promise<void> {
    await this.source.getRepository(Attempt).delete({ keyHash: hashToken(key) })
  }
}

/** The wait after so many failures beyond the free ones, milliseconds. */
export function waitAfter(beyond: number): number {
  return beyond < 0 ? 0 : Math.min(LONGEST_MS, FIRST_MS * 2 ** beyond)
}
