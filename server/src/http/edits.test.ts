import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { JobDocument, JournalEntry, Op } from '#core'
import { canonicalJson, replay, SCHEMA } from '#core'
import type { RunningServer } from '../server.ts'
import { anEdit, startJob, startTestServer, TestClient } from '../testing/client.ts'

let server: RunningServer
let ann: TestClient
let bob: TestClient
beforeAll(async () => {
  server = await startTestServer()
  ann = await new TestClient(server.url).signIn('ann')
  bob = await new TestClient(server.url).signIn('bob')
})
afterAll(() => server.stop())

const set = (field: string, from: unknown, to: unknown): Op => ({
  op: 'set',
  id: 'job:main',
  field,
  from,
  to,
})

async function stateOf(
  job: string,
): Promise<{ revision: number; document: JobDocument; journal: JournalEntry[] }> {
  const opened = (await ann.call('GET', `/api/jobs/${job}`)).body as unknown as {
    revision: number
    document: JobDocument
  }
  const edits = (await ann.call('GET', `/api/jobs/${job}/edits?since=0`)).body as unknown as {
    entries: JournalEntry[]
  }
  return { ...opened, journal: edits.entries }
}

describe('taking edits', () => {
  it('takes a stale edit of another field', async () => {
    const job = await ann.beginJob()
    expect((await ann.send(job, anEdit([set('wishes', '', 'quiet siren')]))).status).toBe(200)
    expect((await bob.send(job, anEdit([set('grade', 2, 1)]))).status).toBe(200)
    expect((await stateOf(job)).document.records['job:main']).toMatchObject({
      wishes: 'quiet siren',
      grade: 1,
    })
  })

  it('answers a conflict with both values, person and time', async () => {
    const job = await ann.beginJob()
    await ann.send(job, anEdit([set('wishes', '', 'quiet siren')]))
    const before = await stateOf(job)
    const answer = await bob.send(
      job,
      anEdit([set('grade', 2, 1)]),
      anEdit([set('wishes', '', 'loud siren')]),
      anEdit([set('grade', 1, 3)]),
    )
    expect(answer.status).toBe(409)
    const answers = answer.body.answers as { outcome: string; conflict?: unknown }[]
    expect(answers.map((item) => item.outcome)).toEqual(['taken', 'conflict'])
    expect(answers[1]?.conflict).toMatchObject({
      code: 'changed',
      id: 'job:main',
      field: 'wishes',
      yours: 'loud siren',
      theirs: 'quiet siren',
      who: 'Ann Reed',
      when: before.journal[1]?.takenAt,
    })
    expect((await stateOf(job)).revision).toBe(before.revision + 1)
  })

  it('journals the same edit once however often it is sent', async () => {
    const job = await ann.beginJob()
    const edit = anEdit([set('grade', 2, 1)])
    const first = await ann.send(job, edit)
    await ann.send(job, anEdit([set('grade', 1, 3)]))
    const again = await ann.send(job, edit)
    expect(again.body.answers).toEqual(first.body.answers)
    const both = await Promise.all(
      [1, 2, 3, 4].map(() => ann.send(job, anEdit([set('grade', 3, 2)], { id: 'the-same-edit' }))),
    )
    expect(new Set(both.map((answer) => JSON.stringify(answer.body.answers))).size).toBe(1)
    expect(
      (await stateOf(job)).journal
        .map((entry) => entry.edit.id)
        .filter((id) => id === edit.id || id === 'the-same-edit'),
    ).toHaveLength(2)
    expect((await stateOf(job)).document.records['job:main']).toMatchObject({ grade: 2 })
  })

  it('begins a job once', async () => {
    const id = randomUUID()
    const edit = anEdit([{ op: 'add', record: startJob() }])
    const answers = await Promise.all([1, 2, 3].map(() => ann.call('PUT', `/api/jobs/${id}`, { edit })))
    expect(answers.map((answer) => answer.status)).toEqual([200, 200, 200])
    expect((await stateOf(id)).revision).toBe(1)
  })

  it("undo after a colleague's edit takes back mine only", async () => {
    const job = await ann.beginJob()
    const mine = anEdit([set('wishes', '', 'quiet siren')])
    await ann.send(job, mine)
    await bob.send(job, anEdit([set('grade', 2, 1)]))
    await ann.send(job, anEdit([set('wishes', 'quiet siren', '')], { kind: 'undo', undoes: mine.id }))
    expect((await stateOf(job)).document.records['job:main']).toMatchObject({ wishes: '', grade: 1 })
  })

  it('names the maker itself, whatever the edit says', async () => {
    const job = await ann.beginJob()
    await bob.send(job, anEdit([set('grade', 2, 1)], { by: ann.me }))
    expect((await stateOf(job)).journal.at(-1)?.edit.by).toEqual(bob.me)
  })

  it('takes a crowd on one job: everybody once, each with an answer of their own', async () => {
    const job = await ann.beginJob()
    const user = (n: number): Op => ({
      op: 'add',
      record: { id: `user:${n}`, type: 'user', name: `User ${n}`, order: n },
    })
    const adds = Array.from({ length: 45 }, (_, n) => anEdit([user(n)]))
    const clash = anEdit([set('wishes', 'never there', 'x')])
    const lost = adds[7]
    if (!lost) throw new Error('no edit')
    const answers = await Promise.all(
      // One cannot be taken, and one comes twice, as after a lost answer.
      [...adds, clash, lost].map((edit, n) => (n % 2 === 0 ? ann : bob).send(job, edit)),
    )
    expect(answers.map((answer) => answer.status)).toEqual([...adds.map(() => 200), 409, 200])
    const state = await stateOf(job)
    expect(state.revision).toBe(46)
    expect(new Set(state.journal.map((entry) => entry.revision)).size).toBe(46)
    expect(Object.keys(state.document.records).filter((id) => id.startsWith('user:'))).toHaveLength(45)
    expect(canonicalJson(replay(state.journal))).toBe(canonicalJson(state.document))
    // The repeated one has the revision that it got at first.
    expect(answers.at(-1)?.body.revision).toBe(answers[7]?.body.revision)
    const names = state.journal.slice(1).map((entry) => entry.edit.by.name)
    expect(new Set(names).size).toBe(2)
  })

  it('replays the journal to the document across snapshots', async () => {
    const job = await ann.beginJob()
    for (let n = 0; n < 45; n++)
      await ann.send(job, anEdit([set('wishes', n === 0 ? '' : `wish ${n - 1}`, `wish ${n}`)]))
    const state = await stateOf(job)
    expect(state.revision).toBe(46)
    expect(canonicalJson(replay(state.journal))).toBe(canonicalJson(state.document))
    const other = await server.services.store.people.byLogin('ann')
    const { DocumentCache } = await import('../db/cache.ts')
    const { Batches } = await import('../db/batches.ts')
    const { JobStore } = await import('../db/jobs.ts')
    const { Later } = await import('../db/later.ts')
    const { source } = server.services.store.people
    // Each reads it anew, from what the database has.
    const readAnew = async (): Promise<string> => {
      const firm = other?.account.firmId ?? ''
      const store = new JobStore(source, firm, new DocumentCache(), new Batches(), new Later(() => undefined))
      return canonicalJson((await store.head(job))?.document)
    }
    expect(await readAnew()).toBe(canonicalJson(state.document))
    // Snapshots are kept behind the answers: the newest and the one before it.
    const kept = async (): Promise<number[]> =>
      (
        await source.query<{ revision: number }[]>(
          'SELECT revision FROM job_snapshot WHERE job_id = ? ORDER BY revision',
          [job],
        )
      ).map((row) => row.revision)
    await expect.poll(kept).toEqual([20, 40])
    await source.query('DELETE FROM job_snapshot WHERE job_id = ?', [job])
    expect(await readAnew()).toBe(canonicalJson(state.document))
  })
})

