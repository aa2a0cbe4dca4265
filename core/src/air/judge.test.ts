import { describe, expect, it } from 'vitest'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import type { Transmission } from './air.ts'
import { clashWith, judgeClash, judgeDisplayed, type Displayed } from './judge.ts'
import { targetsOf } from './learn.ts'

/* What the panel's display shows, typed blind, against the noted sticker. */

const job = (): SmallJob =>
  cleanTarn()
    .set('device:porch', { sticker: '20417733' })
    .set('device:study', { sticker: '31700452' })
    .set('device:fob', { sticker: '4B2K90QX' })

function read(
  on: SmallJob,
  key: string,
  displayed: Partial<Displayed>,
  elsewhere: { serial: string; job: string }[] | null = [],
) {
  const target = targetsOf(on.doc, catalogue).find((item) => item.device.id === `device:${key}`)
  if (!target) throw new Error(key)
  const reading = judgeDisplayed(
    { doc: on.doc, catalogue, target, elsewhere },
    { signs: '', cause: 'event', loop: null, ...displayed },
  )
  if (!reading.ok) return reading.reason
  const { judgement, shown, heard } = reading
  const code = 'code' in judgement ? ` ${judgement.code}` : ''
  return { verdict: `${judgement.kind}${code}`, shown, serial: heard.serial, reason: judgement.reason }
}

describe('the last signs on the display', () => {
  it.each([
    ['7733', '7733'],
    [' 7733 ', '7733'],
    ['41 7733', '417733'],
    ['… 7733', '7733'],
  ])('“%s” suffice where the sticker is noted', (signs, shown) => {
    expect(read(job(), 'porch', { signs })).toMatchObject({ verdict: 'accept', shown, serial: '20417733' })
  })

  it('of a whole ID are the whole ID, not a part', () => {
    expect(read(job(), 'porch', { signs: '2041 7733' })).toMatchObject({ verdict: 'accept', shown: null })
  })

  it.each([
    ['', 'Type at least the last 4 of the 8 signs that the display shows.'],
    ['733', 'Type at least the last 4 of the 8 signs that the display shows.'],
    ['77K3', '“K” stands in no Wren ID at that place. Read the display again.'],
    ['204177339', 'A Wren ID has 8 characters (8); this has 9.'],
  ])('“%s” cannot be taken, and the field says why', (signs, reason) => {
    expect(read(job(), 'porch', { signs })).toBe(reason)
  })

  it('that are another’s are refused, and whose they are is said', () => {
    expect(read(job(), 'porch', { signs: '0452' })).toMatchObject({ verdict: 'refuse foreign' })
    expect(read(job(), 'porch', { signs: '0452' })).toMatchObject({
      reason: expect.stringContaining(
        'The display shows … 0452, and this sticker ends in 7733. It is how 3170 0452, the Reedling Slim contact in study, ends.',
      ) as unknown,
    })
    expect(read(job(), 'porch', { signs: '9999' })).toMatchObject({
      verdict: 'refuse foreign',
      reason: expect.not.stringContaining('It is how') as unknown,
    })
  })

  it('that another known ID shares do not suffice: as many are asked as tell them apart', () => {
    const shared = job().set('device:study', { sticker: '31417733' })
    // 20417733 and 31417733 share the last six.
    expect(read(shared, 'porch', { signs: '7733' })).toBe(
      '3141 7733, the Reedling Slim contact in study, ends in 7733 too: type at least the last 7 signs.',
    )
    expect(read(shared, 'porch', { signs: '417733' })).toContain('type at least the last 7 signs')
    expect(read(shared, 'porch', { signs: '0417733' })).toMatchObject({ verdict: 'accept' })
    const elsewhere = [{ serial: '99997733', job: 'Heron Weir' }]
    expect(read(job(), 'porch', { signs: '7733' }, elsewhere)).toContain('Heron Weir')
    // What was learned counts as known, as well as what was noted.
    const learned = job().learn(job().zone('study').id, '88887733')
    expect(read(learned, 'porch', { signs: '7733' })).toContain('8888 7733')
  })

  it('do not suffice without a sticker, the whole ID does, and asks', () => {
    const bare = job().set('device:porch', { sticker: null })
    expect(read(bare, 'porch', { signs: '7733' })).toContain('note the sticker first, or type the whole ID')
    expect(read(bare, 'porch', { signs: '20417733' })).toMatchObject({ verdict: 'query no-sticker' })
  })

  it('are compared with no sticker that was written in from a typed ID', () => {
    const unsure = job().set('device:porch', { stickerUnsure: true })
    expect(read(unsure, 'porch', { signs: '7733' })).toMatchObject({ verdict: 'refuse sticker-unsure' })
    expect(read(unsure, 'porch', { signs: '20417733' })).toMatchObject({ verdict: 'refuse sticker-unsure' })
  })
})

