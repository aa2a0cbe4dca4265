import { z } from 'zod'
import type { Accounts } from '../auth/accounts.ts'
import type { Store } from '../db/store.ts'
import { labelPapers, writtenOf, type EditsAnswer, type KeptEntry } from '#core'
import * as wire from '#wire'
import type { Jobs } from '../jobs/jobs.ts'
import type { Summaries } from '../jobs/summaries.ts'
import type { Backups } from '../service/backups.ts'
import type { Room } from '../service/room.ts'
import { AppError } from '../errors/app-error.ts'
import { firmRoutes } from './firm-routes.ts'
import { peopleRoutes, sessionRoutes } from './people-routes.ts'
import { serviceRoutes } from './service-routes.ts'
import { draftRoutes } from './draft-routes.ts'
import { leafletRoutes, leafletWire } from './leaflet-routes.ts'
import { packRoutes } from './pack-routes.ts'
import { standingRoutes } from './standing-routes.ts'
import { FileAnswer, route, StatusAnswer, type Route } from './route.ts'

/** What the routes work with. */
export interface Services {
  readonly store: Store
  readonly accounts: Accounts
  readonly jobs: Jobs
  readonly summaries: Summaries
  readonly room: Room
  readonly backups: Backups
  /** The invented world that ships for practice. */
  readonly world: () => readonly KeptEntry[]
  /** Which build runs, and since when. */
  readonly service: { readonly build: string; readonly since: Date }
}

const jobParams = z.object({ job: z.string().regex(/^[0-9a-f-]{36}$/, 'must be a job id') })
/** As many labels as the fullest sheet has. */
const MOST_LABELS = 30
/** The largest bodies: edits of a whole plan at once, and a job file with the entries that it pins, kB. */
const EDITS_KB = 4 * 1024
const FILE_KB = 10 * 1024
const sentAt = wire.sentEdits.shape.sentAt

/** Every route of the product. */
export function allRoutes(services: Services): Route[] {
  return [
    ...serviceRoutes(services),
    ...sessionRoutes(services),
    ...peopleRoutes(services),
    ...jobRoutes(services),
    ...catalogueRoutes(services),
    ...packRoutes(services.store),
    ...draftRoutes(services.store),
    ...leafletRoutes(services.store),
    ...standingRoutes(services),
    ...firmRoutes(services),
  ]
}

