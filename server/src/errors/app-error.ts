import type { Problem } from '#core'

/** Every way a request can fail; what each is on the wire is said where requests are answered. */
export type ErrorCode =
  | 'BAD_REQUEST'
  | 'SIGN_IN_NEEDED'
  | 'NOT_ALLOWED'
  | 'NOT_FOUND'
  | 'CONFLICT'
  | 'TOO_LARGE'
  | 'INVALID'
  | 'NEWER'
  | 'TOO_MANY'
  | 'INTERNAL'
  | 'AWAY'
  | 'FULL'

/** A failure with a message that a person can act on. */
export class AppError extends Error {
  constructor(
    readonly code: ErrorCode,
    message: string,
    readonly problems: readonly Problem[] = [],
    readonly extra: Readonly<Record<string, unknown>> = {},
    options?: ErrorOptions,
  ) {
    super(message, options)
  }
}
