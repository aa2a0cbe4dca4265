import { mkdir, readdir, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { writeBackup } from '../db/backup.ts'
import type { DbAddress } from '../db/mariadb.ts'
import type { Room } from './room.ts'
import { FULL_BYTES } from './room.ts'

/** How often it is looked whether a backup is due, milliseconds. */
const LOOK_MS = 10 * 60_000
const DAY_MS = 86_400_000
/** When owners are warned that the last backup is old, milliseconds. */
const LATE_MS = 3 * DAY_MS
/** How many are kept: the last of each of so many days, weeks and months that have one. */
const KEPT = { days: 7, weeks: 4, months: 12 }
/** Backups made before an update, kept besides. */
const KEPT_BEFORE = 3

/** One backup in the folder. */
export interface KeptBackup {
  readonly name: string
  /** UTC. */
  readonly madeAt: string
  readonly bytes: number
}

/** How the backups are. */
export interface BackupState {
  readonly folder: string | null
  readonly kept: readonly KeptBackup[]
  readonly failed: string | null
  readonly late: boolean
}

/** When and where backups are made. */
export interface BackupOptions {
  readonly address: DbAddress
  /** Where backups are kept; null where none are made. */
  readonly folder: string | null
  readonly build: string
  readonly room: Room
  readonly now: () => Date
  readonly tell: (error: unknown) => void
  /** Whether there is anything to keep yet. */
  readonly anything: () => Promise<boolean>
  /** Does work while no other process on this database does the like; gives null where one does. */
  readonly alone: <T>(work: () => Promise<T>) => Promise<T | null>
}

/** Makes a backup a day and keeps 7 days, 4 weeks and 12 months of them. */
export class Backups {
  #timer: NodeJS.Timeout | null = null
  #running: Promise<void> | null = null
  #failed: string | null = null

  constructor(readonly options: BackupOptions) {}

  start(): void {
    if (this.options.folder === null) return
    this.#timer = setInterval(() => void this.look(), LOOK_MS)
    this.#timer.unref()
    void this.look()
  }

  async stop(): Promise<void> {
    if (this.#timer) clearInterval(this.#timer)
    await this.#running
  }

  /** Makes a backup when one is due. */
  look(): Promise<void> {
    this.#running ??= this.#look()
      .catch((error: unknown) => {
        this.#failed = error instanceof Error ? error.message : String(error)
        this.options.tell(error)
      })
      .finally(() => (this.#running = null))
    return this.#running
  }

  async state(): Promise<BackupState> {
    const { folder, now } = this.options
    const kept = folder === null ? [] : await backupsIn(folder)
    const newest = kept.find((backup) => isDaily(backup.name))
    const late = newest
      ? now().getTime() - Date.parse(newest.madeAt) > LATE_MS
      : folder !== null && this.#failed !== null
    return { folder, kept, failed: this.#failed, late }
  }

  async #look(): Promise<void> {
    const { folder, now, room, anything, alone } = this.options
    if (folder === null || !(await anything())) return
    const newest = (await backupsIn(folder)).find((backup) => isDaily(backup.name))
    if (newest && now().getTime() - Date.parse(newest.madeAt) < DAY_MS) return
    if ((await room.free()) < 2 * (newest?.bytes ?? 0) + FULL_BYTES)
      throw new Error(
        'There is not enough room on the disk for a backup: make room, or move older ones away.',
      )
    const made = await alone(async () => {
      await makeBackup(this.options, folder, dailyName(now()))
      return true
    })
    if (!made) return
    this.#failed = null
    await prune(folder)
  }
}

/** Makes a backup in a folder under a name and gives its path. */
export async function makeBackup(
  { address, build, now }: Pick<BackupOptions, 'address' | 'build' | 'now'>,
  folder: string,
  name: string,
): Promise<string> {
  await mkdir(folder, { recursive: true, mode: 0o700 })
  const file = join(folder, name)
  await writeBackup(address, file, build, now())
  return file
}

/** The backups in a folder, the newest first; one that is being written is none yet. */
export async function backupsIn(folder: string): Promise<KeptBackup[]> {
  const names = await readdir(folder).catch(() => [])
  const found = await Promise.all(
    names.map(async (name) => {
      const madeAt = timeOf(name)
      if (madeAt === null) return []
      const { size } = await stat(join(folder, name)).catch(() => ({ size: 0 }))
      return [{ name, madeAt, bytes: size }]
    }),
  )
  return found.flat().sort((a, b) => (a.madeAt < b.madeAt ? 1 : a.madeAt > b.madeAt ? -1 : 0))
}

/** Removes what need not be kept, and leftovers of backups that were broken off. */
async function prune(folder: string): Promise<void> {
  const all = await backupsIn(folder)
  const keep = worthKeeping(all.filter(({ name }) => isDaily(name)).map(({ madeAt }) => madeAt))
  const before = all.filter(({ name }) => !isDaily(name)).slice(KEPT_BEFORE)
  const gone = all.filter(({ name, madeAt }) => isDaily(name) && !keep.has(madeAt))
  const broken = (await readdir(folder)).filter((name) => name.endsWith('.part'))
  for (const name of [...gone, ...before].map((backup) => backup.name).concat(broken))
    await rm(join(folder, name), { force: true })
}

/** Which of these times, UTC and in any order, are kept: the last of each of 7 days, of 4 weeks and of 12 months. */
export function worthKeeping(times: readonly string[]): ReadonlySet<string> {
  const newestFirst = [...times].sort().reverse()
  const keep = new Set<string>()
  const spans: readonly [number, (time: string) => string][] = [
    [KEPT.days, (time) => time.slice(0, 10)],
    [KEPT.weeks, weekOf],
    [KEPT.months, (time) => time.slice(0, 7)],
  ]
  for (const [most, spanOf] of spans) {
    const seen = new Set<string>()
    for (const time of newestFirst) {
      const span = spanOf(time)
      if (seen.has(span) || seen.size >= most) continue
      seen.add(span)
      keep.add(time)
    }
  }
  return keep
}

/** The Monday of a time's week, UTC. */
function weekOf(time: string): string {
  const day = new Date(`${time.slice(0, 10)}T00:00:00Z`)
  const sinceMonday = (day.getUTCDay() + 6) % 7
  return new Date(day.getTime() - sinceMonday * DAY_MS).toISOString().slice(0, 10)
}

/** Name of a daily backup made at a time: `kapelle-20261126-031500.gz`. */
export function dailyName(at: Date): string {
  return `kapelle-${stamp(at)}.gz`
}

/** Name of a backup made before an update. */
export function beforeName(at: Date): string {
  return `kapelle-before-update-${stamp(at)}.gz`
}

function stamp(at: Date): string {
  return at.toISOString().slice(0, 19).replace(/[-:]/g, '').replace('T', '-')
}

function isDaily(name: string): boolean {
  return !name.includes('before-update')
}

function timeOf(name: string): string | null {
  const [, y, m, d, h, min, s] =
    /^kapelle-(?:before-update-)?(\d{4})(\d\d)(\d\d)-(\d\d)(\d\d)(\d\d)\.gz$/.exec(name) ?? []
  return y ? `${y}-${m}-${d}T${h}:${min}:${s}.000Z` : null
}
