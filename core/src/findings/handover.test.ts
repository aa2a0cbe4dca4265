import { describe, expect, it } from 'vitest'
import { blankState } from '../job/blank.ts'
import { recordsOf } from '../job/document.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { proofRoute } from '../proof/owed.ts'
import { proofRecord, signoffRecord } from '../proof/records.ts'
import { targetMemory } from '../memory/target.ts'
import { catalogue, cleanMorrow, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { writtenIn } from '../units/times.ts'
import { nextStage, owedList } from './handover.ts'
import { judge } from './judge.ts'

const at = '2026-05-04T12:00:00Z'
const owed = (job: SmallJob, now = at) => owedList(job.input(now), job.findings())
const keys = (job: SmallJob) => owed(job).map((item) => item.key)
const idris = { id: 'idris', name: 'Idris' }

let count = 0
function sign(job: SmallJob, what: string): SmallJob {
  const made = { id: `signoff:${(count += 1)}`, who: idris, at }
  const record = {
    ...signoffRecord({ doc: job.doc, catalogue }, { rules: job.houseRules, what }, made),
    ...evidenceBy('Idris', at),
  }
  return job.apply([{ op: 'add', record }])
}

/** Enrols everything, each device by an ID of its own. */
function enrol(job: SmallJob): SmallJob {
  let serial = 10_000_000
  for (const device of recordsOf(job.doc, 'device')) {
    serial += 1
    const zones = recordsOf(job.doc, 'zone').filter((zone) => zone.device === device.id)
    for (const subject of zones.length > 0 ? zones.map((zone) => zone.id) : [device.id])
      job.learn(subject, String(serial))
  }
  return job
}

/** Passes everything that can be passed now. */
function prove(job: SmallJob, now = at): SmallJob {
  for (let round = 0; round < 3; round++)
    for (const item of proofRoute(job.doc, catalogue, now).flatMap((stop) => stop.items)) {
      if (item.state === 'pass' || item.waits !== '') continue
      // A battery is read once its first day is over.
      const at = item.kind === 'battery' ? '2026-05-06T12:00:00Z' : now
      const made = { id: `test:${(count += 1)}`, who: idris, at }
      const reading = item.kind === 'placement' || item.kind === 'average' ? 7 : null
      const record = proofRecord({ doc: job.doc, catalogue }, item, {
        made,
        result: { outcome: 'pass', reading },
      })
      job.apply([{ op: 'add', record: { ...record, ...evidenceBy('Idris', at) } }])
    }
  return job
}

/** Enrols and proves everything and vouches for the rest, as a finished visit would. */
function finish(job: SmallJob): SmallJob {
  prove(enrol(job))
  for (const what of ['code installer', 'code main-user', 'read-back', 'customer-shown']) sign(job, what)
  return job
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
    expect(owed(cleanTarn())[0]?.text).toBe('9 zones and 1 fob, keypad, siren or repeater are not enrolled.')
    expect(nextStage(owed(cleanTarn()))).toBe('enrol')
    // Nine zones and a fob to enrol. The entry door owes 7 proofs, the other contact 6, the motion 7, glass 6, the smoke 9, CO 4,
    // the pendant 2, the fob 7, the panel 7.
    const values = targetMemory(cleanTarn().doc, catalogue)?.wanted.size ?? 0
    expect(values).toBeGreaterThan(9 * 7)
    expect(owed(cleanTarn()).map((item) => item.count)).toEqual([10, 55, 1, 1, values, 1])
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
    ['a reading of another place', (job) => job.set('device:porch', { room: 'kitchen' }), 'stale'],
    ['a test of another type', (job) => job.set(job.zone('porch').id, { response: 'outer' }), 'stale'],
    [
      'a read-back of what is keyed otherwise now',
      (job) => job.set(job.zone('porch').id, { response: 'outer' }),
      'read-back',
    ],
    ['a read-back before a delay changed', (job) => job.set('job:main', { entry1: 45 }), 'read-back'],
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
              ...blankState,
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
          ...blankState,
          kind: 'station-on-test',
          who: 'Idris',
          why: 'armed tests',
          ...evidenceBy('Idris', '2026-05-04T12:00:00Z'),
          until: '2026-05-04T14:30:00Z',
        },
      },
    ])
    expect(owed(job).map((item) => item.text)).toEqual([
      'The station is on test, by Idris, since 2026-05-04 12:00 UTC until 2026-05-04 14:30 UTC: armed tests. Meanwhile alarms bring no help.',
    ])
    const doc = job.doc
    const asked = { doc, catalogue, now: '2026-05-04T15:00:00Z', elsewhere: [], houseRules: job.houseRules }
    const american = { ...asked, times: writtenIn('north-america', 'America/Chicago') }
    const found = (input: typeof asked) => {
      const findings = judge(input)
      const overdue = findings.find(({ rule }) => rule === 'state-overdue')
      return { key: overdue?.key, text: overdue?.text, owed: owedList(input, findings)[0]?.text }
    }
    // The moments are told as they are written there; what is found is the same, so that a waiver holds.
    const plain = (text: string | undefined) => text?.replace(/[\u202f\u00a0]/g, ' ')
    expect(found(american).key).toBe(found(asked).key)
    expect(plain(found(american).text)).toContain('was to end at May 4, 2026, 9:30 AM and is still open')
    expect(plain(found(american).owed)).toContain('since May 4, 2026, 7:00 AM until May 4, 2026, 9:30 AM')
  })

  it('names three of many things, and has the others by name, too', () => {
    const job = finish(cleanTarn())
    const zones = recordsOf(job.doc, 'zone')
    // The smoke zone of the five is not asked for a chime.
    for (const zone of zones) job.set(zone.id, { chime: !zone.chime })
    const item = owed(job).find(({ key }) => key === 'read-back')
    expect(item?.text).toMatch(/^36 values are not read back: [^;]+; [^;]+; [^;]+; and 1 more\.$/)
    expect(item?.rest).toHaveLength(1)
    for (const name of item?.rest ?? []) expect(item?.text).not.toContain(name)
  })

  it('names what changed under a proof and a read-back', () => {
    const job = finish(cleanTarn()).set('job:main', { entry1: 45 })
    const texts = new Map(owed(job).map((item) => [item.key, item.text]))
    // Only the front door starts entry delay 1: its armed trip, its opening, its report and who came home by it are of 30 s.
    expect(texts.get('stale')).toBe(
      '4 proofs are of what has changed since: entry delay: 30 s then, 45 s now.',
    )
    // Its delays and keys; what somebody vouched for of zones and fob stays.
    expect(texts.get('read-back')).toBe('5 values are not read back: Whole system.')
    expect([...texts.keys()]).toEqual(['stale', 'read-back'])
  })

  it('leaves a read-back alone by what is not keyed', () => {
    const job = finish(cleanTarn()).set('job:main', { wishes: 'A quiet siren.' })
    expect(owed(job)).toEqual([])
  })

  it('waits for the day of the 24-hour readings and says until when', () => {
    const job = prove(enrol(cleanMorrow()))
    const averages = (now: string) => owed(job, now).find((item) => item.key === 'averages')?.text
    expect(averages('2026-05-05T11:59:00Z')).toMatch(
      /^\d+ 24-hour readings wait for their day to pass, the last until 2026-05-05 12:00 UTC\.$/,
    )
    expect(averages('2026-05-05T12:01:00Z')).toBeUndefined()
    expect(owed(job, '2026-05-05T12:01:00Z').find((item) => item.key === 'proofs')?.text).toMatch(/are open/)
  })

  it('leaves a task for the day after an ended state, until somebody says that it is done', () => {
    const state = {
      ...blankState,
      ...({ id: 'state:chime', kind: 'chime-demo', who: 'Idris', why: 'show it' } as const),
      ...evidenceBy('Idris', at),
      until: '2026-05-04T18:00:00Z',
    }
    const end = { id: 'state-end:1', type: 'state-end', state: state.id, kind: state.kind } as const
    const job = finish(cleanTarn()).apply([{ op: 'add', record: state }])
    job.apply([{ op: 'add', record: { ...end, ...evidenceBy('Idris', '2026-05-04T13:00:00Z') } }])
    expect(owed(job).map(({ key, blocks, text }) => [key, blocks, text])).toEqual([
      [
        'task state:chime',
        false,
        'From 2026-05-05: See that the chime is as the plan says. Idris had noted: Chime is on for a demonstration.',
      ],
    ])
    const done = signoffRecord(
      { doc: job.doc, catalogue },
      { rules: job.houseRules, what: 'task-done' },
      {
        id: 'signoff:x',
        who: idris,
        at,
      },
    )
    job.apply([{ op: 'add', record: { ...done, about: state.id, ...evidenceBy('Idris', at) } }])
    expect(owed(job)).toEqual([])
  })
})
