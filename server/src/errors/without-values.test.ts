import { expect, it } from 'vitest'
import { withoutValues } from './without-values.ts'

it('keeps sort, code and places of a fault, and nothing of what it was about', () => {
  const query = Object.assign(new Error("Duplicate entry 'Nell' for key 'login'\n    Nell again"), {
    ...{ code: 'ER_DUP_ENTRY', query: "INSERT INTO people VALUES ('Nell')", parameters: ['Nell'] },
  })
  const said = withoutValues(query) as Record<string, string>
  expect(said).toMatchObject({ type: 'Error', message: 'ER_DUP_ENTRY', code: 'ER_DUP_ENTRY' })
  expect(JSON.stringify(said)).not.toContain('Nell')
  expect(said.stack?.split('\n')[0]).toMatch(/^\s+at .*without-values\.test\.ts/)
})

it('keeps the message of a fault of our own, which has no code', () => {
  const said = withoutValues(new RangeError('behaviourOf: the document has no job record'))
  expect(said).toMatchObject({ type: 'RangeError', message: 'behaviourOf: the document has no job record' })
  expect((said as { code?: string }).code).toBeUndefined()
})

it('says whatever else was thrown as it is, and a fault without places', () => {
  expect([withoutValues('gone'), withoutValues(7), withoutValues(null)]).toEqual(['gone', '7', 'null'])
  const bare = new Error('no places')
  delete bare.stack
  expect(withoutValues(bare)).toMatchObject({ message: 'no places', stack: '' })
})
