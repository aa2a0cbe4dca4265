// Tries every mutant of some files of the core with some of its tests, quickly: the code is made with all its mutants in it, each behind
// a switch, bundled with the tests, and read anew for each mutant within one process, where starting a runner for each took seconds.
import { fork } from 'node:child_process'
import { availableParallelism } from 'node:os'
import { mkdirSync, readFileSync } from 'node:fs'
import { relative, resolve, join } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'
import { Instrumenter } from '@stryker-mutator/instrumenter'
import { build } from 'esbuild'
import { globSync } from 'tinyglobby'

const root = resolve(fileURLToPath(new URL('..', import.meta.url)))
const quiet = { isDebugEnabled: () => false, debug() {}, info() {}, warn() {} }
/** How often the changed code may run, by how often the right one does: beyond that it has no end. */
const ROUNDS = 100
/** How long tests are run for one mutant, quickest first, ms: what lives so long counts as not noticed. */
const ENOUGH_MS = 5_000
/** What a quick test takes at most, ms. */
const QUICK_MS = 100
/** How long one mutant may take before it is taken to have no end, ms: at least so much, else so many times what its longest test takes. */
const PATIENCE_MS = 20_000
const PATIENCE = 5

/**
 * @param files paths of the files to change, from the root of the tree
 * @param tests paths of the test files that are meant to notice
 * @returns every mutant with its place, what stood there, what stands there instead, and whether it was noticed
 */
export async function tryMutants(files, tests, work, told = () => {}) {
  const { changed, mutants } = await withSwitches(files)
  mkdirSync(work, { recursive: true })
  const bundle = join(work, 'bundle.cjs')
  const packages = await bundled(changed, tests, bundle)
  const workers = Array.from({ length: availableParallelism() }, () => new Hand(bundle, packages))
  try {
    const covers = await surveyed(workers, tests)
    const queue = mutants.filter(({ status }) => status !== 'Ignored')
    const found = []
    await Promise.all(
      workers.map(async (hand) => {
        for (let mutant = queue.shift(); mutant; mutant = queue.shift())
          told(found.push({ ...placed(mutant), ...(await tried(hand, mutant.id, covers)) }), queue.length)
      }),
    )
    return found.sort((a, b) => a.file.localeCompare(b.file) || a.line - b.line)
  } finally {
    for (const hand of workers) hand.end()
  }
}

async function withSwitches(files) {
  const given = files.map((name) => ({
    name: resolve(root, name),
    mutate: true,
    content: readFileSync(resolve(root, name), 'utf8'),
  }))
  // Wording is checked where it matters; a string changed for the sake of change is no fault.
  const options = { plugins: null, ignorers: [], excludedMutations: ['StringLiteral', 'ObjectLiteral'] }
  const made = await new Instrumenter(quiet).instrument(given, options)
  return { changed: new Map(made.files.map((file) => [file.name, file.content])), mutants: made.mutants }
}

