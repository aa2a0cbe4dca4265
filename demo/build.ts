/* Writes the demo jobs as journals: npx tsx demo/build.ts. Times count from REFERENCE; loading shifts them to now. */
import { readFileSync, writeFileSync } from 'node:fs'
import { Catalogue, readPack, writeJournalFile } from '#core'
import { fennelBank } from './fennel-bank.ts'
import { ropewalk } from './ropewalk.ts'
import { saltmarsh } from './saltmarsh.ts'

const read = readPack(JSON.parse(readFileSync(new URL('./packs/world.json', import.meta.url), 'utf8')))
if (!read.ok) throw new Error(JSON.stringify(read.problems, null, 2))
const catalogue = new Catalogue(read.entries)
const jobs = {
  'the-old-ropewalk': { id: '0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a001', draft: ropewalk(catalogue) },
  'saltmarsh-row-14': { id: '0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a003', draft: saltmarsh(catalogue) },
  'fennel-bank': { id: '0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a002', draft: fennelBank(catalogue) },
}
for (const [name, { id, draft }] of Object.entries(jobs))
  writeFileSync(
    new URL(`./jobs/${name}.json`, import.meta.url),
    writeJournalFile(id, draft.edits, catalogue.kept),
  )
