import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'

/** Tests run from the root of the repository; in a page's surroundings there is no file address to start from. */
const root = join(process.cwd(), 'fixtures', 'builds')

/** What a landed build left behind (fixtures/README.md). */
export interface Build {
  readonly commit: string
  readonly schema: number
  readonly people: readonly { readonly login: string; readonly name: string }[]
  /** Job files by their name. */
  readonly jobs: Readonly<Record<string, unknown>>
  readonly pack: unknown
  /** Unsent edits by the key that a page kept them under. */
  readonly unsent: Readonly<Record<string, readonly unknown[]>>
  /** The dump of its database. */
  readonly sql: () => string
}

/** Every frozen build, the oldest first. */
export const builds: readonly Build[] = readdirSync(root)
  .map((commit): Build => {
    const text = (name: string): string => gunzipSync(readFileSync(join(root, commit, name))).toString('utf8')
    const about = JSON.parse(readFileSync(join(root, commit, 'build.json'), 'utf8')) as Pick<
      Build,
      'commit' | 'schema' | 'people'
    >
    const files = readdirSync(join(root, commit)).filter(
      (name) => name.endsWith('.json.gz') && !/^(pack|unsent)\./.test(name),
    )
    return {
      ...about,
      jobs: Object.fromEntries(
        files.map((name) => [name.replace('.json.gz', ''), JSON.parse(text(name)) as unknown]),
      ),
      pack: JSON.parse(text('pack.json.gz')) as unknown,
      unsent: JSON.parse(text('unsent.json.gz')) as Build['unsent'],
      sql: () => text('database.sql.gz'),
    }
  })
  .sort((a, b) => a.schema - b.schema || Object.keys(a.jobs).length - Object.keys(b.jobs).length)
