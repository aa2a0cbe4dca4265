import { describe, expect, it } from 'vitest'
import type { DelayField } from '../catalogue/schema.ts'
import { catalogue } from '../testing/small-job.ts'
import { aJob } from '../job/testing/records.ts'
import { decodeDelay, delayFieldOf, delayKeys, encodeDelay, type DelayKey } from './delays.ts'

/*
 * The edge values of every delay field of every panel, reasoned by hand from what each panel is meant to be: what is keyed and what it means for
 * a wanted 0 s, one second below and above the least, the step, the most and one second beyond. `keyed/seconds`, or `-`
 * where it cannot be stored.
 */
const edges: readonly (readonly [string, DelayKey, Readonly<Record<number, string>>])[] = [
  // Tarn 40: 5–240 s by 5 s, all three; hold 0–60 s by 5 s, 0 meaning at once.
  [
    'tarn-40',
    'entry1',
    { 0: '5/5', 4: '5/5', 5: '5/5', 6: '10/10', 10: '10/10', 239: '240/240', 240: '240/240', 241: '-' },
  ],
  [
    'tarn-40',
    'entry2',
    { 0: '5/5', 4: '5/5', 5: '5/5', 6: '10/10', 236: '240/240', 240: '240/240', 241: '-' },
  ],
  ['tarn-40', 'exit', { 0: '5/5', 5: '5/5', 61: '65/65', 240: '240/240', 241: '-', 300: '-' }],
  ['tarn-40', 'abort', { 0: '0/0', 1: '5/5', 5: '5/5', 56: '60/60', 60: '60/60', 61: '-' }],
  // Morrow 60: entries 0–240 s, 0 meaning none; exit in steps of 15 s, 3–17; abort window 15–45 s.
  ['morrow-60', 'entry1', { 0: '0/0', 1: '1/1', 240: '240/240', 241: '-' }],
  ['morrow-60', 'entry2', { 0: '0/0', 1: '1/1', 239: '239/239', 240: '240/240', 241: '-' }],
  [
    'morrow-60',
    'exit',
    {
      0: '3/45',
      44: '3/45',
      45: '3/45',
      46: '4/60',
      60: '4/60',
      61: '5/75',
      254: '17/255',
      255: '17/255',
      256: '-',
    },
  ],
  ['morrow-60', 'abort', { 0: '15/15', 14: '15/15', 15: '15/15', 45: '45/45', 46: '-' }],
  // Ostler S, both: 0–255 s, 0 meaning none; call hold 0–120 s.
  ['ostler-s-8', 'entry1', { 0: '0/0', 1: '1/1', 255: '255/255', 256: '-' }],
  ['ostler-s-8', 'entry2', { 0: '0/0', 1: '1/1', 255: '255/255', 256: '-' }],
  ['ostler-s-8', 'exit', { 0: '0/0', 254: '254/254', 255: '255/255', 256: '-' }],
  ['ostler-s-8', 'exitStay', { 0: '0/0', 1: '1/1', 255: '255/255', 256: '-' }],
  ['ostler-s-8', 'abort', { 0: '0/0', 1: '1/1', 120: '120/120', 121: '-' }],
  ['ostler-s-9', 'entry1', { 0: '0/0', 255: '255/255', 256: '-' }],
  ['ostler-s-9', 'entry2', { 0: '0/0', 255: '255/255', 256: '-' }],
  ['ostler-s-9', 'exit', { 0: '0/0', 255: '255/255', 256: '-' }],
  ['ostler-s-9', 'exitStay', { 0: '0/0', 1: '1/1', 255: '255/255', 256: '-' }],
  ['ostler-s-9', 'abort', { 0: '0/0', 120: '120/120', 121: '-' }],
  // Pinfold 16: entry A 1–90 s; entry B in steps of 15 s, 1–60; exit 5–90 s.
  ['pinfold-16', 'entry1', { 0: '1/1', 1: '1/1', 90: '90/90', 91: '-' }],
  ['pinfold-16', 'entry2', { 0: '1/15', 1: '1/15', 15: '1/15', 16: '2/30', 30: '2/30', 300: '20/300' }],
  ['pinfold-16', 'exit', { 0: '5/5', 4: '5/5', 5: '5/5', 6: '6/6', 90: '90/90', 91: '-' }],
  // Quillet 32: 10–250 s by 10 s; waiting time 0–60 s by 10 s, 0 meaning at once.
  [
    'quillet-32',
    'entry1',
    { 0: '10/10', 9: '10/10', 10: '10/10', 11: '20/20', 241: '250/250', 250: '250/250', 251: '-' },
  ],
  ['quillet-32', 'entry2', { 0: '10/10', 10: '10/10', 19: '20/20', 250: '250/250', 251: '-' }],
  ['quillet-32', 'exit', { 0: '10/10', 10: '10/10', 21: '30/30', 250: '250/250', 251: '-' }],
  // In the part set 0 is no delay at all.
  ['quillet-32', 'exitStay', { 0: '0/0', 1: '10/10', 10: '10/10', 241: '250/250', 250: '250/250', 251: '-' }],
  ['quillet-32', 'abort', { 0: '0/0', 1: '10/10', 10: '10/10', 51: '60/60', 60: '60/60', 61: '-' }],
  // Sallow M: minutes and seconds by 5 s, to five minutes; send after 0–60 s by 5 s.
  ['sallow-m', 'entry1', { 0: '5/5', 5: '5/5', 6: '10/10', 296: '300/300', 300: '300/300' }],
  ['sallow-m', 'entry2', { 0: '5/5', 5: '5/5', 61: '65/65', 300: '300/300' }],
  ['sallow-m', 'exit', { 0: '5/5', 5: '5/5', 291: '295/295', 300: '300/300' }],
  ['sallow-m', 'abort', { 0: '0/0', 1: '5/5', 60: '60/60', 61: '-' }],
]

