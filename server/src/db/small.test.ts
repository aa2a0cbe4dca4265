import { describe, expect, it } from 'vitest'
import { emptyDocument } from '#core'
import { DocumentCache } from './cache.ts'
import { Later } from './later.ts'
import { isAway, isDuplicate, retrying } from './retry.ts'

describe('a broken-off transaction', () => {
  const broken = (errno: number): Error =>
    Object.assign(new Error(`errno ${errno}`), { driverError: { errno } })

  it.each([1213, 1205])('for %s is tried up to three times', async (errno) => {
    let tries = 0
    const once = await retrying(() => {
      tries += 1
      return tries < 3 ? Promise.reject(broken(errno)) : Promise.resolve('done')
    })
    expect([once, tries]).toEqual(['done', 3])
    tries = 0
    await expect(
      retrying(() => {
        tries += 1
        return Promise.reject(broken(errno))
      }),
    ).rejects.toThrow(`errno ${errno}`)
    expect(tries).toBe(3)
  })

  it('for anything else is told at once', async () => {
    let tries = 0
    for (const error of [broken(1062), new Error('x'), null, 'text'])
      await retrying(() => {
        tries += 1
        return Promise.reject(error)
      }).catch(() => undefined)
    expect(tries).toBe(4)
  })

  it('tells a taken key from other troubles, wherever the number stands', () => {
    expect([
      isDuplicate(broken(1062)),
      isDuplicate({ errno: 1062 }),
      isDuplicate(broken(1213)),
      isDuplicate(null),
      isDuplicate({ errno: '1062' }),
      isDuplicate('1062'),
      isDuplicate({ driverError: { driverError: { errno: 1062 } } }),
    ]).toEqual([true, true, false, false, false, false, true])
  })
})

describe('a database that is not there', () => {
  const coded = (code: unknown): Error => Object.assign(new Error('x'), { code })

  it.each(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'PROTOCOL_CONNECTION_LOST', 'ER_SERVER_SHUTDOWN'])(
    'is told by %s, wherever the code stands',
    (code) => {
      expect([
        isAway(coded(code)),
        isAway({ driverError: { code } }),
        isAway({ driverError: coded(code) }),
      ]).toEqual([true, true, true])
    },
  )

  it.each([
    'Pool is closed.',
    'Connection lost: the server closed it.',
    'in closed state',
    'socket has been ended',
  ])('is told by its words: %s', (words) => {
    expect([isAway(new Error(words)), isAway({ message: words })]).toEqual([true, false])
  })

  it.each([
    coded('ER_DUP_ENTRY'),
    coded(1062),
    new Error('no such table'),
    {},
    { driverError: null },
    null,
    'EPIPE',
    3,
  ])('is not told by anything else: %s', (error) => expect(isAway(error)).toBe(false))
})

describe('the kept documents', () => {
  it('are the last used, and never an older revision in place of a newer', () => {
    const cache = new DocumentCache(2)
    cache.set('a', 1, emptyDocument)
    cache.set('b', 1, emptyDocument)
    expect(cache.get('a')?.revision).toBe(1)
    cache.set('c', 1, emptyDocument)
    expect([cache.get('a')?.revision, cache.get('b'), cache.get('c')?.revision]).toEqual([1, null, 1])
    cache.set('a', 5, emptyDocument)
    cache.set('a', 4, emptyDocument)
    expect(cache.get('a')?.revision).toBe(5)
    cache.set('a', 5, emptyDocument)
    expect(cache.get('a')?.revision).toBe(5)
  })
})

it('work that nobody waits for is told of when it fails, and waited for at the end', async () => {
  const told: unknown[] = []
  const later = new Later((error) => void told.push(error))
  let done = 0
  later.add(new Promise((ready) => setTimeout(ready, 20)).then(() => void (done += 1)))
  later.add(Promise.reject(new Error('disk full')))
  await later.settled()
  expect([done, told.map(String)]).toEqual([1, ['Error: disk full']])
})
