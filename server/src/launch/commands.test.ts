import { execFile } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { daemonPid } from '../db/mariadb.ts'
import { programFile } from '../program.mjs'
import { anEdit, TEST_PASSWORD, TestClient } from '../testing/client.ts'
import { holderOf } from './lock.ts'
import { databaseFolder, startProduct, type Product } from './product.ts'
import { systemdUnit } from './unit.ts'

const launcher = programFile('launch')
let home: string
let data: string
let product: Product
let ann: TestClient
let job: string
beforeAll(async () => {
  home = mkdtempSync(join(tmpdir(), 'kapelle-commands-'))
  data = join(home, 'data')
  product = await startProduct({ data, port: 0, demo: false })
  ann = new TestClient(product.url)
  const made = await ann.call('POST', '/api/setup', {
    token: product.setUp?.split('#')[1],
    firm: 'Brook Alarms',
    name: 'Ann Reed',
    login: 'ann',
    password: TEST_PASSWORD,
  })
  ann.me = { id: String(made.body.id), name: 'Ann Reed' }
  job = await ann.beginJob({ name: 'Mill Cottage' })
  await ann.send(job, anEdit([{ op: 'set', id: 'job:main', field: 'grade', from: 2, to: 1 }]))
})
afterAll(async () => {
  await product.stop()
  rmSync(home, { recursive: true, force: true })
})

/** Runs a command of the launcher; the data folder is the running product's unless the words say another. */
function command(...words: string[]): Promise<{ code: number; out: string; err: string }> {
  const on = words.includes('--data') ? [] : ['--data', data]
  return new Promise((done) =>
    execFile(process.execPath, [launcher, ...words, ...on], (error, out, err) =>
      done({ code: typeof error?.code === 'number' ? error.code : 0, out, err }),
    ),
  )
}
const tokenIn = (text: string): string => /\/link#(\S+)/.exec(text)?.[1] ?? ''

describe('backup and restore', () => {
  it('take a running Kapelle to another machine, with what is in it, and overwrite nothing', async () => {
    const file = join(home, 'one.gz')
    const made = await command('backup', file)
    expect([made.code, made.out]).toEqual([0, expect.stringContaining('No key is in it')])
    expect((await command('backup', file)).err).toContain('is there already')
    const other = join(home, 'other')
    const restored = await command('restore', file, '--data', other)
    expect([restored.code, restored.err]).toEqual([0, ''])
    expect(restored.out).toContain('1 firm, 1 person, 1 job, 2 edits')
    expect(restored.out).toContain('look-up rows agree (1 job, 2 edits)')
    expect([holderOf(other), daemonPid(databaseFolder(other))]).toEqual([null, null])
    const again = await command('restore', file, '--data', other)
    expect([again.code, again.err]).toEqual([1, expect.stringContaining('holds data already')])
    const second = await startProduct({ data: other, port: 0, demo: false })
    expect(second.setUp).toBeNull()
    const there = await new TestClient(second.url).signIn('ann')
    expect((await there.call('GET', `/api/jobs/${job}`)).body.revision).toBe(2)
    await second.stop()
    // Of one that does not run a backup is made, too, and it is left as it was.
    const still = await command('backup', '--data', other)
    expect([still.code, existsSync(join(other, 'backups'))]).toEqual([0, true])
    expect([holderOf(other), daemonPid(databaseFolder(other))]).toEqual([null, null])
  })

  it('of a damaged file restore nothing and leave nothing behind', async () => {
    const file = join(home, 'damaged.gz')
    writeFileSync(file, 'no backup')
    const empty = join(home, 'empty')
    const tried = await command('restore', file, '--data', empty)
    expect([tried.code, tried.err]).toEqual([
      1,
      expect.stringContaining('is no backup of Kapelle. Nothing was restored.'),
    ])
    expect(existsSync(databaseFolder(empty))).toBe(false)
    expect((await command('restore', join(home, 'none.gz'), '--data', empty)).err).toContain(
      'there is no file',
    )
    expect((await command('restore', '--data', empty)).err).toContain('name the backup')
    // A running one is not restored into either.
    expect((await command('restore', file)).code).toBe(3)
    expect((await command('backup', '--data', join(home, 'nothing'))).err).toContain('holds nothing yet')
  })
})

