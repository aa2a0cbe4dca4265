import { describe, expect, it } from 'vitest'
import { keepEntry } from '../catalogue/written.ts'
import type { Op } from '../job/edit.ts'
import { pinOps } from '../job/start.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import { catalogue, cleanHouse, cleanMorrow, cleanTarn, type SmallJob } from '../testing/small-job.ts'
import { contextOf } from './context.ts'
import { farm, ostler, pinfold } from './testing/case-jobs.ts'
import { judge } from './judge.ts'

/*
 * What unchanged records gave before is used again. Whatever changes, it must be what the same job gives that nobody looked at
 * before: one read anew, of which nothing can be known yet.
 */

const readAnew = (doc: JobDocument): JobDocument => JSON.parse(JSON.stringify(doc)) as JobDocument

/** Looks at the job, changes it, and holds what is then seen to what is seen of the same job read anew. */
function changed(job: SmallJob, change: (job: SmallJob) => unknown): void {
  contextOf(job.input())
  change(job)
  const seen = contextOf(job.input())
  const anew = { ...job.input(), doc: readAnew(job.doc) }
  expect(seen.zones).toEqual(contextOf(anew).zones)
  expect(judge(job.input())).toEqual(judge(anew))
}

const removed = (job: SmallJob, type: 'sight' | 'way' | 'opening' | 'room', id: string): SmallJob =>
  job.apply(
    recordsOf(job.doc, type).flatMap((record): Op[] => (record.id === id ? [{ op: 'remove', record }] : [])),
  )

/** The same job on another panel. */
const chosen = (job: SmallJob, panel: string): SmallJob =>
  job.apply(pinOps(job.doc, catalogue, [panel])).set('job:main', { panel })

const ofTarn: readonly (readonly [string, (job: SmallJob) => unknown])[] = [
  ['a device stands in another room', (job) => job.set('device:hall', { room: 'cellar' })],
  ['a device has another use', (job) => job.set('device:hall', { use: 'off-way' })],
  ['a device is another model', (job) => job.set('device:porch', { model: 'device/reedling-slim' })],
  ['a zone has another device', (job) => job.set('zone:3', { device: 'device:lounge' })],
  ['a zone has no device', (job) => job.set('zone:3', { device: null })],
  [
    'a device is gone',
    (job) => job.set('zone:3', { device: null }).apply([{ op: 'remove', record: job.device('hall') }]),
  ],
  ['another panel', (job) => chosen(job, 'panel/sallow-m')],
  ['no panel', (job) => job.set('job:main', { panel: null })],
  ['another region', (job) => job.set('job:main', { region: 'north-america' })],
  ['another house rule', (job) => (job.houseRules = awayGlass(job))],
  [
    'a model is described otherwise',
    (job) => {
      const glass = catalogue.get('device', 'device/pane-ear') ?? expect.fail()
      const loops = glass.loops.map((loop) => ({ ...loop, loop: 4 }))
      job.catalogue = catalogue.with([keepEntry({ ...glass, loops })])
    },
  ],
]
const awayGlass = (job: SmallJob) => ({
  ...job.houseRules,
  schools: { ...job.houseRules.schools, glass: 'away-only' as const },
})
describe('a house that nobody described', () => {
  it.each(ofTarn)('%s', (_, change) => changed(cleanTarn(), change))
})

const ofHouse: readonly (readonly [string, (job: SmallJob) => unknown])[] = [
  ['people come in by another opening', (job) => job.set('opening:kitchen window', { use: 'everyday' })],
  ['nobody comes in by the door', (job) => job.set('opening:front door', { use: 'never' })],
  ['the door is not used in stay', (job) => job.set('opening:front door', { inStay: false })],
  ['the door is called otherwise', (job) => job.set('opening:front door', { name: 'main door' })],
  ['a room is called otherwise', (job) => job.set('room:hall', { name: 'lobby' })],
  ['a room becomes noisy', (job) => job.set('room:hall', { kind: 'garage' })],
  ['a room is slept in', (job) => job.set('room:landing', { sleeps: true })],
  ['the way is longer', (job) => job.set('way:porch-hall', { metres: 9 })],
  ['the way is too long for the first delay', (job) => job.set('way:porch-hall', { metres: 30 })],
  ['the way is gone', (job) => removed(job, 'way', 'way:porch-hall')],
  ['the room is gone', (job) => removed(removed(job, 'way', 'way:hall-landing'), 'room', 'room:landing')],
  ['the door is gone', (job) => removed(job, 'opening', 'opening:front door')],
  ['the keypad is elsewhere', (job) => job.set('device:keypad', { room: 'kitchen' })],
  ['the keypad is gone', (job) => job.apply([{ op: 'remove', record: job.device('keypad') }])],
  ['the motion is upstairs', (job) => job.set('device:hall', { room: 'landing' })],
  ['the motion sees the door', (job) => job.sees('hall', { opening: 'front door' })],
  ['the motion sees the kitchen', (job) => job.sees('hall', { room: 'kitchen' })],
  ['what people walk is slower', (job) => job.set('job:main', { slowest: 'slow' })],
]
describe('a house that is described', () => {
  it.each(ofHouse)('%s', (_, change) => changed(cleanHouse(), change))
  it.each(ofHouse)('%s, and a second motion at the door', (_, change) => {
    changed(cleanHouse().add('eye', 'stilt-hound', { room: 'porch' }).number(), change)
  })
})

const ofFarm: readonly (readonly [string, (job: SmallJob) => unknown])[] = [
  ['a motion sees another leaf', (job) => job.sees('watch', { opening: 'inner door' })],
  ['a motion no longer sees the leaf', (job) => removed(job, 'sight', 'sight:watch-garage door')],
  ['the leaf is called otherwise', (job) => job.set('opening:garage door', { name: 'barn door' })],
  ['an inner door leads elsewhere', (job) => job.set('opening:inner door', { to: 'room:study' })],
  ['a contact guards another opening', (job) => job.set('device:far', { opening: 'opening:inner door' })],
  ['the bedroom is no longer slept in', (job) => job.set('room:bedroom', { sleeps: false })],
  ['a part set is named', (job) => job.area(2, 'Night')],
  ['a zone is in a part set', (job) => job.area(2, 'Night').set('zone:1', { area2: 'area:2' })],
]
describe('a farm on a panel with part sets', () => {
  it.each(ofFarm)('%s', (_, change) => changed(farm(), change))
})

describe('other panels', () => {
  it.each([
    ['Morrow 60', cleanMorrow],
    ['Ostler S 8', ostler],
    ['Pinfold 16', pinfold],
  ] as const)('%s, and then another', (_, clean) => {
    changed(clean(), (job) => chosen(job, 'panel/tarn-40'))
  })
})
