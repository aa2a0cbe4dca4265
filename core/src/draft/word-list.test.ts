import { describe, expect, it } from 'vitest'
import { seededRandom } from '../units/random.ts'
import { catalogue } from '../testing/small-job.ts'
import { readWordList } from './word-list.ts'

const read = (...lines: string[]): string[] =>
  readWordList(lines.join('\n')).words.map(({ number, text }) => `${number}=${text}`)
const faults = (...lines: string[]): string[] =>
  readWordList(lines.join('\n')).problems.map(({ line, message }) => `${line}: ${message}`)

describe('a list of words', () => {
  it.each<[string, string[], string[]]>([
    ['numbers first', ['001 ATTIC', '002 BACK DOOR'], ['001=ATTIC', '002=BACK DOOR']],
    ['numbers last', ['ATTIC 001', 'BACK DOOR\t002'], ['001=ATTIC', '002=BACK DOOR']],
    ['of a spreadsheet', ['001;ATTIC', '"002","BACK DOOR"'], ['001=ATTIC', '002=BACK DOOR']],
    [
      'numbered like a list',
      ['1. ATTIC', '2) BACK DOOR', '10: CELLAR'],
      ['1=ATTIC', '2=BACK DOOR', '10=CELLAR'],
    ],
    [
      'in columns',
      ['001 ATTIC 003 CELLAR', '002 BACK DOOR 004 DEN'],
      ['001=ATTIC', '003=CELLAR', '002=BACK DOOR', '004=DEN'],
    ],
    [
      'columns, numbers last',
      ['ATTIC 01 CELLAR 03', 'BACK DOOR 02 DEN 04'],
      ['01=ATTIC', '03=CELLAR', '02=BACK DOOR', '04=DEN'],
    ],
    ['with numbers in words', ['001 FLOOR 2', '002 ATTIC'], ['001=FLOOR 2', '002=ATTIC']],
    ['empty lines between', ['', '001 ATTIC', '  ', '002 DEN', ''], ['001=ATTIC', '002=DEN']],
    ['twice the same', ['001 ATTIC', '001 ATTIC', '002 DEN'], ['001=ATTIC', '002=DEN']],
    ['nothing', ['', ' '], []],
  ])('%s', (_name, lines, words) => {
    expect([read(...lines), faults(...lines)]).toEqual([words, []])
  })

  it.each<[string, string[], string[]]>([
    ['one number for two words', ['001 ATTIC', '001 DEN'], ['2: 001 stands for ATTIC and for DEN']],
    ['no number', ['001 ATTIC', 'DEN', '003 HALL'], ['2: has no number']],
    ['no word', ['001 ATTIC', '002', '003 HALL'], ['2: 002 has no word']],
    [
      'a turned line',
      ['001 ATTIC', 'DEN 002', '003 HALL'],
      ['2: its number must stand first, as in the other lines'],
    ],
    [
      'a turned line, numbers last',
      ['ATTIC 001', '002 DEN', 'HALL 003'],
      ['2: its number must stand last, as in the other lines'],
    ],
    [
      'which number it is',
      ['1 ATTIC', '12 FLOOR 2', '3 HALL'],
      ['2: which of its numbers belongs to the word cannot be told: give the word a line of its own'],
    ],
    [
      'too long',
      ['001 ATTIC', `002 ${'A'.repeat(25)}`],
      [`2: “${'A'.repeat(25)}” is longer than 24 letters`],
    ],
  ])('%s is said at its line, and the rest is read', (_name, lines, problems) => {
    expect(faults(...lines)).toEqual(problems)
    expect(read(...lines).length).toBe(lines.length - 1)
  })

  it('names the numbers that no word has', () => {
    const gaps = (...lines: string[]) => readWordList(lines.join('\n')).gaps
    expect(gaps('001 ATTIC', '002 DEN', '005 HALL')).toEqual(['003', '004'])
    expect(gaps('8 ATTIC', '11 DEN')).toEqual(['9', '10'])
    expect(gaps('001 ATTIC', '002 DEN')).toEqual([])
    expect(gaps('1 ATTIC', '900 DEN')).toHaveLength(50)
    expect(gaps()).toEqual([])
  })

  const libraries = catalogue
    .all('panel')
    .flatMap(({ id, label }) => (label.style === 'library' ? [[id, label.words] as const] : []))
  it('there are panels with a library to read', () => {
    expect(libraries.length).toBeGreaterThan(0)
  })
  it.each(libraries)('that of %s reads back whole, however it is printed', (_id, words) => {
    for (let seed = 1; seed <= 30; seed += 1) {
      const random = seededRandom(seed)
      const columns = 1 + Math.floor(random() * 3)
      const last = random() < 0.5
      const gap = [' ', '\t', '   '][Math.floor(random() * 3)] ?? ' '
      const pairs = words.map(({ number, text }) =>
        last ? `${text}${gap}${number}` : `${number}${gap}${text}`,
      )
      const lines = Array.from({ length: Math.ceil(pairs.length / columns) }, (_, row) =>
        pairs.slice(row * columns, (row + 1) * columns).join(gap),
      )
      const list = readWordList(lines.join('\r\n'))
      expect([seed, list.problems]).toEqual([seed, []])
      expect(new Map(list.words.map(({ number, text }) => [number, text]))).toEqual(
        new Map(words.map(({ number, text }) => [number, text])),
      )
    }
  })
})
