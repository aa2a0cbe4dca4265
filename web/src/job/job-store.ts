import { defineStore } from 'pinia'
import { v4 as uuid } from 'uuid'
import { useDebounceFn, useIntervalFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import {
  Catalogue,
  emptyDocument,
  freshEvidence,
  invertOps,
  judge,
  noUndo,
  owedList,
  pinOps,
  placesOf,
  readKept,
  planUndo,
  recordsOf,
  rulesInForce,
  SCHEMA,
  serialsOf,
  systemOf,
  undoStacks,
  type Conflict,
  type DevicePlace,
  type Edit,
  type JobDocument,
  type JudgeInput,
  type JournalEntry,
  type KeptEntry,
  type Op,
  type OpenedJob,
  type Person,
  type Problem,
  type Replica,
  type TrayItem,
  type UndoAnswer,
  type UndoStacks,
  type WrittenEntry,
} from '#core'
import { api } from '../app/api.ts'
import { useSession } from '../app/session.ts'
import { adoptLegacy } from '../line/legacy.ts'
import { JobLine, type LineState } from '../line/line.ts'
import { httpTransport } from '../line/transport.ts'
import { holdTurn } from '../line/turn.ts'
import { deviceQueue } from '../line/device-queue.ts'

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
  const tray = shallowRef<readonly TrayItem[]>([])
  /** What I can take back and bring back of what the server has; my unsent edits come on top. */
  const stacks = shallowRef<UndoStacks & { readonly more: boolean }>({ ...noUndo, more: false })
  /** The revision of the head: it grows with every entry of the journal. */
  const revision = ref(0)
  const unsent = shallowRef<readonly JournalEntry[]>([])
  /** The entries offered for new work, and every entry known by its hash: a job is judged by those it pins. */
  const offered = shallowRef(new Catalogue([]))
  const known = shallowRef<ReadonlyMap<string, KeptEntry>>(new Map())
  const pinned = computed(() =>
    recordsOf(doc.value, 'pin')
      .map((pin) => pin.hash)
      .join(' '),
  )
  const catalogue = computed(() =>
    offered.value.with(pinned.value.split(' ').flatMap((hash) => known.value.get(hash) ?? [])),
  )
  // A colleague's edit or an undo may pin an entry that this page has not seen: it is asked for by its hash.
  watch(pinned, () => void fetchMissing())
  const line = ref<LineState>('idle')
  /** False where this browser keeps nothing over a reload. */
  const keeps = ref(true)
  const notice = shallowRef<Notice | null>(null)
  const undoRest = shallowRef<{
    entry: JournalEntry
    conflicts: readonly Conflict[]
    ops: readonly Op[]
    redo: boolean
  } | null>(null)
  /** The records whose history the journal shows; null for the whole job. */
  const journalAbout = shallowRef<{ name: string; ids: ReadonlySet<string> } | null>(null)
  const journalOpen = ref(false)
  let wire: JobLine | null = null

  const me = computed((): Person => ({ id: session.person?.id ?? null, name: session.person?.name ?? '' }))
  /** Whether this person may only look on. */
  const looksOn = computed(() => session.person?.role === 'viewer')
  const now = ref(new Date().toISOString())
  useIntervalFn(() => (now.value = new Date().toISOString()), 30_000)
  const elsewhere = shallowRef<readonly { serial: string; job: string }[] | null>(null)
  const system = computed(() => (jobId.value ? systemOf(doc.value, catalogue.value) : null))
  const findings = computed(() => (jobId.value ? judge(inputOf(doc.value, catalogue.value)) : []))
  /** What judging this job, or a copy of it, depends on. */
  function inputOf(document: JobDocument, entries: Catalogue): JudgeInput {
    return {
      doc: document,
      catalogue: entries,
      now: now.value,
      elsewhere: elsewhere.value,
      houseRules: session.houseRules,
    }
  }
  /** The house rules that hold for this job. */
  const rules = computed(() => rulesInForce(doc.value, session.houseRules))
  /** Where each device stands, by device id. */
  const places = computed(() =>
    system.value ? placesOf(doc.value, system.value, rules.value) : new Map<string, DevicePlace>(),
  )
  const owed = computed(() =>
    jobId.value ? owedList(inputOf(doc.value, catalogue.value), findings.value) : [],
  )
  const serials = computed(() => (jobId.value ? [...serialsOf(doc.value)].sort().join(' ') : ''))
  watch(serials, useDebounceFn(askElsewhere, 400))

  /** Asks whether the firm's other jobs use one of these transmitters; offline it stays unknown. */
  async function askElsewhere(): Promise<void> {
    const id = jobId.value
    if (!id || serials.value === '') {
      elsewhere.value = []
      return
    }
    try {
      const answer = await api<{ uses: { serial: string; job: string }[] }>(
        'GET',
        `/api/jobs/${id}/elsewhere`,
      )
      if (jobId.value === id) elsewhere.value = answer.uses
    } catch {
      elsewhere.value = null
    }
  }
  const steps = computed(() => {
    const { undo, redo } = undoStacks(unsent.value, me.value, stacks.value)
    return { undo: undo.at(-1) ?? null, redo: redo.at(-1) ?? null }
  })

  /** Opens a job; closes the one before. */
  async function open(id: string): Promise<void> {
    close()
    const [current] = await Promise.all([session.loadCatalogue(), session.loadHouseRules()])
    const opened = await api<OpenedJob>('GET', `/api/jobs/${id}`)
    offered.value = current
    learn(current.kept)
    take(opened.entries)
    stacks.value = opened.steps
    revision.value = opened.revision
    const queue = deviceQueue()
    const owner = { firm: session.person?.firmId ?? '', person: session.person?.id ?? '', job: id }
    await adoptLegacy(localStorage, queue, { ...owner, name: me.value.name }).catch(() => undefined)
    const opening = await JobLine.open({
      owner,
      head: opened.document,
      revision: opened.revision,
      queue,
      transport: httpTransport,
      hold: holdTurn,
      events: {
        changed: show,
        state: (state) => (line.value = state),
        news,
        keeps: (kept) => (keeps.value = kept),
      },
    })
    jobId.value = id
    wire = opening
    show(opening.replica)
  }

  /** Entries that the server took, mine and others'. */
  function news(entries: readonly JournalEntry[]): void {
    stacks.value = { ...undoStacks(entries, me.value, stacks.value), more: stacks.value.more }
    revision.value = entries.at(-1)?.revision ?? revision.value
    if (stacks.value.undo.length === 0 && stacks.value.more) void fetchSteps()
  }

  /** Asks for what can be taken back further behind. */
  async function fetchSteps(): Promise<void> {
    const id = jobId.value
    const answer = await api<UndoAnswer>('GET', `/api/jobs/${id}/undo`).catch(() => null)
    if (answer && jobId.value === id) stacks.value = answer
  }

  function learn(entries: readonly KeptEntry[]): void {
    known.value = new Map([...known.value, ...entries.map((item) => [item.hash, item] as const)])
  }

  function take(entries: readonly WrittenEntry[]): void {
    learn(entries.map(readKept))
  }

  async function fetchMissing(): Promise<void> {
    const missing = pinned.value.split(' ').filter((hash) => hash !== '' && !known.value.has(hash))
    if (missing.length === 0) return
    const hashes = missing.slice(0, 100).join(',')
    const answer = await api<{ entries: WrittenEntry[] }>(
      'GET',
      `/api/catalogue/entries?hashes=${hashes}`,
    ).catch(() => null)
    if (answer) take(answer.entries)
  }

  function close(): void {
    wire?.close()
    wire = null
    jobId.value = null
    doc.value = emptyDocument
    tray.value = []
    stacks.value = { ...noUndo, more: false }
    revision.value = 0
    line.value = 'idle'
    unsent.value = []
    elsewhere.value = null
    journalAbout.value = null
  }

  /**
   * Makes one edit of these ops. What cannot be applied goes to the tray with its reason and asks. Returns whether it was
   * applied here; it is saved once the server has it.
   */
  function edit(kind: string, ops: readonly Op[], extra: Partial<Edit> = {}): boolean {
    if (!wire || ops.length === 0) return false
    if (looksOn.value) {
      tell('You look on here: nothing was changed.', [
        { path: '', message: 'An installer or an owner of the firm can change this job.' },
      ])
      return false
    }
    const made: Edit = {
      id: uuid(),
      kind,
      schema: SCHEMA,
      by: me.value,
      madeAt: new Date().toISOString(),
      ops,
      ...extra,
    }
    return wire.make(made) === null
  }

  /** What a new piece of evidence begins with: my name and now. */
  function fresh() {
    return freshEvidence(me.value, new Date().toISOString())
  }

  /** Sets one field from the value its maker saw. */
  function set(kind: string, id: string, field: string, from: unknown, to: unknown): boolean {
    return edit(kind, [{ op: 'set', id, field, from, to }])
  }

  /** Ops that pin these entries, and what they need, where the job does not pin them yet. */
  function pins(entries: readonly (string | null)[]): Op[] {
    return pinOps(doc.value, catalogue.value, entries)
  }

  function undo(): void {
    takeBack(steps.value.undo, false)
  }

  function redo(): void {
    takeBack(steps.value.redo, true)
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

  /** Opens the journal at the history of these records. */
  function showJournal(name: string, ids: readonly string[]): void {
    journalAbout.value = { name, ids: new Set(ids) }
    journalOpen.value = true
  }

  /** Keeps theirs: the item leaves the tray. */
  function keepTheirs(item: TrayItem): void {
    wire?.decide(item.edit.id)
  }

  /** Takes mine: the same change again, from what is there now. */
  function takeMine(item: TrayItem): void {
    const ops = item.edit.ops.map((op): Op => {
      const now = op.op === 'set' ? doc.value.records[op.id] : undefined
      return op.op === 'set' && now
        ? { ...op, from: (now as unknown as Record<string, unknown>)[op.field] }
        : op
    })
    wire?.decide(item.edit.id)
    edit(item.edit.kind, ops)
  }

  function tell(title: string, problems: readonly Problem[]): void {
    notice.value = { title, lines: problems.map((p) => (p.path ? `${p.path}: ${p.message}` : p.message)) }
  }

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

  return {
    jobId,
    doc,
    tray,
    revision,
    unsent,
    catalogue,
    offered,
    line,
    keeps,
    looksOn,
    notice,
    undoRest,
    journalAbout,
    journalOpen,
    showJournal,
    me,
    steps,
    open,
    close,
    edit,
    fresh,
    set,
    pins,
    undo,
    redo,
    finishUndo,
    keepTheirs,
    takeMine,
    tell,
    now,
    system,
    findings,
    inputOf,
    places,
    rules,
    owed,
    elsewhere,
    canInvert: (entry: JournalEntry) => invertOps(entry.edit.ops).length > 0,
  }
})
