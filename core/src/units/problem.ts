import type { z } from 'zod'

/** One thing wrong with a piece of input: where it stands and what is allowed there, in plain words. */
export interface Problem {
  /** Path of the field, dotted, as the person or the file knows it; empty for the whole input. */
  readonly path: string
  /** What is wrong and what is allowed, one sentence. */
  readonly message: string
}

/**
 * Turns schema issues into plain sentences that name the field and the allowed values.
 * The schema library's own wording never reaches a person.
 */
function problemsOf(error: z.ZodError, root = ''): Problem[] {
  return error.issues.flatMap((issue) => wordIssue(issue, root))
}

/** Parses `value`, giving either the typed value or the problems in plain words. */
export function check<T>(
  schema: z.ZodType<T>,
  value: unknown,
  root = '',
): { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problems: Problem[] } {
  const parsed = schema.safeParse(value, { reportInput: true })
  return parsed.success
    ? { ok: true, value: parsed.data }
    : { ok: false, problems: problemsOf(parsed.error, root) }
}

/** Joins problems into one line for places that have room for one sentence only. */
export function problemLine(problems: readonly Problem[]): string {
  return problems.map((p) => (p.path ? `${p.path}: ${p.message}` : p.message)).join('; ')
}

type Issue = z.ZodError['issues'][number]

function wordIssue(issue: Issue, root: string): Problem[] {
  const path = [root, ...issue.path.map(String)].filter(Boolean).join('.')
  if (issue.code === 'unrecognized_keys')
    return issue.keys.map((key) => ({
      path: path ? `${path}.${key}` : key,
      message: 'is not a known field here',
    }))
  return [{ path, message: sentence(issue) }]
}

function sentence(issue: Issue): string {
  // Wording given beside a schema in this code begins with "must" and says more than the general sentences below.
  if (issue.message.startsWith('must ')) return issue.message
  switch (issue.code) {
    case 'invalid_type':
      return issue.input === undefined
        ? `is missing; ${article(issue.expected)} is needed`
        : `must be ${article(issue.expected)}`
    case 'too_small':
      return bound(issue.origin, issue.inclusive === false ? 'more than' : 'at least', Number(issue.minimum))
    case 'too_big':
      return bound(issue.origin, issue.inclusive === false ? 'less than' : 'at most', Number(issue.maximum))
    case 'invalid_value':
      return `must be one of: ${issue.values.map(String).join(', ')}`
    case 'not_multiple_of':
      return `must be a multiple of ${issue.divisor}`
    case 'invalid_format':
      return `does not have the right form (${issue.format})`
    case 'invalid_union': {
      const allowed =
        'discriminator' in issue && issue.discriminator ? ` by its "${String(issue.discriminator)}"` : ''
      return `is none of the allowed kinds${allowed}`
    }
    case 'custom':
      return issue.message
    default:
      return 'is not allowed here'
  }
}

function bound(origin: string, word: string, limit: number): string {
  if (origin === 'string')
    return limit === 1 && word === 'at least'
      ? 'must not be empty'
      : `must have ${word} ${limit} ${limit === 1 ? 'character' : 'characters'}`
  if (origin === 'array') return `must have ${word} ${limit} ${limit === 1 ? 'entry' : 'entries'}`
  return `must be ${word} ${limit}`
}

function article(expected: string): string {
  const words: Record<string, string> = {
    string: 'a text',
    number: 'a number',
    int: 'a whole number',
    boolean: 'yes or no (true or false)',
    array: 'a list',
    object: 'an object',
    record: 'an object',
    null: 'empty (null)',
  }
  return words[expected] ?? `a ${expected}`
}
