import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { writeWhole } from '../db/mariadb.ts'

/** Who holds a data folder. */
export interface Holder {
  readonly pid: number
  /** When that process began, in the kernel's ticks: a number given again to another program is told apart by it. */
  readonly began: string
  /** When it took the folder, UTC. */
  readonly since: string
  /** Where people reach it, and the server process that answers there; absent until it does. */
  readonly url?: string
  readonly server?: { readonly pid: number; readonly began: string }
}

/** A folder that this process holds. */
export interface Held {
  /** Writes down where people reach the product and which process answers there. */
  says(url: string, server: number): void
  release(): void
}

/** Another living launcher holds the folder: nothing of it was touched. */
export class FolderHeld extends Error {
  constructor(
    readonly folder: string,
    readonly holder: Holder,
  ) {
    super(
      `${folder} is in use by process ${holder.pid} since ${holder.since}${holder.url ? `, at ${holder.url}` : ''}. ` +
        'Nothing was touched. End that one first (Ctrl-C there, or ./kapelle stop), or give this one a folder of its own: KAPELLE_DATA=other ./kapelle demo',
    )
  }
}

/** How long two that take a folder left behind by a dead one wait to see who came last, milliseconds. */
const SETTLE_MS = 200

/** Takes a data folder for this process; throws FolderHeld while a living process has it. */
export async function holdFolder(folder: string): Promise<Held> {
  const file = join(folder, 'held.json')
  const there = holderOf(folder)
  if (there) throw new FolderHeld(folder, there)
  usable(folder)
  const mine: Holder = {
    pid: process.pid,
    began: beganOf(process.pid) ?? '',
    since: new Date().toISOString(),
  }
  writeWhole(file, JSON.stringify(mine))
  await new Promise((done) => setTimeout(done, SETTLE_MS))
  const holds = holderOf(folder)
  if (holds?.pid !== process.pid) throw new FolderHeld(folder, holds ?? mine)
  const isMine = (): boolean => holderOf(folder)?.pid === process.pid
  return {
    says(url, server) {
      const began = beganOf(server)
      if (isMine() && began !== null)
        writeWhole(file, JSON.stringify({ ...mine, url, server: { pid: server, began } } satisfies Holder))
    },
    release() {
      if (isMine()) rmSync(file, { force: true })
    },
  }
}

/** Makes a data folder where there is none and tries to write in it; throws one line that says what to do. */
function usable(folder: string): void {
  const probe = join(folder, `.probe-${process.pid}`)
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 })
    writeFileSync(probe, 'x'.repeat(4096), { mode: 0o600 })
    rmSync(probe, { force: true })
  } catch (error) {
    try {
      rmSync(probe, { force: true })
    } catch {
      // Where the folder cannot be there is nothing to take away either.
    }
    throw new Error(folderTrouble(folder, codeOf(error)), { cause: error })
  }
}

/** Why a data folder cannot be used, as one line that says what to do. */
export function folderTrouble(folder: string, code: string): string {
  switch (code) {
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
      return `This user may not write in ${folder}: give the right to it, or name another folder with KAPELLE_DATA.`
    case 'ENOSPC':
    case 'EDQUOT':
      return `The disk of ${folder} is full: make room, then start again.`
    case 'ENOTDIR':
    case 'EEXIST':
      return `${folder} is, or lies below, a file: name a folder with KAPELLE_DATA.`
    default:
      return `${folder} cannot be used (${code}): name another folder with KAPELLE_DATA.`
  }
}

function codeOf(error: unknown): string {
  return typeof error === 'object' && error !== null && 'code' in error ? String(error.code) : 'unknown'
}

/** The process of a server whose launcher is gone, or is about to be; null when it ended with it. */
export function orphanOf(folder: string): number | null {
  const { server } = readHolder(folder) ?? {}
  return server && beganOf(server.pid) === server.began ? server.pid : null
}

/** The living process that holds a data folder, or null. */
export function holderOf(folder: string): Holder | null {
  const holder = readHolder(folder)
  return holder && beganOf(holder.pid) === holder.began ? holder : null
}

function readHolder(folder: string): Holder | null {
  try {
    return JSON.parse(readFileSync(join(folder, 'held.json'), 'utf8')) as Holder
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
