import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { RunningServer } from '../server.ts'
import { startTestServer, TEST_PASSWORD, TestClient, type Answer } from '../testing/client.ts'

let server: RunningServer
let clock = new Date('2026-05-04T09:00:00.000Z')
let ann: TestClient
beforeAll(async () => {
  server = await startTestServer(undefined, () => clock)
  ann = await new TestClient(server.url).signIn('ann')
})
afterAll(() => server.stop())

/** Lets the time pass that a process may still take a session as known. */
const moments = (ms: number): void => {
  clock = new Date(clock.getTime() + ms)
}
const somebody = () => new TestClient(server.url)
const idOf = async (name: string): Promise<string> => {
  const { people } = (await ann.call('GET', '/api/people')).body as unknown as {
    people: { id: string; name: string }[]
  }
  return people.find((person) => person.name === name)?.id ?? ''
}
const tokenOf = (answer: Answer): string => {
  expect(answer.status).toBe(200)
  return String(answer.body.token)
}
const accept = (token: string, login: string, name = login) =>
  somebody().call('POST', '/api/link/invite', { token, name, login, password: TEST_PASSWORD })

describe('an invitation', () => {
  it('says whose firm it leads into, lets one person in once, and stands in the list until then', async () => {
    const token = tokenOf(await ann.call('POST', '/api/invitations', { name: 'Dai', role: 'installer' }))
    expect((await somebody().call('POST', '/api/link', { token })).body).toEqual({
      kind: 'invite',
      firm: 'Brook Alarms',
      name: 'Dai',
      role: 'installer',
    })
    const open = (await ann.call('GET', '/api/people')).body.invitations as {
      name: string
      expiresAt: string
    }[]
    expect(open.map((one) => [one.name, one.expiresAt])).toEqual([['Dai', '2026-05-07T09:00:00.000Z']])
    const answers = await Promise.all([accept(token, 'dai', 'Dai Moss'), accept(token, 'dora', 'Dora Ash')])
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 404])
    expect((await ann.call('GET', '/api/people')).body.invitations).toEqual([])
    expect((await somebody().call('POST', '/api/link', { token })).status).toBe(404)
  })

  it('says at the field what is taken or too short, and works again', async () => {
    const token = tokenOf(await ann.call('POST', '/api/invitations', { role: 'viewer' }))
    expect((await accept(token, 'eve', 'New')).body.problems).toEqual([
      { path: 'login', message: 'this sign-in name or this name is taken; choose another' },
    ])
    const short = await somebody().call('POST', '/api/link/invite', {
      ...{ token, name: 'Gil', login: 'gil', password: 'short' },
    })
    expect(short.body.problems).toEqual([{ path: 'password', message: 'must have at least 10 characters' }])
    const made = await accept(token, 'gil', 'Gil Fen')
    expect([made.status, made.body.role, made.body.firm]).toEqual([200, 'viewer', 'Brook Alarms'])
  })

  it('ends after three days, when it is taken back, and is no password link', async () => {
    const old = tokenOf(await ann.call('POST', '/api/invitations', { role: 'viewer' }))
    const begun = clock
    moments(1_000)
    const withdrawn = tokenOf(await ann.call('POST', '/api/invitations', { role: 'viewer' }))
    clock = begun
    expect(
      (await somebody().call('POST', '/api/link/password', { token: old, password: TEST_PASSWORD })).status,
    ).toBe(404)
    const open = (await ann.call('GET', '/api/people')).body.invitations as { id: string }[]
    expect((await ann.call('DELETE', `/api/invitations/${open[1]?.id}`)).status).toBe(200)
    expect((await ann.call('DELETE', `/api/invitations/${open[1]?.id}`)).status).toBe(404)
    moments(3 * 86_400_000 - 1)
    expect((await somebody().call('POST', '/api/link', { token: old })).status).toBe(200)
    moments(1)
    expect((await somebody().call('POST', '/api/link', { token: old })).status).toBe(404)
    expect((await accept(old, 'late')).status).toBe(404)
    clock = begun
    const [first, second] = [old, withdrawn].map((token) =>
      accept(token, `late-${token.slice(0, 3).toLowerCase()}`),
    )
    expect([(await first)?.status, (await second)?.status].sort()).toEqual([200, 404])
  })
})

