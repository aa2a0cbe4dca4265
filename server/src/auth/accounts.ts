import { randomBytes, randomUUID } from 'node:crypto'
import { readPack, type KeptEntry } from '#core'
import { isDuplicate } from '../db/retry.ts'
import type { Account, Role } from '../db/people.ts'
import type { Store } from '../db/store.ts'
import { AppError } from '../http/errors.ts'
import { hashPassword, verifyPassword } from './password.ts'

/** How long a session lasts, in days. */
export const SESSION_DAYS = 14

/** Signing in and out, first set-up, and the people of a firm. */
export interface Accounts {
  signIn(login: string, password: string): Promise<{ account: Account; token: string; expiresAt: Date }>
  signOut(token: string): Promise<void>
  bySession(token: string): Promise<Account | null>
  /** The set-up token, once, while the database is empty; null when there is a firm. */
  setupToken(): Promise<string | null>
  setUp(input: {
    token: string
    firm: string
    name: string
    login: string
    password: string
  }): Promise<Account>
  addPerson(
    firmId: string,
    input: { name: string; login: string; role: Role; password: string },
  ): Promise<void>
  addFirm(name: string): Promise<string>
}

/** Makes the accounts service; `pack` is the catalogue a new firm starts with. */
export function createAccounts(store: Store, pack: readonly KeptEntry[], now: () => Date): Accounts {
  let setup: string | null = null
  // Verified against when nobody has this sign-in name, so that both answers take the same time.
  const nobody = hashPassword(randomBytes(16).toString('hex'))

  async function addFirm(name: string): Promise<string> {
    const id = randomUUID()
    await store.people.addFirm(id, name, now())
    await store.catalogueOf(id).add(pack, true)
    return id
  }

  async function addPerson(
    firmId: string,
    input: { name: string; login: string; role: Role; password: string },
  ): Promise<void> {
    const password = await hashPassword(input.password)
    try {
      await store.people.addPerson(
        {
          id: randomUUID(),
          firmId,
          login: input.login.toLowerCase(),
          name: input.name,
          role: input.role,
          password,
        },
        now(),
      )
    } catch (error) {
      if (!isDuplicate(error)) throw error
      throw new AppError('INVALID', 'This person was not added.', [
        { path: 'login', message: 'this sign-in name or this name is taken; choose another' },
      ])
    }
  }

  return {
    addFirm,
    addPerson,
    async signIn(login, password) {
      const found = await store.people.byLogin(login.trim().toLowerCase())
      const right = await verifyPassword(password, found?.password ?? (await nobody))
      if (!found || !right)
        throw new AppError('SIGN_IN_NEEDED', 'Sign-in name and password do not belong together.')
      const token = randomBytes(32).toString('base64url')
      const expiresAt = new Date(now().getTime() + SESSION_DAYS * 86_400_000)
      await store.people.openSession(token, found.account.id, now(), expiresAt)
      return { account: found.account, token, expiresAt }
    },
    signOut: (token) => store.people.closeSession(token),
    bySession: (token) => store.people.bySession(token, now()),
    async setupToken() {
      if ((await store.people.countFirms()) > 0) return null
      setup ??= randomBytes(18).toString('base64url')
      return setup
    },
    async setUp(input) {
      if ((await store.people.countFirms()) > 0 || setup === null || input.token !== setup)
        throw new AppError(
          'NOT_FOUND',
          'This set-up link is not valid any more. Sign in, or ask the owner for an account.',
        )
      setup = null
      const firmId = await addFirm(input.firm)
      await addPerson(firmId, { ...input, role: 'owner' })
      const found = await store.people.byLogin(input.login.toLowerCase())
      if (!found) throw new AppError('INTERNAL', 'The account was not made.')
      return found.account
    },
  }
}

/** Reads a pack that ships with the product; a fault in it is a fault of the build. */
export function shippedPack(json: unknown): readonly KeptEntry[] {
  const result = readPack(json)
  if (!result.ok) throw new Error(`The shipped catalogue is damaged: ${JSON.stringify(result.problems)}`)
  return result.entries
}
