import { describe, expect, it } from 'vitest'
import { transmissions } from '../air/air.ts'
import { judgeTyped } from '../air/judge.ts'
import { deletedRecord, targetsOf } from '../air/learn.ts'
import { owedList } from '../findings/handover.ts'
import { recordOf, recordsOf } from '../job/document.ts'
import { enrolmentOf, isEnrolled } from '../job/enrolment.ts'
import { leftInPanel, occupantOf } from '../job/left-in-panel.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { itemOf, learned, noon, record, tarn } from '../proof/testing/proved-jobs.ts'
import { systemOf } from '../system/system.ts'
import { jobOnEach } from '../testing/panels.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { replaceOps, successorsOf } from './replace.ts'

const itemFor = (job: SmallJob, key: string) => {
  const item = systemOf(job.doc, catalogue).byId.get(`device:${key}`)
  return item ?? expect.fail(`no device ${key}`)
}
/** Replaces a device by a model, by the same one where none is named; the new one is `device:new-<key>`. */
function replaced(job: SmallJob, key: string, model?: string): SmallJob {
  const item = itemFor(job, key)
  const next = successorsOf({ doc: job.doc, catalogue }, item).find(
    ({ model: { id } }) => id === (model ?? item.model.id),
  )
  if (!next) expect.fail(`${model ?? item.model.id} cannot follow ${key}`)
  return job.apply(
    replaceOps({ doc: job.doc, catalogue }, item.device, { model: next.model, id: `new-${key}` }),
  )
}
const left = (job: SmallJob) =>
  leftInPanel(job.doc, catalogue).map(({ evidence, place }) => [
    'number' in place ? place.number : place.slot,
    evidence.serial,
  ])
let count = 0
function deleteAll(job: SmallJob): SmallJob {
  for (const item of leftInPanel(job.doc, catalogue)) {
    const made = {
      id: `heard:deleted-${(count += 1)}`,
      who: { id: 'idris', name: 'Idris' },
      at: '2026-05-04T20:00:00Z',
    }
    const { source } = item.evidence
    const gone = deletedRecord(item, { ...made, source })
    job.apply([{ op: 'add', record: { ...gone, ...evidenceBy('Idris', made.at) } }])
  }
  return job
}
/** What is said of an ID that is typed for a device. */
function typed(job: SmallJob, key: string, serial: string) {
  const target = targetsOf(job.doc, catalogue).find(({ device }) => device.id === `device:${key}`)
  if (!target) expect.fail(`nothing to learn for ${key}`)
  const judged = judgeTyped({ doc: job.doc, catalogue, target, elsewhere: [] }, serial)
  return 'code' in judged ? judged.code : judged.kind
}

describe('what can follow', () => {
  it('is the same again first, then what stands there, with the loops that change', () => {
    const job = tarn()
    const offers = successorsOf({ doc: job.doc, catalogue }, itemFor(job, 'porch'))
    expect(offers[0]?.model.id).toBe('device/reedling')
    expect(offers.length).toBeGreaterThan(1)
    for (const { model, fit, loops } of offers) {
      expect(model.class).toBe('contact')
      expect(fit.verdict).not.toBe('no')
      expect(loops.map(({ event }) => event)).toEqual(['open'])
      expect(loops[0]?.is).toBe(model.loops.find(({ event }) => event === 'open')?.loop)
    }
  })

  it('is another model only where it has every event that is used', () => {
    const offers = successorsOf({ doc: tarn().doc, catalogue }, itemFor(tarn(), 'landing'))
    for (const { model } of offers)
      expect(model.loops.map(({ event }) => event)).toEqual(
        expect.arrayContaining(['smoke', 'heat', 'freeze']),
      )
  })
})

