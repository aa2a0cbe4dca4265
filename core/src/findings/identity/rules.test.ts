import { describe, expect, it } from 'vitest'
import { cleanHouse, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { identityRules } from './rules.ts'

const cases: readonly RuleCase[] = [
  {
    rule: 'sticker-differs',
    clean: () => cleanTarn().set('device:porch', { sticker: '12345678' }),
    spoil: (j) => j.learn(j.zone('porch').id, '12345679'),
    says: 'Zone 01 learned ID 1234 5679; the sticker of its device says 1234 5678. Take it out at Enrol and learn the right one.',
    fix: null,
  },
  {
    rule: 'serial-elsewhere',
    clean: () => cleanTarn().set('device:porch', { sticker: '12345678' }),
    spoil: (j) => {
      j.elsewhere = [{ serial: '12345678', job: 'Heron Weir' }]
      return j
    },
    says: 'ID 1234 5678 is also used in the job “Heron Weir”.',
    fix: null,
  },
  {
    rule: 'serial-twice',
    clean: cleanTarn,
    spoil: (j) => j.learn(j.zone('porch').id, '12345678').learn(j.zone('hall').id, '12345678'),
    says: 'The Stilt Hound motion in hall is known by ID 1234 5678, and so is the Reedling contact in porch (front door): one of them is never heard. Take it out at Enrol and learn it by its own transmission.',
    fix: null,
  },
  {
    rule: 'sticker-twice',
    clean: () => cleanTarn().set('device:porch', { sticker: '12345678' }),
    spoil: (j) => j.set('device:landing', { sticker: '12345678' }),
    says: 'The sticker 1234 5678 is noted for the Ember Three smoke in landing and for the Reedling contact in porch (front door): read both again.',
    fix: null,
  },
  {
    rule: 'two-readings',
    clean: () => ((j) => j.learn(j.zone('porch').id, '12345678'))(cleanTarn()),
    spoil: (j) => j.learn(j.zone('porch').id, '12345679'),
    says: 'Zone 01 was enrolled as ID 1234 5678 and later as ID 1234 5679, and no sticker is noted: one of the two is another device. Note its sticker, or trip the device alone once more.',
    fix: null,
  },
  {
    rule: 'two-serials',
    clean: () => {
      const j = cleanTarn()
      return j
        .learn(j.zone('landing', 'smoke').id, '12345678')
        .learn(j.zone('landing', 'heat').id, '12345678')
    },
    spoil: (j) => j.learn(j.zone('landing', 'heat').id, '12345679'),
    says: 'Zone 06 knows Ember Three smoke by ID 1234 5679, zone 05 by 1234 5678: one of the two is another device. Compare both with the sticker, and learn the wrong one again.',
    fix: null,
  },
  {
    rule: 'replaced-beside',
    clean: () => {
      const j = cleanTarn().add('new', 'stilt', { room: 'hall', use: 'on-way' }).number()
      return j.learn(j.zone('hall').id, '12345678').learn(j.zone('new').id, '12345680')
    },
    spoil: (j) => j.set('device:hall', { plan: 'replace', existing: true }),
    says: 'Stilt Hound motion in hall is to be replaced and the panel still knows it, beside Stilt motion in its place: take it out at Enrol, or it shows as lost and holds its zones.',
    fix: null,
  },
]

describeRules(identityRules, cases)

describe('what is right as it is', () => {
  it('a panel that told an ID twice is found in any family, also where switches stand for loops', () => {
    // Curlew contacts have switches: their zones have no loop to differ by.
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
      .add('a', 'sill-8', { use: 'opening' })
      .add('b', 'sill-8', { use: 'opening' })
      .number()
    const learn = (key: string, serial: string) =>
      job.learn(job.zone(key).id, serial, { family: 'family/curlew-8' })
    learn('a', '1234567')
    learn('b', '1234567')
    expect(job.rules()).toContain('serial-twice')
    expect(learn('b', '1234568').rules()).not.toContain('serial-twice')
  })

  it('two fobs by one ID, in slots', () => {
    const job = cleanTarn().add('second', 'quartet-c', { user: 'user:Nell', room: '', slot: 2 })
    job.learn('device:fob', '12345678').learn('device:second', '12345678')
    expect(job.rules()).toContain('serial-twice')
  })

  it('one sticker on two families says nothing: their IDs are lists of their own', () => {
    const job = cleanTarn().set('device:porch', { sticker: '12345678' })
    job.add('other', 'skitter', { room: 'attic', sticker: '12345678' })
    expect(job.rules()).not.toContain('sticker-twice')
  })

  it('one cause is one finding: both learned by one sticker', () => {
    const job = cleanTarn()
      .set('device:porch', { sticker: '12345678' })
      .set('device:hall', { sticker: '12345678' })
    job.learn(job.zone('porch').id, '12345678').learn(job.zone('hall').id, '12345678')
    expect(job.rules().filter((rule) => /twice/.test(rule))).toEqual(['serial-twice'])
  })

  it('a successor elsewhere, or an old one that the panel knows no more, is no finding', () => {
    const job = cleanHouse().add('new', 'stilt', { room: 'hall' }).number()
    job.set('device:hall', { plan: 'replace', existing: true })
    job.learn(job.zone('new').id, '12345680')
    expect(job.rules()).not.toContain('replaced-beside')
    job.learn(job.zone('hall').id, '12345678')
    expect(job.rules()).toContain('replaced-beside')
    expect(job.set('device:new', { room: 'landing' }).rules()).not.toContain('replaced-beside')
  })
})
