import { describe, expect, it } from 'vitest'
import { asItIs } from '../job/evidence.ts'
import { evidenceBy } from '../job/testing/records.ts'
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
      record: {
        id: `signoff:${what.replace(' ', '-')}`,
        type: 'signoff',
        what,
        note: '',
        ...evidenceBy('Idris', at),
      },
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
        job.learn((event ? job.zone(id, event) : job.zone(id)).id, String(count))
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
            ...evidenceBy('Idris', at),
            subject: entry.device.id,
            of: asItIs(job.doc, entry.device.id),
            kind: item.kind,
            outcome: 'pass',
            reading: item.kind === 'placement' ? 4 : null,
            note: '',
          },
        },
      ])
  for (const what of ['code installer', 'code main-user', 'read-back', 'customer-shown']) sign(job, what)
  return job.set('device:fob', { sticker: 'AB12CD34' }).learn('device:fob', 'AB12CD34')
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
    ['an enrolment', (job) => job.learn(job.zone('study').id, null), 'enrol'],
    [
      'an ID that only a file tells',
      (job) =>
        job.learn(job.zone('study').id, null).learn(job.zone('study').id, '10000002', {
          ...evidenceBy('Idris', '2026-05-04T23:00:00Z', { told: 'file' }),
        }),
      'enrol',
    ],
    ['a reading of another place', (job) => job.set('device:porch', { room: 'kitchen' }), 'proofs'],
    ['a test of another type', (job) => job.set(job.zone('porch').id, { response: 'outer' }), 'proofs'],
    [
      'a device of another model',
      (job) => job.set('device:porch', { model: 'device/reedling-slim' }),
      'enrol',
    ],
    ['a fob that was never learned', (job) => job.learn('device:fob', null), 'enrol'],
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
              ...evidenceBy('Idris', at),
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
          ...evidenceBy('Idris', '2026-05-04T12:00:00Z'),
          until: '2026-05-04T14:30:00Z',
        },
      },
    ])
    expect(owed(job).map((item) => item.text)).toEqual([
      'The station is on test, by Idris, since 2026-05-04 12:00 UTC until 2026-05-04 14:30 UTC: armed tests.',
    ])
  })
})
