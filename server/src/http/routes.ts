import { z } from 'zod'
import type { Accounts } from '../auth/accounts.ts'
import type { Store } from '../db/store.ts'
import type { EditAnswer, Jobs } from '../jobs/jobs.ts'
import { AppError } from './errors.ts'
import { firmRoutes } from './firm-routes.ts'
import { packRoutes } from './pack-routes.ts'
import { FileAnswer, route, StatusAnswer, type Route } from './route.ts'

/** What the routes work with. */
export interface Services {
  readonly store: Store
  readonly accounts: Accounts
  readonly jobs: Jobs
}

const jobParams = z.object({ job: z.string().regex(/^[0-9a-f-]{36}$/, 'must be a job id') })
const login = z.string().trim().min(3).max(80)
const password = z.string().min(10).max(200)
const name = z.string().trim().min(1).max(80)
const account = z.object({
  id: z.string(),
  name: z.string(),
  login: z.string(),
  role: z.enum(['owner', 'installer']),
  firm: z.string(),
})
const edits = z.array(z.unknown()).min(1).max(100)
const answers = z.object({ answers: z.array(z.unknown()), revision: z.number() })

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
      role: 'installer',
      answer: account,
      handle: async ({ who }) => shown(who),
    }),
    route({
      method: 'delete',
      path: '/api/session',
      summary: 'Sign out',
      role: 'public',
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
      answer: z.object({ needed: z.boolean() }),
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
      answer: z.object({ people: z.array(account.omit({ firm: true })) }),
      handle: async ({ who }) => ({ people: await store.people.peopleOf(who.firmId) }),
    }),
    route({
      method: 'post',
      path: '/api/people',
      summary: 'Add a person to the firm',
      role: 'owner',
      body: z.object({ name, login, role: z.enum(['owner', 'installer']), password }),
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
      summary: 'Jobs of the firm, found by name, address or serial',
      role: 'installer',
      query: z.object({ find: z.string().max(100).default('') }),
      answer: z.object({ jobs: z.array(z.unknown()) }),
      handle: async ({ who, query }) => ({ jobs: await jobs.list(who, query.find) }),
    }),
    route({
      method: 'put',
      path: '/api/jobs/:job',
      summary: 'Begin a job with its first edit; the same request again changes nothing',
      role: 'installer',
      params: jobParams,
      body: z.object({ edit: z.unknown() }),
      answer: answers,
      handle: async ({ who, params, body }) => answered(await jobs.take(who, params.job, [body.edit], true)),
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job',
      summary: 'A job: its document, revision and the catalogue entries it pins',
      role: 'installer',
      params: jobParams,
      answer: z.object({ revision: z.number(), document: z.unknown(), entries: z.array(z.unknown()) }),
      handle: async ({ who, params }) => jobs.open(who, params.job),
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/edits',
      summary: 'Journal entries after a revision',
      role: 'installer',
      params: jobParams,
      query: z.object({ since: z.coerce.number().int().min(0).default(0) }),
      answer: z.object({ entries: z.array(z.unknown()) }),
      handle: async ({ who, params, query }) => ({
        entries: await jobs.journal(who, params.job, query.since),
      }),
    }),
    route({
      method: 'post',
      path: '/api/jobs/:job/edits',
      summary: 'Take edits in order; stops at the first that is not taken',
      role: 'installer',
      params: jobParams,
      body: z.object({ edits }),
      answer: answers,
      handle: async ({ who, params, body }) => answered(await jobs.take(who, params.job, body.edits, false)),
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/file',
      summary: 'The job as one open JSON file with the catalogue entries it pins',
      role: 'installer',
      params: jobParams,
      handle: async ({ who, params }) => {
        const { name: file, text } = await jobs.file(who, params.job)
        return new FileAnswer(file, 'application/json', text)
      },
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/schedule.csv',
      summary: 'The zone schedule as CSV; formulas are neutralised',
      role: 'installer',
      params: jobParams,
      handle: async ({ who, params }) => {
        const { name: file, content } = await jobs.schedule(who, params.job, 'csv')
        return new FileAnswer(file, 'text/csv; charset=utf-8', content)
      },
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/schedule.pdf',
      summary: 'The zone schedule as PDF',
      role: 'installer',
      params: jobParams,
      handle: async ({ who, params }) => {
        const { name: file, content } = await jobs.schedule(who, params.job, 'pdf')
        return new FileAnswer(file, 'application/pdf', content)
      },
    }),
    route({
      method: 'put',
      path: '/api/jobs/:job/file',
      summary: 'Begin a job from a job file',
      role: 'installer',
      params: jobParams,
      body: z.object({ edit: z.string().min(8).max(40), file: z.unknown() }),
      answer: answers,
      handle: async ({ who, params, body }) =>
        answered(await jobs.importFile(who, params.job, body.edit, body.file)),
    }),
    route({
      method: 'get',
      path: '/api/jobs/:job/elsewhere',
      summary: "The firm's other jobs that use this job's transmitter IDs",
      role: 'installer',
      params: jobParams,
      answer: z.object({ uses: z.array(z.object({ serial: z.string(), job: z.string() })) }),
      handle: async ({ who, params }) => ({ uses: await jobs.elsewhere(who, params.job) }),
    }),
  ]
}

function catalogueRoutes({ store }: Services): Route[] {
  return [
    route({
      method: 'get',
      path: '/api/catalogue',
      summary: 'The catalogue entries offered for new work',
      role: 'installer',
      answer: z.object({ entries: z.array(z.unknown()) }),
      handle: async ({ who }) => ({ entries: await store.catalogueOf(who.firmId).current() }),
    }),
  ]
}

function shown(who: { id: string; name: string; login: string; role: string; firmName: string }) {
  return { id: who.id, name: who.name, login: who.login, role: who.role, firm: who.firmName }
}

/** 200 when all were taken; else the status of the one that was not, with every answer so far. */
function answered(result: { answers: EditAnswer[]; revision: number }): unknown {
  const last = result.answers.at(-1)
  if (!last || last.outcome === 'taken') return result
  if (last.outcome === 'invalid')
    throw new AppError(
      'INVALID',
      'This change was not taken, and nothing was changed by it.',
      last.problems,
      { ...result },
    )
  return new StatusAnswer(409, {
    type: 'urn:kapelle:error:conflict',
    title: 'Someone changed the same thing in the meantime.',
    status: 409,
    ...result,
  })
}
