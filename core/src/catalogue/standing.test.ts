import { describe, expect, it } from 'vitest'
import { catalogue } from '../testing/small-job.ts'
import { Catalogue } from './catalogue.ts'
import { closureOf } from './closure.ts'
import {
  catalogueActInput,
  isRecalled,
  offeredTo,
  openRecalls,
  standingsOf,
  unofferedNeeds,
  type CatalogueAct,
  type Recall,
} from './standing.ts'

let count = 0
const said = (kind: 'offer' | 'practice' | 'retire', entryId: string): CatalogueAct => ({
  ...{ kind, entryId, why: 'because', by: 'Ann', at: '2026-05-04T10:00:00.000Z' },
  id: `a${(count += 1)}`,
})
const recall = (over: Partial<Recall>): Recall => ({
  ...{ kind: 'recall', entryId: 'device/reedling', why: 'it sticks', by: 'Ann', id: 'r1' },
  ...{ at: '2026-05-04T10:00:00.000Z', serials: null, years: null, ...over },
})
const real = { practice: false }
const practice = { practice: true }

describe('how entries stand', () => {
  it('is what was said last, and offered where nobody said anything', () => {
    const acts = [
      said('retire', 'device/reedling'),
      said('offer', 'device/reedling'),
      said('practice', 'device/stilt'),
    ]
    expect([...standingsOf(acts)].map(([id, { state, act }]) => [id, state, act?.kind])).toEqual([
      ['device/reedling', 'offered', 'offer'],
      ['device/stilt', 'practice', 'practice'],
    ])
    expect(offeredTo(catalogue, [], real)).toBe(catalogue)
  })

  it('a real job is offered neither what is for practice nor what is retired, a practice job the former', () => {
    const acts = [said('retire', 'device/reedling'), said('practice', 'device/stilt')]
    const ids = (job: { practice: boolean }) =>
      new Set(offeredTo(catalogue, acts, job).entries.map(({ id }) => id))
    expect([ids(real).has('device/reedling'), ids(real).has('device/stilt')]).toEqual([false, false])
    expect([ids(practice).has('device/reedling'), ids(practice).has('device/stilt')]).toEqual([false, true])
    expect(ids(real).size).toBe(catalogue.entries.length - 2)
  })

  it.each(catalogue.entries.map(({ id }) => [id]))(
    'with %s retired every other one can still be read',
    (id) => {
      const left = offeredTo(catalogue, [said('retire', id)], real)
      const others = catalogue.entries.filter((entry) => entry.id !== id)
      for (const needed of closureOf(
        catalogue,
        others.map((entry) => entry.id),
      ))
        expect([needed, left.has(needed)]).toEqual([needed, true])
      // It stays itself only where another one cannot be read without it.
      expect(left.has(id)).toBe(
        closureOf(
          catalogue,
          others.map((entry) => entry.id),
        ).includes(id),
      )
    },
  )

  it('a whole world for practice leaves a real job nothing', () => {
    const acts = catalogue.entries.map(({ id }) => said('practice', id))
    expect(offeredTo(catalogue, acts, real).entries).toEqual([])
    expect(offeredTo(catalogue, acts, practice)).toBe(catalogue)
  })
})

describe('what a real job would get through an entry', () => {
  const kept = (id: string) => catalogue.kept.find(({ entry }) => entry.id === id) ?? expect.fail(id)
  const needs = (id: string, acts: readonly CatalogueAct[], among = catalogue) =>
    unofferedNeeds(kept(id), among, acts).map(({ entry, state }) => [entry.id, state])
  const panel = catalogue.all('panel').find((one) => one.builtIn !== null)
  const builtIn = panel?.builtIn ?? expect.fail('no built-in receiver')
  const [heard] = catalogue.get('receiver', builtIn)?.hears ?? []

  it.each(catalogue.all('device').map(({ id, family }) => [id, family]))(
    'is the family of %s where that is for practice or retired, and nothing where it is offered',
    (id, family) => {
      expect(needs(id, [])).toEqual([])
      for (const [kind, state] of [
        ['practice', 'practice'],
        ['retire', 'retired'],
      ] as const)
        expect(needs(id, [said(kind, family ?? id)])).toEqual(family ? [[family, state]] : [])
      // Offered again, and where it is itself kept from real jobs, nothing is odd.
      if (family) expect(needs(id, [said('retire', family), said('offer', family)])).toEqual([])
      expect(needs(id, [said('practice', id), ...(family ? [said('practice', family)] : [])])).toEqual([])
    },
  )

  it('goes on from the panel to its receiver and that one’s families', () => {
    const family = heard?.family ?? expect.fail('it hears nothing')
    expect(needs(panel?.id ?? '', [said('practice', builtIn), said('retire', family)])).toEqual(
      [
        [builtIn, 'practice'],
        [family, 'retired'],
      ].sort(),
    )
  })

  it('is told of an entry that is not in the catalogue yet, by what it would be then', () => {
    const without = new Catalogue(catalogue.kept.filter(({ entry }) => entry.id !== panel?.id))
    expect(needs(panel?.id ?? '', [said('practice', builtIn)], without)).toEqual([[builtIn, 'practice']])
  })
})

