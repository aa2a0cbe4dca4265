import { describe, expect, it } from 'vitest'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { jobInfo, nextOrder, recordOf, recordsOf } from './document.ts'
import type { Edit, Op } from './edit.ts'
import {
  deviceSerial,
  enrolmentOf,
  holdsNumber,
  isDeviceKnown,
  isEnrolled,
  learnedSerial,
  waitsToBeSent,
} from './enrolment.ts'
import { asItIs, correctedIds, evidenceOf } from './evidence.ts'
import { SCHEMA, type Zone } from './records.ts'
import { removeAreaOps, removeDeviceOps } from './removals.ts'
import { serialsOf } from './serials.ts'
import { pinOps } from './start.ts'
import { aRecord, fieldWords, titleOf } from './titles.ts'
import { evidenceBy } from './testing/records.ts'
import { jobRecords } from './records.ts'
import { blankDevice, blankJob, blankSignoff, blankZone } from './blank.ts'

/** A door contact on zone 1 of the Tarn 40 and a fob in its slot, both learned here. */
function learned(): SmallJob {
  const job = new SmallJob().add('door', 'reedling').add('gate', 'reedling').add('keys', 'quartet').number()
  return job.learn(zoneOf(job, 'door').id, '10423344').learn('device:keys', '20443311')
}

function zoneOf(job: SmallJob, device: string): Zone {
  const zone = recordsOf(job.doc, 'zone').find((item) => item.device === `device:${device}`)
  if (!zone) throw new Error(`${device} has no zone`)
  return zone
}

