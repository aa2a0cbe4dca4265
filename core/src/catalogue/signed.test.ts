import { expect, it } from 'vitest'
import { keyWords, signatureOf, signedText } from './signed.ts'

const signature = { by: 'Harl Alarms', key: `${'A'.repeat(43)}=`, value: `${'B'.repeat(86)}==` }

it('what is signed is the pack without its signature, whatever the order of its keys, and who signs', () => {
  const text = signedText({ title: 'x', kapellePack: 7, entries: [{ b: 1, a: 2 }] }, 'Harl')
  expect(text).toBe('{"by":"Harl","pack":{"entries":[{"a":2,"b":1}],"kapellePack":7,"title":"x"}}')
  expect(signedText({ entries: [{ a: 2, b: 1 }], kapellePack: 7, title: 'x', signature }, 'Harl')).toBe(text)
  expect(signedText({ title: 'x', kapellePack: 7, entries: [{ b: 1, a: 2 }] }, 'Other')).not.toBe(text)
})

it('a signature is read whole or not at all', () => {
  expect(signatureOf({ signature })).toEqual(signature)
  for (const spoilt of [
    { ...signature, key: 'short' },
    { ...signature, value: `${'B'.repeat(85)}!==` },
    { ...signature, by: '' },
    { ...signature, more: 1 },
    'text',
    null,
  ])
    expect(signatureOf({ signature: spoilt })).toBeNull()
  for (const none of [{}, null, 'text', 7]) expect(signatureOf(none)).toBeNull()
})

it('a key has words that two people can read to each other', () => {
  // SHA-256 of the key as canonical JSON, its first sixteen digits.
  expect(keyWords(signature.key)).toMatch(/^[0-9a-f]{4}( [0-9a-f]{4}){3}$/)
  expect(keyWords(signature.key)).not.toBe(keyWords(`${'A'.repeat(42)}E=`))
})
