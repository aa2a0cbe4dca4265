import { describe, expect, it } from 'vitest'
import { blankState } from '../job/blank.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { recordOf } from '../job/document.ts'
import { learned, pass } from '../proof/testing/proved-jobs.ts'
import { catalogue, cleanHouse, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { LEFT_TONIGHT, leftTonight, tonightBlocked, tonightOf, type Tonight } from './tonight.ts'

const of = (job: SmallJob): Tonight => tonightOf({ doc: job.doc, catalogue }, job.houseRules)
const keys = (job: SmallJob, zones: Tonight['protects']): string[] =>
  zones.map(({ zone }) => recordOf(job.doc, 'zone', zone)?.device?.replace('device:', '') ?? '')

describe('what protects tonight', () => {
  it('is what was seen to alarm; what is learned may, and what is not learned does not', () => {
    const job = pass(learned(cleanTarn(), 'porch', 'study', 'landing'), 'porch', 'armed')
    pass(job, 'landing', 'agent', 'smoke')
    const tonight = of(job)
    expect(keys(job, tonight.protects)).toEqual(['porch', 'landing'])
    // Heat and frost of that detector are events of their own, and nobody saw them.
    expect(keys(job, tonight.unproved)).toEqual(['study', 'landing', 'landing'])
    expect(keys(job, tonight.not)).toEqual(['hall', 'lounge', 'kitchen', 'bedroom'])
    expect(tonight.not.map(({ why }) => why)).toEqual(Array(4).fill('the panel has not learned it'))
    expect(
      [...tonight.protects, ...tonight.unproved, ...tonight.not].filter(({ lifeSafety }) => lifeSafety),
    ).toHaveLength(3)
  })

  it.each([
    ['ostler-s-8', 'brander-8'],
    ['ostler-s-9', 'brander-9'],
    ['sallow-m', 'pitchpan'],
  ])('is no fire detector of a pair of which one is not there, %s', (panel, model) => {
    const pair = new SmallJob({
      panel: `panel/${panel}`,
      region: panel.endsWith('9') ? 'north-america' : 'europe',
    })
      .add('attic', model)
      .add('study', model)
    pair.number()
    for (const room of ['attic', 'study'])
      pair.set(pair.zone(room, 'smoke').id, { response: 'fire-verified', fireGroup: 1, reason: 'steam' })
    const smokeOf = (room: string) => pair.zone(room, 'smoke').id
    const not = (): string[] => of(pair).not.map(({ zone }) => zone)
    learned(pair, 'attic', 'study')
    expect(not()).not.toContain(smokeOf('attic'))
    pair.set('device:study', { deferred: 'no ladder' })
    expect(of(pair).not.find(({ zone }) => zone === smokeOf('attic'))?.why).toBe(
      'no second detector of its group is there to agree',
    )
    // Another event of the same detector waits for nobody.
    const others = of(pair).unproved.map(({ zone }) => pair.doc.records[zone] as { device?: string })
    expect(others.every(({ device }) => device === 'device:attic')).toBe(true)
  })

  it('keeps fire in view also where it is typed as something else', () => {
    const job = learned(cleanTarn(), 'landing')
    const heat = job.zone('landing', 'heat')
    job.set(heat.id, { response: 'auxiliary' })
    const found = of(job).unproved.filter(({ lifeSafety }) => lifeSafety)
    expect(found.map(({ zone }) => zone)).toContain(heat.id)
  })

  it('is not a proof of what has changed since', () => {
    const job = pass(learned(cleanTarn(), 'study'), 'study', 'armed')
    expect(keys(job, of(job).protects)).toEqual(['study'])
    job.learn(job.zone('study').id, '31700452')
    expect(keys(job, of(job).protects)).toEqual([])
    expect(keys(job, of(job).unproved)).toEqual(['study'])
  })

  it.each<[string, (job: SmallJob) => SmallJob, string]>([
    [
      'is deferred',
      (job) => job.set('device:study', { deferred: 'no ladder' }),
      'its device is not there yet: no ladder',
    ],
    ['has no type', (job) => job.set(job.zone('study').id, { response: null }), 'it has no response type'],
    [
      'is set to not used',
      (job) => job.apply([{ op: 'add', record: state('zone-not-used', job.zone('study').id) }]),
      'it is set to not used',
    ],
  ])('a zone that %s does not', (_, change, why) => {
    const job = change(learned(cleanTarn(), 'study'))
    const found = of(job).not.find(({ zone }) => job.doc.records[zone] && zone === zoneOf(job))
    expect(found?.why).toBe(why)
  })

  it('counts a wired zone as there, and one left as programmed too', () => {
    const job = cleanTarn()
    job.set(job.zone('study').id, { asProgrammed: true })
    expect(keys(job, of(job).unproved)).toContain('study')
  })
})

const zoneOf = (job: SmallJob): string => job.zone('study').id
const state = (
  kind: 'zone-not-used' | 'station-on-test' | 'sounder-off' | 'chime-demo' | 'mains-off',
  about: string | null = null,
) => ({
  ...{ id: `state:${kind}`, ...blankState, kind, about, who: 'Idris', why: 'a test of it' },
  ...evidenceBy('Idris', '2026-05-04T12:00:00Z'),
  until: '2026-05-04T18:00:00Z',
})

describe('walks that nothing sees', () => {
  // The porch is 4 m from the hall, the hall from kitchen and landing; a motion watches the hall.
  it('begin at an opening without its contact, and end before a room that is watched', () => {
    const job = learned(cleanHouse(), 'hall')
    expect(of(job).blind.away).toEqual([
      'By the front door unseen to: porch.',
      'By the kitchen window unseen to: kitchen.',
    ])
    // Asleep upstairs with the motion off in stay, nothing is between the window and the bed.
    expect(of(job).blind.stay).toEqual([
      'By the front door unseen to: porch, hall, kitchen, landing.',
      'By the kitchen window unseen to: kitchen, hall, porch, landing.',
    ])
  })

  it('are none where a contact guards the opening and is learned', () => {
    const job = cleanHouse()
    job
      .set('device:porch', { opening: 'opening:front door' })
      .set('device:kitchen', { opening: 'opening:kitchen window' })
    expect(of(job).blind.away).toHaveLength(2)
    learned(job, 'porch', 'kitchen')
    expect(of(job).blind.away).toEqual([])
    expect(of(job).blind.stay).toEqual([])
  })

  it('are not told of a house that nobody described', () => {
    expect(of(cleanTarn()).described).toBe(false)
    expect(of(cleanHouse()).described).toBe(true)
    expect(of(cleanTarn()).blind).toEqual({ away: [], stay: [] })
  })
})

describe('leaving', () => {
  it('waits until nothing stays that may not stay over a night', () => {
    const job = cleanTarn()
    expect(tonightBlocked(of(job))).toBe('')
    job.apply([{ op: 'add', record: state('chime-demo') }])
    expect(tonightBlocked(of(job))).toBe('')
    job.apply([{ op: 'add', record: state('station-on-test') }])
    expect(tonightBlocked(of(job))).toBe('End first what may not stay over a night: The station is on test.')
    job.apply([{ op: 'add', record: state('mains-off') }])
    expect(tonightBlocked(of(job))).toContain('The panel’s mains are off')
    expect(tonightBlocked(of(new SmallJob()))).toContain('no zone yet')
  })

  it('is on record by who left, the last time counts, and it is no hand-over', () => {
    const job = cleanTarn()
    expect(leftTonight(job.doc)).toBeNull()
    for (const [index, at] of ['2026-05-04T18:00:00Z', '2026-05-05T18:00:00Z'].entries())
      job.apply([
        {
          op: 'add',
          record: {
            ...{
              id: `signoff:${index}`,
              type: 'signoff',
              what: LEFT_TONIGHT,
              about: null,
              note: '',
              keyed: null,
            },
            ...evidenceBy('Idris', at),
          },
        },
      ])
    expect(leftTonight(job.doc)).toEqual({ at: '2026-05-05T18:00:00Z', who: 'Idris' })
  })
})
