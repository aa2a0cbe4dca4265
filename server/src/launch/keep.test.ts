import { describe, expect, it } from 'vitest'
import { Keeper, type Part } from './keep.ts'

/** A part that ends when it is told to, by itself or by whoever keeps it. */
class Fake implements Part {
  static made = 0
  readonly pid = (Fake.made += 1)
  stopped = false
  #end: (how: string) => void = () => undefined
  readonly ended = new Promise<string>((done) => (this.#end = done))
  end(how: string): void {
    this.#end(how)
  }
  stop(): Promise<void> {
    this.stopped = true
    this.#end('was stopped')
    return Promise.resolve()
  }
}

function kept(starts: (() => Fake | Error)[] = []) {
  const log: string[] = []
  const pauses: number[] = []
  const parts = [new Fake()]
  let clock = 0
  const keeper = new Keeper<Fake>(parts[0] as Fake, {
    name: 'the server',
    again: () => {
      const next = starts.shift()?.() ?? new Fake()
      if (next instanceof Error) return Promise.reject(next)
      parts.push(next)
      return Promise.resolve(next)
    },
    tell: (what) => log.push(what),
    giveUp: (why) => log.push(`gave up: ${why}`),
    now: () => clock,
    pause: (ms) => {
      pauses.push(ms)
      return Promise.resolve()
    },
  })
  const settle = () => new Promise((done) => setImmediate(done))
  return { keeper, log, pauses, parts, settle, pass: (ms: number) => (clock += ms) }
}

describe('a part that is kept', () => {
  it('is started again after a pause that grows, and told so', async () => {
    const { keeper, log, pauses, parts, settle } = kept()
    for (let n = 0; n < 4; n++) {
      parts.at(-1)?.end('ended with 1')
      await settle()
    }
    expect(pauses).toEqual([200, 400, 800, 1600])
    expect(parts).toHaveLength(5)
    expect(keeper.part).toBe(parts[4])
    expect(log.slice(0, 2)).toEqual(['the server ended with 1: it is started again', 'the server runs again'])
  })

  it('is given up after five endings within two minutes, with the reason of the last', async () => {
    const { log, parts, settle } = kept()
    for (let n = 0; n < 5; n++) {
      parts.at(-1)?.end(`ended with ${n}`)
      await settle()
    }
    expect(parts).toHaveLength(5)
    expect(log.at(-1)).toBe(
      'gave up: the server ended 5 times within two minutes, the last time: ended with 4',
    )
  })

  it('is kept for good when it ends now and then', async () => {
    const { log, pauses, parts, settle, pass } = kept()
    for (let n = 0; n < 20; n++) {
      pass(30_001)
      parts.at(-1)?.end('ended with 1')
      await settle()
    }
    expect(parts).toHaveLength(21)
    expect(Math.max(...pauses)).toBe(1600)
    expect(log.some((line) => line.startsWith('gave up'))).toBe(false)
  })

  it('that cannot start counts as ended each time it is tried', async () => {
    const no = () => new Error('no room')
    const { log, parts, settle } = kept([no, no, () => new Fake(), no, no])
    parts[0]?.end('ended with 1')
    await settle()
    expect(parts).toHaveLength(2)
    expect(log).toContain('the server could not start: no room: it is started again')
    parts[1]?.end('ended with 1')
    await settle()
    expect(log.at(-1)).toBe(
      'gave up: the server ended 5 times within two minutes, the last time: could not start: no room',
    )
  })

  it('is not started again once it is stopped, not even one that is just being started', async () => {
    const { keeper, parts, settle } = kept()
    await keeper.stop()
    await settle()
    expect(parts).toHaveLength(1)
    let give: (part: Fake) => void = () => undefined
    const late = new Promise<Fake>((done) => (give = done))
    const first = new Fake()
    const slow = new Keeper<Fake>(first, {
      name: 'the server',
      again: () => late,
      tell: () => undefined,
      giveUp: () => undefined,
      pause: () => Promise.resolve(),
    })
    first.end('ended with 1')
    await settle()
    const stopping = slow.stop()
    const second = new Fake()
    give(second)
    await settle()
    await stopping
    expect(second.stopped).toBe(true)
  })
})
