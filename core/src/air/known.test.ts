import { describe, expect, it } from 'vitest'
import type { DeviceModel } from '../catalogue/schema.ts'
import { recordsOf } from '../job/document.ts'
import { catalogue, cleanMorrow, cleanTarn, SmallJob } from '../testing/small-job.ts'
import type { Transmission } from './air.ts'
import { judgeDisplayed, judgeHeard, judgeTyped, type Judgement } from './judge.ts'
import { isOfLifeSafety } from '../response/advise.ts'
import { heardRecord, loopOps, sisterSerial, targetsOf, type Target } from './learn.ts'

/* What is known already, and how it bears on the next device: whose an ID is, what was learned, what cannot be learned at all. */

const ready = (): SmallJob =>
  cleanTarn()
    .set('device:porch', { sticker: '20417733' })
    .set('device:study', { sticker: '31700452' })
    .set('device:landing', { sticker: '60911204' })
    .set('device:fob', { sticker: '4B2K90QX' })
const all = (job: SmallJob): Target[] => targetsOf(job.doc, catalogue)
const target = (job: SmallJob, id: string): Target => {
  const found = all(job).find((item) => item.id === id)
  if (!found) throw new Error(`no target ${id}`)
  return found
}
const porch = (job: SmallJob): Target => target(job, job.zone('porch').id)
const sent = (over: Partial<Transmission> = {}): Transmission => ({
  ...{ id: 'air-1-1', atMs: 0, serial: '20417733', family: 'family/wren', encrypted: false },
  ...{ cause: 'event', loop: 3, level: 4, lowBattery: false, deviceClass: 'contact' },
  ...over,
})
const button = (over: Partial<Transmission> = {}): Transmission =>
  sent({
    ...{ serial: '4B2K90QX', family: 'family/wren-c', encrypted: true, cause: 'button' },
    ...{ loop: null, deviceClass: 'fob' },
    ...over,
  })
type Uses = { serial: string; job: string }[]
const heard = (job: SmallJob, of: Target, what: Transmission, uses: Uses | null = []): string =>
  said(judgeHeard({ doc: job.doc, catalogue, target: of, elsewhere: uses }, what))
const said = (judgement: Judgement): string =>
  'code' in judgement ? `${judgement.kind} ${judgement.code}` : judgement.kind
const shown = (job: SmallJob, of: Target, signs: string, uses: Uses | null = []): string => {
  const reading = judgeDisplayed(
    { doc: job.doc, catalogue, target: of, elsewhere: uses },
    { signs, cause: 'event', loop: null },
  )
  return reading.ok ? said(reading.judgement) : reading.reason
}

describe('a device without radio', () => {
  it('is learned by nothing heard, typed or displayed', () => {
    const wired = catalogue.all('device').find((item) => item.family === null && item.class === 'contact')
    if (!wired) throw new Error('no wired contact')
    const job = ready().add('cellar', wired.id.slice(7))
    const of = { ...porch(job), device: job.device('cellar') }
    expect(judgeHeard({ doc: job.doc, catalogue, target: of, elsewhere: null }, sent())).toEqual({
      ...{ kind: 'refuse', code: 'wired', reason: 'This device has no radio.' },
    })
    expect(said(judgeTyped({ doc: job.doc, catalogue, target: of, elsewhere: null }, '20417733'))).toBe(
      'refuse wired',
    )
    expect(shown(job, of, '7733')).toBe('This device has no radio.')
    expect(all(job).some((item) => item.device.id === 'device:cellar')).toBe(false)
  })
})

describe('the family', () => {
  it.each<[string, Partial<Transmission>, string]>([
    ['another, sent plain, where plain is planned', { family: 'family/plover' }, 'refuse family'],
    ['another, encrypted', { family: 'family/plover', encrypted: true }, 'refuse family'],
  ])('%s', (_, over, verdict) => {
    const job = ready()
    expect(heard(job, porch(job), sent({ serial: 'A3F09C', ...over }))).toBe(verdict)
  })

  it('another that is encrypted, where the encrypted one is planned, is another', () => {
    const job = ready()
    expect(heard(job, target(job, 'device:fob'), button({ serial: 'A3F09C', family: 'family/plover' }))).toBe(
      'refuse family',
    )
  })

  it('that the catalogue does not have is another language', () => {
    const job = ready()
    const judgement = judgeHeard(
      { doc: job.doc, catalogue, target: porch(job), elsewhere: [] },
      sent({ serial: 'X', family: 'family/x' }),
    )
    expect(judgement.reason).toBe('X speaks another language; Reedling contact speaks Wren.')
  })
})

