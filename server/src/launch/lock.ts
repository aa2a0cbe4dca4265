import { mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/** Who holds a data folder. */
export interface Holder {
  readonly pid: number
  /** When that process began, in the kernel's ticks: a number given again to another program is told apart by it. */
  readonly began: string
  /** When it took the folder, UTC. */
  readonly since: string
}

/** Another living launcher holds the folder: nothing of it was touched. */
export class FolderHeld extends Error {
  constructor(
    readonly folder: string,
    readonly holder: Holder,
  ) {
    super(
      `${folder} is in use by process ${holder.pid} since ${holder.since}. ` +
        'Nothing was touched. End that one first (Ctrl-C there, or ./kapelle stop), or give this one a folder of its own: KAPELLE_DATA=other ./kapelle demo',
    )
  }
}

/** How long two that take a folder left behind by a dead one wait to see who came last, milliseconds. */
const SETTLE_MS = 200

/** Takes a data folder for this process; throws FolderHeld while a living process has it. Gives what lets it go again. */
export async function holdFolder(folder: string): Promise<() => void> {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const file = join(folder, 'held.json')
  const there = holderOf(folder)
  if (there) throw new FolderHeld(folder, there)
  const mine: Holder = {
    pid: process.pid,
    began: beganOf(process.pid) ?? '',
    since: new Date().toISOString(),
  }
  const draft = `${file}.${process.pid}`
  writeFileSync(draft, JSON.stringify(mine), { mode: 0o600 })
  renameSync(draft, file)
  await new Promise((done) => setTimeout(done, SETTLE_MS))
  const holds = holderOf(folder)
  if (holds?.pid !== process.pid) throw new FolderHeld(folder, holds ?? mine)
  return () => {
    if (holderOf(folder)?.pid === process.pid) rmSync(file, { force: true })
  }
}

/** The living process that holds a data folder, or null. */
export function holderOf(folder: string): Holder | null {
  try {
    const holder = JSON.parse(readFileSync(join(folder, 'held.json'), 'utf8')) as Holder
    return beganOf(holder.pid) === holder.began ? holder : null
  } catch {
    return null
  }
}

/** When a living process began; null where there is none of that number. */
function beganOf(pid: number): string | null {
  try {
    // The name in brackets may hold spaces: what counts stands behind it, the beginning as its twentieth.
    return (
      readFileSync(`/proc/${pid}/stat`, 'utf8')
        .replace(/^.*\)\s/s, '')
        .split(' ')[19] ?? null
    )
  } catch {
    return null
  }
}
