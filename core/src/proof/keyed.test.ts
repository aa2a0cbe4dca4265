import { describe, expect, it } from 'vitest'
import { blankSignoff } from '../job/blank.ts'
import type { Signoff } from '../job/records.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { changedKeying, keyedNow } from './keyed.ts'
import { signoffRecord } from './records.ts'
import { deviceProofs, proofHow, proofMethods, proofRules, stationSees, type ProofKind } from './table.ts'
import type { DeviceModel } from '../catalogue/schema.ts'

const keyed = (job: SmallJob, what: string) => keyedNow({ doc: job.doc, catalogue }, job.houseRules, what)
const signed = (job: SmallJob, what: string): Signoff =>
  signoffRecord(
    { doc: job.doc, catalogue },
    { rules: job.houseRules, what },
    {
      ...{ id: 'signoff:1', who: { id: 'idris', name: 'Idris' }, at: '2026-05-04T12:00:00Z' },
    },
  )

describe('what a sign-off vouches for', () => {
  it('a read-back every part of the sheet, each under a name of its own', () => {
    const job = cleanTarn()
    const steps = keyed(job, 'read-back')?.map(({ step }) => step) ?? []
    expect(steps.slice(0, 3)).toEqual(['Way in', 'Whole system', 'Zone 01 — Porch Front Door'])
    expect(new Set(steps).size).toBe(steps.length)
    // Two zones under one number and label, while the plan is wrong.
    job.set(job.zone('study').id, { number: 1, label: 'Porch Front Door' })
    const twice = keyed(job, 'read-back')?.map(({ step }) => step) ?? []
    expect(twice).toContain('Zone 01 — Porch Front Door (2)')
    expect(new Set(twice).size).toBe(twice.length)
  })

  it('a code the panel that has it, and other sign-offs nothing', () => {
    expect(keyed(cleanTarn(), 'code installer')?.map(({ step }) => step)).toEqual(['Panel'])
    expect(keyed(cleanTarn(), 'customer-shown')).toBeNull()
    expect(keyed(new SmallJob({ panel: null }), 'read-back')).toBeNull()
    expect(keyed(new SmallJob({ panel: null }), 'code installer')).toBeNull()
  })

  it('is changed by what is keyed otherwise, named, and by nothing else', () => {
    const job = cleanTarn()
    const before = signed(job, 'read-back')
    const changed = () => changedKeying(before, keyed(job, 'read-back'))
    expect(changed()).toEqual([])
    job.set('job:main', { wishes: 'quiet' }).set('device:porch', { position: 'left' })
    expect(changed()).toEqual([])
    job.set('job:main', { entry1: 45 })
    expect(changed()).toEqual(['Whole system'])
    job.set('job:main', { entry1: 30 })
    job.set(job.zone('study').id, { number: 21 })
    expect(changed()).toEqual(['Zone 21 — Study Window', 'Zone 02 — Study Window, now gone'])
  })

  it('of before kept nothing, and is owed again; one that vouches for no keying never is', () => {
    const old: Signoff = {
      ...blankSignoff,
      ...{ id: 'signoff:1', what: 'read-back', ...evidenceBy('Idris', '2026-05-04T12:00:00Z') },
    }
    expect(changedKeying(old, keyed(cleanTarn(), 'read-back'))).toEqual([
      'it keeps nothing of what was keyed then',
    ])
    expect(changedKeying({ ...old, what: 'customer-shown' }, null)).toEqual([])
  })
})

describe('the table of proofs', () => {
  const model = (id: string) => catalogue.get('device', `device/${id}`) as DeviceModel

  it.each<[string, string[]]>([
    ['reedling', ['tamper']],
    ['stilt-hound', ['setting', 'tamper']],
    ['stilt', ['tamper']],
    ['quartet', ['bound', 'reach', 'battery']],
    ['tapwell', ['sets', 'labels', 'tamper']],
    ['horn-w', ['sounds', 'cutoff', 'tamper']],
    ['singer-8', ['sounds', 'cutoff', 'tamper', 'battery']],
    ['spanner-8', ['mains', 'downstream', 'tamper']],
    ['wick', []],
    ['contact-w', []],
  ])('a %s owes as a whole %s', (id, kinds) => {
    expect(deviceProofs(model(id))).toEqual(kinds)
  })

  it('says how every kind is made', () => {
    for (const kind of Object.keys(proofRules) as ProofKind[])
      if (kind !== 'placement' && kind !== 'mount')
        expect(proofHow(kind, { event: null, class: 'contact' }).join(' ').length).toBeGreaterThan(20)
    expect(proofHow('toggle', { event: 'terminals', class: 'contact' })[0]).toContain('terminals')
    expect(proofHow('toggle', { event: 'open', class: 'contact' })[0]).not.toContain('terminals')
    expect(proofHow('tester', { event: 'shock', class: 'shock' })[0]).toContain('Knock')
    expect(proofHow('tester', { event: 'glass', class: 'glass-break' })[0]).toContain('tester')
    expect(proofHow('mains', { event: null, class: 'panel' })[0]).toContain('breaker')
    expect(proofHow('mains', { event: null, class: 'repeater' })[0]).toContain('supply')
    expect(proofHow('battery', { event: null, class: 'panel' })[0]).toContain('under load')
    expect(proofHow('battery', { event: null, class: 'fob' })[0]).toContain('Good')
  })

  it('names the ways to trip each event', () => {
    expect(proofMethods('tester', 'shock')).toEqual(['knock at the frame'])
    expect(proofMethods('tester', 'glass')).toEqual(['tester at the glass'])
    expect(proofMethods('agent', 'heat')).toEqual(['warm air', 'test button'])
    expect(proofMethods('agent', 'co')).toEqual(['the maker’s test gas', 'test button'])
    expect(proofMethods('agent', 'flood')[0]).toBe('wet cloth')
    expect(proofMethods('agent', 'freeze')[0]).toBe('test mode')
    expect(proofMethods('walk', 'motion')).toEqual([])
  })

  it('says what the station should see, and nothing where it sees nothing', () => {
    expect(stationSees('armed', 'burglary')).toContain('of the kind burglary')
    expect(stationSees('calls', null)).toBe('the alarm, and its restoral')
    expect(stationSees('tamper', null)).toContain('tamper')
    expect(stationSees('mains', null)).toContain('hold')
    expect(stationSees('path', null)).toContain('each way')
    for (const kind of ['placement', 'walk', 'toggle', 'button', 'clock'] as const)
      expect(stationSees(kind, 'burglary')).toBe('')
  })

  it('counts as alarms what brings help, and asks the station for no more', () => {
    const alarms = (Object.keys(proofRules) as ProofKind[]).filter((kind) => proofRules[kind].alarms)
    expect(alarms).toEqual(['agent', 'calls', 'sounds', 'armed', 'clears', 'home', 'trip', 'report', 'path'])
  })
})
