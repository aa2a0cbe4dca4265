import { readFileSync, renameSync, statSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { programFile, root } from './program.mjs'

const made = (): number => statSync(programFile('judging')).mtimeMs

it('puts a program together once, and anew when a source is newer or gone', () => {
  const file = programFile('judging')
  const began = made()
  expect(made()).toBe(began)
  const listed = `${file}.json`
  const sources = JSON.parse(readFileSync(listed, 'utf8')) as string[]
  expect(sources).toContain('server/src/workers/judging-worker.ts')
  expect(sources).toContain('core/src/findings/judge.ts')
  expect(sources.every((source) => !source.startsWith('node_modules'))).toBe(true)

  // Other tests start the same program meanwhile: none may read half a list.
  writeFileSync(`${listed}.test`, JSON.stringify([...sources, 'core/src/gone.ts']))
  renameSync(`${listed}.test`, listed)
  expect(made()).toBeGreaterThan(began)
  expect(JSON.parse(readFileSync(listed, 'utf8'))).toEqual(sources)

  const newest = Math.max(...sources.map((source) => statSync(join(root, source)).mtimeMs))
  // Changed in the moment in which it was put together: that may have come too late.
  utimesSync(file, newest / 1000, newest / 1000)
  expect(made()).toBeGreaterThan(newest)
})
