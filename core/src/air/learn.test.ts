import { describe, expect, it } from 'vitest'
import type { DeviceModel } from '../catalogue/schema.ts'
import { recordsOf } from '../job/document.ts'
import type { Heard } from '../job/records.ts'
import { catalogue, cleanTarn, type SmallJob } from '../testing/small-job.ts'
import type { Transmission } from './air.ts'
import {
  acceptOps,
  judgeHeard,
  judgeTyped,
  sisterSerial,
  targetOf,
  targetsOf,
  timesHeard,
  wantsConfirming,
  type Judgement,
} from './learn.ts'

function ready(): SmallJob {
  return cleanTarn()
    .set('device:porch', { sticker: '20417733' })
    .set('device:study', { sticker: '31700452' })
    .set('device:landing', { sticker: '60911204' })
    .set('device:fob', { sticker: '4B2K90QX' })
}

const heard = (over: Partial<Transmission>): Transmission => ({
  id: 'air-1-1',
  atMs: 0,
  serial: '20417733',
  family: 'family/wren',
  encrypted: false,
  cause: 'event',
  loop: 3,
  level: 4,
  deviceClass: 'contact',
  ...over,
})

const target = (job: SmallJob, id: string) => {
  const found = targetsOf(job.doc, catalogue).find((item) => item.id === id)
  if (!found) throw new Error(`no target ${id}`)
  return found
}

const evidence = (serial: string): Heard => ({
  id: 'heard:1',
  type: 'heard',
  at: '2026-05-04T09:30:00Z',
  by: 'Idris',
  serial,
  family: 'family/wren',
  cause: 'event',
  level: 4,
  source: 'air',
  decision: 'accepted',
  code: 'accept',
  reason: 'as on the sticker',
  subject: 'zone:1',
})

const judgeAt = (
  job: SmallJob,
  id: string,
  over: Partial<Transmission>,
  elsewhere: { serial: string; job: string }[] = [],
) => judgeHeard(job.doc, catalogue, target(job, id), heard(over), elsewhere)

describe('what is to be enrolled', () => {
  it('lists a target for each zone by number, then the slots', () => {
    expect(
      targetsOf(ready().doc, catalogue).map((item) => `${item.name}${item.sister ? ' (sister)' : ''}`),
    ).toEqual([
      'zone 01',
      'zone 02',
      'zone 03',
      'zone 04',
      'zone 05',
      'zone 06 (sister)',
      'zone 07 (sister)',
      'zone 08',
      'zone 09',
      'fob 1',
    ])
  })

  it('finds the open target of a transmission by sticker and loop', () => {
    const job = ready()
    const all = targetsOf(job.doc, catalogue)
    expect(targetOf(all, heard({ serial: '60911204', loop: 1 }))?.name).toBe('zone 05')
    expect(targetOf(all, heard({ serial: '60911204', loop: null, cause: 'tamper' }))?.name).toBe('zone 05')
    expect(targetOf(all, heard({ serial: '4B2K90QX', loop: 6, cause: 'button' }))?.name).toBe('fob 1')
    expect(targetOf(all, heard({ serial: '20417733', loop: 4 }))).toBeNull()
    expect(targetOf(all, heard({ serial: '99999999' }))).toBeNull()
  })
})

describe('judging what is heard', () => {
  const porch = (job: SmallJob) => job.zone('porch').id
  const code = (judgement: Judgement) =>
    'code' in judgement ? `${judgement.kind} ${judgement.code}` : judgement.kind

  it.each<[string, Partial<Transmission>, string, string]>([
    ['the sticker’s ID and the planned loop', {}, 'accept', '2041 7733 is the sticker’s ID, loop 3.'],
    [
      'a neighbour’s device',
      { serial: '88880000', level: 1 },
      'refuse foreign',
      '8888 0000 is on no sticker of this job: a neighbour’s device, or a mistyped sticker (this one says 2041 7733).',
    ],
    [
      'another device of the job',
      { serial: '31700452', loop: 2 },
      'refuse other-device',
      '3170 0452 is the Reedling Slim contact in study, not this device.',
    ],
    [
      'another family',
      { serial: 'AAAA1111', family: 'family/wren-c', encrypted: true },
      'refuse family',
      'AAAA 1111 speaks Wren C; Reedling contact speaks Wren.',
    ],
    [
      'the wrong loop',
      { loop: 4 },
      'refuse loop',
      '2041 7733 tripped loop 4; zone 01 is the reed, loop 3. Trip that one.',
    ],
    [
      'a tamper',
      { cause: 'tamper', loop: null },
      'ask-loop',
      '2041 7733 sent its tamper: the panel now knows the device but not the event. State the loop.',
    ],
    [
      'only a check-in',
      { cause: 'check-in', loop: null },
      'refuse check-in',
      '2041 7733 only checked in: trip it, so that its event is learned.',
    ],
    [
      'the wrong class',
      { deviceClass: 'motion' },
      'refuse class',
      '2041 7733 says it is a motion; a contact is planned here.',
    ],
  ])('%s', (_name, over, verdict, reason) => {
    const job = ready()
    const judgement = judgeAt(job, porch(job), over)
    expect([code(judgement), judgement.reason]).toEqual([verdict, reason])
  })

  it('refuses a plain device where the plan has the encrypted one', () => {
    expect(judgeAt(ready(), 'device:fob', { serial: '77771111', cause: 'button' })).toEqual({
      kind: 'refuse',
      code: 'plain',
      reason: '7777 1111 sends plain; the plan has the encrypted Quartet C fob here.',
    })
  })

  it('refuses an ID that another job of the firm uses', () => {
    const job = ready()
    expect(judgeAt(job, porch(job), {}, [{ serial: '20417733', job: 'Heron Weir' }])).toMatchObject({
      code: 'elsewhere',
      reason: '2041 7733 is enrolled in the job “Heron Weir”.',
    })
  })

  it('refuses an ID and loop that are enrolled already', () => {
    const job = ready().set('device:porch', { sticker: null })
    job.set(job.zone('study').id, { serial: '20417733', loop: 3 })
    expect(judgeAt(job, porch(job), {})).toMatchObject({
      code: 'duplicate',
      reason: 'This ID and loop are enrolled on zone 02 already.',
    })
  })

  it('asks for the sticker where none is noted: strength alone never decides', () => {
    const job = ready().set('device:porch', { sticker: null })
    expect(judgeAt(job, porch(job), { level: 9 })).toMatchObject({ kind: 'query', code: 'no-sticker' })
  })

  it('judges a typed ID by the same rules', () => {
    const job = ready()
    const typed = (serial: string) => judgeTyped(job.doc, catalogue, target(job, porch(job)), serial, [])
    expect(typed('20417733').kind).toBe('accept')
    expect(typed('20417734')).toMatchObject({ kind: 'refuse', code: 'foreign' })
    expect(typed('31700452')).toMatchObject({ kind: 'refuse', code: 'other-device' })
    job.set('device:porch', { sticker: null })
    expect(typed('20417799')).toEqual({
      kind: 'query',
      code: 'typed-only',
      reason:
        '2041 7799 is typed only: no sticker is noted to compare it with, and nothing was heard. A trip must prove it.',
    })
  })
})

