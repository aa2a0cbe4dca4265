import { randomBytes, randomUUID } from 'node:crypto'
import { readPack, type KeptEntry, type Right } from '#core'
import { shippedAt } from '../db/catalogue.ts'
import { isDuplicate } from '../db/retry.ts'
import type { LinkKind, Transaction } from '../db/links.ts'
import type { Account, Role } from '../db/people.ts'
import type { Store } from '../db/store.ts'
import { AppError } from '../errors/app-error.ts'
import { hashPassword, verifyPassword } from './password.ts'

/** How long a session lasts, in days. */
const SESSION_DAYS = 14
/** How long an invitation and a set-up link work, in hours; one for a new password, which opens an account, works a day. */
const INVITE_HOURS = 72
const PASSWORD_HOURS = 24
/** Wrong passwords that are free: of one name from one address, of one name from anywhere, of one address. */
const FREE = { pair: 5, name: 50, address: 30 }

/** Where somebody signs in from. */
export interface From {
  /** The address, as far as it can be told apart from others'. */
  readonly address: string
  /** How the browser names itself. */
  readonly device: string
}

interface NewPerson {
  readonly name: string
  readonly login: string
  readonly role: Role
  readonly rights?: readonly Right[]
  readonly password: string
}

/** Signing in and out, links that work once, and the people of a firm. */
export interface Accounts {
  signIn(
    login: string,
    password: string,
    from?: From,
  ): Promise<{ account: Account; token: string; expiresAt: Date }>
  signOut(token: string): Promise<void>
  bySession(token: string): Promise<Account | null>
  /** Makes the link of the first set-up, replacing the one before; null when there is a firm. */
  setUpLink(): Promise<string | null>
  /** Whether nobody is here yet. */
  isEmpty(): Promise<boolean>
  /** Makes firm, catalogue and owner in one, by the token of the set-up link. */
  setUp(input: {
    token: string
    firm: string
    name: string
    login: string
    password: string
  }): Promise<Account>
  /** Makes an invitation into a firm; gives its token. */
  invite(firmId: string, role: Role, name: string): Promise<string>
  /** What a link is for, before it is used. */
  linkOf(token: string): Promise<{ kind: LinkKind; firm: string | null; name: string; role: Role } | null>
  accept(input: { token: string; name: string; login: string; password: string }): Promise<Account>
  /** Makes a link by which a person chooses a new password. */
  passwordLink(firmId: string, personId: string): Promise<string>
  /** Chooses a new password by such a link; all of the person's sessions end. Gives the sign-in name. */
  newPassword(token: string, password: string): Promise<string>
  /** Changes one's own password, knowing the old one; other sessions end. */
  changePassword(who: Account, token: string | null, old: string, password: string): Promise<void>
  addPerson(firmId: string, input: NewPerson): Promise<void>
  addFirm(name: string, id?: string): Promise<string>
  readonly now: () => Date
}

