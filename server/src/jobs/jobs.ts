import {
  SCHEMA,
  stamped,
  writtenOf,
  type Edit,
  type EditAnswer,
  type EditsAnswer,
  type Helped,
  type HouseRules,
  type JobDocument,
  type JobList,
  type JobSummary,
  type JournalEntry,
  type KeptEntry,
  type OpenedJob,
  type Op,
  type Person,
  type RulesPreview,
  type UndoAnswer,
} from '#core'
import type { JobHead } from '../db/jobs.ts'
import type { Account } from '../db/people.ts'
import { AppError } from '../errors/app-error.ts'
import { pinnedHashes } from '../workers/judging-tasks.ts'
import type { Summaries } from './summaries.ts'
import { takeEdit, type Taking } from './taking.ts'

/** What people do with the jobs of their firm. */
export interface Jobs {
  list(who: Account, text: string): Promise<JobList>
  open(who: Account, jobId: string): Promise<OpenedJob>
  /** The revision that a job of the firm is at; an unknown job is an error. */
  revision(who: Account, jobId: string): Promise<number>
  /** Journal entries after a revision, oldest first. */
  since(who: Account, jobId: string, since: number): Promise<JournalEntry[]>
  /** Journal entries before a revision, newest first; with `about`, those that touch one of these records. */
  before(who: Account, jobId: string, before: number, about: readonly string[]): Promise<JournalEntry[]>
  /** What this person can take back and bring back. */
  undo(who: Account, jobId: string): Promise<UndoAnswer>
  /** Takes edits in order; stops at the first that is not taken. */
  take(
    who: Account,
    jobId: string,
    sent: { readonly edits: readonly unknown[]; readonly sentAt: string | null },
    create: boolean,
    madeFor?: Person,
  ): Promise<EditsAnswer>
  elsewhere(who: Account, jobId: string): Promise<{ serial: string; job: string }[]>
  /** Other jobs of the firm that use this very ID, or one nearly it. */
  around(who: Account, jobId: string, serial: string): Promise<{ serial: string; job: string }[]>
  /** What made devices heard in the firm's other jobs, practice or real as this one. */
  helped(who: Account, jobId: string): Promise<Helped[]>
  /** The job as one open file. */
  file(who: Account, jobId: string): Promise<{ name: string; text: string }>
  /** The zone schedule, as CSV or as PDF. */
  schedule(
    who: Account,
    jobId: string,
    form: 'csv' | 'pdf',
  ): Promise<{ name: string; content: string | Buffer }>
  /** Labels for its boxes, as PDF on one of the papers; their codes lead to `origin`. */
  labels(
    who: Account,
    jobId: string,
    asked: { readonly paper: string; readonly from: number; readonly origin: string },
  ): Promise<{ name: string; content: Buffer }>
  /** The card that tells zones where the panel shows no label; NOT_FOUND where it shows them. */
  zoneCard(who: Account, jobId: string): Promise<{ name: string; content: Buffer }>
  /** Which of the firm's latest jobs would get or lose findings under other house rules; nothing is saved. */
  underRules(who: Account, rules: HouseRules): Promise<RulesPreview>
  /** Begins a job from a job file; the entries it carries are kept for this firm, its evidence is told by the file. */
  importFile(who: Account, jobId: string, editId: string, file: string): Promise<EditsAnswer>
  /** Begins a job by a journal, each edit in the name of one of these people and at its own time. */
  loadJournal(
    people: readonly Account[],
    job: { readonly id: string; readonly edits: readonly Edit[]; readonly entries: readonly KeptEntry[] },
  ): Promise<void>
}

/** Jobs that a list shows, and that a preview of house rules judges, the latest first. */
const MOST = 200
/** Entries of a page of the journal. */
const PAGE = 100