describe('people by command', () => {
  it('a further firm comes in by its owner’s link, and sees nothing of the first', async () => {
    const made = await command('firm', 'add', 'Far', 'Away')
    expect(made.out).toContain(
      `Far Away is there. Its owner comes in within three days, once, by: ${product.url}/link#`,
    )
    const eve = new TestClient(product.url)
    const accepted = await eve.call('POST', '/api/link/invite', {
      token: tokenIn(made.out),
      name: 'Eve Fell',
      login: 'eve',
      password: TEST_PASSWORD,
    })
    expect([accepted.status, accepted.body.role, accepted.body.firm]).toEqual([200, 'owner', 'Far Away'])
    expect((await eve.call('GET', '/api/jobs')).body.jobs).toEqual([])
    expect((await eve.call('GET', `/api/jobs/${job}`)).status).toBe(404)
    // Its catalogue is its own: empty, until it describes what it has or takes the invented world in for practice.
    expect((await eve.call('GET', '/api/catalogue')).body).toMatchObject({
      ...{ entries: [], acts: [], leaflets: [] },
    })
    expect(Number((await eve.call('POST', '/api/catalogue/world', {})).body.added)).toBeGreaterThan(100)
    expect((await eve.call('GET', '/api/catalogue')).body.acts).not.toEqual([])
    expect((await command('firm', 'add')).err).toContain('name the firm')
  })

  it('the owner who forgot the password chooses a new one by a link made on the machine', async () => {
    expect((await command('owner-link')).err).toContain('name the firm, one of: Brook Alarms, Far Away')
    expect((await command('owner-link', 'Nowhere')).err).toContain('there is no firm Nowhere')
    const made = await command('owner-link', 'Brook', 'Alarms')
    expect(made.out).toContain('Ann Reed (ann) chooses a new password within a day, once, by: ')
    const chosen = await new TestClient(product.url).call('POST', '/api/link/password', {
      token: tokenIn(made.out),
      password: 'a new one, longer',
    })
    expect(chosen.body.login).toBe('ann')
    await new TestClient(product.url).signIn('ann', 'a new one, longer')
  })
})

describe('what is said wrongly', () => {
  it('is answered by how to say it, and nothing is done', async () => {
    const cases: readonly [string[], number, string][] = [
      [['dance'], 2, 'unknown command dance'],
      [['start', '--port', 'x'], 2, 'the port must be a whole number'],
      [['start', '--colour', 'red'], 2, '--colour'],
      [
        ['start', '--tls', 'only.crt', '--data', join(home, 'tls')],
        2,
        '--tls takes a certificate and its key',
      ],
      [['start', '--tls', 'no.crt', 'no.key', '--data', join(home, 'tls')], 2, 'there is no file no.crt'],
      [['start', '--host', '0.0.0.0', '--port', '0', '--data', join(home, 'open')], 1, 'only over TLS'],
    ]
    for (const [words, code, sentence] of cases) {
      const answer = await command(...words)
      expect([words, answer.code, answer.err]).toEqual([words, code, expect.stringContaining(sentence)])
    }
    mkdirSync(join(home, 'open'), { recursive: true })
    expect([holderOf(join(home, 'open')), daemonPid(databaseFolder(join(home, 'open')))]).toEqual([
      null,
      null,
    ])
  })
})

it('the systemd unit starts it as it was asked to be, whatever stands in the words', () => {
  const unit = systemdUnit({
    folder: '/srv/kapelle',
    user: 'alarm',
    data: '/var/lib/kapelle',
    args: ['--port', '4690', '--tls', '/etc/own 50%.crt', '/etc/k.key'],
  })
  expect(unit).toContain(
    'User=alarm\nWorkingDirectory=/srv/kapelle\nEnvironment="KAPELLE_DATA=/var/lib/kapelle"',
  )
  expect(unit).toContain(
    'ExecStart=/usr/bin/env bash ./kapelle start --port 4690 --tls "/etc/own 50%%.crt" /etc/k.key\n',
  )
  expect(unit).toContain('KillMode=mixed')
})
