import { z } from 'zod'
import { Catalogue, draftEntry, draftKernel, type Sender } from '#core'
import * as wire from '#wire'
import type { DraftTaken } from '../db/drafts.ts'
import type { Account } from '../db/people.ts'
import type { Store } from '../db/store.ts'
import { AppError } from '../errors/app-error.ts'
import { route, type Route } from './route.ts'

const params = z.object({ draft: z.string().regex(/^[0-9a-f-]{36}$/, 'must be a draft id') })
/** Drafts that a list shows. */
const MOST = 200
const NONE = 'There is no such draft in this firm.'
const CLOSED = 'This draft was published or put aside: begin a correction of the entry instead.'

/** Routes by which entries of the firm’s own catalogue are described and published. */
export function draftRoutes(store: Store, clock: () => Date = () => new Date()): Route[] {
  const draftsOf = (who: Account) => store.draftsOf(who.firmId)

  async function take(
    who: Account,
    id: string,
    input: unknown,
    create: boolean,
  ): Promise<{ revision: number }> {
    if (!create && !(await draftsOf(who).row(id))) throw new AppError('NOT_FOUND', NONE)
    const read = draftKernel.readEdit(input)
    if (!read.ok)
      throw read.code === 'newer'
        ? new AppError('CONFLICT', 'This was made on a newer version of Kapelle: load the page again.')
        : new AppError('INVALID', 'This change was not taken.', read.problems)
    const sender: Sender = { id: who.id, name: who.name, role: who.role }
    let revision = 0
    for (const edit of read.edits) {
      const problems = draftKernel.authorityProblems(edit, sender, null)
      const begins = edit.ops.some((op) => op.op === 'add' && op.record.type === 'draft')
      if (create && !begins)
        problems.push({ path: 'ops', message: 'the first edit of a draft must add draft:main' })
      if (problems.length > 0) throw new AppError('INVALID', 'This change was not taken.', problems)
      const now = clock()
      const own = draftKernel.stamped(edit, { who: sender, clocks: { now, behindMs: 0 }, undone: null })
      revision = takenAt(await draftsOf(who).take(id, { edit: own, now, create }))
    }
    return { revision }
  }

  return [
    route({
      method: 'get',
      path: '/api/catalogue/drafts',
      summary: 'Drafts of catalogue entries, and what was published of them, the latest first',
      role: 'viewer',
      answer: wire.draftList,
      handle: async ({ who }) => ({
        drafts: (await draftsOf(who).list(MOST)).map((row) => ({
          ...{ id: row.id, kind: row.kind, name: row.name, corrects: row.corrects, state: row.state },
          ...{ entryId: row.entryId, hash: row.hash, why: row.why, revision: row.revision },
          ...{ changedBy: row.changedBy, changedAt: row.changedAt.toISOString() },
        })),
      }),
    }),
    route({
      method: 'put',
      path: '/api/catalogue/drafts/:draft',
      summary: 'Begin a draft with its first edit; the same request again changes nothing',
      role: 'installer',
      params,
      body: z.object({ edit: z.unknown() }),
      answer: wire.draftTaken,
      handle: async ({ who, params: { draft }, body }) => take(who, draft, body.edit, true),
    }),
    route({
      method: 'get',
      path: '/api/catalogue/drafts/:draft',
      summary: 'A draft: its journal after a revision, and whether it is at work',
      role: 'viewer',
      params,
      query: z.object({ since: z.coerce.number().int().min(0).default(0) }),
      answer: wire.openedDraft,
      handle: async ({ who, params: { draft }, query }) => {
        const row = await draftsOf(who).row(draft)
        if (!row) throw new AppError('NOT_FOUND', NONE)
        return {
          state: row.state,
          entryId: row.entryId,
          entries: await draftsOf(who).since(draft, query.since),
        }
      },
    }),
    route({
      method: 'post',
      path: '/api/catalogue/drafts/:draft/edits',
      summary: 'Take one edit of a draft',
      role: 'installer',
      params,
      body: z.object({ edit: z.unknown() }),
      answer: wire.draftTaken,
      handle: async ({ who, params: { draft }, body }) => take(who, draft, body.edit, false),
    }),
    route({
      method: 'post',
      path: '/api/catalogue/drafts/:draft/published',
      summary: 'Publish what a draft comes to: whole, or not at all',
      role: 'installer',
      right: 'catalogue',
      params,
      body: z.object({ revision: z.number().int(), why: z.string().max(300).default('') }),
      answer: wire.publishedDraft,
      handle: async ({ who, params: { draft }, body }) => {
        const catalogue = store.catalogueOf(who.firmId)
        const said = { why: body.why.trim(), by: who.name, now: clock() }
        const published = await draftsOf(who).publish(
          draft,
          { revision: body.revision, ...said },
          {
            judge: async (doc, manager) => {
              const { kept, problems, missing } = draftEntry(
                doc,
                new Catalogue(await catalogue.current(manager)),
              )
              return (
                kept ?? [...problems, ...missing.map((path) => ({ path, message: 'is not answered yet' }))]
              )
            },
            keep: async (kept, manager) => {
              const { by, now: at, why } = said
              await catalogue.add([kept], { how: 'published', by, at, why }, manager)
              await store.leafletsOf(who.firmId).handOver(`draft/${draft}`, kept.entry.id, manager)
            },
          },
        )
        switch (published.outcome) {
          case 'no-draft':
            throw new AppError('NOT_FOUND', NONE)
          case 'closed':
            throw new AppError('CONFLICT', CLOSED)
          case 'moved':
            throw new AppError(
              'CONFLICT',
              'Somebody changed this draft meanwhile: look at it, then publish it again.',
            )
          case 'invalid':
            throw new AppError(
              'INVALID',
              'This draft was not published; nothing was changed.',
              published.problems,
            )
          case 'published':
            return {
              entryId: published.kept.entry.id,
              hash: published.kept.hash,
              version: published.kept.entry.version,
            }
        }
      },
    }),
    route({
      method: 'delete',
      path: '/api/catalogue/drafts/:draft',
      summary: 'Put a draft aside',
      role: 'installer',
      params,
      answer: wire.okAnswer,
      handle: async ({ who, params: { draft } }) => {
        if (!(await draftsOf(who).drop(draft, who.name, clock()))) throw new AppError('NOT_FOUND', NONE)
        await store.leafletsOf(who.firmId).removeAbout(`draft/${draft}`)
        return { ok: true }
      },
    }),
  ]
}

/** The revision at which an edit stands; throws where it was not taken. */
function takenAt(taken: DraftTaken): number {
  switch (taken.outcome) {
    case 'taken':
      return taken.revision
    case 'no-draft':
      throw new AppError('NOT_FOUND', NONE)
    case 'closed':
      throw new AppError('CONFLICT', CLOSED)
    case 'conflict':
      throw new AppError(
        'CONFLICT',
        'Somebody else answered this meanwhile: look at their answer, then say yours again.',
        [{ path: taken.field, message: 'was changed by somebody else' }],
      )
  }
}
