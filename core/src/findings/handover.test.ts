import { describe, expect, it } from 'vitest'
import { proofRoute } from '../proof/owed.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { nextStage, owedList } from './handover.ts'

const owed = (job: SmallJob) => owedList(job.doc, catalogue, job.findings())
const keys = (job: SmallJob) => owed(job).map((item) => item.key)
const at = '2026-05-04T12:00:00Z'

function sign(job: SmallJob, what: string): SmallJob {
  return job.apply([
    {
      op: 'add',
      record: { id: `signoff:${what.replace(' ', '-')}`, type: 'signoff', what, by: 'Idris', at, note: '' },
    },
  ])
}

/** Enrols and proves everything, as a finished visit would. */
function finish(job: SmallJob): SmallJob {
  let count = 10_000_000
  for (const id of ['porch', 'study', 'hall', 'lounge', 'landing', 'kitchen', 'bedroom']) {
    count += 1
    for (const event of ['', 'heat', 'freeze'])
      try {
        job.set((event ? job.zone(id, event) : job.zone(id)).id, { serial: String(count), learnedBy: 'air' })
      } catch {
        // Only the smoke detector has these events.
      }
  }
  for (const entry of proofRoute(job.doc, catalogue))
    for (const item of entry.items)
      job.apply([
        {
          op: 'add',
          record: {
            id: `test:${entry.device.id.slice(7)}-${item.kind}`,
            type: 'test',
            at,
            by: 'Idris',
            subject: entry.device.id,
            kind: item.kind,
            outcome: 'pass',
            reading: item.kind === 'placement' ? 4 : null,
            note: '',
          },
        },
      ])
  for (const what of ['code installer', 'code main-user', 'read-back', 'customer-shown']) sign(job, what)
  return job.set('device:fob', { serial: 'AB12CD34', sticker: 'AB12CD34' })
}

describe('what is owed before hand-over', () => {
  it('begins with panel and kit', () => {
    const bare = new SmallJob({ panel: null })
    expect(keys(bare).slice(0, 2)).toEqual(['panel', 'kit'])
    expect(nextStage(owed(bare))).toBe('survey')
  })

  it('lists enrolment, proofs, codes and read-back of a planned job', () => {
    expect(keys(cleanTarn())).toEqual([
      'enrol',
      'proofs',
      'code installer',
      'code main-user',
      'read-back',
      'customer-shown',
    ])
    expect(owed(cleanTarn()).map((item) => item.blocks)).toEqual([true, true, true, true, true, false])
    expect(owed(cleanTarn())[0]?.text).toBe('9 zones and 1 fob, keypad or siren are not enrolled.')
    expect(nextStage(owed(cleanTarn()))).toBe('enrol')
    // Nine zones and a fob to enrol; six mounted devices owe four proofs each, the pendant three, the fob one.
    expect(owed(cleanTarn()).map((item) => item.count)).toEqual([10, 28, 1, 1, 1, 1])
  })

  it('is empty on a finished job', () => {
    expect(owed(finish(cleanTarn()))).toEqual([])
    expect(nextStage([])).toBe('handover')
  })

  it.each<[string, (job: SmallJob) => SmallJob, string]>([
    ['a stop', (job) => job.set(job.zone('study').id, { number: 1 }), 'stops'],
    ['an unbound fob', (job) => job.set('device:fob', { user: null }), 'fobs'],
    ['a deferred device', (job) => job.add('loft', 'stilt', { deferred: 'no ladder yet' }), 'deferred'],
    ['an open proof', (job) => job.add('attic', 'stilt', { use: 'on-way' }).number(), 'proofs'],
    ['an enrolment', (job) => job.set(job.zone('study').id, { serial: null }), 'enrol'],
    ['a fob that was never learned', (job) => job.set('device:fob', { serial: null }), 'enrol'],
    [
      'the station still on test',
      (job) =>
        job.apply([
          {
            op: 'add',
            record: {
              id: 'state:1',
              type: 'state',
              kind: 'station-on-test',
              who: 'Idris',
              why: 'tests',
              since: at,
              until: at,
            },
          },
        ]),
      'state state:1',
    ],
  ])('names %s', (_name, spoil, key) => {
    expect(keys(spoil(finish(cleanTarn())))).toContain(key)
  })

  it('says who put the station on test, since when and until when', () => {
    const job = finish(cleanTarn()).apply([
      {
        op: 'add',
        record: {
          id: 'state:1',
          type: 'state',
          kind: 'station-on-test',
          who: 'Idris',
          why: 'armed tests',
          since: '2026-05-04T12:00:00Z',
          until: '2026-05-04T14:30:00Z',
        },
      },
    ])
    expect(owed(job).map((item) => item.text)).toEqual([
      'The station is on test, by Idris, since 2026-05-04 12:00 UTC until 2026-05-04 14:30 UTC: armed tests.',
    ])
  })
})
