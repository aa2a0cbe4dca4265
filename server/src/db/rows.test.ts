import { EventEmitter, once } from 'node:events'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { DataSource } from 'typeorm'
import {
  defaultHouseRules,
  emptyDocument,
  NewerShape,
  SCHEMA,
  type Edit,
  type JobDocument,
  type KeptEntry,
  type Op,
} from '#core'
import { freshSource } from '../testing/database.ts'
import { CatalogueStore, shippedAt, type Offering } from './catalogue.ts'
import { Firm, Job, JobEdit } from './entities.ts'
import { JournalRows } from './journal-rows.ts'
import { CatalogueVersions1764800000000 } from './migrations/0008-catalogue-versions.ts'
import { SettingsStore } from './settings.ts'
import { createStore } from './store.ts'
import { TransmitterRows } from './transmitters.ts'

let source: DataSource
beforeAll(async () => {
  source = await freshSource()
})
afterAll(async () => {
  await source.destroy()
})

async function aFirm(settings = '{}'): Promise<string> {
  const id = randomUUID()
  await source.getRepository(Firm).insert({ id, name: id, settings, createdAt: new Date() })
  return id
}

async function aJob(firmId: string): Promise<string> {
  const id = randomUUID()
  const now = new Date()
  await source.getRepository(Job).insert({
    ...{
      firmId,
      id,
      revision: 0,
      name: 'Job',
      address: '',
      practice: false,
      summary: '{}',
      summaryRevision: 0,
    },
    ...{ createdAt: now, changedAt: now },
  })
  return id
}

describe('settings of a firm', () => {
  it('are of shape 1 where none is noted, and one newer than this build is not touched', async () => {
    const plain = new SettingsStore(source, await aFirm('{"columns":{"id":"sticker"}}'))
    expect(await plain.columns()).toEqual({ id: 'sticker' })
    const newer = new SettingsStore(source, await aFirm('{"schema":99,"columns":{"id":"sticker"}}'))
    await expect(newer.columns()).rejects.toThrow(NewerShape)
    await expect(newer.addColumns({ loop: 'nothing' })).rejects.toThrow(NewerShape)
    await expect(newer.setHouseRules(defaultHouseRules, 0)).rejects.toThrow(NewerShape)
  })

  it('keep the 500 headings told last, a known one by its newer meaning', async () => {
    const store = new SettingsStore(source, await aFirm())
    const many = (from: number, count: number): Record<string, string> =>
      Object.fromEntries(Array.from({ length: count }, (_, n) => [`heading ${from + n}`, 'room']))
    await store.addColumns(many(0, 500))
    await store.addColumns({ ...many(500, 3), 'heading 499': 'model' })
    const kept = await store.columns()
    expect(Object.keys(kept)).toHaveLength(500)
    expect([kept['heading 2'], kept['heading 3'], kept['heading 499'], kept['heading 502']]).toEqual([
      ...[undefined, 'room', 'model', 'room'],
    ])
  })
})

describe('the IDs of a job', () => {
  const withStickers = (...stickers: readonly string[]): JobDocument => ({
    ...emptyDocument,
    records: Object.fromEntries(
      stickers.map((sticker) => [`device:${sticker}`, { id: `device:${sticker}`, type: 'device', sticker }]),
    ) as unknown as JobDocument['records'],
  })

  it('follow its document: what came is there, what went is gone, what stayed stays', async () => {
    const firm = await aFirm()
    const rows = new TransmitterRows(source, firm)
    const job = await aJob(firm)
    const [one, two, none] = [
      withStickers('11111111', '22222222'),
      withStickers('22222222', '33333333'),
      withStickers(),
    ]
    await rows.keep(source.manager, job, none, one)
    expect((await rows.of(job)).sort()).toEqual(['11111111', '22222222'])
    await rows.keep(source.manager, job, one, two)
    expect((await rows.of(job)).sort()).toEqual(['22222222', '33333333'])
    await rows.keep(source.manager, job, two, two)
    expect((await rows.of(job)).sort()).toEqual(['22222222', '33333333'])
    await rows.keep(source.manager, job, two, none)
    expect(await rows.of(job)).toEqual([])
    await rows.make(source.manager, job, none)
    expect(await rows.of(job)).toEqual([])
    expect(await rows.elsewhere(job, [])).toEqual([])
  })
})

