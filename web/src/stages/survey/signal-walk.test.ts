import { afterEach, expect, it } from 'vitest'
import { keepEntry, pinUpdateOps, pinUpdates, recordsOf, spotRecord, type Family } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, smallDoc } from '../../testing/small-doc.ts'
import SignalWalk from './SignalWalk.vue'

let page: JobPage
afterEach(() => page.close())

const spots = () =>
  recordsOf(page.job.doc, 'spot').map(({ place, receiver, repeater, reading, link }) => ({
    ...{ place, receiver, repeater, reading, link },
  }))

async function open(placement: Family['placement'] | null = null): Promise<void> {
  const wren = catalogue.get('family', 'family/wren') as Family
  const served = placement ? catalogue.with([keepEntry({ ...wren, placement })]) : catalogue
  const doc = smallDoc()
  const taken = after(doc, pinUpdateOps(doc, served, pinUpdates(doc, served)))
  page = await openJob(taken, 'installer', [], null, served)
  await page.show(SignalWalk)
  const head = page.host.querySelector<HTMLElement>('[aria-controls=signal-walk]')
  if (head?.getAttribute('aria-expanded') === 'false') head.click()
  await page.settle()
}

it('says at the field what lacks, and keeps what was typed', async () => {
  await open()
  await page.press('Note this reading')
  for (const says of ['Spot: name the room', 'Receiver: say where it stands', 'Level: a number in bars'])
    expect(page.host.textContent).toContain(says)
  await page.type('Spot', 'attic')
  await page.type('The receiver stands at', 'hall')
  await page.type('Level', 'three')
  await page.press('Note this reading')
  expect(page.host.textContent).toContain('Level: “three” must be a number in bars.')
  await page.type('Level', '5000')
  await page.press('Note this reading')
  expect(page.host.textContent).toMatch(/reading .*1000/)
  expect(spots()).toEqual([])
  await page.type('Level', '1,5')
  await page.press('Note this reading')
  expect(spots()).toEqual([{ place: 'attic', receiver: 'hall', repeater: '', reading: 1.5, link: null }])
  expect(page.edits.map(({ kind }) => kind)).toEqual(['spot.add'])
})

it('keeps the receiver for the next spot, and says what each needs', async () => {
  await open()
  await page.type('The receiver stands at', 'hall')
  // A repeater is said of one reading only: the next is direct unless somebody says otherwise.
  await page.type('Spot', 'den')
  await page.type('Through a repeater at', 'hall')
  await page.type('Level', '4')
  await page.press('Note this reading')
  expect(spots().map(({ repeater }) => repeater)).toEqual(['hall'])
  for (const [spot, level] of [
    ['attic', '1'],
    ['den', '4'],
    ['loft', '3'],
  ] as const) {
    await page.type('Spot', spot)
    await page.type('Level', level)
    await page.press('Note this reading')
  }
  expect(spots().map(({ receiver }) => receiver)).toEqual(['hall', 'hall', 'hall', 'hall'])
  expect(spots().map(({ repeater }) => repeater)).toEqual(['hall', '', '', ''])
  const rows = [...page.host.querySelectorAll('tbody tr')].map((row) => row.textContent)
  // Wren holds from 2 bars, its best band begins at 4; a quarter wave at 433.92 MHz is 17 cm, and nothing repeats it.
  expect(rows[0]).toContain('Nothing.')
  expect(rows[1]).toContain('no repeater helps here')
  expect(rows[2]).toContain('a quarter wave aside (17 cm)')
  expect(page.host.textContent).toContain('1 in the best band, 1 that holds, 1 that does not hold')
  expect(page.host.textContent).toContain('2 to see to')
})

it('notes a reading in the place of a wrong one, which then counts no more', async () => {
  Element.prototype.scrollIntoView = () => undefined
  await open()
  for (const [spot, level] of [
    ['den', '4'],
    ['lott', '3'],
  ] as const) {
    await page.type('The receiver stands at', 'hall')
    await page.type('Spot', spot)
    await page.type('Level', level)
    await page.press('Note this reading')
  }
  const rows = () => [...page.host.querySelectorAll('tbody tr')].map((row) => row.textContent)
  // Thought better of: nothing is noted, and the next reading is a new one.
  await page.press('Correct the reading of den')
  expect(page.host.textContent).toContain('In place of the reading of den by ')
  await page.press('Leave it as it was')
  expect(page.host.textContent).not.toContain('In place of')
  expect(rows()).toHaveLength(2)
  // Bad input keeps it a correction.
  await page.press('Correct the reading of lott')
  await page.type('Spot', 'loft')
  await page.type('Level', 'few')
  await page.press('Note it in its place')
  expect(page.host.textContent).toContain('Level: “few” must be a number in bars.')
  await page.type('Level', '2')
  await page.press('Note it in its place')
  expect(rows()).toHaveLength(2)
  expect(rows()[1]).toMatch(/^loft.*2 bars/)
  const [, wrong, right] = recordsOf(page.job.doc, 'spot')
  expect([wrong?.place, right?.place, right?.corrects]).toEqual(['lott', 'loft', wrong?.id])
  expect(page.edits.map(({ kind }) => kind)).toEqual(['spot.add', 'spot.add', 'spot.correct'])
  await page.type('Spot', 'attic')
  await page.type('Level', '4')
  await page.press('Note this reading')
  expect(recordsOf(page.job.doc, 'spot').at(-1)?.corrects).toBeNull()
})

it('leaves a corrected reading in its family, though the panel does not hear that one', async () => {
  Element.prototype.scrollIntoView = () => undefined
  const facts = { place: 'den', family: 'family/curlew-8', used: '', receiver: 'hall', repeater: '' }
  const record = spotRecord(
    { ...facts, reading: 70, link: null, note: '' },
    { id: 'spot:old', who: { id: 'ann', name: 'Ann' }, at: '2026-05-04T09:00:00Z', corrects: null },
  )
  page = await openJob(after(smallDoc(), [{ op: 'add', record }]))
  await page.show(SignalWalk)
  await page.press('Correct the reading of den')
  await page.type('Level', '40')
  await page.press('Note it in its place')
  expect(recordsOf(page.job.doc, 'spot').at(-1)).toMatchObject({
    ...{ family: 'family/curlew-8', reading: 40, corrects: 'spot:old' },
  })
})

it('says of a family that does not state its bands that it cannot tell', async () => {
  await open({})
  expect(page.host.textContent).toContain(
    'Wren: from which level on a link is good, or holds, is not stated.',
  )
  await page.press('Note this reading')
  expect(page.host.textContent).toContain('Level: a number, or how it was in a word.')
  await page.type('The receiver stands at', 'hall')
  await page.type('Spot', 'attic')
  await page.type('Level', '3')
  await page.press('Note this reading')
  expect(page.host.querySelector('tbody tr')?.textContent).toContain('? 3')
  expect(page.host.querySelector('tbody tr')?.textContent).toContain('Cannot tell: ')
  expect(page.host.textContent).toContain('1 that nobody can judge')
  expect(page.host.textContent).not.toContain('undefined')
})

it('says what it states alone', async () => {
  await open({ unit: 'bars', least: 2 })
  expect(page.host.textContent).toContain(
    'from where on it is in the best band is not stated, below 2 bars nothing to build on.',
  )
})
