import { describe, expect, it } from 'vitest'
import { systemOf } from '../system/system.ts'
import { rulesInForce } from '../job/rules-in-force.ts'
import { needOf } from '../response/advise.ts'
import { withoutSecond } from '../job/enrolment.ts'
import type { Waiver } from '../job/records.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { catalogue, cleanTarn, type SmallJob } from '../testing/small-job.ts'
import { departureLines, waiverTrouble } from './departures.ts'
import { owedList } from './handover.ts'
import { stops } from './judge.ts'
import { rules } from './registry.ts'

const at = '2026-05-04T09:00:00Z'
const waive = (job: SmallJob, rule: string, over: Partial<Waiver> = {}): SmallJob => {
  const finding = job.findings().find((item) => item.rule === rule)
  if (!finding) throw new Error(`no finding of ${rule}`)
  const record: Waiver = {
    id: `waiver:${rule}`,
    type: 'waiver',
    rule,
    subject: finding.subject,
    text: finding.text,
    key: finding.key,
    reason: 'agreed with the insurer',
    ...evidenceBy('Nell', at, { role: 'owner' }),
    ...over,
  }
  return job.apply([{ op: 'add', record }])
}
const unwatched = () => {
  const job = cleanTarn()
  return job.set(job.zone('kitchen').id, { supervise: false })
}

describe('a waived finding', () => {
  it('no longer stops, and is printed with its reason', () => {
    const job = unwatched()
    expect(job.findings().filter(stops)).toHaveLength(1)
    waive(job, 'life-unsupervised')
    expect(job.findings().filter(stops)).toHaveLength(0)
    expect(owedList(job.input(), job.findings()).some((item) => item.key === 'stops')).toBe(false)
    expect(departureLines(job.doc, job.findings(), systemOf(job.doc, catalogue).panel)).toEqual([
      {
        kind: 'life-safety',
        what: 'Zone 08 is gas and no zone of its device is supervised: nobody would notice that it fell silent.',
        reason: 'agreed with the insurer',
        by: 'Nell',
        at,
      },
    ])
  })

  it('speaks again once its figures change, or the waiver is taken back', () => {
    const job = waive(cleanTarn().set('job:main', { petKg: 26 }), 'pet-too-heavy')
    expect(job.findings()[0]?.waived?.made.name).toBe('Nell')
    job.set('job:main', { petKg: 40 })
    expect(job.findings()[0]?.waived).toBeNull()
    job.set('job:main', { petKg: 26 }).apply([
      {
        op: 'add',
        record: {
          id: 'waiver-end:one',
          type: 'waiver-end',
          waiver: 'waiver:pet-too-heavy',
          rule: 'pet-too-heavy',
          subject: '',
          ...evidenceBy('Nell', at),
        },
      },
    ])
    expect(job.findings()[0]?.waived).toBeNull()
  })
})

describe('a better sentence', () => {
  const heavy = () => cleanTarn().set('job:main', { petKg: 26 })
  const given = (over: Partial<Waiver>) => waive(heavy(), 'pet-too-heavy', over).findings()[0]

  it('ends no waiver: it holds for the facts', () => {
    expect(given({ text: 'A pet is too heavy.' })?.waived?.made.name).toBe('Nell')
  })

  it('ends a waiver whose figures were others', () => {
    expect(given({ key: '["Stilt Hound motion",40,18,null]' })).toMatchObject({ waived: null, earlier: null })
  })

  it('ends one when the device it is of moves, or another limit holds', () => {
    const moved = waive(heavy(), 'pet-too-heavy').set('device:hall', { room: 'annexe' })
    expect(moved.findings()[0]).toMatchObject({ rule: 'pet-too-heavy', waived: null })
    const slow = waive(cleanTarn().set('job:main', { superviseMinutes: 300 }), 'supervision-window')
    expect(slow.findings().find((item) => item.rule === 'supervision-window')?.waived).not.toBeNull()
    slow.set('job:main', { grade: 1 })
    expect(slow.findings().find((item) => item.rule === 'supervision-window')?.waived).toBeNull()
  })

  it('keeps a waiver of before as long as it reads the same', () => {
    expect(given({ key: null })?.waived?.made.name).toBe('Nell')
  })

  it('shows one of before whose sentence is another as given for an earlier wording, until it is renewed', () => {
    const job = waive(heavy(), 'pet-too-heavy', { key: null, text: 'A pet is too heavy.' })
    expect(job.findings()[0]).toMatchObject({ waived: null, earlier: { made: { name: 'Nell' } } })
    waive(job, 'pet-too-heavy', { id: 'waiver:again' })
    expect(job.findings()[0]).toMatchObject({ waived: { id: 'waiver:again' }, earlier: null })
  })
})

