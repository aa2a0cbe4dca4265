import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import express from 'express'
import { expect, it } from 'vitest'
import { serveClient } from './app.ts'

it('serves the client from a folder below a hidden one, too', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'kapelle-client-'))
  const web = join(folder, '.local', 'web')
  mkdirSync(join(web, 'assets'), { recursive: true })
  writeFileSync(join(web, 'index.html'), '<title>the client</title>')
  writeFileSync(join(web, 'assets', 'a.js'), 'export {}')
  const app = express()
  serveClient(app, web)
  const server = app.listen(0, '127.0.0.1')
  await new Promise((done) => server.once('listening', done))
  const { port } = server.address() as AddressInfo
  const get = async (path: string) => {
    const answer = await fetch(`http://127.0.0.1:${port}${path}`)
    return [answer.status, (await answer.text()).slice(0, 26)]
  }
  try {
    for (const path of ['/', '/jobs', '/jobs/1/zones'])
      expect([path, ...(await get(path))]).toEqual([path, 200, '<title>the client</title>'])
    expect(await get('/assets/a.js')).toEqual([200, 'export {}'])
    expect((await get('/jobs.php'))[0]).not.toBe(200)
  } finally {
    await new Promise((done) => server.close(done))
    rmSync(folder, { recursive: true, force: true })
  }
})