describe('what made it send', () => {
  it('a tamper leaves the loop to be stated, another loop is refused, the planned one is taken', () => {
    expect(read(job(), 'porch', { signs: '7733', cause: 'tamper' })).toMatchObject({ verdict: 'ask-loop' })
    expect(read(job(), 'porch', { signs: '7733', loop: 4 })).toMatchObject({ verdict: 'refuse loop' })
    expect(read(job(), 'porch', { signs: '7733', loop: 3 })).toMatchObject({ verdict: 'accept' })
  })

  it('a loop that its entry does not have is refused too, and the entry named as what may be wrong', () => {
    expect(read(job(), 'porch', { signs: '7733', loop: 1 })).toMatchObject({
      verdict: 'refuse loop-untold',
      reason:
        '2041 7733 showed loop 1, which the entry of the Reedling contact does not have: it says 3 reed, 4 wired terminals. Trip it once more; if the panel shows the same again, its entry is to be corrected.',
    })
    // Not compared with a sticker it may be any device.
    const bare = job().set('device:porch', { sticker: null })
    expect(read(bare, 'porch', { signs: '20417733', loop: 1 })).toMatchObject({
      verdict: 'refuse loop-untold',
      reason: expect.stringContaining(
        'Note its sticker first: another device may have been heard.',
      ) as unknown,
    })
    // Another's ID is another's, whatever it shows.
    expect(read(job(), 'porch', { signs: '0452', loop: 1 })).toMatchObject({ verdict: 'refuse foreign' })
  })

  it('a slot has no event to learn: a tamper or power-up learns it', () => {
    const siren = new SmallJob({ panel: 'panel/quillet-32', monitored: false }).add('bell', 'singer-8', {
      slot: 1,
      sticker: 'K482913',
    })
    for (const cause of ['tamper', 'power-up'] as const)
      expect(read(siren, 'bell', { signs: '2913', cause })).toMatchObject({ verdict: 'accept' })
  })
})

it.each(catalogue.all('family').map((family) => [family.name, family] as const))(
  'takes the last four of a %s ID by its own alphabet and length',
  (_name, family) => {
    const ids: Record<string, [string, string]> = {
      'family/wren': ['20417733', '7733'],
      'family/wren-c': ['4B2K90QX', '90QX'],
      'family/plover': ['A3F09C', 'F09C'],
      'family/dunlin': ['41037256', '7256'],
      'family/curlew-8': ['K482913', '2913'],
      'family/curlew-9': ['K482913', '2913'],
      'family/shearwater': ['00A3F09C1B', '9C1B'],
    }
    const [sticker, last] = ids[family.id] ?? ['', '']
    const model = catalogue
      .all('device')
      .find(
        (item) => item.family === family.id && item.slot === 'none' && item.loops.some((loop) => loop.bench),
      )
    const panel = catalogue
      .all('panel')
      .find((item) =>
        item.receivers.some((receiver) =>
          catalogue.get('receiver', receiver)?.hears.some((hears) => hears.family === family.id),
        ),
      )
    if (!model || !panel) throw new Error(family.id)
    const on = new SmallJob({ panel: panel.id, region: panel.regions[0] ?? 'europe', radioFirmware: '9.99' })
    for (const receiver of panel.receivers)
      if (receiver !== panel.builtIn) on.receiver(receiver.replace('receiver/', ''))
    on.add('one', model.id.replace('device/', ''), { sticker, use: 'opening' }).number()
    expect(read(on, 'one', { signs: last.toLowerCase() })).toMatchObject({ verdict: 'accept', shown: last })
    expect(read(on, 'one', { signs: sticker })).toMatchObject({ verdict: 'accept', shown: null })
  },
)

describe('two that send at once', () => {
  const sent = (over: Partial<Transmission>): Transmission => ({
    ...{ id: 'air-1', atMs: 1000, serial: '20417733', family: 'family/wren', encrypted: false },
    ...{ cause: 'event', loop: 3, level: 4, lowBattery: false, deviceClass: 'contact' },
    ...over,
  })
  const other = (over: Partial<Transmission>) => sent({ id: 'air-2', serial: '31700452', ...over })

  it('clash within two seconds, but not with a check-in, nor with themselves', () => {
    const one = sent({})
    expect(clashWith([one, other({ atMs: 2999 })], one)?.serial).toBe('31700452')
    expect(clashWith([one, other({ atMs: 3000 })], one)).toBeNull()
    expect(clashWith([one, other({ atMs: 1100, cause: 'check-in', loop: null })], one)).toBeNull()
    expect(clashWith([one, sent({ id: 'air-3', atMs: 1200 })], one)).toBeNull()
    expect(clashWith([sent({ cause: 'check-in' }), other({})], sent({ cause: 'check-in' }))).toBeNull()
  })

  it('are told apart by whose they are', () => {
    const on = job()
    expect(judgeClash({ doc: on.doc, catalogue }, sent({}), other({ serial: '99999999' }))).toEqual({
      kind: 'refuse',
      code: 'clash',
      reason:
        'Two sent at once, so neither is taken: 2041 7733 is the Reedling contact in porch; 9999 9999 is on no sticker of this job. Trip one alone.',
    })
  })
})
