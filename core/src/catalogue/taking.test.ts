import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { catalogue } from '../testing/small-job.ts'
import { sameJson } from '../units/canonical.ts'
import { runs } from '../testing/runs.ts'
import { Catalogue } from './catalogue.ts'
import { comparePack, readPack, writePack } from './pack.ts'
import { pointersOf, withNeeded } from './pointers.ts'
import { differingFacts } from './describe.ts'
import type { CatalogueEntry } from './schema.ts'
import { proposedChoices, restingOn, taken, takeChoices, type TakeChoice } from './taking.ts'
import { keepEntry, type KeptEntry } from './written.ts'

const kept = (id: string): KeptEntry => catalogue.kept.find(({ entry }) => entry.id === id) ?? expect.fail(id)
/** Another firm's entry of an id. */
const theirs = (id: string): KeptEntry =>
  keepEntry({ ...kept(id).entry, version: 'theirs' } as CatalogueEntry)
const only = (...ids: string[]): Catalogue => new Catalogue(ids.map(kept))
const idsOf = (entries: readonly KeptEntry[]) => entries.map(({ entry }) => entry.id)

describe('what a pack must have with it', () => {
  it.each([
    // A contact needs its family alone; one that is no longer made its successor, too.
    [['device/reedling'], ['device/reedling', 'family/wren']],
    [['device/reedling-old'], ['device/reedling', 'device/reedling-old', 'family/wren']],
    [['family/wren'], ['family/wren']],
    [[], []],
    [['device/nobody'], []],
  ])('%j: %j', (ids, needed) => {
    expect(withNeeded(catalogue, ids)).toEqual(needed)
  })

  it('of each entry of the world can be read where nothing else is known', () => {
    for (const { id } of catalogue.entries) {
      const needed = withNeeded(catalogue, [id]).map(kept)
      expect([id, readPack(JSON.parse(writePack('x', needed))).ok]).toEqual([id, true])
      // And no fewer would do: all but itself are pointed at by another.
      const pointedAt = new Set(needed.flatMap(({ entry }) => pointersOf(entry).map(([, target]) => target)))
      expect(idsOf(needed).filter((one) => one !== id && !pointedAt.has(one))).toEqual([])
    }
  })

  it('ends where two lead to each other', () => {
    const one = {
      ...kept('device/reedling-old').entry,
      id: 'device/one',
      discontinued: { successor: 'device/two' },
    }
    const two = { ...one, id: 'device/two', discontinued: { successor: 'device/one' } }
    const ring = new Catalogue([
      ...catalogue.kept,
      ...[one, two].map((entry) => keepEntry(entry as CatalogueEntry)),
    ])
    expect(withNeeded(ring, ['device/one'])).toEqual(['device/one', 'device/two', 'family/wren'])
  })
})