describe('who may waive', () => {
  const waiver = (rule: string) =>
    ({
      id: 'waiver:x',
      type: 'waiver',
      rule,
      subject: 'zone:x',
      text: '',
      key: null,
      reason: 'x',
      ...evidenceBy('Nell', at),
    }) as const
  it('nobody what physics forbids, only an owner life safety', () => {
    expect(waiverTrouble(waiver('pair-twice'), 'owner')).toContain('cannot be taken on by anybody')
    expect(waiverTrouble(waiver('fire-not-instant'), 'installer')).toContain('only an owner')
    expect(waiverTrouble(waiver('fire-not-instant'), 'owner')).toBeNull()
    expect(waiverTrouble(waiver('pet-too-heavy'), 'installer')).toBeNull()
    expect(waiverTrouble(waiver('none'), 'owner')).toContain('names no rule')
  })

  it('physical stops are barred, life-safety stops are the owner’s', () => {
    const of = (waive: 'never' | 'owner') =>
      rules.filter((rule) => rule.waive === waive).map((rule) => rule.id)
    for (const id of ['pair-twice', 'no-fit', 'number-twice', 'number-range', 'receiver-full', 'slot-twice'])
      expect(of('never')).toContain(id)
    for (const id of [
      'fire-not-instant',
      'gas-wrong-kind',
      'panic-wrong-kind',
      'held-back',
      'life-unreported',
    ])
      expect(of('owner')).toContain(id)
  })
})

describe('a waiver holds in the role it was given in', () => {
  const stopping = (over: Partial<Waiver['made']>): number => {
    const job = unwatched()
    waive(job, 'life-unsupervised', { made: evidenceBy('Nell', at, over).made })
    return job.findings().filter(stops).length
  }
  it.each<[string, Partial<Waiver['made']>, number]>([
    ['an owner’s', { role: 'owner' }, 0],
    ['an installer’s', { role: 'installer' }, 1],
    ['one whose role nobody kept', { role: null }, 1],
    ['one that a file tells', { role: 'owner', told: 'file' }, 1],
    ['one not yet sent', { role: null, takenAt: null }, 0],
  ])('%s over life safety', (_words, over, left) => expect(stopping(over)).toBe(left))

  it('an installer’s holds where anybody may waive, an owner’s not where nobody may', () => {
    const pet = waive(cleanTarn().set('job:main', { petKg: 26 }), 'pet-too-heavy', evidenceBy('Nell', at))
    expect(pet.findings()[0]?.waived).not.toBeNull()
    const job = cleanTarn()
    job.set(job.zone('study').id, { number: 1 })
    waive(job, 'number-twice')
    expect(job.findings().find((item) => item.rule === 'number-twice')?.waived).toBeNull()
  })

  it('and no more once it was corrected', () => {
    const job = unwatched()
    waive(job, 'life-unsupervised')
    const wrong = {
      ...evidenceBy('Nell', '2026-05-04T10:00:00Z', { role: 'owner' }),
      corrects: 'waiver:life-unsupervised',
    }
    waive(job, 'life-unsupervised', { ...wrong, id: 'waiver:second', key: '["another"]' })
    expect(job.findings().filter(stops)).toHaveLength(1)
  })
})