describe('the journal and what can be undone', () => {
  const wish = (from: string, to: string): Op => set('wishes', from, to)
  interface Steps {
    undo: JournalEntry[]
    redo: (JournalEntry & { undid?: string })[]
    more: boolean
  }
  const steps = async (who: TestClient, job: string): Promise<Steps> =>
    (await who.call('GET', `/api/jobs/${job}/undo`)).body as unknown as Steps

  it('gives what I can take back, however much others did since', async () => {
    const job = await ann.beginJob()
    const mine = anEdit([wish('', 'quiet siren')])
    await bob.send(job, mine)
    // Five thousand and more of a colleague's edits, straight into the table.
    const { source } = server.services.store.people
    const [row] = await source.query<{ firm_id: string }[]>('SELECT firm_id FROM job WHERE id = ?', [job])
    const body = JSON.stringify({ ...anEdit([set('grade', 2, 1)]), by: ann.me })
    for (let from = 3; from < 5303; from += 530) {
      const rows = Array.from({ length: 530 }, (_, index) => [
        row?.firm_id,
        job,
        from + index,
        `made-${from + index}`,
        'x',
        'Ann Reed',
        ann.me.id,
        new Date(),
        body,
      ])
      await source.query(
        `INSERT INTO job_edit (firm_id, job_id, revision, edit_id, kind, made_by, made_by_id, taken_at, body) VALUES ${rows.map(() => '(?,?,?,?,?,?,?,?,?)').join(',')}`,
        rows.flat(),
      )
    }
    const bobs = await steps(bob, job)
    expect(bobs.undo.map((entry) => entry.edit.id)).toEqual([mine.id])
    expect(bobs.more).toBe(false)
    const anns = await steps(ann, job)
    expect([anns.undo.length, anns.more]).toEqual([50, true])
  })

  it('looks further back while nothing is left to undo', async () => {
    const job = await ann.beginJob()
    const old = anEdit([wish('', 'w')])
    await bob.send(job, old)
    let now = 'w'
    // More edits taken back again than are looked at first.
    for (let n = 0; n < 105; n++) {
      const edit = anEdit([wish(now, `w${n}`)])
      const back = anEdit([wish(`w${n}`, now)], { kind: 'undo', undoes: edit.id })
      await bob.send(job, edit, back)
    }
    now = 'w'
    const { undo, redo } = await steps(bob, job)
    expect(undo.map((entry) => entry.edit.id)).toEqual([old.id])
    expect(redo.at(-1)?.undid).toBe('test.edit')
  })

  it('comes in pages, newest first, of the whole job or of some records', async () => {
    const job = await ann.beginJob()
    for (let n = 0; n < 104; n++)
      await ann.send(
        job,
        n % 26 === 5
          ? anEdit([{ op: 'add', record: { id: `user:u_${n}`, type: 'user', name: `User ${n}`, order: n } }])
          : anEdit([wish(`w${n - (n % 26 === 6 ? 2 : 1)}`.replace('w-1', ''), `w${n}`)]),
      )
    const page = async (query: string): Promise<number[]> =>
      ((await ann.call('GET', `/api/jobs/${job}/journal?${query}`)).body.entries as JournalEntry[]).map(
        (entry) => entry.revision,
      )
    const first = await page('')
    expect([first.length, first[0], first.at(-1)]).toEqual([100, 105, 6])
    expect(await page('before=6')).toEqual([5, 4, 3, 2, 1])
    expect(await page('about=user:u_31')).toEqual([33])
    // The sign for any one letter stands for itself.
    expect(await page('about=user:uX31')).toEqual([])
    expect(await page('about=user:u_31,user:u_5')).toEqual([33, 7])
    expect((await ann.call('GET', `/api/jobs/${job}/journal?before=0`)).status).toBe(422)
  })
})

