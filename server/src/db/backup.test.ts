import { randomBytes, randomUUID } from 'node:crypto'
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync, gzipSync } from 'node:zlib'
import { createConnection } from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { canonicalJson, SCHEMA } from '#core'
import { Backups, beforeName, dailyName, worthKeeping } from '../service/backups.ts'
import { FULL_BYTES, Room } from '../service/room.ts'
import type { RunningServer } from '../server.ts'
import { anEdit, startTestServer, TestClient } from '../testing/client.ts'
import { freshDatabase } from '../testing/database.ts'
import { readBackup, writeBackup } from './backup.ts'
import { builds } from '../../../core/src/testing/builds.ts'
import type { DbAddress } from './mariadb.ts'
import { proveAt, restoreInto } from './restore.ts'
import { openSource } from './source.ts'
import { createStore } from './store.ts'

let server: RunningServer
let address: DbAddress
let folder: string
let ann: TestClient
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'kapelle-backup-'))
  address = await freshDatabase()
  server = await startTestServer(undefined, undefined, address)
  ann = await new TestClient(server.url).signIn('ann')
})
afterAll(async () => {
  await server.stop()
  rmSync(folder, { recursive: true, force: true })
})

const now = new Date('2026-05-04T09:00:00Z')
const back = (name: string) => writeBackup(address, join(folder, name), 'test', now)
const restored = async (name: string): Promise<DbAddress> => {
  const empty = await freshDatabase()
  await restoreInto(empty, join(folder, name))
  return empty
}