/** Writes one script that reads each test file when it is asked for it. @returns the packages that it needs */
async function bundled(changed, tests, outfile) {
  const packages = new Set()
  const entry = tests
    .map((test) => `${JSON.stringify(test)}: () => require(${JSON.stringify(resolve(root, test))})`)
    .join(',\n')
  await build({
    stdin: { contents: `exports.files = {${entry}}`, resolveDir: root, loader: 'js' },
    bundle: true,
    platform: 'node',
    format: 'cjs',
    outfile,
    logLevel: 'error',
    plugins: [
      {
        name: 'with-switches',
        setup(made) {
          made.onResolve({ filter: /^#core$/ }, () => ({ path: join(root, 'core/src/index.ts') }))
          made.onResolve({ filter: /^[^.#/]/ }, ({ path, kind }) => {
            if (kind === 'entry-point' || path.startsWith('node:')) return null
            packages.add(path)
            return { path, namespace: 'outside' }
          })
          made.onLoad({ filter: /.*/, namespace: 'outside' }, async ({ path }) => {
            const names = path === 'vitest' ? standIn : Object.keys(await import(path))
            const named = names.filter((name) => name !== 'default' && /^[A-Za-z_$][\w$]*$/.test(name))
            const from = `globalThis.outsideTheCore[${JSON.stringify(path)}]`
            return {
              contents: `const m = ${from}; export default m.default; export const {${named.join(',')}} = m`,
              loader: 'js',
            }
          })
          made.onLoad({ filter: /\.ts$/ }, ({ path }) => {
            const text = changed.get(path) ?? readFileSync(path, 'utf8')
            const place = JSON.stringify(pathToFileURL(path).href)
            return { contents: text.replaceAll('import.meta.url', place), loader: 'ts' }
          })
        },
      },
    ],
  })
  packages.delete('vitest')
  return [...packages]
}
const standIn = ['describe', 'it', 'expect', 'beforeEach']

/** What each test covers, on the code as it is, by mutant: the files that run it while they are read, and the tests, quickest first. */
async function surveyed(workers, tests) {
  const covers = new Map()
  const queue = [...tests]
  const of = (id) => covers.get(id) ?? covers.set(id, { reads: new Map(), tests: [], longest: 0 }).get(id)
  await Promise.all(
    workers.map(async (hand) => {
      for (let test = queue.shift(); test; test = queue.shift()) {
        const said = await hand.ask({ survey: test })
        if (!said || said.failed)
          throw new Error(`${test} does not pass as it is:\n${said?.failed ?? 'no answer'}`)
        const longest = Math.max(0, ...said.took)
        for (const [at, hits] of Object.entries(said.covers))
          for (const [id, times] of Object.entries(hits)) {
            const cover = of(id)
            if (at === 'load') {
              cover.reads.set(test, times)
              cover.longest = Math.max(cover.longest, longest)
            } else {
              cover.tests.push({ test, at: Number(at), took: said.took[at], rounds: times * ROUNDS })
              cover.longest = Math.max(cover.longest, said.took[at])
            }
          }
      }
    }),
  )
  for (const cover of covers.values()) cover.tests.sort((a, b) => a.took - b.took)
  return covers
}

async function tried(hand, id, covers) {
  const cover = covers.get(id)
  if (!cover) return { killed: false, covered: false }
  // The quick tests of every file first, the file whose tests are done soonest first: slow ones would take the time of all others. A
  // file that runs the mutant while it is read runs all its tests.
  const byFile = (tests) => {
    const files = new Map()
    for (const one of tests) files.set(one.test, [...(files.get(one.test) ?? []), one])
    const time = (of) => of.reduce((sum, { took }) => sum + took, 0)
    return [...files].sort(([, one], [, other]) => time(one) - time(other))
  }
  const part = ([test, numbers]) => ({
    test,
    reading: (cover.reads.get(test) ?? 0) * ROUNDS,
    numbers,
    all: false,
  })
  const plan = [
    ...byFile(cover.tests.filter(({ took }) => took < QUICK_MS)).map(part),
    ...[...cover.reads.keys()].map((test) => ({ ...part([test, []]), all: true })),
    ...byFile(cover.tests.filter(({ took, test }) => took >= QUICK_MS && !cover.reads.has(test))).map(part),
  ]
  const asked = { mutant: id, plan, enough: ENOUGH_MS }
  const said = await hand.ask(asked, Math.max(PATIENCE_MS, ENOUGH_MS + PATIENCE * cover.longest))
  return { killed: said?.killed ?? true, covered: true }
}

function placed({ fileName, location, mutatorName, replacement }) {
  const text = readFileSync(fileName, 'utf8').split('\n')
  const { start, end } = location
  const was =
    start.line === end.line
      ? text[start.line].slice(start.column, end.column)
      : `${text[start.line].slice(start.column)} …`
  const file = relative(root, fileName)
  return { file, line: start.line + 1, column: start.column + 1, mutator: mutatorName, was, now: replacement }
}

/** One process that tries mutants; one that does not answer in time is ended and begun again. */
class Hand {
  #bundle
  #packages
  #child = null
  constructor(bundle, packages) {
    this.#bundle = bundle
    this.#packages = packages
  }
  async #ready() {
    if (this.#child) return this.#child
    const given = JSON.stringify({ bundle: this.#bundle, packages: this.#packages })
    const child = fork(fileURLToPath(new URL('worker.mjs', import.meta.url)), [given], {
      cwd: root,
      env: { ...process.env, KAPELLE_FEW: '1' },
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    })
    this.#child = child
    await new Promise((done, fail) => {
      child.once('message', done)
      child.once('exit', () => fail(new Error('the bundle could not be read')))
    })
    child.removeAllListeners('exit')
    return child
  }
  /** @returns the answer, or null where none came in time */
  async ask(asked, patience = 600_000) {
    const child = await this.#ready()
    return new Promise((done) => {
      const over = (answer) => {
        clearTimeout(clock)
        child.removeAllListeners('message')
        child.removeAllListeners('exit')
        if (answer === null) this.end()
        done(answer)
      }
      const clock = setTimeout(() => over(null), patience)
      child.once('message', over)
      child.once('exit', () => over(null))
      child.send(asked)
    })
  }
  end() {
    this.#child?.kill('SIGKILL')
    this.#child = null
  }
}

/** The files that these patterns name, from the root of the tree. */
export const filesOf = (patterns) => globSync(patterns, { cwd: root }).sort()
