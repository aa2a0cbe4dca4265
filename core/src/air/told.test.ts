import { describe, expect, it } from 'vitest'
import { recordsOf } from '../job/document.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { listensFor, listensUntil, toldOpen } from '../job/told.ts'
import { clocksOf } from '../proof/clocks.ts'
import { catalogue, cleanMorrow, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { deviceEvents, hangingOn } from './device-events.ts'
import { targetsOf } from './learn.ts'
import { listeningOf, toldRecord } from './told.ts'

const at = (time: string): string => `2026-05-04T${time}.000Z`
const targetFor = (job: SmallJob, name: string) =>
  targetsOf(job.doc, catalogue).find((target) => target.name === name) ?? expect.fail(`no ${name}`)
function tell(job: SmallJob, name: string, time: string, who = 'Idris'): SmallJob {
  const target = targetFor(job, name)
  const seconds =
    listeningOf({ doc: job.doc, catalogue }, target)?.seconds ?? expect.fail('it learns nothing')
  const made = { id: `told:${time}`, target, seconds, who: { id: 'p', name: who }, at: at(time) }
  return job.apply([{ op: 'add', record: { ...toldRecord(job.doc, made), ...evidenceBy(who, at(time)) } }])
}
const clock = (job: SmallJob, time: string) =>
  clocksOf({ doc: job.doc, catalogue }, at(time)).filter(({ kind }) => kind === 'learn')

describe('a panel that was told to learn', () => {
  it('listens for the time of its own, for one thing only', () => {
    const job = cleanTarn()
    const [first, second] = targetsOf(job.doc, catalogue)
    expect(clock(job, '20:00:00')).toEqual([])
    tell(job, first?.name ?? '', '20:00:00')
    expect(clock(job, '20:00:59')).toMatchObject([
      { id: 'learn', words: `The panel listens for ${first?.name ?? ''}`, ends: at('20:01:00') },
    ])
    expect(clock(job, '20:01:00')).toEqual([])
    expect(toldOpen(job.doc).has(first?.id ?? '')).toBe(true)
    // Told of another, it listens for that, and its time begins anew.
    tell(job, second?.name ?? '', '20:00:40', 'Morwen')
    expect(listensFor(job.doc, at('20:00:50'))).toMatchObject({
      subject: second?.id,
      made: { name: 'Morwen' },
    })
    expect(clock(job, '20:01:39')).toMatchObject([{ ends: at('20:01:40') }])
  })

  it('has heard what is accepted, refused or taken out after that', () => {
    for (const decision of ['accepted', 'refused', 'released'] as const) {
      const job = cleanTarn()
      const [first] = targetsOf(job.doc, catalogue)
      tell(job, first?.name ?? '', '08:00:00')
      job.learn(first?.id ?? '', '20417733', { decision, at: at('08:00:30') })
      expect(toldOpen(job.doc).size).toBe(0)
      expect(clock(job, '08:00:31')).toEqual([])
    }
  })

  it('tells of a slot, too, and of nothing that it does not learn', () => {
    const job = cleanTarn()
    tell(job, 'fob 1', '20:00:00')
    expect(clock(job, '20:00:10')).toMatchObject([{ words: 'The panel listens for fob 1' }])
    const told = recordsOf(job.doc, 'told')
    expect(told.map((one) => listensUntil(one))).toEqual([at('20:01:00')])
    const morrow = cleanMorrow()
    for (const target of targetsOf(morrow.doc, catalogue))
      expect(listeningOf({ doc: morrow.doc, catalogue }, target)).toMatchObject({ needs: 2, key: 'mode' })
  })
})

describe('what belongs to a device', () => {
  it('is every event of it, those of no zone, too', () => {
    const job = cleanMorrow()
    const [attic] = recordsOf(job.doc, 'zone').filter(({ device }) => device === 'device:attic')
    const target = targetsOf(job.doc, catalogue).find(({ id }) => id === attic?.id) ?? expect.fail('no attic')
    const events = () =>
      deviceEvents({ doc: job.doc, catalogue }, target).map((one) => [
        one.loop.event,
        one.target?.done ?? null,
      ])
    expect(events()).toEqual([
      ['smoke', false],
      ['heat', false],
      ['freeze', false],
    ])
    job.learn(target.id, '20417733', { family: 'family/dunlin' })
    expect(events()[0]).toEqual(['smoke', true])
    const frost = recordsOf(job.doc, 'zone').find(({ event }) => event === 'freeze')
    if (frost) job.apply([{ op: 'remove', record: frost }])
    expect(events()).toEqual([
      ['smoke', true],
      ['heat', false],
      ['freeze', null],
    ])
    // What is left as programmed is not to be learned, and somebody hears of it all the same.
    const heat = recordsOf(job.doc, 'zone').find(({ event }) => event === 'heat')
    job.set(heat?.id ?? '', { asProgrammed: true })
    expect(
      deviceEvents({ doc: job.doc, catalogue }, target).map((one) => [one.target === null, one.asProgrammed]),
    ).toEqual([
      [false, false],
      [true, true],
      [true, false],
    ])
  })

  it('is nothing of a device with one event, and of one in its slot', () => {
    const job = cleanTarn()
    const single = targetsOf(job.doc, catalogue).filter(
      (target) => deviceEvents({ doc: job.doc, catalogue }, target).length === 0,
    )
    expect(single.some(({ name }) => name === 'fob 1')).toBe(true)
    expect(single.some(({ device }) => device.id === 'device:porch')).toBe(true)
  })

  it('is the repeater it hangs on, and what hangs on that', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8' })
      .add('relay', 'spanner-8', { room: 'hall' })
      .add('shed', 'sill-8', { use: 'opening', via: 'device:relay' })
      .add('late', 'sill-8', { use: 'opening', via: 'device:relay', deferred: 'not built' })
      .add('door', 'sill-8', { use: 'entry' })
      .number()
    const of = (key: string) => {
      const target = targetsOf(job.doc, catalogue).find(({ device }) => device.id === `device:${key}`)
      return target ? hangingOn({ doc: job.doc, catalogue }, target) : null
    }
    expect(of('door')).toEqual({ via: null, behind: [] })
    expect(of('shed')?.via).toMatchObject({ learned: false })
    expect(of('shed')?.via?.name).toContain('in hall')
    expect(of('relay')?.behind.map(({ name, learned }) => [name.endsWith('in shed'), learned])).toEqual([
      [true, false],
    ])
    job.learn('device:relay', 'H204177', { family: 'family/curlew-8' })
    expect(of('shed')?.via?.learned).toBe(true)
  })
})