describe('a backup', () => {
  it('made under load holds every edit acknowledged before its moment, and restores to the same', async () => {
    const demo = structuredClone(builds.at(-1)?.jobs['fennel-bank']) as object
    const imported = randomUUID()
    expect((await ann.call('PUT', `/api/jobs/${imported}/file?edit=${randomUUID()}`, demo)).status).toBe(200)
    const jobs = await Promise.all([1, 2, 3].map(() => ann.beginJob()))
    const acknowledged: string[] = []
    let running = true
    const load = jobs.map(async (job) => {
      for (let n = 0; running; n++) {
        const from = n === 0 ? '' : `wish ${n - 1}`
        const edit = anEdit([{ op: 'set', id: 'job:main', field: 'wishes', from, to: `wish ${n}` }])
        expect((await ann.send(job, edit)).status).toBe(200)
        acknowledged.push(edit.id)
      }
    })
    while (acknowledged.length < 30) await new Promise((done) => setTimeout(done, 5))
    const before = [...acknowledged]
    // A leaflet of three parts comes through byte by byte.
    const leaflet = Buffer.concat([Buffer.from('%PDF-1.7\n'), randomBytes(900_000)])
    const kept = await ann.call('POST', '/api/catalogue/leaflets?about=device/wick&name=a.pdf', leaflet, {
      'Content-Type': 'application/octet-stream',
    })
    const { head, counts } = await back('load.gz')
    running = false
    await Promise.all(load)
    expect(head).toMatchObject({
      kapelleBackup: 1,
      madeAt: '2026-05-04T09:00:00.000Z',
      build: 'test',
      schema: SCHEMA,
    })
    expect([counts.firm, counts.person, counts.job]).toEqual([2, 4, 4])
    const copy = await restored('load.gz')
    const store = createStore(await openSource(copy))
    const [brook] = await store.people.firms()
    const entries = (
      await Promise.all(jobs.map((job) => store.jobsOf(brook?.id ?? '').editsSince(job, 0)))
    ).flat()
    const ids = new Set(entries.map((entry) => entry.edit.id))
    expect(before.filter((id) => !ids.has(id))).toEqual([])
    // What came after its moment is not half there: each job's journal is whole.
    expect(await proveAt(copy)).toMatchObject({ jobs: 4, problems: [] })
    const job = await store.jobsOf(brook?.id ?? '').head(imported)
    const opened = (await ann.call('GET', `/api/jobs/${imported}`)).body
    expect(canonicalJson(job?.document)).toBe(canonicalJson(opened.document))
    expect((await store.people.byLogin('ann'))?.account.name).toBe('Ann Reed')
    expect(counts.leaflet_part).toBe(3)
    const { id } = kept.body.leaflet as { id: string }
    expect((await store.leafletsOf(brook?.id ?? '').content(id)).equals(leaflet)).toBe(true)
    const { versions } = await store.catalogueOf(brook?.id ?? '').versions('device/wick')
    expect(versions.map(({ how }) => how)).toEqual(['shipped'])
    await store.close()
  })

  it('holds no session, no link and no key, is its owner’s alone, and is whole or not there', async () => {
    const { token } = (await ann.call('POST', '/api/invitations', { role: 'viewer' })).body as {
      token: string
    }
    await back('bare.gz')
    const text = gunzipSync(readFileSync(join(folder, 'bare.gz'))).toString()
    const tables = new Set(
      text
        .split('\n')
        .flatMap((line) =>
          line.startsWith('{"table"') ? [(JSON.parse(line) as { table: string }).table] : [],
        ),
    )
    expect(
      [...tables].filter((table) => ['session', 'link', 'attempt', 'signing_key'].includes(table)),
    ).toEqual([])
    expect(text).not.toContain(token)
    expect(text).not.toContain(address.password)
    expect(statSync(join(folder, 'bare.gz')).mode & 0o777).toBe(0o600)
    await expect(
      writeBackup({ ...address, password: 'wrong' }, join(folder, 'none.gz'), 'test', now),
    ).rejects.toThrow()
    expect(readdirSync(folder).filter((name) => name.startsWith('none'))).toEqual([])
  })

  it('that is damaged, cut short, of something else or newer is refused in one sentence, and nothing is restored', async () => {
    // Enough edits that a snapshot is kept, too.
    const job = await ann.beginJob()
    for (let n = 0; n < 22; n++) {
      const from = n === 0 ? '' : `note ${n - 1}`
      await ann.send(job, anEdit([{ op: 'set', id: 'job:main', field: 'wishes', from, to: `note ${n}` }]))
    }
    await server.services.summaries.settled()
    await back('whole.gz')
    const lines = gunzipSync(readFileSync(join(folder, 'whole.gz')))
      .toString()
      .trimEnd()
      .split('\n')
    const spoilt: Record<string, [Buffer, string]> = {
      'no gzip': [Buffer.from('hello'), 'no backup of Kapelle'],
      'other json': [gzipSync('{"a":1}\n'), 'no backup of Kapelle'],
      empty: [gzipSync(''), 'no backup of Kapelle'],
      'cut file': [readFileSync(join(folder, 'whole.gz')).subarray(0, 2000), 'damaged or cut short'],
      'no end': [gzipSync(`${lines.slice(0, -1).join('\n')}\n`), 'cut short: its end is missing'],
      'line lost': [
        gzipSync(`${[...lines.slice(0, 2), ...lines.slice(3)].join('\n')}\n`),
        'its SHA-256 differs',
      ],
      'value changed': [
        gzipSync(`${lines.join('\n').replace('Ann Reed', 'Ann Rood')}\n`),
        'its SHA-256 differs',
      ],
      'behind the end': [gzipSync(`${[...lines, lines[1]].join('\n')}\n`), 'behind its end'],
      'newer form': [
        gzipSync(`${lines.join('\n').replace('"kapelleBackup":1', '"kapelleBackup":2')}\n`),
        'made by a newer Kapelle',
      ],
      'unknown table': [
        gzipSync(`${lines.join('\n').replaceAll('"table":"firm"', '"table":"mysql"')}\n`),
        'damaged',
      ],
    }
    for (const [what, [bytes, sentence]] of Object.entries(spoilt)) {
      const file = join(folder, 'spoilt.gz')
      writeFileSync(file, bytes)
      const empty = await freshDatabase()
      await expect(restoreInto(empty, file), what).rejects.toThrow(sentence)
      const source = await openSource(empty)
      expect([what, await createStore(source).people.countFirms()]).toEqual([what, 0])
      await source.destroy()
    }
    await expect(restoreInto(address, join(folder, 'whole.gz'))).rejects.toThrow('nothing was overwritten')
  })

  it('whose journal does not replay to its document, or whose look-up differs, is told so', async () => {
    const copy = await restored('whole.gz')
    const source = await openSource(copy)
    const [job] = await source.query<{ id: string }[]>('SELECT id FROM job ORDER BY id LIMIT 1')
    await source.query("INSERT INTO transmitter SELECT firm_id, '99887766', id FROM job WHERE id = ?", [
      job?.id,
    ])
    expect((await proveAt(copy)).problems).toEqual([expect.stringContaining('its look-up rows differ')])
    await source.query("DELETE FROM transmitter WHERE serial = '99887766'")
    const [snapshot] = await source.query<{ job_id: string; document: string }[]>(
      'SELECT * FROM job_snapshot LIMIT 1',
    )
    if (!snapshot) throw new Error('no snapshot to spoil')
    await source.query('UPDATE job_snapshot SET document = ? WHERE job_id = ?', [
      snapshot.document.replace(/"name":"[^"]+"/, '"name":"Elsewhere"'),
      snapshot.job_id,
    ])
    expect((await proveAt(copy)).problems).toEqual([expect.stringContaining('does not replay')])
    await source.query('DELETE FROM job_edit WHERE job_id = ? AND revision = 1', [snapshot.job_id])
    expect((await proveAt(copy)).problems).toEqual([expect.stringContaining('its journal has a gap')])
    await source.destroy()
  })
})

