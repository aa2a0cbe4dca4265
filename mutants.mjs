// npm run mutants [folder …]: changes the code of a folder line by line and tells which changes no test notices.
// A single file may be named, too. Outside ./kapelle test: it takes minutes per folder. What lives is kept in .mutants.
import { spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname } from 'node:path'
import { filesOf, tryMutants } from './mutants/core.mjs'

const core = 'core/src'
/**
 * Folders that keep at least 85 in 100 mutants killed, each with the tests that are meant to notice; others come with the work
 * that rewrites them and are tried with all tests of their part.
 */
const held = {
  'core/src/act': [`${core}/act/*.test.ts`],
  'core/src/records': [`${core}/records/**/*.test.ts`],
  'core/src/job': [`${core}/job/*.test.ts`],
  'core/src/house-rules': [
    `${core}/house-rules/*.test.ts`,
    `${core}/fit/fit.test.ts`,
    `${core}/findings/{changes,judge}.test.ts`,
  ],
  'core/src/system': [`${core}/system/*.test.ts`, `${core}/fit/{fit,limits,unstated}.test.ts`],
  'core/src/wire': [`${core}/wire/*.test.ts`],
  'core/src/catalogue': [`${core}/catalogue/*.test.ts`, `${core}/draft/{entry,panel-entry}.test.ts`],
  'core/src/formats': [`${core}/formats/*.test.ts`],
  // What is told at the panel is acted out there for minutes: the near tests hold each part of it.
  'core/src/draft': [`${core}/draft/*.test.ts`, `!${core}/draft/at-panel.test.ts`],
  'core/src/units': [`${core}/units/**/*.test.ts`, `${core}/catalogue/signed.test.ts`],
  // The families' tests make their jobs while they are read: they would run for every mutant.
  'core/src/air': [`${core}/air/*.test.ts`, `${core}/job/practice.test.ts`],
  'core/src/identity': [`${core}/{identity,air}/*.test.ts`],
  'core/src/response': [
    `${core}/response/*.test.ts`,
    `${core}/findings/{response,delays,reporting,settings}/*.test.ts`,
    `${core}/programming/settings.test.ts`,
  ],
  'core/src/zones': [
    `${core}/zones/*.test.ts`,
    `${core}/findings/{zones,numbers,labels,slots}/*.test.ts`,
    `${core}/premises/areas.test.ts`,
  ],
  'core/src/fit': [`${core}/fit/*.test.ts`, `${core}/findings/fit/*.test.ts`],
  'core/src/memory': [`${core}/memory/*.test.ts`],
  'core/src/panel': [`${core}/panel/*.test.ts`],
  'core/src/programming': [`${core}/programming/*.test.ts`, `${core}/panel/sheet.test.ts`],
  'core/src/premises': [
    `${core}/premises/*.test.ts`,
    `${core}/findings/{needs,placement,areas}/*.test.ts`,
    `${core}/response/advise.test.ts`,
  ],
  'core/src/findings': [`${core}/findings/**/*.test.ts`],
  'core/src/proof': [`${core}/proof/*.test.ts`, `${core}/findings/handover.test.ts`],
  'server/src/auth': ['server/src/auth/*.test.ts', 'server/src/http/{access,session,people}.test.ts'],
  'server/src/db': ['server/src/{db,http}/*.test.ts', 'server/src/jobs/{summaries,handover}.test.ts'],
  'server/src/http': ['server/src/{auth,http}/*.test.ts'],
}
/** Tests that notice what one file of the server does; with all of its folder's, what lives takes a minute each. */
const narrow = tests('server/src', {
  'db/attempts': 'auth/attempts http/two',
  'db/backup': 'db/backup db/backup-file',
  'db/batches': 'db/batches',
  'db/cache': 'db/small',
  'db/catalogue': 'db/rows http/packs',
  'db/entities': 'db/schema db/builds',
  'db/jobs': 'db/jobs http/edits http/files http/guards http/firm jobs/summaries jobs/summaries-rest',
  'db/journal-rows': 'db/rows http/edits',
  'db/later': 'db/small http/edits',
  'db/links': 'auth/accounts http/people',
  'db/mariadb': 'db/mariadb',
  'db/people': 'db/jobs auth/accounts http/people http/session http/access',
  'db/restore': 'db/backup',
  'db/retry': 'db/small',
  'db/settings': 'db/rows http/firm',
  'db/source': 'db/builds db/backup',
  'db/store': 'db/rows http/two',
  'db/summaries': 'jobs/summaries jobs/summaries-rest http/two',
  'db/transmitters': 'db/rows http/guards',
  'http/app': 'http/app http/access http/session http/limits http/log http/outside http/client-files',
  'http/body': 'http/limits',
  'http/errors': 'http/errors',
  'http/events': 'http/events',
  'http/firm-routes': 'http/firm http/access',
  'http/openapi': 'http/access',
  'http/pack-routes': 'http/packs http/guards',
  'http/people-routes': 'http/people http/session http/access',
  'http/route': 'http/access http/limits http/session http/people',
  'http/routes': 'http/access http/edits http/files http/guards http/firm jobs/handed-in',
  'http/service-routes': 'http/limits http/access',
})
/** Files of the panel, each with the tests that notice what it does: with all of its folder's, what lives takes half a minute each. */
const panelTests = tests(core, {
  'panel/audit': 'panel/audit',
  'panel/compiled': 'panel/compiled',
  'panel/display': 'panel/machine panel/other-panels',
  'panel/explain': 'panel/explain',
  'panel/forms': 'panel/forms panel/machine panel/wrong-keys',
  'panel/graph': 'panel/graph panel/route panel/route-small panel/route-radio',
  'panel/keys': 'panel/keys panel/explain',
  'panel/listening': 'panel/listening',
  'panel/lost': 'panel/lost-small',
  'panel/machine': 'panel/small panel/machine panel/wrong-keys panel/other-panels',
  'panel/patterns': 'panel/patterns',
  'panel/read-back': 'panel/read-back',
  'panel/read-off': 'panel/read-off',
  'panel/route': 'panel/route panel/route-small panel/route-radio panel/sheet',
  'panel/sheet': 'panel/sheet',
  'panel/slips': 'panel/sheet',
  'panel/state': 'panel/small panel/machine panel/wrong-keys panel/other-panels',
  'panel/typist': 'panel/typist',
  'panel/way-back': 'panel/way-back',
  'panel/whereabouts': 'panel/whereabouts',
  'panel/widgets': 'panel/widgets panel/machine panel/wrong-keys panel/other-panels',
  'panel/worded': 'panel/worded panel/explain',
})
/** Files of the findings, too: rules and words of a topic with its own tests, what all topics share with all tests. */
const findingsTests = tests(core, {
  ...Object.fromEntries(
    filesOf([`${core}/findings/*/rules.ts`]).flatMap((rules) => {
      const topic = rules.split('/').at(-2)
      const own = `findings/${topic}/*`
      return [
        [`findings/${topic}/rules`, own],
        [`findings/words/${topic}`, own],
      ]
    }),
  ),
  'findings/changes': 'findings/changes',
  'findings/context': 'findings/context findings/judge',
  'findings/customer-notes': 'findings/customer-notes',
  'findings/departures': 'findings/departures',
  'findings/finding': 'findings/*/* findings/*',
  'findings/handover': 'findings/handover findings/departures',
  'findings/judge': 'findings/judge findings/departures findings/handover findings/labels/*',
  'findings/people': 'findings/needs/* findings/delays/*',
  'findings/registry': 'findings/judge findings/rules-doc findings/fixes',
  'findings/response/use-type': 'findings/response/*',
  'findings/response/wrong-kind': 'findings/response/*',
  'findings/tonight': 'findings/tonight',
  'findings/words/fit-reasons': 'fit/{fit,assign,repeaters,unstated} findings/fit/* findings/placement/*',
  'findings/words/fixes': 'findings/fix-words',
  'findings/words/places': 'premises/places findings/placement/*',
  'findings/words/plural': 'findings/fix-words',
})
/** Files of the job with the near tests of who uses them: all that read a job would run for every mutant of what it is made of. */
const jobTests = tests(core, {
  'job/blank': 'job/* premises/areas',
  'job/declared-evidence':
    'job/* formats/job-file proof/{keyed,moved,mounting,names,walk,battery,clean-start}',
  'job/declared-plan': 'job/* formats/job-file response/panel-settings premises/areas',
  'job/declared-premises': 'job/* formats/job-file premises/*',
  'job/document': 'job/* premises/areas findings/changes',
  'job/edit': 'job/* findings/changes',
  'job/enrolment': 'job/* findings/departures proof/{clean-start,names,moved} zones/device-move',
  'job/evidence': 'job/* air/shares proof/{keyed,moved,walk,battery,names,mounting}',
  'job/fields': 'job/* records/*',
  'job/left-in-panel': 'job/* fit/replace proof/clean-start',
  'job/pins': 'job/* findings/changes',
  'job/practice': 'job/practice job/derived',
  'job/recalled': 'job/recalled',
  'job/records': 'job/*',
  'job/removals': 'job/derived premises/areas',
  'job/rules-in-force': 'job/* response/advise-device findings/departures',
  'job/serials': 'job/*',
  'job/shapes': 'job/* formats/job-file',
  'job/stages': 'job/stages',
  'job/start': 'job/* proof/{names,owed} fit/stand-ins',
  'job/titles': 'job/*',
  'job/told': 'job/* air/told',
  'job/upgrade-evidence': 'job/*',
  'job/upgrade-sources': 'job/upgrade-sources',
  'job/upgrades': 'job/* formats/job-file',
  'job/wiped': 'job/* proof/clean-start',
})
/** Folders that are tried file by file; what must hold is the folder as a whole. */
const byFile = {
  [`${core}/job`]: jobTests,
  [`${core}/panel`]: panelTests,
  [`${core}/findings`]: findingsTests,
}
const LEAST = 85

