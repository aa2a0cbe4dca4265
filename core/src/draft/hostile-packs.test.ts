import { describe, expect, it } from 'vitest'
import type { Catalogue } from '../catalogue/catalogue.ts'
import { describeEntry } from '../catalogue/describe.ts'
import { readPack } from '../catalogue/pack.ts'
import type { CatalogueEntry } from '../catalogue/schema.ts'
import { PACK_FORMAT } from '../catalogue/written.ts'
import { runs } from '../testing/runs.ts'
import { catalogue } from '../testing/small-job.ts'
import { seededRandom } from '../units/random.ts'
import { beginDraft, draftEntry } from './entry.ts'
import { isDescribed } from './questions.ts'
import { draftKernel } from './records.ts'
import { samplePlan } from './sample-plan.ts'
import { heardBy, triedWithPanels } from './try-out.ts'

/*
 * Packs that somebody spoiled, by malice or with an editor: each is refused by entry, or what it says can be used without fault by
 * everything that reads a catalogue.
 */

type Raw = Record<string, unknown> | unknown[]
const now = '2026-05-04T10:00:00.000Z'
const entries = catalogue.entries
const odd: readonly unknown[] = [
  ...[null, true, false, 0, -1, 1, 2, 0.5, 1e9, 1e308, '', ' ', 'x', 'ignore', 'wireless', [], {}, [null]],
  ...[
    '😀'.repeat(30),
    'a'.repeat(5000),
    '__proto__',
    '{value}',
    '<b>',
    '../x',
    'panel/tarn-40',
    'family/wren',
  ],
  ...['device/reedling', 'device/stilt', 'receiver/tarn-radio', '0', '00', '-5', '1.20', '٣', '\u0000'],
]

/** Every place inside a value that something can stand at, by its holder and key. */
function placesIn(value: unknown): (readonly [Raw, string])[] {
  if (typeof value !== 'object' || value === null) return []
  const holder = value as Record<string, unknown>
  return Object.keys(holder).flatMap((key) => [[holder, key] as const, ...placesIn(holder[key])])
}

/** One entry spoiled in one to three places: a value taken away, made odd, doubled, or exchanged with another of the entry. */
function spoiled(seed: number): unknown {
  const random = seededRandom(seed)
  const any = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)]
  const entry = structuredClone(any(entries)) as unknown as Record<string, unknown>
  for (let count = random() < 0.7 ? 1 : 3; count > 0; count -= 1) {
    const places = placesIn(entry)
    const [holder, key] = any(places) ?? [entry, 'id']
    const at = holder as Record<string, unknown>
    const way = random()
    if (way < 0.2) Reflect.deleteProperty(at, key)
    else if (way < 0.7) at[key] = structuredClone(any(odd))
    else if (way < 0.8) {
      const [other, otherKey] = any(places) ?? [entry, 'id']
      at[key] = structuredClone((other as Record<string, unknown>)[otherKey])
    } else if (Array.isArray(holder)) holder.push(structuredClone(at[key]))
    else at[`${key}x`] = at[key]
  }
  return entry
}

/** Everything that looks at an entry before a job has it. */
function used(entry: CatalogueEntry, whole: Catalogue): void {
  describeEntry(entry, whole)
  if (entry.kind === 'panel') samplePlan(entry, whole, now)
  if (entry.kind === 'device') triedWithPanels(entry, whole)
  if (entry.kind === 'receiver') heardBy(entry, whole)
  if (!isDescribed(entry.kind)) return
  const begun = draftKernel.applyOps(
    draftKernel.empty,
    beginDraft(entry.kind, { like: entry, corrects: true }, whole),
  )
  // What was taken in can be corrected by answering, too.
  expect(begun.ok).toBe(true)
  if (begun.ok) expect(draftEntry(begun.doc, whole).kept?.entry.id ?? entry.id).toBe(entry.id)
}

/** Does it, and says of which pack it was where it fails. */
function at<T>(seed: number, entry: unknown, work: () => T): T {
  try {
    return work()
  } catch (error) {
    throw new Error(`seed ${seed}: ${String(error)} of ${JSON.stringify(entry).slice(0, 400)}`, {
      cause: error,
    })
  }
}

describe('hostile packs', () => {
  it('are refused by entry and field, or do no harm', () => {
    let [refused, taken] = [0, 0]
    for (let seed = 1; seed <= runs(20_000); seed += 1) {
      const entry = spoiled(seed)
      const pack = { kapellePack: PACK_FORMAT, title: 'Test', entries: [entry] }
      const read = at(seed, entry, () => readPack(JSON.parse(JSON.stringify(pack)), entries))
      if (!read.ok) {
        refused += 1
        // Each problem names its place and says something.
        for (const { path, message } of read.problems) expect([path, message].includes('')).toBe(false)
        continue
      }
      taken += 1
      const [kept] = read.entries
      if (!kept) throw new Error(`seed ${seed}: nothing was read`)
      at(seed, entry, () => used(kept.entry, catalogue.with([kept])))
    }
    // Both happen, or the test tries nothing.
    expect([refused > 1, taken > 1]).toEqual([true, true])
  })

  it('that go round in a circle are read, and nobody goes round with them', () => {
    const by = (id: string) => {
      const entry = catalogue.get('device', id)
      if (!entry) throw new Error(id)
      return entry
    }
    const pack = {
      ...{ kapellePack: PACK_FORMAT, title: 'Test' },
      entries: [
        { ...by('device/reedling'), discontinued: { successor: 'device/stilt' } },
        { ...by('device/stilt'), discontinued: { successor: 'device/reedling' } },
        { ...by('device/ember-three'), joined: { apart: 'device/ember-three' } },
      ],
    }
    const read = readPack(pack, entries)
    expect(read.ok).toBe(true)
    if (!read.ok) return
    const whole = catalogue.with(read.entries)
    for (const { entry } of read.entries) used(entry, whole)
    expect(samplePlan(catalogue.all('panel')[0] ?? expect.fail(), whole, now).zones.length).toBeGreaterThan(0)
  })
})
