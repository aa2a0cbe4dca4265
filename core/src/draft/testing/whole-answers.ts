import { movesOf, screenOf, type Compiled } from '../../panel/compiled.ts'
import { held, type Input, type PanelState } from '../../panel/state.ts'
import { listOf } from '../../panel/widgets.ts'

/* What somebody can do at a panel besides pressing one key. */

const namesIn = (text: string): string[] =>
  [...text.matchAll(/\{([a-zA-Z0-9-]+)\}/g)].map((match) => match[1] ?? '')

/** IDs of every shape, for panels that hear one or another. */
const ids = ['20417733', '10423344', '4B2K90QX', 'K700123', 'A3F09C', 'A3F09C11D2']

/** One act of somebody who presses keys at random, and now and then gives a whole answer or holds a key. */
export function anyAct(real: Compiled, state: PanelState, random: () => number): readonly Input[] {
  const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)]
  const whole = random() < 0.3 ? pick(wholeAnswers(real, state, random)) : undefined
  if (whole) return whole.inputs
  const hold = Object.entries(screenOf(real, state.screen).holds ?? {})[0]
  if (hold && random() < 0.3) return [{ kind: 'hold', key: hold[0], seconds: hold[1].seconds }]
  const { idle } = real.description
  if (idle && random() < 0.002) return [{ kind: 'wait', seconds: idle.seconds }]
  return [{ kind: 'press', key: pick([...real.keys]) ?? '' }]
}

/** Whole answers that a display takes: a code, a number to go to, a value, an ID that is heard, or the time that it works. */
export function wholeAnswers(
  real: Compiled,
  state: PanelState,
  random: () => number,
): readonly { readonly id: string; readonly inputs: readonly Input[] }[] {
  const { screen } = state
  const { widget } = screenOf(real, screen)
  const press = (key: string): Input => ({ kind: 'press', key })
  const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)]
  const sent = (typed: string, send: string | undefined): readonly Input[] => [
    ...[...typed].map(press),
    ...(send === undefined ? [] : [press(send)]),
  ]
  switch (widget.kind) {
    case 'busy':
      return [{ id: `${screen} wait`, inputs: [{ kind: 'wait', seconds: widget.seconds }] }]
    case 'code':
      return [{ id: `${screen} code`, inputs: [{ kind: 'code', who: widget.who }, press(widget.send)] }]
    case 'jump':
      return Object.keys(widget.to).flatMap((pattern) => {
        let typed = pattern
        for (const name of namesIn(pattern)) {
          const range = real.description.pointers[name]
          if (!range) continue
          const edges = [
            range.from,
            range.to,
            range.from + Math.floor(random() * (range.to - range.from + 1)),
          ]
          typed = typed.replace(`{${name}}`, String(pick(edges)).padStart(range.digits ?? 1, '0'))
        }
        return [{ id: `${screen} to ${pattern}`, inputs: sent(typed, widget.send) }]
      })
    case 'number': {
      const list = listOf(real, state, widget.at)
      const values = list.length > 0 ? list.map(({ keyed }) => keyed) : ['1', '5', '30', '60', '240', '301']
      return values.map((keyed) => ({ id: `${screen} value ${keyed}`, inputs: sent(keyed, widget.send) }))
    }
    case 'choice':
      return listOf(real, state, widget.at).map((_row, times) => ({
        id: `${screen} choice ${times}`,
        inputs: [...Array.from({ length: times }, () => press(widget.next)), press(widget.take)],
      }))
    case 'serial': {
      const listens = Object.entries(screenOf(real, screen).keys ?? {}).flatMap(([key, target]) =>
        movesOf(target).some((move) => move.do?.includes('listen')) ? [press(key)] : [],
      )
      const values = real.values(widget.at, held(state))
      const taken = held(state)('zone.1.serial')
      return [...ids, taken]
        .filter((serial) => serial !== '' && values?.read(serial) === serial)
        .flatMap((serial) => [
          {
            id: `${screen} hear`,
            inputs: [
              ...listens,
              ...Array.from({ length: widget.needs }, () => ({ kind: 'hear', serial, loop: 3 }) as const),
            ],
          },
          ...(/^\d+$/.test(serial) ? [{ id: `${screen} typed id`, inputs: sent(serial, widget.send) }] : []),
        ])
    }
    default:
      return []
  }
}