describe('the sticker', () => {
  it('that nobody noted compares with nothing, whatever was doubtful of it', () => {
    const job = ready().set('device:porch', { sticker: null, stickerUnsure: true })
    expect(heard(job, porch(job), sent())).toBe('query no-sticker')
  })

  it('that nobody noted lets no second ID in without asking, heard, displayed or typed', () => {
    const job = ready().set('device:porch', { sticker: null })
    job.learn(job.zone('porch').id, '20417799')
    expect(heard(job, porch(job), sent())).toBe('query read-otherwise')
    expect(shown(job, porch(job), '20417733')).toBe('query read-otherwise')
    const typed = judgeTyped({ doc: job.doc, catalogue, target: porch(job), elsewhere: [] }, '20417733')
    expect(said(typed)).toBe('query read-otherwise')
    expect(heard(job, porch(job), sent({ serial: '20417799' }))).toBe('query no-sticker')
    // Taken out of the panel first, the next one is new.
    job.learn(job.zone('porch').id, null)
    expect(heard(job, porch(job), sent())).toBe('query no-sticker')
  })

  it('is enough where nobody asked the other jobs', () => {
    const job = ready()
    expect(heard(job, porch(job), sent(), null)).toBe('accept')
  })

  it('of a slot is told without a loop', () => {
    const job = ready()
    const judgement = judgeHeard(
      { doc: job.doc, catalogue, target: target(job, 'device:fob'), elsewhere: [] },
      button(),
    )
    expect(judgement).toEqual({ kind: 'accept', reason: '4B2K 90QX is the sticker’s ID.' })
    expect(
      judgeTyped({ doc: job.doc, catalogue, target: target(job, 'device:fob'), elsewhere: [] }, '4B2K90QX'),
    ).toEqual({
      kind: 'accept',
      reason: '4B2K 90QX is what the noted sticker says; typed, not heard.',
    })
  })

  it('is shown by as many signs as the display', () => {
    const job = ready()
    const reading = judgeDisplayed(
      { doc: job.doc, catalogue, target: porch(job), elsewhere: [] },
      { signs: '00452', cause: 'event', loop: null },
    )
    expect(reading.ok && reading.judgement.reason).toContain('shows … 00452, and this sticker ends in 17733.')
  })
})

describe('an ID of another job', () => {
  it('that is nearly this one is named, and those that are not are passed over', () => {
    const job = ready().set('device:porch', { sticker: null })
    const judgement = judgeHeard(
      {
        doc: job.doc,
        catalogue,
        target: porch(job),
        elsewhere: [
          { serial: '99999999', job: 'Marsh End' },
          { serial: '20417738', job: 'Heron Weir' },
        ],
      },
      sent(),
    )
    expect(judgement.reason).toContain('It is nearly 2041 7738 of the job “Heron Weir”')
    expect(judgement.reason).not.toContain('Marsh End')
    expect(heard(job, porch(job), sent(), [{ serial: '99999999', job: 'Marsh End' }])).toBe(
      'query no-sticker',
    )
  })
})