describe('a recall', () => {
  /* By ID, by year of make, or both: what decides it and is not known leaves it open. */
  const ids = { from: '0012 0000', to: '0012-9999' }
  const years = { from: 2021, to: 2022 }
  it.each<[string, Partial<Recall>, string | null, number | null, 'yes' | 'no' | 'unknown']>([
    ['the first of the IDs', { serials: ids }, '00120000', null, 'yes'],
    ['the last of the IDs', { serials: ids }, '0012 9999', null, 'yes'],
    ['the one before', { serials: ids }, '00119999', null, 'no'],
    ['the one behind', { serials: ids }, '00130000', null, 'no'],
    ['an ID of another length', { serials: ids }, '0012000', null, 'no'],
    ['a longer ID that would lie between', { serials: ids }, '001200001', null, 'no'],
    ['no ID known', { serials: ids }, null, 2021, 'unknown'],
    ['letters, small ones too', { serials: { from: 'A0', to: 'C9' } }, 'b5', null, 'yes'],
    ['the first year', { years }, null, 2021, 'yes'],
    ['the last year', { years }, null, 2022, 'yes'],
    ['the year before', { years }, '00120000', 2020, 'no'],
    ['the year behind', { years }, null, 2023, 'no'],
    ['no year known', { years }, '00120000', null, 'unknown'],
    ['both', { serials: ids, years }, '00120000', 2021, 'yes'],
    ['both, the year decides', { serials: ids, years }, '00120000', 2019, 'no'],
    ['both, the ID decides', { serials: ids, years }, '00990000', null, 'no'],
    ['both, the year not known', { serials: ids, years }, '00120000', null, 'unknown'],
  ])('%s', (_what, over, serial, madeYear, answer) => {
    expect(isRecalled(recall(over), { serial, madeYear })).toBe(answer)
  })

  it('stands until it is ended', () => {
    const one = recall({ years })
    const other = recall({ years, id: 'r2' })
    const end: CatalogueAct = {
      ...{ kind: 'end-recall', entryId: one.entryId, why: 'all changed', recall: 'r1' },
      ...{ id: 'e1', by: 'Ann', at: one.at },
    }
    expect(openRecalls([one, other, end])).toEqual([other])
    expect(openRecalls([one, said('retire', one.entryId)])).toEqual([one])
  })

  it.each<[string, unknown]>([
    ['IDs alone', { serials: { from: ' 2041 0000 ', to: '2041-9999' }, years: null }],
    ['one ID', { serials: { from: '20410000', to: '20410000' }, years: null }],
    ['years alone', { serials: null, years: { from: 1980, to: 2100 } }],
    ['one year', { serials: null, years: { from: 2021, to: 2021 } }],
    ['both', { serials: { from: 'A', to: 'B'.repeat(1) }, years }],
    ['a long reason', { serials: null, years, why: 'x'.repeat(300) }],
    ['long IDs', { serials: { from: '1'.repeat(40), to: '2'.repeat(40) }, years: null }],
  ])('is taken with %s', (_what, over) => {
    const read = catalogueActInput.safeParse({
      ...{ kind: 'recall', entryId: 'device/reedling', why: ' it sticks ' },
      ...(over as object),
    })
    expect(read.success).toBe(true)
    expect(read.success && read.data.why).toBe(((over as { why?: string }).why ?? ' it sticks ').trim())
  })

  it.each<[unknown]>([
    [{ serials: { from: '', to: '1' } }],
    [{ serials: { from: '1', to: '' } }],
    [{ serials: { from: '1'.repeat(41), to: '2'.repeat(41) } }],
    [{ years: { from: 1979, to: 2000 } }],
    [{ years: { from: 2000, to: 2101 } }],
    [{ years: { from: 2000.5, to: 2001 } }],
    [{ years: { from: 2000, to: 2001 }, why: 'x'.repeat(301) }],
    [{ years: { from: 2000, to: 2001 }, entryId: 'my device/reedling' }],
    [{ years: { from: 2000, to: 2001 }, entryId: 'device/Reedling' }],
    [{ years: { from: 2000, to: 2001 }, entryId: 'device/reedling!' }],
  ])('is refused with %j', (over) => {
    const base = { kind: 'recall', entryId: 'device/reedling', why: 'x', serials: null, years: null }
    expect(catalogueActInput.safeParse({ ...base, ...(over as object) }).success).toBe(false)
    const end = { kind: 'end-recall', entryId: 'device/reedling', why: 'x', recall: 'r1' }
    expect(catalogueActInput.safeParse(end).success).toBe(true)
    const { why, entryId } = { ...end, ...(over as { why?: string; entryId?: string }) }
    const isEndFit = why === 'x' && entryId === 'device/reedling'
    expect(catalogueActInput.safeParse({ ...end, why, entryId }).success).toBe(isEndFit)
    expect(catalogueActInput.safeParse({ ...end, recall: '' }).success).toBe(false)
    expect(catalogueActInput.safeParse({ ...end, recall: 'r'.repeat(41) }).success).toBe(false)
  })

  it.each(['offer', 'practice', 'retire'] as const)('%s says why of any entry', (kind) => {
    for (const entryId of ['device/reedling', 'panel/tarn-40', 'family/wren', 'receiver/tarn-radio'])
      expect(catalogueActInput.safeParse({ kind, entryId, why: 'x'.repeat(300) }).success).toBe(true)
    const refused = [
      { kind, entryId: 'job/one', why: 'x' },
      { kind, entryId: 'device/reedling', why: ' ' },
      { kind, entryId: 'device/reedling', why: 'x'.repeat(301) },
      { kind, entryId: 'device/reedling', why: 'x', serials: null },
    ]
    expect(refused.map((one) => catalogueActInput.safeParse(one).success)).toEqual(refused.map(() => false))
  })

  it('says at which field it is wrong', () => {
    const where = (over: object) => {
      const base = { kind: 'recall', entryId: 'device/reedling', why: 'x', serials: null, years: null }
      const read = catalogueActInput.safeParse({ ...base, ...over })
      return read.success ? '' : read.error.issues.map(({ path }) => path.join('.')).join(' ')
    }
    expect(where({})).toBe('serials')
    expect(where({ serials: { from: '2', to: '1' } })).toBe('serials.to')
    expect(where({ serials: { from: '2', to: '10' } })).toContain('serials.to')
    expect(where({ years: { from: 2001, to: 2000 } })).toBe('years.to')
  })

  it.each<[string, unknown, string]>([
    ['nothing named', { serials: null, years: null }, 'must name IDs or years of make'],
    [
      'IDs the wrong way round',
      { serials: { from: '20', to: '10' }, years: null },
      'must not lie below the first ID',
    ],
    [
      'IDs of two lengths',
      { serials: { from: '20', to: '100' }, years: null },
      'must have as many characters as the first ID',
    ],
    [
      'years the wrong way round',
      { serials: null, years: { from: 2022, to: 2021 } },
      'must not lie below the first year',
    ],
    ['no reason', { serials: null, years, why: ' ' }, 'must say why, in 1 to 300 characters'],
    ['no device', { serials: null, years, entryId: 'panel/tarn-40' }, 'must be a device'],
  ])('is refused with %s', (_what, over, message) => {
    const read = catalogueActInput.safeParse({
      ...{ kind: 'recall', entryId: 'device/reedling', why: 'it sticks' },
      ...(over as object),
    })
    expect(read.success ? '' : read.error.issues.map((issue) => issue.message)).toContain(message)
  })
})
