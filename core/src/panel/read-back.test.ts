import { describe, expect, it } from 'vitest'
import { keepEntry } from '../catalogue/written.ts'
import { targetMemory } from '../memory/target.ts'
import { demoPanel, jobOnEach, oneDoor, PanelInHand } from '../testing/panels.ts'
import { catalogue, type SmallJob } from '../testing/small-job.ts'
import { readBackFor, type ReadBack, type ReadBackPlan, type ReadBackStep } from './read-back.ts'
import { restingId } from './graph.ts'

const reader = (job: SmallJob): ReadBack => readBackFor(job.doc, catalogue) ?? expect.fail('not described')
const wanted = (job: SmallJob) => targetMemory(job.doc, catalogue)?.wanted ?? expect.fail('no panel')
const whole = (job: SmallJob): ReadBackPlan => reader(job).plan([...wanted(job).keys()], null)

describe('displays that show what was keyed', () => {
  it('of one door on the Tarn, by hand: nine values on seven displays', () => {
    const { steps, notShown, leave } = whole(oneDoor())
    expect(notShown).toEqual([])
    // The summary shows type, ID and loop together; each other answer stands on its own question.
    const zone = steps.filter(({ part }) => part === 'Zone 01 — Front door')
    expect(zone.map(({ shows }) => shows.join(' | ').trim())).toEqual([
      '01 what is it? | 318',
      '01 send? | yes',
      '01 hold first? | no',
      '01 gong? | yes',
      '01 watch it? | yes',
      '01 words | Front Door',
      '01 Way in, first del | 20417733 3',
    ])
    // Only the ID came off a sticker: that display is typed.
    expect(zone.map(({ blind }) => blind)).toEqual([false, false, false, false, false, false, true])
    expect(zone.map(({ keys }) => keys).slice(1)).toEqual([
      '[next] [next] [next] [next]',
      ...['[next]', '[next]', '[next]', '[next]', '[next]'],
    ])
    expect(leave).toBe('[home] [tick] wait 40 s')
  })

  it.each(jobOnEach)(
    '%s: the keys lead to each display in turn, and change nothing that it holds',
    (id, make) => {
      const job = make()
      const target = wanted(job)
      const panel = demoPanel(id)
      const hand = new PanelInHand(panel, new Map([...panel.factory, ...target]))
      const before = hand.state.kept
      const { steps, notShown, leave } = whole(job)
      for (const step of steps) {
        hand.keys(step.keys)
        expect([step.id, hand.shows]).toEqual([step.id, step.shows.join(' | ').trim()])
        expect(restingId(hand.state)).toBe(step.place)
        expect(hand.state.kept).toEqual(before)
      }
      const shown = steps.flatMap(({ values }) => values.map(({ address }) => address))
      // Each wanted value once, or told as shown nowhere.
      expect(new Set(shown).size).toBe(shown.length)
      expect(shown.length + notShown.length).toBe(target.size)
      expect(notShown).toEqual([])
      hand.keys(leave)
      expect(restingId(hand.state)).toBe(restingId(new PanelInHand(panel).state))
      expect(Object.fromEntries(hand.state.kept)).toEqual(Object.fromEntries(before))
    },
  )

  it.each(jobOnEach)('%s: every display, typed as it stands there, says what the plan wants', (_id, make) => {
    const job = make()
    const back = reader(job)
    for (const step of whole(job).steps) {
      const said = back.says(step, step.shows)
      expect([step.id, said.kind]).toEqual([step.id, 'values'])
      if (said.kind !== 'values') continue
      expect(said.here).toBe(true)
      expect(said.values.every(({ is, value, mend }) => is === value && mend === null)).toBe(true)
      const read = said.values.map(({ address }) => address)
      expect(read).toEqual(expect.arrayContaining(step.values.map(({ address }) => address)))
    }
  })

  it('from inside begins where one stands', () => {
    const [first] = reader(oneDoor()).plan(['zone.1.chime'], 'watch zone1').steps
    expect(first?.keys).toBe('[back]')
    expect(reader(oneDoor()).plan([], null)).toEqual({ steps: [], leave: '', notShown: [] })
  })
})

