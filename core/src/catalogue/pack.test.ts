import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { catalogue } from '../testing/small-job.ts'
import { hashOf } from '../units/canonical.ts'
import { keepEntry, readKept, writtenOf } from './written.ts'
import { Catalogue } from './catalogue.ts'
import { describeEntry } from './describe.ts'
import { comparePack, packJsonSchema, readPack, writePack } from './pack.ts'
import type { CatalogueEntry, DeviceModel } from './schema.ts'
import { runs } from '../testing/runs.ts'

const all = catalogue.entries
const kept = catalogue.kept
const loose = (): { kapellePack: number; title: string; entries: Record<string, unknown>[] } =>
  JSON.parse(writePack('Test', kept)) as never
const problems = (input: unknown): string[] => {
  const read = readPack(input)
  return read.ok ? [] : read.problems.map((problem) => `${problem.path} ${problem.message}`)
}
const at = (pack: ReturnType<typeof loose>, id: string) => {
  const found = pack.entries.find((entry) => entry.id === id)
  if (!found) throw new Error(id)
  return found
}

describe('a pack', () => {
  it('goes out and in with the same hashes', () => {
    const read = readPack(loose())
    if (!read.ok) throw new Error(JSON.stringify(read.problems))
    expect(read.entries.map((item) => item.hash).sort()).toEqual(kept.map((item) => item.hash).sort())
    expect(writePack('Test', read.entries)).toBe(writePack('Test', kept))
  })

  it('shows new, changed and same by hash, not by version label', () => {
    const of = (id: string) => keepEntry(catalogue.get('device', id) as CatalogueEntry)
    const reedling = of('device/reedling')
    const known = new Catalogue(kept.filter((item) => item.entry.id !== 'device/stilt'))
    const stilt = of('device/stilt')
    const changes = comparePack(
      [reedling, keepEntry({ ...reedling.entry, id: 'device/pane-ear' } as CatalogueEntry), stilt],
      known,
    )
    expect(changes.map((change) => [change.entry.entry.id, change.state])).toEqual([
      ['device/reedling', 'same'],
      ['device/pane-ear', 'changed'],
      ['device/stilt', 'new'],
    ])
  })

  it('has a JSON Schema of every kind of entry', () => {
    const text = JSON.stringify(packJsonSchema())
    for (const kind of ['family', 'receiver', 'device', 'panel']) expect(text).toContain(`"const":"${kind}"`)
  })
})

describe('packs that are refused', () => {
  it.each<[string, (pack: ReturnType<typeof loose>) => unknown, string]>([
    ['a newer form', (pack) => ({ ...pack, kapellePack: 9 }), 'kapellePack is 9; this Kapelle reads up to 8'],
    [
      'a pointer into nothing',
      (pack) => (Object.assign(at(pack, 'device/reedling'), { family: 'family/none' }), pack),
      'device/reedling.family points at family/none, which is not in this pack nor in the catalogue',
    ],
    [
      'a successor that is not there',
      (pack) => (
        Object.assign(at(pack, 'device/reedling-old'), { discontinued: { successor: 'device/none' } }),
        pack
      ),
      'device/reedling-old.discontinued.successor points at device/none, which is not in this pack nor in the catalogue',
    ],
    [
      'an entry twice',
      (pack) => (pack.entries.push(at(pack, 'device/stilt')), pack),
      'device/stilt stands twice in this pack',
    ],
    [
      'a loop twice',
      (pack) => (
        (((at(pack, 'device/reedling').loops as { loop: number }[])[1] ?? { loop: 0 }).loop = 3),
        pack
      ),
      'device/reedling.loops must not use a loop number twice',
    ],
    [
      'a turned block',
      (pack) => ((((at(pack, 'panel/tarn-40').blocks as { to: number }[])[1] ?? { to: 0 }).to = 1), pack),
      'panel/tarn-40.blocks.1.to must not lie below from',
    ],
    [
      'an unknown field',
      (pack) => (Object.assign(at(pack, 'device/stilt'), { colour: 'white' }), pack),
      'device/stilt.colour is not a known field here',
    ],
    [
      'a wrong grade',
      (pack) => (Object.assign(at(pack, 'device/stilt'), { grade: 7 }), pack),
      'device/stilt.grade must be grade 1, 2 or 3',
    ],
  ])('%s', (_name, spoil, said) => expect(problems(spoil(loose()))).toContain(said))

  it('never throws, whatever one field of an entry is', () => {
    const text = writePack('Test', kept)
    const keys = all.map((entry) => Object.keys(entry))
    fc.assert(
      fc.property(fc.nat(all.length - 1), fc.nat(40), fc.anything(), (index, key, value) => {
        const pack = JSON.parse(text) as ReturnType<typeof loose>
        const entry = pack.entries[index]
        const field = keys[index]?.[key % (keys[index]?.length ?? 1)]
        if (entry && field) entry[field] = value
        expect(typeof readPack(pack).ok).toBe('boolean')
      }),
      { seed: 12, numRuns: runs(400) },
    )
    for (const value of [
      null,
      3,
      'x',
      [],
      { kapellePack: 1 },
      { kapellePack: 1, title: 'x', entries: [null] },
    ])
      expect(readPack(value).ok).toBe(false)
  })
})

