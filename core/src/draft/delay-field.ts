import type { Answer } from './records.ts'

/*
 * A time of a panel as it is being described: its name and address are typed, its unit, range and step are found from keyed values.
 */

/** What is wrong with a time, naming what is missing; empty where nothing is. */
export function delayProblem(value: NonNullable<Answer['value']>): string {
  if (typeof value !== 'object' || Array.isArray(value)) return 'must be a time found from keyed values'
  const lacks = [
    isText(value.name) ? '' : 'the panel’s own name of it',
    isText(value.address) ? '' : 'its address',
    typeof value.secondsPerUnit === 'number' ? '' : 'its unit and range: key two values',
  ].filter((words) => words !== '')
  return lacks.length === 0 ? '' : `lacks ${lacks.join(', ')}`
}

function isText(value: unknown): boolean {
  return typeof value === 'string' && value.trim() !== ''
}
