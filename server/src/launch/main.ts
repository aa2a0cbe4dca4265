import { spawn } from 'node:child_process'
import { resolve } from 'node:path'
import { endProcess, runningServer } from '../db/mariadb.ts'
import { openSource } from '../db/source.ts'
import { createStore } from '../db/store.ts'
import { runChecks } from './checks.ts'
import { FolderHeld, holderOf } from './lock.ts'
import { databaseFolder, startProduct } from './product.ts'

const data = resolve(process.env.KAPELLE_DATA ?? '.data')
const port = Number(process.env.KAPELLE_PORT ?? '4680')
const command = process.argv[2]

try {
  if (command === 'demo' || command === 'start' || command === 'dev') await serve(command)
  else if (command === 'test') process.exitCode = await runChecks(process.argv.includes('--long'))
  else if (command === 'stop') await stop()
  else if (command === 'rebuild') await rebuild()
  else throw new Error(`unknown command ${command ?? ''}`)
} catch (error) {
  console.error(`✗ ${error instanceof Error ? error.message : String(error)}`)
  process.exitCode = error instanceof FolderHeld ? 3 : 1
}

async function serve(how: 'demo' | 'start' | 'dev'): Promise<void> {
  console.log('· starting the database')
  const product = await startProduct(data, port, how !== 'start')
  const client =
    how === 'dev'
      ? spawn('npx', ['vite'], { stdio: 'inherit', env: { ...process.env, KAPELLE_API: product.url } })
      : null
  console.log(`\n  Kapelle is at ${product.url}\n`)
  for (const person of product.signIns)
    console.log(
      `  ${person.role.padEnd(9)}  sign-in name ${person.login.padEnd(8)}  password ${person.password}`,
    )
  if (product.setupToken)
    console.log(
      `  Nobody is here yet. Set up the first firm: ${product.url}/set-up?token=${product.setupToken}`,
    )
  console.log('\n  Ctrl-C ends it.')
  let stopping = false
  const end = (): void => {
    if (stopping) return
    stopping = true
    console.log('\n· ending')
    client?.kill()
    void product.stop().then(() => process.exit(0))
  }
  process.on('SIGINT', end)
  process.on('SIGTERM', end)
}

async function stop(): Promise<void> {
  const holder = holderOf(data)
  if (holder) {
    await endProcess(holder.pid)
    console.log('· Kapelle has ended')
    return
  }
  const running = runningServer(databaseFolder(data))
  if (!running) {
    console.log('· nothing is running')
    return
  }
  await endProcess(running.pid)
  console.log('· a database that was left behind has ended')
}

async function rebuild(): Promise<void> {
  const running = runningServer(databaseFolder(data))
  if (!running)
    throw new Error('Start Kapelle first: the look-up tables are rebuilt in the running database.')
  const store = createStore(await openSource(running))
  for (const firm of await store.people.firmIds()) {
    const jobs = await store.jobsOf(firm).rebuildTransmitters()
    console.log(`· look-ups of ${jobs} jobs made anew`)
  }
  await store.close()
}
