import { describe, expect, it } from 'vitest'
import { inventId } from '../air/air.ts'
import { readSticker } from '../identity/sticker.ts'
import { seededRandom } from '../units/random.ts'
import { catalogue } from '../testing/small-job.ts'
import { findStickerRule, type SeenSticker } from './sticker-rule.ts'

const seen = (...stickers: string[]): SeenSticker[] =>
  stickers.map((one) => {
    const [sticker = '', shown = ''] = one.split(' > ')
    return { sticker, shown }
  })
const open = (...stickers: string[]): string[] =>
  findStickerRule(seen(...stickers)).open.map(({ about }) => about)

describe('the rule of stickers', () => {
  // By hand. 20412247: 3·2+0+3·4+1+3·2+2+3·4+7 = 46: no check digit. 21340010: 6+1+9+4+0+0+3+0 = 23.
  it.each<[string, SeenSticker[], object]>([
    [
      'digits in printed groups, shown whole',
      seen('2041 2247 > 20412247', '1177 9031 > 11779031', '4410 2086 > 44102086'),
      { length: 8, alphabet: 'digits', idFrom: 1, idTo: 8, groups: [4, 4], check: 'none' },
    ],
    [
      'an ID inside a longer one',
      seen('QX07 2041 22 Z1 > 204122', 'QX07 9190 31 B4 > 919031'),
      { length: 12, alphabet: 'letters-and-digits', idFrom: 5, idTo: 10, groups: [3, 3], check: 'none' },
    ],
    [
      'a letter, then digits',
      seen('T-204-122 > T204122', 'K-919-031 > K919031', 'A-553-870 > A553870'),
      { length: 7, alphabet: 'letter-then-digits', idFrom: 1, idTo: 7, groups: [1, 3, 3], check: 'none' },
    ],
    [
      'hexadecimal',
      seen('0F3A91 > 0F3A91', '77B2C0 > 77B2C0'),
      { length: 6, alphabet: 'hexadecimal', idFrom: 1, idTo: 6, groups: [3, 3], check: 'none' },
    ],
    // 3·1+2+3·3+4+3·5+7 = 40; 3·2+0+3·4+1+3·3+2 = 30.
    [
      'a check digit in both',
      seen('123457 > 123457', '204132 > 204132'),
      { length: 6, alphabet: 'digits', idFrom: 1, idTo: 6, groups: [3, 3], check: 'weights-3-1' },
    ],
  ])('%s', (_name, stickers, rule) => {
    expect(findStickerRule(stickers)).toEqual({ rule, open: [], problems: [] })
  })

  it('asks what they do not tell', () => {
    // Eight digits in all: of hexadecimal ones (10/16)^8 = 2 in 100 look so. One ID in ten has a check digit by chance.
    expect(open('20412247 > 20412247')).toEqual(['alphabet'])
    expect(open('123457 > 123457')).toEqual(['alphabet', 'check'])
    expect(open('204122479 > 204122479', '117790315 > 117790315')).toEqual([])
    expect(open('20412247', '11779031')).toEqual(['position'])
    expect(open('12331233 > 1233')).toEqual(expect.arrayContaining(['position']))
    const twice = findStickerRule(seen('12331233 > 1233', '55504410 > 5550'))
    expect([twice.rule?.idFrom, twice.rule?.idTo, twice.open]).toEqual([1, 4, []])
  })

  it.each<[string, SeenSticker[], string]>([
    ['of two lengths', seen('20412247', '204122471'), 'Sticker 2 has 9 characters and sticker 1 has 8'],
    ['twice the same', seen('20412247', '2041 2247'), 'Sticker 2 is the same as sticker 1'],
    ['a sign of the code', seen('2041/2247'), '“/” is no letter or digit'],
    ['too short', seen('204'), 'has 3 characters: 4 to 20 are possible'],
    ['too long', seen('1'.repeat(21)), 'has 21 characters: 4 to 20 are possible'],
    ['shown what is not there', seen('20412247 > 9999'), 'which does not stand on the sticker 20412247'],
    ['shown at two places', seen('20412247 > 2041', '11779031 > 9031'), 'at different places'],
  ])('%s is no rule but a word on why', (_name, stickers, says) => {
    const found = findStickerRule(stickers)
    expect([found.rule, found.open]).toEqual([null, []])
    expect(found.problems.join(' ')).toContain(says)
  })

  it('of nothing there is none', () => {
    expect(findStickerRule(seen('', ' '))).toEqual({ rule: null, open: [], problems: [] })
  })

  it.each(catalogue.all('family').map((one) => [one.id, one] as const))(
    '%s: what it finds reads every other sticker of the family alike',
    (_id, family) => {
      const size = family.sticker.idTo - family.sticker.idFrom + 1
      for (let seed = 1; seed <= 40; seed += 1) {
        const random = seededRandom(seed)
        const sign = (): string => '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ'.charAt(Math.floor(random() * 36))
        const sticker = (): SeenSticker => {
          const id = inventId(family, random)
          const around = Array.from({ length: family.sticker.length - size }, sign).join('')
          return {
            sticker:
              around.slice(0, family.sticker.idFrom - 1) + id + around.slice(family.sticker.idFrom - 1),
            shown: id,
          }
        }
        const { rule, open: left, problems } = findStickerRule([sticker(), sticker(), sticker()])
        expect([seed, problems, left]).toEqual([seed, [], []])
        expect(rule).toMatchObject({
          length: family.sticker.length,
          check: family.sticker.check,
          idFrom: family.sticker.idFrom,
          idTo: family.sticker.idTo,
        })
        if (!rule) continue
        const found = { ...family, sticker: { ...rule, where: '' } }
        const other = sticker()
        expect(readSticker(found, other.sticker)).toEqual({ ok: true, serial: other.shown })
      }
    },
  )
})
