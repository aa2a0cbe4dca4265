import { describe, expect, it } from 'vitest'
import { demoPanel } from '../testing/panels.ts'
import { keysText, readKeys } from './keys.ts'
import type { Input } from './state.ts'

const tarn = demoPanel('tarn-40')
const press = (key: string): Input => ({ kind: 'press', key })

describe('keys as they are written', () => {
  it.each<[string, readonly Input[]]>([
    ['[go] 16 [tick]', [press('go'), press('1'), press('6'), press('tick')]],
    ['[GO]16[Tick]', [press('go'), press('1'), press('6'), press('tick')]],
    ['  [ go ]\n\t1 ', [press('go'), press('1')]],
    ['', []],
    ['[next] ×3 [next]x2', Array.from({ length: 5 }, () => press('next'))],
    ['[next]×12', Array.from({ length: 12 }, () => press('next'))],
    // A number behind a bracket is keyed, not a count.
    ['[next] 3', [press('next'), press('3')]],
    ['[tick] for 5 s', [{ kind: 'hold', key: 'tick', seconds: 5 }]],
    ['[tick]for  2.25s 1', [{ kind: 'hold', key: 'tick', seconds: 2.25 }, press('1')]],
    ['[tick]  for 12 s', [{ kind: 'hold', key: 'tick', seconds: 12 }]],
    [
      'wait 40 s wait  12.75  s',
      [
        { kind: 'wait', seconds: 40 },
        { kind: 'wait', seconds: 12.75 },
      ],
    ],
    [
      '(main-user code)(installer code)',
      [
        { kind: 'code', who: 'main-user' },
        { kind: 'code', who: 'installer' },
      ],
    ],
    [
      '(hears 20417733 12) (hears 4B2K90QX)',
      [
        { kind: 'hear', serial: '20417733', loop: 12 },
        { kind: 'hear', serial: '4B2K90QX', loop: null },
      ],
    ],
  ])('%j', (text, inputs) => {
    expect(readKeys(tarn, text)).toEqual({ ok: true, inputs })
  })

  it.each<[string, number, string]>([
    ['[tock]', 0, 'Tarn 40 has no key tock; it has 1, 2, 3, home,'],
    ['12  [tock]', 4, 'Tarn 40 has no key tock; it has'],
    ['1 tick', 2, '“tick” is no key of Tarn 40: a key stands in brackets, a digit as it is'],
    ['  wait a moment', 2, '“wait” is no key of Tarn 40'],
    ['[next] ×3a', 7, '“×3a” is no key of Tarn 40'],
    ['[next] ×123', 7, '“×123” is no key of Tarn 40'],
    ['[tick] for five s', 7, '“for” is no key of Tarn 40'],
    ['[a-key-with-too-long-a-name]', 0, '“[a-key-with-to” is no key of Tarn 40'],
    ['1 abcdefghijklmnopqrst', 2, '“abcdefghijklmn” is no key of Tarn 40'],
  ])('%j cannot be read, and says where and why', (text, at, reason) => {
    const read = readKeys(tarn, text)
    expect(read).toMatchObject({ ok: false, at })
    expect(!read.ok && read.reason).toContain(reason)
  })
})

describe('keys in writing', () => {
  const next = press('next')
  it.each<[string, readonly Input[], boolean]>([
    ['[go] 16 [tick]', [press('go'), press('1'), press('6'), press('tick')], false],
    ['16 [tick] 4', [press('1'), press('6'), press('tick'), press('4')], false],
    // Presses of one key make one letter; another key is another letter.
    ['22 3', [press('2'), press('2'), press('3')], true],
    ['223', [press('2'), press('2'), press('3')], false],
    ['[next] [next]', [next, next], false],
    [
      '[tick] for 5 s wait 40 s',
      [
        { kind: 'hold', key: 'tick', seconds: 5 },
        { kind: 'wait', seconds: 40 },
      ],
      false,
    ],
    ['(installer code)', [{ kind: 'code', who: 'installer' }], false],
    ['(hears 20417733 3)', [{ kind: 'hear', serial: '20417733', loop: 3 }], false],
    ['(hears 20417733)', [{ kind: 'hear', serial: '20417733', loop: null }], false],
    // A device that is heard twice is told once; another one after it, or a key between them, is told.
    [
      '(hears 20417733 3) (hears 20417734 3)',
      [
        { kind: 'hear', serial: '20417733', loop: 3 },
        { kind: 'hear', serial: '20417733', loop: 3 },
        { kind: 'hear', serial: '20417734', loop: 3 },
      ],
      false,
    ],
    ['', [], false],
  ])('%s', (text, inputs, letters) => {
    expect(keysText(inputs, letters)).toBe(text)
  })
})
