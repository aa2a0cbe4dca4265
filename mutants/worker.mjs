// Tries mutants of the core one after another in one process. All of the core is read anew for each, so that nothing that a mutant
// made is found by the next; what stands outside (packages) is read once.
import { readFileSync } from 'node:fs'
import vm from 'node:vm'
import fc from 'fast-check'
import * as standIn from './vitest.mjs'

const { bundle, packages } = JSON.parse(process.argv[2])
const outside = { vitest: standIn }
for (const name of packages) outside[name] ??= await import(name)
globalThis.outsideTheCore = outside
globalThis.__stryker__ = {}
const stryker = globalThis.__stryker__
// A counterexample is enough; that it could be smaller tells nothing about the mutant.
fc.configureGlobal({ endOnFailure: true })
const script = new vm.Script(`(function(module, exports, require){${readFileSync(bundle, 'utf8')}\n})`, {
  filename: bundle,
})

function readers() {
  const module = { exports: {} }
  script.runInThisContext()(module, module.exports, process.getBuiltinModule)
  return module.exports.files
}

/** Runs every test of one file on the code as it is, and tells what it covers, by mutant, and how long each took. */
async function survey(name) {
  stryker.activeMutant = 'none'
  stryker.mutantCoverage.perTest = {}
  stryker.currentTestId = 'load'
  const tests = standIn.testsOf(readers()[name])
  const took = []
  for (const [at, test] of tests.entries()) {
    stryker.currentTestId = `${at}`
    const begun = performance.now()
    await test()
    took.push(performance.now() - begun)
  }
  return { covers: stryker.mutantCoverage.perTest, took }
}

/**
 * Whether one of these tests fails with the mutant, or never ends by the count of its runs.
 * @param plan the files in their order: how often the mutant may run while it is read, and its tests with the same
 */
async function isKilled({ mutant, plan, enough }) {
  const begun = performance.now()
  const allow = (rounds) => Object.assign(stryker, { hitCount: 0, hitLimit: Math.max(rounds, LEAST_ROUNDS) })
  stryker.activeMutant = mutant
  try {
    const read = readers()
    for (const { test: name, reading, numbers, all } of plan) {
      allow(reading)
      const tests = standIn.testsOf(read[name])
      const known = new Map(numbers.map(({ at, rounds }) => [at, rounds]))
      for (const at of new Set([...known.keys(), ...(all ? tests.keys() : [])])) {
        allow(known.get(at) ?? Infinity)
        await tests[at]()
        if (performance.now() - begun > enough) return false
      }
    }
    return false
  } catch {
    return true
  }
}
/** So often any mutant may run in a test. */
const LEAST_ROUNDS = 10_000

stryker.mutantCoverage = { static: {}, perTest: {} }
process.on('message', (asked) => {
  const answer = asked.survey
    ? survey(asked.survey).catch((error) => ({ failed: String(error?.stack ?? error) }))
    : isKilled(asked).then((killed) => ({ killed }))
  void answer.then((said) => process.send(said))
})
process.send({ ready: true })
