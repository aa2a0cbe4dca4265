import { ref } from 'vue'
import type { Problem } from '#core'

/** A failure that the server explained; `status` 0 means that it was not reached. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly problems: readonly Problem[] = [],
    readonly body: Readonly<Record<string, unknown>> = {},
  ) {
    super(message)
  }
}

/** True once the server runs another build than this page. */
export const newerBuild = ref(false)

/** Calls the server and gives its JSON answer; throws ApiError with a message for the person. */
export async function api<T>(
  method: 'GET' | 'POST' | 'PUT' | 'DELETE',
  path: string,
  body?: unknown,
): Promise<T> {
  return call<T>(path, {
    method,
    headers: body === undefined ? {} : { 'Content-Type': 'application/json' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  })
}

/** Sends a file as it is, and gives the server's JSON answer; throws as `api` does. */
export async function sendFile<T>(path: string, bytes: Uint8Array<ArrayBuffer>): Promise<T> {
  return call<T>(path, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: bytes,
  })
}

async function call<T>(path: string, init: RequestInit): Promise<T> {
  let response: Response
  try {
    response = await fetch(path, init)
  } catch {
    throw new ApiError(
      0,
      'The server cannot be reached. What you do is kept here and sent when it answers again.',
    )
  }
  const build = response.headers.get('X-Kapelle-Build')
  if (build && build !== 'dev' && build !== __BUILD__) newerBuild.value = true
  const answer: unknown = await response.json().catch(() => ({}))
  if (response.ok) return answer as T
  const problem = answer as { title?: string; problems?: Problem[] }
  throw new ApiError(
    response.status,
    problem.title ?? `The server answered ${response.status}.`,
    problem.problems ?? [],
    answer as Record<string, unknown>,
  )
}
