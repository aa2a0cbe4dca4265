import type { Asked } from './question.ts'

type Of = Asked['of']
/** Whether it is of one of these classes. */
export const is =
  (of: Of) =>
  (...classes: string[]): boolean =>
    classes.includes(String(of('class')))

/** Whether it speaks by radio. */
export function isRadio(of: Of): boolean {
  return typeof of('family') === 'string'
}