describe('what is enrolled', () => {
  it('is what was accepted last, until it is taken out', () => {
    const job = learned()
    const { id } = zoneOf(job, 'door')
    expect([isEnrolled(job.doc, id), learnedSerial(job.doc, id)]).toEqual([true, '10423344'])
    job.learn(id, '10423355')
    expect(learnedSerial(job.doc, id)).toBe('10423355')
    job.learn(id, '10429999', { decision: 'refused' })
    expect(learnedSerial(job.doc, id)).toBe('10423355')
    job.learn(id, null)
    expect([isEnrolled(job.doc, id), learnedSerial(job.doc, id), enrolmentOf(job.doc, id)]).toEqual([
      false,
      null,
      null,
    ])
  })

  it('counts only while device, model, panel, number, event and loop are what was learned', () => {
    const changes: readonly [string, (job: SmallJob) => unknown][] = [
      ['another number', (job) => job.set(zoneOf(job, 'door').id, { number: 9 })],
      ['another event', (job) => job.set(zoneOf(job, 'door').id, { event: 'terminals' })],
      ['another loop', (job) => job.set(zoneOf(job, 'door').id, { loop: 4 })],
      ['another device', (job) => job.set(zoneOf(job, 'door').id, { device: 'device:gate' })],
      [
        'another model',
        (job) => job.add('spare', 'reedling-c').set('device:door', { model: 'device/reedling-c' }),
      ],
      [
        'another panel',
        (job) =>
          job
            .apply(pinOps(job.doc, catalogue, ['panel/sallow-m']))
            .set('job:main', { panel: 'panel/sallow-m' }),
      ],
    ]
    for (const [what, change] of changes) {
      const job = learned()
      const { id } = zoneOf(job, 'door')
      change(job)
      expect([what, isEnrolled(job.doc, id)]).toEqual([what, false])
    }
    const unchanged = learned()
    unchanged.set(zoneOf(unchanged, 'door').id, { label: 'BACK DOOR', response: 'x', chime: true })
    expect(isEnrolled(unchanged.doc, zoneOf(unchanged, 'door').id)).toBe(true)
  })

  it('of a slot, counts only while the device stands in it', () => {
    const job = learned()
    expect([isEnrolled(job.doc, 'device:keys'), deviceSerial(job.doc, 'device:keys')]).toEqual([
      true,
      '20443311',
    ])
    job.set('device:keys', { slot: 7 })
    expect([isEnrolled(job.doc, 'device:keys'), deviceSerial(job.doc, 'device:keys')]).toEqual([false, null])
  })

  it('goes by the loop that was heard, where the plan had another', () => {
    const job = learned()
    const gate = zoneOf(job, 'gate')
    job.learn(gate.id, '10423377', { loop: 4 })
    expect(isEnrolled(job.doc, gate.id)).toBe(false)
    job.set(gate.id, { loop: 4 })
    expect(isEnrolled(job.doc, gate.id)).toBe(true)
  })

  it('needs a copy of what was heard, and the thing itself', () => {
    const job = learned()
    const gate = zoneOf(job, 'gate')
    job.learn(gate.id, '10423377', { of: null })
    expect(isEnrolled(job.doc, gate.id)).toBe(false)
    const { doc } = learned()
    const gone = learned().apply(
      removeDeviceOps(doc, recordOf(doc, 'device', 'device:door') as never) as readonly Op[],
    )
    expect(enrolmentOf(gone.doc, zoneOf(learned(), 'door').id)).toBeNull()
  })

  it('told by a file or an earlier build holds its number and its ID, and is not enrolled', () => {
    for (const told of ['file', 'build'] as const) {
      const job = learned()
      const gate = zoneOf(job, 'gate')
      const { made } = evidenceBy('Idris', undefined, { told })
      job.learn(gate.id, '10423377', { made })
      expect([
        isEnrolled(job.doc, gate.id),
        learnedSerial(job.doc, gate.id),
        holdsNumber(job.doc, gate),
      ]).toEqual([false, '10423377', true])
      // What was seen here stands, whatever is told later.
      const door = zoneOf(job, 'door').id
      job.learn(door, '99999999', { made })
      expect([isEnrolled(job.doc, door), learnedSerial(job.doc, door)]).toEqual([true, '10423344'])
    }
  })

  it('does not count once it is corrected', () => {
    const job = learned()
    const gate = zoneOf(job, 'gate')
    const first = job.heard(gate.id, '10423377')
    job.apply([{ op: 'add', record: first }])
    job.learn(gate.id, '10423388', { corrects: first.id, decision: 'refused' })
    expect([isEnrolled(job.doc, gate.id), correctedIds(job.doc).has(first.id)]).toEqual([false, true])
    expect(evidenceOf(job.doc, 'heard').some((item) => item.id === first.id)).toBe(false)
    // A correction that a file tells corrects nothing here.
    const told = learned()
    const zone = zoneOf(told, 'door').id
    const seen = evidenceOf(told.doc, 'heard').find((item) => item.subject === zone)
    told.learn(zone, '10423388', {
      corrects: seen?.id ?? '',
      decision: 'refused',
      made: evidenceBy('Idris', undefined, { told: 'file' }).made,
    })
    expect(isEnrolled(told.doc, zone)).toBe(true)
  })

  it('waits to be sent until the server has it', () => {
    const made = evidenceBy('Idris').made
    expect(waitsToBeSent({ made })).toBe(false)
    expect(waitsToBeSent({ made: { ...made, takenAt: null } })).toBe(true)
    // An earlier build's evidence bears a name alone: it was taken long ago.
    expect(waitsToBeSent({ made: { ...made, takenAt: null, id: null } })).toBe(false)
  })

  it('of a device is the ID of its slot, else of a zone of its own', () => {
    const job = learned()
    expect(['door', 'gate', 'keys'].map((key) => deviceSerial(job.doc, `device:${key}`))).toEqual([
      '10423344',
      null,
      '20443311',
    ])
    expect(['door', 'gate', 'keys'].map((key) => isDeviceKnown(job.doc, `device:${key}`))).toEqual([
      true,
      false,
      true,
    ])
    expect([...serialsOf(job.doc)].sort()).toEqual(['10423344', '20443311'])
    job.set('device:gate', { sticker: '10429911' })
    expect([...serialsOf(job.doc)].sort()).toEqual(['10423344', '10429911', '20443311'])
  })
})

