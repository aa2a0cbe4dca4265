import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { gzipSync } from 'node:zlib'

const root = fileURLToPath(new URL('../dist/web', import.meta.url))

/** kB (gzip) of a bare Vue and Vuetify page with a table, as measured when the budget was set: 161 script + 44 style. */
const BARE = 161 + 44

/** Script and style that the first page, the sign-in and then the job list, brings over the wire. */
export function firstPage(): { kB: number; ratio: number; within: boolean } | null {
  if (!existsSync(`${root}/index.html`)) return null
  const html = readFileSync(`${root}/index.html`, 'utf8')
  const named = [...html.matchAll(/(?:src|href)="\/(assets\/[^"]+\.(?:js|css))"/g)].map(
    (match) => match[1] ?? '',
  )
  const lazy = readdirSync(`${root}/assets`)
    .filter((name) => /^JobList-.*\.(js|css)$/.test(name))
    .map((name) => `assets/${name}`)
  const bytes = [...new Set([...named, ...lazy])].reduce(
    (sum, name) => sum + gzipSync(readFileSync(`${root}/${name}`)).length,
    0,
  )
  const kB = bytes / 1000
  return { kB, ratio: kB / BARE, within: kB <= 1.8 * BARE }
}
