import { existsSync, readFileSync } from 'node:fs'
import { createServer } from 'node:http'
import { createServer as createTlsServer } from 'node:https'
import type { AddressInfo } from 'node:net'
import { hostname } from 'node:os'
import { join } from 'node:path'
import type { Logger } from 'pino'
import type { KeptEntry } from '#core'
import { createAccounts, shippedPack } from './auth/accounts.ts'
import type { DbAddress } from './db/mariadb.ts'
import { openSource } from './db/source.ts'
import { createStore } from './db/store.ts'
import { createApp } from './http/app.ts'
import type { Route } from './http/route.ts'
import type { Services } from './http/routes.ts'
import { createJobs } from './jobs/jobs.ts'
import { Summaries } from './jobs/summaries.ts'
import { root } from './program.mjs'
import { Backups, beforeName, makeBackup } from './service/backups.ts'
import { Room } from './service/room.ts'
import { JudgingPool } from './workers/pool.ts'
import { withoutValues } from './errors/without-values.ts'

/** What a server is started with. */
export interface ServerOptions {
  readonly address: DbAddress
  /** 0 for any free port. */
  readonly port: number
  readonly host: string
  readonly logger: Logger
  /** The clock; tests set it. */
  readonly now?: () => Date
  /** Folder of the data on this machine: its room is watched and daily backups go below it. None: neither is done here. */
  readonly data?: string
  /** Entries that a new firm begins with: none, for it describes its own. */
  readonly entries?: readonly KeptEntry[]
  /** Room of the disk; tests set it. */
  readonly room?: Room
  /** The one proxy that is believed. */
  readonly proxy?: string
  /** Certificate and key: then it serves over TLS, and may serve other machines. */
  readonly tls?: { readonly cert: string; readonly key: string }
}

/** A server that answers. */
export interface RunningServer {
  readonly url: string
  readonly services: Services
  readonly routes: readonly Route[]
  stop(): Promise<void>
}

/** The invented world that ships with the product, for the demo and for practice. */
export function shippedEntries() {
  return shippedPack(JSON.parse(readFileSync(join(root, 'demo/packs/world.json'), 'utf8')))
}

/** Opens the database, brings it up to date and serves. Another address than loopback needs a certificate. */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  if (!['127.0.0.1', '::1', 'localhost'].includes(options.host) && !options.tls)
    throw new Error(
      `Kapelle serves ${options.host} only over TLS: start it with --tls CERT KEY or --tls own, or leave it on this machine behind a proxy that has a certificate (--behind-proxy ADDRESS).`,
    )
  const now = options.now ?? (() => new Date())
  const build = buildName()
  const tell = (what: string) => (error: unknown) =>
    void options.logger.warn({ fault: withoutValues(error) }, what)
  const folder = options.data ? join(options.data, 'backups') : null
  const basis = { address: options.address, build, now }
  const source = await openSource(options.address, undefined, async () => {
    if (folder) await makeBackup(basis, folder, beforeName(now()))
  })
  const store = createStore(source, tell('a snapshot was not kept'), build)
  const pool = new JudgingPool()
  const summaries = new Summaries(store, pool, now, tell('a job was not summed up'))
  const room = options.room ?? Room.of(options.data ?? null)
  const backups = new Backups({
    ...basis,
    folder,
    room,
    tell: tell('no backup was made'),
    anything: async () => (await store.people.countFirms()) > 0,
    alone: (work) => store.alone('backup', work),
  })
  const services: Services = {
    store,
    accounts: createAccounts(store, options.entries ?? [], now),
    jobs: createJobs({ store, pool, now, summaries, build }),
    summaries,
    room,
    backups,
    world: shippedEntries,
    service: { build, since: now() },
  }
  const { app, streams, routes } = createApp({
    services,
    logger: options.logger,
    webRoot,
    build,
    proxy: options.proxy ?? null,
    tls: options.tls !== undefined || options.proxy !== undefined,
  })
  const server = options.tls ? createTlsServer(options.tls, app) : createServer(app)
  await new Promise<void>((done, fail) => {
    server.once('error', fail)
    server.listen(options.port, options.host, done)
  })
  const port = (server.address() as AddressInfo).port
  summaries.start()
  backups.start()
  const shown = options.host === '0.0.0.0' || options.host === '::' ? hostname() : '127.0.0.1'
  return {
    url: `${options.tls ? 'https' : 'http'}://${shown}:${port}`,
    services,
    routes,
    async stop() {
      streams.close()
      await summaries.stop()
      await backups.stop()
      await pool.close()
      await new Promise<void>((done) => {
        server.close(() => done())
        server.closeIdleConnections()
      })
      await store.close()
    },
  }
}

const webRoot = join(root, 'dist/web')

/** Name of the build of the client that is served, which the server's own goes by. */
export function buildName(): string {
  const file = `${webRoot}/build.txt`
  return existsSync(file) ? readFileSync(file, 'utf8').trim() : 'dev'
}
