import { describe, expect, it } from 'vitest'
import type { DeviceModel } from '../catalogue/schema.ts'
import { recordsOf } from '../job/document.ts'
import { enrolmentOf, learnedSerial } from '../job/enrolment.ts'
import { catalogue, cleanTarn, type SmallJob } from '../testing/small-job.ts'
import type { Transmission } from './air.ts'
import {
  heardRecord,
  loopOps,
  sisterSerial,
  targetOf,
  targetsOf,
  timesHeard,
  wantsConfirming,
} from './learn.ts'
import { isOfLifeSafety } from '../response/advise.ts'
import { judgeHeard, judgeTyped, type Judgement } from './judge.ts'

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
  lowBattery: false,
  deviceClass: 'contact',
  ...over,
})

const target = (job: SmallJob, id: string) => {
  const found = targetsOf(job.doc, catalogue).find((item) => item.id === id)
  if (!found) throw new Error(`no target ${id}`)
  return found
}

/** Accepts an ID for a target as Enrol does: the evidence first, then the edit of the plan that it causes. */
function accept(
  job: SmallJob,
  id: string,
  serial: string,
  source: 'display' | 'sticker' = 'display',
): SmallJob {
  const now = target(job, id)
  const record = heardRecord(job.doc, {
    id: `heard:${id.replace(':', '-')}`,
    target: now,
    facts: { serial, family: 'family/wren', cause: 'event', loop: null, level: 4, source },
    decision: 'accepted',
    code: 'accept',
    reason: 'as on the sticker',
    who: { id: 'idris', name: 'Idris' },
    at: '2026-05-04T09:30:00Z',
  })
  return job.apply([{ op: 'add', record }]).apply(loopOps(now))
}

