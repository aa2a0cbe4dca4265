import { z } from 'zod'
import { canonicalJson, hashOf } from '../units/canonical.ts'

/*
 * Packs signed by the firm that wrote them (Ed25519, RFC 8032): what was changed afterwards no longer fits. Who a key belongs to is
 * not in the pack: that is compared by its words, by telephone or on paper.
 */

const base64 = (bytes: number) =>
  z.string().regex(new RegExp(`^[A-Za-z0-9+/]{${Math.ceil((bytes * 4) / 3)}}={0,2}$`), 'must be base64')

/** How a pack is signed. */
export const signatureShape = z.strictObject({
  /** The firm, as it calls itself. */
  by: z.string().min(1).max(120),
  /** Its public key, 32 bytes as base64. */
  key: base64(32),
  /** The signature of `signedText`, 64 bytes as base64. */
  value: base64(64),
})
/** How a pack is signed. */
export type Signature = z.infer<typeof signatureShape>

/** What is signed: the pack as canonical JSON without its signature, and who signs. White space and the order of keys do not count. */
export function signedText(pack: object, by: string): string {
  const { signature: _signature, ...rest } = pack as Record<string, unknown>
  return canonicalJson({ by, pack: rest })
}

/** The signature that a pack carries; null without one, or where what stands there is none. */
export function signatureOf(pack: unknown): Signature | null {
  if (typeof pack !== 'object' || pack === null || !('signature' in pack)) return null
  const read = signatureShape.safeParse(pack.signature)
  return read.success ? read.data : null
}

/** A key in words that two people can compare: 16 hexadecimal digits of its SHA-256, in fours. */
export function keyWords(key: string): string {
  return (hashOf(key).slice(0, 16).match(/.{4}/g) ?? []).join(' ')
}