describe('replacing', () => {
  it('carries over place, zone, label and type, and forgets ID, age and measures', () => {
    const job = tarn().set('device:porch', { sticker: '20417733', gapMm: 9, existing: true, madeYear: 2015 })
    job.set(job.zone('porch').id, { existing: true, asProgrammed: true, label: 'Front door' })
    const before = job.zone('porch')
    replaced(job, 'porch')
    const zone = recordOf(job.doc, 'zone', before.id)
    expect(zone).toEqual({ ...before, device: 'device:new-porch', existing: false, asProgrammed: false })
    expect(job.device('new-porch')).toMatchObject({
      ...{ room: 'porch', position: 'front door', use: 'entry', order: 1 },
      ...{ sticker: null, gapMm: null, existing: false, madeYear: null, plan: null },
    })
    expect(recordOf(job.doc, 'device', 'device:porch')).toBeNull()
  })

  it('brings the loop of another model, what a keypad serves, what a motion sees and what a repeater carries', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8' })
      .area(2, 'Annexe')
      .room('hall')
      .add('relay', 'spanner-8')
      .add('shed', 'sill-8', { use: 'opening', via: 'device:relay' })
      .number()
    replaced(job, 'relay')
    expect(job.device('shed').via).toBe('device:new-relay')
    const house = cleanTarn().area(2, 'Annexe').room('hall').add('pad', 'tapwell', { slot: 1, room: 'hall' })
    house.serves('pad', 2).sees('hall', { room: 'hall' })
    replaced(replaced(house, 'pad'), 'hall')
    expect(recordsOf(house.doc, 'serves').map(({ device }) => device)).toEqual(['device:new-pad'])
    expect(recordsOf(house.doc, 'sight').map(({ device }) => device)).toEqual(['device:new-hall'])
    const loops = tarn()
    const other = successorsOf({ doc: loops.doc, catalogue }, itemFor(loops, 'porch')).find(
      ({ loops: [loop] }) => Boolean(loop && loop.was !== loop.is),
    )
    if (!other) return
    replaced(loops, 'porch', other.model.id)
    expect(loops.doc.records[loops.zone('new-porch').id]).toMatchObject({ loop: other.loops[0]?.is })
  })

  it('owes every proof anew, once the new one is learned', () => {
    const job = tarn()
    record(job, itemOf(job, 'porch', 'toggle'), { at: noon })
    expect(itemOf(job, 'porch', 'toggle').state).toBe('pass')
    deleteAll(replaced(job, 'porch'))
    expect(itemOf(job, 'new-porch', 'toggle').state).toBe('waits')
    learned(job, 'new-porch')
    job.learn(job.zone('new-porch').id, '31700452')
    expect(itemOf(job, 'new-porch', 'toggle').state).toBe('stale')
    expect(itemOf(job, 'new-porch', 'placement').state).toBe('owed')
  })
})

describe('what is left in the panel', () => {
  it.each<[string, (job: SmallJob) => SmallJob, readonly (readonly [number | string, string])[]]>([
    ['nothing, of what is as it was learned', (job) => job, []],
    ['the ID of a device that was replaced', (job) => replaced(job, 'porch'), [[1, '10000000']]],
    [
      'one ID in each of three zones',
      (job) => replaced(job, 'landing'),
      [
        [5, '10000004'],
        [6, '10000004'],
        [7, '10000004'],
      ],
    ],
    ['a fob in its slot', (job) => replaced(job, 'fob'), [['fob 1', '10000007']]],
    [
      'a zone that was taken out',
      (job) => job.apply([{ op: 'remove', record: job.zone('study') }]),
      [[2, '10000001']],
    ],
    [
      'a zone under its old number',
      (job) => job.set(job.zone('study').id, { number: 20 }),
      [[2, '10000001']],
    ],
    [
      'nothing, where only the loop or the event changed',
      (job) => job.set(job.zone('study').id, { loop: 1 }),
      [],
    ],
    ['nothing of another panel', (job) => replaced(job, 'porch').set('job:main', { panel: null }), []],
    ['nothing once it is deleted there', (job) => deleteAll(replaced(job, 'landing')), []],
    [
      'nothing once the panel is as it came',
      (job) =>
        replaced(job, 'porch').apply([
          {
            op: 'add',
            record: {
              ...evidenceBy('Idris', '2026-05-04T21:00:00Z'),
              ...{
                id: 'held:1',
                type: 'held',
                panel: 'panel/tarn-40',
                how: 'wiped',
                saved: true,
                section: '',
              },
              values: [],
            },
          },
        ]),
      [],
    ],
    [
      'nothing that only a file tells',
      (job) =>
        replaced(
          job.learn(job.zone('porch').id, null).learn(job.zone('porch').id, '10000000', {
            ...evidenceBy('Idris', '2026-05-04T23:00:00Z', { told: 'file' }),
          }),
          'porch',
        ),
      [],
    ],
  ])('is %s', (_, change, expected) => {
    expect(left(change(tarn()))).toEqual(expected)
  })

  it('blocks hand-over until it is noted as deleted', () => {
    const owed = (job: SmallJob) =>
      owedList(job.input(), [])
        .filter(({ key }) => key === 'left')
        .map(({ blocks, count, text }) => [blocks, count, text])
    const job = replaced(tarn(), 'landing')
    expect(owed(job)).toEqual([[true, 3, expect.stringContaining('3 IDs are still in the panel') as string]])
    expect(owed(deleteAll(job))).toEqual([])
  })

  it('is no matter of the new device: deleting the old one leaves what was learned since', () => {
    const job = replaced(tarn(), 'porch')
    const zone = job.zone('new-porch')
    expect(occupantOf(job.doc, catalogue, zone.id)?.evidence.serial).toBe('10000000')
    const [old] = leftInPanel(job.doc, catalogue)
    if (!old) expect.fail('nothing is left')
    job.learn(zone.id, '31700452')
    // Learned over it, the old one stands there no more.
    expect(left(job)).toEqual([])
    const gone = deletedRecord(old, {
      ...{
        id: 'heard:late',
        who: { id: 'idris', name: 'Idris' },
        at: '2026-05-04T22:00:00Z',
        source: 'display',
      },
    })
    job.apply([{ op: 'add', record: { ...gone, ...evidenceBy('Idris', '2026-05-04T22:00:00Z') } }])
    expect(isEnrolled(job.doc, zone.id)).toBe(true)
    expect(enrolmentOf(job.doc, zone.id)?.serial).toBe('31700452')
  })
})