describe('entries of a firm', () => {
  const kept = (name: string): KeptEntry => {
    const raw = { kind: 'family', id: `family/${name}`, version: 1 }
    return { hash: `${name}-hash`.padEnd(64, '0'), form: 1, raw, entry: raw } as unknown as KeptEntry
  }

  it('are offered or only kept; what is offered anew takes the place of the one before', async () => {
    const firm = await aFirm()
    const store = new CatalogueStore(source, firm)
    const offered = async (): Promise<string[]> =>
      (
        await source.query<{ hash: string }[]>(
          'SELECT hash FROM catalogue_entry WHERE firm_id = ? AND current = 1 ORDER BY hash',
          [firm],
        )
      ).map(({ hash }) => hash)
    const [first, other] = [kept('a'), kept('b')]
    const second = { ...first, hash: 'a-second'.padEnd(64, '0') }
    const at = (minute: number) => new Date(Date.UTC(2026, 4, 4, 9, minute))
    const by = (how: Offering['how'], minute: number): Offering => ({
      ...{ how, by: 'Ann', at: at(minute), why: `in minute ${minute}` },
    })
    const told = async () => {
      const { versions, kept: entries, current } = await store.versions('family/a')
      expect(entries.map(({ hash }) => hash).sort()).toEqual(
        [...new Set(versions.map(({ hash }) => hash))].sort(),
      )
      expect(current).toBe(versions[0]?.hash ?? null)
      return versions.map(
        ({ hash, how, by: who, why }) => `${hash.slice(0, 8)} ${how} ${who}${why && `, ${why}`}`,
      )
    }
    await store.add([first], null)
    expect(await offered()).toEqual([])
    // What is only kept for a job was never offered.
    expect(await told()).toEqual([])
    await store.add([first, other], by('shipped', 1))
    expect(await offered()).toEqual([first.hash, other.hash])
    await store.add([second], null)
    expect(await offered()).toEqual([first.hash, other.hash])
    await store.add([second], by('published', 2))
    expect(await offered()).toEqual([second.hash, other.hash])
    await store.add([first], null)
    expect(await offered()).toEqual([second.hash, other.hash])
    // Offered already it is no version more; offered again after another it is.
    await store.add([second, other], by('pack', 3))
    expect(await told()).toEqual(['a-second published Ann, in minute 2', 'a-hash00 shipped Ann, in minute 1'])
    await store.add([first], by('prices', 4))
    expect(await told()).toEqual([
      'a-hash00 prices Ann, in minute 4',
      'a-second published Ann, in minute 2',
      'a-hash00 shipped Ann, in minute 1',
    ])
    expect(await offered()).toEqual([first.hash, other.hash])
    expect([...(await store.known([first.hash, 'x']))]).toEqual([[first.hash, 'family/a']])
    expect([await store.byHashes([]), [...(await store.known([]))]]).toEqual([[], []])
  })

  it('of earlier builds tell of their versions what their drafts tell, and of the rest that nobody knows', async () => {
    const firm = await aFirm()
    const store = new CatalogueStore(source, firm)
    const [drafted, packed] = [kept('drafted'), kept('packed')]
    await store.add([drafted, packed], shippedAt(new Date()))
    const draft = (id: string, state: string, hash: string | null) =>
      source.query(
        'INSERT INTO draft (firm_id, id, revision, kind, name, state, entry_id, hash, why, changed_by, created_at, changed_at)' +
          " VALUES (?, ?, 1, 'family', 'D', ?, ?, ?, 'its leaflet', 'Bea', '2026-05-01', '2026-05-02')",
        [firm, id, state, hash && 'family/drafted', hash],
      )
    await draft('d1', 'published', drafted.hash)
    await draft('d2', 'open', null)
    await draft('d3', 'dropped', null)
    const migration = new CatalogueVersions1764800000000()
    const runner = source.createQueryRunner()
    await migration.down(runner)
    await migration.up(runner)
    // A second try, after a fault, tells nothing twice.
    await migration.up(runner)
    await runner.release()
    expect((await store.versions('family/drafted')).versions).toMatchObject([
      {
        hash: drafted.hash,
        how: 'published',
        by: 'Bea',
        why: 'its leaflet',
        at: new Date('2026-05-02T00:00:00Z'),
      },
    ])
    // A price came behind what was published, by a build that wrote nothing down: it is in use, so it is the latest.
    const priced = { ...drafted, hash: 'drafted-priced'.padEnd(64, '0') }
    await store.add([priced], null)
    await source.query('UPDATE catalogue_entry SET current = (hash = ?) WHERE firm_id = ? AND entry_id = ?', [
      ...[priced.hash, firm, 'family/drafted'],
    ])
    const { versions, current } = await store.versions('family/drafted')
    expect([versions.map(({ hash, how }) => [hash, how]), current]).toEqual([
      [
        [priced.hash, null],
        [drafted.hash, 'published'],
      ],
      priced.hash,
    ])
    expect(await store.versions('family/packed')).toEqual({
      versions: [{ hash: packed.hash, how: null, by: null, at: null, why: '' }],
      kept: [expect.objectContaining({ hash: packed.hash })],
      current: packed.hash,
    })
  })
})

