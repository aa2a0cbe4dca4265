import { describe, expect, it } from 'vitest'
import { evidenceBy } from '../job/testing/records.ts'
import { jobOnEach, oneDoor } from '../testing/panels.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import type { SheetStart } from './sheet.ts'
import { lostFor } from './whereabouts.ts'

/* One door on the Tarn; what each place says and the keys back are read off its description by hand. */

const lost = (job: SmallJob, start: SheetStart = 'factory') =>
  lostFor({ doc: job.doc, catalogue, start }) ?? expect.fail('not described')
const asked = (from: string, ...read: string[]) => ({ from, read, then: [] })

/** Some question of line 7 or another that shows yes: what the panel is known to hold tells which is likelier. */
const yes = asked('gong zone7', '', 'yes')

describe('where somebody lost is', () => {
  it('is a question of a zone by its name, with the keys back and what is still unsaved', () => {
    // The next question after the chime of line 1, where its sheet was: one key goes back.
    expect(lost(oneDoor())(asked('gong zone1', '01 watch it?', 'yes')).places[0]).toMatchObject({
      place: 'watch zone1',
      shows: ['01 watch it?', 'yes'],
      asks: 'Zone 01 — Front door, supervise',
      apart: 0,
      unsaved: true,
    })
    expect(lost(oneDoor())(asked('16', '16 leaving, s', '45')).places[0]).toMatchObject({
      ...{ place: '16', asks: expect.stringMatching(/^Whole system, /) as string, back: '', unsaved: true },
    })
  })

  it('asks nothing at the door, where nothing unsaved is left', () => {
    expect(lost(oneDoor())(asked('16', 'ready', '12:30')).places[0]).toMatchObject({
      ...{ place: 'ready', asks: '', unsaved: false },
    })
  })

  it('is said of no more than four places; how many more, and the key that tells them apart', () => {
    const { places, more, tell } = lost(oneDoor())(asked('gong zone7', '', 'yes'))
    expect(places).toHaveLength(4)
    // As it comes the chime of line 7 is off, so that yes stands at the question after it.
    expect(places[0]?.place).toBe('watch zone7')
    expect(more).toBeGreaterThan(16)
    expect(tell?.groups).toBeGreaterThan(5)
    // What is read after one key leaves the places that this key leads from.
    const next = lost(oneDoor())({
      from: 'gong zone7',
      read: ['', 'yes'],
      then: [{ key: 'back', read: ['07 gong?', 'no'] }],
    })
    expect(next.places[0]).toMatchObject({ place: 'gong zone7', apart: 0, back: '' })
    expect(next.places.slice(1).every(({ apart }) => apart > 0)).toBe(true)
  })

  it('is nowhere where nothing was read, and no one key is wanted for one place', () => {
    expect(lost(oneDoor())(asked('16', '', ''))).toEqual({ places: [], more: 0, tell: null })
    const one = lost(oneDoor())(asked('16', '16 leaving, s', '45'))
    expect([one.places.length + one.more > 0, one.more]).toEqual([true, 0])
  })

  it('counts on what the panel came with only where it is known to hold that', () => {
    // As it comes the chime of line 7 is off; unknown, it may be on.
    expect(lost(oneDoor(), 'unknown')(yes).places[0]?.place).toBe('gong zone7')
    expect(lost(oneDoor(), 'factory')(yes).places[0]?.place).toBe('watch zone7')
  })

  it('counts on what was keyed, kept or not, over what it came with', () => {
    const keyed = (saved: boolean) =>
      oneDoor().apply([
        {
          op: 'add',
          record: {
            ...evidenceBy('Idris', '2026-05-04T09:00:00.000Z'),
            ...{ id: 'held:1', type: 'held', panel: 'panel/tarn-40', how: 'keyed', saved, section: '' },
            values: [{ address: 'zone.7.chime', value: 'on' }],
          },
        },
      ])
    const first = (saved: boolean, start: SheetStart) => lost(keyed(saved), start)(yes).places[0]?.place
    expect(first(true, 'keyed')).toBe('gong zone7')
    // What is not saved yet counts all the same: the panel shows it, wherever the sheet began.
    expect(first(false, 'keyed')).toBe('gong zone7')
    expect(first(false, 'factory')).toBe('gong zone7')
    expect(first(true, 'factory')).toBe('watch zone7')
  })

  it('says nothing of unsaved answers on a panel that keeps each', () => {
    const [, make] = jobOnEach.find(([id]) => id === 'quillet-32') ?? expect.fail()
    expect(lost(make())(asked('', 'Finished?', '')).places[0]).toMatchObject({ asks: '', unsaved: null })
  })
})

it('is told of no panel that nobody described, and of none', () => {
  expect(lostFor({ doc: new SmallJob({ panel: null }).doc, catalogue, start: 'factory' })).toBeNull()
})
