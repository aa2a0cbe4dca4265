import { describe, expect, it } from 'vitest'
import { keepEntry } from '../catalogue/written.ts'
import { recordsOf } from '../job/document.ts'
import { targetMemory } from '../memory/target.ts'
import { demoPanel, jobOnEach, oneDoor, PanelInHand } from '../testing/panels.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { auditFor, type Audit, type NextDisplay } from './audit.ts'
import { display } from './display.ts'
import { restingId } from './graph.ts'

const auditOf = (job: SmallJob): Audit => auditFor(job.doc, catalogue) ?? expect.fail('not described')
/** A job of which only the panel is known. */
const bare = (id: string): SmallJob => new SmallJob({ panel: `panel/${id}`, radioFirmware: null })

/** What a panel holds that was keyed by the plan and heard each of its devices: an input without an ID is none. */
function keyedInto(id: string, make: () => SmallJob): PanelInHand {
  const panel = demoPanel(id)
  const { doc } = make()
  const wanted = new Map(targetMemory(doc, catalogue)?.wanted)
  for (const { number, device } of recordsOf(doc, 'zone')) {
    const sticker = recordsOf(doc, 'device').find(({ id: one }) => one === device)?.sticker ?? null
    if (sticker === null) wanted.delete(`zone.${number}.loop`)
    else if (wanted.has(`zone.${number}.loop`)) wanted.set(`zone.${number}.serial`, sticker)
  }
  return new PanelInHand(panel, new Map([...panel.factory, ...wanted]))
}

interface Walked {
  readonly read: Map<string, string>
  readonly displays: readonly NextDisplay[]
  readonly vague: ReadonlySet<string>
  readonly from: string | null
}

/** Goes wherever it is led, and types what stands there, or sees that nothing does. */
function walk(audit: Audit, hand: PanelInHand, upTo: number | null): Walked {
  const read = new Map<string, string>()
  const asked = new Set<string>()
  const displays: NextDisplay[] = []
  const vague = new Set<string>()
  let from: string | null = null
  for (;;) {
    const next = audit.next({ read, asked, upTo }, from)
    if (!next) return { read, displays, vague, from }
    // Nothing is asked for that was read: the walk must end.
    if (displays.length > 400) expect.fail(`no end: ${next.place}`)
    displays.push(next)
    hand.keys(next.keys)
    expect(restingId(hand.state)).toBe(next.place)
    const shows = display(hand.panel, hand.state)
    from = next.place
    if (next.empty && shows.join('\n') === next.empty.shows.join('\n')) {
      for (const { address, value } of next.empty.values) read.set(address, value)
      continue
    }
    const said = audit.stands(read, shows, next.place)
    if (said.kind !== 'values') expect.fail(`${next.place}: ${shows.join(' | ')} is ${said.kind}`)
    expect(said.place).toBe(next.place)
    for (const { address, value } of said.values) read.set(address, value)
    for (const { address } of said.vague) vague.add(address)
    if (said.vague.length > 0) asked.add(next.place)
  }
}

/** The highest number in use, and two above. */
const enough = (hand: PanelInHand): number =>
  2 +
  Math.max(...[...hand.state.kept.keys()].map((at) => Number(/^zone\.(\d+)\.response/.exec(at)?.[1] ?? 0)))

