import { chmodSync, existsSync, readFileSync } from 'node:fs'
import { basename, dirname } from 'node:path'
import { pino } from 'pino'
import { createStream } from 'rotating-file-stream'
import type { DbAddress } from './db/mariadb.ts'
import { startServer } from './server.ts'

/*
 * The server process. Settings come in the environment: KAPELLE_CONNECTION (file with the database address),
 * KAPELLE_PORT, KAPELLE_HOST, KAPELLE_LOG (file; standard output without), KAPELLE_DATA (folder for backups, whose disk is
 * watched), KAPELLE_PROXY (the one proxy that is believed), KAPELLE_TLS_CERT and KAPELLE_TLS_KEY (PEM files).
 */
const connection = process.env.KAPELLE_CONNECTION
if (!connection)
  throw new Error(
    'KAPELLE_CONNECTION must name the file with the database address; start with ./kapelle start',
  )

/** Size from which a log is begun anew, and how many are kept. */
const LOG = { size: '10M', maxFiles: 5 } as const

/** A log of its own, only for its owner's eyes, that never grows beyond its few files. */
function logTo(file: string) {
  // Earlier builds let others read it.
  if (existsSync(file)) chmodSync(file, 0o600)
  return pino(createStream(basename(file), { path: dirname(file), mode: 0o600, ...LOG }))
}

const env = process.env
const running = await startServer({
  address: JSON.parse(readFileSync(connection, 'utf8')) as DbAddress,
  port: Number(env.KAPELLE_PORT ?? '4680'),
  host: env.KAPELLE_HOST ?? '127.0.0.1',
  logger: env.KAPELLE_LOG ? logTo(env.KAPELLE_LOG) : pino({ level: 'warn' }),
  ...(env.KAPELLE_DATA ? { data: env.KAPELLE_DATA } : {}),
  ...(env.KAPELLE_PROXY ? { proxy: env.KAPELLE_PROXY } : {}),
  ...(env.KAPELLE_TLS_CERT && env.KAPELLE_TLS_KEY
    ? {
        tls: {
          cert: readFileSync(env.KAPELLE_TLS_CERT, 'utf8'),
          key: readFileSync(env.KAPELLE_TLS_KEY, 'utf8'),
        },
      }
    : {}),
})
process.send?.({ listening: running.url })

/** How long what is under way has to end, milliseconds: with the launcher the database may be gone, too. */
const END_MS = 10_000
let stopping = false
const stop = (): void => {
  if (stopping) return
  stopping = true
  setTimeout(() => process.exit(1), END_MS).unref()
  void running.stop().then(() => process.exit(0))
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
process.on('disconnect', stop)