function jobRoutes({ jobs, store }: Services): Route[] {
  return [
    route({
      method: 'get',
      path: '/api/jobs',
      summary: 'Jobs of the firm, found by name, address or serial, each as it was last summed up',
      role: 'viewer',
      query: z.object({ find: z.string().max(100).default('') }),
      answer: wire.jobList,
      handle: async ({ who, query }) => jobs.list(who, query.find),
    }),
    route({
      method: 'put',
      path: '/api/jobs/:job',
      bodyKb: EDITS_KB,
      summary: 'Begin a job with its first edit; the same request again changes nothing',
      role: 'installer',
      params: jobParams,
      body: z.object({ edit: z.unknown(), sentAt }),
      answer: wire.editsAnswer,
      handle: async ({ who, params, body }) =>
        answered(await jobs.take(who, params.job, { edits: [body.edit], sentAt: body.sentAt ?? null }, true)),
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job',
      summary: 'A job: its document, revision, the catalogue entries it pins, and what the caller can undo',
      role: 'viewer',
      params: jobParams,
      answer: wire.openedJob,
      handle: async ({ who, params }) => jobs.open(who, params.job),
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/edits',
      summary: 'Journal entries after a revision, oldest first',
      role: 'viewer',
      params: jobParams,
      query: z.object({ since: z.coerce.number().int().min(0).default(0) }),
      answer: wire.journalPage,
      handle: async ({ who, params, query }) => ({
        entries: await jobs.since(who, params.job, query.since),
      }),
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/journal',
      summary: 'A page of the journal, newest first; with about, entries that touch one of these records',
      role: 'viewer',
      params: jobParams,
      query: z.object({
        before: z.coerce.number().int().min(1).default(Number.MAX_SAFE_INTEGER),
        about: z.string().max(2000).default(''),
      }),
      answer: wire.journalPage,
      handle: async ({ who, params, query }) => ({
        entries: await jobs.before(
          who,
          params.job,
          query.before,
          query.about.split(',').filter((id) => id !== ''),
        ),
      }),
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/undo',
      summary: 'What the caller can take back and bring back',
      role: 'viewer',
      params: jobParams,
      answer: wire.undoAnswer,
      handle: async ({ who, params }) => jobs.undo(who, params.job),
    }),
    route({
      method: 'post',
      path: '/api/jobs/:job/edits',
      bodyKb: EDITS_KB,
      summary: 'Take edits in order; stops at the first that is not taken',
      role: 'installer',
      params: jobParams,
      body: wire.sentEdits,
      answer: wire.editsAnswer,
      handle: async ({ who, params, body }) =>
        answered(await jobs.take(who, params.job, { edits: body.edits, sentAt: body.sentAt ?? null }, false)),
    }),
    route({
      method: 'post',
      path: '/api/jobs/:job/handed-in',
      bodyKb: EDITS_KB,
      summary:
        'Hand in what somebody who left the firm had made and not sent: journalled as the owner’s, made by them',
      role: 'owner',
      params: jobParams,
      body: wire.sentEdits.extend({ person: z.string().max(60) }),
      answer: wire.editsAnswer,
      handle: async ({ who, params, body }) => {
        const maker = await store.people.whoLeft(who.firmId, body.person)
        if (!maker)
          throw new AppError(
            'NOT_FOUND',
            'Nobody of this id left the firm: only what they had made is handed in.',
          )
        const sent = { edits: body.edits, sentAt: body.sentAt ?? null }
        return answered(await jobs.take(who, params.job, sent, false, maker))
      },
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/file',
      summary: 'The job as one open JSON file with the catalogue entries it pins',
      role: 'viewer',
      params: jobParams,
      file: 'application/json',
      handle: async ({ who, params }) => {
        const { name: file, text } = await jobs.file(who, params.job)
        return new FileAnswer(file, 'application/json', text)
      },
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/schedule.csv',
      summary: 'The zone schedule as CSV; formulas are neutralised',
      role: 'viewer',
      params: jobParams,
      file: 'text/csv',
      handle: async ({ who, params }) => {
        const { name: file, content } = await jobs.schedule(who, params.job, 'csv')
        return new FileAnswer(file, 'text/csv; charset=utf-8', content)
      },
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/schedule.pdf',
      summary: 'The zone schedule as PDF',
      role: 'viewer',
      params: jobParams,
      file: 'application/pdf',
      handle: async ({ who, params }) => {
        const { name: file, content } = await jobs.schedule(who, params.job, 'pdf')
        return new FileAnswer(file, 'application/pdf', content)
      },
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/labels.pdf',
      summary: 'Labels for the boxes of a job, each with a code that opens its device',
      role: 'viewer',
      params: jobParams,
      query: z.object({
        paper: z.enum(labelPapers.map(({ key }) => key)).default('a4-24'),
        from: z.coerce.number().int().min(1).max(MOST_LABELS).default(1),
      }),
      file: 'application/pdf',
      handle: async ({ who, params, query, origin }) => {
        const { name: file, content } = await jobs.labels(who, params.job, { ...query, origin })
        return new FileAnswer(file, 'application/pdf', content)
      },
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/zone-card.pdf',
      summary: 'The card that tells zones where the panel shows no label',
      role: 'viewer',
      params: jobParams,
      file: 'application/pdf',
      handle: async ({ who, params }) => {
        const { name: file, content } = await jobs.zoneCard(who, params.job)
        return new FileAnswer(file, 'application/pdf', content)
      },
    }),
    route({
      method: 'put',
      path: '/api/jobs/:job/file',
      bodyKb: FILE_KB,
      asText: true,
      summary: 'Begin a job from a job file; its evidence is told by the file and counts for nothing',
      role: 'installer',
      params: jobParams,
      query: z.object({ edit: z.string().min(8).max(38) }),
      body: z.string('must be a job file').min(2),
      answer: wire.editsAnswer,
      handle: async ({ who, params, query, body }) =>
        answered(await jobs.importFile(who, params.job, query.edit, body)),
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/around',
      summary: "The firm's other jobs that use this transmitter ID, or one that is nearly it",
      role: 'viewer',
      params: jobParams,
      query: z.object({
        serial: z.string().regex(/^[0-9A-Z]{4,20}$/, 'must be an ID of 4 to 20 digits and capital letters'),
      }),
      answer: wire.usesAnswer,
      handle: async ({ who, params, query }) => ({ uses: await jobs.around(who, params.job, query.serial) }),
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/helped',
      summary: "What made devices heard in the firm's other jobs, practice or real as this one",
      role: 'viewer',
      params: jobParams,
      answer: wire.helpedAnswer,
      handle: async ({ who, params }) => ({ helped: await jobs.helped(who, params.job) }),
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/elsewhere',
      summary: "The firm's other jobs that use this job's transmitter IDs",
      role: 'viewer',
      params: jobParams,
      answer: wire.usesAnswer,
      handle: async ({ who, params }) => ({ uses: await jobs.elsewhere(who, params.job) }),
    }),
  ]
}

function catalogueRoutes({ store }: Services): Route[] {
  return [
    route({
      method: 'get',
      path: '/api/catalogue',
      summary: 'The entries of the catalogue as they were written, how they stand, and their leaflets',
      role: 'viewer',
      answer: wire.catalogueAnswer,
      handle: async ({ who }) => ({
        // Asked first: what moves while the rest is read is then asked for once more, never missed.
        state: await store.catalogueOf(who.firmId).state(),
        entries: (await store.catalogueOf(who.firmId).current()).map(writtenOf),
        acts: await store.catalogueOf(who.firmId).acts(),
        leaflets: (await store.leafletsOf(who.firmId).list()).map(leafletWire),
      }),
    }),
  ]
}

/** 200 when all were taken; else the status of the one that was not, with every answer so far. */
function answered(result: EditsAnswer): unknown {
  const last = result.answers.at(-1)
  if (!last || last.outcome === 'taken') return result
  if (last.outcome === 'invalid')
    throw new AppError(
      'INVALID',
      'This change was not taken, and nothing was changed by it.',
      last.problems,
      { ...result },
    )
  const [status, type, title] =
    last.outcome === 'conflict'
      ? ([409, 'conflict', 'Someone changed the same thing in the meantime.'] as const)
      : ([
          426,
          'newer',
          'This was made on a newer version than this server is: it is kept there until the server is updated.',
        ] as const)
  return new StatusAnswer(status, { type: `urn:kapelle:error:${type}`, title, status, ...result })
}
