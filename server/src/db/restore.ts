import { canonicalJson, serialsOf, upgraded } from '#core'
import type { DataSource } from 'typeorm'
import { readBackup, UnreadableBackup, type BackupFacts } from './backup.ts'
import type { DbAddress } from './mariadb.ts'
import { migrations, openSource, rawSource } from './source.ts'
import { createStore, type Store } from './store.ts'

/**
 * Puts a backup into an empty database: its tables as they were when it was made, then brought up to date by the migrations
 * since. Gives what it held. Throws and leaves the rest to its caller when the file is damaged or newer than this Kapelle.
 */
export async function restoreInto(address: DbAddress, file: string): Promise<BackupFacts> {
  const facts = await readBackup(file)
  const known = migrations.map((migration) => new migration().name)
  const had = facts.head.migrations
  const unknown = had.filter((name) => !known.includes(name))
  if (unknown.length > 0)
    throw new UnreadableBackup(
      `The backup was made by a newer Kapelle (${unknown.join(', ')}): update this one first.`,
    )
  if (had.some((name, index) => known[index] !== name))
    throw new UnreadableBackup('The backup is damaged: its migrations are not in their order.')
  const source = rawSource(address, 1, migrations.slice(0, had.length))
  await source.initialize()
  try {
    const [{ count } = { count: 0 }] = await source.query<{ count: number }[]>(
      'SELECT COUNT(*) AS count FROM information_schema.tables WHERE table_schema = DATABASE()',
    )
    if (Number(count) > 0)
      throw new UnreadableBackup('There is a database here already: nothing was overwritten.')
    await source.runMigrations({ transaction: 'each' })
    await fill(source, file)
  } finally {
    await source.destroy()
  }
  await (await openSource(address)).destroy()
  return facts
}

async function fill(source: DataSource, file: string): Promise<void> {
  // Rows of one table may refer to rows that come later in the file only if the file is not ours.
  const columns = new Map<string, string>()
  await readBackup(file, {
    head: async (head) => {
      for (const table of head.tables) {
        const rows = await source.query<{ name: string }[]>(
          'SELECT column_name AS name FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = ?',
          [table.name],
        )
        const strange = table.columns.filter((column) => !rows.some((row) => row.name === column))
        if (strange.length > 0)
          throw new UnreadableBackup(`The backup is damaged: ${table.name} has no ${strange.join(', ')}.`)
        columns.set(table.name, table.columns.map((column) => `\`${column}\``).join(', '))
      }
    },
    rows: async ({ table, rows }) => {
      const places = rows.map((row) => `(${row.map(() => '?').join(', ')})`).join(', ')
      await source.query(`INSERT INTO \`${table}\` (${columns.get(table)}) VALUES ${places}`, rows.flat())
    },
  })
}

/** What was looked through after a restore, and what did not hold. */
export interface Proof {
  readonly jobs: number
  readonly edits: number
  readonly problems: readonly string[]
}

/** Looks every job of every firm through: its journal replays to its document, and its look-up rows equal a rebuild. */
async function proveAll(store: Store): Promise<Proof> {
  const problems: string[] = []
  let [jobs, edits] = [0, 0]
  for (const firm of await store.people.firms()) {
    const of = store.jobsOf(firm.id)
    for (const id of await of.ids()) {
      jobs += 1
      const proof = await of.prove(id)
      edits += proof.revision
      const name = `job ${id} of ${firm.name}`
      if (proof.failed) problems.push(`${name}: ${proof.failed}`)
      else if (canonicalJson(proof.replayed.records) !== canonicalJson(proof.kept.records))
        problems.push(`${name}: its journal does not replay to its document`)
      else {
        const serials = [...serialsOf(upgraded(proof.replayed))].sort()
        if (canonicalJson(serials) !== canonicalJson([...proof.serials].sort()))
          problems.push(`${name}: its look-up rows differ from a rebuild`)
      }
    }
  }
  return { jobs, edits, problems }
}

/** Opens a database and proves it. */
export async function proveAt(address: DbAddress): Promise<Proof> {
  const store = createStore(await openSource(address))
  try {
    return await proveAll(store)
  } finally {
    await store.close()
  }
}