describe('a password', () => {
  it('forgotten is chosen anew by a link of the owner’s, once, and every session ends', async () => {
    const bob = await somebody().signIn('bob')
    const path = `/api/people/${await idOf('Bob Marsh')}/password-link`
    const before = tokenOf(await ann.call('POST', path))
    const token = tokenOf(await ann.call('POST', path))
    const choose = (with_: string) =>
      somebody().call('POST', '/api/link/password', { token: with_, password: 'a new one, longer' })
    expect((await choose(before)).status).toBe(404)
    expect((await choose(token)).body.login).toBe('bob')
    expect((await choose(token)).status).toBe(404)
    moments(3_000)
    expect((await bob.call('GET', '/api/session')).status).toBe(401)
    await expect(somebody().signIn('bob')).rejects.toThrow('do not belong together')
    await somebody().signIn('bob', 'a new one, longer')
  })

  it('link works for a day, and not for somebody who left meanwhile', async () => {
    const token = tokenOf(await ann.call('POST', '/api/invitations', { role: 'viewer' }))
    expect((await accept(token, 'hal', 'Hal Wood')).status).toBe(200)
    const id = await idOf('Hal Wood')
    const link = tokenOf(await ann.call('POST', `/api/people/${id}/password-link`))
    const look = (which: string) => somebody().call('POST', '/api/link', { token: which })
    const begun = clock
    moments(86_400_000 - 1)
    expect((await look(link)).body).toEqual({
      kind: 'password',
      firm: 'Brook Alarms',
      name: 'Hal Wood',
      role: 'viewer',
    })
    moments(1)
    expect((await look(link)).status).toBe(404)
    clock = begun
    await ann.call('DELETE', `/api/people/${id}`)
    const choose = await somebody().call('POST', '/api/link/password', {
      token: link,
      password: 'a new one, longer',
    })
    expect([choose.status, choose.body.title]).toEqual([
      404,
      'This link is not valid any more. Ask the owner for a new one.',
    ])
    expect((await ann.call('POST', `/api/people/${id}/password-link`)).body.title).toBe(
      'There is no such person in this firm.',
    )
  })

  it('of one’s own is changed by whoever knows it, and the other sessions end', async () => {
    const [here, there] = [await somebody().signIn('cyd'), await somebody().signIn('cyd')]
    const change = (old: string) => here.call('PUT', '/api/password', { old, password: 'another one 1' })
    expect((await change('wrong one 12')).body.problems).toEqual([
      { path: 'old', message: 'is not the password in force' },
    ])
    expect((await change(TEST_PASSWORD)).status).toBe(200)
    moments(3_000)
    expect((await here.call('GET', '/api/session')).status).toBe(200)
    expect((await there.call('GET', '/api/session')).status).toBe(401)
  })
})

describe('one’s sessions', () => {
  it('are listed with device and last use, and end one by one or all others at once', async () => {
    const gil = await somebody().signIn('gil')
    const list = async (who: TestClient) =>
      (await who.call('GET', '/api/sessions')).body.sessions as {
        id: string
        here: boolean
        device: string
      }[]
    const other = await somebody().signIn('gil')
    const third = await somebody().signIn('gil')
    expect((await list(gil)).map((one) => one.here).filter(Boolean)).toHaveLength(1)
    expect((await list(gil)).length).toBeGreaterThanOrEqual(3)
    expect((await list(gil))[0]?.device).toContain('node')
    const hers = (await list(other)).find((one) => one.here)
    // Nobody ends another's.
    await ann.call('DELETE', `/api/sessions/${hers?.id}`)
    expect((await other.call('GET', '/api/session')).status).toBe(200)
    await gil.call('DELETE', `/api/sessions/${hers?.id}`)
    moments(3_000)
    expect((await other.call('GET', '/api/session')).status).toBe(401)
    expect((await third.call('GET', '/api/session')).status).toBe(200)
    const left = (await gil.call('DELETE', '/api/sessions/others')).body.sessions as unknown[]
    expect(left).toHaveLength(1)
    moments(3_000)
    expect([
      (await gil.call('GET', '/api/session')).status,
      (await third.call('GET', '/api/session')).status,
    ]).toEqual([200, 401])
  })

  it('end by the owner’s hand, but for the owner’s own in use', async () => {
    const gil = await somebody().signIn('gil')
    await ann.call('DELETE', `/api/people/${await idOf('Gil Fen')}/sessions`)
    moments(3_000)
    expect((await gil.call('GET', '/api/session')).status).toBe(401)
    const again = await somebody().signIn('ann')
    expect((await ann.call('DELETE', `/api/people/${ann.me.id}/sessions`)).status).toBe(200)
    moments(3_000)
    expect((await again.call('GET', '/api/session')).status).toBe(401)
    expect((await ann.call('GET', '/api/session')).status).toBe(200)
  })
})

