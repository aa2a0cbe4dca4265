import { defineStore } from 'pinia'
import { v4 as uuid } from 'uuid'
import { computed, ref, shallowRef, watch } from 'vue'
import {
  emptyDocument,
  freshEvidence,
  invertOps,
  jobInfo,
  SCHEMA,
  type Edit,
  type JobDocument,
  type JournalEntry,
  type Op,
  type OpenedJob,
  type Person,
  type Problem,
  type Replica,
  type TrayItem,
} from '#core'
import { api } from '../line/api.ts'
import { deviceQueue } from '../line/device-queue.ts'
import { adoptLegacy } from '../line/legacy.ts'
import { JobLine, type LineState } from '../line/line.ts'
import { useSession } from '../line/session.ts'
import { httpTransport } from '../line/transport.ts'
import { holdTurn } from '../line/turn.ts'
import { useJobCatalogue } from './useJobCatalogue.ts'
import { useJudged } from './useJudged.ts'
import { useUndo } from './useUndo.ts'

/** A message about something that was not taken. */
export interface Notice {
  readonly title: string
  readonly lines: readonly string[]
}

/** The open job: its document as shown, edits, undo, and what waits in the tray. */
export const useJob = defineStore('job', () => {
  const session = useSession()
  const jobId = ref<string | null>(null)
  const doc = shallowRef<JobDocument>(emptyDocument)
  const me = computed((): Person => ({ id: session.person?.id ?? null, name: session.person?.name ?? '' }))
  const entries = useJobCatalogue(doc)
  const judged = useJudged({
    ...{ jobId, doc, catalogue: entries.catalogue },
    houseRules: () => session.houseRules,
  })
  const wire = useWire(jobId, doc)
  const undoing = useUndo({ jobId, doc, unsent: wire.unsent, me, edit })
  /** Whether this person may only look on. */
  const looksOn = computed(() => session.person?.role === 'viewer')
  const notice = shallowRef<Notice | null>(null)
  /** The records whose history the journal shows; null for the whole job. */
  const journalAbout = shallowRef<{ name: string; ids: ReadonlySet<string> } | null>(null)
  const journalOpen = ref(false)

  /** Opens a job; closes the one before. */
  async function open(id: string): Promise<void> {
    close()
    await Promise.all([session.loadCatalogue(), session.loadHouseRules()])
    const opened = await api<OpenedJob>('GET', `/api/jobs/${id}`)
    entries.begin(session.offered(jobInfo(opened.document)), opened.entries)
    undoing.begin(opened.steps)
    await wire.open(opened, {
      ...{ firm: session.person?.firmId ?? '', person: session.person?.id ?? '', job: id },
      name: me.value.name,
      took: undoing.took,
    })
  }

  // What others publish, retire or recall meanwhile counts here as soon as it is known.
  watch(
    () => [session.catalogue, session.acts],
    () => {
      if (session.catalogue && doc.value.records['job:main'])
        entries.renew(session.offered(jobInfo(doc.value)))
    },
  )

  function close(): void {
    wire.close()
    undoing.begin()
    journalAbout.value = null
  }

  /**
   * Makes one edit of these ops. What cannot be applied goes to the tray with its reason and asks. Returns whether it was
   * applied here; it is saved once the server has it.
   */
  function edit(kind: string, ops: readonly Op[], extra: Partial<Edit> = {}): boolean {
    if (jobId.value === null || ops.length === 0) return false
    if (looksOn.value) {
      tell('You look on here: nothing was changed.', [
        { path: '', message: 'An installer or an owner of the firm can change this job.' },
      ])
      return false
    }
    const madeAt = new Date().toISOString()
    return wire.make({ id: uuid(), kind, schema: SCHEMA, by: me.value, madeAt, ops, ...extra })
  }

  /** Takes mine: the same change again, from what is there now. */
  function takeMine(item: TrayItem): void {
    const ops = item.edit.ops.map((op) => fromNow(doc.value, op))
    wire.decide(item.edit.id)
    edit(item.edit.kind, ops)
  }

  function tell(title: string, problems: readonly Problem[]): void {
    notice.value = { title, lines: problems.map((p) => (p.path ? `${p.path}: ${p.message}` : p.message)) }
  }

  const { tray, revision, unsent, line, keeps } = wire
  const { offered, catalogue, pins } = entries
  const { steps, undo, redo, undoRest, finishUndo } = undoing
  return {
    ...{ jobId, doc, tray, revision, unsent, line, keeps, me, looksOn },
    ...{ offered, catalogue, pins, ...judged },
    ...{ steps, undo, redo, undoRest, finishUndo },
    ...{ notice, tell, journalAbout, journalOpen, open, close, edit, takeMine },
    /** Keeps theirs: the item leaves the tray. */
    keepTheirs: (item: TrayItem): void => wire.decide(item.edit.id),
    /** What a new piece of evidence begins with: my name and now. */
    fresh: () => freshEvidence(me.value, new Date().toISOString()),
    /** Sets one field from the value its maker saw. */
    set: (kind: string, id: string, field: string, from: unknown, to: unknown): boolean =>
      edit(kind, [{ op: 'set', id, field, from, to }]),
    /** Opens the journal at the history of these records. */
    showJournal(name: string, ids: readonly string[]): void {
      journalAbout.value = { name, ids: new Set(ids) }
      journalOpen.value = true
    },
    canInvert: (entry: JournalEntry) => invertOps(entry.edit.ops).length > 0,
  }
})

