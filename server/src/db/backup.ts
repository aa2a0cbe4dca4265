import { createHash, type Hash } from 'node:crypto'
import { createReadStream, createWriteStream } from 'node:fs'
import { chmod, rename, rm } from 'node:fs/promises'
import { createInterface } from 'node:readline'
import { once } from 'node:events'
import { finished } from 'node:stream/promises'
import { createGunzip, createGzip } from 'node:zlib'
import { createConnection, type Connection } from 'mysql2'
import { z } from 'zod'
import { check, problemLine, SCHEMA } from '#core'
import type { DbAddress } from './mariadb.ts'

/*
 * A backup is one gzipped file of lines of JSON: a head (form, time, build, shapes, migrations, tables with their columns),
 * then rows in groups, then an end with the count of each table and the SHA-256 of everything before it. Sessions, links and
 * counts of failed attempts are not in it: whoever has a backup is not signed in by it.
 */

/** Number of the form of backup files. */
const BACKUP_FORM = 1
/** Tables in the order in which they refer to each other. */
const TABLES = [
  'firm',
  'person',
  'catalogue_entry',
  'catalogue_act',
  'catalogue_version',
  'job',
  'job_snapshot',
  'job_edit',
  'transmitter',
  'draft',
  'draft_edit',
  'leaflet',
  'leaflet_part',
] as const
/** Rows of a line at most, and its length from which it ends, characters. */
const ROWS_OF_A_LINE = 500
const LINE_LENGTH = 1_000_000

const headShape = z.object({
  kapelleBackup: z.number().int(),
  madeAt: z.string(),
  build: z.string(),
  schema: z.number().int(),
  migrations: z.array(z.string()).min(1),
  tables: z.array(z.object({ name: z.enum(TABLES), columns: z.array(z.string().regex(/^[a-z_]{1,40}$/)) })),
})
const rowsShape = z.object({
  table: z.enum(TABLES),
  rows: z.array(z.array(z.union([z.string(), z.number(), z.null()]))),
})
const endShape = z.object({
  counts: z.record(z.string(), z.number().int()),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
})

/** The first line of a backup: what it is of, and its sums. */
export type BackupHead = z.infer<typeof headShape>
/** Rows of one table in a backup. */
export type BackupRows = z.infer<typeof rowsShape>
/** What a whole backup holds. */
export interface BackupFacts {
  readonly head: BackupHead
  readonly counts: Readonly<Record<string, number>>
}

/**
 * Writes everything that is kept into one file, as it stood at one moment, while people go on working. The file is whole or it
 * is not there. Nothing of any key is in it.
 */
export async function writeBackup(
  address: DbAddress,
  file: string,
  build: string,
  now: Date,
): Promise<BackupFacts> {
  const draft = `${file}.part`
  const { host, port, user, password, database } = address
  const connection = createConnection({
    ...{ host, port, user, password, database },
    dateStrings: true,
    supportBigNumbers: true,
    charset: 'utf8mb4',
  })
  try {
    await run(connection, 'SET SESSION TRANSACTION ISOLATION LEVEL REPEATABLE READ')
    await run(connection, 'START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY')
    const out = createGzip({ level: 6 })
    const disk = createWriteStream(draft, { mode: 0o600 })
    const done = finished(out.pipe(disk))
    // Heard where it is waited for; until then it must not count as unheard.
    done.catch(() => undefined)
    const sum = createHash('sha256')
    const say = async (value: unknown, counted = true): Promise<void> => {
      const line = `${JSON.stringify(value)}\n`
      if (counted) sum.update(line)
      if (!out.write(line)) await Promise.race([once(out, 'drain'), done])
    }
    const names = await run<{ name: string }>(connection, 'SELECT name FROM migrations ORDER BY id')
    const all = await Promise.all(
      TABLES.map(async (name) => ({ name, columns: await columnsOf(connection, name) })),
    )
    // A database of an earlier build, backed up before it is brought up to date, lacks the tables of later ones.
    const tables = all.filter(({ columns }) => columns.length > 0)
    const head: BackupHead = {
      kapelleBackup: BACKUP_FORM,
      madeAt: now.toISOString(),
      build,
      schema: SCHEMA,
      migrations: names.map((row) => row.name),
      tables,
    }
    await say(head)
    const counts: Record<string, number> = {}
    for (const { name, columns } of tables) counts[name] = await writeRows(connection, name, columns, say)
    await say({ counts, sha256: sum.digest('hex') }, false)
    out.end()
    await done
    await chmod(draft, 0o600)
    await rename(draft, file)
    return { head, counts }
  } catch (error) {
    await rm(draft, { force: true })
    throw error
  } finally {
    connection.destroy()
  }
}

