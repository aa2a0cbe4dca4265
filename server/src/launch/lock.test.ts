import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { startMariaDb } from '../db/mariadb.ts'
import { FolderHeld, holderOf, holdFolder } from './lock.ts'
import { databaseFolder, startProduct } from './product.ts'

let folder: string
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'kapelle-held-'))))
afterEach(() => rmSync(folder, { recursive: true, force: true }))

it('holds a folder until it lets go', async () => {
  const held = await holdFolder(folder)
  expect(holderOf(folder)?.pid).toBe(process.pid)
  await expect(holdFolder(folder)).rejects.toThrow(FolderHeld)
  held.release()
  expect(holderOf(folder)).toBeNull()
  const again = await holdFolder(folder)
  again.release()
})

it('takes over from a process that is gone, also when its number lives on as another', async () => {
  const gone = spawn('true')
  await new Promise((done) => gone.on('exit', done))
  writeFileSync(join(folder, 'held.json'), JSON.stringify({ pid: gone.pid, began: '1', since: '' }))
  ;(await holdFolder(folder)).release()
  writeFileSync(join(folder, 'held.json'), JSON.stringify({ pid: process.ppid, began: '1', since: '' }))
  ;(await holdFolder(folder)).release()
  writeFileSync(join(folder, 'held.json'), 'half a f')
  ;(await holdFolder(folder)).release()
})

it('lets one of two have a folder left behind', async () => {
  const other = `import { holdFolder } from '${new URL('lock.ts', import.meta.url).href}'
    holdFolder(process.argv[1]).then(() => { console.log('has it'); setInterval(() => {}, 1000) }, (error) => console.log(error.constructor.name))`
  const say = (): Promise<string> =>
    new Promise((done) => {
      const child = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', other, folder], {
        stdio: ['ignore', 'pipe', 'inherit'],
      })
      children.push(() => child.kill('SIGKILL'))
      child.stdout.on('data', (chunk: Buffer) => done(chunk.toString().trim()))
    })
  const children: (() => void)[] = []
  const said = await Promise.all([say(), say()])
  for (const end of children) end()
  expect(said.sort()).toEqual(['FolderHeld', 'has it'])
})

it('leaves the database of a living launcher alone', async () => {
  const held = await holdFolder(folder)
  held.says('http://127.0.0.1:4680', process.pid)
  const database = await startMariaDb(databaseFolder(folder))
  const pid = (): string => readFileSync(join(databaseFolder(folder), 'db.pid'), 'utf8').trim()
  const before = pid()
  try {
    await expect(startProduct({ data: folder, port: 0, demo: true })).rejects.toThrow(
      new RegExp(`is in use by process ${process.pid} since .*, at http://127\\.0\\.0\\.1:4680`),
    )
    expect(pid()).toBe(before)
    expect(() => process.kill(Number(before), 0)).not.toThrow()
  } finally {
    await database.stop()
    held.release()
  }
})
