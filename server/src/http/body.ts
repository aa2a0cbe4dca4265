import type { IncomingMessage, ServerResponse } from 'node:http'
import express, { type RequestHandler } from 'express'
import { AppError } from '../errors/app-error.ts'

/** What a body may have before anybody signed in, kB. */
export const STRANGER_KB = 64
/** What it may have where a route says nothing else, kB. */
export const USUAL_KB = 256
/** How deep JSON may be nested. Nothing that the product writes is deeper than a dozen. */
const DEEPEST = 64

/** Reads a JSON body of at most `kB`: with `asText` it stays text, for a worker to parse; with `asBytes` it is a file as it is. */
export function bodyReader(
  kB: number,
  { asText, asBytes }: { readonly asText: boolean; readonly asBytes: boolean },
): RequestHandler {
  if (asBytes) return express.raw({ limit: kB * 1024, type: () => true })
  const common = { limit: kB * 1024, verify: notTooDeep }
  return asText
    ? express.text({ ...common, type: 'application/json' })
    : express.json({ ...common, strict: false })
}

/** Refuses JSON that is nested too deep before it is parsed: what walks it later does so by calling itself. */
function notTooDeep(_req: IncomingMessage, _res: ServerResponse, bytes: Buffer): void {
  let depth = 0
  let inText = false
  for (let at = 0; at < bytes.length; at++) {
    const byte = bytes[at]
    if (inText) {
      if (byte === BACKSLASH) at += 1
      else if (byte === QUOTE) inText = false
    } else if (byte === QUOTE) inText = true
    else if (byte === OPEN_LIST || byte === OPEN_OBJECT) {
      depth += 1
      if (depth > DEEPEST)
        throw new AppError(
          'BAD_REQUEST',
          `What was sent is nested deeper than ${DEEPEST} levels, so nothing of it was taken.`,
        )
    } else if (byte === CLOSE_LIST || byte === CLOSE_OBJECT) depth -= 1
  }
}

const [QUOTE, BACKSLASH] = [0x22, 0x5c]
const [OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [0x5b, 0x5d, 0x7b, 0x7d]
