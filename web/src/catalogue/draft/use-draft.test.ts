import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { defineComponent, h } from 'vue'
import {
  answerOps,
  answerTo,
  beginDraft,
  DRAFT_SCHEMA,
  draftKernel,
  type Answer,
  type DraftEdit,
  type DraftJournalEntry,
} from '#core'
import { useSession } from '../../line/session.ts'
import { mount, type Mounted } from '../../testing/mount.ts'
import { catalogue } from '../../testing/small-doc.ts'
import { useDraft } from './useDraft.ts'

/** A server in memory: it takes what holds, and may be away or refuse. */
let journal: DraftJournalEntry[]
let away: boolean
let page: Mounted
let draft: ReturnType<typeof useDraft>

const doc = () => draftKernel.replay(journal)
function take(edit: DraftEdit): number {
  const known = journal.find((one) => one.edit.id === edit.id)
  if (known) return known.revision
  const result = draftKernel.applyOps(doc(), edit.ops)
  if (!result.ok) return 0
  journal.push({ revision: journal.length + 1, edit: { ...edit, ops: result.took }, takenAt: edit.madeAt })
  return journal.length
}
/** Somebody answers at another desk. */
function theirs(path: string, value: Answer['value']): void {
  const madeAt = '2026-05-04T10:00:00.000Z'
  const by = { id: 'p2', name: 'Ola' }
  take({
    id: `theirs-${journal.length}`,
    kind: 'draft.answer',
    schema: DRAFT_SCHEMA,
    by,
    madeAt,
    ops: answerOps(doc(), path, value),
  })
}
const answer = (path: string, value: Answer['value']) =>
  draft.edit('draft.answer', answerOps(draft.doc.value, path, value))
const shown = (path: string) => answerTo(draft.doc.value, path)?.value
const kept = (path: string) => answerTo(doc(), path)?.value
const later = async (ms: number) => {
  await vi.advanceTimersByTimeAsync(ms)
}

beforeEach(async () => {
  vi.useFakeTimers()
  journal = []
  away = false
  setActivePinia(createPinia())
  const session = useSession()
  session.person = {
    id: 'p1',
    name: 'Nell',
    login: 'nell',
    role: 'installer',
    rights: [],
    firm: 'Firm',
    firmId: 'f1',
  }
  session.catalogue = catalogue
  const by = { id: 'p1', name: 'Nell' }
  take({
    ...{ id: 'begin-001', kind: 'draft.begin', schema: DRAFT_SCHEMA, by, madeAt: '2026-05-04T09:00:00.000Z' },
    ops: beginDraft('device', { like: null, corrects: false }, catalogue),
  })
  globalThis.fetch = (path, init = {}) => {
    if (away) return Promise.reject(new TypeError('no line'))
    const reply = (body: unknown, status = 200) =>
      Promise.resolve(new Response(JSON.stringify(body), { status }))
    if (init.method === 'POST') {
      const revision = take((JSON.parse(String(init.body)) as { edit: DraftEdit }).edit)
      return revision > 0
        ? reply({ revision })
        : reply({ title: 'Somebody else answered this meanwhile.' }, 409)
    }
    const since = Number(new URL(String(path), 'http://here').searchParams.get('since'))
    return reply({
      state: 'open',
      entryId: null,
      entries: journal.filter(({ revision }) => revision > since),
    })
  }
  page = mount(
    defineComponent({
      setup() {
        draft = useDraft('draft-1')
        return () => h('p')
      },
    }),
  )
  await draft.open()
})
afterEach(() => {
  page.unmount()
  vi.useRealTimers()
})

it('keeps what the server did not get, and sends it once when it is there again', async () => {
  away = true
  answer('maker', 'Penbrook')
  answer('name', 'Burrow')
  await later(10)
  expect([shown('maker'), draft.unsaved.value, draft.state.value]).toEqual(['Penbrook', 2, 'away'])
  await later(20_000)
  expect([draft.unsaved.value, kept('maker')]).toEqual([2, undefined])
  away = false
  await later(5_000)
  expect([draft.unsaved.value, draft.state.value, kept('maker'), kept('name')]).toEqual([
    0,
    'saved',
    'Penbrook',
    'Burrow',
  ])
  expect(journal).toHaveLength(3)
})

it('shows what a colleague answers', async () => {
  theirs('maker', 'Penbrook')
  expect(shown('maker')).toBeUndefined()
  await later(2_500)
  expect(shown('maker')).toBe('Penbrook')
})

it('of two answers to one question the first stands, and the second one is told so', async () => {
  theirs('maker', 'Penbrook')
  answer('maker', 'Penbrooke')
  expect(shown('maker')).toBe('Penbrooke')
  await later(10)
  expect([shown('maker'), kept('maker'), draft.unsaved.value]).toEqual(['Penbrook', 'Penbrook', 0])
  expect(draft.notice.value).toContain('Somebody else answered this meanwhile')
  // Said again it is taken: what stands was seen.
  answer('maker', 'Penbrooke')
  await later(10)
  expect([kept('maker'), draft.notice.value]).toEqual(['Penbrooke', ''])
})

const reed = { event: 'open', loop: 1 }
const lid = { event: 'tamper', loop: null }
const wire = { event: 'terminals', loop: 2 }

it.each([
  ['as it is sent', 0],
  ['after a while without the server', 6_000],
])('two people who add rows to one answer both keep theirs: %s', async (_, ms) => {
  answer('loops', [reed])
  await later(10)
  theirs('loops', [reed, wire])
  away = ms > 0
  answer('loops', [reed, lid])
  // Built on what was not sent yet.
  answer('loops', [reed, { ...lid, loop: 3 }])
  await later(ms)
  away = false
  await later(5_000)
  const both = [reed, wire, { ...lid, loop: 3 }]
  expect([shown('loops'), kept('loops')]).toEqual([both, both])
  expect([draft.unsaved.value, draft.notice.value, draft.state.value]).toEqual([0, '', 'saved'])
})

it('of one row that two people change in one place the first stands; what else was said is kept', async () => {
  answer('loops', [reed, lid])
  await later(10)
  away = true
  answer('loops', [{ ...reed, loop: 4 }, lid])
  answer('name', 'Burrow')
  theirs('loops', [{ ...reed, loop: 5 }, lid])
  await later(10)
  away = false
  await later(6_000)
  expect([kept('loops'), kept('name'), draft.unsaved.value]).toEqual([
    [{ ...reed, loop: 5 }, lid],
    'Burrow',
    0,
  ])
  expect(draft.notice.value).toContain('Somebody else answered this meanwhile')
})

it('takes back one’s own answer, brings it again, and leaves a colleague’s alone', async () => {
  answer('maker', 'Penbrook')
  await later(10)
  draft.back('undo')
  await later(10)
  expect([kept('maker'), draft.canRedo.value]).toEqual([undefined, true])
  draft.back('redo')
  await later(10)
  expect(kept('maker')).toBe('Penbrook')
  theirs('maker', 'Penbrook & Co')
  await later(2_500)
  draft.back('undo')
  await later(10)
  expect([kept('maker'), draft.notice.value]).toEqual([
    'Penbrook & Co',
    'This was changed by somebody else since: maker.',
  ])
})
