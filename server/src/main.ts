import { readFileSync } from 'node:fs'
import { pino } from 'pino'
import type { DbAddress } from './db/mariadb.ts'
import { startServer } from './server.ts'

/*
 * The server process. Settings come in the environment: KAPELLE_CONNECTION (file with the database address),
 * KAPELLE_PORT, KAPELLE_HOST, KAPELLE_LOG (file; standard output without).
 */
const connection = process.env.KAPELLE_CONNECTION
if (!connection)
  throw new Error(
    'KAPELLE_CONNECTION must name the file with the database address; start with ./kapelle start',
  )

const running = await startServer({
  address: JSON.parse(readFileSync(connection, 'utf8')) as DbAddress,
  port: Number(process.env.KAPELLE_PORT ?? '4680'),
  host: process.env.KAPELLE_HOST ?? '127.0.0.1',
  logger: process.env.KAPELLE_LOG ? pino(pino.destination(process.env.KAPELLE_LOG)) : pino({ level: 'warn' }),
})
process.send?.({ listening: running.url, setup: running.setupToken })

let stopping = false
const stop = (): void => {
  if (stopping) return
  stopping = true
  void running.stop().then(() => process.exit(0))
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
process.on('disconnect', stop)
