/*
 * Freezes what this build leaves behind, before a record shape changes: npx tsx server/src/testing/freeze.ts
 * It starts the demo on a throw-away folder, works on it as two people do, and writes fixtures/builds/<commit> (fixtures/README.md).
 */
import { execFileSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import {
  blankDevice,
  blankState,
  Catalogue,
  defaultHouseRules,
  freshEvidence,
  heardRecord,
  isEnrolled,
  jobInfo,
  jobRecords,
  proofRecord,
  readKept,
  recordOf,
  recordsOf,
  SCHEMA,
  signoffRecord,
  targetsOf,
  type Edit,
  type HouseRules,
  type JobDocument,
  type OpenedJob,
  type Op,
} from '#core'
import { databaseFolder, startProduct } from '../launch/product.ts'
import { TestClient } from './client.ts'

const git = (...args: string[]): string => execFileSync('git', args, { encoding: 'utf8' }).trim()
const commit = git('rev-parse', '--short=7', 'HEAD')
const out = join('fixtures', 'builds', commit)
const data = mkdtempSync(join(tmpdir(), 'kapelle-freeze-'))
const product = await startProduct({ data, port: 0, demo: true })
try {
  const people = new Map(product.signIns.map((person) => [person.login, person]))
  const signIn = (login: string) =>
    new TestClient(product.url).signIn(login, people.get(login)?.password ?? '')
  const [morwen, idris] = [await signIn('morwen'), await signIn('idris')]
  const { jobs } = (await morwen.call('GET', '/api/jobs')).body as unknown as {
    jobs: { id: string; name: string }[]
  }
  let minute = 0
  const edit = (who: TestClient, kind: string, ops: readonly Op[], over: Partial<Edit> = {}): Edit => ({
    ...{ id: randomUUID(), kind, schema: SCHEMA, by: who.me, ops, ...over },
    madeAt: new Date(Date.now() + (minute += 1) * 1_000).toISOString(),
  })
  const send = async (who: TestClient, job: string, ...edits: Edit[]): Promise<void> => {
    const answer = await who.send(job, ...edits)
    if (answer.status !== 200) throw new Error(`${edits[0]?.kind}: ${JSON.stringify(answer.body)}`)
  }
  const open = async (who: TestClient, job: string): Promise<[JobDocument, Catalogue]> => {
    const { document, entries } = (await who.call('GET', `/api/jobs/${job}`)).body as unknown as OpenedJob
    return [document, new Catalogue(entries.map(readKept))]
  }
  const set = (record: object, id: string, field: string, to: unknown): Op => ({
    ...{ op: 'set', id, field, to },
    from: (record as Record<string, unknown>)[field],
  })
  const now = (): string => new Date().toISOString()
  const heard = (
    doc: JobDocument,
    catalogue: Catalogue,
    who: TestClient,
    index: number,
    over: Partial<Parameters<typeof heardRecord>[1]['facts']> & { decision?: 'refused' },
  ): Op[] => {
    const { decision = 'accepted', ...facts } = over
    const target = targetsOf(doc, catalogue).filter((item) => !item.done)[index]
    if (!target) return []
    const family = catalogue.get('device', target.device.model)?.family ?? ''
    const record = heardRecord(doc, {
      id: `heard:${randomUUID()}`,
      target,
      facts: {
        ...{ serial: target.device.sticker ?? '20554433', family, cause: 'event' },
        ...{ loop: target.loop?.loop ?? null, level: 6, source: 'practice', ...facts },
      },
      decision,
      code: decision === 'refused' ? 'foreign' : 'accept',
      reason: 'Kept from this build.',
      who: who.me,
      at: now(),
    })
    return [{ op: 'add', record }]
  }

  const unsent: Record<string, Edit[]> = {}
  for (const { id } of jobs) {
    let [doc, catalogue] = await open(morwen, id)
    const info = recordOf(doc, 'job', 'job:main')
    const device = recordsOf(doc, 'device')[0]
    if (!info || !device) throw new Error(`${id} has no device`)
    const wish = edit(morwen, 'job.set', [set(info, info.id, 'wishes', `${info.wishes} Kept from before.`)])
    await send(morwen, id, wish)
    await send(idris, id, edit(idris, 'device.set', [set(device, device.id, 'position', 'beside the frame')]))
    const moved = { ...device, position: 'beside the frame' }
    const undone = edit(idris, 'device.set', [set(moved, device.id, 'position', 'above the frame')])
    await send(idris, id, undone)
    const back = set({ ...device, position: 'above the frame' }, device.id, 'position', 'beside the frame')
    await send(idris, id, edit(idris, 'undo', [back], { undoes: undone.id }))
    ;[doc, catalogue] = await open(idris, id)
    // Heard, typed, taken from a sister, and refused; each at the first target that is still open.
    for (const [kind, over] of [
      ['enrol.accept', {}],
      ['enrol.accept', { cause: 'typed', loop: null, level: null }],
      ['enrol.accept', { cause: 'sister', loop: null, level: null }],
      ['enrol.refuse', { decision: 'refused', serial: '20554434' }],
    ] as const) {
      const ops = heard(doc, catalogue, idris, 0, over)
      if (ops.length > 0) await send(idris, id, edit(idris, kind, ops))
      ;[doc, catalogue] = await open(idris, id)
    }
    const result = (kind: 'placement' | 'tamper', outcome: 'pass' | 'fail', reading: number | null): Op => ({
      op: 'add',
      record: proofRecord(
        { doc, catalogue },
        { kind, subject: device.id, loop: null, unsetAt: '' },
        { made: { id: `test:${randomUUID()}`, who: idris.me, at: now() }, result: { outcome, reading } },
      ),
    })
    await send(idris, id, edit(idris, 'prove.record', [result('placement', 'fail', 1)]))
    await send(idris, id, edit(idris, 'prove.record', [result('tamper', 'pass', null)]))
    const state = {
      ...freshEvidence(idris.me, now()),
      ...blankState,
      ...({ id: `state:${randomUUID()}`, kind: 'sounder-off', who: idris.me.name } as const),
      ...{ why: 'People sleep', until: new Date(Date.now() + 3_600_000).toISOString() },
    }
    await send(idris, id, edit(idris, 'state.begin', [{ op: 'add', record: state }]))
    const end = {
      ...({ id: `state-end:${randomUUID()}`, type: 'state-end', state: state.id, kind: state.kind } as const),
      ...freshEvidence(idris.me, now()),
    }
    await send(idris, id, edit(idris, 'state.end', [{ op: 'add', record: end }]))
    // What somebody keyed step by step, and has saved.
    const keyed = {
      ...freshEvidence(idris.me, now()),
      ...({ id: `held:${randomUUID()}`, type: 'held', panel: jobInfo(doc).panel ?? '' } as const),
      ...({ how: 'keyed', saved: true, section: 'Whole system' } as const),
      values: [{ address: 'system.exit', value: '60' }],
    }
    if (keyed.panel !== '') await send(idris, id, edit(idris, 'panel.keyed', [{ op: 'add', record: keyed }]))
    const made = { id: `signoff:${randomUUID()}`, who: morwen.me, at: now() }
    const signoff = signoffRecord({ doc, catalogue }, { rules: defaultHouseRules, what: 'read-back' }, made)
    await send(morwen, id, edit(morwen, 'handover.sign', [{ op: 'add', record: signoff }]))
    const waiver = {
      ...freshEvidence(morwen.me, now()),
      ...({ id: `waiver:${randomUUID()}`, type: 'waiver', rule: 'pet-too-heavy' } as const),
      ...{
        subject: device.id,
        text: 'A finding of this build.',
        key: '["facts"]',
        reason: 'The owner knows.',
      },
    }
    await send(morwen, id, edit(morwen, 'finding.waive', [{ op: 'add', record: waiver }]))
    // What a closed page left unsent.
    const zone = recordsOf(doc, 'zone')[1]
    const cellar = `device:${randomUUID()}`
    const offered =
      recordsOf(doc, 'pin').find((pin) => pin.entry.startsWith('device/'))?.entry ?? device.model
    unsent[`kapelle.unsent.${id}`] = [
      ...(zone ? [edit(idris, 'zone.set', [set(zone, zone.id, 'label', 'Kept From Before')])] : []),
      edit(idris, 'device.add', [
        {
          op: 'add',
          record: { ...blankDevice, id: cellar, model: offered, room: 'cellar', order: 901 },
        },
      ]),
      edit(idris, 'device.set', [
        { op: 'set', id: cellar, field: 'room', from: 'cellar', to: 'wine cellar' },
      ]),
      ...[heard(doc, catalogue, idris, 0, {})].flatMap((ops) =>
        ops.length > 0 ? [edit(idris, 'enrol.accept', ops)] : [],
      ),
      edit(idris, 'prove.record', [result('tamper', 'pass', null)]),
    ]
    const zones = recordsOf(doc, 'zone')
    console.log(
      id,
      zones.length,
      'zones,',
      zones.filter((item) => isEnrolled(doc, item.id)).length,
      'enrolled',
    )
  }
  const firm = (await morwen.call('GET', '/api/house-rules')).body as unknown as {
    rules: HouseRules
    revision: number
  }
  const rules = { ...firm.rules, schools: { ...firm.rules.schools, confirm: 'always' } }
  const put = await morwen.call('PUT', '/api/house-rules', { rules, revision: firm.revision })
  if (put.status !== 200) throw new Error(JSON.stringify(put.body))

  mkdirSync(out, { recursive: true })
  const keep = (name: string, text: string): void =>
    writeFileSync(join(out, `${name}.gz`), gzipSync(text, { level: 9 }))
  for (const { id, name } of jobs)
    keep(
      `${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}.json`,
      (await morwen.raw(`/api/jobs/${id}/file`)).text,
    )
  keep('pack.json', (await morwen.raw('/api/catalogue/pack')).text)
  keep('unsent.json', JSON.stringify(unsent))
  const db = JSON.parse(readFileSync(join(databaseFolder(data), 'connection.json'), 'utf8')) as {
    [key in 'host' | 'user' | 'password' | 'database']: string
  } & { port: number }
  const dump = execFileSync(
    'mariadb-dump',
    [
      ...[`--host=${db.host}`, `--port=${db.port}`, `--user=${db.user}`, '--skip-comments'],
      ...[`--ignore-table-data=${db.database}.session`, `--ignore-table-data=${db.database}.link`],
      db.database,
    ],
    { env: { ...process.env, MYSQL_PWD: db.password }, encoding: 'utf8', maxBuffer: 1 << 28 },
  )
  keep('database.sql', dump.replace(/\$?scrypt\$[^']*/g, 'left out'))
  writeFileSync(
    join(out, 'build.json'),
    `${JSON.stringify(
      {
        ...{ commit, schema: SCHEMA, recordTypes: Object.keys(jobRecords.types) },
        people: product.signIns.map(({ login, name }) => ({ login, name })),
      },
      null,
      2,
    )}\n`,
  )
  console.log(`written to ${out}`)
} finally {
  await product.stop()
  rmSync(data, { recursive: true, force: true })
}
