import { createPrivateKey, createPublicKey, generateKeyPairSync, sign, verify } from 'node:crypto'
import { signatureOf, signedText, type Signature } from '#core'
import type { SigningKey } from '../db/keys.ts'

/** A new pair of keys for a firm (Ed25519, RFC 8032). */
export function newSigningKey(): SigningKey {
  const { publicKey, privateKey } = generateKeyPairSync('ed25519')
  const { x = '' } = publicKey.export({ format: 'jwk' })
  return {
    public: Buffer.from(x, 'base64url').toString('base64'),
    private: privateKey.export({ format: 'der', type: 'pkcs8' }).toString('base64'),
  }
}

/** Signs packs by a firm's key and in its name. */
export function signerOf(key: SigningKey, by: string): (pack: object) => Signature {
  const secret = createPrivateKey({
    key: Buffer.from(key.private, 'base64'),
    format: 'der',
    type: 'pkcs8',
  })
  return (pack) => ({
    by,
    key: key.public,
    value: sign(null, Buffer.from(signedText(pack, by)), secret).toString('base64'),
  })
}

/** Whether a pack is as it was when its signer signed it; `none` where nobody did, `broken` also where what stands there is no signature. */
export function signatureState(pack: unknown): 'none' | 'good' | 'broken' {
  if (typeof pack !== 'object' || pack === null || !('signature' in pack)) return 'none'
  const signature = signatureOf(pack)
  if (!signature) return 'broken'
  try {
    const x = Buffer.from(signature.key, 'base64').toString('base64url')
    const key = createPublicKey({ key: { kty: 'OKP', crv: 'Ed25519', x }, format: 'jwk' })
    const text = Buffer.from(signedText(pack, signature.by))
    return verify(null, text, key, Buffer.from(signature.value, 'base64')) ? 'good' : 'broken'
  } catch {
    // A key that is none.
    return 'broken'
  }
}
