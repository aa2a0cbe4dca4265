/** How large a leaflet may be, bytes. */
export const LEAFLET_LIMIT = 10 * 1024 * 1024
/** How many of them one entry or draft may have. */
export const MOST_LEAFLETS = 20

/** What a leaflet may be, by its media type: how its content begins, and where. */
const beginnings = {
  'application/pdf': [[0, '%PDF-']],
  'image/jpeg': [[0, '\xff\xd8\xff']],
  'image/png': [[0, '\x89PNG\r\n\x1a\n']],
  'image/webp': [
    [0, 'RIFF'],
    [8, 'WEBP'],
  ],
} as const

/** A media type that a leaflet may have. */
export type LeafletType = keyof typeof beginnings
/** Every media type that a leaflet may have. */
export const leafletTypes = Object.keys(beginnings) as LeafletType[]

/** What a file is by how its content begins, whatever its name says; null where it is none of what a leaflet may be. */
export function leafletType(bytes: Uint8Array): LeafletType | null {
  const begins = ([at, text]: readonly [number, string]): boolean =>
    [...text].every((sign, index) => bytes[at + index] === sign.charCodeAt(0))
  return leafletTypes.find((type) => beginnings[type].every(begins)) ?? null
}

/** What is wrong with a file as a leaflet, naming what is allowed; null where nothing is. */
export function leafletTrouble(bytes: Uint8Array): string | null {
  if (bytes.length === 0) return 'is empty'
  if (bytes.length > LEAFLET_LIMIT)
    return `has ${(bytes.length / 1024 / 1024).toFixed(1)} MB, and a leaflet may have ${LEAFLET_LIMIT / 1024 / 1024} MB`
  return leafletType(bytes) ? null : 'is neither a PDF nor a photo (JPEG, PNG or WebP)'
}
