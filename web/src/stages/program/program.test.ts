import { afterEach, describe, expect, it } from 'vitest'
import { Catalogue, recordsOf, type Op } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, smallDoc } from '../../testing/small-doc.ts'
import Program from './Program.vue'

let page: JobPage
afterEach(() => page.close())

const text = (): string => page.host.textContent?.replace(/\s+/g, ' ') ?? ''
const held = () => recordsOf(page.job.doc, 'held')
const press = async (name: string): Promise<void> => {
  await page.press(name)
  await page.settle()
}

/** Presses “It shows that” until a step stands under this heading. */
async function until(heading: string): Promise<void> {
  for (let step = 0; step < 60; step++) {
    if (page.host.querySelector('.steps h2')?.textContent?.includes(heading)) return
    await press('It shows that')
  }
  expect.fail(`no step under ${heading}`)
}

describe('the sheet of a described panel', () => {
  it('says that it was acted out, and how many keys it takes', async () => {
    page = await openJob(smallDoc())
    await page.show(Program)
    expect(text()).toMatch(/✓ acted out: \d+ keys, 0 differences in \d+ values/)
    expect(text()).toContain('zone by zone it would be')
    expect(text()).toContain('Way out and save')
  })

  it('is none while the panel cannot hold the plan, and says where', async () => {
    const set: Op = { op: 'set', id: 'job:main', field: 'swinger', from: null, to: 14 }
    page = await openJob(after(smallDoc(), [set]))
    await page.show(Program)
    expect(text()).toContain('▲ 1 thing the Tarn 40 cannot hold as planned')
    expect(text()).toContain('Whole system: Tarn 40 takes 0 to 9 there, not “14”.')
    expect(text()).not.toContain('Step by step')
    expect(text()).not.toContain('Print')
  })

  it('is plain and not proven where nobody has described the panel', async () => {
    const undescribed = new Catalogue(catalogue.kept.filter(({ entry }) => entry.kind !== 'interface'))
    page = await openJob(smallDoc(), 'installer', [], null, undescribed)
    await page.show(Program)
    expect(text()).toContain('◇ not proven')
    expect(text()).toContain('Way in')
    expect(text()).not.toContain('acted out:')
  })
})

describe('step by step', () => {
  it('notes what was keyed heading by heading, by address and value, and as saved at the end', async () => {
    page = await openJob(smallDoc())
    await page.show(Program)
    await press('Step by step')
    expect(text()).toContain('[tick] for 5 s'.replace(/[[\]]/g, ''))
    expect(held()).toEqual([])
    await until('Zone')
    // The way in keys nothing; what comes before the first zone is noted, and not as saved: this panel keeps all at the end.
    expect(held().filter(({ saved, how }) => saved || how !== 'keyed')).toEqual([])
    await until('Way out and save')
    const noted = held().flatMap(({ values }) => values.map(({ address }) => address))
    expect(noted.filter((address) => address.startsWith('zone.')).length).toBeGreaterThan(0)
    expect(held().filter(({ saved }) => saved)).toEqual([])
    while (!text().includes('All steps are keyed')) await press('It shows that')
    const saved = held().filter((one) => one.saved)
    expect(new Set(saved.flatMap(({ values }) => values.map(({ address }) => address)))).toEqual(
      new Set(noted),
    )
    expect(page.edits.filter(({ kind }) => kind !== 'panel.keyed')).toEqual([])
    // From now on the panel is as it was keyed: only what nobody knows yet is left, IDs that are learned.
    await press('To the sheet')
    await page.show(Program)
    expect(text()).toContain('make the device transmit now')
    expect(text()).not.toMatch(/equipment code:|label:|entry delay/)
  })

  it('a colleague goes on where somebody left, and may begin again', async () => {
    page = await openJob(smallDoc())
    await page.show(Program)
    await press('Step by step')
    await until('Zone')
    await press('It shows that')
    const before = held().length
    await until('Way out and save')
    expect(held().length).toBeGreaterThan(before)
    await press('‹ The whole sheet')
    await page.show(Program)
    await press('Step by step')
    expect(text()).toContain('nothing of it is saved yet')
    expect(page.host.querySelector('.steps h2')?.textContent).toContain('Way out and save')
    await press('begin again')
    expect(page.host.querySelector('.steps h2')?.textContent).toContain('Way in')
  })

  it('something else: finds where the panel is by what was read, and leads back to the step', async () => {
    page = await openJob(smallDoc())
    await page.show(Program)
    await press('Step by step')
    await press('It shows something else')
    const read = async (line: string, shows: string): Promise<void> => {
      await page.type(line, shows)
      await new Promise((done) => setTimeout(done, 250))
      await page.settle()
    }
    // The first step leads from the door to the question who is there; one sign was misread.
    await read('Line 1 of the display', 'who 1s there?')
    expect(text()).toMatch(/Most likely here · 1 sign otherwise/)
    expect(text()).toContain('That is where this step leads.')
    await read('Line 1 of the display', 'nothing of the kind')
    expect(text()).toContain('No display of this panel comes near that.')
    // From inside nothing leads back to the door but keeping or losing all; it is said, and nothing is noted.
    await read('Line 1 of the display', '50 lines')
    expect(text()).toContain('No keys lead back to this step without storing or dropping something.')
    expect(held()).toEqual([])
  })
})

