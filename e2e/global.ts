import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startProduct } from '../server/src/launch/product.ts'

/** Starts the whole product with the demo on a throw-away data folder, as `./kapelle demo` does. */
export default async function setup(): Promise<() => Promise<void>> {
  const data = mkdtempSync(join(tmpdir(), 'kapelle-e2e-'))
  const product = await startProduct({ data, port: 0, demo: true })
  process.env.KAPELLE_E2E_DATA = data
  process.env.KAPELLE_E2E_URL = product.url
  process.env.KAPELLE_E2E_PEOPLE = JSON.stringify(product.signIns)
  return async () => {
    await product.stop()
    rmSync(data, { recursive: true, force: true })
  }
}