describe('the last signs that others share', () => {
  const five = { serial: '88887733', job: 'Five Elms' }
  const seven = { serial: '99417733', job: 'Seven Stiles' }
  it.each([
    ['the nearest last', [five, seven]],
    ['the nearest first', [seven, five]],
  ])('are asked until they tell apart from the nearest of all, %s', (_, uses) => {
    const job = ready()
    expect(shown(job, porch(job), '7733', uses)).toBe(
      '99417733 of the job “Seven Stiles” ends in 7733 too: type at least the last 7 signs.',
    )
  })

  it('are all of them where a longer ID ends in the whole sticker', () => {
    const job = ready()
    expect(shown(job, porch(job), '7733', [{ serial: '9920417733', job: 'Long Acre' }])).toContain(
      'type at least the last 8 signs',
    )
  })

  it('are not shared with the same ID noted twice: that is another fault', () => {
    const job = ready().set('device:study', { sticker: '20417733' })
    expect(shown(job, porch(job), '7733')).toBe('accept')
  })

  it('are not shared with what the device itself was taken for before', () => {
    const job = ready()
    job.learn(job.zone('porch').id, '99997733')
    expect(shown(job, porch(job), '7733')).toBe('accept')
  })
})

describe('what was learned already', () => {
  const bare = (): SmallJob => ready().set('device:porch', { sticker: null })

  it('of the same zone is no duplicate of itself', () => {
    const job = ready()
    job.learn(job.zone('porch').id, '20417733')
    expect(heard(job, porch(job), sent())).toBe('accept')
  })

  it('of another zone is one only by the same ID and the same loop', () => {
    const job = bare()
    const study = job.zone('study').id
    job.set(study, { loop: 3 })
    expect(heard(job, porch(job), sent())).toBe('query no-sticker')
    job.learn(study, '20417799')
    expect(heard(job, porch(job), sent())).toBe('query no-sticker')
    job.learn(study, '20417733').set(study, { loop: 2 })
    expect(heard(job, porch(job), sent())).toBe('query no-sticker')
  })

  it('of another event of the same device is none', () => {
    const job = ready()
    job.learn(job.zone('landing', 'smoke').id, '60911204')
    const heat = job.zone('landing', 'heat')
    job.set(heat.id, { loop: job.zone('landing', 'smoke').loop })
    expect(
      said(judgeTyped({ doc: job.doc, catalogue, target: target(job, heat.id), elsewhere: [] }, '60911204')),
    ).toBe('accept')
  })

  it('of another slot is one by its ID alone', () => {
    const job = ready()
      .user('Ben')
      .add('second', 'quartet-c', { user: 'user:Ben', room: '' })
      .number()
      .set('device:fob', { sticker: null })
    const second = target(job, 'device:second')
    expect(heard(job, second, button())).toBe('query no-sticker')
    job.learn('device:fob', 'ZZZZ9999', { family: 'family/wren-c' })
    expect(heard(job, second, button())).toBe('query no-sticker')
    job.learn('device:fob', '4B2K90QX', { family: 'family/wren-c' })
    expect(judgeHeard({ doc: job.doc, catalogue, target: second, elsewhere: [] }, button())).toEqual({
      ...{ kind: 'refuse', code: 'duplicate', reason: 'This ID is enrolled as fob 1 already.' },
    })
    // The first is no duplicate of itself.
    expect(heard(job, target(job, 'device:fob'), button())).toBe('query no-sticker')
  })
})

describe('what is to be enrolled', () => {
  it('says how each ID is known', () => {
    const job = ready()
    const zone = job.zone('porch').id
    expect(target(job, zone).how).toBeNull()
    job.learn(zone, '20417733')
    expect(target(job, zone).how).toBe('heard')
    job.learn(zone, '20417733', { source: 'sticker' })
    expect(target(job, zone).how).toBe('typed')
  })

  it('leaves out zones without a device, and knows no sister of an event that nobody said', () => {
    const job = ready()
    const [study, porchZone] = [job.zone('study').id, job.zone('porch').id]
    job.set(study, { device: null }).set(porchZone, { event: null })
    expect(all(job).some((item) => item.id === study)).toBe(false)
    expect(target(job, porchZone)).toMatchObject({ loop: null, sister: false })
  })

  it('lists slots and repeaters, each by its name, and nothing that has no place, no slot or no radio', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
      .add('one', 'spanner-8')
      .add('two', 'spanner-8')
      .add('bell', 'singer-8', { slot: 2 })
      .add('unplaced', 'singer-8', { slot: 3, deferred: 'no wall yet' })
      .add('slotless', 'singer-8', { slot: null })
      .add('zoneless', 'sill-8', { slot: 4 })
    const wired = catalogue.all('device').find((item) => item.family === null && item.class === 'siren')
    if (wired) job.add('wired', wired.id.slice(7), { slot: 1 })
    expect(all(job).map((item) => item.name)).toEqual(['repeater 1', 'repeater 2', 'siren 2'])
  })

  it('lists a fob whose buttons are zones by these alone', () => {
    const fob = catalogue
      .all('device')
      .find((item) => item.slot === 'fob' && item.family === 'family/dunlin' && item.loops.length === 4)
    if (!fob) throw new Error('no Dunlin fob of four buttons')
    const job = cleanMorrow()
      .user('Nell')
      .add('fob', fob.id.slice(7), { user: 'user:Nell', room: '' })
      .number()
    const names = all(job).flatMap((item) => (item.device.id === 'device:fob' ? item.name : []))
    expect(names.length).toBeGreaterThan(1)
    expect(names.every((name) => name.startsWith('zone '))).toBe(true)
  })
})

