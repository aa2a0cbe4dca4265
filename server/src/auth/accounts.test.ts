import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { createStore, type Store } from '../db/store.ts'
import { freshSource } from '../testing/database.ts'
import { createAccounts, shippedPack, type Accounts } from './accounts.ts'
import { hashPassword, verifyPassword } from './password.ts'

const now = new Date('2026-05-04T09:00:00Z')
const owner = { firm: 'Brook Alarms', name: 'Ann Reed', login: 'Ann', password: 'correct-horse-9' }

describe('the first set-up', () => {
  let store: Store
  let accounts: Accounts
  beforeAll(async () => {
    store = createStore(await freshSource())
    accounts = createAccounts(store, [], () => now)
  })
  afterAll(() => store.close())

  it('needs the token of the last link that was made, and makes firm, catalogue and owner or nothing', async () => {
    await expect(accounts.setUp({ ...owner, token: '' })).rejects.toThrow('not valid any more')
    const first = (await accounts.setUpLink()) ?? ''
    expect(first).toMatch(/^[A-Za-z0-9_-]{32}$/)
    const token = (await accounts.setUpLink()) ?? ''
    for (const wrong of [first, `${token}x`])
      await expect(accounts.setUp({ ...owner, token: wrong })).rejects.toThrow('not valid any more')
    expect(await accounts.isEmpty()).toBe(true)
    // What breaks half-way leaves nothing behind, and the link works again.
    await expect(accounts.setUp({ ...owner, name: 'x'.repeat(500), token })).rejects.toThrow()
    expect(await accounts.isEmpty()).toBe(true)
    expect(await accounts.linkOf(token)).toEqual({ kind: 'set-up', firm: null, name: '', role: 'owner' })
    const account = await accounts.setUp({ ...owner, token })
    expect(account).toMatchObject({ login: 'ann', role: 'owner', firmName: 'Brook Alarms' })
    expect(await accounts.setUpLink()).toBeNull()
    await expect(accounts.setUp({ ...owner, login: 'eve', token })).rejects.toThrow('not valid any more')
    expect(await store.people.countFirms()).toBe(1)
  })

  it('lets its owner sign in by the name in whatever case, and nobody by a wrong password', async () => {
    const signed = await accounts.signIn(' ANN ', owner.password)
    expect(signed.account.name).toBe('Ann Reed')
    expect(signed.expiresAt.toISOString()).toBe('2026-05-18T09:00:00.000Z')
    expect((await accounts.bySession(signed.token))?.login).toBe('ann')
    await accounts.signOut(signed.token)
    expect(await accounts.bySession(signed.token)).toBeNull()
    await expect(accounts.signIn('ann', 'correct-horse-8')).rejects.toThrow('do not belong together')
    await expect(accounts.signIn('nobody', owner.password)).rejects.toThrow('do not belong together')
  })

  it('keeps sign-in names apart over all firms, and names within one', async () => {
    const other = await accounts.addFirm('Far Away')
    const person = { name: 'Bob', login: 'ann', role: 'installer', password: 'long enough 1' } as const
    await expect(accounts.addPerson(other, person)).rejects.toMatchObject({ problems: [{ path: 'login' }] })
    await accounts.addPerson(other, { ...person, name: 'Ann Reed', login: 'ann2' })
    await expect(accounts.addPerson(other, { ...person, name: 'Ann Reed', login: 'ann3' })).rejects.toThrow()
  })
})

describe('passwords', () => {
  it('are verified by their own salt, whatever way their letters are composed', async () => {
    const [one, two] = await Promise.all([hashPassword('Käse-1234567'), hashPassword('Käse-1234567')])
    expect(one).not.toBe(two)
    expect(await verifyPassword('Ka\u0308se-1234567', one)).toBe(true)
    expect(await verifyPassword('Käse-1234568', one)).toBe(false)
  })

  it.each([
    '',
    'none',
    'scrypt$16$8$1$aa$bb',
    'scrypt$17$8$1$$bb',
    'scrypt$17$9$1$aa$bb',
    'bcrypt$17$8$1$aa$bb',
    'scrypt$17$8$2$aa$bb',
  ])('belong to no stored “%s”', async (stored) => expect(await verifyPassword('x', stored)).toBe(false))
})

it('a shipped catalogue that is damaged is a fault of the build', () => {
  expect(() => shippedPack({ kapellePack: 2, title: 'x', entries: [{ id: 'device/x' }] })).toThrow(
    'The shipped catalogue is damaged',
  )
})