describe('an old panel, read off', () => {
  it.each(jobOnEach)(
    '%s: all that is in use is read as it is held, and nothing on the way changes it',
    (id, make) => {
      const hand = keyedInto(id, make)
      const before = hand.state.kept
      const audit = auditOf(bare(id))
      const { read, vague, from } = walk(audit, hand, enough(hand))
      expect(hand.state.kept).toEqual(before)
      for (const [address, value] of read)
        expect([address, value]).toEqual([address, before.get(address) ?? ''])
      // Whatever is stored otherwise than it comes is read, or told as what the display cannot tell.
      const stored = Object.keys(hand.kept).filter((address) => !read.has(address) && !vague.has(address))
      expect(stored).toEqual([])
      expect([...read.keys()].filter((address) => address.startsWith('system.')).length).toBeGreaterThan(4)
      const keys = audit.leave(read, from ?? '')
      hand.keys(keys)
      expect(restingId(hand.state)).toBe(restingId(new PanelInHand(hand.panel).state))
      expect(Object.fromEntries(hand.state.kept)).toEqual(Object.fromEntries(before))
    },
  )

  it('a panel as it came is seen at a glance wherever nothing is stored, and has nothing in use', () => {
    const hand = new PanelInHand(demoPanel('pinfold-16'))
    const audit = auditOf(bare('pinfold-16'))
    const { read, displays } = walk(audit, hand, null)
    const glances = displays.filter(({ empty }) => empty !== null)
    expect(glances.flatMap(({ empty }) => empty?.values ?? []).every(({ value }) => value === '')).toBe(true)
    // 16 zones, each by its type; those of radio by their ID, too; 8 fobs and 2 keypads.
    const { unused, parts, unplanned, held } = audit.report(read)
    expect([unused, unplanned]).toEqual([26, []])
    expect(parts.map(({ part }) => part)).toEqual(['Whole system'])
    expect(parts[0]?.lines.every(({ shipped, wanted }) => shipped && wanted !== null)).toBe(false)
    expect([...held.keys()].every((address) => address.startsWith('system.'))).toBe(true)
  })

  it('looks at no zone above the last that is asked for', () => {
    const hand = new PanelInHand(demoPanel('tarn-40'))
    const { read } = walk(auditOf(bare('tarn-40')), hand, 3)
    const numbers = [...read.keys()].flatMap((address) => /^zone\.(\d+)\./.exec(address)?.[1] ?? [])
    expect(new Set(numbers)).toEqual(new Set(['1', '2', '3']))
    // Fobs and keypads have numbers of their own: all are looked at.
    expect(['fob.5.serial', 'keypad.4.serial'].map((address) => read.get(address))).toEqual(['', ''])
  })

  it('says what the next display tells of, what it costs, and how much is left', () => {
    const audit = auditOf(bare('tarn-40'))
    const { read } = walk(audit, keyedInto('tarn-40', oneDoor), 1)
    const next = (unread: readonly string[], ...asked: string[]) => {
      const known = new Map([...read].filter(([address]) => !unread.includes(address)))
      return audit.next({ read: known, asked: new Set(asked), upTo: 1 }, null)
    }
    const inside = '[tick] for 5 s (main-user code) [tick] (installer code) [tick]'
    expect(next([])).toBeNull()
    expect(next(['system.entry2'])).toEqual({
      ...{ keys: `${inside} [next]`, place: '15', part: 'Whole system', fields: ['entry delay 2'] },
      ...{ lines: 2, empty: null, left: 1 },
    })
    expect(next(['system.entry2'], '15')).toBeNull()
    // Whether the number is in use is not known before: its input is no question yet.
    // Two on one display, eight keys further, are cheaper than one that is near: (21 + 3) / 2 against 13 + 3.
    const two = ['zone.1.serial', 'zone.1.response', 'zone.1.loop']
    expect(next(two)).toMatchObject({
      ...{ place: 'sum zone1', part: 'Zone 01', left: 2 },
      fields: ['response type', 'transmitter ID'],
    })
    expect(next(two, 'sum zone1')).toMatchObject({ place: 'does zone1', fields: ['response type'], left: 2 })
    expect(next(['zone.1.serial', 'zone.1.loop'])).toMatchObject({ place: 'sum zone1', left: 2 })
    expect(next(['zone.1.serial'])).toMatchObject({ place: 'id zone1', left: 1 })
    // Of a number that is not in use only what tells so is asked.
    const unused = audit.next(
      { read: new Map([...read, ['zone.2.response', '']]), asked: new Set(), upTo: 2 },
      null,
    )
    expect(unused).toMatchObject({
      fields: ['transmitter ID'],
      left: 1,
      empty: { values: [{ address: 'zone.2.serial', value: '' }] },
    })
  })

  it('does not take the first of a list for known where the display shows it for nothing, too', () => {
    // The list of the Ostler opens at what is stored, and at its first row where nothing is.
    const hand = new PanelInHand(
      demoPanel('ostler-s-8'),
      new Map([...demoPanel('ostler-s-8').factory, ['zone.1.response', 'D1'], ['zone.1.serial', 'H204177']]),
    )
    const audit = auditOf(bare('ostler-s-8'))
    const { read, vague } = walk(audit, hand, 2)
    expect(vague).toEqual(new Set(['zone.1.response']))
    expect(read.has('zone.1.response')).toBe(false)
    expect(read.get('zone.1.serial')).toBe('H204177')
    // Any other row is what is stored.
    expect(audit.stands(read, ['5.1 zone 01 acts', 'Shell'], '')).toMatchObject({
      values: [{ address: 'zone.1.response', value: 'S1' }],
      vague: [],
    })
  })
})

