import { describe, expect, it } from 'vitest'
import { catalogue } from '../testing/small-job.ts'
import { interfaceProblems } from './interface-check.ts'
import { readPack } from './pack.ts'
import type { PanelInterface } from './schema.ts'

interface Loose {
  [key: string]: Loose | string | number | boolean | readonly unknown[] | undefined | null
}

/** What the checker says of the Tarn's interface once something in it was changed. */
function after(change: (entry: Loose) => void): string[] {
  const entry = structuredClone(catalogue.get('interface', 'interface/tarn-40')) as unknown as Loose
  change(entry)
  return interfaceProblems(entry as unknown as PanelInterface).map(
    ({ path, message }) => `${path.replace('interface/tarn-40.', '')}: ${message}`,
  )
}

const set =
  (path: string, value: unknown) =>
  (entry: Loose): void => {
    const names = path.split('/')
    const last = names.pop() ?? ''
    const at = names.reduce((place, name) => place[name] as Loose, entry)
    if (value === undefined) Reflect.deleteProperty(at, last)
    else at[last] = value as Loose[string]
  }

describe('a description of an interface', () => {
  it('of the demo pack leaves nothing open', () => {
    const all = catalogue.all('interface')
    expect(all.map((entry) => interfaceProblems(entry))).toEqual(all.map(() => []))
  })

  it.each<[string, (entry: Loose) => void, string]>([
    ['a start that is no screen', set('start', 'door'), 'start: names no screen: door'],
    [
      'a key that leads nowhere',
      set('screens/leave/keys/back', 'menu'),
      'screens.leave.keys.back: goes to no screen: menu',
    ],
    [
      'a key that leads to a name that every object answers to',
      set('screens/leave/keys/back', 'constructor'),
      'screens.leave.keys.back: goes to no screen: constructor',
    ],
    [
      'a pointer of such a name',
      set('screens/leave/keys/back', { point: { valueOf: '+' } }),
      'screens.leave.keys.back: moves no pointer: valueOf',
    ],
    [
      'a key that the panel has not',
      set('screens/leave/keys/star', '14'),
      'screens.leave.keys.star: is no key of this panel: star',
    ],
    [
      'a common key that it has not',
      set('common/star', 'leave'),
      'common.star: is no key of this panel: star',
    ],
    [
      'a key held that it has not',
      set('screens/ready/holds/star', { seconds: 3, to: 'user' }),
      'screens.ready.holds.star: is no key of this panel: star',
    ],
    [
      'a key of a question that it has not',
      set('screens/14/widget/send', 'star'),
      'screens.14.widget: is no key of this panel: star',
    ],
    [
      'a screen that nothing leads to',
      set('screens/attic', { lines: ['attic'], widget: { kind: 'menu' }, keys: { tick: '14' } }),
      'screens.attic: is never reached',
    ],
    [
      'a screen that nothing leads out of',
      set('screens/leave/keys', { tick: '.', cross: '.' }),
      'screens.leave: is never left',
    ],
    [
      'a step beside a screen that is in no walk',
      set('screens/leave/keys/next', '>'),
      'screens.leave.keys.next: goes to “>”, but is in no walk',
    ],
    [
      'an answer that steps on from a screen in no walk',
      set('screens/goto/widget/to/14', '<'),
      'screens.goto.widget: goes to “<”, but is in no walk',
    ],
    [
      'a walk with a screen that is not there',
      set('walks/line/screens/9', 'sums'),
      'walks.line: names no screen: sums',
    ],
    [
      'a screen in two walks',
      set('walks/line/screens/9', '14'),
      'walks.line: has 14, which is in walk questions already',
    ],
    [
      'a walk that can be passed over whole',
      set('walks/short', { screens: ['send', 'hold'], after: '14', before: '14' }),
      'walks.short: can be passed over whole: at least one screen must always be shown',
    ],
    [
      'a jump hidden by another',
      set('screens/50/widget/to/07', 'does'),
      'screens.50.widget.to.07: is hidden by {zone} at 07',
    ],
    [
      'a jump to two numbers, of which nothing tells where the first ends',
      (entry) => {
        set('pointers/fob/digits', undefined)(entry)
        set('screens/goto/widget/to/{fob}{keypad}', '14')(entry)
      },
      'screens.goto.widget.to.{fob}{keypad}: must give fob a number of digits: another pointer follows it',
    ],
    [
      'a jump longer than its digits',
      set('screens/goto/widget/to/114', '14'),
      'screens.goto.widget.to.114: is longer than 2 digits: 114',
    ],
    [
      'a jump that never fills its digits',
      (entry) => {
        set('screens/99/widget/send', undefined)(entry)
        set('screens/99/widget/to/7', 'wiping')(entry)
      },
      'screens.99.widget.to.7: never fills 3 digits, and no key sends it: 7',
    ],
    [
      'a display that needs a pointer it does not depend on',
      set('screens/gong/over', ['fob']),
      'screens.gong.lines: needs {zone}, which is not in its “over”',
    ],
    [
      'a guard over a pointer it does not depend on',
      set('screens/14/keys', { tick: [{ when: { pointer: { zone: 'last' } }, go: '15' }] }),
      'screens.14.keys.tick: needs {zone}, which is not in its “over”',
    ],
    [
      'a pointer that is not there',
      set('screens/14/over', ['area']),
      'screens.14.over: names no pointer: area',
    ],
    [
      'a move of a pointer that is not there',
      set('screens/leave/keys/back', [{ point: { area: '+' }, go: '14' }]),
      'screens.leave.keys.back: moves no pointer: area',
    ],
    [
      'an address without a field',
      set('fields/system.exit', undefined),
      'fields: does not say what system.exit holds',
    ],
    [
      'a field that no screen sets',
      set('fields/system.exitStay', { form: { kind: 'number', from: 0, to: 9 } }),
      'fields.system.exitStay: is set by no screen',
    ],
    [
      'one key for two things',
      set('screens/31/widget/no', 'tick'),
      'screens.31.widget: uses one key for two things: tick',
    ],
    [
      'a digit that also sends',
      set('screens/14/widget/send', '0'),
      'screens.14.widget: uses one key for two things: 0',
    ],
    [
      'more digits at least than at most',
      set('screens/14/widget/digits', [3, 2]),
      'screens.14.widget.digits: must not ask for more digits at least than at most',
    ],
    [
      'a value that must differ and cannot be emptied',
      set('screens/input/widget/empties', undefined),
      'fields.zone.{zone}.loop: must differ from that of every other number, and no key empties it',
    ],
    [
      'a sign that the display cannot show',
      set('screens/14/lines/0', '14 first way in; s'),
      'screens.14: shows “;”, which the display cannot',
    ],
    [
      'a message longer than a line',
      set('screens/14/widget/bad', 'there is no such answer'),
      'screens.14: shows “there is no such answer”, longer than the 20 signs of a line',
    ],
    [
      'more lines than the display has',
      set('screens/14/lines', ['14', 'a', 'b']),
      'screens.14.lines: must be at most 2',
    ],
    [
      'answers that nothing keeps',
      set('screens/saving/widget/then', 'ready'),
      'keeping: is session, but nothing keeps the answers',
    ],
    [
      'somewhere to go when idle that is not there',
      set('idle/to', 'porch'),
      'idle.to: goes to no screen: porch',
    ],
  ])('tells of %s', (_what, change, problem) => {
    expect(after(change)).toContain(problem)
  })

  it('with a problem is not taken from a pack, nor is anything else of it', () => {
    const entry = structuredClone(catalogue.get('interface', 'interface/tarn-40')) as unknown as Loose
    set('start', 'door')(entry)
    const read = readPack({ kapellePack: 6, title: 'try', entries: [entry] })
    expect(read).toEqual({
      ok: false,
      problems: [{ path: 'interface/tarn-40.start', message: 'names no screen: door' }],
    })
  })

  it('that a panel names must be there', () => {
    const panel = structuredClone(catalogue.get('panel', 'panel/tarn-40'))
    const known = catalogue.entries.filter(({ kind }) => kind !== 'interface')
    const read = readPack({ kapellePack: 6, title: 'try', entries: [panel] }, known)
    expect(read.ok ? [] : read.problems.map(({ path }) => path)).toEqual(['panel/tarn-40.interface'])
    expect(readPack({ kapellePack: 6, title: 'try', entries: [panel] }, catalogue.entries).ok).toBe(true)
  })
})
