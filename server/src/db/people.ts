import { createHash } from 'node:crypto'
import { IsNull, LessThan, Not, type DataSource, type EntityManager } from 'typeorm'
import { rights, type Right, type Role } from '#core'
import { Firm, Person, Session, type PersonRow } from './entities.ts'

export type { Role }

/** A person of a firm, as the rest of the server sees them. */
export interface Account {
  readonly id: string
  readonly firmId: string
  readonly firmName: string
  readonly login: string
  readonly name: string
  readonly role: Role
  readonly rights: readonly Right[]
}

/** A person as a firm's owner sees them. */
export interface FirmPerson {
  readonly id: string
  readonly login: string
  readonly name: string
  readonly role: Role
  readonly rights: readonly Right[]
  /** When they left; their name stays in the journals. */
  readonly removedAt: string | null
  /** When any of their sessions was last used. */
  readonly usedAt: string | null
}

/** One session of a person. */
export interface OpenSession {
  /** Names the session among the person's own; nobody signs in by it. */
  readonly id: string
  readonly device: string
  readonly createdAt: string
  readonly usedAt: string | null
  /** Whether it is the caller's own. */
  readonly here: boolean
}

/** How long a session that was just looked up is taken as known, milliseconds: a sign-out elsewhere is seen this late. */
export const SESSION_KNOWN_MS = 2_000
/** How far apart the times of last use are kept, milliseconds: not every request writes. */
const USED_EVERY_MS = 60_000

/** Firms, their people and sessions. */
export class PeopleStore {
  /** Cache only: what it lacks or holds too long is looked up. */
  readonly #known = new Map<string, { account: Account; until: number; expiresAt: number }>()

  constructor(readonly source: DataSource) {}

  async countFirms(): Promise<number> {
    return this.source.getRepository(Firm).count()
  }

  async firmIds(): Promise<string[]> {
    return (await this.source.getRepository(Firm).find({ select: { id: true } })).map((firm) => firm.id)
  }

  /** Firms by name, the oldest first. */
  async firms(): Promise<{ id: string; name: string }[]> {
    const rows = await this.source.getRepository(Firm).find({ order: { createdAt: 'ASC' } })
    return rows.map(({ id, name }) => ({ id, name }))
  }

  async addFirm(id: string, name: string, now: Date, manager?: EntityManager): Promise<void> {
    await (manager ?? this.source.manager)
      .getRepository(Firm)
      .insert({ id, name, settings: '{}', rulesRevision: 0, createdAt: now })
  }

  async addPerson(
    person: Omit<PersonRow, 'createdAt' | 'removedAt'>,
    now: Date,
    manager?: EntityManager,
  ): Promise<void> {
    await (manager ?? this.source.manager)
      .getRepository(Person)
      .insert({ ...person, removedAt: null, createdAt: now })
  }

  /** The people of a firm, those who left last. */
  async peopleOf(firmId: string): Promise<FirmPerson[]> {
    const rows = await this.source.query<(PersonRow & { usedAt: Date | null })[]>(
      `SELECT person.id, person.login, person.name, person.role, person.rights, person.removed_at AS removedAt,
         (SELECT MAX(COALESCE(session.used_at, session.created_at)) FROM session WHERE session.person_id = person.id) AS usedAt
       FROM person WHERE person.firm_id = ? ORDER BY person.removed_at IS NOT NULL, person.name`,
      [firmId],
    )
    return rows.map(({ id, login, name, role, rights: given, removedAt, usedAt }) => ({
      id,
      login: removedAt ? '' : login,
      name,
      role,
      rights: rightsOf(given),
      removedAt: removedAt?.toISOString() ?? null,
      usedAt: usedAt?.toISOString() ?? null,
    }))
  }

