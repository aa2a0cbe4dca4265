import { describe, expect, it } from 'vitest'
import { enrolmentOf } from '../job/enrolment.ts'
import { recordsOf } from '../job/document.ts'
import { itemsOf } from '../proof/testing/proved-jobs.ts'
import { catalogue, cleanMorrow, cleanTarn, type SmallJob } from '../testing/small-job.ts'
import { fobPass, fobPassRecords } from './fob-pass.ts'
import { targetsOf } from './learn.ts'

const on = (job: SmallJob) => ({ doc: job.doc, catalogue })
const morrow = () => cleanMorrow().add('fob', 'fourkey', { room: '' }).number()
const buttons = (job: SmallJob) => recordsOf(job.doc, 'zone').filter((zone) => zone.device === 'device:fob')
const first = (job: SmallJob) => {
  const found = targetsOf(job.doc, catalogue).find(({ device }) => device.id === 'device:fob')
  if (!found) throw new Error('no fob')
  return found
}
const made = () => {
  let count = 0
  const newId = (): string => `heard:pass-${(count += 1)}`
  return {
    newId,
    who: { id: 'idris', name: 'Idris' },
    at: '2026-05-04T12:00:00Z',
    source: 'display',
  } as const
}

describe('a fob whose buttons are numbers', () => {
  it('is learned by one press of any button, and each button is proved by itself', () => {
    const job = morrow()
    // Numbers from the top of the fob block, one per button.
    expect(buttons(job).map(({ number }) => number)).toEqual([80, 81, 82, 83])
    expect(fobPass(on(job), first(job))).toEqual([])
    job.learn(buttons(job)[2]?.id ?? '', '70250455')
    const others = fobPass(on(job), first(job))
    expect(others.map(({ zone }) => zone?.number)).toEqual([80, 81, 83])
    for (const record of fobPassRecords(on(job), first(job), made()))
      job.apply([{ op: 'add', record: { ...record, made: { ...record.made, takenAt: record.at } } }])
    expect(
      buttons(job).map(({ id }) => [enrolmentOf(job.doc, id)?.serial, enrolmentOf(job.doc, id)?.how]),
    ).toEqual([
      ['70250455', 'sister'],
      ['70250455', 'sister'],
      ['70250455', 'heard'],
      ['70250455', 'sister'],
    ])
    expect(fobPass(on(job), first(job))).toEqual([])
    const owed = itemsOf(job, 'fob').filter(({ kind }) => kind === 'button' || kind === 'trip')
    expect(owed.map(({ state }) => state)).toEqual(['owed', 'owed', 'owed', 'owed'])
  })

  it('lends no ID of which only the last signs were seen', () => {
    const job = morrow()
    job.learn(buttons(job)[0]?.id ?? '', '70250455', { shown: '0455' })
    expect(fobPass(on(job), first(job))).toEqual([])
  })
})

it('a fob in a slot, and anything that is no fob, is no matter of one pass', () => {
  const tarn = cleanTarn()
  tarn.learn('device:fob', '4B2K90QX')
  expect(fobPass(on(tarn), first(tarn))).toEqual([])
  const job = morrow()
  const attic = recordsOf(job.doc, 'zone').filter((zone) => zone.device === 'device:attic')
  job.learn(attic[0]?.id ?? '', '70250455')
  const smoke = targetsOf(job.doc, catalogue).find(({ device }) => device.id === 'device:attic')
  if (!smoke) throw new Error('no smoke')
  expect(attic.length).toBeGreaterThan(1)
  expect(fobPass(on(job), smoke)).toEqual([])
})
