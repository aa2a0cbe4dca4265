import { describe, expect, it } from 'vitest'
import { systemOf } from '../system/system.ts'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { recordOf, recordsOf } from '../job/document.ts'
import { applyOps, invertOps } from '../job/edit.ts'
import { removeAreaOps, removeDeviceOps } from '../job/removals.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { moveToAreaOps } from '../zones/area-move.ts'
import { entryWays } from './entry-ways.ts'
import { houseOf } from './house.ts'
import { servedAreas, serveOps } from './served-areas.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { blankSignoff } from '../job/blank.ts'

const { figures } = defaultHouseRules
const ways = (job: SmallJob) => {
  const system = systemOf(job.doc, catalogue)
  return entryWays(houseOf(job.doc, system, figures), system, figures)
}
const served = (job: SmallJob, key: string) => {
  const areas = servedAreas(job.doc, systemOf(job.doc, catalogue).panel, job.device(key))
  return areas === null ? 'all' : [...areas].sort()
}

/** A house of two parts: the annexe door is 3 m from a keypad in the annexe and 9 m from one in the hall. */
const twoParts = (panel = 'panel/ostler-s-8') =>
  new SmallJob({ panel, radioFirmware: panel === 'panel/ostler-s-8' ? '2.11' : null })
    .area(2, 'Annexe')
    .room('hall', { kind: 'hall' })
    .room('passage', { area: 'area:2' })
    .room('annexe', { area: 'area:2' })
    .way('annexe', 'passage', 3)
    .way('passage', 'hall', 6)
    .opening('annexe door', 'annexe')
    .add('near', 'scriber-8', { room: 'passage' })
    .add('far', 'scriber-8', { room: 'hall' })

describe('areas of keypads', () => {
  it('are all of them until some are said, and all again when each is', () => {
    const job = twoParts()
    expect(served(job, 'near')).toBe('all')
    job.serves('near', 1)
    expect(served(job, 'near')).toEqual(['area:1'])
    job.serves('near', 1, 2)
    expect([served(job, 'near'), recordsOf(job.doc, 'serves')]).toEqual(['all', []])
  })

  it('are said once however often they are said', () => {
    const job = twoParts().serves('near', 1)
    expect(serveOps(job.doc, job.device('near'), new Set(['area:1']))).toEqual([])
    const other = twoParts()
    const [mine] = serveOps(other.doc, other.device('near'), new Set(['area:1']))
    expect(mine).toEqual({ op: 'add', record: recordsOf(job.doc, 'serves')[0] })
  })

  it('count only on panels that keep them per keypad', () => {
    // The Quillet’s letters are full and part sets of one premises: every keypad sets each.
    const job = twoParts('panel/quillet-32').serves('near', 1)
    expect(served(job, 'near')).toBe('all')
  })

  it('of a fob with zone numbers are those of its zones', () => {
    const job = SmallJob.morrow()
      .area(2, 'Den')
      .user('Nell')
      .add('fob', 'fourkey', { user: 'user:Nell', room: '' })
      .number()
    expect(served(job, 'fob')).toEqual(['area:1'])
    for (const zone of recordsOf(job.doc, 'zone')) job.set(zone.id, { area: 'area:2' })
    expect(served(job, 'fob')).toEqual(['area:2'])
  })

  it('decide which keypad helps who comes in by a door', () => {
    // 3 m at 1.2 m/s are 2.5 s and 9 m are 7.5 s; 8 s to key and 5 s to spare: 16 s (rounded up) and 21 s.
    const said = (job: SmallJob) => ways(job).map((way) => [way.keypad.id, way.seconds, way.nearest])
    expect(said(twoParts())).toEqual([
      ['device:near', 16, true],
      ['device:far', 21, false],
    ])
    expect(said(twoParts().serves('near', 1))).toEqual([['device:far', 21, true]])
    expect(said(twoParts().serves('near', 1).serves('far', 1))).toEqual([])
  })
})