/** Makes the accounts service; `pack` is the catalogue a new firm starts with. */
export function createAccounts(store: Store, pack: readonly KeptEntry[], now: () => Date): Accounts {
  // Verified against when nobody has this sign-in name, so that both answers take the same time.
  const nobody = hashPassword(randomBytes(16).toString('hex'))
  const inHours = (hours: number) => new Date(now().getTime() + hours * 3_600_000)

  async function addFirm(name: string, id: string = randomUUID(), manager?: Transaction): Promise<string> {
    await store.people.addFirm(id, name, now(), manager)
    await store.catalogueOf(id).add(pack, shippedAt(now()), manager)
    return id
  }

  async function addPerson(firmId: string, input: NewPerson, manager?: Transaction): Promise<void> {
    const password = await hashPassword(input.password)
    try {
      await store.people.addPerson(
        {
          id: randomUUID(),
          firmId,
          login: input.login.toLowerCase(),
          name: input.name,
          role: input.role,
          rights: (input.rights ?? []).join(','),
          password,
        },
        now(),
        manager,
      )
    } catch (error) {
      if (!isDuplicate(error)) throw error
      throw new AppError('INVALID', 'This person was not added.', [
        { path: 'login', message: 'this sign-in name or this name is taken; choose another' },
      ])
    }
  }

  async function byLogin(login: string): Promise<Account> {
    const found = await store.people.byLogin(login.toLowerCase())
    if (!found) throw new AppError('INTERNAL', 'The account was not made.')
    return found.account
  }

  return {
    now,
    addFirm: (name, id) => addFirm(name, id),
    addPerson: (firmId, input) => addPerson(firmId, input),
    async signIn(login, password, from = { address: '', device: '' }) {
      const name = login.trim().toLowerCase()
      const pair = { key: `pair ${name} ${from.address}`, free: FREE.pair }
      const keys = [
        pair,
        { key: `name ${name}`, free: FREE.name },
        // An address that tells nobody apart would hold everybody back for one.
        ...(from.address === '' ? [] : [{ key: `address ${from.address}`, free: FREE.address }]),
      ]
      const wait = await store.attempts.wait(keys, now())
      if (wait > 0) throw waits(wait)
      const found = await store.people.byLogin(name)
      const right = await verifyPassword(password, found?.password ?? (await nobody))
      if (!found || !right) {
        await store.attempts.failed(keys, now())
        throw new AppError('SIGN_IN_NEEDED', 'Sign-in name and password do not belong together.')
      }
      await store.attempts.forget(pair)
      const token = randomBytes(32).toString('base64url')
      const expiresAt = inHours(SESSION_DAYS * 24)
      await store.people.openSession(token, found.account.id, from.device, { now: now(), expiresAt })
      return { account: found.account, token, expiresAt }
    },
    signOut: (token) => store.people.closeSession(token),
    bySession: (token) => store.people.bySession(token, now()),
    isEmpty: async () => (await store.people.countFirms()) === 0,
    async setUpLink() {
      if ((await store.people.countFirms()) > 0) return null
      const link = { kind: 'set-up', firmId: null, personId: null, role: 'owner', name: '' } as const
      return store.links.make({ ...link, expiresAt: inHours(INVITE_HOURS) }, now())
    },
    async setUp(input) {
      const made = await store.links.use(input.token, 'set-up', now(), async (manager) => {
        const firmId = await addFirm(input.firm, undefined, manager)
        await addPerson(firmId, { ...input, role: 'owner' }, manager)
        return true
      })
      if (!made)
        throw spent('This set-up link is not valid any more. Sign in, or ask the owner for an account.')
      return byLogin(input.login)
    },
    async invite(firmId, role, name) {
      const link = { kind: 'invite', firmId, personId: null, role, name } as const
      return store.links.make({ ...link, expiresAt: inHours(INVITE_HOURS) }, now())
    },
    async linkOf(token) {
      const link = await store.links.look(token, now())
      if (!link) return null
      const firm = (await store.people.firms()).find((one) => one.id === link.firmId)
      return { kind: link.kind, firm: firm?.name ?? null, name: link.name, role: link.role }
    },
    async accept(input) {
      const made = await store.links.use(input.token, 'invite', now(), async (manager, link) => {
        if (link.firmId === null) return false
        await addPerson(link.firmId, { ...input, role: link.role }, manager)
        return true
      })
      if (!made) throw spent('This invitation is not valid any more. Ask the owner for a new one.')
      return byLogin(input.login)
    },
    async passwordLink(firmId, personId) {
      const person = await store.people.ofFirm(firmId, personId)
      if (!person) throw new AppError('NOT_FOUND', 'There is no such person in this firm.')
      const link = { kind: 'password', firmId, personId, role: person.role, name: person.name } as const
      return store.links.make({ ...link, expiresAt: inHours(PASSWORD_HOURS) }, now())
    },
    async newPassword(token, password) {
      // Reckoning a hash is dear: not for whoever brings a made-up token.
      if (!(await store.links.look(token, now()))) throw spent(PASSWORD_SPENT)
      const hash = await hashPassword(password)
      const login = await store.links.use(token, 'password', now(), async (manager, link) => {
        const person =
          link.firmId === null || link.personId === null
            ? null
            : await store.people.ofFirm(link.firmId, link.personId)
        if (!person) return null
        await store.people.setPassword(person.id, hash, { manager })
        return person.login
      })
      if (!login) throw spent(PASSWORD_SPENT)
      return login
    },
    async changePassword(who, token, old, password) {
      const key = { key: `own ${who.id}`, free: FREE.pair }
      const wait = await store.attempts.wait([key], now())
      if (wait > 0) throw waits(wait)
      const found = await store.people.byLogin(who.login)
      if (!found || !(await verifyPassword(old, found.password))) {
        await store.attempts.failed([key], now())
        throw new AppError('INVALID', 'The password was not changed.', [
          { path: 'old', message: 'is not the password in force' },
        ])
      }
      await store.attempts.forget(key)
      await store.people.setPassword(who.id, await hashPassword(password), { except: token })
    },
  }
}

const PASSWORD_SPENT = 'This link is not valid any more. Ask the owner for a new one.'

function spent(message: string): AppError {
  return new AppError('NOT_FOUND', message)
}

function waits(ms: number): AppError {
  const seconds = Math.ceil(ms / 1000)
  const time = seconds < 120 ? `${seconds} s` : `${Math.ceil(seconds / 60)} min`
  return new AppError('TOO_MANY', `Too many failed tries. Wait ${time}, then try again.`, [], {
    retryAfter: seconds,
  })
}

/** Reads a pack that ships with the product; a fault in it is a fault of the build. */
export function shippedPack(json: unknown): readonly KeptEntry[] {
  const result = readPack(json)
  if (!result.ok) throw new Error(`The shipped catalogue is damaged: ${JSON.stringify(result.problems)}`)
  return result.entries
}
