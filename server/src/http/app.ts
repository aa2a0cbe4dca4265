import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import { parseCookie, stringifySetCookie } from 'cookie'
import compression from 'compression'
import express, {
  type Express,
  type NextFunction,
  type Request,
  type RequestHandler,
  type Response,
} from 'express'
import { ipKeyGenerator, rateLimit } from 'express-rate-limit'
import helmet from 'helmet'
import type { Logger } from 'pino'
import { pinoHttp } from 'pino-http'
import { check } from '#core'
import type { Account } from '../db/people.ts'
import { bodyReader, STRANGER_KB } from './body.ts'
import { AppError } from '../errors/app-error.ts'
import { withoutValues } from '../errors/without-values.ts'
import { problemDetails, statusOf, toAppError } from './errors.ts'
import { EventStreams } from './events.ts'
import { openApi } from './openapi.ts'
import { allow, FileAnswer, StatusAnswer, type Call, type Route } from './route.ts'
import { allRoutes, type Services } from './routes.ts'

/** What the application is made of. */
export interface AppOptions {
  readonly services: Services
  readonly logger: Logger
  /** Folder of the built client, or null to serve the API only. */
  readonly webRoot: string | null
  /** Name of this build; a client of another build reloads. */
  readonly build: string
  /** Address of the one proxy that is believed when it says who calls and how; null for none. */
  readonly proxy?: string | null
  /** Whether people reach it over TLS, here or at the proxy. */
  readonly tls?: boolean
}

const COOKIE = 'kapelle-session'

