import { describe, expect, it } from 'vitest'
import { catalogue } from '../testing/small-job.ts'
import { compareIds, groupId, readSticker, weightsHold } from './sticker.ts'

const family = (id: string) => {
  const found = catalogue.get('family', `family/${id}`)
  if (!found) throw new Error(id)
  return found
}

describe('reading a sticker', () => {
  it.each([
    ['wren', '1234 5678', '12345678'],
    ['wren', ' 0023-4567 ', '00234567'],
    // Wren C: 14 characters, the ID is characters 5 to 12.
    ['wren-c', 'HWC7 4B2K 90QX M1', '4B2K90QX'],
    ['wren-c', 'hwc74b2k90qxm1', '4B2K90QX'],
    ['wren-c', '4B2K 90QX', '4B2K90QX'],
    // Dunlin: weights 3 and 1; 4·3+1+0·3+3+7·3+2+5·3+6 = 60.
    ['dunlin', '4103 7256', '41037256'],
    ['curlew-8', 'k 482 913', 'K482913'],
  ])('%s “%s” gives %s', (id, input, serial) => {
    expect(readSticker(family(id), input)).toEqual({ ok: true, serial })
  })

  it.each([
    ['wren', '', 'empty', 'Type or scan the Wren sticker (8 digits in two groups).'],
    [
      'wren',
      '4.0E+12',
      'spreadsheet',
      '“4.0E+12” is a number that a spreadsheet rounded: the digits are lost. Format the column as text and type the ID from the sticker again.',
    ],
    [
      'wren',
      '4,1e+7',
      'spreadsheet',
      '“4,1e+7” is a number that a spreadsheet rounded: the digits are lost. Format the column as text and type the ID from the sticker again.',
    ],
    [
      'wren',
      '2345678',
      'length',
      'A Wren ID has 8 characters (8); this has 7. If it came from a spreadsheet, a leading zero may have been stripped: read the sticker.',
    ],
    ['wren', '123456789', 'length', 'A Wren ID has 8 characters (8); this has 9.'],
    ['wren', '12E45678', 'alphabet', 'Wren IDs have digits only; “E”, character 3, does not belong.'],
    ['wren', '1234567🙂', 'alphabet', 'Wren IDs have digits only; “🙂”, character 8, does not belong.'],
    [
      'dunlin',
      '41037265',
      'check',
      'The check digit of 4103 7265 does not fit: a digit is mistyped. Read the sticker again.',
    ],
    [
      'curlew-8',
      '1482913',
      'alphabet',
      'Curlew 8 IDs have one letter, then digits; “1”, character 1, does not belong. Was it an I? Read the sticker again.',
    ],
  ])('%s refuses “%s”', (id, input, code, reason) => {
    expect(readSticker(family(id), input)).toEqual({ ok: false, code, reason })
  })

  it.each([
    ['wren', '41E+7', 'spreadsheet'],
    ['wren', '4.123e+12', 'spreadsheet'],
    ['wren', '4.1e12', 'spreadsheet'],
    // No number of a spreadsheet: signs before or behind, or an E that may be part of an ID.
    ['wren', 'x4.0E+12', 'alphabet'],
    ['wren', '4.0E+12x', 'alphabet'],
    ['wren', '4E12', 'alphabet'],
    ['wren', '   ', 'empty'],
    ['plover', '4E1234', null],
  ])('%s “%s” is %s', (id, input, code) => {
    const read = readSticker(family(id), input)
    expect(read.ok ? null : read.code).toBe(code)
  })

  it('says how long the sticker and how long the ID is', () => {
    expect(readSticker(family('wren-c'), '4B2K 90Q')).toMatchObject({
      reason: expect.stringContaining(
        'A Wren C ID has 8 characters (14 on the sticker, 8 in the ID); this has 7.',
      ) as unknown,
    })
  })

  it('finds every single mistyped digit of a Dunlin ID', () => {
    const right = '41037256'
    expect(weightsHold(right)).toBe(true)
    for (let at = 0; at < 8; at++)
      for (let digit = 0; digit < 10; digit++) {
        if (String(digit) === right[at]) continue
        expect(weightsHold(right.slice(0, at) + digit + right.slice(at + 1))).toBe(false)
      }
  })
})

it('groups an ID as its sticker does', () => {
  expect(groupId(family('curlew-8'), 'K482913')).toBe('K 482 913')
  expect(groupId(null, '12345678')).toBe('12345678')
})

it('lays two IDs under each other', () => {
  const marks = compareIds('1234', '12X').map((item) => item.same)
  expect(marks).toEqual([true, true, false, false])
})
