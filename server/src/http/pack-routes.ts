import { z } from 'zod'
import { Catalogue, comparePack, PACK_LIMIT, packJsonSchema, readPack, writePack, writtenOf } from '#core'
import { entriesAnswer, packAnswer } from '#wire'
import type { Store } from '../db/store.ts'
import { AppError } from '../errors/app-error.ts'
import { FileAnswer, route, type Route } from './route.ts'

/** Routes that bring catalogue packs in and out. */
export function packRoutes(store: Store): Route[] {
  return [
    route({
      method: 'get',
      path: '/api/catalogue/pack',
      summary: 'The offered entries as one catalogue pack',
      role: 'viewer',
      file: 'application/json',
      handle: async ({ who }) => {
        const entries = await store.catalogueOf(who.firmId).current()
        return new FileAnswer(
          'catalogue-pack.json',
          'application/json',
          writePack(`Catalogue of ${who.firmName}`, entries),
        )
      },
    }),
    route({
      method: 'post',
      path: '/api/catalogue/pack',
      summary: 'Take a catalogue pack in: all of it or nothing',
      role: 'installer',
      right: 'catalogue',
      bodyKb: 6 * 1024,
      body: z.object({ pack: z.unknown() }),
      answer: packAnswer,
      handle: async ({ who, body }) => {
        if (Buffer.byteLength(JSON.stringify(body.pack ?? null)) > PACK_LIMIT)
          throw new AppError(
            'TOO_LARGE',
            `A catalogue pack may have at most ${PACK_LIMIT / 1e6} MB. Split it; nothing was changed.`,
          )
        const catalogue = store.catalogueOf(who.firmId)
        const current = await catalogue.current()
        const read = readPack(
          body.pack,
          current.map((item) => item.entry),
        )
        if (!read.ok)
          throw new AppError(
            'INVALID',
            'This pack was not taken; nothing was changed.',
            read.problems.slice(0, 100),
          )
        const changes = comparePack(read.entries, new Catalogue(current))
        await catalogue.add(read.entries, true)
        const count = (state: string): number => changes.filter((change) => change.state === state).length
        return { new: count('new'), changed: count('changed'), same: count('same') }
      },
    }),
    route({
      method: 'get',
      path: '/api/catalogue/entries',
      summary: 'Kept entries of this firm by their hashes: those that a job pins, offered or not',
      role: 'viewer',
      query: z.object({
        hashes: z
          .string()
          .regex(/^[0-9a-f]{64}(,[0-9a-f]{64}){0,99}$/, 'must be 1 to 100 hashes, with commas'),
      }),
      answer: entriesAnswer,
      handle: async ({ who, query }) => ({
        entries: (await store.catalogueOf(who.firmId).byHashes(query.hashes.split(','))).map(writtenOf),
      }),
    }),
    route({
      method: 'get',
      path: '/api/catalogue/schema.json',
      summary: 'The JSON Schema of a catalogue pack',
      role: 'public',
      file: 'application/schema+json',
      handle: async () => packJsonSchema(),
    }),
  ]
}