const field = (panel: string, key: (typeof edges)[number][1]): DelayField => {
  const found = catalogue.get('panel', `panel/${panel}`)?.delays[key]
  if (!found) throw new Error(`${panel} has no ${key}`)
  return found
}
const keyed = (delay: DelayField, wanted: number): string => {
  const result = encodeDelay(delay, wanted)
  return result.ok ? `${result.keyed}/${result.seconds}` : '-'
}

describe('every delay field of every panel', () => {
  it('stands in the table', () => {
    const all = catalogue
      .all('panel')
      .flatMap((panel) =>
        delayKeys.filter((key) => panel.delays[key]).map((key) => `${panel.id.slice(6)} ${key}`),
      )
    expect(edges.map(([panel, key]) => `${panel} ${key}`).sort()).toEqual(all.sort())
  })

  it.each(edges)('%s %s keys its edge values', (panel, key, table) => {
    const delay = field(panel, key)
    const got = Object.fromEntries(Object.keys(table).map((wanted) => [wanted, keyed(delay, Number(wanted))]))
    expect(got).toEqual(table)
  })

  it('follows the option that switches its unit', () => {
    const panel = catalogue.get('panel', 'panel/pinfold-16')
    const at = (exitUnitSwitched: boolean) => {
      const delay = delayFieldOf(panel, aJob({ exitUnitSwitched }), 'exit')
      if (!delay) throw new Error('no field')
      return [14, 15, 60, 61, 90, 91, 300].map((wanted) => keyed(delay, wanted))
    }
    expect(at(false)).toEqual(['14/14', '15/15', '60/60', '61/61', '90/90', '-', '-'])
    // The same 4 then means 60 s, not 4 s: a delay off by a factor of 15.
    expect(at(true)).toEqual(['1/15', '1/15', '4/60', '5/75', '6/90', '7/105', '20/300'])
  })

  it.each(edges)('%s %s decodes what it keys, for every second to 300', (panel, key) => {
    const delay = field(panel, key)
    const step = delay.step * delay.secondsPerUnit
    for (let wanted = 0; wanted <= 300; wanted++) {
      const result = encodeDelay(delay, wanted)
      if (!result.ok) {
        expect(wanted).toBeGreaterThan(decodeDelay(delay, delay.max))
        continue
      }
      expect(decodeDelay(delay, result.keyed)).toBe(result.seconds)
      expect(result.seconds).toBeGreaterThanOrEqual(wanted)
      // Never more than a step too long, but for what is raised to the least.
      if (result.seconds > decodeDelay(delay, delay.min)) expect(result.seconds - wanted).toBeLessThan(step)
      // A reserved value is never reached by rounding.
      if (result.seconds !== wanted)
        expect(delay.reserved.map((item) => item.value)).not.toContain(result.keyed)
    }
  })
})