/** The line to the server: what is shown of the document, what waits to be sent, and what asks to be decided. */
function useWire(jobId: { value: string | null }, doc: { value: JobDocument }) {
  const tray = shallowRef<readonly TrayItem[]>([])
  /** The revision of the head: it grows with every entry of the journal. */
  const revision = ref(0)
  const unsent = shallowRef<readonly JournalEntry[]>([])
  const line = ref<LineState>('idle')
  /** False where this browser keeps nothing over a reload. */
  const keeps = ref(true)
  let wire: JobLine | null = null

  function show(replica: Replica): void {
    doc.value = replica.shown
    tray.value = replica.tray
    const base = replica.revision
    unsent.value = replica.pending.map((item, index) => ({
      revision: base + index + 1,
      edit: { ...item.edit, ops: item.took },
      takenAt: item.edit.madeAt,
    }))
  }

  async function open(
    opened: OpenedJob,
    who: {
      readonly firm: string
      readonly person: string
      readonly job: string
      readonly name: string
      readonly took: (entries: readonly JournalEntry[]) => void
    },
  ): Promise<void> {
    revision.value = opened.revision
    const queue = deviceQueue()
    const { name, took, ...owner } = who
    await adoptLegacy(localStorage, queue, { ...owner, name }).catch(() => undefined)
    const opening = await JobLine.open({
      ...{ owner, head: opened.document, revision: opened.revision, queue },
      ...{ transport: httpTransport, hold: holdTurn },
      events: {
        changed: show,
        state: (state) => (line.value = state),
        news(entries) {
          revision.value = entries.at(-1)?.revision ?? revision.value
          took(entries)
        },
        keeps: (kept) => (keeps.value = kept),
      },
    })
    jobId.value = owner.job
    wire = opening
    show(opening.replica)
  }

  function close(): void {
    wire?.close()
    wire = null
    jobId.value = null
    doc.value = emptyDocument
    tray.value = []
    revision.value = 0
    line.value = 'idle'
    unsent.value = []
  }

  return {
    ...{ tray, revision, unsent, line, keeps, open, close },
    make: (made: Edit): boolean => wire?.make(made) === null,
    decide: (edit: string): void => void wire?.decide(edit),
  }
}

/** The same op, from the value that stands now. */
function fromNow(doc: JobDocument, op: Op): Op {
  const now = op.op === 'set' ? doc.records[op.id] : undefined
  return op.op === 'set' && now ? { ...op, from: (now as unknown as Record<string, unknown>)[op.field] } : op
}
