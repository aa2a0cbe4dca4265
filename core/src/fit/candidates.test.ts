import { describe, expect, it } from 'vitest'
import { Catalogue } from '../catalogue/catalogue.ts'
import type { PanelModel } from '../catalogue/schema.ts'
import { keepEntry } from '../catalogue/written.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { systemOf } from '../system/system.ts'
import { rankPanels, subsets, systemWithPanel, type PanelChoice } from './candidates.ts'

const panelOf = (name: string): PanelModel => catalogue.get('panel', `panel/${name}`) ?? expect.fail(name)
/** The catalogue with these panels alone. */
const only = (...panels: readonly PanelModel[]): Catalogue =>
  new Catalogue([...catalogue.kept.filter(({ entry }) => entry.kind !== 'panel'), ...panels.map(keepEntry)])
const ranked = (job: SmallJob, among: Catalogue = catalogue): PanelChoice[] =>
  rankPanels(systemOf(job.doc, among), among)
const names = (choices: readonly PanelChoice[]): string[] => choices.map(({ panel }) => panel.name)
const choice = (job: SmallJob, name: string): PanelChoice =>
  ranked(job).find(({ panel }) => panel.name === name) ?? expect.fail(name)

describe('the system as if it had another panel', () => {
  it('has its built-in receiver and those of the job that it takes', () => {
    const job = new SmallJob({ panel: 'panel/sallow-m', radioFirmware: null }).receiver('sallow-bridge')
    const system = systemOf(job.doc, catalogue)
    const on = (panel: PanelModel) =>
      systemWithPanel(system, catalogue, panel).receivers.map(({ id, model }) => [id, model.name])
    expect(on(panelOf('tarn-40'))).toEqual([['built-in', 'Tarn radio']])
    const sister = { ...panelOf('sallow-m'), id: 'panel/sister' }
    expect(on(sister)).toEqual([
      ['built-in', catalogue.get('receiver', sister.builtIn)?.name],
      ['receiver:sallow-bridge', 'Sallow bridge'],
    ])
    expect(on({ ...sister, builtIn: null })).toEqual([['receiver:sallow-bridge', 'Sallow bridge']])
    expect(systemWithPanel(system, catalogue, panelOf('sallow-m'))).toBe(system)
    expect(systemWithPanel(system, catalogue, panelOf('tarn-40')).info).toMatchObject({
      panel: 'panel/tarn-40',
      radioFirmware: '1.31',
    })
  })
})

describe('what a panel loses', () => {
  it('is a kind of alarm that it has no type for, of zones and not of fobs', () => {
    const job = new SmallJob({ grade: 1 }).add('kitchen', 'wick').add('fob', 'quartet', { room: '' })
    expect(choice(job, 'Pinfold 16').loses).toContain('has no gas type')
    expect(choice(job, 'Tarn 40').loses).toEqual([])
    // A fob's buttons are commands; a panel that stores fobs in slots needs no type for them.
    const fob = new SmallJob().add('fob', 'quartet', { room: '' })
    expect(choice(fob, 'Tarn 40').loses).toEqual([])
  })

  it('is the region, the grade where grades count, and labels', () => {
    const job = (region: 'europe' | 'north-america' | 'own', grade: 1 | 2 | 3) =>
      new SmallJob({ panel: null, radioFirmware: null, region, grade }).add('porch', 'reedling')
    expect(choice(job('europe', 1), 'Pinfold 16').loses).toEqual([
      'shows no labels: a card beside the keypad',
    ])
    expect(choice(job('europe', 2), 'Pinfold 16').loses).toContain('is grade 1, the job grade 2')
    expect(choice(job('europe', 2), 'Tarn 40').loses).toEqual([])
    expect(choice(job('europe', 3), 'Tarn 40').loses).toEqual(['is grade 2, the job grade 3'])
    expect(choice(job('europe', 2), 'Morrow 60').loses).toEqual([
      'is not made for this region',
      'states no grade, the job is grade 2',
    ])
    // Grades of EN 50131 are no matter in North America, nor with figures of one's own.
    expect(choice(job('north-america', 3), 'Morrow 60').loses).toEqual([])
    expect(choice(job('own', 3), 'Tarn 40').loses).toEqual([])
    expect(choice(job('own', 3), 'Morrow 60').loses).toEqual([])
  })

  it('is what the present panel can and the other cannot: areas, a night mode, holding an alarm', () => {
    const from = (name: string, to: string) =>
      choice(new SmallJob({ panel: `panel/${name}`, radioFirmware: null, region: 'own', grade: 1 }), to).loses
    // Ostler: 4 areas, a night mode, a hold; Tarn: one area, neither night; it can hold.
    expect(from('ostler-s-8', 'Tarn 40')).toEqual(['has 1 areas instead of 4', 'has no night mode'])
    expect(from('tarn-40', 'Ostler S 8')).toEqual([])
    expect(from('ostler-s-8', 'Ostler S 9')).toEqual([])
    expect(from('ostler-s-8', 'Ostler S 8')).toEqual([])
    expect(from('tarn-40', 'Pinfold 16')).toContain('cannot hold an alarm before it is sent')
    expect(from('pinfold-16', 'Tarn 40')).toEqual(['has 1 areas instead of 2'])
  })
})

