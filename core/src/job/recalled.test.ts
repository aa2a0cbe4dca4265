import { expect, it } from 'vitest'
import type { Recall } from '../catalogue/standing.ts'
import { SmallJob } from '../testing/small-job.ts'
import { recalledIn } from './recalled.ts'

const recall = (entryId: string, from: string, to: string): Recall => ({
  ...{ kind: 'recall', entryId, why: 'it sticks', years: null, serials: { from, to } },
  ...{ id: 'r1', by: 'Ann', at: '2026-05-04T10:00:00.000Z' },
})
const job = (practice: boolean): SmallJob =>
  new SmallJob({ practice })
    .add('hall', 'reedling', { sticker: '20410001', position: 'door', madeYear: 2021 })
    .add('study', 'reedling', { sticker: '20990001' })
    .add('loft', 'reedling')
    .add('yard', 'reedling', { sticker: '20990002' })
    .add('den', 'stilt', { sticker: '20410002' })
    .number()

it('knows a device by the ID that it was learned by, else by its sticker, else not at all', () => {
  const here = job(false)
  // The study turned out to be another one than its sticker says; the hall is not learned yet.
  here.learn(here.zone('study', 'open').id, '20410003', { source: 'display' })
  const found = recalledIn(here.doc, recall('device/reedling', '2041 0000', '2041 9999'))
  expect(found).toEqual([
    {
      ...{ device: 'device:hall', room: 'hall', position: 'door', serial: '20410001', madeYear: 2021 },
      answer: 'yes',
    },
    {
      ...{ device: 'device:study', room: 'study', position: '', serial: '20410003', madeYear: null },
      answer: 'yes',
    },
    {
      ...{ device: 'device:loft', room: 'loft', position: '', serial: null, madeYear: null },
      answer: 'unknown',
    },
  ])
  expect(recalledIn(here.doc, recall('device/stilt', '2041 0000', '2041 9999'))).toHaveLength(1)
  expect(recalledIn(here.doc, recall('device/ember-three', '2041 0000', '2041 9999'))).toEqual([])
})

it('knows a fob by the ID of its slot', () => {
  const here = new SmallJob().user('Nell').add('fob', 'quartet', { user: 'user:Nell', slot: 1 }).number()
  const all = recall('device/quartet', '0000 0000', '9999 9999')
  expect(recalledIn(here.doc, all).map(({ answer }) => answer)).toEqual(['unknown'])
  here.learn('device:fob', '20410009', { source: 'display' })
  expect(recalledIn(here.doc, all).map(({ serial, answer }) => [serial, answer])).toEqual([
    ['20410009', 'yes'],
  ])
})

it('finds nothing in a practice job: what hangs there is invented', () => {
  expect(recalledIn(job(true).doc, recall('device/reedling', '2041 0000', '2041 9999'))).toEqual([])
})
