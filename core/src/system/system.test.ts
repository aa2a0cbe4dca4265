import { describe, expect, it } from 'vitest'
import { Catalogue } from '../catalogue/catalogue.ts'
import { ostler } from '../findings/testing/case-jobs.ts'
import { catalogue, cleanMorrow, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { systemOf } from './system.ts'

const without = (...ids: readonly string[]) =>
  new Catalogue(catalogue.kept.filter(({ entry }) => !ids.includes(entry.id)))
const receivers = (job: SmallJob, from = catalogue) =>
  systemOf(job.doc, from).receivers.map(({ id, model, families, encryptedOnly }) => [
    ...[id, model.id, families.length > 0, encryptedOnly],
  ])

describe('the receivers that are there', () => {
  it('are the panel’s own, plain ones allowed, and those of the job', () => {
    expect(receivers(cleanTarn())).toEqual([['built-in', 'receiver/tarn-radio', true, false]])
    const [record, built] = [receivers(cleanMorrow()).at(-1), receivers(ostler())[0]]
    expect(record).toEqual(['receiver:morrow-radio-module', 'receiver/morrow-radio-module', true, false])
    expect(built?.[0]).toBe('built-in')
    const strict = new SmallJob({ panel: 'panel/morrow-60' }).receiver('morrow-radio-module', {
      encryptedOnly: true,
    })
    expect(receivers(strict).map((one) => one[3])).toEqual([true])
  })

  it('are not those of another panel, and all while no panel is chosen', () => {
    const foreign = cleanTarn().receiver('morrow-radio-module')
    expect(receivers(foreign).map(([id]) => id)).toEqual(['built-in'])
    expect(receivers(foreign.set('job:main', { panel: null })).map(([id]) => id)).toEqual([
      'receiver:morrow-radio-module',
    ])
  })

  it('are none of which the catalogue has no entry, and hear the families that it has', () => {
    expect(receivers(cleanTarn(), without('receiver/tarn-radio'))).toEqual([])
    expect(receivers(cleanMorrow(), without('receiver/morrow-radio-module'))).toEqual([])
    const heard = (from: Catalogue) =>
      systemOf(cleanTarn().doc, from).receivers[0]?.families.map(({ id }) => id)
    const all = heard(catalogue) ?? []
    expect(all).toContain('family/wren')
    expect(heard(without('family/wren'))).toEqual(all.filter((id) => id !== 'family/wren'))
  })
})

describe('a system', () => {
  it('has its devices with their families, wired ones without, and none of an entry that is gone', () => {
    const job = SmallJob.morrow().add('gate', 'contact-w').add('front', 'latchet')
    const of = (from: Catalogue) =>
      systemOf(job.doc, from).devices.map(({ device, family }) => [device.id, family?.id])
    expect(of(catalogue)).toEqual([
      ['device:gate', undefined],
      ['device:front', 'family/dunlin'],
    ])
    expect(of(without('device/latchet'))).toEqual([['device:gate', undefined]])
    expect(of(without('family/dunlin'))[1]).toEqual(['device:front', undefined])
    expect(systemOf(job.doc, catalogue).byId.get('device:front')?.model.id).toBe('device/latchet')
  })

  it('is looked up once for a document and a catalogue, and anew for another', () => {
    const { doc } = cleanTarn()
    const once = systemOf(doc, catalogue)
    expect(systemOf(doc, catalogue)).toBe(once)
    expect(systemOf(doc, without('family/wren'))).not.toBe(once)
    expect(systemOf(cleanTarn().doc, catalogue)).not.toBe(once)
    expect([once.info.id, once.panel?.id]).toEqual(['job:main', 'panel/tarn-40'])
  })
})
