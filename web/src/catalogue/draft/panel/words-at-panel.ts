import { lowerFirst, type Decides, type Effect, type Landing, type PanelInput } from '#core'

/* What is said at the panel. */

const hidden: Readonly<Record<string, string>> = {
  chime: 'chime',
  report: 'report',
  supervise: 'supervision',
  transmissionDelay: 'hold before sending',
  fireGroup: 'fire pair',
}

/** What could decide, in words. */
export function decidesWords({ of, guard }: Decides): string {
  const pointer = Object.entries(guard.pointer ?? {})[0]
  const what =
    pointer !== undefined
      ? pointerWords(pointer[0], pointer[1])
      : guard.hides !== undefined
        ? `the type of the zone has no ${hidden[guard.hides] ?? guard.hides}`
        : 'nothing was typed'
  return of === 'now' ? `this, because ${what}` : `it did the other, because ${what} then`
}

function pointerWords(name: string, at: unknown): string {
  if (at === 'first' || at === 'last') return `it is the ${at} ${name}`
  return `the ${name} is one of these`
}

/** What became of what was keyed. */
export const effectWords: Readonly<Record<Effect, string>> = {
  none: 'nothing yet',
  keep: 'it is kept',
  drop: 'it is lost',
  factory: 'all is as shipped',
  listen: 'it listens now',
}

/** A display with its numbers and its message. */
export function landingWords({ screen, pointers, says }: Landing): string {
  const numbers = Object.entries(pointers).map(([name, at]) => `${name} ${at}`)
  return [screen, ...numbers, ...(says === '' ? [] : [`message “${says}”`])].join(', ')
}

/** What was done. */
export function inputWords(input: PanelInput): string {
  switch (input.kind) {
    case 'press':
      return `[${input.key}]`
    case 'hold':
      return `[${input.key}] held for ${input.seconds} s`
    case 'code':
      return lowerFirst(`(${input.who} code)`)
    case 'hear':
      return 'a transmission'
    case 'wait':
      return `${input.seconds} s of waiting`
  }
}
