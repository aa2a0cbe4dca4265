import type { Compiled } from './compiled.ts'
import type { Input } from './state.ts'

/* Keys as a sheet writes them: `[go] 16 [tick]`, `[next] ×3`, `[tick] for 5 s`, `(installer code)`, `wait 40 s`, `(hears 20417733 3)`. */

/** What was read: inputs, or which part means nothing here. */
export type KeysRead =
  | { readonly ok: true; readonly inputs: readonly Input[] }
  | { readonly ok: false; readonly at: number; readonly reason: string }

const token =
  /\s*(?:\[([^\]]{1,12})\](?:\s*for\s+(\d+(?:\.\d+)?)\s*s\b|\s*[×x](\d{1,2})(?![\dA-Za-z]))?|\(([a-z-]+) code\)|wait\s+(\d+(?:\.\d+)?)\s*s\b|\(hears ([0-9A-Z]+)(?: (\d+))?\)|(\S))/gy

/** Reads keys as they are written, large or small letters; every key must be one of the panel's. */
export function readKeys({ keys, panel }: Compiled, text: string): KeysRead {
  const small = new Map([...keys].map((key) => [key.toLowerCase(), key]))
  const inputs: Input[] = []
  const rest = text.trimEnd()
  for (let at = 0; at < rest.length;) {
    const spaces = /^\s*/.exec(rest.slice(at))?.[0].length ?? 0
    token.lastIndex = at
    const match = token.exec(rest)
    if (!match) return { ok: false, at: at + spaces, reason: noKey(rest.slice(at + spaces), panel.name) }
    const [whole, named, seconds, times, , , , , single] = match
    const asked = named ?? single
    const key = asked === undefined ? undefined : keyOf(keys, small, asked.trim())
    if (key === null) {
      const from = rest.slice(at + spaces)
      const has = `${panel.name} has no key ${asked}; it has ${[...keys].join(', ')}`
      return { ok: false, at: at + spaces, reason: named === undefined ? noKey(from, panel.name) : has }
    }
    if (key === undefined) inputs.push(besides(match))
    else if (seconds !== undefined) inputs.push({ kind: 'hold', key, seconds: Number(seconds) })
    else for (let time = 0; time < Number(times ?? 1); time++) inputs.push({ kind: 'press', key })
    at += whole.length
  }
  return { ok: true, inputs }
}

/** What is written that is no key. */
function besides([, , , , who, wait, serial, loop]: RegExpExecArray): Input {
  if (who !== undefined) return { kind: 'code', who }
  if (wait !== undefined) return { kind: 'wait', seconds: Number(wait) }
  return { kind: 'hear', serial: serial ?? '', loop: loop === undefined ? null : Number(loop) }
}

function keyOf(keys: ReadonlySet<string>, small: ReadonlyMap<string, string>, asked: string): string | null {
  return keys.has(asked) ? asked : (small.get(asked.toLowerCase()) ?? null)
}

function noKey(from: string, panel: string): string {
  const [word = ''] = /^\S{1,14}/.exec(from) ?? []
  return `“${word}” is no key of ${panel}: a key stands in brackets, a digit as it is`
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