describe('departures of a job', () => {
  it('stand behind waived life safety: house rules, then reasons on zones', () => {
    const job = cleanTarn()
    job.set(job.zone('study').id, { reason: 'the pane is bricked up' }).apply([
      {
        op: 'add',
        record: {
          id: 'departure:glass',
          type: 'departure',
          rule: 'glass',
          choice: 'away-only',
          reason: 'a parrot lives there',
          made: evidenceBy('Nell', at).made,
          at,
        },
      },
    ])
    expect(
      departureLines(job.doc, job.findings(), systemOf(job.doc, catalogue).panel).map((line) => [
        line.kind,
        line.what,
        line.reason,
      ]),
    ).toEqual([
      ['house-rule', 'Glass break: away only', 'a parrot lives there'],
      ['zone', 'Zone 02, Study Window', 'the pane is bricked up'],
    ])
  })

  it('change the advice of this job', () => {
    const job = cleanTarn()
    const advice = () => {
      const system = systemOf(job.doc, catalogue)
      const rules = rulesInForce(job.doc, job.houseRules)
      const place = {
        use: 'opening',
        noisy: false,
        sleeps: false,
        delay: null,
        region: system.info.region,
        schools: rules.schools,
      } as const
      return needOf('glass', place).stay
    }
    expect(advice()).toBe('instant')
    job.apply([
      {
        op: 'add',
        record: {
          id: 'departure:glass',
          type: 'departure',
          rule: 'glass',
          choice: 'away-only',
          reason: 'a parrot lives there',
          made: evidenceBy('Nell', at).made,
          at,
        },
      },
    ])
    expect(advice()).toBe('ignore')
    expect(rulesInForce(cleanTarn().doc, job.houseRules)).toBe(job.houseRules)
  })

  it('what was fixed at hand-over no longer follows the firm', () => {
    const job = cleanTarn().add('duo', 'ember-duo').number()
    expect(job.rules()).toContain('joined-events')
    const firm = job.houseRules
    const joined = { ...firm, schools: { ...firm.schools, smokeHeat: 'joined' as const } }
    job.apply([
      {
        op: 'add',
        record: { id: 'fixed-rules:main', type: 'fixed-rules', ...evidenceBy('Nell', at), rules: joined },
      },
    ])
    expect(job.rules()).not.toContain('joined-events')
  })
})

describe('going without a second transmission', () => {
  it('is printed as one departure per reason, with what it covers, as long as it stands', () => {
    const job = cleanTarn()
    const given = (reason: string) => ({ code: 'unconfirmed', reason: withoutSecond(reason) })
    job.learn(job.zone('study').id, '20417001', given(' baby asleep '))
    job.learn(job.zone('porch').id, '20417002', given('baby asleep'))
    job.learn(job.zone('kitchen').id, '20417003', given('no ladder'))
    const lines = () =>
      departureLines(job.doc, job.findings(), systemOf(job.doc, catalogue).panel).filter((line) =>
        line.what.startsWith('Accepted'),
      )
    const [study, porch] = ['study', 'porch'].map((key) => `zone 0${job.zone(key).number}`)
    expect(lines().map(({ what, reason, by, kind }) => [what.split(': ')[1], reason, by, kind])).toEqual([
      [`${study}, ${porch}`, 'baby asleep', 'Idris', 'house-rule'],
      [`zone 0${job.zone('kitchen').number}`, 'no ladder', 'Idris', 'house-rule'],
    ])
    // Learned again with two transmissions it is none any more; nor is what only a file tells.
    job.learn(job.zone('kitchen').id, '20417003', { code: 'accept', reason: '' })
    job.learn(job.zone('study').id, '20417001', {
      ...given('baby asleep'),
      made: evidenceBy('Idris', undefined, { told: 'file' }).made,
    })
    expect(lines().map((line) => line.what.split(': ')[1])).toEqual([`${study}, ${porch}`])
  })
})
