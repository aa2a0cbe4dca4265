import { spawn } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { testShare } from './test-share.ts'

interface Tally {
  passed: number
  failed: number
  skipped: number
  /** What the failed ones are called; they are named once more at the end, where a long output is cut last. */
  names?: readonly string[]
}

/**
 * Runs every check and every test suite, going on after a failure so that one run shows all, and prints the sum as the
 * last line, with the minutes each took. `long` tries every case of the large properties. Returns the exit code: 1 when anything failed or a suite ran no test.
 */
export async function runChecks(long: boolean): Promise<number> {
  if (long) process.env.KAPELLE_LONG = '1'
  const began = Date.now()
  const folder = mkdtempSync(join(tmpdir(), 'kapelle-checks-'))
  const sum: Tally = { passed: 0, failed: 0, skipped: 0 }
  const failures: string[] = []
  let since = began
  const add = (name: string, tally: Tally, ms = Date.now() - since): void => {
    const took = minutes(ms)
    since = Date.now()
    sum.passed += tally.passed
    sum.failed += tally.failed
    sum.skipped += tally.skipped
    if (tally.failed > 0) failures.push(...(tally.names ?? []).map((one) => `${name}: ${one}`))
    if (tally.failed > 0 && !tally.names?.length) failures.push(name)
    console.log(`· ${name}: ${tally.passed} passed, ${tally.failed} failed, ${took} min`)
  }
  const checks: [string, string[]][] = [
    ['format', ['prettier', '--check', '--log-level', 'warn', '.']],
    ['lint', ['eslint', '.', '--max-warnings', '0']],
    ['unused', ['knip', '--no-progress']],
    ['types of core', ['tsc', '-p', 'core']],
    ['types of the server', ['tsc', '-p', 'server']],
    ['types of the client', ['vue-tsc', '-p', 'web']],
    ['types of the journeys', ['tsc', '-p', 'e2e']],
    ['types of the benchmarks', ['tsc', '-p', 'bench']],
    [
      'layers',
      [
        'depcruise',
        '--config',
        '.dependency-cruiser.cjs',
        '--output-type',
        'err',
        'core/src',
        'server/src',
        'web/src',
      ],
    ],
  ]
  // Each works on one core: two go side by side, and each prints its own once it has ended.
  const waiting = [...checks]
  const lane = async (): Promise<void> => {
    for (let next = waiting.shift(); next; next = waiting.shift()) {
      const [name, command] = next
      const from = Date.now()
      const { code, output } = await runApart(command)
      process.stdout.write(output)
      add(name, { passed: Number(code === 0), failed: Number(code !== 0), skipped: 0 }, Date.now() - from)
    }
  }
  await Promise.all([lane(), lane()])
  for (const [project, name] of suites) {
    const file = join(folder, `${project}.json`)
    const code = await run([
      'vitest',
      'run',
      '--project',
      project,
      '--reporter=dot',
      '--reporter=json',
      `--outputFile.json=${file}`,
    ])
    add(name, unitTally(file, code))
  }
  const journeys = join(folder, 'journeys.json')
  const journeyCode = await run(['playwright', 'test', '--reporter=list,json'], {
    PLAYWRIGHT_JSON_OUTPUT_NAME: journeys,
  })
  add('journeys in the browser', journeyTally(journeys, journeyCode))
  rmSync(folder, { recursive: true, force: true })
  console.log(`· ${minutes(Date.now() - began)} min in all${long ? ', with every case' : ''}`)
  console.log(`· tests are ${Math.round(100 * testShare(process.cwd()))} % of the code`)
  for (const failure of failures) console.log(`· failed: ${failure}`)
  console.log(
    `\n${sum.passed} passed, ${sum.failed} failed${sum.skipped > 0 ? `, ${sum.skipped} skipped` : ''}`,
  )
  return sum.failed > 0 ? 1 : 0
}

/** The suites of unit tests, each with what it is called. */
const suites = [
  ['core', 'tests of the core and the demo'],
  ['server', 'tests of the server on MariaDB'],
  ['web', 'tests of the client'],
] as const

function minutes(milliseconds: number): string {
  return (milliseconds / 60_000).toFixed(1)
}

function run(command: string[], env: Record<string, string> = {}): Promise<number> {
  return new Promise((done) => {
    const child = spawn('npx', command, {
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...env },
    })
    child.on('close', (code) => done(code ?? 1))
  })
}

/** Runs a command whose output is kept until it has ended. */
function runApart(command: string[]): Promise<{ readonly code: number; readonly output: string }> {
  return new Promise((done) => {
    const child = spawn('npx', command, { stdio: ['ignore', 'pipe', 'pipe'] })
    const parts: Buffer[] = []
    child.stdout.on('data', (part: Buffer) => parts.push(part))
    child.stderr.on('data', (part: Buffer) => parts.push(part))
    child.on('close', (code) => done({ code: code ?? 1, output: Buffer.concat(parts).toString('utf8') }))
  })
}

function unitTally(file: string, code: number): Tally {
  if (!existsSync(file)) return { passed: 0, failed: 1, skipped: 0 }
  const report = JSON.parse(readFileSync(file, 'utf8')) as {
    numPassedTests: number
    numFailedTests: number
    numPendingTests: number
    numFailedTestSuites: number
    testResults: {
      name: string
      status: string
      assertionResults: { fullName: string; status: string }[]
    }[]
  }
  const failed = report.numFailedTests
  const names = report.testResults.flatMap(({ name, status, assertionResults }) => {
    const tests = assertionResults.filter((one) => one.status === 'failed').map((one) => one.fullName)
    return status === 'failed' && tests.length === 0 ? [name] : tests
  })
  return withVerdict({ passed: report.numPassedTests, failed, skipped: report.numPendingTests, names }, code)
}

function journeyTally(file: string, code: number): Tally {
  if (!existsSync(file)) return { passed: 0, failed: 1, skipped: 0 }
  const { stats, suites } = JSON.parse(readFileSync(file, 'utf8')) as {
    stats: { expected: number; unexpected: number; flaky: number; skipped: number }
    suites?: JourneySuite[]
  }
  return withVerdict(
    {
      ...{ passed: stats.expected, failed: stats.unexpected + stats.flaky, skipped: stats.skipped },
      names: (suites ?? []).flatMap(failedJourneys),
    },
    code,
  )
}

interface JourneySuite {
  readonly specs?: readonly { readonly title: string; readonly ok: boolean }[]
  readonly suites?: readonly JourneySuite[]
}

function failedJourneys({ specs = [], suites = [] }: JourneySuite): string[] {
  return [
    ...specs.filter(({ ok }) => !ok).map(({ title }) => title),
    ...suites.flatMap((suite) => failedJourneys(suite)),
  ]
}

/** A suite that ran nothing, or ended badly without a failed test, counts as one failure. */
function withVerdict(tally: Tally, code: number): Tally {
  const silent = tally.failed === 0 && (code !== 0 || tally.passed === 0)
  return silent ? { ...tally, failed: 1 } : tally
}
