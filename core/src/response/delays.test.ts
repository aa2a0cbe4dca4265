import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { DelayField } from '../catalogue/schema.ts'
import { catalogue } from '../testing/small-job.ts'
import { bothNumbers, encodedWords } from './delay-words.ts'
import { decodeDelay, encodeDelay } from './delays.ts'
import { presets } from './presets.ts'
import { runs } from '../testing/runs.ts'

const tarn = catalogue.get('panel', 'panel/tarn-40')
const morrow = catalogue.get('panel', 'panel/morrow-60')
if (!tarn || !morrow) throw new Error('the demo pack lacks a panel')

describe('encoding a delay', () => {
  it.each([
    // Tarn 40: 5–240 s by 5 s, keyed in seconds.
    ['Tarn entry 30', tarn.delays.entry1, 30, 30, 30, ''],
    ['Tarn entry 31 goes up', tarn.delays.entry1, 31, 35, 35, '31 s goes up to 35 s, the next step'],
    ['Tarn entry 240', tarn.delays.entry1, 240, 240, 240, ''],
    ['Tarn entry 3 is raised', tarn.delays.entry1, 3, 5, 5, 'raised to 5 s, the least this field stores'],
    ['Tarn hold 0 means at once', tarn.delays.abort, 0, 0, 0, 'sent at once'],
    [
      'Tarn hold 1 is not rounded to 0',
      tarn.delays.abort,
      1,
      5,
      5,
      'raised to 5 s, the least this field stores',
    ],
    // Morrow 60: exit in steps of 15 s, 3–17.
    ['Morrow exit 60 is four steps', morrow.delays.exit, 60, 4, 60, ''],
    ['Morrow exit 61 goes up', morrow.delays.exit, 61, 5, 75, '61 s goes up to 75 s, the next step'],
    ['Morrow exit 45 is the least', morrow.delays.exit, 45, 3, 45, ''],
    ['Morrow exit 255 is the most', morrow.delays.exit, 255, 17, 255, ''],
    ['Morrow entry 0 means none', morrow.delays.entry1, 0, 0, 0, 'no delay'],
  ])('%s', (_name, field, wanted, keyed, seconds, words) => {
    const encoded = encodeDelay(field as DelayField, wanted)
    expect(encoded).toMatchObject({ ok: true, keyed, seconds })
    expect(encodedWords('the field', encoded)).toBe(words)
  })

  it('refuses beyond the field and names the nearest', () => {
    const result = encodeDelay(tarn.delays.entry1, 241)
    expect(result).toMatchObject({ ok: false, nearest: [240] })
    expect(encodedWords('First way-in time', result)).toBe(
      'First way-in time stores 5 s to 4 min in steps of 5 s: 4 min 1 s cannot be kept. Nearest: 4 min.',
    )
  })

  it('refuses a step up that leaves the preset, naming both neighbours', () => {
    const result = encodeDelay(tarn.delays.entry1, 43, { limit: { min: null, max: 44, usual: 30 } })
    expect(result).toMatchObject({ ok: false, nearest: [40, 45] })
    expect(encodeDelay(tarn.delays.entry1, 43, { limit: presets.europe.entry })).toMatchObject({
      ok: true,
      seconds: 45,
    })
  })

  it('goes down for siren times', () => {
    expect(encodeDelay(morrow.delays.exit, 74, { limit: null, direction: 'down' })).toMatchObject({
      ok: true,
      seconds: 60,
    })
    expect(encodeDelay(tarn.delays.abort as never, 3, { limit: null, direction: 'down' })).toMatchObject({
      ok: false,
    })
  })

  it('shows both numbers', () => {
    expect(bothNumbers(morrow.delays.exit, encodeDelay(morrow.delays.exit, 60))).toBe('4 → 60 s')
    expect(bothNumbers(morrow.delays.exit, encodeDelay(morrow.delays.exit, 999))).toBe('cannot be stored')
  })

  it('never shortens, never leaves the field, and decodes to what it says', () => {
    const fields = [tarn, morrow].flatMap((panel) =>
      Object.values(panel.delays).filter((field) => field !== null),
    )
    fc.assert(
      fc.property(fc.constantFrom(...fields), fc.integer({ min: 0, max: 300 }), (field, wanted) => {
        const result = encodeDelay(field, wanted)
        if (!result.ok) {
          expect(wanted).toBeGreaterThan(decodeDelay(field, field.max))
          return
        }
        expect(result.seconds).toBeGreaterThanOrEqual(wanted)
        expect(decodeDelay(field, result.keyed)).toBe(result.seconds)
        expect(result.seconds - wanted).toBeLessThan(
          Math.max(field.step * field.secondsPerUnit, decodeDelay(field, field.min) + 1),
        )
      }),
      { seed: 3, numRuns: runs(6000) },
    )
  })
})
