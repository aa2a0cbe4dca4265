import { v4 as uuid } from 'uuid'
import { computed, onBeforeUnmount, ref, shallowRef } from 'vue'
import {
  DRAFT_SCHEMA,
  draftKernel,
  mergedOps,
  openReplica,
  type DraftEdit,
  type DraftJournalEntry,
  type DraftOp,
  type DraftReplica,
  type OpenedDraft,
} from '#core'
import { api, ApiError } from '../../line/api.ts'
import { useSession } from '../../line/session.ts'

/** How often it is looked for what a colleague answered, ms. */
const LOOK_MS = 2_000
/** How long after a failed try the next one comes, ms. */
const AGAIN_MS = 3_000

/** A draft that is open on this page: its document, what is sent, what a colleague answered, and what can be taken back. */
export function useDraft(id: string) {
  const session = useSession()
  const me = computed(() => ({ id: session.person?.id ?? null, name: session.person?.name ?? '' }))
  const replica = shallowRef<DraftReplica>(openReplica(draftKernel.empty, 0))
  const journal = shallowRef<readonly DraftJournalEntry[]>([])
  const state = ref<'loading' | 'saved' | 'saving' | 'away'>('loading')
  const closed = ref<OpenedDraft['state'] | null>(null)
  const entryId = ref<string | null>(null)
  const notice = ref('')
  let sending = false
  let ended = false
  const refusedBefore = new Set<string>()
  let timer: ReturnType<typeof setTimeout> | undefined

  async function look(): Promise<void> {
    const opened = await api<OpenedDraft>(
      'GET',
      `/api/catalogue/drafts/${id}?since=${replica.value.revision}`,
    )
    const news = opened.entries.filter(({ revision }) => revision > replica.value.revision)
    replica.value = draftKernel.takeNews(replica.value, opened.entries)
    journal.value = [...journal.value, ...news]
    closed.value = opened.state === 'open' ? null : opened.state
    entryId.value = opened.entryId
    const crossed = replica.value.tray
    if (crossed.length === 0) return
    replica.value = { ...replica.value, tray: [] }
    const lost = crossed.filter(({ edit: mine }) => !saidAgain(mine))
    if (lost.length > 0)
      notice.value = 'Somebody else answered this meanwhile: theirs stands. Say yours again if it is right.'
  }

  /** What was said of an answer that a colleague changed meanwhile is put together with theirs, where that leaves nothing to choose. */
  function saidAgain(mine: DraftEdit): boolean {
    const ops = mergedOps(replica.value.shown, mine.ops)
    if (ops === null) return false
    if (ops.length > 0) make('draft.answer', ops)
    return true
  }

  async function open(): Promise<void> {
    await session.loadCatalogue()
    await look()
    state.value = 'saved'
    again(LOOK_MS)
  }

  function again(ms: number): void {
    clearTimeout(timer)
    if (!ended) timer = setTimeout(() => void turn(), ms)
  }

  async function turn(): Promise<void> {
    if (replica.value.pending.length > 0) await send()
    else
      await look()
        .then(() => (state.value = replica.value.pending.length > 0 ? 'saving' : 'saved'))
        .catch(() => (state.value = 'away'))
    again(LOOK_MS)
  }

  /** Sends what is not sent yet, one after the other; what is refused is taken back with a word on why. */
  async function send(): Promise<void> {
    if (sending) return
    sending = true
    try {
      for (let next = replica.value.pending[0]; next; next = replica.value.pending[0]) {
        state.value = 'saving'
        await api('POST', `/api/catalogue/drafts/${id}/edits`, { edit: next.edit })
        await look()
      }
      state.value = 'saved'
    } catch (thrown) {
      refused(thrown as Error)
    } finally {
      sending = false
    }
  }

  function refused(thrown: Error): void {
    const [first] = replica.value.pending
    if (!(thrown instanceof ApiError) || thrown.status === 0 || thrown.status >= 500 || !first) {
      state.value = 'away'
      again(AGAIN_MS)
      return
    }
    // What crossed with a colleague's is put together once theirs is here; what is then still refused is not taken.
    const crossed = thrown.status === 409 && !refusedBefore.has(first.edit.id)
    if (crossed) {
      refusedBefore.add(first.edit.id)
      void look().then(send, () => (state.value = 'away'))
      return
    }
    notice.value = [thrown.message, ...thrown.problems.map(({ path, message }) => `${path} ${message}`)].join(
      ' ',
    )
    const gone = draftKernel.takeRefusal(replica.value, first.edit.id, {
      kind: 'invalid',
      problems: thrown.problems,
    })
    replica.value = { ...gone, tray: [] }
    void look().catch(() => undefined)
  }

  /** Makes an edit here at once and sends it. */
  function edit(kind: string, ops: readonly DraftOp[], extra: Partial<DraftEdit> = {}): void {
    if (ops.length === 0 || closed.value) return
    notice.value = ''
    if (!make(kind, ops, extra))
      notice.value = 'Somebody else answered this meanwhile: look at their answer first.'
    else void send()
  }

  function make(kind: string, ops: readonly DraftOp[], extra: Partial<DraftEdit> = {}): boolean {
    const made = {
      id: uuid(),
      kind,
      schema: DRAFT_SCHEMA,
      by: me.value,
      madeAt: new Date().toISOString(),
      ops,
      ...extra,
    }
    const result = draftKernel.makeEdit(replica.value, made)
    if (result.ok) replica.value = result.replica
    return result.ok
  }

  const unsent = computed((): readonly DraftJournalEntry[] =>
    replica.value.pending.map((item, index) => ({
      revision: replica.value.revision + index + 1,
      edit: { ...item.edit, ops: item.took },
      takenAt: item.edit.madeAt,
    })),
  )
  const stacks = computed(() => draftKernel.undoStacks([...journal.value, ...unsent.value], me.value))

  function back(way: 'undo' | 'redo'): void {
    const entry = stacks.value[way].at(-1)
    if (!entry) return
    const { ops, conflicts } = draftKernel.planUndo(replica.value.shown, entry)
    if (ops.length === 0) {
      notice.value = `This was changed by somebody else since: ${conflicts.map(({ id: at }) => at.replace('answer:', '')).join(', ')}.`
      return
    }
    edit(way, ops, way === 'undo' ? { undoes: entry.edit.id } : { redoes: entry.edit.id })
  }

  onBeforeUnmount(() => {
    ended = true
    clearTimeout(timer)
  })

  return {
    ...{ open, edit, back, look, state, closed, entryId, notice },
    doc: computed(() => replica.value.shown),
    revision: computed(() => replica.value.revision),
    unsaved: computed(() => replica.value.pending.length),
    canUndo: computed(() => stacks.value.undo.length > 0),
    canRedo: computed(() => stacks.value.redo.length > 0),
  }
}
