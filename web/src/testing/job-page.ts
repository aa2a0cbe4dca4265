import { createPinia, setActivePinia } from 'pinia'
import { createApp, h, nextTick, type Component } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { createVuetify } from 'vuetify'
import {
  defaultHouseRules,
  noUndo,
  writtenOf,
  type Catalogue,
  type Edit,
  type JobDocument,
  type JournalEntry,
  type Role,
} from '#core'
import { useSession } from '../line/session.ts'
import { useJob } from '../store/job-store.ts'
import { useQueue } from '../line/device-queue.ts'
import { memoryQueue } from '../line/memory-queue.ts'
import { catalogue } from './small-doc.ts'
import type { StrictServer } from './strict-server.ts'

/** An open job on a page, with a server in memory that takes every edit. */
export interface JobPage {
  readonly job: ReturnType<typeof useJob>
  readonly host: HTMLElement
  /** Where the page is. */
  readonly path: () => string
  /** Edits made so far, oldest first. */
  readonly edits: readonly Edit[]
  /** Goes to a stage. */
  go(stage: string): Promise<void>
  /** Puts a component on the page in place of what was there. */
  show(component: Component, props?: Record<string, unknown>): Promise<void>
  /** The control of an accessible name; throws when there is none. */
  control<T extends HTMLElement = HTMLInputElement>(label: string): T
  /** Presses a button or link by its name. */
  press(name: string): Promise<void>
  /** Types into a field and leaves it. */
  type(label: string, text: string): Promise<void>
  /** Ticks or unticks. */
  tick(label: string, on: boolean): Promise<void>
  /** Chooses from a native list by its value. */
  choose(label: string, value: string): Promise<void>
  /** Waits until the page has drawn and the line has sent. */
  settle(): Promise<void>
  close(): void
}

const stages = ['survey', 'kit', 'zones', 'program', 'enrol', 'prove', 'handover']

/**
 * Opens a job on this document for a person of the role; `others` is what the firm's other jobs know of an ID that is asked about.
 * Without a strict server every edit is taken as it comes.
 */
