import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

/** Folders of code, as opposed to data, documents and what is built. */
const folders = ['core', 'server', 'web', 'demo', 'e2e', 'bench']
const code = /\.(ts|vue|css)$/
const test = /\.test\.ts$|\/testing\/|^e2e\/.*(\.spec|help)/

/** Part of the lines of code that are tests, 0 to 1; counted below a folder of the repository. */
export function testShare(root: string): number {
  let all = 0
  let tests = 0
  for (const folder of folders)
    for (const file of readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })) {
      const path = `${folder}/${file.replaceAll('\\', '/')}`
      if (!code.test(path)) continue
      const lines = readFileSync(join(root, path), 'utf8').split('\n').length
      all += lines
      if (test.test(path)) tests += lines
    }
  return all === 0 ? 0 : tests / all
}