describe('a pack whose ids are there with other content', () => {
  const pack = [theirs('family/wren'), kept('device/reedling'), theirs('device/wick'), kept('family/plover')]
  const own = only('family/wren', 'family/plover', 'device/wick')
  const changes = comparePack(pack, own)

  it('is proposed to leave one’s own alone, and to keep both where what comes new rests on theirs', () => {
    expect(Object.fromEntries(restingOn(changes))).toEqual({ 'family/wren': ['Reedling contact'] })
    expect(proposedChoices(changes)).toEqual({ 'family/wren': 'both', 'device/wick': 'mine' })
  })

  it('mixes nothing as proposed: what comes new points at theirs under its new id, one’s own at one’s own', () => {
    const { entries, renamed, open } = taken(changes, proposedChoices(changes), {
      ids: new Set(idsOf(own.kept)),
      mark: 'Harl Alarms',
    })
    expect(open).toEqual([])
    expect([...renamed]).toEqual([['family/wren', 'family/wren-2']])
    expect(entries.map(({ entry }) => [entry.id, entry.name])).toEqual([
      ['family/wren-2', 'Wren (Harl Alarms)'],
      ['device/reedling', 'Reedling contact'],
      ['family/plover', 'Plover'],
    ])
    const after = own.with(entries)
    expect(after.get('device', 'device/reedling')?.family).toBe('family/wren-2')
    expect(after.get('device', 'device/wick')?.family).toBe('family/wren')
    expect(after.hash('family/wren')).toBe(kept('family/wren').hash)
    expect(after.get('family', 'family/wren-2')?.version).toBe('theirs')
    // What was not written anew keeps its hash.
    expect(after.hash('family/plover')).toBe(kept('family/plover').hash)
    expect(after.hash('device/reedling')).not.toBe(kept('device/reedling').hash)
  })

  it('takes theirs or leaves mine where that is chosen, and tells what nobody chose', () => {
    const at = (choices: Record<string, TakeChoice>) =>
      taken(changes, choices, { ids: new Set(idsOf(own.kept)), mark: 'x' })
    expect(idsOf(at({ 'family/wren': 'theirs', 'device/wick': 'mine' }).entries)).toEqual([
      ...['family/wren', 'device/reedling', 'family/plover'],
    ])
    expect(at({ 'family/wren': 'mine', 'device/wick': 'theirs' }).entries.map(({ hash }) => hash)).toEqual([
      ...[kept('device/reedling').hash, theirs('device/wick').hash, kept('family/plover').hash],
    ])
    expect(at({ 'family/wren': 'mine' }).open).toEqual(['device/wick'])
    // A name that every object answers to is no choice.
    expect(at({}).open).toEqual(['family/wren', 'device/wick'])
  })

  it('gives an id that neither side has, also to a long one', () => {
    const long = `device/${'a'.repeat(60)}`
    const mine = keepEntry({ ...kept('device/reedling').entry, id: long } as CatalogueEntry)
    const other = keepEntry({ ...mine.entry, note: 'theirs' } as CatalogueEntry)
    const second = keepEntry({ ...mine.entry, id: `device/${'a'.repeat(58)}-2` } as CatalogueEntry)
    const { renamed, entries } = taken(
      comparePack([other], new Catalogue([mine])),
      { [long]: 'both' },
      {
        ids: new Set([long, second.entry.id]),
        mark: 'A firm whose name has a great many letters in it, and goes on',
      },
    )
    expect(renamed.get(long)).toBe(`device/${'a'.repeat(58)}-3`)
    expect(entries[0]?.entry.name).toBe('Reedling contact (A firm whose name has a great many lette)')
    expect(readPack(JSON.parse(writePack('x', entries)), catalogue.entries).ok).toBe(true)
  })

  it('of a receiver, a panel and an interface: all that points at what is given anew is written anew', () => {
    const ids = withNeeded(catalogue, ['panel/tarn-40'])
    const changed = comparePack(ids.map(theirs), only(...ids))
    const choices = Object.fromEntries(ids.map((id) => [id, 'both' as const]))
    const { entries, renamed } = taken(changed, choices, { ids: new Set(ids), mark: 'Harl' })
    expect(renamed.size).toBe(ids.length)
    for (const { entry } of entries)
      for (const [field, target] of pointersOf(entry))
        expect([entry.id, field, target.endsWith('-2')]).toEqual([...[entry.id, field, true]])
    expect(readPack(JSON.parse(writePack('x', entries))).ok).toBe(true)
  })

  it('turns an equipment code to the panel that it was written for, though nothing else of the device is given anew', () => {
    const coded = keepEntry({
      ...{ ...kept('device/wick').entry, id: 'device/coded' },
      equipmentCodes: [{ panel: 'panel/tarn-40', code: '318' }],
    } as CatalogueEntry)
    const there = only(...withNeeded(catalogue, ['panel/tarn-40']))
    const { entries } = taken(
      comparePack([theirs('panel/tarn-40'), coded], there),
      { 'panel/tarn-40': 'both' },
      { ids: new Set(idsOf(there.kept)), mark: 'Harl' },
    )
    expect(entries.find(({ entry }) => entry.id === 'device/coded')?.entry).toMatchObject({
      ...{ family: 'family/wren', equipmentCodes: [{ panel: 'panel/tarn-40-2', code: '318' }] },
    })
  })

  it('whatever is chosen: what was there and is not replaced reads as before, and all that comes can be read', () => {
    const all = catalogue.kept.map(({ entry }) => entry.id)
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom(...all), { minLength: 1, maxLength: 12 }),
        fc.uniqueArray(fc.constantFrom(...all), { minLength: 1, maxLength: 12 }),
        fc.infiniteStream(fc.constantFrom('same', 'changed')),
        fc.infiniteStream(fc.constantFrom(...takeChoices)),
        (mine, sent, state, choose) => {
          const there = only(...withNeeded(catalogue, mine))
          const bring = withNeeded(catalogue, sent).map((id) =>
            state.next().value === 'same' ? kept(id) : theirs(id),
          )
          const compared = comparePack(bring, there)
          const choices = Object.fromEntries(
            compared.map(({ entry }) => [entry.entry.id, choose.next().value]),
          )
          const { entries, renamed, open } = taken(compared, choices, {
            ids: new Set(idsOf(there.kept)),
            mark: 'Harl',
          })
          expect(open).toEqual([])
          expect(
            entries.length === 0 || readPack(JSON.parse(writePack('x', entries)), there.entries).ok,
          ).toBe(true)
          const after = there.with(entries)
          for (const { entry, hash } of there.kept)
            if (choices[entry.id] !== 'theirs' || !compared.some((one) => one.entry.entry.id === entry.id))
              expect([entry.id, after.hash(entry.id)]).toEqual([entry.id, hash])
          // Of what is kept beside one's own, nothing that came points at one's own.
          const own = new Set(there.kept.map(({ hash }) => hash))
          for (const { entry, hash } of entries)
            if (!own.has(hash))
              for (const [, target] of pointersOf(entry)) expect(renamed.has(target)).toBe(false)
        },
      ),
      { numRuns: runs(300), seed: 5 },
    )
  })
})

