import { randomBytes } from 'node:crypto'
import type { DataSource, EntityManager } from 'typeorm'
import type { Role } from '#core'
import { Link, type LinkKind } from './entities.ts'
import { hashToken } from './people.ts'

export type { LinkKind }
/** A transaction that others' work joins. */
export type Transaction = EntityManager

/** A link that works once: what it is for and whom it leads to. */
export interface OneLink {
  readonly kind: LinkKind
  readonly firmId: string | null
  readonly personId: string | null
  readonly role: Role
  /** A word on whom it is for. */
  readonly name: string
  readonly expiresAt: Date
}

/** Links that work once, kept by the hash of their token: a copy of the database lets nobody in. */
export class LinkStore {
  constructor(readonly source: DataSource) {}

  /** Makes a link and gives its token. One for a person, and the set-up link, replaces the one before. */
  async make(link: OneLink, now: Date): Promise<string> {
    const token = randomBytes(24).toString('base64url')
    await this.source.transaction(async (manager) => {
      await manager.query('DELETE FROM link WHERE expires_at <= ?', [now])
      if (link.kind === 'set-up') await manager.delete(Link, { kind: 'set-up' })
      if (link.personId !== null) await manager.delete(Link, { kind: link.kind, personId: link.personId })
      await manager.insert(Link, { ...link, tokenHash: hashToken(token), createdAt: now })
    })
    return token
  }

  /** What a token's link is for, while it works. */
  async look(token: string, now: Date): Promise<OneLink | null> {
    const row = await this.source.getRepository(Link).findOneBy({ tokenHash: hashToken(token) })
    return row && row.expiresAt > now ? row : null
  }

  /** Invitations of a firm that nobody used yet. */
  async invitations(firmId: string, now: Date): Promise<(OneLink & { readonly id: string })[]> {
    const rows = await this.source
      .getRepository(Link)
      .find({ where: { firmId, kind: 'invite' }, order: { createdAt: 'ASC' } })
    return rows
      .filter((row) => row.expiresAt > now)
      .map((row) => ({ ...row, id: row.tokenHash.slice(0, 24) }))
  }

  /** Takes an invitation of a firm back; false when there is none of that id. */
  async withdraw(firmId: string, id: string): Promise<boolean> {
    const done = await this.source.query<{ affectedRows: number }>(
      "DELETE FROM link WHERE firm_id = ? AND kind = 'invite' AND LEFT(token_hash, 24) = ?",
      [firmId, id],
    )
    return done.affectedRows > 0
  }

  /** Does `work` with a link's use in one transaction: the link goes only if the work is done, and only one gets it. */
  async use<T>(
    token: string,
    kind: LinkKind,
    now: Date,
    work: (manager: EntityManager, link: OneLink) => Promise<T>,
  ): Promise<T | null> {
    return this.source.transaction(async (manager) => {
      const link = await manager.findOne(Link, {
        where: { tokenHash: hashToken(token), kind },
        lock: { mode: 'pessimistic_write' },
      })
      if (!link || link.expiresAt <= now) return null
      const result = await work(manager, link)
      await manager.delete(Link, { tokenHash: link.tokenHash })
      return result
    })
  }
}
