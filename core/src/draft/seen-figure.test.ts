import { describe, expect, it } from 'vitest'
import type { CatalogueEntry, DeviceModel, Family } from '../catalogue/schema.ts'
import { proofRules, type ProofKind } from '../proof/table.ts'
import { catalogue } from '../testing/small-job.ts'
import { draftEntry } from './entry.ts'
import { draftInfo, draftKernel } from './records.ts'
import { correctionBy, figureProblem, figuresSeenAt } from './seen-figure.ts'

const device = (id: string): DeviceModel => catalogue.get('device', `device/${id}`) ?? expect.fail(id)
const family = (id: string | null): Family => catalogue.get('family', id) ?? expect.fail(String(id))
const kinds = Object.keys(proofRules) as ProofKind[]
const paths = (kind: ProofKind, model: DeviceModel) =>
  figuresSeenAt(kind, { model, family: catalogue.get('family', model.family) }, catalogue).map(
    ({ path }) => path,
  )

/** What comes of a correction, or every problem that it has. */
function corrected(entry: DeviceModel | Family, path: string, value: number): CatalogueEntry {
  const ops = correctionBy(entry, { path, value: () => value, source: 'seen at Mill' }, catalogue)
  const begun = draftKernel.applyOps(draftKernel.empty, ops)
  if (!begun.ok) throw new Error(entry.id)
  expect(draftInfo(begun.doc)?.corrects).toBe(entry.id)
  const { kept, problems, missing } = draftEntry(begun.doc, catalogue)
  expect([entry.id, problems, missing]).toEqual([entry.id, [], []])
  return kept?.entry ?? expect.fail()
}

describe('what is seen at a proof', () => {
  it('is of a radio motion how long it sleeps, where it is tripped, and of nothing else', () => {
    for (const model of catalogue.all('device'))
      for (const kind of kinds.filter((one) => one !== 'placement' && one !== 'average')) {
        const sleeps = model.class === 'motion' && model.family !== null && ['armed', 'walk'].includes(kind)
        expect([model.id, kind, paths(kind, model)]).toEqual([
          model.id,
          kind,
          sleeps ? ['sleepsSeconds'] : [],
        ])
      }
  })

  it('is at a reading from where on a link of the family holds and is good; of a wired device nothing', () => {
    for (const model of catalogue.all('device'))
      for (const kind of ['placement', 'average'] as const)
        expect(paths(kind, model)).toEqual(model.family ? ['placement.best', 'placement.least'] : [])
  })

  it('says what the entry says, in its unit, and what it does not state', () => {
    const [figure] = figuresSeenAt('armed', { model: device('stilt'), family: null }, catalogue)
    expect(figure).toMatchObject({ unit: 's', stated: device('stilt').sleepsSeconds ?? null })
    const { sleepsSeconds: _sleeps, ...open } = device('stilt')
    expect(figuresSeenAt('armed', { model: open, family: null }, catalogue)[0]?.stated).toBeNull()
    const read = figuresSeenAt('placement', { model: null, family: family('family/curlew-8') }, catalogue)
    // Curlew 8 reads in per cent: best from 70, holds from 40.
    expect(read.map(({ unit, stated }) => [unit, stated])).toEqual([
      ['%', 70],
      ['%', 40],
    ])
  })

  it('is refused as an answer would be', () => {
    const [figure] = figuresSeenAt('armed', { model: device('stilt'), family: null }, catalogue)
    if (!figure) throw new Error('no figure')
    expect(figureProblem(figure, 200, catalogue)).toBe('')
    expect(figureProblem(figure, 0, catalogue)).toContain('1 to 3600')
    expect(figureProblem(figure, 1.5, catalogue)).toContain('whole number')
  })
})

describe('a figure that was seen goes back to its entry', () => {
  it.each(catalogue.all('device').filter(({ class: of, family: by }) => of === 'motion' && by !== null))(
    '$id, with what else it says as it was',
    (model) => {
      const { sources, ...entry } = corrected(model, 'sleepsSeconds', 77)
      const { sources: _sources, ...before } = model
      expect(entry).toEqual({ ...before, version: entry.version, sleepsSeconds: 77 })
      expect(entry.version).not.toBe(model.version)
      expect(sources?.find(({ path }) => path === 'sleepsSeconds')?.from).toBe('seen at Mill')
    },
  )

  it.each(catalogue.all('family'))('$id, with what else it says as it was', (of) => {
    for (const end of ['best', 'least'] as const) {
      const { sources, ...entry } = corrected(of, `placement.${end}`, 3)
      const { sources: _sources, ...before } = of
      expect(entry).toEqual({ ...before, version: entry.version, placement: { ...of.placement, [end]: 3 } })
      expect(sources?.map(({ from }) => from)).toContain('seen at Mill')
    }
  })

  it('keeps of where it was seen what a source can hold', () => {
    const ops = correctionBy(
      device('stilt'),
      { path: 'sleepsSeconds', value: () => 9, source: 'x'.repeat(90) },
      catalogue,
    )
    expect(ops.at(-1)).toMatchObject({ op: 'set', field: 'source', to: 'x'.repeat(80) })
  })
})
