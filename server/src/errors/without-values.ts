/** An error as it may stand in a log: a database's own carries the statement with its values, which hold people's data. */
export function withoutValues(error: unknown): unknown {
  if (!(error instanceof Error)) return String(error)
  const { name, message, stack } = error
  const code = 'code' in error ? String(error.code) : undefined
  return { type: name, message: code === undefined ? message : `${code}`, stack: stackOnly(stack), code }
}

/** The places of a stack, without the message before them. */
function stackOnly(stack: string | undefined): string {
  return (stack ?? '')
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .join('\n')
}
