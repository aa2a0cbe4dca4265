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

function isLockTrouble(error: unknown): boolean {
  const number = errorNumber(error)
  return number === 1213 || number === 1205
}

function errorNumber(error: unknown): number | null {
  if (typeof error !== 'object' || error === null) return null
  if ('errno' in error && typeof error.errno === 'number') return error.errno
  return 'driverError' in error ? errorNumber(error.driverError) : null
}