  /** The person with this sign-in name and the stored password hash, or null. */
  async byLogin(login: string): Promise<{ account: Account; password: string } | null> {
    const row = await this.source.getRepository(Person).findOneBy({ login, removedAt: IsNull() })
    return row && { account: await this.#account(row), password: row.password }
  }

  /** A person of a firm who has not left, or null. */
  async ofFirm(firmId: string, personId: string): Promise<Account | null> {
    const row = await this.source
      .getRepository(Person)
      .findOneBy({ firmId, id: personId, removedAt: IsNull() })
    return row && this.#account(row)
  }

  /** Somebody who left the firm, or null. */
  async whoLeft(firmId: string, personId: string): Promise<{ id: string; name: string } | null> {
    const row = await this.source
      .getRepository(Person)
      .findOneBy({ firmId, id: personId, removedAt: Not(IsNull()) })
    return row && { id: row.id, name: row.name }
  }

  /** The owner of a firm who was there first; null for a firm without. */
  async firstOwner(firmId: string): Promise<Account | null> {
    const row = await this.source
      .getRepository(Person)
      .findOne({ where: { firmId, role: 'owner', removedAt: IsNull() }, order: { createdAt: 'ASC' } })
    return row && this.#account(row)
  }

  /**
   * Changes what a person may do. Gives false, and changes nothing, when the firm would be left without an owner or has no such
   * person.
   */
  async setRole(firmId: string, personId: string, role: Role, given: readonly Right[]): Promise<boolean> {
    this.#known.clear()
    return this.source.transaction(async (manager) => {
      if (!(await this.#ownerStays(manager, firmId, personId, role === 'owner'))) return false
      const changed = await manager.update(
        Person,
        { firmId, id: personId, removedAt: IsNull() },
        { role, rights: given.join(',') },
      )
      return changed.affected === 1
    })
  }

  /** Takes a person out of the firm: their name stays, their sign-in name is free again, their sessions end. */
  async remove(firmId: string, personId: string, now: Date): Promise<boolean> {
    this.#known.clear()
    return this.source.transaction(async (manager) => {
      if (!(await this.#ownerStays(manager, firmId, personId, false))) return false
      const changed = await manager.update(
        Person,
        { firmId, id: personId, removedAt: IsNull() },
        { removedAt: now, password: '', rights: '', login: `gone ${personId}` },
      )
      await manager.delete(Session, { personId })
      await manager.query('DELETE FROM link WHERE person_id = ?', [personId])
      return changed.affected === 1
    })
  }

  /** Keeps a new password's hash; the person's sessions end, but the one of `except`. */
  async setPassword(
    personId: string,
    password: string,
    {
      except = null,
      manager = this.source.manager,
    }: { except?: string | null; manager?: EntityManager } = {},
  ): Promise<void> {
    this.#known.clear()
    await manager.getRepository(Person).update({ id: personId }, { password })
    const kept = except === null ? {} : { tokenHash: Not(hashToken(except)) }
    await manager.getRepository(Session).delete({ personId, ...kept })
  }

  /** Keeps a session by the hash of its token, so that a copy of the database signs nobody in. */
  async openSession(
    token: string,
    personId: string,
    device: string,
    times: { readonly now: Date; readonly expiresAt: Date },
  ): Promise<void> {
    const { now, expiresAt } = times
    const sessions = this.source.getRepository(Session)
    await sessions.delete({ expiresAt: LessThan(now) })
    await sessions.insert({
      tokenHash: hashToken(token),
      personId,
      device: device.slice(0, 200),
      createdAt: now,
      usedAt: now,
      expiresAt,
    })
  }

  /** Who this session belongs to, or null. It runs before every request: one query, and none within a few seconds. */
  async bySession(token: string, now: Date): Promise<Account | null> {
    const hash = hashToken(token)
    const known = this.#known.get(hash)
    if (known && known.until > now.getTime() && known.expiresAt > now.getTime()) return known.account
    this.#known.delete(hash)
    const found = await this.source
      .getRepository(Person)
      .createQueryBuilder('person')
      .innerJoin('session', 'session', 'session.person_id = person.id')
      .innerJoin('firm', 'firm', 'firm.id = person.firm_id')
      .select(['person.id AS id', 'person.firm_id AS firmId', 'firm.name AS firmName'])
      .addSelect(['person.login AS login', 'person.name AS name', 'person.role AS role'])
      .addSelect(['person.rights AS rights', 'session.used_at AS usedAt', 'session.expires_at AS expiresAt'])
      .where('session.token_hash = :hash AND session.expires_at > :now AND person.removed_at IS NULL', {
        hash,
        now,
      })
      .getRawOne<Omit<Account, 'rights'> & { rights: string; usedAt: Date | null; expiresAt: Date }>()
    if (!found) return null
    const { expiresAt, usedAt, rights: given, ...person } = found
    const account = { ...person, rights: rightsOf(given) }
    if (this.#known.size > 2000) this.#known.clear()
    this.#known.set(hash, {
      account,
      until: now.getTime() + SESSION_KNOWN_MS,
      expiresAt: new Date(expiresAt).getTime(),
    })
    if (!usedAt || now.getTime() - new Date(usedAt).getTime() > USED_EVERY_MS)
      await this.source.getRepository(Session).update({ tokenHash: hash }, { usedAt: now })
    return account
  }

  /** A person's sessions that still hold, the one last used first; `token` is the caller's own. */
  async sessionsOf(personId: string, token: string | null, now: Date): Promise<OpenSession[]> {
    const rows = await this.source
      .getRepository(Session)
      .find({ where: { personId }, order: { usedAt: 'DESC', createdAt: 'DESC' } })
    const own = token === null ? null : hashToken(token)
    return rows
      .filter((row) => row.expiresAt > now)
      .map((row) => ({
        id: sessionId(row.tokenHash),
        device: row.device,
        createdAt: row.createdAt.toISOString(),
        usedAt: row.usedAt?.toISOString() ?? null,
        here: row.tokenHash === own,
      }))
  }

  /** Ends one of a person's sessions by its id, or all of them but `except`. Gives how many ended. */
  async endSessions(personId: string, which: { id: string } | { except: string | null }): Promise<number> {
    this.#known.clear()
    const sessions = this.source.getRepository(Session)
    if ('except' in which) {
      const kept = which.except === null ? {} : { tokenHash: Not(hashToken(which.except)) }
      return (await sessions.delete({ personId, ...kept })).affected ?? 0
    }
    const row = (await sessions.find({ where: { personId } })).find(
      ({ tokenHash }) => sessionId(tokenHash) === which.id,
    )
    return row ? ((await sessions.delete({ tokenHash: row.tokenHash })).affected ?? 0) : 0
  }

  async closeSession(token: string): Promise<void> {
    this.#known.delete(hashToken(token))
    await this.source.getRepository(Session).delete({ tokenHash: hashToken(token) })
  }

  /** Whether the firm keeps an owner though this person stops being one; the owners' rows stay locked until then. */
  async #ownerStays(
    manager: EntityManager,
    firmId: string,
    personId: string,
    stays: boolean,
  ): Promise<boolean> {
    const owners = await manager.query<{ id: string }[]>(
      "SELECT id FROM person WHERE firm_id = ? AND role = 'owner' AND removed_at IS NULL FOR UPDATE",
      [firmId],
    )
    return stays || owners.some((owner) => owner.id !== personId)
  }

  async #account(row: PersonRow): Promise<Account> {
    const firm = await this.source.getRepository(Firm).findOneByOrFail({ id: row.firmId })
    const { id, firmId, login, name, role } = row
    return { id, firmId, firmName: firm.name, login, name, role, rights: rightsOf(row.rights) }
  }
}

/** Hash under which a token is kept. */
export function hashToken(token: string): string {
  return createHash('sha256').update(token).digest('hex')
}

/** A session's name among its person's own: part of the hash of the hash, so that it leads to neither. */
function sessionId(tokenHash: string): string {
  return hashToken(tokenHash).slice(0, 24)
}

function rightsOf(kept: string): Right[] {
  const words = kept.split(',')
  return rights.filter((right) => words.includes(right))
}
