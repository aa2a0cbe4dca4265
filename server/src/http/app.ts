import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import { parseCookie, stringifySetCookie } from 'cookie'
import compression from 'compression'
import express, { type Express, type NextFunction, type Request, type Response } from 'express'
import { rateLimit } from 'express-rate-limit'
import helmet from 'helmet'
import type { Logger } from 'pino'
import { pinoHttp } from 'pino-http'
import { check } from '#core'
import type { Account } from '../db/people.ts'
import { AppError, problemDetails, statusOf, toAppError } from './errors.ts'
import { EventStreams } from './events.ts'
import { openApi } from './openapi.ts'
import { allow, FileAnswer, StatusAnswer, type Call, type Route } from './route.ts'
import { allRoutes, type Services } from './routes.ts'

export interface AppOptions {
  readonly services: Services
  readonly logger: Logger
  /** Folder of the built client, or null to serve the API only. */
  readonly webRoot: string | null
  /** Name of this build; a client of another build reloads. */
  readonly build: string
  /** Largest body in MB. */
  readonly bodyMb?: number
}

const COOKIE = 'kapelle-session'

/** The Express application over the services; `streams` must be closed before the server is. */
export function createApp(options: AppOptions): { app: Express; streams: EventStreams; routes: Route[] } {
  const { services } = options
  const app = express()
  const streams = new EventStreams(services.store)
  app.disable('x-powered-by')
  app.use(
    pinoHttp({
      logger: options.logger,
      genReqId: () => randomUUID(),
      autoLogging: { ignore: (req) => !req.url?.startsWith('/api') },
      // Headers hold session cookies, and a log outlives its session: they stay out.
      serializers: {
        req: ({ id, method, url }: { id: unknown; method: string; url: string }) => ({ id, method, url }),
        res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
      },
    }),
  )
  app.use(security())
  app.use(
    compression({
      filter: (req, res) =>
        !String(res.getHeader('Content-Type')).startsWith('text/event-stream') &&
        compression.filter(req, res),
    }),
  )
  app.use('/api', (_req, res, next) => {
    res.set({ 'Cache-Control': 'no-store', 'X-Kapelle-Build': options.build })
    next()
  })
  app.use('/api', sameOrigin)
  app.use('/api', express.json({ limit: (options.bodyMb ?? 10) * 1_048_576, strict: false }))
  const routes = allRoutes(services)
  const guard = rateLimit({
    windowMs: 10 * 60_000,
    limit: 10,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: () => {
      throw new AppError('TOO_MANY', 'Too many failed tries. Wait ten minutes, then try again.')
    },
  })
  for (const route of routes)
    app[route.method](route.path, ...(route.guarded ? [guard] : []), adapt(route, services))
  app.get('/api/jobs/:job/events', async (req, res) => {
    const account = await accountOf(req, services)
    allow('viewer', account)
    const jobId = String(req.params.job)
    if (account) streams.open(account.firmId, jobId, await services.jobs.revision(account, jobId), res)
  })
  const document = openApi(routes)
  app.get('/api/openapi.json', (_req, res) => void res.json(document))
  app.use('/api', () => {
    throw new AppError('NOT_FOUND', 'There is nothing at this address.')
  })
  if (options.webRoot && existsSync(options.webRoot)) serveClient(app, options.webRoot)
  app.use(fail)
  return { app, streams, routes }
}

function adapt(route: Route, services: Services) {
  return async (req: Request, res: Response): Promise<void> => {
    const account = await accountOf(req, services)
    allow(route.role, account)
    const call: Call<unknown, unknown, unknown> = {
      params: parsed(route.params, req.params, 'The address names no such thing.'),
      query: parsed(route.query, req.query, 'The question in the address is not right.'),
      body: parsed(route.body, req.body, 'What was sent is not right; nothing was changed.'),
      token: tokenOf(req),
      get who(): Account {
        if (!account) throw new AppError('SIGN_IN_NEEDED', 'Sign in first.')
        return account
      },
      setSession: (session) => setCookie(req, res, session),
    }
    const value = await route.handle(call as Call<never, never, never>)
    if (value instanceof FileAnswer) {
      res.attachment(value.name).type(value.type).send(value.content)
    } else if (value instanceof StatusAnswer)
      res.status(value.status).type('application/problem+json').send(JSON.stringify(value.value))
    else res.json(value)
  }
}

function parsed(schema: Route['body'], value: unknown, title: string): unknown {
  if (!schema) return undefined
  const result = check<unknown>(schema, value ?? {})
  if (!result.ok) throw new AppError('INVALID', title, result.problems)
  return result.value
}

function tokenOf(req: Request): string | null {
  return parseCookie(req.headers.cookie ?? '')[COOKIE] ?? null
}

async function accountOf(req: Request, services: Services): Promise<Account | null> {
  const token = tokenOf(req)
  return token ? services.accounts.bySession(token) : null
}

function setCookie(req: Request, res: Response, session: { token: string; expiresAt: Date } | null): void {
  const common = { httpOnly: true, sameSite: 'strict', path: '/', secure: req.secure } as const
  const cookie = session
    ? stringifySetCookie({ name: COOKIE, value: session.token, expires: session.expiresAt, ...common })
    : stringifySetCookie({ name: COOKIE, value: '', maxAge: 0, ...common })
  res.append('Set-Cookie', cookie)
}

/** Writes come from our own pages only: a browser tells where a request was made. */
function sameOrigin(req: Request, _res: Response, next: NextFunction): void {
  if (req.method === 'GET' || req.method === 'HEAD') return next()
  const origin = req.headers.origin
  const foreign = origin !== undefined && hostOf(origin) !== req.headers.host
  if (foreign || req.headers['sec-fetch-site'] === 'cross-site')
    throw new AppError('NOT_ALLOWED', 'This request came from another site and was not carried out.')
  next()
}

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host
  } catch {
    return null
  }
}

function security() {
  return helmet({
    strictTransportSecurity: false,
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        frameAncestors: ["'none'"],
        formAction: ["'self'"],
      },
    },
  })
}

function serveClient(app: Express, root: string): void {
  app.use(
    '/assets',
    express.static(join(root, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
  )
  app.use(express.static(root, { index: false }))
  app.use((req, res, next) => {
    if (req.method !== 'GET') return next()
    res.set('Cache-Control', 'no-cache').sendFile(join(root, 'index.html'))
  })
}

function fail(thrown: unknown, req: Request, res: Response, next: NextFunction): void {
  if (res.headersSent) return next(thrown)
  const error = toAppError(thrown)
  if (error.code === 'INTERNAL') req.log.error({ err: error.cause ?? error }, error.message)
  res
    .status(statusOf[error.code])
    .type('application/problem+json')
    .send(JSON.stringify(problemDetails(error, String(req.id))))
}
