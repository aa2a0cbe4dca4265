import { existsSync, mkdirSync, readFileSync, renameSync, statSync, utimesSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

/*
 * The server's programs, each put together into one file: to read several hundred modules one by one took seconds at each start, and
 * again whenever the server had to be started anew. Plain JavaScript, since the first of them is started by it.
 */

const programs = {
  launch: 'server/src/launch/main.ts',
  server: 'server/src/main.ts',
  judging: 'server/src/workers/judging-worker.ts',
}

/** Folder of the project, wherever below it this was put together. */
export const root = folderAbove(dirname(fileURLToPath(import.meta.url)))

/** @type {(folder: string) => string} */
function folderAbove(folder) {
  return existsSync(join(folder, 'package.json')) ? folder : folderAbove(dirname(folder))
}

/**
 * File of a program, put together anew where one of its sources is newer.
 * @type {(name: keyof typeof programs) => string}
 */
export function programFile(name) {
  const file = join(root, 'dist', 'server', `${name}.mjs`)
  const listed = `${file}.json`
  if (isCurrent(file, listed)) return file
  const began = new Date()
  const require = createRequire(import.meta.url)
  /** @type {typeof import('esbuild')} */
  const { buildSync } = require('esbuild')
  const { outputFiles, metafile } = buildSync({
    absWorkingDir: root,
    entryPoints: [programs[name]],
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    // Changes of the tables and errors go by the names of their classes.
    keepNames: true,
    write: false,
    metafile: true,
    logLevel: 'error',
  })
  mkdirSync(dirname(file), { recursive: true })
  writeWhole(listed, JSON.stringify([...Object.keys(metafile.inputs), 'package-lock.json']), began)
  writeWhole(file, outputFiles[0]?.text ?? '', began)
  return file
}

/** @type {(file: string, listed: string) => boolean} */
function isCurrent(file, listed) {
  if (!existsSync(file) || !existsSync(listed)) return false
  const made = statSync(file).mtimeMs
  /** @type {string[]} */
  const sources = JSON.parse(readFileSync(listed, 'utf8'))
  return sources.every((source) => {
    const at = statSync(join(root, source), { throwIfNoEntry: false })
    return at !== undefined && at.mtimeMs < made
  })
}

/**
 * Another process may put the same together: each writes its own and moves it there. It is as old as the moment at which its sources
 * began to be read.
 * @type {(file: string, text: string, began: Date) => void}
 */
function writeWhole(file, text, began) {
  const draft = `${file}.${process.pid}`
  writeFileSync(draft, text)
  utimesSync(draft, began, began)
  renameSync(draft, file)
}
