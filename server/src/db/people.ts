import { createHash } from 'node:crypto'
import { LessThan, type DataSource } from 'typeorm'
import type { Role } from '#core'
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
}

/** How long a session that was just looked up is taken as known, milliseconds: a sign-out elsewhere is seen this late. */
const SESSION_KNOWN_MS = 3_000

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

  async addFirm(id: string, name: string, now: Date): Promise<void> {
    await this.source
      .getRepository(Firm)
      .insert({ id, name, settings: '{}', rulesRevision: 0, createdAt: now })
  }

  async addPerson(person: Omit<PersonRow, 'createdAt'>, now: Date): Promise<void> {
    await this.source.getRepository(Person).insert({ ...person, createdAt: now })
  }

  async peopleOf(firmId: string): Promise<{ id: string; login: string; name: string; role: Role }[]> {
    const rows = await this.source.getRepository(Person).find({ where: { firmId }, order: { name: 'ASC' } })
    return rows.map(({ id, login, name, role }) => ({ id, login, name, role }))
  }

  /** The person with this sign-in name and the stored password hash, or null. */
  async byLogin(login: string): Promise<{ account: Account; password: string } | null> {
    const row = await this.source.getRepository(Person).findOneBy({ login })
    return row && { account: await this.#account(row), password: row.password }
  }

  async setPassword(personId: string, password: string): Promise<void> {
    this.#known.clear()
    await this.source.getRepository(Person).update({ id: personId }, { password })
    await this.source.getRepository(Session).delete({ personId })
  }

  /** Keeps a session by the hash of its token, so that a copy of the database signs nobody in. */
  async openSession(token: string, personId: string, now: Date, expiresAt: Date): Promise<void> {
    const sessions = this.source.getRepository(Session)
    await sessions.delete({ expiresAt: LessThan(now) })
    await sessions.insert({ tokenHash: hashToken(token), personId, createdAt: now, expiresAt })
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
      .addSelect('session.expires_at AS expiresAt')
      .where('session.token_hash = :hash AND session.expires_at > :now', { hash, now })
      .getRawOne<Account & { expiresAt: Date }>()
    if (!found) return null
    const { expiresAt, ...account } = found
    if (this.#known.size > 2000) this.#known.clear()
    this.#known.set(hash, {
      account,
      until: now.getTime() + SESSION_KNOWN_MS,
      expiresAt: new Date(expiresAt).getTime(),
    })
    return account
  }

  async closeSession(token: string): Promise<void> {
    this.#known.delete(hashToken(token))
    await this.source.getRepository(Session).delete({ tokenHash: hashToken(token) })
  }

  async #account(row: PersonRow): Promise<Account> {
    const firm = await this.source.getRepository(Firm).findOneByOrFail({ id: row.firmId })
    return {
      id: row.id,
      firmId: row.firmId,
      firmName: firm.name,
      login: row.login,
      name: row.name,
      role: row.role,
    }
  }
}

function hashToken(token: string): string {
  return createHash('sha256').update(token).digest('hex')
}
