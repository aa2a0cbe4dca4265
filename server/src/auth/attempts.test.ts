import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest'
import { waitAfter } from '../db/attempts.ts'
import { createStore, type Store } from '../db/store.ts'
import { freshSource } from '../testing/database.ts'
import { createAccounts, type Accounts } from './accounts.ts'

let store: Store
let now = new Date('2026-05-04T09:00:00Z')
let accounts: Accounts
beforeAll(async () => {
  store = createStore(await freshSource())
  accounts = createAccounts(store, [], () => now)
  const firm = await accounts.addFirm('Brook Alarms')
  for (const login of ['ann', 'bob'])
    await accounts.addPerson(firm, { name: login, login, role: 'owner', password: 'correct-horse-9' })
})
afterAll(() => store.close())
beforeEach(async () => {
  await store.people.source.query('DELETE FROM attempt')
})

const pass = (ms: number) => (now = new Date(now.getTime() + ms))
const sign = (login: string, password: string, address = '192.0.2.1') =>
  accounts.signIn(login, password, { address, device: '' }).then(
    () => 'in',
    (error: unknown) => (error as Error).message.replace(/ then try again\.$/, ''),
  )
const wrong = 'Sign-in name and password do not belong together.'

it('a name is held back after five wrong passwords from one address, longer with each', async () => {
  for (let n = 0; n < 5; n++) expect(await sign('ann', 'wrong')).toBe(wrong)
  expect(await sign('ann', 'correct-horse-9')).toBe('Too many failed tries. Wait 1 s,')
  // Elsewhere, and for somebody else here, nothing is held back.
  expect(await sign('ann', 'correct-horse-9', '192.0.2.2')).toBe('in')
  expect(await sign('bob', 'correct-horse-9')).toBe('in')
  pass(1_000)
  expect(await sign('ann', 'wrong')).toBe(wrong)
  expect(await sign('ann', 'wrong')).toBe('Too many failed tries. Wait 2 s,')
  pass(1_999)
  expect(await sign('ann', 'wrong')).toBe('Too many failed tries. Wait 1 s,')
  pass(1)
  // Held back tries count for nothing, and the right password ends it.
  expect(await sign('ann', 'correct-horse-9')).toBe('in')
  for (let n = 0; n < 5; n++) expect(await sign('ann', 'wrong')).toBe(wrong)
})

it('an address that tries many names is held back for all of them, other addresses are not', async () => {
  for (let n = 0; n < 30; n++) await store.attempts.failed([{ key: 'address 192.0.2.1', free: 30 }], now)
  expect(await sign('bob', 'correct-horse-9')).toBe('Too many failed tries. Wait 1 s,')
  expect(await sign('bob', 'correct-horse-9', '192.0.2.2')).toBe('in')
})

it('a name that is tried from many addresses is held back for all of them, after fifty', async () => {
  const tried = async (count: number): Promise<void> => {
    for (let n = 0; n < count; n++) await store.attempts.failed([{ key: 'name ann', free: 50 }], now)
  }
  await tried(49)
  expect(await sign('ann', 'correct-horse-9', '192.0.2.9')).toBe('in')
  await tried(1)
  expect(await sign(' ANN ', 'correct-horse-9', '192.0.2.9')).toBe('Too many failed tries. Wait 1 s,')
  await tried(8)
  // From two minutes on it is told in minutes, never too few.
  expect(await sign('ann', 'correct-horse-9', '192.0.2.9')).toBe('Too many failed tries. Wait 5 min,')
  expect(await sign('bob', 'correct-horse-9', '192.0.2.9')).toBe('in')
})

it('one’s own password is guessed at no faster, and a right one ends the count', async () => {
  const found = await store.people.byLogin('bob')
  if (!found) throw new Error('no bob')
  const change = (old: string) =>
    accounts.changePassword(found.account, null, old, 'correct-horse-9').then(
      () => 'changed',
      (error: unknown) => (error as Error).message,
    )
  for (let n = 0; n < 5; n++) expect(await change('wrong')).toBe('The password was not changed.')
  expect(await change('correct-horse-9')).toBe('Too many failed tries. Wait 1 s, then try again.')
  pass(1_000)
  expect(await change('correct-horse-9')).toBe('changed')
  for (let n = 0; n < 5; n++) expect(await change('wrong')).toBe('The password was not changed.')
})

it('everybody behind an address that tells nobody apart is not held back for another’s tries', async () => {
  for (let n = 0; n < 40; n++) await store.attempts.failed([{ key: 'address ', free: 30 }], now)
  expect(await sign('bob', 'correct-horse-9', '')).toBe('in')
})

it('is forgotten after an hour', async () => {
  for (let n = 0; n < 9; n++) await store.attempts.failed([{ key: 'pair ann 192.0.2.1', free: 5 }], now)
  pass(3_600_001)
  expect(await sign('ann', 'wrong')).toBe(wrong)
  const [row] = await store.people.source.query<{ most: number }[]>(
    'SELECT MAX(failures) AS most FROM attempt',
  )
  expect(row?.most).toBe(1)
})

it('waits from a second to a quarter of an hour', () => {
  expect([-1, 0, 1, 2, 9, 10, 60].map(waitAfter)).toEqual([0, 1000, 2000, 4000, 512_000, 900_000, 900_000])
})