it('takes a sister’s ID from another learned zone of the same device only', () => {
  const job = ready()
  const heat = job.zone('landing', 'heat').id
  job.learn(job.zone('porch').id, '20417733')
  expect(sisterSerial(job.doc, target(job, heat))).toBeNull()
  job.learn(heat, '60911204')
  expect(sisterSerial(job.doc, target(job, heat))).toBeNull()
  expect(sisterSerial(job.doc, target(job, job.zone('landing', 'smoke').id))).toBe('60911204')
})

it('counts a device as life safety by any of its events', () => {
  const model = catalogue.get('device', 'device/ember-three') as DeviceModel
  expect(model.loops.map((loop) => loop.event)).toEqual(['smoke', 'heat', 'freeze'])
  expect(isOfLifeSafety(model)).toBe(true)
})

describe('the record of a decision', () => {
  const record = (
    job: SmallJob,
    of: Target,
    over: Partial<Parameters<typeof heardRecord>[1]['facts']> = {},
  ) =>
    heardRecord(job.doc, {
      ...{ id: 'heard:x', target: of, decision: 'accepted', code: 'accept', reason: 'r'.repeat(400) },
      facts: {
        ...{ serial: '20417733', family: 'family/wren', cause: 'event', loop: 2, level: 4 },
        ...{ source: 'display' },
        ...over,
      },
      ...{ who: { id: 'idris', name: 'Idris' }, at: '2026-05-04T09:30:00Z' },
    })

  it('keeps what was shown, how often it was heard, and 300 signs of the reason', () => {
    const job = ready()
    expect(record(job, porch(job))).toMatchObject({ shown: null, times: null, reason: 'r'.repeat(300) })
    expect(record(job, porch(job), { shown: '7733', times: 2 })).toMatchObject({ shown: '7733', times: 2 })
  })

  it('keeps the loop of the planned event; none where the panel tells none; as heard where nothing is planned', () => {
    const job = ready()
    expect(record(job, porch(job)).loop).toBe(3)
    expect(record(job, target(job, 'device:fob')).loop).toBe(2)
    job.set(job.zone('porch').id, { event: null })
    expect(record(job, porch(job)).loop).toBe(2)
    job.set(job.zone('porch').id, { loop: null })
    expect(record(job, porch(job)).loop).toBeNull()
  })

  it('changes the plan’s loop only where it is another', () => {
    const job = ready()
    expect(loopOps(porch(job))).toEqual([])
    expect(loopOps(target(job, 'device:fob'))).toEqual([])
    job.set(job.zone('porch').id, { loop: null })
    expect(loopOps(porch(job))).toEqual([])
    job.set(job.zone('porch').id, { loop: 4 })
    expect(loopOps(porch(job))).toMatchObject([{ op: 'set', field: 'loop', from: 4, to: 3 }])
    job.set(job.zone('porch').id, { event: null })
    expect(loopOps(porch(job))).toEqual([])
    expect(recordsOf(job.doc, 'zone').length).toBeGreaterThan(0)
  })
})
