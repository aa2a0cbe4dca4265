import { describe, expect, it } from 'vitest'
import type { DeviceModel } from '../catalogue/schema.ts'
import { catalogue } from '../testing/small-job.ts'
import { heardBy, triedWithPanels } from './try-out.ts'

const device = (id: string): DeviceModel => {
  const found = catalogue.get('device', `device/${id}`)
  if (!found) throw new Error(id)
  return found
}
const verdicts = (model: DeviceModel): Record<string, string> =>
  Object.fromEntries(
    triedWithPanels(model, catalogue).map(({ panel, verdict, add }) => [
      panel.id.slice('panel/'.length),
      [verdict, ...add.map(({ name }) => name)].join(' with '),
    ]),
  )

describe('a device tried with the panels of the catalogue', () => {
  it('works where its family is heard, and nowhere else', () => {
    const all = verdicts({ ...device('jetty'), id: 'device/new-one', name: 'New one' })
    expect(Object.entries(all).filter(([, verdict]) => verdict !== 'no')).toEqual([['sallow-m', 'works']])
    expect(Object.keys(all)).toHaveLength(catalogue.all('panel').length)
  })

  it('says which receiver it needs, of a panel that comes without', () => {
    const { add, verdict } = triedWithPanels({ ...device('latchet'), id: 'device/new-one' }, catalogue).find(
      ({ panel }) => panel.id === 'panel/morrow-60',
    ) ?? { add: [], verdict: '' }
    expect([verdict === 'no', add.length]).toEqual([false, 1])
    expect(add[0]?.hears.map(({ family }) => family)).toEqual(['family/dunlin'])
  })

  it('stand best first, and of those that do not take it the one that hears it', () => {
    const names = (over: Partial<DeviceModel>) =>
      triedWithPanels({ ...device('reedling'), id: 'device/new-one', ...over }, catalogue).map(
        ({ panel }) => panel.id,
      )
    expect(names({})[0]).toBe('panel/tarn-40')
    // Without an equipment code the Tarn cannot learn it; every other panel does not even hear it.
    expect(names({ equipmentCodes: [] })[0]).toBe('panel/tarn-40')
  })

  it('is no judgement of the device as the catalogue has it, but as it is described', () => {
    const works = (model: DeviceModel): boolean => Object.values(verdicts(model)).some((one) => one !== 'no')
    expect(works(device('sill-8'))).toBe(true)
    expect(
      works({ ...device('sill-8'), family: 'family/wren', equipmentCodes: [], regions: ['north-america'] }),
    ).toBe(false)
  })
})

it('a receiver takes the classes that it is stated for, of the families that it hears', () => {
  const bridge = catalogue.get('receiver', 'receiver/sallow-bridge')
  if (!bridge) throw new Error('no bridge')
  const { takes, refuses } = heardBy(bridge, catalogue)
  if (!takes) throw new Error('takes nothing known')
  const plover = catalogue.all('device').filter(({ family }) => family === 'family/plover')
  expect(takes.length + refuses.length).toBe(plover.length)
  const { classes: _classes, ...open } = bridge
  expect(heardBy(open, catalogue)).toEqual({ takes: null, refuses: [], spoken: plover.length })
  // It is stated for contact, motion, glass break, shock, smoke, flood and panic.
  expect(new Set(refuses.map((one) => one.class))).toEqual(
    new Set(
      plover
        .map((one) => one.class)
        .filter((one) => ['fob', 'keypad', 'gas', 'heat', 'temperature', 'siren', 'repeater'].includes(one)),
    ),
  )
})