describe('the records of a job', () => {
  it('stand in their order; evidence by its time, or by when it was taken where the clock was doubtful', () => {
    const job = new SmallJob()
    const at = (minute: number) => `2026-05-04T09:0${minute}:00Z`
    const add = (id: string, time: string, taken: string, clockDoubtful: boolean) =>
      job.apply([
        {
          op: 'add',
          record: {
            ...evidenceBy('Idris', time, { takenAt: taken, clockDoubtful }),
            id: `signoff:${id}`,
            ...blankSignoff,
            what: 'codes',
            note: '',
          },
        },
      ])
    add('b', at(3), at(3), false)
    add('a', at(3), at(3), false)
    add('early', at(1), at(5), false)
    add('doubtful', at(0), at(4), true)
    add('doubtful-unsent', at(2), '', true)
    expect(recordsOf(job.doc, 'signoff').map((item) => item.id)).toEqual(
      ['early', 'doubtful-unsent', 'a', 'b', 'doubtful'].map((id) => `signoff:${id}`),
    )
  })

  it('know the next order, and are found by id and type alone', () => {
    const job = new SmallJob().add('one', 'reedling', { order: 3 }).add('two', 'reedling', { order: 7 })
    expect([nextOrder(job.doc, 'device'), nextOrder(job.doc, 'user')]).toEqual([8, 1])
    expect(recordOf(job.doc, 'device', 'device:one')?.order).toBe(3)
    expect(recordOf(job.doc, 'zone', 'device:one')).toBeNull()
    expect(recordOf(job.doc, 'device', null)).toBeNull()
    expect(() => jobInfo({ ...job.doc, records: {} })).toThrow('no job:main')
  })

  it('are copied as they are for evidence, of one zone or of a whole device', () => {
    const job = learned()
    const door = zoneOf(job, 'door')
    expect(asItIs(job.doc, door.id)).toMatchObject({
      panel: 'panel/tarn-40',
      device: 'device:door',
      model: 'device/reedling',
      zones: [{ zone: door.id, number: door.number, event: 'open', loop: 3 }],
    })
    expect(asItIs(job.doc, 'device:door')?.zones.map((zone) => zone.zone)).toEqual([door.id])
    expect(asItIs(job.doc, 'device:keys')?.zones).toEqual([])
    expect(asItIs(job.doc, 'device:nowhere')).toBeNull()
  })
})

describe('what goes with a thing that is taken out', () => {
  it('zones of an area go to their second area, else to the one given; the rest forgets it', () => {
    const job = new SmallJob()
      .area(2, 'Annexe')
      .area(3, 'Shed')
      .add('a', 'reedling')
      .add('b', 'reedling')
      .add('c', 'reedling')
      .add('d', 'reedling')
      .add('pad', 'tapwell')
      .number()
      .room('annexe', { area: 'area:2' })
      .room('hall', { area: 'area:1' })
      .serves('pad', 1, 2)
    const zone = (key: string) => zoneOf(job, key).id
    job.set(zone('a'), { area: 'area:2' })
    job.set(zone('b'), { area: 'area:2', area2: 'area:3' })
    job.set(zone('c'), { area: 'area:1', area2: 'area:2' })
    job.set(zone('d'), { area: 'area:1', area2: 'area:3', leaves: 'area:2' })
    const area = recordOf(job.doc, 'area', 'area:2')
    if (!area) throw new Error('no area')
    job.apply(removeAreaOps(job.doc, area, 'area:1'))
    const places = Object.fromEntries(
      ['a', 'b', 'c', 'd'].map((key) => {
        const { area: first, area2, leaves } = zoneOf(job, key)
        return [key, [first, area2, leaves]]
      }),
    )
    expect(places).toEqual({
      a: ['area:1', null, null],
      b: ['area:3', null, null],
      c: ['area:1', null, null],
      d: ['area:1', 'area:3', null],
    })
    expect(recordsOf(job.doc, 'room').map((room) => [room.name, room.area])).toEqual([
      ['annexe', null],
      ['hall', 'area:1'],
    ])
    expect(recordsOf(job.doc, 'serves').map((item) => item.area)).toEqual(['area:1'])
    expect(recordOf(job.doc, 'area', 'area:2')).toBeNull()
  })

  it('of a device are its zones, what it sees and serves; what it relayed is freed', () => {
    const job = new SmallJob()
      .room('hall')
      .add('eye', 'stilt')
      .add('relay', 'reedling')
      .add('far', 'reedling')
      .add('pad', 'tapwell')
      .number()
      .set('device:far', { via: 'device:relay' })
      .sees('eye', { room: 'hall' })
      .area(2, 'Annexe')
      .serves('pad', 2)
    for (const key of ['eye', 'relay', 'pad']) {
      const device = recordOf(job.doc, 'device', `device:${key}`)
      if (!device) throw new Error(key)
      job.apply(removeDeviceOps(job.doc, device))
    }
    expect(recordsOf(job.doc, 'device').map((item) => [item.id, item.via])).toEqual([['device:far', null]])
    expect(recordsOf(job.doc, 'zone').map((item) => item.device)).toEqual(['device:far'])
    expect([...recordsOf(job.doc, 'sight'), ...recordsOf(job.doc, 'serves')]).toEqual([])
  })
})