describe('facts that differ', () => {
  const one = kept('device/wick').entry
  const as = (over: object) => differingFacts(one, { ...one, ...over } as CatalogueEntry, catalogue)

  it('are named as the catalogue names them; where an answer was read is none', () => {
    expect(as({ name: 'Other', maker: 'Somebody', version: '9' })).toEqual(['Name', 'Maker', 'Version'])
    expect(as({ needsTwoWay: true })).toEqual(['Needs a receiver that answers'])
    expect(as({ sources: [{ asked: 'Its loops', from: 'leaflet' }] })).toEqual([])
  })

  it('of every field of every entry of the world', () => {
    const other = (value: unknown): unknown => {
      if (typeof value === 'boolean') return !value
      if (typeof value === 'number') return value + 1
      if (typeof value === 'string') return `${value}x`
      if (Array.isArray(value)) return value.slice(1)
      if (typeof value !== 'object' || value === null) return 7
      return Object.fromEntries(Object.entries(value).map(([key, item]) => [key, other(item)]))
    }
    for (const { entry } of catalogue.kept)
      for (const [field, value] of Object.entries(entry)) {
        const changed = {
          ...entry,
          [field]: Array.isArray(value) && value.length === 0 ? ['x'] : other(value),
        }
        if (['id', 'kind', 'sources', 'regions'].includes(field) || sameJson(entry, changed)) continue
        if (!readable(changed)) continue
        expect([
          entry.id,
          field,
          differingFacts(entry, changed as CatalogueEntry, catalogue).length > 0,
        ]).toEqual([...[entry.id, field, true]])
      }
  })
})

/** Whether a changed entry is one at all: others never come in. */
function readable(entry: object): boolean {
  return readPack({ kapellePack: 7, title: 'x', entries: [entry] }, catalogue.entries).ok
}
