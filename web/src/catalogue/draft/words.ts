import type { Answer, Catalogue } from '#core'

/** What an entry of a kind is called. */
export const kindWords: Readonly<Record<string, string>> = {
  device: 'device',
  receiver: 'receiver',
  family: 'radio family',
  panel: 'panel',
  interface: 'way of keying',
}

/** An answer in a line, to lay beside another. */
export function answerWords(value: Answer['value'], unless: string, catalogue: Catalogue): string {
  if (value === null) return unless === '' ? 'nothing' : unless
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value)) return value.map((one) => answerWords(one, '', catalogue)).join('; ')
  if (typeof value === 'object')
    return Object.values(value)
      .filter((one) => one !== null && one !== '')
      .map((one) => answerWords(one, '', catalogue))
      .join(' ')
  return catalogue.entries.find(({ id }) => id === value)?.name ?? String(value)
}

/** What a time of a panel takes. */
export interface TimeRule {
  readonly secondsPerUnit: number
  readonly min: number
  readonly max: number
  readonly step: number
  readonly reserved: readonly { readonly value: number; readonly meaning: string }[]
  readonly form?: 'number' | 'minutes-seconds'
}

/** Unit, range and step of a time in a line. */
export function timeWords({ secondsPerUnit, min, max, step, reserved, form }: TimeRule): string {
  const range = `${min * secondsPerUnit} to ${max * secondsPerUnit} s in steps of ${step * secondsPerUnit} s`
  const keyed =
    form === 'minutes-seconds'
      ? 'keyed as minutes and seconds'
      : secondsPerUnit === 1
        ? `keyed in seconds, ${min} to ${max}`
        : `keyed ${min} to ${max}, each ${secondsPerUnit} s`
  const own = reserved.map(({ value, meaning }) => `; ${value} means ${meaning}`).join('')
  return `${range}, ${keyed}${own}`
}
