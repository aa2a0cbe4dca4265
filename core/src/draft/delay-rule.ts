import type { DelayField } from '../catalogue/schema.ts'

/*
 * A panel's field for a time, found from values that somebody keyed and the seconds that they stand for, as its manual says or as
 * they were timed. A unit that is guessed wrong is a delay off by a factor of ten.
 */

/** What is found of a field. */
type DelayRule = Pick<DelayField, 'secondsPerUnit' | 'min' | 'max' | 'step' | 'reserved'> & {
  readonly form: 'number' | 'minutes-seconds'
}

/** A value as it is keyed, such as 09, 1:30 or 045, and the seconds that it stands for. */
export interface KeyedTime {
  readonly keyed: string
  readonly seconds: number
}

/** What is known of a field: the least and the most that it takes, and other values that it takes. */
export interface KeyedTimes {
  readonly least: KeyedTime
  readonly most: KeyedTime
  readonly others: readonly KeyedTime[]
}

/** Something that these values do not tell, with what would. */
interface OpenDelay {
  readonly about: 'step' | 'none'
  readonly ask: string
  readonly tell: string
  readonly choices: readonly { readonly title: string; readonly change: Partial<DelayRule> }[]
}

/** The rule that fits all values, and what is still open; no rule where they contradict each other. */
export interface FoundDelay {
  readonly rule: DelayRule | null
  readonly open: readonly OpenDelay[]
  readonly problems: readonly string[]
}

/** Steps that panels have, in keyed units (house judgement). */
const usualSteps = [60, 30, 20, 15, 10, 5, 2, 1] as const
const MOST_UNIT = 60

/** Finds unit, range and step of a field. */
export function findDelayRule({ least, most, others }: KeyedTimes): FoundDelay {
  const list = [least, most, ...others].map((one) => ({ ...one, value: valueOf(one.keyed) }))
  const problems = [
    ...unreadable(list),
    ...(list.some(({ value }) => value === null) ? [] : disagreements(list)),
  ]
  if (problems.length > 0) return { rule: null, open: [], problems }
  const values = list.map(({ value }) => value ?? 0)
  const [min = 0, max = 0] = values
  if (values.some((value) => value < min || value > max))
    return {
      rule: null,
      open: [],
      problems: ['A value lies outside the least and the most that the field takes.'],
    }
  const form = list.some(({ keyed }) => keyed.includes(':')) ? 'minutes-seconds' : 'number'
  const secondsPerUnit = unitOf(list) ?? 1
  const found: DelayRule = { secondsPerUnit, min, max, step: 1, reserved: [], form }
  // A field takes multiples of its step, from the first one that is not below its least.
  const steps = usualSteps.filter((step) => values.every((value) => value % step === 0))
  const [widest = 1] = steps
  return {
    rule: { ...found, step: widest },
    open: [...stepOpen(found, steps), ...noneOpen(found, widest)],
    problems: [],
  }
}

interface Read extends KeyedTime {
  /** In keyed units: of 1:30 the seconds; null where it cannot be read. */
  readonly value: number | null
}

function valueOf(keyed: string): number | null {
  const text = keyed.trim()
  const clock = /^(\d{1,2}):([0-5]\d)$/.exec(text)
  if (clock) return Number(clock[1]) * 60 + Number(clock[2])
  return /^\d{1,4}$/.test(text) ? Number(text) : null
}

function unreadable(list: readonly Read[]): string[] {
  return list.flatMap(({ keyed, seconds, value }) => {
    if (value === null) return [`“${keyed}” must be 1 to 4 digits, or minutes and seconds such as 1:30.`]
    return Number.isInteger(seconds) && seconds >= 0 ? [] : [`${keyed}: its time must be whole seconds.`]
  })
}

/** Values of which one gives another unit: a factor of ten is what is mistaken most. */
function disagreements(list: readonly Read[]): string[] {
  const told = list.flatMap((one) => (one.value ? [{ ...one, unit: one.seconds / one.value }] : []))
  const [first] = told
  const off = list.find(({ value, seconds }) => value === 0 && seconds !== 0)
  if (off) return [`${off.keyed} stands for ${off.seconds} s: a value of nothing can only be no time.`]
  if (!first) return ['Type one value that is not 0: the unit cannot be told from it.']
  const other = told.find(({ unit }) => unit !== first.unit)
  if (other)
    return [
      `${first.keyed} for ${first.seconds} s and ${other.keyed} for ${other.seconds} s are not of one unit${isTenfold(first.unit, other.unit) ? ': one of them is off by a factor of ten' : ''}.`,
    ]
  if (!Number.isInteger(first.unit) || first.unit < 1 || first.unit > MOST_UNIT)
    return [
      `${first.keyed} for ${first.seconds} s would be a unit of ${first.unit} s: whole seconds from 1 to ${MOST_UNIT} are possible.`,
    ]
  return []
}

function isTenfold(a: number, b: number): boolean {
  return Math.max(a, b) / Math.min(a, b) === 10
}

function unitOf(list: readonly Read[]): number | null {
  const one = list.find(({ value }) => value !== null && value > 0)
  return one?.value ? one.seconds / one.value : null
}

/** More than one step fits: the next value after the least tells which. */
function stepOpen({ min, max, form }: DelayRule, steps: readonly number[]): OpenDelay[] {
  if (steps.length < 2 || min === max) return []
  return [
    {
      ...{ about: 'step', ask: 'Which values lie between?' },
      tell: `Key the next one after ${written(min, form)}, and see which it takes.`,
      choices: steps.map((step) => ({
        title: `${written(min, form)}, ${written(min + step, form)}${min + 2 * step <= max ? `, ${written(min + 2 * step, form)}` : ''} …`,
        change: { step },
      })),
    },
  ]
}

/** The value 0 may be a time of nothing, or switch the delay off. */
function noneOpen({ min, form }: DelayRule, step: number): OpenDelay[] {
  if (min !== 0) return []
  const reserved = [{ value: 0, meaning: 'none' }]
  return [
    {
      ...{ about: 'none', ask: `What does ${written(0, form)} do?` },
      tell: 'The manual says so beside the field.',
      choices: [
        { title: 'it is a time of 0 s', change: { min: 0, reserved: [] } },
        { title: 'it switches the delay off', change: { min: step, reserved } },
      ],
    },
  ]
}

function written(value: number, form: DelayRule['form']): string {
  return form === 'number'
    ? String(value)
    : `${Math.floor(value / 60)}:${String(value % 60).padStart(2, '0')}`
}