describe('what lines say', () => {
  it('is told by its display, or by the one that was asked for where two show the same', () => {
    const audit = auditOf(bare('tarn-40'))
    const sum = audit.stands(new Map(), ['01 Way in, first del', '20417733 3'], '')
    expect(sum).toMatchObject({
      kind: 'values',
      place: 'sum zone1',
      values: [
        { address: 'zone.1.response', words: '21, Way in, first delay', field: 'response type' },
        { address: 'zone.1.serial', value: '20417733' },
        { address: 'zone.1.loop', value: '3' },
      ],
    })
    // A line that is left empty is empty, so that nothing is stored there.
    expect(audit.stands(new Map(), ['01', ''], 'sum zone1')).toMatchObject({
      values: [{ value: '' }, { value: '' }, { value: '' }],
    })
  })

  it('is nothing where no display shows that, and where a message stands or something is typed', () => {
    const audit = auditOf(bare('tarn-40'))
    expect(audit.stands(new Map(), ['nothing of the kind', ''], '')).toEqual({ kind: 'unread' })
    expect(audit.stands(new Map(), ['', ''], '')).toEqual({ kind: 'unread' })
    // From outside it tells nothing of what it holds.
    const hand = new PanelInHand(demoPanel('tarn-40'))
    expect(audit.stands(new Map(), display(hand.panel, hand.state), '').kind).toBe('unread')
    expect(audit.stands(new Map(), ['who is there?', 'not known'], '').kind).toBe('busy')
  })
})

describe('displays that look alike', () => {
  // The gong of a zone asked in the words of sending: a panel may say the same of two things.
  const tarn = catalogue.get('interface', 'interface/tarn-40') ?? expect.fail('no interface')
  const gong = { ...(tarn.screens['gong'] ?? expect.fail('no gong')), lines: ['{zone} send?', '{value}'] }
  const alike = catalogue.with([keepEntry({ ...tarn, screens: { ...tarn.screens, gong } })])
  const audit = auditFor(bare('tarn-40').doc, alike) ?? expect.fail('not described')
  const lines = ['01 send?', 'no']

  it('are both told, unless one of them was asked for', () => {
    for (const at of ['', 'watch zone1']) {
      const said = audit.stands(new Map(), lines, at)
      if (said.kind !== 'several') expect.fail(said.kind)
      expect(said.places.toSorted((a, b) => (a.place < b.place ? -1 : 1))).toEqual([
        { place: 'gong zone1', part: 'Zone 01' },
        { place: 'send zone1', part: 'Zone 01' },
      ])
    }
    for (const [at, address] of [
      ['gong zone1', 'zone.1.chime'],
      ['send zone1', 'zone.1.report'],
    ] as const)
      expect(audit.stands(new Map(), lines, at)).toMatchObject({
        ...{ kind: 'values', place: at, vague: [] },
        values: [{ address, value: 'off', words: 'no' }],
      })
  })
})