/** The Express application over the services; `streams` must be closed before the server is. */
export function createApp(options: AppOptions): { app: Express; streams: EventStreams; routes: Route[] } {
  const { services } = options
  const app = express()
  const streams = new EventStreams(services.store, services.accounts)
  app.disable('x-powered-by')
  app.use(
    pinoHttp({
      logger: options.logger,
      genReqId: () => randomUUID(),
      autoLogging: { ignore: (req) => !req.url?.startsWith('/api') },
      // Headers hold session cookies, and a log outlives its session: they stay out.
      serializers: {
        // Nor what was asked for behind a question mark: names and serials are nobody's business here.
        req: ({ id, method, url }: { id: unknown; method: string; url: string }) => ({
          id,
          method,
          path: url.split('?')[0],
        }),
        res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
      },
    }),
  )
  app.set('trust proxy', options.proxy ? [options.proxy] : false)
  app.use(security(options.tls === true))
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
  const routes = allRoutes(services)
  const guard = rateLimit({
    windowMs: 10 * 60_000,
    limit: 20,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    keyGenerator: (req) => addressOf(req),
    // One address for everybody tells nobody apart: nobody is held back for another's tries.
    skip: (req) => addressOf(req) === '',
    handler: () => {
      throw new AppError('TOO_MANY', 'Too many failed tries. Wait ten minutes, then try again.')
    },
  })
  for (const route of routes)
    app[route.method](
      route.path,
      ...(route.guarded ? [guard] : []),
      admit(route, services),
      ...bodies(route),
      adapt(route, services, options.tls === true),
    )
  app.get('/api/jobs/:job/events', async (req, res) => {
    const token = tokenOf(req)
    const account = await accountOf(req, services)
    allow({ role: 'viewer', right: null }, account)
    const jobId = String(req.params.job)
    if (!account || !token) return
    const revision = await services.jobs.revision(account, jobId)
    streams.open({ firmId: account.firmId, jobId, revision, token }, res)
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

/** Lets only those on to a body and its handler who may call the route, and nobody write while the disk is full. */
function admit(route: Route, services: Services) {
  return async (req: Request, res: Response, next: NextFunction): Promise<void> => {
    const account = await accountOf(req, services)
    allow(route, account)
    if (route.method !== 'get' && !route.light && (await services.room.isFull()))
      throw new AppError(
        'FULL',
        'The disk of this Kapelle is full: nothing more is taken until there is room. What you did stays where it is and is sent then.',
        [],
        { retryAfter: FULL_SECONDS },
      )
    res.locals.account = account
    next()
  }
}

/** After how many seconds it is worth asking whether a full disk has room again. */
const FULL_SECONDS = 15

/** Reads the body by who sends it: a stranger gets no more room than a sign-in needs. */
function bodies(route: Route): RequestHandler[] {
  if (!route.body) return []
  const [stranger, known] = [Math.min(route.bodyKb, STRANGER_KB), route.bodyKb].map((kB) =>
    bodyReader(kB, route),
  )
  return [
    (req, res, next) => {
      const reader = res.locals.account ? known : stranger
      if (reader) void reader(req, res, next)
    },
  ]
}

function adapt(route: Route, services: Services, tls: boolean) {
  return async (req: Request, res: Response): Promise<void> => {
    const account = (res.locals.account ?? null) as Account | null
    const call: Call<unknown, unknown, unknown> = {
      params: parsed(route.params, req.params, 'The address names no such thing.'),
      query: parsed(route.query, req.query, 'The question in the address is not right.'),
      body: parsed(route.body, req.body, 'What was sent is not right; nothing was changed.'),
      token: tokenOf(req),
      from: { address: addressOf(req), device: req.headers['user-agent'] ?? '' },
      origin: `${tls || req.secure ? 'https' : 'http'}://${req.headers.host ?? ''}`,
      get who(): Account {
        if (!account) throw new AppError('SIGN_IN_NEEDED', 'Sign in first.')
        return account
      },
      setSession: (session) => setCookie(res, session, tls || req.secure),
    }
    const value = await route.handle(call as Call<never, never, never>)
    if (value instanceof FileAnswer) {
      if (value.foreign)
        res.set({
          'Content-Security-Policy': "default-src 'none'; sandbox",
          'Cache-Control': 'private, max-age=604800, immutable',
        })
      res.attachment(value.name).type(value.type).send(value.content)
    } else if (value instanceof StatusAnswer)
      res.status(value.status).type(value.type).send(JSON.stringify(value.value))
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

/**
 * The address that a call comes from, a network of one household for IPv6; empty for this machine itself, where a proxy that
 * was not named may stand for everybody.
 */
function addressOf(req: Request): string {
  const address = req.ip ?? ''
  return isLoopback(address) ? '' : ipKeyGenerator(address, 64)
}

function isLoopback(address: string): boolean {
  return address === '::1' || /^(::ffff:)?127\./.test(address)
}

function setCookie(res: Response, session: { token: string; expiresAt: Date } | null, secure: boolean): void {
  const common = { httpOnly: true, sameSite: 'strict', path: '/', secure } as const
  const cookie = session
    ? stringifySetCookie({ name: COOKIE, value: session.token, expires: session.expiresAt, ...common })
    : stringifySetCookie({ name: COOKIE, value: '', maxAge: 0, ...common })
  res.append('Set-Cookie', cookie)
}

/** Writes come from our own pages only: a browser tells where a request was made. */
function sameOrigin(req: Request, _res: Response, next: NextFunction): void {
  if (req.method === 'GET' || req.method === 'HEAD') return next()
  const origin = req.headers.origin
  const foreign = origin !== undefined && hostOf(origin) !== req.host
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

function security(tls: boolean) {
  return helmet({
    strictTransportSecurity: tls ? { maxAge: 180 * 86_400, includeSubDomains: false } : false,
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

/** Serves the built client from a folder, wherever that lies. */
export function serveClient(app: Express, root: string): void {
  app.use(
    '/assets',
    express.static(join(root, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
  )
  app.use(express.static(root, { index: false }))
  app.use((req, res) => {
    // Only a page of the client's own has no ending: a file that is not there is not there.
    if (req.method !== 'GET' || /\.[a-z0-9]+$/i.test(req.path))
      throw new AppError('NOT_FOUND', 'There is nothing at this address.')
    // Named within the folder: a whole path with a dot in it, such as one below ~/.local, would be taken for a hidden file.
    res.set('Cache-Control', 'no-cache').sendFile('index.html', { root })
  })
}

function fail(thrown: unknown, req: Request, res: Response, next: NextFunction): void {
  if (res.headersSent) return next(thrown)
  const error = toAppError(thrown)
  if (error.code === 'INTERNAL') req.log.error({ fault: withoutValues(error.cause ?? error) }, error.message)
  if (typeof error.extra.retryAfter === 'number') res.set('Retry-After', String(error.extra.retryAfter))
  res
    .status(statusOf[error.code])
    .type('application/problem+json')
    .send(JSON.stringify(problemDetails(error, String(req.id))))
}
