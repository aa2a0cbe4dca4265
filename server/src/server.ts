import { existsSync, readFileSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { fileURLToPath } from 'node:url'
import type { Logger } from 'pino'
import { createAccounts, shippedPack } from './auth/accounts.ts'
import type { DbAddress } from './db/mariadb.ts'
import { openSource } from './db/source.ts'
import { createStore } from './db/store.ts'
import { createApp } from './http/app.ts'
import type { Route } from './http/route.ts'
import type { Services } from './http/routes.ts'
import { createJobs } from './jobs/jobs.ts'
import { Summaries } from './jobs/summaries.ts'
import { JudgingPool } from './workers/pool.ts'

export interface ServerOptions {
  readonly address: DbAddress
  /** 0 for any free port. */
  readonly port: number
  readonly host: string
  readonly logger: Logger
  /** The clock; tests set it. */
  readonly now?: () => Date
}

export interface RunningServer {
  readonly url: string
  readonly services: Services
  readonly routes: readonly Route[]
  /** Token of the set-up link while the database is empty. */
  readonly setupToken: string | null
  stop(): Promise<void>
}

const root = fileURLToPath(new URL('../..', import.meta.url))

/** The catalogue that ships with the product. */
export function shippedEntries() {
  return shippedPack(JSON.parse(readFileSync(`${root}demo/packs/world.json`, 'utf8')))
}

/** Opens the database, brings it up to date and serves. Another address than loopback is refused: it needs a certificate. */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  if (!['127.0.0.1', '::1', 'localhost'].includes(options.host))
    throw new Error(
      'Kapelle listens on this machine only; for another address put it behind a server that has a certificate.',
    )
  const now = options.now ?? (() => new Date())
  const webRoot = `${root}dist/web`
  const build = existsSync(`${webRoot}/build.txt`)
    ? readFileSync(`${webRoot}/build.txt`, 'utf8').trim()
    : 'dev'
  const tell = (what: string) => (error: unknown) => void options.logger.warn({ err: error }, what)
  const store = createStore(await openSource(options.address), tell('a snapshot was not kept'), build)
  const pool = new JudgingPool()
  const summaries = new Summaries(store, pool, now, tell('a job was not summed up'))
  const services: Services = {
    store,
    accounts: createAccounts(store, shippedEntries(), now),
    jobs: createJobs({ store, pool, now, summaries, build }),
    summaries,
  }
  const { app, streams, routes } = createApp({ services, logger: options.logger, webRoot, build })
  const server = createServer(app)
  await new Promise<void>((done, fail) => {
    server.once('error', fail)
    server.listen(options.port, options.host, done)
  })
  const port = (server.address() as AddressInfo).port
  summaries.start()
  return {
    url: `http://127.0.0.1:${port}`,
    services,
    routes,
    setupToken: await services.accounts.setupToken(),
    async stop() {
      streams.close()
      await summaries.stop()
      await pool.close()
      await new Promise<void>((done) => {
        server.close(() => done())
        server.closeIdleConnections()
      })
      await store.close()
    },
  }
}
