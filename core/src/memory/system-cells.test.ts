import { describe, expect, it } from 'vitest'
import type { PanelModel } from '../catalogue/schema.ts'
import { serveOps } from '../premises/served-areas.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { systemOf } from '../system/system.ts'
import { recordsOf } from '../job/document.ts'
import { applyOps } from '../job/edit.ts'
import { delayCells, readDelay, readSetting, settingCells, slotCells } from './system-cells.ts'

const panelOf = (id: string): PanelModel => catalogue.get('panel', `panel/${id}`) ?? expect.fail(id)
/** A job of which only the panel and some facts are planned. */
const planned = (id: string, facts: object = {}): SmallJob =>
  new SmallJob({
    ...{ panel: `panel/${id}`, radioFirmware: null, entry1: null, entry2: null, exit: null },
    ...facts,
  })

describe('what a stored setting means to the plan', () => {
  it.each<[panel: string, address: string, value: string, fields: object | string | null]>([
    ['tarn-40', 'system.siren', '3', { sirenSeconds: 180 }],
    ['tarn-40', 'system.siren', '0', '“0” is no value of siren time'],
    ['tarn-40', 'system.siren', '21', '“21” is no value of siren time'],
    ['sallow-m', 'system.siren', '90', { sirenSeconds: 90 }],
    // Between two steps of 30 s there is nothing.
    ['sallow-m', 'system.siren', '100', '“100” is no value of siren time'],
    ['tarn-40', 'system.swinger', '0', { swinger: 0 }],
    ['tarn-40', 'system.swinger', '12345', { swinger: 12345 }],
    ['tarn-40', 'system.swinger', '123456', '“123456” is no value of'],
    ['tarn-40', 'system.swinger', 'two', '“two” is no value of'],
    ['tarn-40', 'system.swinger', '2 ', '“2 ” is no value of'],
    ['ostler-s-8', 'system.supervise', '60', { superviseMinutes: 60 }],
    ['quillet-32', 'system.exitBy', 'door', { exitBy: 'door' }],
    ['quillet-32', 'system.exitBy', 'window', '“window” is no value of'],
    // What the form calls “as it comes” is nothing that a panel stores.
    ['quillet-32', 'system.exitBy', 'null', '“null” is no value of'],
    ['quillet-32', 'system.exitBy', 'on', '“on” is no value of'],
    ['pinfold-16', 'system.openAtExit', 'exclude', { openAtExit: 'exclude' }],
    ['ostler-s-9', 'system.outputs', 'latched', { outputs: 'latched' }],
    ['morrow-60', 'system.outputs', 'momentary', { outputs: 'momentary' }],
    // The Tarn has one way only: that is no setting of it.
    ['tarn-40', 'system.outputs', 'momentary', null],
    ['tarn-40', 'system.entryBeeps', 'on', { entryBeeps: true }],
    ['quillet-32', 'system.exitBeeps', 'off', { exitBeeps: false }],
    ['quillet-32', 'system.exitBeeps', 'true', '“true” is no value of'],
    ['quillet-32', 'system.keySwitch', 'none', { keySwitch: 'none' }],
    ['quillet-32', 'system.keySwitch', 'latching', { keySwitch: 'latching' }],
    ['quillet-32', 'system.keySwitch', 'off', '“off” is no value of'],
    ['tarn-40', 'system.keySwitch', 'none', null],
    ['pinfold-16', 'system.exitUnit', 'on', { exitUnitSwitched: true }],
    ['pinfold-16', 'system.exitUnit', 'off', { exitUnitSwitched: false }],
    ['pinfold-16', 'system.exitUnit', '1', '“1” is no value of'],
    ['tarn-40', 'system.exitUnit', 'on', null],
    ['pinfold-16', 'system.stayToEntry2', 'on', { stayToEntry2: true }],
    ['tarn-40', 'system.entry1', '30', null],
    ['tarn-40', 'zone.1.report', 'on', null],
  ])('%s: %s = %s', (id, address, value, told) => {
    const read = readSetting(panelOf(id), { address, value }, [])
    if (told === null) expect(read).toBeNull()
    else if (typeof told === 'string')
      expect(read).toEqual({ why: expect.stringMatching(new RegExp(`^${told}`)) as unknown })
    else expect(read).toEqual({ fields: told })
  })

  it('of keys that are off, one by one beside the others', () => {
    const at = (address: string, value: string, keysOff: readonly string[]) =>
      readSetting(panelOf('tarn-40'), { address, value }, keysOff)
    expect(at('system.keysOff.fire-key', 'on', ['help key'])).toEqual({
      fields: { keysOff: ['help key', 'fire key'] },
    })
    expect(at('system.keysOff.fire-key', 'on', ['fire key'])).toEqual({ fields: { keysOff: ['fire key'] } })
    expect(at('system.keysOff.fire-key', 'off', ['fire key', 'help key'])).toEqual({
      fields: { keysOff: ['help key'] },
    })
    expect(at('system.keysOff.fire-key', '', [])).toEqual({ why: '“” is neither on nor off' })
    expect(at('system.keysOff.police-pair', 'on', [])).toEqual({ why: '“on” is neither on nor off' })
    expect(
      readSetting(panelOf('quillet-32'), { address: 'system.keysOff.fire-key', value: 'on' }, []),
    ).toBeNull()
  })
})

