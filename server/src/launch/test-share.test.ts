import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { afterEach, expect, it } from 'vitest'
import { testShare } from './test-share.ts'

const root = mkdtempSync(join(tmpdir(), 'kapelle-share-'))
afterEach(() => rmSync(root, { recursive: true, force: true }))

it('counts tests, their helpers and journeys against all code, and no data', () => {
  const files = {
    'core/src/a.ts': 3,
    'core/src/a.test.ts': 1,
    'core/src/testing/b.ts': 1,
    'server/src/c.ts': 2,
    'web/src/d.vue': 2,
    'demo/packs/world.json': 500,
    'e2e/e.spec.ts': 1,
    'bench/f.ts': 0,
  }
  for (const [path, lines] of Object.entries(files)) {
    mkdirSync(dirname(join(root, path)), { recursive: true })
    writeFileSync(join(root, path), Array.from({ length: Math.max(lines, 1) }, () => 'x').join('\n'))
  }
  // Three of eleven lines: the bench file counts one.
  expect(testShare(root)).toBeCloseTo(3 / 11, 6)
})
