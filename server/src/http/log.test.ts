import { PassThrough } from 'node:stream'
import { pino } from 'pino'
import { expect, it } from 'vitest'
import { startTestServer, TestClient } from '../testing/client.ts'

it('writes no cookie, password or header into the log', async () => {
  const lines: string[] = []
  const stream = new PassThrough().on('data', (chunk: Buffer) => lines.push(chunk.toString()))
  const server = await startTestServer(pino({ level: 'trace' }, stream))
  try {
    const ann = await new TestClient(server.url).signIn('ann')
    await ann.call('GET', '/api/jobs', undefined, { Authorization: 'Bearer secret-of-a-header' })
    await ann.call('DELETE', '/api/session')
  } finally {
    await server.stop()
  }
  const log = lines.join('')
  expect(log).toContain('/api/jobs')
  expect(log).not.toMatch(/cookie|kapelle-session|correct-horse|secret-of-a-header/i)
})