describe('an edit in words', () => {
  const set = (id: string, field: string): Op => ({ op: 'set', id, field, from: 1, to: 2 })
  const edit = (kind: string, ...ops: Op[]): Edit => ({
    id: 'e',
    kind,
    schema: SCHEMA,
    by: { id: null, name: 'Ann' },
    madeAt: '2026-05-04T09:00:00Z',
    ops,
  })

  it('names the field that alone was set, else what was done', () => {
    const cases: readonly [Edit, string][] = [
      [edit('zone.set', set('zone:1', 'label')), 'changed the label of a zone'],
      [edit('area.set', set('area:1', 'name')), 'changed the name of an area'],
      [edit('job.set', set('job:main', 'address')), 'changed the address of the job'],
      [edit('zone.set', set('zone:1', 'label'), set('zone:1', 'chime')), 'changed a zone'],
      [
        edit('zone.number', { op: 'remove', record: { id: 'zone:1' } } as unknown as Op),
        'numbered the zones',
      ],
      [edit('air.listen', set('job:main', 'airSeed')), 'started listening'],
      [edit('catalogue.update', set('pin:1', 'hash')), 'took newer catalogue entries'],
      [edit('fix.delay', set('zone:1', 'response')), 'applied a fix'],
      [edit('remedy.swap', set('device:1', 'model')), 'applied a remedy'],
      [edit('undo', set('zone:1', 'label')), 'took a change back'],
      [edit('redo', set('zone:1', 'label')), 'brought a change back'],
      [edit('upgrade', set('zone:1', 'label')), 'brought the job to a newer version'],
      [edit('not.known'), 'changed the job'],
      [edit('air.unheard'), 'changed the job'],
      [edit('x', set('nothing', 'colour')), 'changed the colour of a record'],
    ]
    for (const [given, words] of cases) expect(titleOf(given)).toBe(words)
  })

  it('names fields and records as they are declared', () => {
    expect(fieldWords('zone:1', 'area2')).not.toBe('area2')
    expect(fieldWords('zone:1', 'unknown')).toBe('unknown')
    expect(fieldWords('nothing', 'colour')).toBe('colour')
    expect([aRecord('area'), aRecord('zone'), aRecord('opening'), aRecord('nothing')]).toEqual([
      'an area',
      'a zone',
      'an opening',
      'a record',
    ])
  })
})

describe('a blank record', () => {
  it.each([
    [blankJob, ['airSeed', 'grade', 'kind', 'monitored', 'name', 'region']],
    [blankDevice, ['model', 'order']],
    [blankZone, ['number']],
  ])('begins with values that its fields allow, and leaves to be said what has none: %#', (blank, unsaid) => {
    const fields = jobRecords.types[blank.type]?.fields ?? {}
    for (const [name, value] of Object.entries(blank))
      if (name !== 'type') expect([name, fields[name]?.schema.safeParse(value).success]).toEqual([name, true])
    expect(
      Object.keys(fields)
        .filter((name) => !(name in blank))
        .sort(),
    ).toEqual(unsaid)
  })

  it('says nothing in anybody’s place', () => {
    expect([blankJob.entry1, blankJob.keySwitch, blankJob.practice]).toEqual([null, 'none', false])
    expect([blankZone.response, blankZone.report, blankZone.label]).toEqual([null, false, ''])
    expect([blankDevice.sticker, blankDevice.existing]).toEqual([null, false])
  })
})