describe('taking out what others point at', () => {
  it('takes a device out with its zones, sights and areas, and frees what is reached through it', () => {
    const job = twoParts()
      .add('hall', 'watcher-8')
      .add('relay', 'spanner-8')
      .number()
      .sees('hall', { opening: 'annexe door' })
      .serves('near', 2)
      .set('device:hall', { via: 'device:relay' })
    const before = job.doc
    const ops = [
      ...removeDeviceOps(job.doc, job.device('near')),
      ...removeDeviceOps(job.doc, job.device('relay')),
    ]
    const result = applyOps(before, ops)
    if (!result.ok) throw new Error(result.conflict.code)
    expect(recordsOf(result.doc, 'serves')).toEqual([])
    expect(recordsOf(result.doc, 'device').map((device) => [device.id, device.via])).toEqual([
      ['device:far', null],
      ['device:hall', null],
    ])
    const hall = recordOf(result.doc, 'device', 'device:hall')
    const gone = hall && applyOps(result.doc, removeDeviceOps(result.doc, hall))
    if (!gone?.ok) throw new Error('the motion stays')
    expect([recordsOf(gone.doc, 'zone'), recordsOf(gone.doc, 'sight')]).toEqual([[], []])
    const back = applyOps(result.doc, invertOps(ops))
    expect(back.ok && back.doc.records).toEqual(before.records)
  })

  it('takes an area out: its zones go on, rooms and keypads forget it', () => {
    const job = twoParts()
      .add('front', 'sill-8', { room: 'annexe', use: 'entry' })
      .add('side', 'sill-8', { room: 'annexe', use: 'opening' })
      .number()
      .serves('near', 2)
    job.set(job.zone('side').id, { area: 'area:2', area2: 'area:1', leaves: 'area:2' })
    expect(job.zone('front').area).toBe('area:2')
    const area = recordsOf(job.doc, 'area')[1]
    if (!area) throw new Error('no second area')
    const result = applyOps(job.doc, removeAreaOps(job.doc, area, 'area:1'))
    if (!result.ok) throw new Error(result.conflict.code)
    expect(recordsOf(result.doc, 'zone').map((zone) => [zone.area, zone.area2, zone.leaves])).toEqual([
      ['area:1', null, null],
      ['area:1', null, null],
    ])
    expect(recordsOf(result.doc, 'room').map((room) => room.area)).toEqual([null, null, null])
    expect(recordsOf(result.doc, 'serves')).toEqual([])
  })
})

describe('moving a zone to another area', () => {
  const moved = (job: SmallJob, to: string) => job.apply(moveToAreaOps(job.doc, job.zone('front'), to))
  const state = (job: SmallJob) => [job.zone('front').area, job.zone('front').leaves]
  const job = () => twoParts().add('front', 'sill-8', { use: 'entry' }).number()

  it('is one act while only the plan has it', () => {
    expect(state(moved(job(), 'area:2'))).toEqual(['area:2', null])
  })

  it('keeps the area it leaves once the ID is learned or the summary was read back', () => {
    const learned = job()
    learned.learn(learned.zone('front').id, 'A204118')
    expect(state(moved(learned, 'area:2'))).toEqual(['area:2', 'area:1'])
    const read = job().apply([
      {
        op: 'add',
        record: {
          id: 'signoff:1',
          ...blankSignoff,
          what: 'read-back',
          ...evidenceBy('Nell'),
          note: '',
        },
      },
    ])
    expect(state(moved(read, 'area:2'))).toEqual(['area:2', 'area:1'])
  })

  it('is settled again when it goes back, and keeps its first area when it goes on', () => {
    const learned = job().area(3, 'Barn')
    learned.learn(learned.zone('front').id, 'A204118')
    moved(learned, 'area:2')
    expect(state(moved(learned, 'area:3'))).toEqual(['area:3', 'area:1'])
    expect(state(moved(learned, 'area:1'))).toEqual(['area:1', null])
    expect(moveToAreaOps(learned.doc, learned.zone('front'), 'area:1')).toEqual([])
  })
})