describe('rows of the journal', () => {
  const ann = { id: 'ann', name: 'Ann' }
  const edit = (id: string, ops: readonly Op[], over: Partial<Edit> = {}): Edit => ({
    ...{ id, kind: 'test.edit', schema: SCHEMA, madeAt: '2026-05-04T09:00:00.000Z', by: ann },
    ops,
    ...over,
  })
  const wish = (n: number): Op => ({
    op: 'set',
    id: 'job:main',
    field: 'wishes',
    from: `w${n - 1}`,
    to: `w${n}`,
  })

  async function aJournal(edits: readonly Edit[]): Promise<{ rows: JournalRows; job: string }> {
    const firmId = await aFirm()
    const jobId = await aJob(firmId)
    if (edits.length === 0) return { rows: new JournalRows(firmId), job: jobId }
    await source.getRepository(JobEdit).insert(
      edits.map((one, index) => ({
        ...{
          firmId,
          jobId,
          revision: index + 1,
          editId: one.id,
          kind: one.kind,
          madeBy: 'Ann',
          madeById: 'ann',
        },
        ...{ takenAt: new Date(Date.UTC(2026, 4, 4, 9, 0, index)), body: JSON.stringify(one) },
      })),
    )
    return { rows: new JournalRows(firmId), job: jobId }
  }

  it('tell the last that touched a field, however far back, and none where none did', async () => {
    const edits = [
      edit('first', [{ op: 'set', id: 'job:main', field: 'grade', from: 2, to: 1 }]),
      ...Array.from({ length: 120 }, (_, n) => edit(`w${n}`, [wish(n)])),
    ]
    const { rows, job } = await aJournal(edits)
    const touched = async (field: string | null): Promise<string | undefined> =>
      (await rows.lastTouch(source.manager, job, 'job:main', field))?.edit.id
    expect(await touched('grade')).toBe('first')
    expect(await touched('wishes')).toBe('w119')
    expect(await touched('address')).toBeUndefined()
  })

  it('give 50 steps back and 50 forth, and say that there are more only where there are', async () => {
    const steps = async (count: number): Promise<[number, string | undefined, boolean]> => {
      const { rows, job } = await aJournal(Array.from({ length: count }, (_, n) => edit(`w${n}`, [wish(n)])))
      const { undo, more } = await rows.undoStacks(source.manager, job, ann)
      return [undo.length, undo[0]?.edit.id, more]
    }
    expect(await steps(0)).toEqual([0, undefined, false])
    expect(await steps(50)).toEqual([50, 'w0', false])
    expect(await steps(51)).toEqual([50, 'w1', true])
    expect(await steps(199)).toEqual([50, 'w149', true])
    expect(await steps(260)).toEqual([50, 'w210', true])
  })

  it('give back no more than 50 that were taken back', async () => {
    const forth = Array.from({ length: 60 }, (_, n) => edit(`w${n}`, [wish(n)]))
    const back = [...forth].reverse().map(({ id }, n) =>
      edit(`u${n}`, [{ op: 'set', id: 'job:main', field: 'wishes', from: `w${59 - n}`, to: `w${58 - n}` }], {
        kind: 'undo',
        undoes: id,
      }),
    )
    const { rows, job } = await aJournal([...forth, ...back])
    const { undo, redo, more } = await rows.undoStacks(source.manager, job, ann)
    expect([undo.length, redo.length, more]).toEqual([0, 50, true])
  })

  it('of older shapes and before an upgrade are never taken back', async () => {
    const { rows, job } = await aJournal([
      edit('before', [wish(0)]),
      edit('up', [], { kind: 'upgrade' }),
      edit('old', [wish(1)], { schema: SCHEMA - 1 }),
      edit('now', [wish(2)]),
    ])
    const { undo } = await rows.undoStacks(source.manager, job, ann)
    expect(undo.map((entry) => entry.edit.id)).toEqual(['now'])
  })

  it('of a record are found by its id as it is, no sign standing for another', async () => {
    const user = (id: string): Op => ({ op: 'add', record: { id, type: 'user', name: id, order: 1 } })
    const { rows, job } = await aJournal([
      edit('under', [user('user:u_1')]),
      edit('other', [user('user:uX1')]),
      edit('share', [user('user:u%1')]),
    ])
    const about = async (id: string): Promise<string[]> =>
      (await rows.before(source.manager, job, 99, 10, [id])).map((entry) => entry.edit.id)
    expect(await about('user:u_1')).toEqual(['under'])
    expect(await about('user:u%1')).toEqual(['share'])
    expect(await about('user:uX1')).toEqual(['other'])
  })
})