describe('keys written by hand', () => {
  const write = async (keys: string): Promise<void> => {
    await page.type('Keys, in the order in which they are pressed', keys)
    await new Promise((done) => setTimeout(done, 200))
    await page.settle()
  }

  it('are acted out beside the plan, and nothing of it is noted', async () => {
    sessionStorage.clear()
    page = await openJob(
      after(smallDoc(), [{ op: 'set', id: 'job:main', field: 'entry1', from: null, to: 45 }]),
    )
    await page.show(Program)
    await press('Check keys')
    expect(text()).toContain('what each does at the Tarn 40 appears here')
    const inside = '[tick] for 5 s (main-user code) [tick] (installer code) [tick]'
    await write(`${inside} 5 [tick] [gap]`)
    expect(text()).toContain('8 keys: 0 answers as planned, 1 otherwise, 1 key means nothing there.')
    expect(text()).toContain('▲ 1 answer is not kept yet where the keys end.')
    expect(text()).toMatch(/■ Whole system, entry delay 1: 5 s — the plan wants 45 s/)
    expect(text()).toContain('▲ means nothing here')
    // What begins inside does nothing from outside.
    await write('5 [cross]')
    expect(text()).toContain('They begin outside, where the panel shows')
    await write(`${inside} 5 [tick] [home] [cross]`)
    expect(text()).not.toContain('They begin outside')
    expect(text()).toContain('■ 1 answer is lost unkept')
    // A key of the pad stands behind the rest as it is written.
    await press('ear')
    await page.settle()
    await write(`${inside}\n[go] 14 [tock]`)
    expect(text()).toContain('Line 2, sign 9: Tarn 40 has no key tock; it has 1, 2, 3, home,')
    expect(text()).not.toContain('answers as planned')
    expect(held()).toEqual([])
    // They stand there again when the sheet was looked at meanwhile.
    await press('The sheet')
    expect(text()).toContain('acted out')
    await press('Check keys')
    await page.settle()
    expect(page.host.querySelector('textarea')?.value).toContain('[tock]')
  })
})

describe('taking stock of a panel', () => {
  const read = async (...lines: readonly string[]): Promise<void> => {
    for (const [index, line] of lines.entries()) await page.type(`Line ${index + 1} of the display`, line)
    await press('Read')
  }

  it('asks for one display at a time, tells what it says, and notes it once it is confirmed', async () => {
    page = await openJob(
      after(smallDoc(), [{ op: 'set', id: 'job:main', field: 'entry1', from: null, to: 30 }]),
    )
    await page.show(Program)
    await press('Take stock')
    expect(text()).toContain('Nothing on the way stores anything.')
    const left = (): number => Number(/(\d+) values? to be read/.exec(text())?.[1])
    const all = left()
    await page.type('Look at zones up to (1 to 42; empty: all)', '0')
    expect(text()).toContain('A zone number from 1 to 42, or nothing for all.')
    expect(left()).toBe(all)
    await page.type('Look at zones up to (1 to 42; empty: all)', '2')
    await page.settle()
    expect(left()).toBeLessThan(all)
    await press('Read')
    expect(text()).toContain('▲ Type what the display shows.')
    await read('nothing of the kind', 'at all')
    expect(text()).toContain('No display of this panel that tells what it holds shows exactly that.')
    await read('who is there?', 'not known')
    expect(text()).toContain('A message stands there')
    expect(held()).toEqual([])
    // A display that was not asked for says what it says.
    await read('14 first way in, s', '75')
    expect(text()).toMatch(/entry delay 1: 75 s/)
    expect(held()).toEqual([])
    await press('It stands there so')
    expect(held()).toMatchObject([
      {
        ...{ how: 'typed', saved: true, section: 'Whole system' },
        values: [{ address: 'system.entry1', value: '75' }],
      },
    ])
    await press('Pass over this display')
    await press('What was read so far')
    expect(text()).toContain('Read so far: 1 value of the Tarn 40')
    expect(text()).toContain('1 otherwise than the plan wants')
    expect(text()).toMatch(/entry delay 1 ?75 s ?■ the plan wants 30 s/)
    expect(text()).toContain('▲ Zones above 2 were not looked at.')
    expect(text()).toContain('▲ 1 display was passed over')
    await press('The plan follows the panel…')
    expect(text()).toContain('What the plan would take')
    await press('Take it into the plan')
    expect(recordsOf(page.job.doc, 'job')[0]?.entry1).toBe(75)
    expect(text()).toMatch(/1 as planned, none otherwise/)
    await press('Go on reading')
    expect(text()).toContain('It tells:')
  })
})