describe('an entry in words', () => {
  const words = (id: string) =>
    Object.fromEntries(
      describeEntry(all.find((entry) => entry.id === id) as CatalogueEntry, catalogue).map((line) => [
        line.label,
        line.value,
      ]),
    )

  it('says what a device, a receiver, a family and a panel are', () => {
    expect(words('device/reedling-old')).toMatchObject({
      Family: 'Wren',
      Loops: '1 reed, 2 wired terminals',
      'No longer made': 'successor Reedling contact',
      'Equipment codes': 'Tarn 40: 311',
    })
    expect(words('receiver/sallow-bridge')).toMatchObject({
      Hears: 'Plover',
      Loses: 'supervision, encryption, battery',
    })
    expect(words('family/curlew-9')).toMatchObject({
      Band: '912–918 MHz',
      Repeaters: 'up to 6, none behind another',
    })
    expect(words('panel/pinfold-16')).toMatchObject({
      'Entry delay 2': '15–900 s by 15 s',
      'Exit delay': '5–90 s by 1 s, or 15–900 s by 15 s with bit 2 of location 047',
      'Exit delay in stay': 'as in away',
      'Hold before sending': 'none',
      'Zone in two areas': 'a zone in two is common: armed only when both are',
      'Day zones': 'the user’s choice',
      'Lists that exclude each other':
        'first-door list, second-door list, walkway list, round-the-clock list, day list',
      'Double knock': 'not stated',
    })
    expect(words('panel/quillet-32')).toMatchObject({
      'Exit delay in stay': '0–250 s by 10 s',
      Chimes: 'one note, two notes, says the name',
      'Latching key switch': 'disables all other setting',
    })
  })

  it('says of whatever an entry leaves out that it is left out, never that all is well', () => {
    // What an entry does not need to say, by the schema; the variants of a field that another carries are not named apart.
    const leftOut: Record<string, readonly string[]> = {
      family: ['repeaters', 'settleMinutes', 'answerMinutes'],
      receiver: ['grade', 'loses'],
      device: [
        ...['variant', 'switches', 'sensitivity', 'outdoor', 'grade', 'transmitDbm', 'lifeYears', 'confirm'],
        ...['joined', 'discontinued', 'price'],
      ],
      panel: ['variant', 'grade', 'superviseMinutes', 'repeaters', 'couplings'],
    }
    const seen = new Set<string>()
    for (const entry of all)
      for (const field of leftOut[entry.kind] ?? []) {
        if (!(field in entry)) continue
        const less = Object.fromEntries(Object.entries(entry).filter(([key]) => key !== field))
        const before = describeEntry(entry, catalogue)
        const changed = describeEntry(less as CatalogueEntry, catalogue).filter(
          (line, index) => line.value !== before[index]?.value,
        )
        expect(changed.length, `${entry.id} without ${field}`).toBeGreaterThan(0)
        for (const line of changed)
          expect(['not stated', 'none stated'], `${entry.id} without ${field}: ${line.label}`).toContain(
            line.value,
          )
        seen.add(`${entry.kind}.${field}`)
      }
    expect(seen.size).toBe(Object.entries(leftOut).flatMap(([, fields]) => fields).length)
  })

  it('gives entries of one kind the same lines, so that they compare', () => {
    for (const kind of ['family', 'receiver', 'device', 'panel'] as const) {
      const labels = catalogue.all(kind).map((entry) =>
        describeEntry(entry, catalogue)
          .map((line) => line.label)
          .join('|'),
      )
      expect(new Set(labels).size).toBe(1)
    }
  })
})

