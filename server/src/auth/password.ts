import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto'

const COST = { N: 2 ** 17, r: 8, p: 1, maxmem: 256 * 1024 * 1024 }

/** Hash of a password with a fresh salt, in the form `scrypt$17$8$1$salt$key`. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16)
  const key = await derive(password, salt)
  return ['scrypt', '17', '8', '1', salt.toString('base64url'), key.toString('base64url')].join('$')
}

/** Whether a password belongs to a stored hash; takes as long for a wrong one as for a right one. */
export async function verifyPassword(password: string, stored: string): Promise<boolean> {
  const [scheme, n, r, p, salt, key] = stored.split('$')
  if (scheme !== 'scrypt' || n !== '17' || r !== '8' || p !== '1' || !salt || !key) return false
  const expected = Buffer.from(key, 'base64url')
  const given = await derive(password, Buffer.from(salt, 'base64url'))
  return expected.length === given.length && timingSafeEqual(expected, given)
}

function derive(password: string, salt: Buffer): Promise<Buffer> {
  return new Promise((done, fail) =>
    scrypt(password.normalize('NFKC'), salt, 32, COST, (error, key) => (error ? fail(error) : done(key))),
  )
}