const asked = process.argv.slice(2)
const folders = (asked.length > 0 ? asked : Object.keys(held)).flatMap((folder) =>
  folder in byFile ? Object.keys(byFile[folder]) : [folder],
)
const counts = []
mkdirSync('.mutants', { recursive: true })
for (const folder of folders) {
  try {
    counts.push({ folder, ...(await (folder.startsWith(core) ? quickly(folder) : byRunner(folder))) })
  } catch (error) {
    console.error(`✗ ${folder} could not be tried: ${error.message}`)
    process.exitCode = 1
  }
}
for (const [folder, files] of Object.entries(byFile)) {
  const parts = counts.filter((one) => one.folder in files)
  if (parts.length < Object.keys(files).length) continue
  const sum = (key) => parts.reduce((all, one) => all + one[key], 0)
  counts.push({ folder, killed: sum('killed'), of: sum('of') })
}
for (const { folder, killed, of } of counts) {
  const share = of === 0 ? 100 : Math.floor((100 * killed) / of)
  const enough = share >= LEAST
  if (!enough && folder in held) process.exitCode = 1
  console.log(`${enough ? '·' : '✗'} ${folder}: ${killed} of ${of} mutants killed, ${share} in 100`)
}

/** The core: see mutants/core.mjs. What lives is listed, and kept in .mutants. */
async function quickly(folder) {
  const name = folder.replace(/[^a-z0-9]+/gi, '-')
  const found = await tryMutants(
    filesOf([folder.endsWith('.ts') ? folder : `${folder}/**/*.ts`, '!**/*.test.ts', '!**/testing/**']),
    filesOf([...testsOf(folder), '!**/world.test.ts', '!**/families.test.ts']),
    `.mutants/${name}`,
    (done, left) => done % 100 === 0 && console.error(`  ${folder}: ${done} tried, ${left} to go`),
  )
  writeFileSync(`.mutants/${name}.json`, JSON.stringify(found, null, 2))
  for (const { file, line, column, was, now, covered } of found.filter(({ killed }) => !killed))
    console.log(
      `  ${file}:${line}:${column} ${brief(was)} → ${brief(now)}${covered ? '' : ' (nothing runs it)'}`,
    )
  return { killed: found.filter(({ killed }) => killed).length, of: found.length }
}