describe('the report', () => {
  it('says beside the plan what is as planned, otherwise, as it comes, or changed', () => {
    const job = oneDoor()
    const read = new Map([
      ...[...(targetMemory(job.doc, catalogue)?.wanted ?? [])].filter(([at]) => at.startsWith('zone.1.')),
      ['zone.1.chime', 'off'],
      ['zone.2.response', 'E1'],
      ['zone.2.serial', '20417001'],
      ['zone.2.chime', 'on'],
      ['zone.2.report', 'on'],
      ['zone.3.response', ''],
    ])
    const { parts, unused, unplanned, held } = auditOf(job).report(read)
    const at = (address: string) =>
      parts.flatMap(({ lines }) => lines).find((line) => line.address === address) ?? expect.fail(address)
    expect(at('zone.1.response')).toMatchObject({
      asPlanned: true,
      shipped: false,
      part: 'Zone 01 — Front door',
    })
    expect(at('zone.1.chime')).toMatchObject({ asPlanned: false, wanted: 'yes', words: 'no', shipped: true })
    expect(at('zone.2.chime')).toMatchObject({ asPlanned: false, wanted: null, shipped: false })
    expect(at('zone.2.report')).toMatchObject({ asPlanned: false, wanted: null, shipped: true })
    expect([unused, unplanned]).toEqual([1, [2]])
    expect(held.has('zone.3.response')).toBe(false)
    expect(held.get('zone.1.chime')).toBe('off')
  })

  it('tells of a planned zone that has nothing stored, and lets the plan take nothing of it', () => {
    const { parts, held, unused } = auditOf(oneDoor()).report(
      new Map([
        ['zone.1.response', ''],
        ['zone.1.serial', ''],
      ]),
    )
    expect(parts.flatMap(({ lines }) => lines).map(({ words, asPlanned }) => [words, asPlanned])).toEqual([
      ['nothing', false],
      ['nothing', false],
    ])
    expect([held.size, unused]).toEqual([0, 0])
  })

  it('holds what is stored at numbers in use, and nothing of others; a fob is planned where the plan has its ID', () => {
    const job = oneDoor().user('Nell')
    job.add('fob', 'quartet', { user: 'user:Nell', slot: 1, sticker: '20417700' }).number()
    const fobs = [...(targetMemory(job.doc, catalogue)?.wanted.keys() ?? [])].filter((at) =>
      at.startsWith('fob.'),
    )
    expect(fobs).toEqual(['fob.1.serial'])
    const { parts, held, unused, unplanned } = auditOf(job).report(
      new Map([
        ...([9, 10, 12] as const).flatMap((number) => [[`zone.${number}.response`, '21'] as const]),
        ...[['zone.9.label', ''] as const, ['zone.10.chime', 'on'] as const],
        // Planned, and nothing there but what it comes with.
        ...[
          ['zone.1.response', ''] as const,
          ['zone.1.serial', ''] as const,
          ['zone.1.chime', 'on'] as const,
        ],
        ...[
          ['fob.1.serial', ''] as const,
          ['fob.2.serial', ''] as const,
          ['fob.3.serial', '20417799'] as const,
        ],
      ]),
    )
    expect([...held.keys()].toSorted()).toEqual([
      'fob.3.serial',
      'zone.10.chime',
      'zone.10.response',
      'zone.12.response',
      'zone.9.response',
    ])
    expect([unused, unplanned]).toEqual([1, [9, 10, 12]])
    expect(parts.map(({ part }) => part).filter((part) => /fob/i.test(part))).toHaveLength(2)
  })

  it('takes a zone that is left as programmed for planned, in use or not', () => {
    const job = oneDoor()
    job.set(job.zone('porch').id, { asProgrammed: true })
    const report = (value: string) =>
      auditOf(job).report(
        new Map([
          ['zone.1.response', value],
          ['zone.1.serial', ''],
        ]),
      )
    expect(report('21')).toMatchObject({ unplanned: [], unused: 0 })
    expect(report('')).toMatchObject({ unplanned: [], unused: 0, parts: [{ part: 'Zone 01 — Front door' }] })
  })

  it('is none without a panel', () => {
    expect(auditFor(new SmallJob({ panel: null }).doc, catalogue)).toBeNull()
  })
})
