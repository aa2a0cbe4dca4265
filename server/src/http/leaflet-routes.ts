import { z } from 'zod'
import { hasRight, leafletTrouble, leafletType, LEAFLET_LIMIT, MOST_LEAFLETS } from '#core'
import * as wire from '#wire'
import type { LeafletRow } from '../db/catalogue-entities.ts'
import type { Account } from '../db/people.ts'
import type { Store } from '../db/store.ts'
import { AppError } from '../errors/app-error.ts'
import { FileAnswer, route, type Route } from './route.ts'

const params = z.object({ leaflet: z.string().regex(/^[0-9a-f-]{36}$/, 'must be a leaflet id') })
const NONE = 'There is no such leaflet in this firm.'
const DRAFT = 'draft/'

/** Routes by which the maker's leaflets are kept beside entries and drafts. */
export function leafletRoutes(store: Store, clock: () => Date = () => new Date()): Route[] {
  async function found(who: Account, id: string): Promise<LeafletRow> {
    const row = await store.leafletsOf(who.firmId).head(id)
    if (!row) throw new AppError('NOT_FOUND', NONE)
    return row
  }

  async function isThere(who: Account, about: string): Promise<boolean> {
    if (!about.startsWith(DRAFT)) return store.catalogueOf(who.firmId).has(about)
    return (await store.draftsOf(who.firmId).row(about.slice(DRAFT.length)))?.state === 'open'
  }

  return [
    route({
      method: 'post',
      path: '/api/catalogue/leaflets',
      summary: 'Keep a leaflet (PDF or photo) beside an entry or a draft; sent again it is there once',
      role: 'installer',
      bodyKb: LEAFLET_LIMIT / 1024,
      asBytes: true,
      query: z.object({
        about: z
          .string()
          .max(80)
          .regex(
            /^[a-z]{1,12}\/[a-z0-9-]{1,60}$/,
            'must be the id of an entry, or draft/ and that of a draft',
          ),
        name: z
          .string()
          .trim()
          .min(1, 'must be the name of the file, in 1 to 120 characters')
          .max(120)
          .regex(/^[^\p{Cc}]*$/u, 'must be one line of plain text'),
      }),
      body: z.instanceof(Uint8Array, { message: 'must be a file' }),
      answer: wire.leafletAnswer,
      handle: async ({ who, query: { about, name }, body }) => {
        const content = Buffer.from(body)
        const [type, trouble] = [leafletType(content), leafletTrouble(content)]
        if (trouble !== null || type === null)
          throw new AppError('INVALID', 'The leaflet was not taken.', [
            { path: 'file', message: trouble ?? 'is no leaflet' },
          ])
        if (!(await isThere(who, about)))
          throw new AppError('NOT_FOUND', 'There is no such entry or open draft in this firm’s catalogue.')
        const row = await store
          .leafletsOf(who.firmId)
          .add({ about, name, type, content, by: who.name, at: clock() }, MOST_LEAFLETS)
        if (!row)
          throw new AppError('CONFLICT', `There are ${MOST_LEAFLETS} leaflets already: take one away first.`)
        return { leaflet: leafletWire(row) }
      },
    }),
    route({
      method: 'get',
      path: '/api/catalogue/leaflets/:leaflet',
      summary: 'A leaflet as it was sent, by what its content is',
      role: 'viewer',
      params,
      file: 'application/octet-stream',
      handle: async ({ who, params: { leaflet } }) => {
        const row = await found(who, leaflet)
        return new FileAnswer(row.name, row.type, await store.leafletsOf(who.firmId).content(leaflet), true)
      },
    }),
    route({
      method: 'delete',
      path: '/api/catalogue/leaflets/:leaflet',
      summary: 'Take a leaflet away for good',
      role: 'installer',
      params,
      answer: wire.okAnswer,
      handle: async ({ who, params: { leaflet } }) => {
        const row = await found(who, leaflet)
        if (!row.about.startsWith(DRAFT) && !hasRight(who, 'catalogue'))
          throw new AppError(
            'NOT_ALLOWED',
            'A leaflet of an entry is taken away by the owner, or by whoever the owner lets.',
          )
        await store.leafletsOf(who.firmId).remove(leaflet)
        return { ok: true }
      },
    }),
  ]
}

/** A leaflet as a client is told of it. */
export function leafletWire({
  id,
  about,
  name,
  type,
  bytes,
  addedBy,
  addedAt,
}: LeafletRow): wire.LeafletWire {
  return { id, about, name, type, bytes, by: addedBy, at: addedAt.toISOString() }
}
