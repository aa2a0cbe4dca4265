import { computed, shallowRef, type Ref } from 'vue'
import {
  noUndo,
  planUndo,
  undoStacks,
  type Conflict,
  type Edit,
  type JobDocument,
  type JournalEntry,
  type Op,
  type Person,
  type UndoAnswer,
  type UndoStacks,
} from '#core'
import { api } from '../line/api.ts'

type Stacks = UndoStacks & { readonly more: boolean }

/** What I can take back and bring back of an open job: what the server has, and my unsent edits on top. */
export function useUndo(opts: {
  readonly jobId: Ref<string | null>
  readonly doc: Ref<JobDocument>
  readonly unsent: Ref<readonly JournalEntry[]>
  readonly me: Ref<Person>
  readonly edit: (kind: string, ops: readonly Op[], extra: Partial<Edit>) => boolean
}) {
  const { jobId, doc, unsent, me, edit } = opts
  const nothing: Stacks = { ...noUndo, more: false }
  const stacks = shallowRef<Stacks>(nothing)
  /** An undo of which a part no longer applies: the rest is offered. */
  const undoRest = shallowRef<{
    entry: JournalEntry
    conflicts: readonly Conflict[]
    ops: readonly Op[]
    redo: boolean
  } | null>(null)
  const steps = computed(() => {
    const { undo, redo } = undoStacks(unsent.value, me.value, stacks.value)
    return { undo: undo.at(-1) ?? null, redo: redo.at(-1) ?? null }
  })

  /** Entries that the server took, mine and others'. */
  function took(entries: readonly JournalEntry[]): void {
    stacks.value = { ...undoStacks(entries, me.value, stacks.value), more: stacks.value.more }
    if (stacks.value.undo.length === 0 && stacks.value.more) void fetchSteps()
  }

  /** Asks for what can be taken back further behind. */
  async function fetchSteps(): Promise<void> {
    const id = jobId.value
    const answer = await api<UndoAnswer>('GET', `/api/jobs/${id}/undo`).catch(() => null)
    if (answer && jobId.value === id) stacks.value = answer
  }

  function takeBack(entry: JournalEntry | null, isRedo: boolean): void {
    if (!entry) return
    const plan = planUndo(doc.value, entry)
    if (plan.conflicts.length > 0) undoRest.value = { entry, ...plan, redo: isRedo }
    else finishUndo(entry, plan.ops, isRedo)
  }

  function finishUndo(entry: JournalEntry, ops: readonly Op[], isRedo: boolean): void {
    undoRest.value = null
    edit(isRedo ? 'redo' : 'undo', ops, isRedo ? { redoes: entry.edit.id } : { undoes: entry.edit.id })
  }

  return {
    steps,
    undoRest,
    /** Begins with what the server says of a job, or with nothing. */
    begin: (said: Stacks = nothing): void => void (stacks.value = said),
    took,
    undo: (): void => takeBack(steps.value.undo, false),
    redo: (): void => takeBack(steps.value.redo, true),
    finishUndo,
  }
}
