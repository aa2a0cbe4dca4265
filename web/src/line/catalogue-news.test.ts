import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { writtenOf, type CatalogueAct } from '#core'
import { catalogue } from '../testing/small-doc.ts'
import { useSession } from './session.ts'

/** What the server has, and how often all of it was asked for. */
const server = { state: 'one', acts: [] as CatalogueAct[], whole: 0, away: false }
const act: CatalogueAct = {
  ...{
    id: 'a',
    kind: 'retire',
    entryId: 'device/reedling',
    why: 'x',
    by: 'Nell',
    at: '2026-05-04T08:00:00.000Z',
  },
}

beforeEach(() => {
  setActivePinia(createPinia())
  Object.assign(server, { state: 'one', acts: [], whole: 0, away: false })
  vi.stubGlobal('fetch', (path: string) => {
    if (server.away) return Promise.reject(new TypeError('away'))
    if (path === '/api/catalogue/state') return Promise.resolve(Response.json({ state: server.state }))
    server.whole += 1
    const { state, acts } = server
    const entries = catalogue.kept.map(writtenOf)
    return Promise.resolve(Response.json({ state, acts, entries, leaflets: [] }))
  })
})

function signedIn() {
  const session = useSession()
  session.person = { id: 'p', name: 'Nell', login: 'nell', role: 'owner', rights: [], firm: 'F', firmId: 'f' }
  return session
}

it('asks for nothing that the page never needed', async () => {
  await signedIn().catalogueNews()
  expect(server.whole).toBe(0)
})

it('asks for all of it only once it moved, and takes what others said', async () => {
  const session = signedIn()
  const first = await session.loadCatalogue()
  await session.catalogueNews()
  expect([server.whole, session.catalogue === first]).toEqual([1, true])
  Object.assign(server, { state: 'two', acts: [act] })
  await session.catalogueNews()
  expect([server.whole, session.acts]).toEqual([2, [act]])
  expect(session.offered({ practice: false }).has('device/reedling')).toBe(false)
  await session.catalogueNews()
  expect(server.whole).toBe(2)
})

it('keeps what it knows while the line is away', async () => {
  const session = signedIn()
  const first = await session.loadCatalogue()
  server.away = true
  await session.catalogueNews()
  await expect(session.reloadCatalogue()).rejects.toThrow('cannot be reached')
  expect(session.catalogue).toBe(first)
})