describe('bad input', () => {
  it.each([
    ['a grade of 7', [set('grade', 2, 7)], 'grade: must be grade 1, 2 or 3'],
    ['an empty name', [set('name', 'Mill Cottage', '')], 'name: must not be empty'],
    [
      'an unknown catalogue entry',
      [
        {
          op: 'add',
          record: { id: 'pin:panel/none', type: 'pin', entry: 'panel/none', hash: 'a'.repeat(64) },
        },
      ],
      'ops.0.record.hash: there is no catalogue entry panel/none of this hash here; load the catalogue again and choose it there',
    ],
    ['no ops', [], 'ops: must have at least 1 entry'],
    [
      'zone number 9999',
      [{ op: 'set', id: 'zone:a', field: 'number', from: 1, to: 9999 }],
      'number: must be a whole number from 1 to 999',
    ],
    [
      'a serial with spaces',
      [{ op: 'set', id: 'device:a', field: 'sticker', from: null, to: '12 34' }],
      'sticker: must be a transmitter ID of 1 to 20 digits and capital letters, without spaces',
    ],
  ])('refuses %s, names the field and changes nothing', async (_what, ops, message) => {
    const job = await ann.beginJob()
    const before = await stateOf(job)
    const answer = await ann.send(job, anEdit(ops as Op[]))
    expect(answer.status).toBe(422)
    expect(answer.body.problems?.map((p) => `${p.path}: ${p.message}`)).toEqual([message])
    expect(await stateOf(job)).toEqual(before)
  })

  it('refuses malformed JSON and a huge body', async () => {
    const job = await ann.beginJob()
    const before = await stateOf(job)
    expect((await ann.call('POST', `/api/jobs/${job}/edits`, '{"edits": [')).body.title).toBe(
      'What was sent is not valid JSON, so nothing of it was taken.',
    )
    const huge = await ann.call(
      'POST',
      `/api/jobs/${job}/edits`,
      JSON.stringify({ edits: ['x'.repeat(50_000_000)] }),
    )
    expect([huge.status, huge.body.title]).toEqual([
      413,
      'What was sent is larger than the 4 MB allowed here. Nothing was changed.',
    ])
    expect(await stateOf(job)).toEqual(before)
  })

  it('holds an edit of newer shapes instead of calling it invalid', async () => {
    const job = await ann.beginJob()
    const before = await stateOf(job)
    const edit = {
      ...anEdit([]),
      schema: SCHEMA + 1,
      ops: [{ op: 'add', record: { id: 'new:1', type: 'new' } }],
    }
    const answer = await ann.send(job, anEdit([set('grade', 2, 1)]), edit)
    expect(answer.status).toBe(426)
    expect(answer.body.answers).toMatchObject([
      { outcome: 'taken' },
      { id: edit.id, outcome: 'held', schema: SCHEMA + 1 },
    ])
    expect((await stateOf(job)).revision).toBe(before.revision + 1)
  })

  it('takes odd text as text', async () => {
    const job = await ann.beginJob()
    const wish = '🙂 <script>alert(1)</script>'
    await ann.send(job, anEdit([set('wishes', '', wish)]))
    expect((await stateOf(job)).document.records['job:main']).toMatchObject({ wishes: wish })
  })
})