describe('what a stored delay means to the plan', () => {
  it.each<[panel: string, key: string, value: string, facts: object, told: object | string | null]>([
    ['tarn-40', 'entry1', '45', {}, { field: 'entry1', seconds: 45 }],
    ['tarn-40', 'entry1', '240', {}, { field: 'entry1', seconds: 240 }],
    ['tarn-40', 'entry1', '245', {}, '“245” is no value of First way-in time'],
    ['tarn-40', 'entry1', '47', {}, '“47” is no value of First way-in time'],
    ['tarn-40', 'entry1', '0', {}, '“0” is no value of First way-in time'],
    ['tarn-40', 'entry1', '', {}, '“” is no value of First way-in time'],
    ['tarn-40', 'entry1', '-45', {}, '“-45” is no value of First way-in time'],
    ['tarn-40', 'entry1', '045', {}, { field: 'entry1', seconds: 45 }],
    ['tarn-40', 'entry1', '000045', {}, '“000045” is no value of First way-in time'],
    ['tarn-40', 'abort', '0', {}, { field: 'abortWindow', seconds: 0 }],
    // Steps of 15 s.
    ['morrow-60', 'exit', '4', {}, { field: 'exit', seconds: 60 }],
    ['morrow-60', 'exit', '18', {}, '“18” is no value of Exit time, steps of 15 s'],
    ['pinfold-16', 'exit', '60', {}, { field: 'exit', seconds: 60 }],
    ['pinfold-16', 'exit', '4', { exitUnitSwitched: true }, { field: 'exit', seconds: 60 }],
    // What the panel has not is not its delay.
    ['pinfold-16', 'abort', '30', {}, null],
    ['tarn-40', 'exitStay', '30', {}, null],
    ['quillet-32', 'exitStay', '0', {}, { field: 'exitStay', seconds: 0 }],
    ['tarn-40', 'siren', '3', {}, null],
  ])('%s: %s = %s %j', (id, key, value, facts, told) => {
    const [info] = recordsOf(planned(id, facts).doc, 'job')
    const read = readDelay(panelOf(id), info ?? expect.fail('no facts'), { key, value })
    expect(read).toEqual(typeof told === 'string' ? { why: told } : told)
  })
})

