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

/** Whether one of these tests fails with the mutant. @param plan by file: the numbers of its tests, or null for all */
async function isKilled({ mutant: id, plan, hitLimit, enough }) {
  const begun = performance.now()
  stryker.activeMutant = id
  stryker.hitCount = 0
  stryker.hitLimit = hitLimit
  try {
    const read = readers()
    for (const [name, numbers] of plan) {
      const tests = standIn.testsOf(read[name])
      for (const at of numbers ?? tests.keys()) {
        await tests[at]()
        if (performance.now() - begun > enough) return false
      }
    }
    return false
  } catch {
    return true
  }
}

stryker.mutantCoverage = { static: {}, perTest: {} }
process.on('message', (asked) => {
  const answer = asked.survey
    ? survey(asked.survey).catch((error) => ({ failed: String(error?.stack ?? error) }))
    : isKilled(asked).then((killed) => ({ killed }))
  void answer.then((said) => process.send(said))
})
process.send({ ready: true })