describe('the stores', () => {
  it('tell the revisions of the jobs asked for, by firm and job, and nothing of none', async () => {
    const store = createStore(source)
    const [firm, other] = [await aFirm(), await aFirm()]
    const [one, two, foreign] = [await aJob(firm), await aJob(firm), await aJob(other)]
    await source.getRepository(Job).update({ id: two }, { revision: 7 })
    expect([...(await store.revisions([]))]).toEqual([])
    const asked = [one, two, foreign].map((jobId) => ({ firmId: firm, jobId }))
    expect(Object.fromEntries(await store.revisions(asked))).toEqual({
      [`${firm}|${one}`]: 0,
      [`${firm}|${two}`]: 7,
    })
    expect(Object.fromEntries(await store.revisions(asked.slice(1, 2)))).toEqual({ [`${firm}|${two}`]: 7 })
  })

  it('answer in the tables of this build alone', async () => {
    const store = createStore(source)
    expect(await store.answers()).toBe(true)
    await source.query(
      "INSERT INTO migrations (timestamp, name) VALUES (99999999999999, 'Later99999999999999')",
    )
    expect(await store.answers()).toBe(false)
    await source.query("DELETE FROM migrations WHERE name LIKE 'Later%'")
    expect(await store.answers()).toBe(true)
  })

  it('let one at a time do the work of a name, and free it also after a failure', async () => {
    const store = createStore(source)
    const doors = new EventEmitter()
    const first = store.alone('backup', async () => {
      doors.emit('in')
      const [given] = (await once(doors, 'out')) as [string]
      return given
    })
    await once(doors, 'in')
    expect(await store.alone('backup', () => Promise.resolve('second'))).toBeNull()
    expect(await store.alone('other', () => Promise.resolve('other'))).toBe('other')
    doors.emit('out', 'first')
    expect(await first).toBe('first')
    await expect(store.alone('backup', () => Promise.reject(new Error('broke')))).rejects.toThrow('broke')
    expect(await store.alone('backup', () => Promise.resolve('third'))).toBe('third')
  })

  it('give a summary back, and know what waits for one by firm', async () => {
    const store = createStore(source)
    const [firm, none] = [await aFirm(), await aFirm()]
    await aJob(firm)
    await aJob(firm)
    const now = new Date()
    expect([await store.summaries.waiting(firm, now), await store.summaries.waiting(none, now)]).toEqual([
      2, 0,
    ])
  })
})