async function writeRows(
  connection: Connection,
  table: (typeof TABLES)[number],
  columns: readonly string[],
  say: (value: unknown) => Promise<void>,
): Promise<number> {
  const list = columns.map((column) => `\`${column}\``).join(', ')
  let rows: BackupRows['rows'] = []
  let length = 0
  let count = 0
  const stream = connection.query({ sql: `SELECT ${list} FROM \`${table}\``, rowsAsArray: true }).stream()
  for await (const row of stream as AsyncIterable<BackupRows['rows'][number]>) {
    rows.push(row)
    count += 1
    length += row.reduce<number>((sum, value) => sum + (typeof value === 'string' ? value.length : 8), 0)
    if (rows.length < ROWS_OF_A_LINE && length < LINE_LENGTH) continue
    await say({ table, rows })
    rows = []
    length = 0
  }
  if (rows.length > 0) await say({ table, rows })
  return count
}

async function columnsOf(connection: Connection, table: string): Promise<string[]> {
  const rows = await run<{ name: string }>(
    connection,
    'SELECT column_name AS name FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = ? ORDER BY ordinal_position',
    [table],
  )
  return rows.map((row) => row.name)
}

function run<Row>(connection: Connection, sql: string, values: string[] = []): Promise<Row[]> {
  return new Promise((done, fail) =>
    connection.query(sql, values, (error, rows) => {
      if (error) fail(error)
      else done(rows as Row[])
    }),
  )
}

/**
 * Reads a backup through, giving its head first and then its rows. Throws one sentence when the file is no backup, is damaged
 * or cut short, or is of a newer Kapelle; only at its end is it known to be whole.
 */
export async function readBackup(
  file: string,
  heard: {
    readonly head?: (head: BackupHead) => Promise<void> | void
    readonly rows?: (rows: BackupRows) => Promise<void> | void
  } = {},
): Promise<BackupFacts> {
  const sum = createHash('sha256')
  const counts: Record<string, number> = {}
  let head: BackupHead | null = null
  let end: z.infer<typeof endShape> | null = null
  try {
    for await (const line of linesOf(file)) {
      if (end) throw new Damaged('something stands behind its end')
      const value: unknown = JSON.parse(line)
      if (!head) {
        head = headOf(value)
        count(sum, line)
        await heard.head?.(head)
        continue
      }
      if (typeof value === 'object' && value !== null && 'sha256' in value) {
        end = shaped(endShape, value)
        continue
      }
      const rows = shaped(rowsShape, value)
      const columns = head.tables.find((table) => table.name === rows.table)?.columns.length
      if (rows.rows.some((row) => row.length !== columns)) throw new Damaged('a row has other columns')
      count(sum, line)
      counts[rows.table] = (counts[rows.table] ?? 0) + rows.rows.length
      await heard.rows?.(rows)
    }
  } catch (error) {
    if (error instanceof UnreadableBackup) throw error
    if (error instanceof SyntaxError || isZipTrouble(error))
      throw new UnreadableBackup(
        head ? `${file} is damaged or cut short.` : `${file} is no backup of Kapelle.`,
        {
          cause: error,
        },
      )
    throw error
  }
  if (!head) throw new UnreadableBackup(`${file} is no backup of Kapelle.`)
  if (!end) throw new UnreadableBackup(`${file} is cut short: its end is missing.`)
  if (end.sha256 !== sum.digest('hex')) throw new UnreadableBackup(`${file} is damaged: its SHA-256 differs.`)
  for (const [table, said] of Object.entries(end.counts))
    if (said !== (counts[table] ?? 0))
      throw new UnreadableBackup(`${file} is damaged: rows of ${table} are missing.`)
  return { head, counts: end.counts }
}

/** A backup that cannot be used; the message says why. */
export class UnreadableBackup extends Error {}

class Damaged extends UnreadableBackup {
  constructor(what: string) {
    super(`The backup is damaged: ${what}.`)
  }
}

function headOf(value: unknown): BackupHead {
  const form =
    typeof value === 'object' && value !== null && 'kapelleBackup' in value ? value.kapelleBackup : null
  if (typeof form !== 'number') throw new UnreadableBackup('The file is no backup of Kapelle.')
  if (form > BACKUP_FORM)
    throw new UnreadableBackup('The backup was made by a newer Kapelle: update this one first.')
  return shaped(headShape, value)
}

function shaped<T>(shape: z.ZodType<T>, value: unknown): T {
  const read = check(shape, value)
  if (!read.ok) throw new Damaged(problemLine(read.problems.slice(0, 3)))
  return read.value
}

async function* linesOf(file: string): AsyncIterable<string> {
  const zipped = createReadStream(file)
  const plain = createGunzip()
  zipped.on('error', (error) => plain.destroy(error))
  const lines = createInterface({ input: zipped.pipe(plain), crlfDelay: Number.POSITIVE_INFINITY })
  const failed = new Promise<never>((_done, fail) => plain.once('error', fail))
  failed.catch(() => undefined)
  const each = lines[Symbol.asyncIterator]()
  for (;;) {
    const next = await Promise.race([each.next(), failed])
    if (next.done) break
    yield next.value
  }
  // A broken stream ends its lines, too: its error must not be taken for the end of the file.
  if (plain.errored) throw plain.errored
}

function isZipTrouble(error: unknown): boolean {
  return (
    typeof error === 'object' &&
    error !== null &&
    'code' in error &&
    /^Z_|^ERR_STREAM/.test(String(error.code))
  )
}

function count(sum: Hash, line: string): void {
  sum.update(`${line}\n`)
}
