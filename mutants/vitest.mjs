// Stands in for vitest where the core's mutants are tried: its tests are taken down while a file is read, and run by name of place.
// The comparing is vitest's own (@vitest/expect); what only its runner can do (mocks, snapshots) the core's tests do not use.
import {
  chai,
  JestAsymmetricMatchers,
  JestChaiExpect,
  JestExtend,
  GLOBAL_EXPECT,
  ASYMMETRIC_MATCHERS_OBJECT,
  customMatchers,
  setState,
} from '@vitest/expect'

chai.use(JestExtend)
chai.use(JestChaiExpect)
chai.use(JestAsymmetricMatchers)

export const expect = Object.assign((value, message) => chai.expect(value, message), chai.expect)
Object.assign(expect, globalThis[ASYMMETRIC_MATCHERS_OBJECT])
chai.expect.extend(expect, customMatchers)
expect.fail = (message = 'failed') => {
  throw new chai.AssertionError(message)
}
globalThis[GLOBAL_EXPECT] = expect
setState({ assertionCalls: 0, testPath: '' }, expect)

/** Tests of the file that is being read: what each does, and what is done before it. */
let taken = []
let before = []

export function describe(_name, body) {
  const outer = before
  before = [...outer]
  body()
  before = outer
}

export function it(_name, body) {
  const first = before
  taken.push(() => {
    for (const each of first) each()
    return body()
  })
}

export function beforeEach(body) {
  before.push(body)
}

describe.each = (rows) => (name, body) => rows.forEach((row) => describe(name, () => body(...many(row))))
it.each = (rows) => (name, body) => rows.forEach((row) => it(name, () => body(...many(row))))

const many = (row) => (Array.isArray(row) ? row : [row])

/** The tests of one file, by reading it. */
export function testsOf(read) {
  taken = []
  before = []
  read()
  return taken
}
