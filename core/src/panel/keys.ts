import type { Compiled } from './compiled.ts'
import type { Input } from './state.ts'

/* Keys as a sheet writes them: `[go] 16 [tick]`, `[tick] for 5 s`, `(installer code)`, `wait 40 s`, `(hears 20417733 3)`. */

/** What was read: inputs, or which part means nothing here. */
export type KeysRead =
  | { readonly ok: true; readonly inputs: readonly Input[] }
  | { readonly ok: false; readonly at: number; readonly reason: string }

const token =
  /\s*(?:\[([^\]]{1,12})\](?:\s*for\s+(\d+(?:\.\d+)?)\s*s\b)?|\(([a-z-]+) code\)|wait\s+(\d+(?:\.\d+)?)\s*s\b|\(hears ([0-9A-Z]+)(?: (\d+))?\)|(\S))/gy

/** Reads keys as they are written; every key must be one of the panel's. */
export function readKeys({ keys, panel }: Compiled, text: string): KeysRead {
  const inputs: Input[] = []
  const rest = text.trimEnd()
  for (let at = 0; at < rest.length;) {
    token.lastIndex = at
    const match = token.exec(rest)
    if (!match) return { ok: false, at, reason: `“${rest.slice(at, at + 12)}” is no key` }
    const [whole, named, seconds, who, wait, serial, loop, single] = match
    const key = named ?? single
    if (key !== undefined && !keys.has(key))
      return { ok: false, at, reason: `${panel.name} has no key ${key}; it has ${[...keys].join(', ')}` }
    if (key !== undefined)
      inputs.push(
        seconds === undefined ? { kind: 'press', key } : { kind: 'hold', key, seconds: Number(seconds) },
      )
    else if (who !== undefined) inputs.push({ kind: 'code', who })
    else if (wait !== undefined) inputs.push({ kind: 'wait', seconds: Number(wait) })
    else if (serial !== undefined)
      inputs.push({ kind: 'hear', serial, loop: loop === undefined ? null : Number(loop) })
    at += whole.length
  }
  return { ok: true, inputs }
}

/** Writes keys so that they can be read and pressed: single signs run together, presses of another letter key stand apart. */
export function keysText(inputs: readonly Input[], letters = false): string {
  const parts: string[] = []
  let last = ''
  for (const input of inputs) {
    const single = input.kind === 'press' && input.key.length === 1 ? input.key : ''
    const joins = single !== '' && last !== '' && (!letters || single === last)
    const text = single === '' ? written(input) : single
    if (joins) parts.push((parts.pop() ?? '') + text)
    else if (!(input.kind === 'hear' && parts.at(-1) === text)) parts.push(text)
    last = single
  }
  return parts.join(' ')
}

function written(input: Input): string {
  switch (input.kind) {
    case 'press':
      return `[${input.key}]`
    case 'hold':
      return `[${input.key}] for ${input.seconds} s`
    case 'code':
      return `(${input.who} code)`
    case 'wait':
      return `wait ${input.seconds} s`
    case 'hear':
      return `(hears ${input.serial}${input.loop === null ? '' : ` ${input.loop}`})`
  }
}
