// npm run mutants [folder …]: changes the code of a folder line by line and tells which changes no test notices.
// Outside ./kapelle test: it takes minutes per file. What was tried is kept in .mutants, so that a second run is quick.
import { spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'

/** Folders that keep at least 85 in 100 mutants killed; others come with the work that rewrites them. */
const held = [
  'core/src/records',
  'core/src/job',
  'core/src/units',
  'server/src/auth',
  'server/src/db',
  'server/src/http',
]
const LEAST = 85

const asked = process.argv.slice(2)
const folders = asked.length > 0 ? asked : held
const counts = []
mkdirSync('.mutants', { recursive: true })
for (const folder of folders) {
  const name = folder.replace(/[^a-z0-9]+/gi, '-')
  const project = folder.startsWith('server') ? 'server' : folder.startsWith('web') ? 'web' : 'core'
  const report = `.mutants/${name}.json`
  const config = {
    testRunner: 'vitest',
    plugins: ['@stryker-mutator/vitest-runner'],
    vitest: { configFile: `vitest.mutants.${project}.ts`, related: true },
    mutate: [
      folder.endsWith('.ts') ? folder : `${folder}/**/*.ts`,
      '!**/*.test.ts',
      '!**/testing/**',
      '!**/migrations/**',
    ],
    // Wording is checked where it matters; a string changed for the sake of change is no fault.
    mutator: { excludedMutations: ['StringLiteral', 'ObjectLiteral'] },
    reporters: ['clear-text', 'json'],
    clearTextReporter: { logTests: false, reportTests: false, allowColor: false },
    jsonReporter: { fileName: report },
    incremental: true,
    incrementalFile: `.mutants/${name}.incremental.json`,
    tempDirName: '.mutants/tmp',
    coverageAnalysis: 'perTest',
    concurrency: 2,
    timeoutMS: 20_000,
    allowEmpty: true,
    ignorePatterns: ['dist', '.data', 'docs', 'test-results', 'playwright-report', '.mutants'],
  }
  const file = `.mutants/${name}.conf.json`
  writeFileSync(file, JSON.stringify(config, null, 2))
  const run = spawnSync('npx', ['stryker', 'run', file], { stdio: 'inherit' })
  if (run.status !== 0 && run.status !== 1) process.exitCode = 1
  counts.push({ folder, ...tally(report) })
}
for (const { folder, killed, of } of counts) {
  const share = of === 0 ? 100 : Math.floor((100 * killed) / of)
  const enough = share >= LEAST
  if (!enough && held.includes(folder)) process.exitCode = 1
  console.log(`${enough ? '·' : '✗'} ${folder}: ${killed} of ${of} mutants killed, ${share} in 100`)
}

function tally(file) {
  const { files } = JSON.parse(readFileSync(file, 'utf8'))
  const states = Object.values(files).flatMap((one) => one.mutants.map((mutant) => mutant.status))
  const killed = states.filter((state) => state === 'Killed' || state === 'Timeout').length
  const lived = states.filter((state) => state === 'Survived' || state === 'NoCoverage').length
  return { killed, of: killed + lived }
}
