import { h, nextTick } from 'vue'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { useShortcuts } from '../job/useShortcuts.ts'
import { openJob, type JobPage } from '../testing/job-page.ts'
import { after, smallDoc } from '../testing/small-doc.ts'
import { latelyOf, noteUsed } from './lately.ts'
import SearchDialog from './SearchDialog.vue'

let page: JobPage
let opened: boolean
beforeEach(async () => {
  opened = true
  page = await openJob(
    after(smallDoc(), [
      { op: 'set', id: 'device:porch', field: 'sticker', from: null, to: '20417733' },
      { op: 'set', id: 'job:main', field: 'entry2', from: null, to: 60 },
    ]),
  )
})
afterEach(() => {
  page.close()
  document.body.innerHTML = ''
})

/** Shows the search as the bar does: told to open once it is there. */
async function show(): Promise<void> {
  await page.show(SearchDialog, {
    modelValue: false,
    'onUpdate:modelValue': (now: boolean) => (opened = now),
  })
  await page.show(SearchDialog, { modelValue: true, 'onUpdate:modelValue': (now: boolean) => (opened = now) })
}
const field = () => document.querySelector<HTMLInputElement>('[role="combobox"]')
const hits = () =>
  [...document.querySelectorAll('[role="option"]')].map((hit) => hit.textContent.replace(/\s+/g, ' ').trim())
const sorts = () => [...document.querySelectorAll('.sort')].map((sort) => sort.textContent)
async function type(text: string): Promise<void> {
  const input = field()
  if (!input) throw new Error('no search on the page')
  input.value = text
  input.dispatchEvent(new Event('input'))
  await new Promise((done) => setTimeout(done, 220))
  await page.settle()
}
async function press(key: string): Promise<void> {
  field()?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
  await nextTick()
  await page.settle()
}

describe('the search', () => {
  it('finds zones, devices, IDs, findings, settings, stages and jobs', async () => {
    await show()
    await type('2041 7733')
    expect(sorts()).toEqual(['zone', 'device', 'job'])
    await type('entry delay 2')
    expect(hits()[0]).toBe('Entry delay 2 of the jobsetting')
    expect(sorts()).toContain('finding')
    await type('prov')
    expect(hits()[0]).toBe('Prove stage')
    await type('nothing of the kind')
    // The server answers by its own search: what it gives is shown.
    expect(hits()).toEqual(['Harbour Loft Quay 3job'])
  })

  it('closes by Escape as soon as it stands there', async () => {
    await show()
    // Not a moment later: whoever is asked here is the field itself.
    const before = opened
    field()?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }))
    expect([before, opened]).toEqual([true, false])
  })

  it('goes by keyboard to what is chosen, and has it first the next time', async () => {
    await show()
    await type('zone 07')
    expect(document.querySelectorAll('[aria-selected="true"]')).toHaveLength(1)
    await press('Enter')
    expect(page.path()).toBe('/zones?show=zone:one')
    expect(opened).toBe(false)
    await show()
    expect(hits()[0]).toMatch(/^Zone 07/)
    await press('ArrowDown')
    await press('ArrowUp')
    await press('ArrowUp')
    expect(document.querySelector('[aria-selected="true"]')?.textContent).toBe(
      [...document.querySelectorAll('[role="option"]')].at(-1)?.textContent,
    )
  })

  it('opens another job at the stage whose work is next', async () => {
    await show()
    await type('harbour')
    await press('Enter')
    expect(page.path()).toBe('/jobs/job-2/prove')
  })

  it('runs an act', async () => {
    let ran = 0
    await page.show({
      setup() {
        useShortcuts('Here', [{ keys: 'X', title: 'Turn the lamp', run: () => (ran += 1) }])
        return () => h(SearchDialog, { modelValue: true })
      },
    })
    await type('lamp')
    expect(hits()[0]).toBe('Turn the lamp key Xact')
    await press('Enter')
    expect(ran).toBe(1)
  })
})

describe('what was used lately', () => {
  it('is kept by firm, latest first, once each, and no more than a dozen', () => {
    localStorage.clear()
    const used = (key: string) => ({ key, title: key, detail: '', path: null })
    for (let index = 0; index < 14; index++) noteUsed('a', used(`k${index}`))
    noteUsed('a', used('k5'))
    expect(latelyOf('a').map(({ key }) => key)).toEqual([
      ...['k5', 'k13', 'k12', 'k11', 'k10', 'k9', 'k8', 'k7', 'k6', 'k4', 'k3', 'k2'],
    ])
    expect(latelyOf('b')).toEqual([])
    localStorage.setItem('kapelle-lately-a', '{"not": "a list"}')
    expect(latelyOf('a')).toEqual([])
  })
})
