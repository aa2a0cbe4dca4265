import { expect, it } from 'vitest'
import { freshSource } from '../testing/database.ts'

it('migrations and entities agree', async () => {
  const source = await freshSource()
  const log = await source.driver.createSchemaBuilder().log()
  expect(log.upQueries.map((query) => query.query)).toEqual([])
  const tables = await source.query<{ name: string }[]>(
    'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE()',
  )
  expect(tables.map((table) => table.name).sort()).toEqual([
    'attempt',
    'catalogue_act',
    'catalogue_entry',
    'catalogue_version',
    'draft',
    'draft_edit',
    'firm',
    'job',
    'job_edit',
    'job_snapshot',
    'leaflet',
    'leaflet_part',
    'link',
    'migrations',
    'person',
    'session',
    'signing_key',
    'transmitter',
  ])
  await source.destroy()
})