describe('a person of the firm', () => {
  it('is given what is the owner’s, one by one, and loses it again within three seconds', async () => {
    const bob = await somebody().signIn('bob', 'a new one, longer')
    const asks: Record<string, () => Promise<Answer>> = {
      catalogue: () => bob.call('POST', '/api/catalogue/pack', { pack: {} }),
      rules: () => bob.call('PUT', '/api/house-rules', {}),
      columns: () => bob.call('PUT', '/api/list-columns', { columns: {} }),
    }
    const give = async (role: string, rights: string[]) => {
      const id = await idOf('Bob Marsh')
      expect((await ann.call('PUT', `/api/people/${id}`, { role, rights })).status).toBe(200)
      moments(3_000)
    }
    for (const [right, ask] of Object.entries(asks)) {
      await give(
        'installer',
        Object.keys(asks).filter((other) => other !== right),
      )
      expect([right, (await ask()).status]).toEqual([right, 403])
      await give('installer', [right])
      expect([right, (await ask()).status]).not.toEqual([right, 403])
    }
    // A viewer changes nothing, whatever was given.
    await give('viewer', ['catalogue', 'rules', 'columns'])
    for (const ask of Object.values(asks)) expect((await ask()).status).toBe(403)
    await give('owner', [])
    for (const ask of Object.values(asks)) expect((await ask()).status).not.toBe(403)
    await give('installer', [])
    expect((await bob.call('GET', '/api/people')).status).toBe(403)
  })

  it('who left is out at once, and stays in the journal by name', async () => {
    const bob = await somebody().signIn('bob', 'a new one, longer')
    const job = await bob.beginJob()
    const id = await idOf('Bob Marsh')
    expect((await ann.call('DELETE', `/api/people/${id}`)).status).toBe(200)
    moments(3_000)
    expect((await bob.call('GET', '/api/session')).status).toBe(401)
    await expect(somebody().signIn('bob', 'a new one, longer')).rejects.toThrow('do not belong together')
    const { people } = (await ann.call('GET', '/api/people')).body as unknown as {
      people: { name: string; login: string; removedAt: string | null }[]
    }
    const gone = people.find((person) => person.name === 'Bob Marsh')
    expect([gone?.login, gone?.removedAt === null]).toEqual(['', false])
    // Those who left stand behind those who are here.
    expect(people.findIndex((person) => person.removedAt !== null)).toBe(
      people.filter((one) => one.removedAt === null).length,
    )
    const entries = (await ann.call('GET', `/api/jobs/${job}/journal`)).body.entries as {
      edit: { by: { name: string } }
    }[]
    expect(entries[0]?.edit.by.name).toBe('Bob Marsh')
    for (const path of [`/api/people/${id}`, `/api/people/${id}/password-link`])
      expect(
        (await ann.call(path.endsWith('link') ? 'POST' : 'PUT', path, { role: 'owner', rights: [] })).status,
      ).toBe(404)
    // The sign-in name is free again.
    const token = tokenOf(await ann.call('POST', '/api/invitations', { role: 'installer' }))
    expect((await accept(token, 'bob', 'Bob Younger')).status).toBe(200)
  })

  it('cannot be the last owner to go, nor two at once', async () => {
    for (const [method, body] of [
      ['PUT', { role: 'installer', rights: [] }],
      ['DELETE', undefined],
    ] as const) {
      const answer = await ann.call(method, `/api/people/${ann.me.id}`, body)
      expect([answer.status, answer.body.title]).toEqual([
        409,
        'The firm needs an owner: make somebody else one first. Nothing was changed.',
      ])
    }
    const second = await idOf('Gil Fen')
    await ann.call('PUT', `/api/people/${second}`, { role: 'owner', rights: [] })
    const gil = await somebody().signIn('gil')
    const both = await Promise.all([
      ann.call('PUT', `/api/people/${second}`, { role: 'viewer', rights: [] }),
      gil.call('PUT', `/api/people/${ann.me.id}`, { role: 'viewer', rights: [] }),
    ])
    // Either the second is refused, or the first took its right away before.
    expect(both.filter((answer) => answer.status === 200)).toHaveLength(1)
    moments(3_000)
    const firm = await somebody().signIn(both[0]?.status === 200 ? 'ann' : 'gil')
    expect((await firm.call('GET', '/api/people')).status).toBe(200)
  })
})
