import { describe, expect, it } from 'vitest'
import { decodeDelay, encodeDelay } from '../response/delays.ts'
import { seededRandom } from '../units/random.ts'
import { catalogue } from '../testing/small-job.ts'
import { findDelayRule, type FoundDelay, type KeyedTime } from './delay-rule.ts'

/** `09=54` is a keyed value and its seconds. */
const time = (text: string): KeyedTime => {
  const [keyed = '', seconds = ''] = text.split('=')
  return { keyed, seconds: Number(seconds) }
}
const find = (least: string, most: string, ...others: string[]): FoundDelay =>
  findDelayRule({ least: time(least), most: time(most), others: others.map(time) })
const asked = ({ open }: FoundDelay): string[] => open.map(({ about }) => about)

describe('a field for a time', () => {
  it.each<[string, FoundDelay, object]>([
    [
      'seconds, one by one',
      find('15=15', '99=99', '16=16'),
      { secondsPerUnit: 1, min: 15, max: 99, step: 1, form: 'number' },
    ],
    ['tens of seconds', find('01=10', '25=250', '02=20'), { secondsPerUnit: 10, min: 1, max: 25, step: 1 }],
    [
      'minutes and seconds',
      find('0:05=5', '5:00=300', '0:07=7', '0:06=6'),
      { secondsPerUnit: 1, min: 5, max: 300, step: 1, form: 'minutes-seconds' },
    ],
    ['one value only', find('30=30', '30=30'), { min: 30, max: 30 }],
  ])('%s', (_name, found, rule) => {
    expect([found.problems, asked(found)]).toEqual([[], []])
    expect(found.rule).toMatchObject({ reserved: [], ...rule })
  })

  it('asks for the step where several fit, the widest offered first', () => {
    // 15 and 255 are multiples of 15, of 5 and of 1.
    const found = find('15=15', '255=255')
    expect(asked(found)).toEqual(['step'])
    expect(found.open[0]?.choices.map(({ change }) => change.step)).toEqual([15, 5, 1])
    expect(found.open[0]?.choices[0]?.title).toBe('15, 30, 45 …')
    expect(found.open[0]?.tell).toContain('the next one after 15')
    // With 20 between, 15 is out.
    expect(find('15=15', '255=255', '20=20').open[0]?.choices.map(({ change }) => change.step)).toEqual([
      5, 1,
    ])
    expect(find('0:10=10', '0:20=20').open[0]?.choices.map(({ title }) => title)).toEqual([
      ...['0:10, 0:20 …', '0:10, 0:15, 0:20 …', '0:10, 0:12, 0:14 …', '0:10, 0:11, 0:12 …'],
    ])
  })

  it('asks whether 0 is a time or none', () => {
    const found = find('0=0', '9=54', '1=6')
    expect(asked(found)).toEqual(['none'])
    expect(found.rule).toMatchObject({ secondsPerUnit: 6, min: 0, max: 9, step: 1 })
    expect(found.open[0]?.choices.map(({ change }) => change)).toEqual([
      { min: 0, reserved: [] },
      { min: 1, reserved: [{ value: 0, meaning: 'none' }] },
    ])
  })

  it.each<[string, FoundDelay, string]>([
    [
      'a factor of ten',
      find('15=15', '45=450'),
      '15 for 15 s and 45 for 450 s are not of one unit: one of them is off by a factor of ten.',
    ],
    ['two units', find('15=15', '45=90'), '15 for 15 s and 45 for 90 s are not of one unit.'],
    ['half a second', find('10=5', '20=10'), 'a unit of 0.5 s: whole seconds from 1 to 60'],
    ['more than a minute', find('1=90', '2=180'), 'a unit of 90 s: whole seconds from 1 to 60'],
    ['no value', find('x=5', '20=20'), '“x” must be 1 to 4 digits, or minutes and seconds such as 1:30.'],
    ['no seconds', find('1:75=135', '2:00=120'), '“1:75” must be'],
    ['half seconds', find('5=5.5', '20=20'), '5: its time must be whole seconds.'],
    ['nothing that takes time', find('0=5', '20=20'), '0 stands for 5 s'],
    ['nothing at all', find('0=0', '0=0'), 'Type one value that is not 0'],
    ['outside its range', find('15=15', '45=45', '60=60'), 'outside the least and the most'],
    ['turned round', find('45=45', '15=15'), 'outside the least and the most'],
  ])('%s is no rule but a word on why', (_name, found, says) => {
    expect([found.rule, found.open]).toEqual([null, []])
    expect(found.problems.join(' ')).toContain(says)
  })

  it('of every delay of the demo panels is found again, or the step is asked among others', () => {
    let tried = 0
    for (const { id, delays } of catalogue.all('panel'))
      for (const [key, field] of Object.entries(delays)) {
        if (!field || field.min === field.max) continue
        const written = (value: number): string =>
          field.form === 'minutes-seconds'
            ? `${Math.floor(value / 60)}:${String(value % 60).padStart(2, '0')}`
            : String(value)
        const seen = (value: number): KeyedTime => ({
          keyed: written(value),
          seconds: decodeDelay(field, value),
        })
        const next = Math.min(field.max, field.min + field.step)
        const { rule, open, problems } = findDelayRule({
          least: seen(field.min),
          most: seen(field.max),
          others: [seen(next)],
        })
        expect([id, key, problems]).toEqual([id, key, []])
        expect(rule).toMatchObject({ secondsPerUnit: field.secondsPerUnit, min: field.min, max: field.max })
        const steps = open
          .find(({ about }) => about === 'step')
          ?.choices.map(({ change }) => change.step) ?? [rule?.step]
        expect([id, key, steps.includes(field.step)]).toEqual([id, key, true])
        tried += 1
      }
    expect(tried).toBeGreaterThan(15)
  })

  it('of random fields what it finds takes every value that the field takes, as the same seconds', () => {
    for (let seed = 1; seed <= 300; seed += 1) {
      const random = seededRandom(seed)
      const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T
      const secondsPerUnit = pick([1, 2, 5, 10, 15, 30, 60])
      const step = pick([1, 2, 5, 10, 15, 30])
      const min = step * Math.floor(random() * 8)
      const max = min + step * (1 + Math.floor(random() * 30))
      const field = { name: 'x', secondsPerUnit, min, max, step, reserved: [], address: 'x' }
      const seen = (value: number): KeyedTime => ({ keyed: String(value), seconds: value * secondsPerUnit })
      const { rule, open } = findDelayRule({ least: seen(min), most: seen(max), others: [seen(min + step)] })
      if (!rule) throw new Error(`seed ${seed}: nothing found`)
      const offered = open
        .find(({ about }) => about === 'step')
        ?.choices.map(({ change }) => change.step) ?? [rule.step]
      expect([seed, offered.includes(step)]).toEqual([seed, true])
      for (let value = Math.max(min, step); value <= max; value += step)
        expect(encodeDelay({ ...field, ...rule, step }, value * secondsPerUnit)).toMatchObject({
          ok: true,
          keyed: value,
          differs: null,
        })
    }
  })
})