export async function openJob(
  doc: JobDocument,
  role: Role = 'installer',
  others: readonly { serial: string; job: string }[] = [],
  server: StrictServer | null = null,
  served: Catalogue = catalogue,
): Promise<JobPage> {
  localStorage.clear()
  useQueue(memoryQueue())
  const edits: Edit[] = []
  globalThis.fetch = (path, init = {}) => Promise.resolve(answer(String(path), init))
  globalThis.EventSource = class {
    addEventListener(): void {
      // Nobody else works on this job.
    }
    close(): void {
      // Nothing is held open.
    }
  } as unknown as typeof EventSource
  // Dialogs ask how large the window is.
  globalThis.visualViewport ??= Object.assign(new EventTarget(), {
    width: 1280,
    height: 800,
    offsetLeft: 0,
    offsetTop: 0,
    pageLeft: 0,
    pageTop: 0,
    scale: 1,
    onresize: null,
    onscroll: null,
    onscrollend: null,
  }) as VisualViewport
  setActivePinia(createPinia())
  const session = useSession()
  session.person = { id: 'p1', name: 'Nell', login: 'nell', role, rights: [], firm: 'Firm', firmId: 'f1' }
  const job = useJob()
  await job.open('job-1')
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/', component: { render: () => null } },
      { path: '/house-rules', component: { render: () => null } },
      { path: '/jobs/:job/:stage', component: { render: () => null } },
      { path: '/catalogue/drafts/:draft', component: { render: () => null } },
      ...stages.map((name) => ({ path: `/${name}`, name, component: { render: () => null } })),
    ],
  })
  const host = document.createElement('div')
  document.body.append(host)
  let app: ReturnType<typeof createApp> | null = null

  function answer(path: string, init: RequestInit): Response {
    if (path.startsWith('/api/catalogue'))
      return reply({ state: '', entries: served.kept.map(writtenOf), acts: [], leaflets: [] })
    if (path === '/api/house-rules') return reply({ rules: defaultHouseRules, revision: 1 })
    if (path.endsWith('/elsewhere')) return reply({ uses: [] })
    if (path.endsWith('/helped')) return reply({ helped: [] })
    if (path.includes('/around')) return reply({ uses: others })
    if (path.startsWith('/api/jobs?'))
      return reply({
        jobs: [{ id: 'job-2', name: 'Harbour Loft', address: 'Quay 3', summary: { stage: 'prove' } }],
        renewing: 0,
      })
    if (path === '/api/jobs/job-1')
      return reply({ revision: 0, document: doc, entries: [], steps: { ...noUndo, more: false } })
    if (path.includes('/journal')) return reply({ entries: journal().reverse() })
    if (path.endsWith('/undo')) return reply({ ...noUndo, more: false })
    if (init.method !== 'POST') {
      const since = Number(new URL(path, 'http://x').searchParams.get('since') ?? 0)
      return reply({ entries: journal().slice(since) })
    }
    const sent = (JSON.parse(String(init.body)) as { edits: Edit[] }).edits
    if (server) {
      edits.push(...sent)
      return reply(server.take(sent))
    }
    return reply({
      answers: sent.map((edit) => ({ id: edit.id, outcome: 'taken', revision: edits.push(edit) })),
      revision: edits.length,
    })
  }

  function journal(): JournalEntry[] {
    if (server) return [...server.journal()]
    return edits.map((edit, index) => ({ revision: index + 1, takenAt: edit.madeAt, edit }))
  }

  /** Several controls may say the same in words and by label: the label counts. */
  function control<T extends HTMLElement = HTMLInputElement>(label: string): T {
    const named = [...document.querySelectorAll<T>('[aria-label]')].find(
      (element) => element.getAttribute('aria-label') === label,
    )
    const found = named ?? labelled<T>(label)
    if (!found) throw new Error(`no control “${label}” on the page: ${host.textContent}`)
    return found
  }

  return {
    job,
    host,
    path: () => router.currentRoute.value.fullPath,
    go: async (stage) => {
      await router.push({ name: stage })
    },
    edits,
    control,
    async show(component, props = {}) {
      app?.unmount()
      app = createApp({ render: () => h(component, props) })
      app.use(router).use(createVuetify())
      app.mount(host)
      await settled()
    },
    async press(name) {
      const button = [...document.querySelectorAll<HTMLElement>('button, a, summary')].find(
        (element) => (element.getAttribute('aria-label') ?? element.textContent.trim()) === name,
      )
      if (!button) throw new Error(`no button “${name}” on the page: ${host.textContent}`)
      button.click()
      await settled()
    },
    async type(label, text) {
      const input = control(label)
      input.dispatchEvent(new Event('focus'))
      input.value = text
      input.dispatchEvent(new Event('input'))
      input.dispatchEvent(new Event('change'))
      input.dispatchEvent(new Event('blur'))
      await settled()
    },
    async tick(label, on) {
      const input = control(label)
      input.checked = on
      input.dispatchEvent(new Event('change'))
      await settled()
    },
    async choose(label, value) {
      const list = control<HTMLSelectElement>(label)
      list.dispatchEvent(new Event('focus'))
      list.value = value
      list.dispatchEvent(new Event('change'))
      await settled()
    },
    settle: settled,
    close() {
      app?.unmount()
      host.remove()
      job.close()
    },
  }
}

/** The control that a label element of this text stands for or holds. */
function labelled<T extends HTMLElement>(text: string): T | null {
  for (const label of document.querySelectorAll('label')) {
    if (label.textContent.trim() !== text) continue
    const control = label.htmlFor ? document.getElementById(label.htmlFor) : label.querySelector('input')
    if (control) return control as T
  }
  return null
}

/** Lets the page draw and the line send. */
async function settled(): Promise<void> {
  for (let turn = 0; turn < 8; turn++) {
    await nextTick()
    await Promise.resolve()
  }
  await new Promise((done) => setTimeout(done, 0))
  await nextTick()
}

function reply(body: unknown): Response {
  return new Response(JSON.stringify(body), {
    status: 200,
    headers: { 'Content-Type': 'application/json' },
  })
}
