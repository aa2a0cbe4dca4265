import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, docOn, smallDoc } from '../../testing/small-doc.ts'
import Timing from './Timing.vue'

let page: JobPage
beforeEach(() => localStorage.removeItem('kapelle-timing'))
afterEach(() => page.close())
const line = () => page.host.querySelector('.line')?.textContent.replace(/\s+/g, ' ').trim() ?? ''
const set = (field: string, to: unknown) => ({
  ...{ op: 'set' as const, id: 'job:main', field },
  ...{ from: null, to },
})

describe('the line of delays and settings', () => {
  it('says every delay of the panel, with what is keyed where that is another number', async () => {
    const doc = after(docOn('panel/morrow-60', null), [set('entry1', 30), set('entry2', 45), set('exit', 60)])
    page = await openJob(doc)
    await page.show(Timing)
    // The Morrow 60 keys its exit delay in steps of 15 s: four of them.
    expect(line()).toMatch(/Entry delay 1 30 s ?Entry delay 2 45 s ?Exit delay 4 → 60 s/)
    expect(line()).toContain('Settings as the panel comes')
  })

  it('says which delays are not set, and which settings are', async () => {
    page = await openJob(after(docOn('panel/tarn-40', '1.31'), [set('sirenSeconds', 180)]))
    await page.show(Timing)
    expect(line()).toMatch(/Entry delay 1 not set.*Siren time 3 → 3 min/)
    expect(page.host.querySelectorAll('.missing')).toHaveLength(3)
    expect(line()).not.toContain('as the panel comes')
  })

  it('bears the mark of the gravest that is found about them', async () => {
    page = await openJob(after(smallDoc(), [set('entry2', 60)]))
    await page.show(Timing)
    expect(page.host.querySelector('.mark')?.textContent).toMatch(/Entry delay 2 is 60 s/)
  })

  it('unfolds on demand, and keeps so', async () => {
    page = await openJob(smallDoc())
    await page.show(Timing)
    expect(page.host.querySelector('.line')?.getAttribute('aria-expanded')).toBe('false')
    expect(page.host.querySelector('#timing-all')).toBeNull()
    ;(page.host.querySelector('.line') as HTMLElement).click()
    await page.settle()
    await page.type('Entry delay 1', '40')
    expect(line()).toContain('Entry delay 1 40 s')
    await page.show(Timing)
    expect(page.host.querySelector('#timing-all')).not.toBeNull()
  })
})