describe('what a display says', () => {
  const at = (place: string): ReadBackStep =>
    whole(oneDoor()).steps.find((step) => step.place === place) ?? expect.fail(`no step at ${place}`)

  it('a difference, in words, with the keys that put it right from there', () => {
    const back = reader(oneDoor())
    // No is the other key of a question.
    expect(back.says(at('gong zone1'), ['01 gong?', 'no'])).toEqual({
      kind: 'values',
      here: true,
      part: 'Zone 01 — Front door',
      values: [
        {
          ...{ address: 'zone.1.chime', value: 'on', field: 'chime', words: 'yes' },
          ...{ is: 'off', isWords: 'no', mend: { keys: '[tick]', back: '[back]' } },
        },
      ],
    })
    expect(back.says(at('15'), ['15 second way in, s', '60'])).toMatchObject({
      values: [
        {
          address: 'system.entry2',
          is: '60',
          isWords: '60 s',
          words: '45 s',
          mend: { keys: '45 [tick]', back: '[back]' },
        },
      ],
    })
    // Two signs of the ID changed places: the summary tells which, and the way to its question.
    const said = back.says(at('sum zone1'), ['01 Way in, first del', '20471733 3'])
    expect(said).toMatchObject({ kind: 'values', here: true })
    expect(said.kind === 'values' && said.values.filter(({ is, value }) => is !== value)).toMatchObject([
      { address: 'zone.1.serial', is: '20471733' },
    ])
  })

  it('nothing where a sign is misread, where a line is left out, and where something is typed and not sent', () => {
    const back = reader(oneDoor())
    expect(back.says(at('gong zone1'), ['01 gong?', 'na']).kind).toBe('unread')
    expect(back.says(at('sum zone1'), ['01 Way in, first del', '']).kind).toBe('unread')
    expect(back.says(at('15'), ['15 second way in, s', '45_'])).toEqual({ kind: 'typed' })
    expect(back.says(at('15'), ['', ''])).toEqual({ kind: 'unread', near: [] })
    const said = back.says(at('gong zone1'), ['01 g0ng?', 'yes'])
    expect(said.kind === 'unread' && said.near[0]).toEqual(['01 gong?', 'yes'])
  })

  it('which other display it is', () => {
    const back = reader(oneDoor())
    expect(back.says(at('gong zone1'), ['01 watch it?', 'no'])).toMatchObject({
      ...{ kind: 'values', here: false },
      values: [{ address: 'zone.1.supervise', is: 'off' }],
    })
  })

  it('nothing where it could be two, unless it is the one that was to be read', () => {
    // The gong of a zone asked in the words of sending.
    const tarn = catalogue.get('interface', 'interface/tarn-40') ?? expect.fail('no interface')
    const gong = { ...(tarn.screens['gong'] ?? expect.fail('no gong')), lines: ['{zone} send?', '{value}'] }
    const alike = catalogue.with([keepEntry({ ...tarn, screens: { ...tarn.screens, gong } })])
    const back = readBackFor(oneDoor().doc, alike) ?? expect.fail('not described')
    const shows = ['01 send?', 'no']
    for (const [place, address] of [
      ['gong zone1', 'zone.1.chime'],
      ['send zone1', 'zone.1.report'],
    ])
      expect(back.says({ place: place ?? '', shows }, shows)).toMatchObject({
        ...{ kind: 'values', here: true },
        values: [{ address, is: 'off', mend: { keys: '[tick]', back: '[back]' } }],
      })
    const said = back.says({ place: 'watch zone1', shows: ['01 watch it?', 'no'] }, shows)
    expect(said).toMatchObject({ kind: 'unread' })
    expect(said.kind === 'unread' && said.near[0]).toEqual(['01 send?', 'yes'])
  })

  it('where a line is left out that should say something, and not where that line is empty anyway', () => {
    const back = reader(oneDoor())
    const step = at('gong zone1')
    expect(back.says(step, ['01 gong?', ' '])).toEqual({ kind: 'unread', near: [] })
    expect(back.says(step, ['', 'yes'])).toEqual({ kind: 'unread', near: [] })
    expect(back.says(step, ['01 gong?'])).toEqual({ kind: 'unread', near: [] })
    expect(back.says({ ...step, shows: ['01 gong?', ' '] }, ['01 gong?', '']).kind).not.toBe('typed')
    // A message over it says nothing of what it holds.
    const id = { place: 'id zone1', shows: ['01 id', '20417733'] }
    expect(back.says(id, ['01 id', 'no such id']).kind).toBe('unread')
  })

  it('a part of its own where it holds nothing that is wanted', () => {
    const said = reader(oneDoor()).says(at('gong zone1'), ['02 gong?', 'no'])
    expect(said).toEqual({ kind: 'values', here: false, part: 'Zone 02', values: [] })
  })
})

describe('what cannot be read back', () => {
  it('is told by part and field, and the rest is read', () => {
    const { steps, notShown } = reader(oneDoor()).plan(
      ['zone.1.chime', 'zone.1.doubleKnock', 'zone.2.chime'],
      null,
    )
    expect(notShown).toEqual(['Zone 01 — Front door: double knock', 'Zone 02: chime'])
    expect(steps.map(({ place, values }) => [place, values.map(({ field }) => field)])).toEqual([
      ['gong zone1', ['chime']],
    ])
  })

  it('begins outside where a place is not known, and leaves from where it ends', () => {
    const back = reader(oneDoor())
    const outside = back.plan(['zone.1.chime'], null)
    expect(back.plan(['zone.1.chime'], 'no such place')).toEqual(outside)
    expect(outside.steps[0]?.keys).toMatch(/^\[tick\] for 5 s .* \[go\] 50 \[tick\] 01 \[tick\]/)
    expect(back.plan(['zone.1.chime'], 'gong zone1').steps[0]?.keys).toBe('')
    // Displays of one part in the order in which they lie, wherever they were asked for.
    expect(
      back
        .plan(['zone.1.chime', 'zone.1.report', 'zone.1.loop', 'zone.1.serial'], null)
        .steps.map(({ place }) => place),
    ).toEqual(['send zone1', 'gong zone1', 'sum zone1'])
  })
})