function brief(code) {
  return code.replace(/\s+/g, ' ').slice(0, 80)
}

/** The server: its tests need their database and their runner. */
function byRunner(folder) {
  const name = folder.replace(/[^a-z0-9]+/gi, '-')
  const report = `.mutants/${name}.json`
  const config = {
    testRunner: 'vitest',
    plugins: ['@stryker-mutator/vitest-runner'],
    vitest: { configFile: 'vitest.mutants.server.ts', related: false },
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
    dryRunTimeoutMinutes: 20,
    allowEmpty: true,
    // What a module does while it is read cannot be tried without reading everything anew for each mutant: on a database too slow.
    ignoreStatic: true,
    // The server's tests ask for the built client too.
    ignorePatterns: ['.data', 'docs', 'test-results', 'playwright-report', '.mutants'],
  }
  const file = `.mutants/${name}.conf.json`
  writeFileSync(file, JSON.stringify(config, null, 2))
  const named = testsOf(folder)
  const env = { ...process.env, KAPELLE_MUTANTS: named.join(';') }
  const run = spawnSync('npx', ['stryker', 'run', file], { stdio: 'inherit', env })
  if (run.status !== 0) throw new Error('the lines above say why')
  return tally(report)
}

/** The tests that run for a folder or file: its own list, that of the folder that holds it, or its own tests where it has some. */
function testsOf(folder) {
  const own = folder.startsWith(`${core}/findings/`) && !folder.endsWith('.ts')
  if (own) return [`${folder}/*.test.ts`]
  return (
    narrow[folder] ??
    Object.values(byFile).find((files) => folder in files)?.[folder] ??
    held[folder] ??
    held[dirname(folder)] ?? [`${folder.split('/')[0]}/src/**/*.test.ts`]
  )
}

function tests(part, byFile) {
  return Object.fromEntries(
    Object.entries(byFile).map(([file, names]) => [
      `${part}/${file}.ts`,
      names.split(' ').map((name) => `${part}/${name}.test.ts`),
    ]),
  )
}

function tally(file) {
  const { files } = JSON.parse(readFileSync(file, 'utf8'))
  const states = Object.values(files).flatMap((one) => one.mutants.map((mutant) => mutant.status))
  const killed = states.filter((state) => state === 'Killed' || state === 'Timeout').length
  const lived = states.filter((state) => state === 'Survived' || state === 'NoCoverage').length
  return { killed, of: killed + lived }
}
