/** Runs a transaction again, up to three times in all, when the database broke it off for a deadlock or a lock wait. */
export async function retrying<T>(work: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await work()
    } catch (error) {
      if (attempt >= 3 || !isLockTrouble(error)) throw error
    }
  }
}

/** Whether the database refused a row because its key is taken. */
export function isDuplicate(error: unknown): boolean {
  return errorNumber(error) === 1062
}

/** Whether the database was not there to do it: it ended, is being started, or takes no more connections. */
export function isAway(error: unknown): boolean {
  const code = errorCode(error)
  if (code !== null && AWAY.has(code)) return true
  const message = error instanceof Error ? error.message : ''
  return /closed state|Pool is closed|Connection lost|is not established|socket has been ended/i.test(message)
}

const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
  'ER_CONNECTION_KILLED',
  'ER_CON_COUNT_ERROR',
  'ER_QUERY_INTERRUPTED',
])

function errorCode(error: unknown): string | null {
  if (typeof error !== 'object' || error === null) return null
  if ('code' in error && typeof error.code === 'string') return error.code
  return 'driverError' in error ? errorCode(error.driverError) : null
}

function isLockTrouble(error: unknown): boolean {
  const number = errorNumber(error)
  return number === 1213 || number === 1205
}

function errorNumber(error: unknown): number | null {
  if (typeof error !== 'object' || error === null) return null
  if ('errno' in error && typeof error.errno === 'number') return error.errno
  return 'driverError' in error ? errorNumber(error.driverError) : null
}