describe('learning in the place of another', () => {
  it('waits until the old one is deleted, and knows the old one when it is heard', () => {
    const job = replaced(tarn(), 'porch')
    expect(typed(job, 'new-porch', '31700452')).toBe('occupied')
    deleteAll(job)
    expect(typed(job, 'new-porch', '10000000')).toBe('former')
    expect(typed(job, 'new-porch', '31700452')).not.toBe('occupied')
    job.set('device:new-porch', { sticker: '31700452' })
    expect(typed(job, 'new-porch', '31700452')).toBe('accept')
  })

  it('in an exercise the old one goes on sending until it is seen to', () => {
    const hears = (job: SmallJob): boolean => {
      job.set('job:main', { exercise: 'surprises', airStartedAt: noon })
      return transmissions({ doc: job.doc, catalogue }, 0, 600_000).some(
        ({ serial }) => serial === '10000000',
      )
    }
    const old = (): SmallJob => {
      const job = tarn().set('job:main', { practice: true })
      job.learn(job.zone('porch').id, '10000000', { source: 'practice' })
      return replaced(job, 'porch')
    }
    expect(hears(old())).toBe(true)
    expect(hears(deleteAll(old()))).toBe(false)
  })

  it('takes no ID that the panel still has in another place', () => {
    const job = tarn().set('device:study', { sticker: '10000001' })
    job.set(job.zone('study').id, { number: 20 })
    expect(typed(job, 'study', '10000001')).toBe('still-there')
    deleteAll(job)
    expect(typed(job, 'study', '10000001')).toBe('accept')
  })

  it.each(jobOnEach)(
    'on %s: every radio device, replaced by the same, is learned again only after it',
    (_, begin) => {
      const keys = recordsOf(begin().doc, 'device').map(({ id }) => id.replace('device:', ''))
      for (const key of keys) {
        const job = begin()
        if (!itemFor(job, key).family) continue
        const before = targetsOf(job.doc, catalogue).filter(({ device }) => device.id === `device:${key}`)
        learned(job, key)
        const places = before.length
        replaced(job, key)
        expect([key, left(job).length]).toEqual([key, places])
        if (places === 0) continue
        // The targets are the same in number, none of them done, and none is learned over what is still there.
        const after = targetsOf(job.doc, catalogue).filter(({ device }) => device.id === `device:new-${key}`)
        expect(after.map(({ done }) => done)).toEqual(before.map(() => false))
        for (const target of after)
          expect(occupantOf(job.doc, catalogue, target.id)?.evidence.serial).toBe('10000000')
        deleteAll(job)
        expect(left(job)).toEqual([])
        for (const target of after) {
          const judged = judgeTyped({ doc: job.doc, catalogue, target, elsewhere: [] }, '10000000')
          expect('code' in judged ? judged.code : '').toBe('former')
        }
      }
    },
  )
})