describe('the order of panels', () => {
  const plain = panelOf('tarn-40')
  const like = (name: string, over: Partial<PanelModel> = {}): PanelModel => ({
    ...plain,
    // Without codes of equipment: the kit has none for made-up panels.
    equipment: { code: false, kinds: [] },
    id: `panel/${name.toLowerCase()}`,
    name,
    ...over,
  })
  const kit = (): SmallJob =>
    new SmallJob({ panel: null, radioFirmware: null, region: 'own' }).add('a', 'reedling').add('b', 'stilt')

  it('is by name where nothing else tells them apart', () => {
    expect(names(ranked(kit(), only(like('Beta'), like('Alpha'), like('Gamma'))))).toEqual([
      'Alpha',
      'Beta',
      'Gamma',
    ])
  })

  it('is the one with more room, and before that the one that needs no receiver more', () => {
    const small = like('Alpha', { blocks: [{ use: 'wireless', from: 1, to: 20, optional: false }] })
    expect(names(ranked(kit(), only(small, like('Beta'))))).toEqual(['Beta', 'Alpha'])
    const bare = like('Able', {
      builtIn: null,
      receivers: ['receiver/tarn-radio'],
      blocks: [{ use: 'wireless', from: 1, to: 90, optional: false }],
    })
    expect(names(ranked(kit(), only(bare, small)))).toEqual(['Alpha', 'Able'])
  })

  it('is the one that takes more, whatever its room', () => {
    const deaf = like('Alpha', { builtIn: 'receiver/quillet-radio', receivers: ['receiver/quillet-radio'] })
    const choices = ranked(kit(), only(deaf, like('Beta')))
    expect(choices.map(({ panel, countsThen }) => [panel.name, countsThen.no])).toEqual([
      ['Beta', 0],
      ['Alpha', 2],
    ])
  })

  it('puts what nobody can tell behind a loss that is known, and a loss behind what fits', () => {
    const job = new SmallJob({ panel: null, radioFirmware: null, region: 'own', kind: 'takeover' })
    job.add('fob', 'quartet', { room: '' }).add('door', 'reedling-c')
    // A takeover's firmware is not read: the Wren C contact cannot be told on the Tarn. A panel without that question takes it.
    const choices = ranked(job, only(like('Alpha')))
    expect(choices[0]?.counts).toEqual({ works: 0, loss: 1, no: 0, unknown: 1 })
    const hears = catalogue.get('receiver', 'receiver/tarn-radio') ?? expect.fail('no radio')
    const sure = keepEntry({
      ...hears,
      id: 'receiver/sure',
      hears: hears.hears.map((one) => ({ ...one, fromFirmware: null })),
    })
    const known = like('Beta', { builtIn: 'receiver/sure', receivers: ['receiver/sure'] })
    const among = only(like('Alpha'), known).with([sure])
    expect(names(ranked(job, among))).toEqual(['Beta', 'Alpha'])
  })
})

describe('the room that is left', () => {
  it('counts numbers of zones once, optional boards not, and what does not fit takes none', () => {
    const job = cleanTarn().add('yard', 'herald-8')
    const left = choice(job, 'Tarn 40').left
    // 42 numbers; door, window, motion, glass, CO, pendant one each and three of the smoke detector: nine. One of eight fobs.
    expect(left).toEqual({ zones: 33, fobs: 7, keypads: 4, sirens: 1 })
    const keypad = new SmallJob().add('pad', 'tapwell', { room: 'hall' })
    expect(choice(keypad, 'Tarn 40').left).toMatchObject({ zones: 42, keypads: 3, fobs: 8 })
    const wired = new SmallJob().add('horn', 'horn-w')
    expect(choice(wired, 'Tarn 40').left.sirens).toBe(0)
  })

  it('says which is the present one', () => {
    expect(
      ranked(cleanTarn())
        .filter(({ current }) => current)
        .map(({ panel }) => panel.name),
    ).toEqual(['Tarn 40'])
    expect(ranked(new SmallJob({ panel: null })).some(({ current }) => current)).toBe(false)
  })
})

it('all sets of a list, smaller ones first', () => {
  expect(subsets(['a', 'b', 'c'])).toEqual([
    [],
    ['a'],
    ['b'],
    ['c'],
    ['a', 'b'],
    ['a', 'c'],
    ['b', 'c'],
    ['a', 'b', 'c'],
  ])
  expect(subsets([])).toEqual([[]])
})