const judgeAt = (
  job: SmallJob,
  id: string,
  over: Partial<Transmission>,
  elsewhere: { serial: string; job: string }[] = [],
) => judgeHeard({ doc: job.doc, catalogue, target: target(job, id), elsewhere }, heard(over))

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
    for (const cause of ['tamper', 'button', 'power-up'] as const)
      expect(targetOf(all, heard({ serial: '4B2K90QX', loop: null, cause }))?.name).toBe('fob 1')
    for (const cause of ['event', 'check-in'] as const)
      expect(targetOf(all, heard({ serial: '4B2K90QX', loop: null, cause }))).toBeNull()
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

  it('asks about an ID that another job of the firm uses, once everything else is right', () => {
    const job = ready()
    const uses = [{ serial: '20417733', job: 'Heron Weir' }]
    const asked = {
      kind: 'query',
      code: 'elsewhere',
      reason:
        '2041 7733 is enrolled in the job “Heron Weir”. A sensor that was moved here, or an old job of the same house? Accept it only if you know which.',
    }
    expect(judgeAt(job, porch(job), {}, uses)).toEqual(asked)
    expect(
      judgeTyped({ doc: job.doc, catalogue, target: target(job, porch(job)), elsewhere: uses }, '20417733'),
    ).toEqual(asked)
    // Nobody is asked about what is refused anyway.
    expect(judgeAt(job, porch(job), { cause: 'check-in' }, uses)).toMatchObject({ code: 'check-in' })
    job.set('device:porch', { sticker: null })
    expect(judgeAt(job, porch(job), {}, uses)).toEqual(asked)
  })

  it('names where an ID looks like the sticker, another device of the job, or one of another job', () => {
    const job = ready()
    expect(judgeAt(job, porch(job), { serial: '20417738' })).toMatchObject({
      kind: 'refuse',
      code: 'look-alike',
      reason:
        '2041 7738 is nearly the sticker’s 2041 7733: character 8 is 8 here and 3 on the sticker. A mistyped sticker, or another device: read it again.',
    })
    // Another device's sticker is 3170 0452.
    expect(judgeAt(job, porch(job), { serial: '31700425' }).reason).toContain(
      'characters 7 and 8 are swapped, 25 here and 52 there.',
    )
    job.set('device:porch', { sticker: null })
    expect(
      judgeAt(job, porch(job), { serial: '20417733' }, [{ serial: '20417738', job: 'Heron Weir' }]),
    ).toEqual({
      kind: 'query',
      code: 'look-alike',
      reason:
        'No sticker is noted for this device. Read it and note it: is it 2041 7733? Where it cannot be read, trip the device alone twice; the armed trip at its place then settles it. It is nearly 2041 7738 of the job “Heron Weir”: character 8 is 3 here and 8 there.',
    })
    expect(
      judgeTyped(
        {
          doc: job.doc,
          catalogue,
          target: target(job, porch(job)),
          elsewhere: [{ serial: '20411733', job: 'Heron Weir' }],
        },
        '20417733',
      ),
    ).toMatchObject({
      code: 'typed-only',
      reason: expect.stringContaining('of the job “Heron Weir”') as unknown,
    })
  })

  it('refuses an ID and loop that are enrolled already', () => {
    const job = ready().set('device:porch', { sticker: null })
    job.set(job.zone('study').id, { loop: 3 })
    job.learn(job.zone('study').id, '20417733')
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
    const typed = (serial: string) =>
      judgeTyped({ doc: job.doc, catalogue, target: target(job, porch(job)), elsewhere: [] }, serial)
    expect(typed('20417733').kind).toBe('accept')
    expect(typed('20417734')).toMatchObject({ kind: 'refuse', code: 'look-alike' })
    expect(typed('55512345')).toMatchObject({ kind: 'refuse', code: 'foreign' })
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
  it('enrols the zone by what was heard, and gives it the loop of its event', () => {
    const job = ready()
    const zone = job.zone('porch')
    job.set(zone.id, { loop: 4 })
    accept(job, zone.id, '20417733')
    expect(job.zone('porch').loop).toBe(3)
    expect(enrolmentOf(job.doc, zone.id)).toMatchObject({ serial: '20417733', how: 'heard', told: null })
    expect(recordsOf(job.doc, 'heard')[0]?.of).toMatchObject({
      panel: 'panel/tarn-40',
      device: 'device:porch',
      model: 'device/reedling',
      zones: [{ zone: zone.id, number: 1, event: 'open' }],
    })
  })

  it.each([
    ['display', 'heard'],
    ['sticker', 'typed'],
  ] as const)('never notes what came by %s as the sticker', (source, how) => {
    const job = ready().set('device:porch', { sticker: null })
    accept(job, job.zone('porch').id, '20417733', source)
    expect(job.device('porch').sticker).toBeNull()
    expect(enrolmentOf(job.doc, job.zone('porch').id)).toMatchObject({ serial: '20417733', how })
  })

  it('enrols a fob in its slot', () => {
    const job = ready()
    accept(job, 'device:fob', '4B2K90QX')
    expect(learnedSerial(job.doc, 'device:fob')).toBe('4B2K90QX')
    expect(target(job, 'device:fob').done).toBe(true)
  })

  it('lends no ID of which the display showed the last signs only: the rest was never compared', () => {
    const job = ready()
    const heat = job.zone('landing', 'heat').id
    const smoke = job.zone('landing', 'smoke').id
    job.learn(smoke, '60911204', { shown: '1204' })
    expect(sisterSerial(job.doc, target(job, heat))).toBeNull()
    job.learn(smoke, '60911204')
    expect(sisterSerial(job.doc, target(job, heat))).toBe('60911204')
  })

  it('takes the sister zone’s serial for an event that cannot be tripped', () => {
    const job = ready()
    const heat = job.zone('landing', 'heat').id
    expect(sisterSerial(job.doc, target(job, heat))).toBeNull()
    accept(job, job.zone('landing', 'smoke').id, '60911204')
    expect(sisterSerial(job.doc, target(job, heat))).toBe('60911204')
    expect(
      judgeTyped({ doc: job.doc, catalogue, target: target(job, heat), elsewhere: [] }, '60911204').kind,
    ).toBe('accept')
  })

  it('waits until the server has it', () => {
    const job = ready()
    const zone = job.zone('porch').id
    accept(job, zone, '20417733')
    expect(target(job, zone)).toMatchObject({ done: true, waits: true })
    job.learn(zone, '20417733', { at: '2026-05-04T10:00:00Z' })
    expect(target(job, zone)).toMatchObject({ done: true, waits: false })
  })

  it('is taken out again by a later record', () => {
    const job = ready()
    const zone = job.zone('porch').id
    job.learn(zone, '20417733')
    expect(target(job, zone).done).toBe(true)
    job.learn(zone, null)
    expect(target(job, zone)).toMatchObject({ done: false, serial: null })
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
  job.learn(job.zone('landing', 'heat').id, '60911204')
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

describe('the second transmission', () => {
  const model = (id: string) => {
    const found = catalogue.get('device', `device/${id}`)
    if (!found) throw new Error(id)
    return found
  }
  // A contact, a smoke detector, a gas detector, a fob; what the models' own policy says stands in the pack.
  const smoke = catalogue.all('device').find((item) => item.class === 'smoke' && item.confirm === undefined)
  const plain = model('reedling')

  it('is asked of life safety though the job departs from the firm’s rule, and of nothing else then', () => {
    if (!smoke) throw new Error('no smoke detector without a policy of its own')
    expect([isOfLifeSafety(smoke), isOfLifeSafety(plain)]).toEqual([true, false])
    // job's school, firm's school → asked of smoke, asked of the contact
    const table: readonly [
      'by-class' | 'always' | 'never',
      'by-class' | 'always' | 'never',
      boolean,
      boolean,
    ][] = [
      ['never', 'always', true, false],
      ['by-class', 'always', true, true],
      ['always', 'never', true, true],
      ['never', 'never', false, false],
      ['by-class', 'by-class', false, true],
      ['never', 'by-class', false, false],
      ['always', 'always', true, true],
    ]
    for (const [school, firm, ofSmoke, ofContact] of table)
      expect([
        school,
        firm,
        wantsConfirming(smoke, school, firm),
        wantsConfirming({ ...plain, confirm: undefined }, school, firm),
      ]).toEqual([school, firm, ofSmoke, ofContact])
  })
})
