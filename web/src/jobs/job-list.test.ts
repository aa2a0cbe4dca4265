import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { createApp, h, type App } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { createVuetify } from 'vuetify'
import { VLayout } from 'vuetify/components'
import type { JobList as Answer, ListedJob, Role } from '#core'
import { useQueue } from '../line/device-queue.ts'
import { memoryQueue } from '../line/memory-queue.ts'
import { useSession } from '../line/session.ts'
import { catchSaved } from '../testing/saved-file.ts'
import JobList from './JobList.vue'

const row = (name: string, over: Partial<ListedJob> = {}): ListedJob => ({
  id: name.toLowerCase(),
  name,
  practice: false,
  address: '',
  changedAt: '2026-05-04T09:00:00.000Z',
  changedBy: 'Idris',
  summary: { stage: 'kit', owed: 3, stops: 1, clocks: [] },
  fresh: true,
  ...over,
})
let app: App | null = null
let host: HTMLElement
let answer: Answer
let calls = 0

async function show(role: Role = 'installer'): Promise<void> {
  setActivePinia(createPinia())
  useSession().person = { id: 'p', name: 'Nell', login: 'nell', role, rights: [], firm: 'Firm', firmId: 'f' }
  globalThis.fetch = () => {
    calls += 1
    return Promise.resolve(new Response(JSON.stringify(answer)))
  }
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/:rest(.*)*', component: { render: () => null } }],
  })
  host = document.createElement('div')
  document.body.append(host)
  app = createApp({ render: () => h(VLayout, () => h(JobList)) })
  app.use(router).use(createVuetify()).mount(host)
  await vi.advanceTimersByTimeAsync(50)
}
const text = (): string => host.textContent

beforeEach(() => {
  vi.useFakeTimers()
  calls = 0
})
afterEach(() => {
  app?.unmount()
  host.remove()
  vi.useRealTimers()
})

it('shows each job as it was last summed up, and says where that is old or missing', async () => {
  answer = {
    jobs: [row('Mill'), row('Weir', { fresh: false }), row('Bank', { summary: null, fresh: false })],
    renewing: 2,
  }
  await show()
  const rows = [...host.querySelectorAll('tbody tr')].map((line) => line.textContent.replace(/\s+/g, ' '))
  expect(rows[0]).toMatch(/Mill.*Kit.*■ 1.*3/)
  expect(rows[0]).not.toContain('…')
  expect(rows[1]).toContain('Kit …')
  expect(rows[2]).toContain('being summed up …')
  expect(text()).not.toContain('Summing up')
  // It is asked again until all are fresh, and then no more.
  answer = { jobs: [row('Mill'), row('Weir'), row('Bank')], renewing: 0 }
  await vi.advanceTimersByTimeAsync(1_600)
  expect(text()).not.toContain('…')
  const asked = calls
  await vi.advanceTimersByTimeAsync(10_000)
  expect(calls).toBe(asked)
})

it('shows how far many summaries have come', async () => {
  answer = { jobs: [row('Mill', { fresh: false })], renewing: 40 }
  await show()
  expect(text()).toContain('Summing up 40 of 40 jobs anew')
  answer = { ...answer, renewing: 10 }
  await vi.advanceTimersByTimeAsync(1_600)
  expect(text()).toContain('Summing up 10 of 40 jobs anew')
})

it('offers a viewer nothing to begin', async () => {
  answer = { jobs: [row('Mill')], renewing: 0 }
  await show('viewer')
  expect(text()).not.toContain('New job')
  expect(text()).not.toContain('Open a job file')
  app?.unmount()
  await show('installer')
  expect(text()).toContain('New job')
})

it('says on an address that is not secure that jobs cannot be kept offline there', async () => {
  answer = { jobs: [], renewing: 0 }
  await show()
  expect(text()).not.toContain('not secure')
  app?.unmount()
  host.remove()
  const secure = Object.getOwnPropertyDescriptor(window, 'isSecureContext')
  Object.defineProperty(window, 'isSecureContext', { value: false, configurable: true })
  await show()
  expect(text()).toContain(
    'This address is not secure (plain http): this browser cannot keep jobs offline here.',
  )
  if (secure) Object.defineProperty(window, 'isSecureContext', secure)
  else Reflect.deleteProperty(window, 'isSecureContext')
})

