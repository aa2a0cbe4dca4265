import { describe, expect, it } from 'vitest'
import { demoPanel } from '../testing/panels.ts'
import { catalogue } from '../testing/small-job.ts'
import { filled, interfaceOf, movesOf, numbersIn, pointersIn, screenOf, spread } from './compiled.ts'

describe('a panel made ready', () => {
  it('is none where nobody has described it', () => {
    const panel = catalogue.get('panel', 'panel/tarn-40') ?? expect.fail('no panel')
    expect(interfaceOf(catalogue, { ...panel, interface: 'interface/none' })).toBeNull()
    const { interface: _, ...bare } = panel
    expect(interfaceOf(catalogue, bare)).toBeNull()
    expect(interfaceOf(catalogue, panel)?.panel).toBe(panel)
  })

  it('takes IDs of the families that its receivers hear, and of no others', () => {
    const tarn = demoPanel('tarn-40').values('zone.{zone}.serial', () => '')
    expect(tarn?.read('20417733')).toBe('20417733')
    expect(tarn?.read('9C204A')).toBeNull()
    expect(
      demoPanel('pinfold-16')
        .values('zone.{zone}.serial', () => '')
        ?.read('9C204A'),
    ).toBe('9C204A')
    // A panel without a receiver hears nobody.
    const panel = catalogue.get('panel', 'panel/tarn-40') ?? expect.fail('no panel')
    const deaf = interfaceOf(catalogue, { ...panel, receivers: [] })
    expect(deaf?.values('zone.{zone}.serial', () => '')?.read('20417733')).toBeNull()
    const unknown = interfaceOf(catalogue, { ...panel, receivers: ['receiver/none' as never] })
    expect(unknown?.values('zone.{zone}.serial', () => '')?.read('20417733')).toBeNull()
  })

  it('knows each address by its template and numbers, and no values of another', () => {
    const { addresses, values, factory, keys } = demoPanel('tarn-40')
    expect(addresses.get('zone.7.response')).toEqual({
      template: 'zone.{zone}.response',
      pointers: { zone: 7 },
    })
    expect(addresses.get('system.entry1')).toEqual({ template: 'system.entry1', pointers: {} })
    expect(addresses.has('zone.99.response')).toBe(false)
    expect(values('zone.{zone}.colour', () => '')).toBeNull()
    expect([factory.get('zone.7.report'), factory.get('zone.7.response')]).toEqual(['on', undefined])
    expect(keys.has('tick')).toBe(true)
  })
})

describe('templates', () => {
  // Made in the test: a file that fails while it is read fails no test.
  const description = () => demoPanel('ostler-s-8').description
  it('name their pointers once each', () => {
    expect(pointersIn('zone.{zone}.areas.{area} {zone}')).toEqual(['zone', 'area'])
    expect(pointersIn('system.entry1')).toEqual([])
  })

  it('are filled by numbers; one without its pointer says so', () => {
    expect(filled('zone.{zone}.areas.{area}', { zone: 12, area: 2 })).toBe('zone.12.areas.2')
    expect(filled('zone.{zone}.label', {})).toBe('zone.?.label')
    expect(filled('system.entry1', { zone: 1 })).toBe('system.entry1')
    // The same template again, with other numbers.
    expect(filled('zone.{zone}.areas.{area}', { zone: 3, area: 4 })).toBe('zone.3.areas.4')
  })

  it('are spread over every number of their pointers', () => {
    expect(spread(description(), 'area.{area}.exit')).toEqual(
      [1, 2, 3, 4].map((area) => ({ address: `area.${area}.exit`, pointers: { area } })),
    )
    expect(spread(description(), 'siren.{siren}.areas.{area}')).toHaveLength(16)
    expect(spread(description(), 'system.exit')).toEqual([{ address: 'system.exit', pointers: {} }])
    expect(spread(description(), 'lamp.{lamp}')).toEqual([])
    expect(numbersIn({ from: 3, to: 5 })).toEqual([3, 4, 5])
    expect(numbersIn({ from: 7, to: 7 })).toEqual([7])
  })
})

describe('screens and moves', () => {
  it('a screen by its name, and none of another', () => {
    const tarn = demoPanel('tarn-40')
    expect(screenOf(tarn, 'sum').widget.kind).toBe('summary')
    expect(() => screenOf(tarn, 'attic')).toThrow(/has no screen attic/)
  })

  it('a target is one move or several', () => {
    expect(movesOf('>')).toEqual([{ go: '>' }])
    expect(movesOf({ say: 'no', go: '.' })).toEqual([{ say: 'no', go: '.' }])
    expect(movesOf([{ go: '<' }, { go: '>' }])).toEqual([{ go: '<' }, { go: '>' }])
  })
})
