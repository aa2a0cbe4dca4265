import type { Made } from '#core'

/** Said behind a maker's name where nobody here saw it: it counts for nothing until it is repeated. */
export function toldWords(made: Made): string {
  if (made.told === 'file') return ' (told by the file, does not count)'
  if (made.told === 'build') return ' (told by an earlier version, does not count)'
  if (made.told === 'owner') return ' (handed in by an owner, does not count)'
  return made.clockDoubtful ? ' (clock doubtful)' : ''
}
