import { createHash, randomUUID } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync, gzipSync } from 'node:zlib'
import { afterAll, describe, expect, it } from 'vitest'
import { readBackup, UnreadableBackup, writeBackup } from './backup.ts'
import { Firm } from './entities.ts'
import { openSource } from './source.ts'
import { freshDatabase } from '../testing/database.ts'

const folder = mkdtempSync(join(tmpdir(), 'kapelle-backup-file-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const head = {
  ...{
    kapelleBackup: 1,
    madeAt: '2026-05-04T09:00:00.000Z',
    build: 'test',
    schema: 1,
    migrations: ['First1'],
  },
  tables: [{ name: 'firm', columns: ['id', 'name'] }],
}
let files = 0
/** A backup of these lines, with an end that counts and sums them rightly. */
function aFile(lines: readonly unknown[], counts: Readonly<Record<string, number>> = {}): string {
  const file = join(folder, `${(files += 1)}.gz`)
  const text = lines.map((line) => `${JSON.stringify(line)}\n`).join('')
  const sha256 = createHash('sha256').update(text).digest('hex')
  writeFileSync(file, gzipSync(`${text}${JSON.stringify({ counts, sha256 })}\n`))
  return file
}
const firms = (...rows: readonly (readonly unknown[])[]) => ({ table: 'firm', rows })

describe('reading a backup', () => {
  it('gives its rows and its counts', async () => {
    const heard: unknown[] = []
    const file = aFile([head, firms(['a', 'A'], ['b', null]), firms(['c', 3])], { firm: 3 })
    const facts = await readBackup(file, { rows: (rows) => void heard.push(...rows.rows) })
    expect([facts.counts, heard]).toEqual([
      { firm: 3 },
      [
        ['a', 'A'],
        ['b', null],
        ['c', 3],
      ],
    ])
  })

  it.each([
    [
      'a row of more columns beside a right one',
      [head, firms(['a', 'A'], ['b', 'B', 'x'])],
      'a row has other columns',
    ],
    [
      'rows of a table that the head does not have',
      [head, { table: 'person', rows: [['p']] }],
      'other columns',
    ],
    ['a line that is nothing', [head, null], 'The backup is damaged'],
    ['a line that is a word', [head, 'sha256'], 'The backup is damaged'],
    ['a table that nobody knows', [head, { table: 'session', rows: [] }], 'The backup is damaged'],
    ['a head of words alone', [{ kapelleBackup: 'one' }], 'The file is no backup of Kapelle'],
    ['a newer form', [{ ...head, kapelleBackup: 2 }], 'made by a newer Kapelle'],
  ])('refuses %s, though its sum is right', async (_what, lines, said) => {
    await expect(readBackup(aFile(lines))).rejects.toThrow(said)
    await expect(readBackup(aFile(lines))).rejects.toThrow(UnreadableBackup)
  })

  it('refuses rows that are missing by the count of their table', async () => {
    await expect(readBackup(aFile([head, firms(['a', 'A'])], { firm: 2 }))).rejects.toThrow(
      'rows of firm are missing',
    )
    await expect(readBackup(aFile([head], { person: 1 }))).rejects.toThrow('rows of person are missing')
  })

  it('is of a file that is there, and says so at once where it is not', async () => {
    await expect(readBackup(join(folder, 'nowhere.gz'))).rejects.toThrow('ENOENT')
    const plain = join(folder, 'plain.gz')
    writeFileSync(plain, 'words')
    await expect(readBackup(plain)).rejects.toThrow(`${plain} is no backup of Kapelle.`)
  })

  it('passes on what its reader stumbles over as it is', async () => {
    const file = aFile([head, firms(['a', 'A'])], { firm: 1 })
    const thrown = (error: unknown) =>
      readBackup(file, { rows: () => Promise.reject(error as Error) }).catch((caught: unknown) => caught)
    const odd = [
      null,
      'words',
      7,
      {},
      Object.assign(new Error('x'), { code: 'MY_Z_ERR_STREAM' }),
      new Error('y'),
    ]
    for (const error of odd) expect(await thrown(error)).toBe(error)
    expect(await thrown(Object.assign(new Error('z'), { code: 'Z_BUF_ERROR' }))).toBeInstanceOf(
      UnreadableBackup,
    )
  })
})

describe('writing a backup', () => {
  it('ends a line at 500 rows, and before that at a million characters', async () => {
    const address = await freshDatabase()
    const source = await openSource(address)
    const many = Array.from({ length: 1203 }, (_, n) => ({
      ...{ id: randomUUID(), name: `firm ${n}`, createdAt: new Date() },
      settings: n < 4 ? JSON.stringify({ words: 'x'.repeat(400_000) }) : '{}',
    }))
    for (let at = 0; at < many.length; at += 100)
      await source.getRepository(Firm).insert(many.slice(at, at + 100))
    const file = join(folder, 'many.gz')
    const { counts } = await writeBackup(address, file, 'test', new Date('2026-05-04T09:00:00Z'))
    await source.destroy()
    const lines = gunzipSync(readFileSync(file)).toString().trimEnd().split('\n')
    const sizes = lines.flatMap((line) => {
      const value = JSON.parse(line) as { table?: string; rows?: unknown[] }
      return value.table === 'firm' ? [value.rows?.length ?? 0] : []
    })
    expect([counts.firm, sizes.reduce((sum, size) => sum + size, 0), Math.max(...sizes)]).toEqual([
      1203, 1203, 500,
    ])
    // Four rows of 400,000 letters are not together, and no line is much beyond a million.
    expect(Math.max(...lines.map((line) => line.length))).toBeLessThan(1_500_000)
    expect(sizes.length).toBeLessThanOrEqual(7)
    expect((await readBackup(file)).counts.firm).toBe(1203)
  })
})
