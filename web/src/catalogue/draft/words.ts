import type { Answer, Catalogue } from '#core'

/** What an entry of a kind is called. */
export const kindWords: Readonly<Record<string, string>> = {
  device: 'device',
  receiver: 'receiver',
  family: 'radio family',
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
