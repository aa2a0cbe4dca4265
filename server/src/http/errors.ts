import { NewerShape } from '#core'
import { isAway } from '../db/retry.ts'
import { AppError, type ErrorCode } from '../errors/app-error.ts'

/** The HTTP status of each way a request can fail. */
export const statusOf: Readonly<Record<ErrorCode, number>> = {
  BAD_REQUEST: 400,
  SIGN_IN_NEEDED: 401,
  NOT_ALLOWED: 403,
  NOT_FOUND: 404,
  CONFLICT: 409,
  TOO_LARGE: 413,
  INVALID: 422,
  NEWER: 426,
  TOO_MANY: 429,
  INTERNAL: 500,
  AWAY: 503,
  FULL: 507,
}

/** After how many seconds it is worth trying again while the database is away. */
const AWAY_SECONDS = 2

/** Turns anything thrown into an AppError, keeping the cause. */
export function toAppError(thrown: unknown): AppError {
  if (thrown instanceof AppError) return thrown
  if (thrown instanceof NewerShape) return new AppError('NEWER', thrown.message, [], {}, { cause: thrown })
  const type = typeof thrown === 'object' && thrown !== null && 'type' in thrown ? String(thrown.type) : ''
  if (type === 'entity.too.large') {
    const limit =
      typeof thrown === 'object' && thrown !== null && 'limit' in thrown ? Number(thrown.limit) : 0
    return new AppError(
      'TOO_LARGE',
      `What was sent is larger than the ${limit < 1048576 ? `${Math.round(limit / 1024)} kB` : `${Math.round(limit / 1048576)} MB`} allowed here. Nothing was changed.`,
      [],
      {},
      { cause: thrown },
    )
  }
  if (type === 'entity.parse.failed')
    return new AppError(
      'BAD_REQUEST',
      'What was sent is not valid JSON, so nothing of it was taken.',
      [],
      {},
      { cause: thrown },
    )
  if (
    type === 'encoding.unsupported' ||
    type === 'charset.unsupported' ||
    type === 'request.aborted' ||
    type === 'request.size.invalid'
  )
    return new AppError(
      'BAD_REQUEST',
      'What was sent could not be read. Send it as UTF-8 JSON.',
      [],
      {},
      { cause: thrown },
    )
  if (isAway(thrown))
    return new AppError(
      'AWAY',
      'The database does not answer just now; nothing was changed. It is being started again: try again in a moment.',
      [],
      { retryAfter: AWAY_SECONDS },
      { cause: thrown },
    )
  if (typeof thrown === 'object' && thrown !== null && 'status' in thrown && thrown.status === 404)
    return new AppError('NOT_FOUND', 'There is nothing at this address.', [], {}, { cause: thrown })
  if (thrown instanceof URIError)
    return new AppError('BAD_REQUEST', 'The address of this request is damaged.', [], {}, { cause: thrown })
  return new AppError(
    'INTERNAL',
    'Something failed on the server; nothing was changed. Try again, and if it stays look into the server log.',
    [],
    {},
    { cause: thrown },
  )
}

/** The wire shape of a failure (RFC 9457 problem details). */
export function problemDetails(error: AppError, requestId: string): Record<string, unknown> {
  return {
    type: `urn:kapelle:error:${error.code.toLowerCase()}`,
    title: error.message,
    status: statusOf[error.code],
    requestId,
    ...(error.problems.length > 0 ? { problems: error.problems } : {}),
    ...error.extra,
  }
}
