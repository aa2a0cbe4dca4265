import { z } from 'zod'
import type { Accounts } from '../auth/accounts.ts'
import type { Account } from '../db/people.ts'
import type { Store } from '../db/store.ts'
import { roles, writtenOf, type EditsAnswer } from '#core'
import * as wire from '#wire'
import type { Jobs } from '../jobs/jobs.ts'
import type { Summaries } from '../jobs/summaries.ts'
import { AppError } from './errors.ts'
import { firmRoutes } from './firm-routes.ts'
import { packRoutes } from './pack-routes.ts'
import { FileAnswer, route, StatusAnswer, type Route } from './route.ts'

/** What the routes work with. */
export interface Services {
  readonly store: Store
  readonly accounts: Accounts
  readonly jobs: Jobs
  readonly summaries: Summaries
}

const jobParams = z.object({ job: z.string().regex(/^[0-9a-f-]{36}$/, 'must be a job id') })
const login = z.string().trim().min(3).max(80)
const password = z.string().min(10).max(200)
const name = z.string().trim().min(1).max(80)
const sentAt = wire.sentEdits.shape.sentAt
const account = wire.accountWire

/** Every route of the product. */
export function allRoutes(services: Services): Route[] {
  return [
    ...sessionRoutes(services),
    ...peopleRoutes(services),
    ...jobRoutes(services),
    ...catalogueRoutes(services),
    ...packRoutes(services.store),
    ...firmRoutes(services),
  ]
}

function sessionRoutes({ accounts }: Services): Route[] {
  return [
    route({
      method: 'post',
      path: '/api/session',
      summary: 'Sign in',
      role: 'public',
      guarded: true,
      body: z.object({ login: z.string().min(1).max(80), password: z.string().min(1).max(200) }),
      answer: account,
      handle: async ({ body, setSession }) => {
        const session = await accounts.signIn(body.login, body.password)
        setSession(session)
        return shown(session.account)
      },
    }),
    route({
      method: 'get',
      path: '/api/session',
      summary: 'Who is signed in',
      role: 'viewer',
      answer: account,
      handle: async ({ who }) => shown(who),
    }),
    route({
      method: 'delete',
      path: '/api/session',
      summary: 'Sign out',
      role: 'public',
      answer: wire.okAnswer,
      handle: async ({ token, setSession }) => {
        if (token) await accounts.signOut(token)
        setSession(null)
        return { ok: true }
      },
    }),
    route({
      method: 'get',
      path: '/api/setup',
      summary: 'Whether this Kapelle still waits for its first firm',
      role: 'public',
      answer: wire.setupAnswer,
      handle: async () => ({ needed: (await accounts.setupToken()) !== null }),
    }),
    route({
      method: 'post',
      path: '/api/setup',
      summary: 'Make the first firm and its owner, with the token of the set-up link',
      role: 'public',
      guarded: true,
      body: z.object({
        token: z.string().max(100),
        firm: z.string().trim().min(1).max(120),
        name,
        login,
        password,
      }),
      answer: account,
      handle: async ({ body, setSession }) => {
        const made = await accounts.setUp(body)
        setSession(await accounts.signIn(body.login, body.password))
        return shown(made)
      },
    }),
  ]
}

function peopleRoutes({ accounts, store }: Services): Route[] {
  return [
    route({
      method: 'get',
      path: '/api/people',
      summary: 'The people of the firm',
      role: 'owner',
      answer: wire.peopleAnswer,
      handle: async ({ who }) => ({ people: await store.people.peopleOf(who.firmId) }),
    }),
    route({
      method: 'post',
      path: '/api/people',
      summary: 'Add a person to the firm',
      role: 'owner',
      body: z.object({ name, login, role: z.enum(roles), password }),
      answer: wire.peopleAnswer,
      handle: async ({ who, body }) => {
        await accounts.addPerson(who.firmId, body)
        return { people: await store.people.peopleOf(who.firmId) }
      },
    }),
  ]
}

function jobRoutes({ jobs }: Services): Route[] {
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
      summary: 'Take edits in order; stops at the first that is not taken',
      role: 'installer',
      params: jobParams,
      body: wire.sentEdits,
      answer: wire.editsAnswer,
      handle: async ({ who, params, body }) =>
        answered(await jobs.take(who, params.job, { edits: body.edits, sentAt: body.sentAt ?? null }, false)),
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
      method: 'put',
      path: '/api/jobs/:job/file',
      summary: 'Begin a job from a job file; its evidence is told by the file and counts for nothing',
      role: 'installer',
      params: jobParams,
      body: z.object({ edit: z.string().min(8).max(38), file: z.unknown() }),
      answer: wire.editsAnswer,
      handle: async ({ who, params, body }) =>
        answered(await jobs.importFile(who, params.job, body.edit, body.file)),
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
      summary: 'The catalogue entries offered for new work, as they were written',
      role: 'viewer',
      answer: wire.entriesAnswer,
      handle: async ({ who }) => ({
        entries: (await store.catalogueOf(who.firmId).current()).map(writtenOf),
      }),
    }),
  ]
}

function shown({ id, name, login, role, firmName, firmId }: Account): wire.AccountWire {
  return { id, name, login, role, firm: firmName, firmId }
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