/** The work on jobs that requests ask for. */
export function createJobs(
  taking: Taking & { readonly summaries: Summaries | null; readonly build: string },
): Jobs {
  const { store, pool, now, summaries } = taking

  async function head(who: Account, jobId: string): Promise<JobHead> {
    const found = await store.jobsOf(who.firmId).head(jobId)
    if (!found) throw new AppError('NOT_FOUND', 'There is no such job in this firm.')
    return found
  }

  async function pinned(who: Account, document: JobDocument): Promise<KeptEntry[]> {
    return store.catalogueOf(who.firmId).byHashes(pinnedHashes(document))
  }

  const entriesOf = (who: Account) => (hashes: readonly string[]) =>
    store.catalogueOf(who.firmId).byHashes(hashes)

  async function text(who: Account, jobId: string) {
    const found = await store.jobsOf(who.firmId).text(jobId)
    if (!found) throw new AppError('NOT_FOUND', 'There is no such job in this firm.')
    return found
  }

  async function revision(who: Account, jobId: string): Promise<number> {
    const found = await store.jobsOf(who.firmId).revision(jobId)
    if (found === null) throw new AppError('NOT_FOUND', 'There is no such job in this firm.')
    return found
  }

  async function undo(who: Account, jobId: string): Promise<UndoAnswer> {
    const stacks = await store.jobsOf(who.firmId).undoStacks(jobId, who)
    return { undo: [...stacks.undo], redo: [...stacks.redo], more: stacks.more }
  }

  return {
    revision,
    async undo(who, jobId) {
      await revision(who, jobId)
      return undo(who, jobId)
    },
    async list(who, find) {
      const settings = await store.settingsOf(who.firmId).houseRules()
      const basis = { rules: settings.revision, build: taking.build, now: now() }
      const rows = await store.jobsOf(who.firmId).list(find.trim(), MOST, basis)
      const jobs = rows.map(({ summary, revision: _revision, ...row }) => {
        const kept = JSON.parse(summary) as JobSummary | Record<string, never>
        return { ...row, summary: 'stage' in kept ? listedSummary(kept as JobSummary) : null }
      })
      const renewing = await store.summaries.waiting(who.firmId, now())
      if (renewing > 0) summaries?.nudge()
      return { jobs, renewing }
    },
    async open(who, jobId) {
      const current = await head(who, jobId)
      const entries = (await pinned(who, current.document)).map(writtenOf)
      return { ...current, entries, steps: await undo(who, jobId) }
    },
    async since(who, jobId, since) {
      await revision(who, jobId)
      return store.jobsOf(who.firmId).editsSince(jobId, since)
    },
    async before(who, jobId, before, about) {
      await revision(who, jobId)
      return store.jobsOf(who.firmId).editsBefore(jobId, before, PAGE, about)
    },
    async take(who, jobId, { edits, sentAt }, create, madeFor) {
      const answers: EditAnswer[] = []
      for (const input of edits) {
        const answer = await takeEdit(taking, who, jobId, input, {
          create,
          sentAt,
          ...(madeFor ? { madeFor } : {}),
        })
        answers.push(answer)
        if (answer.outcome !== 'taken') break
      }
      summaries?.nudge()
      const highest = answers.reduce(
        (most, answer) => (answer.outcome === 'taken' ? Math.max(most, answer.revision) : most),
        0,
      )
      return { answers, revision: highest }
    },
    async file(who, jobId) {
      // Written in a worker: two thousand devices as text would keep every edit waiting meanwhile.
      const content = await pool.run({ kind: 'export', jobId }, await text(who, jobId), entriesOf(who))
      const name = (await store.jobsOf(who.firmId).titleOf(jobId)) ?? ''
      return { name: fileName(name, 'json'), text: content }
    },
    async schedule(who, jobId, form) {
      const job = await text(who, jobId)
      const { rules } = await store.settingsOf(who.firmId).houseRules()
      const made = await pool.run(
        { kind: 'schedule', form, rules, now: now().toISOString() },
        job,
        entriesOf(who),
      )
      const name = (await store.jobsOf(who.firmId).titleOf(jobId)) ?? ''
      const content = typeof made === 'string' ? made : Buffer.from(made)
      return { name: fileName(`${name} zones`, form), content }
    },
    async labels(who, jobId, asked) {
      const made = await pool.run({ kind: 'labels', jobId, ...asked }, await text(who, jobId), entriesOf(who))
      const name = (await store.jobsOf(who.firmId).titleOf(jobId)) ?? ''
      return { name: fileName(`${name} labels`, 'pdf'), content: Buffer.from(made) }
    },
    async zoneCard(who, jobId) {
      const made = await pool.run({ kind: 'zone-card' }, await text(who, jobId), entriesOf(who))
      if (!made) throw new AppError('NOT_FOUND', 'This panel shows labels itself: it needs no card.')
      const name = (await store.jobsOf(who.firmId).titleOf(jobId)) ?? ''
      return { name: fileName(`${name} zone card`, 'pdf'), content: Buffer.from(made) }
    },
    async importFile(who, jobId, editId, file) {
      // Parsed and checked in a worker: a large file holds nobody else up.
      const read = await pool.run({ kind: 'file', text: file }, { snapshot: null, tail: [] }, entriesOf(who))
      if (!read)
        throw new AppError('BAD_REQUEST', 'What was sent is not valid JSON, so nothing of it was taken.')
      if (!read.ok)
        throw new AppError('INVALID', 'This job file was not taken; nothing was changed.', read.problems)
      await store.catalogueOf(who.firmId).add(read.entries, null)
      const jobs = store.jobsOf(who.firmId)
      const answers: EditAnswer[] = []
      const parts: [string, readonly Op[]][] = [
        [editId, read.plan],
        [`${editId.slice(0, 38)}-t`, read.told],
      ]
      for (const [id, ops] of parts) {
        if (ops.length === 0) continue
        const by = { id: who.id, name: who.name }
        const edit: Edit = { id, kind: 'job.import', schema: SCHEMA, by, madeAt: now().toISOString(), ops }
        const taken = await jobs.take(jobId, { edit, now: now(), create: true })
        if (taken.outcome !== 'taken')
          throw new AppError(
            'CONFLICT',
            'A job with this id is here already and has changed since; import it under a new id.',
          )
        answers.push({ id, outcome: 'taken', revision: taken.entry.revision })
      }
      summaries?.nudge()
      return { answers, revision: Math.max(...answers.map((one) => ('revision' in one ? one.revision : 0))) }
    },
    async underRules(who, other) {
      const settings = await store.settingsOf(who.firmId).houseRules()
      const basis = { rules: settings.revision, build: taking.build, now: now() }
      const rows = await store.jobsOf(who.firmId).list('', MOST + 1, basis)
      const judged = rows.slice(0, MOST)
      const jobs: RulesPreview['jobs'] = []
      for (const row of judged) {
        const changes = await pool.run(
          { kind: 'changes', rules: settings.rules, other, now: now().toISOString() },
          await text(who, row.id),
          entriesOf(who),
        )
        if (changes.come.length + changes.go.length > 0)
          jobs.push({ id: row.id, name: row.name, come: [...changes.come], go: [...changes.go] })
      }
      return { jobs, judged: judged.length, more: rows.length > judged.length }
    },
    async elsewhere(who, jobId) {
      const current = await head(who, jobId)
      return store.jobsOf(who.firmId).transmitters.elsewhereOf(jobId, current.document)
    },
    async helped(who, jobId) {
      await revision(who, jobId)
      return store.summaries.helped(who.firmId, jobId)
    },
    async around(who, jobId, serial) {
      await revision(who, jobId)
      return store.jobsOf(who.firmId).transmitters.around(jobId, serial)
    },
    async loadJournal(people, { id, edits, entries }) {
      const [first] = people
      if (!first) return
      await store.catalogueOf(first.firmId).add(entries, null)
      for (const [index, edit] of edits.entries()) {
        const who = people.find((person) => person.name === edit.by.name) ?? first
        const at = new Date(edit.madeAt)
        const taken = await store.jobsOf(who.firmId).take(id, {
          edit: stamped(edit, { who, clocks: { now: at, behindMs: 0 }, undone: null }),
          now: at,
          create: index === 0,
        })
        if (taken.outcome !== 'taken')
          throw new Error(`${edit.id} of the journal was not taken: ${taken.outcome}`)
      }
    },
  }
}

/** A file name that every system takes, from a job's name. */
function fileName(name: string, ending: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
  return `${plain || 'job'}.${ending}`
}

/** What the list shows of a job; one that an earlier build summed up has no clocks. */
function listedSummary({
  stage,
  owed,
  stops,
  clocks = [],
}: Partial<JobSummary> & Omit<JobSummary, 'clocks'>): JobSummary {
  return { stage, owed, stops, clocks }
}
