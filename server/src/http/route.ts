import type { z } from 'zod'
import { hasRight, reaches, type Right, type Role } from '#core'
import type { From } from '../auth/accounts.ts'
import type { Account } from '../db/people.ts'
import { USUAL_KB } from './body.ts'
import { AppError } from '../errors/app-error.ts'

/** What a handler gets: parsed values only, never the request itself. */
export interface Call<P, Q, B> {
  readonly params: P
  readonly query: Q
  readonly body: B
  /** Token of the session, if the caller has one. */
  readonly token: string | null
  /** Where the call comes from. */
  readonly from: From
  /** The address that the caller reached the product by, without a path. */
  readonly origin: string
  /** The signed-in person; throws for a caller without a session. */
  readonly who: Account
  /** Sets or, with null, clears the session cookie. */
  setSession(session: { token: string; expiresAt: Date } | null): void
}

/** A file as an answer. */
export class FileAnswer {
  constructor(
    readonly name: string,
    readonly type: string,
    readonly content: Buffer | string,
    /** Of unknown origin and never changed under its address: a browser may keep it, and lets it do nothing. */
    readonly foreign = false,
  ) {}
}

/** An answer with a status of its own. */
export class StatusAnswer {
  constructor(
    readonly status: number,
    readonly value: unknown,
    readonly type = 'application/problem+json',
  ) {}
}

/** One row of the table of routes: it drives parsing, the OpenAPI document and the leak test. */
export interface Route {
  readonly method: 'get' | 'post' | 'put' | 'delete'
  readonly path: string
  readonly summary: string
  /** Who may call it. */
  readonly role: 'public' | Role
  readonly params: z.ZodType | null
  readonly query: z.ZodType | null
  readonly body: z.ZodType | null
  readonly answer: z.ZodType | null
  /** Content type of an answer that is a file; null for JSON. */
  readonly file: string | null
  /** Whether repeated failures of one address are held back. */
  readonly guarded: boolean
  /** What is given besides the role: an owner has every right. */
  readonly right: Right | null
  /** The largest body, kB. */
  readonly bodyKb: number
  /** Whether the body stays text, for a worker to parse. */
  readonly asText: boolean
  /** Whether the body is a file as it is, not JSON. */
  readonly asBytes: boolean
  /** Whether it is done though the disk is full: it keeps next to nothing. */
  readonly light: boolean
  readonly handle: (call: Call<never, never, never>) => Promise<unknown>
}

/** Defines a route whose handler sees the types of its schemas. */
export function route<
  P extends z.ZodType = z.ZodType<Record<string, never>>,
  Q extends z.ZodType = z.ZodType<Record<string, never>>,
  B extends z.ZodType = z.ZodType<undefined>,
>(def: {
  method: Route['method']
  path: string
  summary: string
  role: Route['role']
  params?: P
  query?: Q
  body?: B
  answer?: z.ZodType
  file?: string
  guarded?: boolean
  right?: Right
  bodyKb?: number
  asText?: boolean
  asBytes?: boolean
  light?: boolean
  handle: (call: Call<z.infer<P>, z.infer<Q>, z.infer<B>>) => Promise<unknown>
}): Route {
  return {
    ...def,
    params: def.params ?? null,
    query: def.query ?? null,
    body: def.body ?? null,
    answer: def.answer ?? null,
    file: def.file ?? null,
    guarded: def.guarded ?? false,
    right: def.right ?? null,
    bodyKb: def.bodyKb ?? USUAL_KB,
    asText: def.asText ?? false,
    asBytes: def.asBytes ?? false,
    light: def.light ?? false,
    handle: def.handle as Route['handle'],
  }
}

/** Throws the error that asks to sign in, or names the role or right that is needed. */
export function allow({ role, right }: Pick<Route, 'role' | 'right'>, account: Account | null): void {
  if (role === 'public') return
  if (!account) throw new AppError('SIGN_IN_NEEDED', 'Sign in first.')
  if (!reaches(account.role, role))
    throw new AppError(
      'NOT_ALLOWED',
      role === 'owner'
        ? 'Only the owner of the firm may do this.'
        : 'You look on here: only an installer or an owner of the firm may change something.',
    )
  if (right && !hasRight(account, right))
    throw new AppError(
      'NOT_ALLOWED',
      'Only the owner of the firm may do this, or somebody to whom the owner gave it (People of the firm).',
    )
}
