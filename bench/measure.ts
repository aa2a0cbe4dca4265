import { quantile } from 'simple-statistics'

/** What one benchmark found: its own time, that of a baseline in the same run, and their ratio. */
export interface Measured {
  readonly name: string
  readonly ms: number
  readonly baselineMs: number
  readonly baseline: string
  /** What it may cost, in words. */
  readonly budget: string
  readonly within: boolean
}

/** Median of `rounds` runs, in milliseconds; the first tenth warms up and does not count. */
export function median(rounds: number, run: (round: number) => void): number {
  const times: number[] = []
  for (let round = 0; round < rounds; round++) {
    const start = performance.now()
    run(round)
    times.push(performance.now() - start)
  }
  return quantile(times.slice(Math.ceil(rounds / 10)), 0.5)
}

export function print(results: readonly Measured[]): void {
  for (const result of results) {
    const ratio = result.ms / result.baselineMs
    console.log(
      `${result.within ? '✓' : '✗'} ${result.name}: ${inMs(result.ms)} = ${ratio.toFixed(2)} × ${result.baseline} (${inMs(result.baselineMs)}); budget ${result.budget}`,
    )
  }
}

/** Milliseconds, with as many places as tell something. */
function inMs(ms: number): string {
  return `${ms.toFixed(ms < 0.1 ? 4 : 2)} ms`
}
