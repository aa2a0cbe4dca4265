import { describe, expect, it } from 'vitest'
import { NewerShape } from '#core'
import { AppError } from '../errors/app-error.ts'
import { problemDetails, toAppError } from './errors.ts'

const of = (thrown: unknown): [string, string] => {
  const { code, message, problems } = toAppError(thrown)
  expect(problems).toEqual([])
  return [code, message]
}
const typed = (type: string, more: object = {}): Error => Object.assign(new Error(type), { type, ...more })

describe('whatever is thrown', () => {
  it('stays what it is when it was said already', () => {
    const said = new AppError('CONFLICT', 'Somebody was first.')
    expect(toAppError(said)).toBe(said)
  })

  it.each([
    [64 * 1024, '64 kB'],
    [1_048_575, '1024 kB'],
    [1_048_576, '1 MB'],
    [5 * 1_048_576, '5 MB'],
    [undefined, '0 kB'],
  ])('larger than %s bytes is told with the limit', (limit, words) => {
    expect(of(typed('entity.too.large', limit === undefined ? {} : { limit }))).toEqual([
      'TOO_LARGE',
      `What was sent is larger than the ${words} allowed here. Nothing was changed.`,
    ])
  })

  it.each(['encoding.unsupported', 'charset.unsupported', 'request.aborted', 'request.size.invalid'])(
    '%s could not be read',
    (type) => {
      expect(of(typed(type))).toEqual([
        'BAD_REQUEST',
        'What was sent could not be read. Send it as UTF-8 JSON.',
      ])
    },
  )

  it('is told for what it is', () => {
    expect(of(typed('entity.parse.failed'))[1]).toMatch(/not valid JSON/)
    expect(of(new NewerShape({ name: 'job', schema: 3 }, 4))[0]).toBe('NEWER')
    expect(of(new URIError('%'))).toEqual(['BAD_REQUEST', 'The address of this request is damaged.'])
    expect(of({ status: 404 })).toEqual(['NOT_FOUND', 'There is nothing at this address.'])
    const away = toAppError(Object.assign(new Error('x'), { code: 'ECONNREFUSED' }))
    expect([away.code, away.extra]).toEqual(['AWAY', { retryAfter: 2 }])
  })

  it.each([
    new Error('x'),
    { status: 500 },
    { message: 'x' },
    typed('something.else'),
    null,
    undefined,
    'text',
    7,
  ])('is a failure of the server where nothing else is known: %s', (thrown) => {
    const error = toAppError(thrown)
    expect([error.code, error.problems, error.cause]).toEqual(['INTERNAL', [], thrown])
  })

  it('goes out with its status, the fields and the request, and nothing of its cause', () => {
    const error = new AppError('INVALID', 'No.', [{ path: 'a', message: 'must be' }], {}, { cause: 'secret' })
    expect(problemDetails(error, 'r1')).toEqual({
      ...{ type: 'urn:kapelle:error:invalid', title: 'No.', status: 422, requestId: 'r1' },
      problems: [{ path: 'a', message: 'must be' }],
    })
    expect(problemDetails(new AppError('AWAY', 'Wait.', [], { retryAfter: 2 }), 'r2')).toEqual({
      ...{ type: 'urn:kapelle:error:away', title: 'Wait.', status: 503, requestId: 'r2', retryAfter: 2 },
    })
  })
})
