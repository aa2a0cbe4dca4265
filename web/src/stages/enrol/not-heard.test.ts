import { afterEach, beforeEach, expect, it } from 'vitest'
import { computed, effectScope, shallowRef, type EffectScope } from 'vue'
import { recordsOf, type Heard, type Helped } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, smallDoc } from '../../testing/small-doc.ts'
import NotHeard from './NotHeard.vue'
import { useEnrol } from './useEnrol.ts'

let page: JobPage
let scope: EffectScope
beforeEach(() => {
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  page.close()
})

/** Enrol of a Reedling that nobody hears, with what helped in the firm's other jobs; null where the line is down. */
async function open(helped: readonly Helped[] | null = []): Promise<void> {
  page = await openJob(
    after(smallDoc(), [{ op: 'set', id: 'zone:one', field: 'loop', from: null, to: 3 }]),
    'installer',
  )
  const line = globalThis.fetch
  globalThis.fetch = (path, init) => {
    if (!String(path).endsWith('/helped')) return line(path, init)
    return helped === null
      ? Promise.reject(new TypeError('no net'))
      : Promise.resolve(new Response(JSON.stringify({ helped })))
  }
  const enrol = scope.run(() =>
    useEnrol({
      ...{ listening: computed(() => true), heard: shallowRef([]), seconds: computed(() => 3) },
      ...{ start: () => undefined, stop: () => undefined },
    }),
  )
  await page.show(NotHeard, { enrol })
  await page.settle()
}
const titles = (): string[] =>
  [...page.host.querySelectorAll('.title')].map((one) =>
    [...one.children]
      .map((part) => part.textContent.trim())
      .filter(Boolean)
      .join('|'),
  )
const shown = (): string | undefined =>
  page.host.querySelector('.title[aria-expanded="true"] > span')?.textContent.trim()
const tries = () => recordsOf(page.job.doc, 'tried').map(({ rung, way, subject }) => [rung, way, subject])

it('asks first, then shows one thing to do, and notes each by one press', async () => {
  await open()
  expect(titles()).toEqual([])
  await page.press('Nothing is heard…')
  expect(shown()).toBe('○ The same again')
  expect(page.host.textContent).toContain('Open the contact (its amber lamp glows while it sends).')
  await page.press('I do this now')
  expect(tries()).toEqual([['again', 'open the contact', 'zone:one']])
  expect(page.edits.map(({ kind }) => kind)).toEqual(['enrol.tried'])
  // What is done stays in view until somebody says that it brought nothing.
  expect(shown()).toBe('○ The same again')
  await page.press('Once more')
  expect(shown()).toBe('– The same again')
  await page.press('Still nothing')
  expect(shown()).toBe('○ Another way to make it send')
  expect(titles()[0]).toMatch(/^– The same again\|tried .+, .+$/)
})

it('counts the wait for a battery down, and lets another be chosen', async () => {
  await open()
  await page.press('Nothing is heard…')
  const battery = page.host.querySelectorAll<HTMLElement>('.title')[2]
  battery?.click()
  await page.settle()
  expect(shown()).toBe('○ Battery out and in')
  expect(page.host.textContent).not.toContain('to wait')
  await page.press('I do this now')
  expect(page.host.textContent).toMatch(/0:(30|29) to wait/)
  await page.press('Still nothing')
  expect(shown()).toBe('○ The same again')
  expect(tries().map(([rung]) => rung)).toEqual(['battery'])
})

it('brings up what helped with this model in the firm’s jobs, and goes without that offline', async () => {
  await open([
    { model: 'device/reedling', rung: 'nearer', times: 2 },
    { model: 'device/stilt', rung: 'battery', times: 7 },
  ])
  await page.press('Nothing is heard…')
  expect(titles().slice(0, 3)).toEqual([
    '○ The same again',
    '○ Nearer to the receiver|this model was heard after it 2 times',
    '○ Another way to make it send',
  ])
  page.close()
  await open(null)
  await page.press('Nothing is heard…')
  expect(titles().slice(0, 2)).toEqual(['○ The same again', '○ Another way to make it send'])
})

it('is gone once the device is learned', async () => {
  await open()
  await page.press('Nothing is heard…')
  await page.press('I do this now')
  const tried = recordsOf(page.job.doc, 'tried')[0] ?? expect.fail('nothing tried')
  const { made, at, corrects, of, subject } = tried
  const record: Heard = {
    ...{ made, at, corrects, of, subject, id: 'heard:1', type: 'heard', serial: '20417733' },
    ...{ family: 'family/wren', cause: 'event', loop: null, level: null, source: 'display', shown: null },
    ...{ times: 1, decision: 'accepted', code: 'accept', reason: '' },
  }
  page.job.edit('enrol.accept', [{ op: 'add', record }])
  await page.settle()
  expect(page.host.textContent.trim()).toBe('')
})
