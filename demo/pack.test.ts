import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { readPack } from '#core'

const read = () =>
  JSON.parse(readFileSync(new URL('./packs/world.json', import.meta.url), 'utf8')) as {
    entries: Record<string, unknown>[]
  }

it('reads the demo pack whole', () => {
  const result = readPack(read())
  expect(result).toMatchObject({ ok: true })
  expect(
    result.ok && result.entries.filter((item) => item.entry.kind === 'device').length,
  ).toBeGreaterThanOrEqual(20)
})

it('keys each response type of a panel by a code of its own', () => {
  const result = readPack(read())
  if (!result.ok) throw new Error('unread')
  for (const { entry } of result.entries)
    if (entry.kind === 'panel') {
      const codes = entry.responseTypes.map(({ code }) => code)
      expect([entry.id, new Set(codes).size]).toEqual([entry.id, codes.length])
    }
})
