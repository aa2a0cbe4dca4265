import { describe, expect, it } from 'vitest'
import { LEAFLET_LIMIT, leafletTrouble, leafletType, leafletTypes } from './leaflet.ts'

const signs = (text: string): Uint8Array => Uint8Array.from([...text].map((sign) => sign.charCodeAt(0)))
/** How each begins, by its own specification (ISO 32000-1, ISO 10918-1, ISO 15948, RFC 9649). */
const begun = {
  'application/pdf': signs('%PDF-1.7\n'),
  'image/jpeg': Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, 0, 16]),
  'image/png': Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0]),
  'image/webp': signs('RIFF\x10\x20\x00\x00WEBPVP8 '),
} as const

describe('a leaflet', () => {
  it.each(leafletTypes)('is told by its content: %s', (type) => {
    expect(leafletType(begun[type])).toBe(type)
    expect(leafletTrouble(begun[type])).toBeNull()
  })

  it.each(leafletTypes)('is none where one sign of how it begins is another: %s', (type) => {
    const whole = begun[type]
    const asked = type === 'image/webp' ? [0, 1, 2, 3, 8, 9, 10, 11] : [...whole.keys()].slice(0, 3)
    for (const at of asked) {
      const spoilt = Uint8Array.from(whole)
      spoilt[at] = (spoilt[at] ?? 0) ^ 1
      expect(leafletType(spoilt)).toBeNull()
    }
    expect(leafletType(whole.slice(0, 2))).toBeNull()
  })

  it.each([
    ['nothing', new Uint8Array(), 'is empty'],
    ['a page', signs('<!doctype html><script>'), 'is neither a PDF nor a photo (JPEG, PNG or WebP)'],
    ['a drawing with code', signs('<svg xmlns='), 'is neither a PDF nor a photo (JPEG, PNG or WebP)'],
    ['a PDF behind something else', signs('x%PDF-1.7'), 'is neither a PDF nor a photo (JPEG, PNG or WebP)'],
    ['a WAV', signs('RIFF\x10\x20\x00\x00WAVEfmt '), 'is neither a PDF nor a photo (JPEG, PNG or WebP)'],
  ])('is not %s', (_what, bytes, trouble) => {
    expect(leafletTrouble(bytes)).toBe(trouble)
  })

  it('has 10 MB and not one byte more', () => {
    const of = (bytes: number): Uint8Array => {
      const file = new Uint8Array(bytes)
      file.set(begun['application/pdf'])
      return file
    }
    expect(leafletTrouble(of(LEAFLET_LIMIT))).toBeNull()
    expect(leafletTrouble(of(LEAFLET_LIMIT + 1))).toBe('has 10.0 MB, and a leaflet may have 10 MB')
    expect(leafletTrouble(of(12_000_000))).toBe('has 11.4 MB, and a leaflet may have 10 MB')
  })
})
