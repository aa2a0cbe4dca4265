import { describe, expect, it } from 'vitest'
import { id, made, madeBy, name, order, person, text, time } from './fields.ts'

const allows = (
  schema: { safeParse(value: unknown): { success: boolean } },
  values: readonly unknown[],
): unknown[] => values.filter((value) => schema.safeParse(value).success)

describe('the blocks of record fields', () => {
  it('take an id of a type and a name, and nothing around it', () => {
    const right = ['zone:1', 'fixed-rules:main', `zone:${'a'.repeat(80)}`, 'panel:a/b.c_d-e']
    const wrong = [
      'zone:',
      'zone',
      ':1',
      'Zone:1',
      ' zone:1',
      'zone:1 ',
      'x\nzone:1',
      `zone:${'a'.repeat(81)}`,
    ]
    expect(allows(id, [...right, ...wrong])).toEqual(right)
  })

  it('take a time in UTC, to the millisecond at most', () => {
    const right = ['2026-05-04T09:30:00Z', '2026-05-04T09:30:00.5Z', '2026-05-04T09:30:00.125Z']
    const wrong = [
      '2026-05-04T09:30:00',
      '2026-05-04T09:30:00+02:00',
      '2026-05-04T09:30:00.1234Z',
      '2026-05-04T09:30:00.aZ',
      '2026-05-04',
      'x2026-05-04T09:30:00Z',
      '2026-05-04T09:30:00Zx',
    ]
    expect(allows(time, [...right, ...wrong])).toEqual(right)
  })

  it('take a text of lines without other control characters', () => {
    const right = ['', 'one\ntwo', ' ', 'Ünïté', '12345678']
    const wrong = ['a\tb', 'a\u0000', 'a\u007f', 'a\u001fb', '123456789']
    expect(allows(text(8), [...right, ...wrong])).toEqual(right)
    expect(text(8).safeParse('a\tb').error?.issues[0]?.message).toBe('must not contain control characters')
  })

  it('take a name that says something', () => {
    expect(allows(name(4), ['Ann', ' A ', '', '   ', 'Anne!', '\n'])).toEqual(['Ann', ' A '])
  })

  it('take an order within bounds', () => {
    expect(allows(order, [-1e9, 0.5, 1e9, -1e9 - 1, 1e9 + 1, '1'])).toEqual([-1e9, 0.5, 1e9])
  })

  it('take a person with or without an id, and no more', () => {
    const right = [
      { id: null, name: 'Ann' },
      { id: 'a', name: 'Ann' },
    ]
    expect(
      allows(person, [...right, { name: 'Ann' }, { id: 'a', name: '' }, { ...right[1], role: 'owner' }]),
    ).toEqual(right)
  })

  it('take a maker as this client writes one, as the server does, and as a file tells one', () => {
    const mine = madeBy({ id: 'ann', name: 'Ann' })
    expect(mine).toEqual({
      id: 'ann',
      name: 'Ann',
      role: null,
      takenAt: null,
      clockDoubtful: false,
      told: null,
    })
    const right = [
      mine,
      { ...mine, role: 'owner', takenAt: '2026-05-04T09:30:00Z', clockDoubtful: true },
      { ...mine, told: 'file' },
      { ...mine, told: 'build' },
    ]
    expect(
      allows(made, [
        ...right,
        { ...mine, told: 'me' },
        { ...mine, role: 'king' },
        { ...mine, takenAt: 'now' },
      ]),
    ).toEqual(right)
  })
})
