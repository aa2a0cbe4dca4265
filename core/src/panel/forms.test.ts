import { describe, expect, it } from 'vitest'
import { demoPanel } from '../testing/panels.ts'
import { catalogue } from '../testing/small-job.ts'
import { heldIn, valuesOf, type Values } from './forms.ts'

const nothing = (): string => ''
/** The values of an address of a demo panel, as the description writes it. */
const at = (panel: string, template: string, memory: (address: string) => string = nothing): Values =>
  demoPanel(panel).values(template, memory) ?? expect.fail(`${panel} has no field ${template}`)

describe('values that are typed', () => {
  it.each<[panel: string, template: string, typed: string, value: string | null]>([
    // Tarn: 5 to 240 s in steps of 5; zeros in front are dropped.
    ['tarn-40', 'system.entry1', '45', '45'],
    ['tarn-40', 'system.entry1', '045', '45'],
    ['tarn-40', 'system.entry1', '5', '5'],
    ['tarn-40', 'system.entry1', '240', '240'],
    ['tarn-40', 'system.entry1', '4', null],
    ['tarn-40', 'system.entry1', '245', null],
    ['tarn-40', 'system.entry1', '42', null],
    ['tarn-40', 'system.entry1', '', null],
    ['tarn-40', 'system.entry1', '45s', null],
    ['tarn-40', 'system.entry1', 'x45', null],
    ['tarn-40', 'system.entry1', '000045', null],
    // Below its least, 0 has a meaning of its own.
    ['morrow-60', 'system.entry1', '0', '0'],
    ['morrow-60', 'system.exit', '3', '3'],
    ['morrow-60', 'system.exit', '17', '17'],
    ['morrow-60', 'system.exit', '18', null],
    ['tarn-40', 'system.swinger', '9', '9'],
    ['tarn-40', 'system.swinger', '10', null],
    ['morrow-60', 'system.swinger', '0', null],
    ['tarn-40', 'system.siren', '20', '20'],
    ['tarn-40', 'system.siren', '0', null],
    ['tarn-40', 'zone.{zone}.response', '21', '21'],
    ['tarn-40', 'zone.{zone}.response', '22x', null],
    ['tarn-40', 'zone.{zone}.serial', '20417733', '20417733'],
    ['tarn-40', 'zone.{zone}.serial', '2041 7733', null],
    ['tarn-40', 'zone.{zone}.serial', '2041773', null],
    // Sallow: minutes and seconds run together.
    ['sallow-m', 'system.entry1', '130', '90'],
    ['sallow-m', 'system.entry1', '45', '45'],
    ['sallow-m', 'system.entry1', '5', '5'],
    ['sallow-m', 'system.entry1', '500', '300'],
    ['sallow-m', 'system.entry1', '505', null],
    ['sallow-m', 'system.entry1', '160', null],
    ['sallow-m', 'system.entry1', '131', null],
    ['sallow-m', 'system.entry1', '59', null],
    ['sallow-m', 'system.entry1', '00130', null],
    ['sallow-m', 'system.entry1', '', null],
  ])('%s %s: %s', (panel, template, typed, value) => {
    const { read } = at(panel, template)
    expect(read(typed)).toBe(value)
  })

  it.each<[panel: string, template: string, value: string, keyed: string | null]>([
    ['tarn-40', 'system.entry1', '45', '45'],
    ['tarn-40', 'system.entry1', '045', null],
    ['tarn-40', 'system.entry1', '47', null],
    ['sallow-m', 'system.entry1', '90', '130'],
    ['sallow-m', 'system.entry1', '65', '105'],
    ['sallow-m', 'system.entry1', '60', '100'],
    ['sallow-m', 'system.entry1', '45', '45'],
    ['sallow-m', 'system.entry1', '305', null],
    ['sallow-m', 'system.entry1', '9x', null],
    ['quillet-32', 'zone.{zone}.chime', 'say', 'say it'],
    ['quillet-32', 'zone.{zone}.chime', 'off', 'off'],
    ['quillet-32', 'zone.{zone}.chime', 'sing', null],
    ['pinfold-16', 'zone.{zone}.report', 'on', '1'],
    ['pinfold-16', 'zone.{zone}.report', 'off', '0'],
    ['pinfold-16', 'zone.{zone}.report', '1', null],
  ])('%s %s: keys of %s', (panel, template, value, keyed) => {
    expect(at(panel, template).keyed(value)).toBe(keyed)
  })

  it('an exit delay by the unit that the memory has', () => {
    const units = (unit: string) =>
      at('pinfold-16', 'system.exit', (address) => (address === 'system.exitUnit' ? unit : ''))
    expect([units('off').read('61'), units('off').read('4')]).toEqual(['61', null])
    expect([units('on').read('61'), units('on').read('4')]).toEqual([null, '4'])
    expect([units('off').takes, units('on').takes]).toEqual(['5 to 90', '1 to 60'])
  })
})

