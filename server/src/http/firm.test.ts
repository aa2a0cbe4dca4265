import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { blankDevice, defaultHouseRules, type HouseRules, type WrittenEntry } from '#core'
import type { RunningServer } from '../server.ts'
import { anEdit, startJob, startTestServer, TestClient } from '../testing/client.ts'

let server: RunningServer
let ann: TestClient
let eve: TestClient
beforeAll(async () => {
  server = await startTestServer()
  ann = await new TestClient(server.url).signIn('ann')
  eve = await new TestClient(server.url).signIn('eve')
})
afterAll(() => server.stop())

const rules = (schools: Partial<HouseRules['schools']> = {}): HouseRules => ({
  ...defaultHouseRules,
  schools: { ...defaultHouseRules.schools, ...schools },
})

describe('house rules', () => {
  it('are the defaults until the owner sets them, for this firm only', async () => {
    expect((await ann.call('GET', '/api/house-rules')).body).toEqual({ rules: rules(), revision: 0 })
    const answer = await ann.call('PUT', '/api/house-rules', { rules: rules({ glass: 'both' }), revision: 0 })
    expect([answer.status, answer.body.revision]).toEqual([200, 1])
    expect((await ann.call('GET', '/api/house-rules')).body).toEqual({
      rules: rules({ glass: 'both' }),
      revision: 1,
    })
    expect((await eve.call('GET', '/api/house-rules')).body.revision).toBe(0)
  })

  it('are not overwritten by one who saw older ones', async () => {
    const answer = await ann.call('PUT', '/api/house-rules', { rules: rules(), revision: 0 })
    expect([answer.status, answer.body.revision]).toEqual([409, 1])
    expect(answer.body.title).toContain('yours were not saved')
  })

  it('name the field that is wrong and what is allowed', async () => {
    const wrong = { ...rules(), figures: { ...rules().figures, paceSlow: 0 } }
    const answer = await ann.call('PUT', '/api/house-rules', { rules: wrong, revision: 1 })
    expect(answer.status).toBe(422)
    expect(answer.body.problems).toEqual([
      { path: 'rules.figures.paceSlow', message: 'must be at least 0.1' },
    ])
  })

  it('show which jobs they would change before they are saved', async () => {
    const job = randomUUID()
    const entries = (await ann.call('GET', '/api/catalogue')).body.entries as WrittenEntry[]
    const pin = (id: string) => {
      const entry = entries.find((item) => (item.raw as { id: string }).id === id)
      if (!entry) throw new Error(id)
      return { op: 'add', record: { id: `pin:${id}`, type: 'pin', entry: id, hash: entry.hash } } as const
    }
    const device = {
      ...blankDevice,
      id: 'device:duo',
      model: 'device/ember-duo',
      order: 1,
    }
    const answer = await ann.call('PUT', `/api/jobs/${job}`, {
      edit: anEdit([
        { op: 'add', record: startJob({ name: 'Duo House', panel: 'panel/tarn-40', radioFirmware: '1.31' }) },
        ...['panel/tarn-40', 'receiver/tarn-radio', 'family/wren', 'family/wren-c', 'device/ember-duo'].map(
          pin,
        ),
        { op: 'add', record: device },
      ]),
    })
    expect(answer.status).toBe(200)
    const preview = await ann.call('POST', '/api/house-rules/preview', {
      rules: rules({ glass: 'both', smokeHeat: 'joined' }),
    })
    expect(preview.body).toEqual({
      jobs: [
        {
          id: job,
          name: 'Duo House',
          come: [],
          go: ['Ember Duo smoke joins smoke and heat on one loop; the house rule is a zone each.'],
        },
      ],
      judged: 1,
      more: false,
    })
    expect((await ann.call('GET', '/api/house-rules')).body.revision).toBe(1)
  })
})

describe('headings of equipment lists', () => {
  it('are remembered for the firm', async () => {
    await ann.call('PUT', '/api/list-columns', { columns: { teil: 'device' } })
    const answer = await ann.call('PUT', '/api/list-columns', { columns: { raum: 'room', preis: 'nothing' } })
    expect(answer.body.columns).toEqual({ teil: 'device', raum: 'room', preis: 'nothing' })
    expect((await eve.call('GET', '/api/list-columns')).body.columns).toEqual({})
    const wrong = await ann.call('PUT', '/api/list-columns', { columns: { teil: 'colour' } })
    expect([wrong.status, wrong.body.problems?.[0]?.path]).toEqual([422, 'columns.teil'])
  })
})