describe('what a pin hashes', () => {
  const raw = { ...(catalogue.get('family', 'family/wren') as CatalogueEntry) }
  const pack = (form: number, entries: readonly unknown[]) => ({ kapellePack: form, title: 'Test', entries })

  it('is the entry as it was written, in whatever order of keys and in whatever form', () => {
    const turned = Object.fromEntries(Object.entries(raw).reverse())
    for (const form of [1, 2, 3, 4, 5]) {
      const read = readPack(pack(form, [turned]))
      expect(read.ok && read.entries.map((item) => [item.hash, item.form, item.raw])).toEqual([
        [hashOf(raw), form, turned],
      ])
    }
  })

  it('keeps older entries apart in a file, so that each is read by its own form', () => {
    const old = readPack(pack(1, [raw]))
    if (!old.ok) throw new Error('unread')
    const own = keepEntry(catalogue.get('family', 'family/dunlin') as CatalogueEntry)
    const file = JSON.parse(writePack('Test', [...old.entries, own])) as Record<string, unknown>
    expect(file).toMatchObject({ kapellePack: 8, entries: [own.raw], older: [{ form: 1, entries: [raw] }] })
    const again = readPack(file)
    expect(again.ok && again.entries.map((item) => [item.entry.id, item.form]).sort()).toEqual([
      ['family/dunlin', 8],
      ['family/wren', 1],
    ])
  })

  it('reads no check-in of an older form as not stated, but of what sends only when pressed', () => {
    const of = (id: string, form: number): unknown[] => {
      const silent = { ...(catalogue.get('device', id) as DeviceModel), checkInMinutes: null }
      const read = readPack(pack(form, [silent]), catalogue.entries)
      if (!read.ok) throw new Error(JSON.stringify(read.problems))
      return read.entries.flatMap(({ entry, hash }) =>
        entry.kind === 'device' ? [entry.checkInMinutes, hash === hashOf(silent)] : [],
      )
    }
    expect(of('device/stilt', 7)).toEqual([undefined, true])
    expect(of('device/stilt', 1)).toEqual([undefined, true])
    expect(of('device/stilt', 8)).toEqual([null, true])
    expect(of('device/quartet', 7)).toEqual([null, true])
    expect(of('device/beckon', 7)).toEqual([null, true])
    const wired = catalogue.all('device').find(({ family }) => family === null)
    expect(of(wired?.id ?? '', 7)).toEqual([null, true])
  })

  it('travels with the raw entry', () => {
    const item = keepEntry(raw as CatalogueEntry)
    expect(readKept(writtenOf(item))).toEqual(item)
    expect(Object.keys(writtenOf(item))).toEqual(['hash', 'form', 'raw'])
  })

  it('has no entry of nothing, and none of a newer form', () => {
    expect(problems(pack(2, []))).toEqual(['entries must have at least 1 entry'])
    expect(problems(pack(9, [raw]))).toEqual(['kapellePack is 9; this Kapelle reads up to 8'])
    expect(problems({ ...pack(3, [raw]), older: [{ form: 9, entries: [raw] }] })[0]).toContain('older.0.form')
  })
})