describe('the frozen builds', () => {
  it('are backed up before they are brought up to date, and that backup restores', async () => {
    let seen = 0
    for (const build of builds) {
      const old = await freshDatabase()
      await loadDump(old, build.sql())
      const names: string[][] = []
      const file = join(folder, `before-${build.commit}.gz`)
      const source = await openSource(old, 2, async (due) => {
        names.push([...due])
        await writeBackup(old, file, build.commit, now)
      })
      const [row] = await source.query<{ count: string }[]>('SELECT COUNT(*) AS count FROM job_edit')
      await source.destroy()
      // A frozen build may have all of today's tables: nothing is due, and nothing is backed up for it.
      if (names.length === 0) continue
      seen += 1
      expect([build.commit, names.length, names[0]?.includes('CatalogueVersions1764800000000')]).toEqual([
        ...[build.commit, 1, true],
      ])
      const { counts, head } = await readBackup(file)
      expect([counts.job_edit, head.migrations.length < 6]).toEqual([Number(row?.count), true])
      const empty = await freshDatabase()
      await restoreInto(empty, file)
      expect((await proveAt(empty)).problems).toEqual([])
    }
    expect(seen).toBeGreaterThanOrEqual(6)
  })
})

describe('the schedule', () => {
  const day = (n: number): string => new Date(Date.UTC(2026, 0, 1, 3) + n * 86_400_000).toISOString()

  it('keeps the last of 7 days, 4 weeks and 12 months', () => {
    // 400 days, the last of them Thursday 4 February 2027.
    const kept = [...worthKeeping(Array.from({ length: 400 }, (_, n) => day(n)))]
      .sort()
      .map((time) => time.slice(0, 10))
    expect(kept).toEqual([
      ...['2026-03-31', '2026-04-30', '2026-05-31', '2026-06-30', '2026-07-31', '2026-08-31', '2026-09-30'],
      ...['2026-10-31', '2026-11-30', '2026-12-31', '2027-01-17', '2027-01-24', '2027-01-29', '2027-01-30'],
      ...['2027-01-31', '2027-02-01', '2027-02-02', '2027-02-03', '2027-02-04'],
    ])
    expect([...worthKeeping([day(1), day(0)])].sort()).toEqual([day(0), day(1)])
    const twice = ['2026-05-04T01:00:00.000Z', '2026-05-04T23:00:00.000Z']
    expect([...worthKeeping(twice)]).toEqual(['2026-05-04T23:00:00.000Z'])
  })

  it('makes one a day, one process alone, and says when it cannot', async () => {
    const into = join(folder, 'daily')
    let clock = new Date('2026-05-04T03:00:00Z')
    let free = 100 * FULL_BYTES
    let alone = true
    let ticks = 0
    const errors: unknown[] = []
    const backups = new Backups({
      address,
      folder: into,
      build: 'test',
      room: new Room(
        () => Promise.resolve(free),
        () => (ticks += 10_000),
      ),
      now: () => clock,
      tell: (error) => errors.push(error),
      anything: () => Promise.resolve(true),
      alone: async (work) => (alone ? work() : null),
    })
    const names = (): string[] => readdirSync(into).sort()
    expect(await backups.state()).toEqual({ folder: into, kept: [], failed: null, late: false })
    await backups.look()
    await backups.look()
    expect(names()).toEqual(['kapelle-20260504-030000.gz'])
    clock = new Date('2026-05-05T02:59:59Z')
    await backups.look()
    expect(names()).toHaveLength(1)
    clock = new Date('2026-05-05T03:00:00Z')
    alone = false
    await backups.look()
    expect(names()).toHaveLength(1)
    alone = true
    writeFileSync(join(into, 'kapelle-20260505-020000.gz.part'), 'broken off')
    for (const at of [
      '2026-01-01T00:00:00Z',
      '2026-01-02T00:00:00Z',
      '2026-01-03T00:00:00Z',
      '2026-01-04T00:00:00Z',
    ])
      writeFileSync(join(into, beforeName(new Date(at))), '')
    await backups.look()
    expect(names()).toEqual([
      'kapelle-20260504-030000.gz',
      'kapelle-20260505-030000.gz',
      ...['02', '03', '04'].map((d) => `kapelle-before-update-202601${d}-000000.gz`),
    ])
    clock = new Date('2026-05-08T03:00:00Z')
    expect((await backups.state()).late).toBe(false)
    clock = new Date('2026-05-08T03:00:01Z')
    free = FULL_BYTES
    await backups.look()
    expect(await backups.state()).toMatchObject({
      late: true,
      failed: expect.stringContaining('not enough room') as unknown,
    })
    expect(errors).toHaveLength(1)
    free = 100 * FULL_BYTES
    await backups.look()
    expect(await backups.state()).toMatchObject({ late: false, failed: null })
    expect((await readBackup(join(into, dailyName(clock)))).counts.firm).toBe(2)
  })

  it('is left to one of two processes on a database', async () => {
    const { store } = server.services
    let inside = 0
    const work = async (): Promise<string> => {
      inside += 1
      await new Promise((done) => setTimeout(done, 200))
      return 'done'
    }
    const answers = await Promise.all([store.alone('backup', work), store.alone('backup', work)])
    expect([answers.sort(), inside]).toEqual([['done', null], 1])
    expect(await store.alone('backup', work)).toBe('done')
  })
})

/** Puts the dump of a build into an empty database. */
async function loadDump(to: DbAddress, sql: string): Promise<void> {
  const connection = await createConnection({ ...to, multipleStatements: true, charset: 'utf8mb4' })
  await connection.query(sql)
  await connection.end()
}
