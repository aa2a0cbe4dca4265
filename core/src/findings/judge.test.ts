import { describe, expect, it } from 'vitest'
import { blankArea } from '../job/blank.ts'
import { Catalogue } from '../catalogue/catalogue.ts'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { cleanMorrow, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { judge } from './judge.ts'
import { ruleNamed, ruleOf, rules } from './registry.ts'

describe('the registry of rules', () => {
  it('has every rule once', () => {
    expect(rules).toHaveLength(122)
    expect(new Set(rules.map((rule) => rule.id)).size).toBe(122)
    expect(ruleNamed('none')).toBeNull()
  })

  it('finds nothing on the clean jobs', () => {
    expect(cleanTarn().findings()).toEqual([])
    expect(cleanMorrow().findings()).toEqual([])
  })

  it('names each rule, its source and stage', () => {
    for (const rule of rules) expect([rule.title, rule.source].every((text) => text.length > 5)).toBe(true)
    expect(() => ruleOf('none')).toThrow('no rule none')
  })

  it('judges the delays of an area by its own doors', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11', entry1: 30, exit: 60 })
      .apply([{ op: 'add', record: { ...blankArea, id: 'area:2', number: 2, name: 'Annexe', order: 2 } }])
      .room('porch')
      .room('annexe', { area: 'area:2' })
      .way('porch', 'annexe', 9)
      .opening('front door', 'porch')
      .opening('annexe door', 'annexe', { inStay: false })
      .add('pad', 'scriber-8', { room: 'porch' })
      .number()
    const said = () =>
      job.findings().flatMap((finding) => (finding.rule === 'entry-too-short' ? [finding] : []))
    // The annexe door is 9 m from the keypad: 7.5 s, with code and margin 20.5 s, that is 21 s.
    expect(said()).toEqual([])
    job.set('area:2', { entry1: 15 })
    expect(said().map((finding) => [finding.subject, finding.text])).toEqual([
      [
        'area:2',
        'Annexe: Entry delay 1 is 15 s; annexe door to the keypad in porch takes 21 s (walk 8 s, code 8 s, margin 5 s).',
      ],
    ])
    job.apply(said()[0]?.fix?.ops ?? [])
    expect(said()).toEqual([])
    // The job's own delay no longer answers for the annexe door, but still for the front door.
    job.set('job:main', { entry1: 10 })
    expect(said().map((finding) => finding.text.split(' takes')[0])).toEqual([
      'Entry delay 1 is 10 s; front door to the keypad in porch',
    ])
    job.set('area:2', { entry2: 300 })
    expect(job.findings().find((finding) => finding.rule === 'delay-unstorable')?.text).toMatch(
      /^Annexe: Second door delay stores/,
    )
  })

  it('lets a follow zone wait for a common entry zone of its area', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
      .add('front', 'sill-8', { use: 'entry', position: 'door' })
      .add('hall', 'watcher-8', { use: 'on-way' })
      .number()
      .apply([{ op: 'add', record: { ...blankArea, id: 'area:2', number: 2, name: 'Annexe', order: 2 } }])
    job.set(job.zone('front').id, { area: 'area:2' })
    expect(job.rules()).toContain('follow-alone')
    job.set(job.zone('front').id, { area2: 'area:1' })
    expect(job.rules()).not.toContain('follow-alone')
  })

  it('is deterministic and puts stops first', () => {
    const job = cleanTarn().set('job:main', { entry1: 60, petKg: 40 })
    job.set(job.zone('study').id, { number: 1 })
    const ranks = job.findings().map((finding) => ['stops', 'risks', 'advice'].indexOf(finding.severity))
    expect(ranks).toEqual([...ranks].sort((a, b) => a - b))
    expect(job.findings()).toEqual(job.findings())
  })

  it('is total on a job without panel, devices or areas', () => {
    const bare = new SmallJob({ panel: null })
    expect(bare.findings()).toEqual([])
    expect(bare.add('porch', 'reedling').rules()).not.toContain('event-without-zone')
    const orphan = cleanTarn()
    orphan.set(orphan.zone('study').id, { device: null })
    expect(orphan.rules()).toContain('event-without-zone')
    const lost = judge({
      doc: orphan.doc,
      catalogue: new Catalogue([]),
      now: '',
      elsewhere: null,
      houseRules: defaultHouseRules,
    })
    expect(lost).toEqual([])
  })
})