describe('what a plan wants of the whole system', () => {
  it('is each delay that the panel has, and open where none is planned', () => {
    const job = planned('tarn-40', { entry1: 30, exit: 60 })
    expect(delayCells(job.doc, panelOf('tarn-40'))).toEqual([
      { address: 'system.entry1', value: '30' },
      { address: 'system.entry2', state: 'open' },
      { address: 'system.exit', value: '60' },
      { address: 'system.abort', state: 'open' },
    ])
    // No panel of the Pinfold's kind holds before it sends.
    expect(
      delayCells(planned('pinfold-16').doc, panelOf('pinfold-16')).map(({ address }) => address),
    ).toEqual([...['system.entry1', 'system.entry2', 'system.exit']])
  })

  it('has delays of each area where the panel keeps them apart; before sending it holds for all alike', () => {
    const job = planned('ostler-s-8', { entry1: 30, abortWindow: 20 }).area(2, 'Annexe', {
      entry1: 20,
      exit: 0,
    })
    const cells = delayCells(job.doc, panelOf('ostler-s-8'))
    expect(cells.filter(({ address }) => address.startsWith('area.2.'))).toEqual([
      { address: 'area.2.entry1', value: '20' },
      { address: 'area.2.entry2', state: 'open' },
      { address: 'area.2.exit', value: '0' },
      { address: 'area.2.exitStay', state: 'open' },
    ])
    expect(cells.filter(({ address }) => address.endsWith('.abort'))).toEqual([
      { address: 'system.abort', value: '20' },
    ])
    // The first area has its own, too: nothing is planned there.
    expect(
      cells.filter(({ address }) => address.startsWith('area.1.')).map((cell) => 'state' in cell),
    ).toEqual([true, true, true, true])
    const one = planned('tarn-40').area(2, 'Annexe', { entry1: 20 })
    expect(delayCells(one.doc, panelOf('tarn-40')).some(({ address }) => address.startsWith('area.'))).toBe(
      false,
    )
  })

  it('is each setting that its sheet asks, open where it stays as it comes', () => {
    const settings = (id: string, facts: object = {}) =>
      settingCells(planned(id, { keysOff: [], keySwitch: 'none', ...facts }).doc, panelOf(id))
    expect(settings('ostler-s-8')).toEqual([
      { address: 'system.siren', state: 'open' },
      { address: 'system.swinger', state: 'open' },
      { address: 'system.supervise', state: 'open' },
      { address: 'system.outputs', state: 'open' },
    ])
    expect(
      settings('ostler-s-8', { sirenSeconds: 180, swinger: 3, superviseMinutes: 120, outputs: 'latched' }),
    ).toEqual([
      { address: 'system.siren', value: '180' },
      { address: 'system.swinger', value: '3' },
      { address: 'system.supervise', value: '120' },
      { address: 'system.outputs', value: 'latched' },
    ])
    // A flag is on or off; the panel's beeps may stay as they come.
    expect(settings('pinfold-16', { stayToEntry2: true, entryBeeps: false }).slice(3)).toEqual([
      { address: 'system.openAtExit', state: 'open' },
      { address: 'system.entryBeeps', value: 'off' },
      { address: 'system.exitBeeps', state: 'open' },
      { address: 'system.exitUnit', value: 'off' },
      { address: 'system.stayToEntry2', value: 'on' },
    ])
    expect(settings('quillet-32').at(-1)).toEqual({ address: 'system.keySwitch', value: 'none' })
    expect(settings('quillet-32', { keySwitch: 'latching' }).at(-1)).toEqual({
      ...{ address: 'system.keySwitch', value: 'latching' },
    })
    expect(settings('morrow-60', { keysOff: ['police pair'] }).slice(-3)).toEqual([
      { address: 'system.keysOff.fire-pair', value: 'off' },
      { address: 'system.keysOff.medical-pair', value: 'off' },
      { address: 'system.keysOff.police-pair', value: 'on' },
    ])
    const [siren] = settings('quillet-32', { sirenSeconds: 5 })
    expect(siren).toMatchObject({ refused: expect.stringMatching(/^Siren time: .+\.$/) as unknown })
  })
})

describe('what a plan wants of fobs and keypads', () => {
  const cells = (job: SmallJob) => slotCells(job.doc, systemOf(job.doc, catalogue))
  const withFob = (id: string, model: string): SmallJob => planned(id).add('fob', model)

  it('is the ID in its slot, learned before typed, and open where none is known', () => {
    const job = withFob('ostler-s-8', 'quatern-8')
    const id = 'device:fob'
    job.set(id, { slot: 3 })
    expect(cells(job)).toEqual([{ address: 'fob.3.serial', state: 'open' }])
    job.set(id, { sticker: 'Q204177' })
    expect(cells(job)).toEqual([{ address: 'fob.3.serial', value: 'Q204177' }])
    job.set(id, { slot: 16 })
    expect(cells(job)).toHaveLength(1)
    job.set(id, { slot: 17 })
    expect(cells(job)).toEqual([{ address: 'fob.17', refused: 'Ostler S 8 has 16 fob slots.' }])
    job.set(id, { slot: null })
    expect(cells(job)).toEqual([])
    expect(slotCells(job.doc, { ...systemOf(job.doc, catalogue), panel: null })).toEqual([])
  })

  it('is the areas that it serves, where there are several and the panel keeps them', () => {
    const job = withFob('ostler-s-8', 'quatern-8')
    const fob = recordsOf(job.doc, 'device').find(({ id }) => id === 'device:fob') ?? expect.fail('fob')
    job.set(fob.id, { slot: 1 })
    job.area(2, 'Annexe')
    // Nothing is stated: it serves all.
    expect(cells(job).slice(1)).toEqual([
      { address: 'fob.1.areas.1', value: 'on' },
      { address: 'fob.1.areas.2', value: 'on' },
    ])
    const served = applyOps(job.doc, serveOps(job.doc, fob, new Set(['area:2'])))
    if (!served.ok) expect.fail('refused')
    job.doc = served.doc
    expect(cells(job).slice(1)).toEqual([
      { address: 'fob.1.areas.1', value: 'off' },
      { address: 'fob.1.areas.2', value: 'on' },
    ])
    // The Tarn keeps none per fob.
    const tarn = cleanTarn().area(2, 'Annexe')
    expect(cells(tarn).filter(({ address }) => address.includes('.areas.'))).toEqual([])
  })
})
