import { create } from 'qrcode'
import { expect, it } from 'vitest'
import { decodeCode, type Pixels } from './decode-code.ts'

/** A picture of dark and light squares, each `scale` pixels wide, on a grey wall. */
function picture(
  dark: (x: number, y: number) => boolean,
  size: readonly [number, number],
  scale = 4,
): Pixels {
  const margin = 6 * scale
  const [width, height] = size.map((side) => side * scale + 2 * margin) as [number, number]
  const data = new Uint8ClampedArray(width * height * 4).fill(255)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [column, row] = [Math.floor((x - margin) / scale), Math.floor((y - margin) / scale)]
      const inside = column >= 0 && row >= 0 && column < size[0] && row < size[1]
      data.fill(inside && dark(column, row) ? 30 : 235, 4 * (y * width + x), 4 * (y * width + x) + 3)
    }
  return { data, width, height }
}

it.each([
  'https://kapelle.example:4680/jobs/0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a001/enrol?show=device%3Afront',
  '20417733',
  'Ärmelkanal 7',
])('reads the QR code of %s, also lying on its side', async (text) => {
  const { modules } = create(text)
  const at = (x: number, y: number): boolean => modules.get(y, x) === 1
  expect(await decodeCode(picture(at, [modules.size, modules.size]))).toBe(text)
  const lying = (x: number, y: number): boolean => at(modules.size - 1 - y, x)
  expect(await decodeCode(picture(lying, [modules.size, modules.size]))).toBe(text)
})

/** Code 39 by ISO/IEC 16388: nine bars and spaces a sign, three of them wide. */
const code39: Readonly<Record<string, string>> = {
  '*': '010010100',
  0: '000110100',
  1: '100100001',
  2: '001100001',
  3: '101100000',
  4: '000110001',
  7: '000100101',
}

it('reads the bars of a sticker', async () => {
  const widths = [...'*20417733*'].flatMap((sign) => [
    ...[...(code39[sign] ?? '')].map((wide) => (wide === '1' ? 3 : 1)),
    1,
  ])
  const bars = widths.flatMap((width, index) => {
    // Of ten a sign, the last is the gap between two; bars and spaces take turns.
    const isBar = (index % 10) % 2 === 0
    return Array.from({ length: width }, () => isBar)
  })
  expect(await decodeCode(picture((x) => bars[x] ?? false, [bars.length, 30], 3))).toBe('20417733')
})

it('sees nothing where there is none', async () => {
  expect(await decodeCode(picture(() => false, [20, 20]))).toBeNull()
  expect(await decodeCode(picture((x, y) => (x * 7 + y * 13) % 5 === 0, [40, 40]))).toBeNull()
})
