import { describe, expect, it } from 'vitest'
import { Batches } from './batches.ts'

/** Work that records what went together; a batch with a `bad` item breaks. */
function work() {
  const runs: string[][] = []
  const gates: (() => void)[] = []
  const run = async (items: readonly string[]): Promise<readonly string[]> => {
    runs.push([...items])
    await new Promise<void>((open) => gates.push(open))
    if (items.includes('bad')) throw new Error('broken')
    return items.map((item) => `did ${item}`)
  }
  /** Lets what runs finish, until nothing runs any more. */
  const finish = async (): Promise<void> => {
    for (let turn = 0; turn < 50; turn++) {
      gates.shift()?.()
      await new Promise((done) => setImmediate(done))
    }
  }
  return { runs, run, finish }
}

describe('batches', () => {
  it('let what waits go together, in its order, each with its own answer', async () => {
    const batches = new Batches<string, string>()
    const { runs, run, finish } = work()
    const answers = Promise.all(['a', 'b', 'c'].map((item) => batches.add('job', item, run)))
    await finish()
    expect(await answers).toEqual(['did a', 'did b', 'did c'])
    expect(runs).toEqual([['a'], ['b', 'c']])
  })

  it('keep keys apart', async () => {
    const batches = new Batches<string, string>()
    const { runs, run, finish } = work()
    const answers = Promise.all([batches.add('one', 'a', run), batches.add('two', 'b', run)])
    await finish()
    expect(await answers).toEqual(['did a', 'did b'])
    expect(runs).toEqual([['a'], ['b']])
  })

  it('break only what is broken', async () => {
    const batches = new Batches<string, string>()
    const { runs, run, finish } = work()
    const answers = Promise.allSettled(['a', 'b', 'bad', 'c'].map((item) => batches.add('job', item, run)))
    await finish()
    expect(
      (await answers).map((answer) => (answer.status === 'fulfilled' ? answer.value : 'broken')),
    ).toEqual(['did a', 'did b', 'broken', 'did c'])
    expect(runs).toEqual([['a'], ['b', 'bad', 'c'], ['b'], ['bad'], ['c']])
  })

  it('begin anew once all is done, and after a failure', async () => {
    const batches = new Batches<string, string>()
    const { runs, run, finish } = work()
    const first = batches.add('job', 'bad', run).catch((error: unknown) => String(error))
    await finish()
    expect(await first).toBe('Error: broken')
    const second = batches.add('job', 'b', run)
    await finish()
    expect(await second).toBe('did b')
    expect(runs).toEqual([['bad'], ['b']])
  })
})
