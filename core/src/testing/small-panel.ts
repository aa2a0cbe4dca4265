import { expect } from 'vitest'
import { interfaceProblems } from '../catalogue/interface-check.ts'
import type { PanelInterface } from '../catalogue/schema.ts'
import { compiled, type Compiled } from '../panel/compiled.ts'
import { acted, switchedOn } from '../panel/machine.ts'
import type { Input, PanelState } from '../panel/state.ts'
import { catalogue } from './small-job.ts'

/* An interface of one screen for each thing that a description can say, for tables that are written from it by hand. */

const list = (factory: string) => ({
  form: {
    kind: 'list',
    values: ['1', '2', '3'].map((value) => ({ value, keyed: value, shows: `v${value}` })),
  },
  factory,
})
const bit = (factory: string) => ({ form: { kind: 'bit', on: 'yes', off: 'no' }, factory })
/** Its screens, for tests that change one. */
export const smallScreens = {
  home: {
    alone: true,
    lines: ['home'],
    widget: { kind: 'menu' },
    keys: { a: 'turn', b: 'ask', c: 'work', d: 'lone', e: 'w1' },
    holds: { z: { seconds: 4, to: 'ask' } },
  },
  /** Two pointers, one that goes round and one that stops. */
  turn: {
    over: ['n', 'm'],
    lines: ['turn {n} {m}'],
    widget: { kind: 'menu' },
    keys: {
      '1': { point: { n: '+' } },
      '2': { point: { n: '-' } },
      '3': { point: { m: '+' } },
      '4': { point: { m: '-' } },
      '5': { point: { n: 2 } },
      '6': [
        { when: { pointer: { n: 'first' } }, say: 'first' },
        { when: { pointer: { n: 'last' } }, say: 'last' },
        { say: 'between' },
      ],
      '7': [{ when: { pointer: { n: 2 } }, say: 'two' }],
      '8': [{ when: { pointer: { n: [2, 3] } }, say: 'from two' }, { say: 'below' }],
      '9': { go: 'kept' },
      '0': { go: 'lost' },
      f: { go: '.' },
    },
  },
  kept: { carry: ['n'], lines: ['kept'], widget: { kind: 'menu' }, keys: { '1': 'turn' } },
  lost: { lines: ['lost'], widget: { kind: 'menu' }, keys: { '1': 'turn' } },
  /** What is stored decides. */
  ask: {
    lines: ['ask'],
    widget: { kind: 'menu' },
    keys: {
      '1': { put: { 'x.list': '1' } },
      '2': { put: { 'x.list': '2' } },
      '3': { put: { 'x.list': '' } },
      '4': [{ when: { at: 'x.list', in: ['1'] }, say: 'one' }, { say: 'not one' }],
      '5': [{ when: { at: 'x.list', not: ['1', ''] }, say: 'another' }, { say: 'one or none' }],
      '6': [{ when: { at: 'x.list', in: ['1', '2'], not: ['2'] }, say: 'both hold' }],
      '7': { do: ['keep'] },
      '8': { do: ['drop'] },
      '9': { do: ['factory'] },
      '0': { do: ['beep'] },
      f: { do: ['listen'] },
      g: { put: { 'x.bit': 'on' }, do: ['keep'], say: 'kept', go: 'home' },
    },
  },
  work: { lines: ['work'], widget: { kind: 'busy', seconds: 20, then: 'ask' } },
  /** Typing, with a key for each thing that is done to what is typed. */
  lone: {
    lines: ['lone {typed}'],
    widget: {
      kind: 'number',
      at: 'x.list',
      digits: [1, 1],
      opens: 'empty',
      send: 's',
      bad: 'no',
      then: 'ask',
    },
    keys: {
      a: { do: ['clear'] },
      b: { do: ['back'] },
      c: [
        { when: { empty: true }, say: 'nothing typed' },
        { when: { empty: false }, say: 'typed' },
      ],
    },
  },
  /** A walk of three, of which the middle is passed over while a value stands. */
  w1: { lines: ['w1'], widget: { kind: 'menu' }, keys: { c: '>', d: '<' } },
  w2: {
    lines: ['w2'],
    skip: [
      { at: 'x.list', in: ['1'] },
      { at: 'x.list', in: ['3'] },
    ],
    widget: { kind: 'menu' },
    keys: { c: '>', d: '<' },
  },
  w3: { lines: ['w3'], widget: { kind: 'menu' }, keys: { c: '>', d: '<' } },
}
/** Its display: one line. */
export const smallDisplay = {
  ...{ lines: 1, columns: 20, messages: 1, cursor: '_' },
  alphabet: 'abcdefghijklmnopqrstuvwxyz0123456789_ ',
}
const description = (over: object = {}): PanelInterface =>
  ({
    ...{ kind: 'interface', id: 'interface/small', version: '1', maker: 'x', name: 'small' },
    regions: ['europe'],
    display: smallDisplay,
    keys: [['0', '1', '2', '3', '4', '5', '6', '7', '8', '9', 'a', 'b', 'c', 'd', 'e', 'f', 'g', 's', 'z']],
    pointers: { n: { from: 1, to: 3, ends: 'wrap' }, m: { from: 1, to: 2, ends: 'stop' } },
    fields: { 'x.list': list('2'), 'x.bit': bit('off') },
    walks: { all: { screens: ['w1', 'w2', 'w3'], after: { say: 'round', go: 'w1' }, before: 'home' } },
    screens: smallScreens,
    common: { z: 'home' },
    keeping: 'session',
    start: 'home',
    ...over,
  }) as unknown as PanelInterface

/** The small panel with a part of its description replaced, whatever the checker says of that. */
export const uncheckedPanel = (over: object, ...hears: string[]): Compiled =>
  compiled(
    description(over),
    catalogue.get('panel', 'panel/tarn-40') ?? expect.fail(),
    hears.map((id) => catalogue.get('family', id) ?? expect.fail(id)),
  )
/** The small panel with a part of its description replaced, and the families that it hears. */
export const smallPanel = (over: object = {}, ...hears: string[]): Compiled => {
  expect(interfaceProblems(description(over))).toEqual([])
  return uncheckedPanel(over, ...hears)
}
/** One press for each sign. */
export const press = (keys: string): Input[] => [...keys].map((key) => ({ kind: 'press', key }))
/** A panel as shipped after inputs. */
export const on = (panel: Compiled, ...inputs: Input[]): PanelState =>
  acted(panel, switchedOn(panel, panel.factory), inputs)
