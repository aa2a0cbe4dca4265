import { Writable } from 'node:stream'
import { pino } from 'pino'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { RunningServer } from '../server.ts'
import { anEdit, startTestServer, TEST_PASSWORD, TestClient } from '../testing/client.ts'

let log = ''
let server: RunningServer
beforeAll(async () => {
  const kept = new Writable({
    write(chunk: Buffer, _encoding, done) {
      log += chunk.toString()
      done()
    },
  })
  server = await startTestServer(pino(kept))
})
afterAll(() => server.stop())

it('says what was asked and answered, and nothing of anybody', async () => {
  const ann = await new TestClient(server.url).signIn('ann')
  const stranger = new TestClient(server.url)
  const secrets = [TEST_PASSWORD, 'kapelle-session']
  const hide = (text: string): string => {
    secrets.push(text)
    return text
  }
  await stranger.call('POST', '/api/session', { login: 'ann', password: hide('wrong-password-77') })
  const invited = await ann.call('POST', '/api/invitations', {
    name: hide('Dai-of-the-Hollow'),
    role: 'viewer',
  })
  const token = hide(String(invited.body.token))
  await stranger.call('POST', '/api/link', { token })
  await stranger.call('POST', '/api/link/invite', {
    token,
    name: 'x',
    login: 'y',
    password: hide('short-pw'),
  })
  const job = await ann.beginJob({ name: hide('Secret Hollow'), address: hide('Nowhere Lane 9') })
  await ann.send(
    job,
    anEdit([{ op: 'set', id: 'job:main', field: 'wishes', from: '', to: hide('code 4711 under mat') }]),
  )
  await ann.call('GET', `/api/jobs?find=${hide('20417733')}`)
  await ann.call('PUT', `/api/jobs/${job}/file?edit=${crypto.randomUUID()}`, `{"note":"${hide('in a file')}"`)
  await ann.raw(`/api/jobs/${job}/schedule.pdf`)
  await ann.call('GET', `/link#${token}`)
  await ann.call('GET', `/set-up?token=${token}`)
  // A failure inside, whose own words carry the statement with its values.
  const { source } = server.services.store.people
  await source.query('RENAME TABLE job_edit TO job_edit_away')
  const failed = await ann.send(
    job,
    anEdit([{ op: 'set', id: 'job:main', field: 'wishes', from: 'x', to: hide('lost words') }]),
  )
  await source.query('RENAME TABLE job_edit_away TO job_edit')
  expect(failed.status).toBe(500)
  await server.services.summaries.settled()
  expect(log).toContain('"path":"/api/jobs"')
  expect(log).toContain('"statusCode":500')
  expect(log).toContain('ER_NO_SUCH_TABLE')
  expect(log).toContain(String(failed.body.requestId))
  for (const secret of secrets) expect([secret, log.includes(secret)]).toEqual([secret, false])
})
