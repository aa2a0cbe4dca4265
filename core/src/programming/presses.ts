/** Letters on the number keys, in the order that repeated presses give them (ITU-T E.161 grouping). */
const keys: Readonly<Record<string, string>> = {
  '0': ' 0',
  '1': '1-/.',
  '2': 'ABC2',
  '3': 'DEF3',
  '4': 'GHI4',
  '5': 'JKL5',
  '6': 'MNO6',
  '7': 'PQRS7',
  '8': 'TUV8',
  '9': 'WXYZ9',
}

/** Presses that write a text on a number pad: `CAB` is `222 2 22`; a sign that no key has prints as `?`. */
export function keypadPresses(text: string): string {
  return [...text.toUpperCase()].map(pressesOf).join(' ')
}

function pressesOf(sign: string): string {
  for (const [key, signs] of Object.entries(keys)) {
    const at = signs.indexOf(sign)
    if (at >= 0) return key.repeat(at + 1)
  }
  return '?'
}
