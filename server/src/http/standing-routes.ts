import { z } from 'zod'
import { catalogueActInput, jobInfo, openRecalls, recalledIn, writtenOf, type KeptEntry } from '#core'
import * as wire from '#wire'
import type { Store } from '../db/store.ts'
import { AppError } from '../errors/app-error.ts'
import { route, type Route } from './route.ts'

/** Routes by which a firm says how its entries stand: offered, for practice only, retired, recalled. */
export function standingRoutes({
  store,
  world,
  clock = () => new Date(),
}: {
  readonly store: Store
  /** The invented world that ships for practice. */
  readonly world: () => readonly KeptEntry[]
  readonly clock?: () => Date
}): Route[] {
  return [
    route({
      method: 'post',
      path: '/api/catalogue/acts',
      summary: 'Say how an entry stands: offered, for practice only, retired, recalled',
      role: 'installer',
      right: 'catalogue',
      body: catalogueActInput,
      answer: wire.catalogueActAnswer,
      handle: async ({ who, body }) => {
        const catalogue = store.catalogueOf(who.firmId)
        if (!(await catalogue.has(body.entryId)))
          throw new AppError('NOT_FOUND', 'There is no such entry in this firm’s catalogue.')
        if (
          body.kind === 'end-recall' &&
          !openRecalls(await catalogue.acts()).some(({ id }) => id === body.recall)
        )
          throw new AppError('CONFLICT', 'This recall was ended already.')
        return { act: await catalogue.say(body, who.name, clock()) }
      },
    }),
    route({
      method: 'post',
      path: '/api/catalogue/world',
      summary: 'Take the invented world in for practice: real jobs are not offered it',
      role: 'installer',
      right: 'catalogue',
      body: z.object({}),
      answer: z.object({ added: z.number().int() }),
      handle: async ({ who }) => ({
        added: await store.catalogueOf(who.firmId).addForPractice(world(), who.name, clock()),
      }),
    }),
    route({
      method: 'get',
      path: '/api/catalogue/state',
      summary: 'Whether the catalogue moved: the same text as before where it did not',
      role: 'viewer',
      answer: wire.catalogueState,
      handle: async ({ who }) => ({ state: await store.catalogueOf(who.firmId).state() }),
    }),
    route({
      method: 'get',
      path: '/api/catalogue/versions',
      summary: 'The versions of an entry that were offered, the latest first: by whom, when and why',
      role: 'viewer',
      query: z.object({
        id: z.string().regex(/^[a-z]{1,12}\/[a-z0-9-]{1,60}$/, 'must be the id of an entry'),
      }),
      answer: wire.versionsAnswer,
      handle: async ({ who, query }) => {
        const { versions, kept, current } = await store.catalogueOf(who.firmId).versions(query.id)
        return {
          versions: versions.map(({ at, ...one }) => ({ ...one, at: at?.toISOString() ?? null })),
          entries: kept.map(writtenOf),
          current,
        }
      },
    }),
    route({
      method: 'get',
      path: '/api/catalogue/recalls',
      summary: 'Open recalls, each with the jobs and devices that it is about or may be about',
      role: 'viewer',
      answer: wire.recallsAnswer,
      handle: async ({ who }) => {
        const recalls = openRecalls(await store.catalogueOf(who.firmId).acts())
        const jobs = store.jobsOf(who.firmId)
        const held: wire.RecallsAnswer['held'] = []
        for (const id of recalls.length === 0 ? [] : await jobs.ids()) {
          const head = await jobs.head(id)
          if (!head) continue
          for (const recall of recalls) {
            const devices = recalledIn(head.document, recall)
            if (devices.length > 0)
              held.push({
                recall: recall.id,
                job: id,
                name: jobInfo(head.document).name,
                devices: [...devices],
              })
          }
        }
        return { held }
      },
    }),
  ]
}