it('sorts by what is pressed, filters by what is asked, and says by whom a job was changed', async () => {
  answer = {
    jobs: [
      row('Weir', {
        changedAt: '2026-05-06T09:00:00.000Z',
        changedBy: 'Dai',
        summary: { stage: 'kit', owed: 0, stops: 0, clocks: [] },
      }),
      row('Mill', {
        changedAt: '2026-05-05T09:00:00.000Z',
        summary: { stage: 'prove', owed: 9, stops: 0, clocks: [] },
      }),
      row('Bank', { summary: { stage: 'zones', owed: 2, stops: 4, clocks: [] } }),
    ],
    renewing: 0,
  }
  await show()
  const names = () => [...host.querySelectorAll('.job-link')].map((link) => link.textContent)
  const press = async (title: string): Promise<void> => {
    const found = [...host.querySelectorAll<HTMLElement>('.sort, .v-chip')].find((one) =>
      one.textContent.includes(title),
    )
    if (!found) throw new Error(title)
    found.click()
    await vi.advanceTimersByTimeAsync(20)
  }
  expect(names()).toEqual(['Weir', 'Mill', 'Bank'])
  expect(host.querySelector('tbody tr')?.textContent).toContain('by Dai')
  await press('Job')
  expect(names()).toEqual(['Bank', 'Mill', 'Weir'])
  expect(host.querySelector('th')?.getAttribute('aria-sort')).toBe('ascending')
  await press('Owed')
  expect(names()).toEqual(['Mill', 'Bank', 'Weir'])
  await press('Stops')
  expect(names()[0]).toBe('Bank')
  await press('1 with stops')
  expect(names()).toEqual(['Bank'])
  await press('2 owe something')
  expect(names()).toEqual(['Bank', 'Mill'])
  expect(text()).not.toContain('to be sent')
  await press('All 3')
  expect(names()).toHaveLength(3)
})

it('says which jobs have changes that wait on this device', async () => {
  const queue = memoryQueue()
  useQueue(queue)
  const edit = {
    id: 'e1',
    kind: 'job.set',
    schema: 9,
    madeAt: '2026-05-04T09:00:00.000Z',
    by: { id: 'p', name: 'Nell' },
    ops: [],
  }
  await queue.add({ firm: 'f', person: 'p', job: 'mill' }, edit)
  await queue.add({ firm: 'f', person: 'other', job: 'weir' }, { ...edit, id: 'e2' })
  answer = { jobs: [row('Mill'), row('Weir')], renewing: 0 }
  await show()
  expect(
    [...host.querySelectorAll('tbody tr')].map((line) => line.textContent.includes('1 change waits here')),
  ).toEqual([true, false])
  expect(text()).toContain('1 with changes to be sent')
})

it('shows the clocks of a job as they run: the one that ends first, and one past its end until somebody ends it', async () => {
  vi.setSystemTime('2026-05-04T09:00:00.000Z')
  const summary = (clocks: NonNullable<ListedJob['summary']>['clocks']) => ({
    summary: { stage: 'prove', owed: 3, stops: 0, clocks },
  })
  const at = (time: string) => `2026-05-04T${time}.000Z`
  answer = {
    jobs: [
      row(
        'Mill',
        summary([
          {
            id: 'answer',
            then: '',
            kind: 'answer',
            words: 'Answers for its reading: Sill 8',
            ends: at('09:01:00'),
          },
        ]),
      ),
      row(
        'Weir',
        summary([
          { id: 'state', then: '', kind: 'state', words: 'The station is on test', ends: at('09:00:30') },
          { id: 'settled', then: '', kind: 'settled', words: 'The mesh settles', ends: at('09:20:00') },
        ]),
      ),
      row('Bank'),
    ],
    renewing: 0,
  }
  const saved = catchSaved()
  await show()
  const clocks = (): (string | undefined)[] =>
    [...host.querySelectorAll('tbody tr')].map((line) =>
      line.querySelector('.clock')?.textContent.replace(/\s+/g, ' ').trim(),
    )
  expect(clocks()).toEqual([
    '◷ 1:00 · Answers for its reading: Sill 8',
    '◷ 0:30 · The station is on test, 1 more',
    undefined,
  ])
  const button = [...host.querySelectorAll('button')].find((one) => one.textContent.includes('Calendar'))
  button?.click()
  const file = await saved.text()
  expect(file.match(/^SUMMARY.*/gm)?.map((line) => line.trim())).toEqual([
    'SUMMARY:Answers for its reading: Sill 8 – Mill',
    'SUMMARY:The station is on test – Weir',
    'SUMMARY:The mesh settles – Weir',
  ])
  // One file for the job and one for all name a clock alike.
  expect(file).toContain(`UID:${encodeURIComponent('mill answer')}@kapelle`)
  expect(saved.name()).toBe('Clocks.ics')
  await vi.advanceTimersByTimeAsync(61_000)
  // What only runs out is gone; the station is on test until somebody takes it off.
  expect(clocks()).toEqual([undefined, '▲ The station is on test: past its end, 1 more', undefined])
})
