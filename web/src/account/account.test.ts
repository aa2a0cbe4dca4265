import { beforeEach, describe, expect, it } from 'vitest'
import { SCHEMA, type Edit, type EditAnswer, type ServiceAnswer } from '#core'
import { deviceQueue, useQueue } from '../line/device-queue.ts'
import { memoryQueue } from '../line/memory-queue.ts'
import { deviceWords } from './device-words.ts'
import { inMB, serviceTroubles } from './service-words.ts'
import { useLeftEdits } from './useLeftEdits.ts'

const edit = (id: string): Edit => ({
  id: `${id}-00000000`,
  kind: 'job.set',
  schema: SCHEMA,
  by: { id: 'rhys', name: 'Rhys Dun' },
  madeAt: '2026-05-04T09:30:00Z',
  ops: [{ op: 'set', id: 'job:main', field: 'wishes', from: '', to: id }],
})
const rhys = { firm: 'f1', person: 'rhys', job: 'job-1' }

describe('what somebody who left had not sent', () => {
  let asked: { path: string; body: { person: string; edits: Edit[] } }[]
  /** Ids of edits that the server does not take. */
  let refused: string[]
  beforeEach(async () => {
    useQueue(memoryQueue())
    for (const id of ['one', 'two']) await deviceQueue().add(rhys, edit(id))
    await deviceQueue().add({ ...rhys, job: 'job-2' }, edit('three'))
    await deviceQueue().add({ ...rhys, person: 'nell' }, edit('nells'))
    asked = []
    refused = []
    globalThis.fetch = (path, init) => {
      const body = JSON.parse(String(init?.body)) as { person: string; edits: Edit[] }
      asked.push({ path: String(path), body })
      const answers: EditAnswer[] = []
      for (const { id } of body.edits) {
        const no = refused.includes(id)
        answers.push(no ? { id, outcome: 'invalid', problems: [] } : { id, outcome: 'taken', revision: 2 })
        if (no) break
      }
      const wrong = answers.some((answer) => answer.outcome !== 'taken')
      const answer = wrong ? { title: 'This change was not taken.', answers } : { answers, revision: 2 }
      return Promise.resolve(new Response(JSON.stringify(answer), { status: wrong ? 422 : 200 }))
    }
  })

  it('is counted for those who left alone, and handed in job by job in its order', async () => {
    const unsent = useLeftEdits(() => 'f1')
    await unsent.look(['rhys'])
    expect([unsent.countOf('rhys'), unsent.countOf('nell')]).toEqual([3, 0])
    await unsent.handIn('rhys')
    expect(
      asked.map(({ path, body }) => [path, body.person, body.edits.map((one) => one.id.slice(0, 3))]),
    ).toEqual([
      ['/api/jobs/job-1/handed-in', 'rhys', ['one', 'two']],
      ['/api/jobs/job-2/handed-in', 'rhys', ['thr']],
    ])
    expect(unsent.said.value).toBe('3 changes are handed in.')
    await unsent.look(['rhys'])
    expect(unsent.left.value).toEqual([])
    expect(await deviceQueue().rows({ ...rhys, person: 'nell' })).toHaveLength(1)
  })

  it('stays here from the first that is not taken on, with the reason said', async () => {
    refused = [edit('two').id]
    const unsent = useLeftEdits(() => 'f1')
    await unsent.look(['rhys'])
    await unsent.handIn('rhys')
    expect(unsent.said.value).toBe('2 changes are handed in. Not all of it: This change was not taken.')
    await unsent.look(['rhys'])
    expect(unsent.left.value.map((group) => group.edits.map((one) => one.id))).toEqual([[edit('two').id]])
    await unsent.discard('rhys')
    await unsent.look(['rhys'])
    expect(unsent.countOf('rhys')).toBe(0)
  })
})

describe('words', () => {
  it('name a browser and its system, or what it says', () => {
    const cases: readonly [string, string][] = [
      [
        'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/150.0 Safari/537.36',
        'Chrome on Linux',
      ],
      [
        'Mozilla/5.0 (iPhone; CPU iPhone OS 19_0 like Mac OS X) AppleWebKit/605 Version/19.0 Safari/604.1',
        'Safari on iOS',
      ],
      ['Mozilla/5.0 (Windows NT 10.0) Gecko/20100101 Firefox/150.0', 'Firefox on Windows'],
      ['Mozilla/5.0 (Linux; Android 16) Chrome/150.0 Mobile Safari/537.36', 'Chrome on Android'],
      ['curl/8.5', 'curl/8.5'],
      ['', 'not stated'],
    ]
    for (const [agent, words] of cases) expect(deviceWords(agent)).toBe(words)
  })

  it('say what the owner must see to, and nothing when all is well', () => {
    const well: ServiceAnswer = {
      build: 'x',
      since: '2026-05-04T09:00:00Z',
      free: 8e9,
      room: 'enough',
      backups: { folder: '/x', kept: [], failed: null, late: false },
    }
    expect(serviceTroubles(well)).toEqual([])
    expect(serviceTroubles({ ...well, room: 'low', free: 4.2e8 })).toEqual([
      'The disk fills up (420 MB left): make room before it is full, for nothing more is taken then.',
    ])
    expect(serviceTroubles({ ...well, room: 'full', free: null })[0]).toMatch(
      /^The disk is full: nothing more/,
    )
    const late = { ...well.backups, late: true }
    expect(serviceTroubles({ ...well, backups: late })).toEqual([
      'The last backup is more than three days old.',
    ])
    expect(serviceTroubles({ ...well, backups: { ...late, failed: 'no room' } })).toEqual([
      'The last backup failed: no room',
    ])
    expect([inMB(900), inMB(1_500_000), inMB(2_340_000_000)]).toEqual(['1 kB', '2 MB', '2.3 GB'])
  })
})