describe('accepting', () => {
  it('binds serial and loop to the zone and keeps what was heard', () => {
    const job = ready()
    const zone = job.zone('porch')
    job.set(zone.id, { loop: 4 })
    job.apply(acceptOps(target(job, zone.id), '20417733', 'air', evidence('20417733')))
    expect(job.zone('porch')).toMatchObject({ serial: '20417733', loop: 3, learnedBy: 'air' })
    expect(recordsOf(job.doc, 'heard')).toEqual([evidence('20417733')])
  })

  it.each(['air', 'typed', 'sister'] as const)('never notes what came by %s as the sticker', (by) => {
    const job = ready().set('device:porch', { sticker: null })
    job.apply(acceptOps(target(job, job.zone('porch').id), '20417733', by, evidence('20417733')))
    expect(job.device('porch').sticker).toBeNull()
    expect(job.zone('porch').serial).toBe('20417733')
  })

  it('binds a fob to its slot', () => {
    const job = ready()
    job.apply(acceptOps(target(job, 'device:fob'), '4B2K90QX', 'air', evidence('4B2K90QX')))
    expect(job.device('fob').serial).toBe('4B2K90QX')
    expect(target(job, 'device:fob').done).toBe(true)
  })

  it('takes the sister zone’s serial for an event that cannot be tripped', () => {
    const job = ready()
    const heat = target(job, job.zone('landing', 'heat').id)
    expect(sisterSerial(job.doc, heat)).toBeNull()
    job.apply(
      acceptOps(target(job, job.zone('landing', 'smoke').id), '60911204', 'air', evidence('60911204')),
    )
    expect(sisterSerial(job.doc, target(job, heat.id))).toBe('60911204')
    expect(judgeTyped(job.doc, catalogue, target(job, heat.id), '60911204', []).kind).toBe('accept')
  })
})

it('counts the same ID with the same cause and loop', () => {
  const air = [
    heard({}),
    heard({ id: 'air-1-2' }),
    heard({ loop: 4 }),
    heard({ cause: 'tamper', loop: null }),
    heard({ cause: 'check-in', loop: null }),
    heard({ serial: '31700452' }),
  ]
  expect(timesHeard(air, heard({}))).toBe(2)
  expect(timesHeard(air, heard({ cause: 'tamper', loop: null }))).toBe(1)
})

it('finds the next target of a device without a sticker by what its sister learned', () => {
  const job = ready().set('device:landing', { sticker: null })
  const smoke = job.zone('landing', 'smoke')
  job.set(job.zone('landing', 'heat').id, { serial: '60911204', learnedBy: 'air' })
  expect(targetOf(targetsOf(job.doc, catalogue), heard({ serial: '60911204', loop: 1 }))?.id).toBe(smoke.id)
})

it('asks for a second transmission by class, model and house rule', () => {
  const model = (id: string) => catalogue.get('device', `device/${id}`) as DeviceModel
  const bare = (id: string): DeviceModel => {
    const { confirm: _confirm, ...rest } = model(id)
    return rest
  }
  expect(
    ['reedling', 'stilt', 'wick', 'quartet-c'].map((id) => wantsConfirming(bare(id), 'by-class')),
  ).toEqual([true, true, false, false])
  expect(wantsConfirming({ ...bare('reedling'), confirm: false }, 'by-class')).toBe(false)
  expect([wantsConfirming(bare('wick'), 'always'), wantsConfirming(bare('reedling'), 'never')]).toEqual([
    true,
    false,
  ])
})