describe('values as a display names them', () => {
  it.each<[panel: string, template: string, value: string, shows: string]>([
    ['tarn-40', 'zone.{zone}.response', '21', 'Way in, first delay'],
    ['tarn-40', 'zone.{zone}.response', '99', '99'],
    ['sallow-m', 'system.entry1', '65', '1:05'],
    ['sallow-m', 'system.entry1', '600', '10:00'],
    ['sallow-m', 'system.entry1', '5', '0:05'],
    ['quillet-32', 'zone.{zone}.chime', 'two', 'two'],
  ])('%s %s: %s', (panel, template, value, shows) => {
    expect(at(panel, template).shows(value)).toBe(shows)
  })

  it.each<[panel: string, template: string, shown: string, value: string | null]>([
    ['tarn-40', 'zone.{zone}.response', 'Way in, first delay', '21'],
    ['tarn-40', 'zone.{zone}.response', 'Way in', null],
    ['tarn-40', 'system.entry1', '45', '45'],
    ['tarn-40', 'system.entry1', '045', null],
    ['sallow-m', 'system.entry1', '1:05', '65'],
    ['sallow-m', 'system.entry1', '1:07', null],
    ['sallow-m', 'system.entry1', '105', null],
    ['sallow-m', 'system.entry1', '1:5', null],
    ['sallow-m', 'system.entry1', '101:05', null],
    ['sallow-m', 'system.entry1', '1:65', null],
  ])('%s %s: %s', (panel, template, shown, value) => {
    expect(at(panel, template).stored(shown)).toBe(value)
  })

  it('words of the list by their numbers, up to as many as it takes', () => {
    const words = at('tarn-40', 'zone.{zone}.label')
    const numbers = words.stored('Front Door') ?? expect.fail('not in the list')
    expect(numbers).toMatch(/^\d+ \d+$/)
    expect(words.shows(numbers)).toBe('Front Door')
    expect([words.read(numbers), words.keyed(numbers)]).toEqual([numbers, numbers])
    const [one = ''] = numbers.split(' ')
    const rule = catalogue.get('panel', 'panel/tarn-40')?.label
    const most = rule?.style === 'library' ? rule.entries : expect.fail('no list')
    expect(words.read(Array(most).fill(one).join(' '))).not.toBeNull()
    expect(
      words.read(
        Array(most + 1)
          .fill(one)
          .join(' '),
      ),
    ).toBeNull()
    expect([words.read('4 xyz'), words.stored('Käsekammer'), words.stored('')]).toEqual([null, null, null])
    expect(words.shows('xyz')).toBe('xyz')
    expect(words.takes).toBe(`up to ${most} words of its list`)
  })

  it('a text in the signs that the panel has, up to its length', () => {
    const text = at('morrow-60', 'zone.{zone}.label')
    const rule = catalogue.get('panel', 'panel/morrow-60')?.label
    const most = rule?.style === 'text' ? rule.length : expect.fail('no text')
    expect(text.read('FRONT DOOR')).toBe('FRONT DOOR')
    expect(text.read('A'.repeat(most))).not.toBeNull()
    expect([text.read('A'.repeat(most + 1)), text.read('   '), text.read('')]).toEqual([null, null, null])
    expect(text.read('FRONT~DOOR')).toBeNull()
    expect(text.takes).toBe(`up to ${most} signs that it has`)
  })
})

describe('what an address takes, in words', () => {
  it.each<[panel: string, template: string, takes: string | RegExp]>([
    ['tarn-40', 'system.entry1', '5 to 240 in steps of 5'],
    ['morrow-60', 'system.exit', '3 to 17'],
    ['sallow-m', 'system.entry1', '5 to 300 in steps of 5, in seconds'],
    ['tarn-40', 'system.swinger', '0 to 9'],
    ['tarn-40', 'zone.{zone}.serial', /^an ID of Wren( or |$)/],
    ['quillet-32', 'zone.{zone}.chime', 'off, one, two, say it'],
  ])('%s %s', (panel, template, takes) => {
    expect(at(panel, template).takes).toMatch(takes instanceof RegExp ? takes : new RegExp(`^${takes}$`))
  })

  it('is nothing where the panel has no such field', () => {
    const { panel } = demoPanel('pinfold-16')
    const abort = valuesOf({ kind: 'stated', of: 'abort' }, { panel, families: [] })(nothing)
    expect([abort.takes, abort.read('30'), abort.list]).toEqual(['nothing', null, []])
    const { swinger: _, ...without } = panel
    const trips = valuesOf({ kind: 'stated', of: 'swinger' }, { panel: without, families: [] })(nothing)
    expect([trips.takes, trips.read('3')]).toEqual(['nothing', null])
  })

  it('lists the panel’s own types and kinds in its order', () => {
    const { panel } = demoPanel('ostler-s-8')
    expect(at('ostler-s-8', 'zone.{zone}.response').list.map(({ value, shows }) => [value, shows])).toEqual(
      panel.responseTypes.map(({ code, name }) => [code, name]),
    )
    const { panel: sallow } = demoPanel('sallow-m')
    expect(at('sallow-m', 'zone.{zone}.equipmentKind').list.map(({ shows }) => shows)).toEqual(
      sallow.equipment.kinds.map(({ name }) => name),
    )
    expect(at('tarn-40', 'system.entry1').list).toEqual([])
  })
})

describe('what memories hold together', () => {
  it('is what the first of them has, nothing included', () => {
    const is = heldIn(
      new Map([['a', '']]),
      new Map([
        ['a', '1'],
        ['b', '2'],
      ]),
    )
    expect([is('a'), is('b'), is('c')]).toEqual(['', '2', ''])
  })
})
