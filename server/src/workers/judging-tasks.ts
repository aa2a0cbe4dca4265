import {
  Catalogue,
  emptyDocument,
  findingChanges,
  judge,
  labelPapers,
  nextStage,
  openStates,
  jobInfo,
  owedList,
  writtenIn,
  readJobFile,
  recordsOf,
  replay,
  stops as isStopping,
  upgraded,
  withMaker,
  writeJobFile,
  zoneScheduleCsv,
  type Edit,
  type HouseRules,
  type JobDocument,
  type JobRecord,
  type JobSummary,
  type JournalEntry,
  clocksOf,
  helpedIn,
  type Helped,
  type KeptEntry,
} from '#core'
import type { JobText } from '../db/jobs.ts'
import { labelsPdf, zoneCardPdf } from '../documents/labels-pdf.ts'
import { schedulePdf } from '../documents/schedule-pdf.ts'

/** What is asked of a job; the job itself comes as text and is parsed where it is judged. */
export type JudgingTask =
  /** What the job list shows, and when it must be made again. */
  | { readonly kind: 'summary'; readonly rules: HouseRules; readonly now: string }
  /** The findings that would come and go under other house rules. */
  | { readonly kind: 'changes'; readonly rules: HouseRules; readonly other: HouseRules; readonly now: string }
  /** What stands against a hand-over, in words. */
  | {
      readonly kind: 'handover'
      readonly rules: HouseRules
      readonly now: string
      readonly elsewhere: readonly { serial: string; job: string }[]
    }
  | {
      readonly kind: 'schedule'
      readonly form: 'csv' | 'pdf'
      readonly rules: HouseRules
      readonly now: string
    }
  /** Labels for its boxes, on one of the papers. */
  | {
      readonly kind: 'labels'
      readonly jobId: string
      readonly origin: string
      readonly paper: string
      readonly from: number
    }
  /** The card that tells zones where the panel shows no label. */
  | { readonly kind: 'zone-card' }
  /** The job as a job file. */
  | { readonly kind: 'export'; readonly jobId: string }
  /** What a job file holds; it is of no job yet. */
  | { readonly kind: 'file'; readonly text: string }

interface Summed {
  /** What the job list shows, and what made devices heard, which is counted over the firm. */
  readonly summary: JobSummary & { readonly helped: readonly Helped[] }
  /** When the clock makes it old, UTC; null for never. */
  readonly due: string | null
}

/** What each task answers. */
export interface JudgingAnswers {
  readonly summary: Summed
  readonly changes: { readonly come: readonly string[]; readonly go: readonly string[] }
  readonly handover: readonly string[]
  readonly schedule: string | Uint8Array
  readonly labels: Uint8Array
  /** Null where the panel shows labels itself. */
  readonly 'zone-card': Uint8Array | null
  readonly export: string
  /** Null for a text that is no JSON. */
  readonly file: ReturnType<typeof readJobFile> | null
}

/** Parses a job: its snapshot, the journal behind it, in the shapes in force. */
export function parseJob({ snapshot, tail }: Pick<JobText, 'snapshot' | 'tail'>): JobDocument {
  const start = snapshot === null ? emptyDocument : (JSON.parse(snapshot) as JobDocument)
  const entries = tail.map((text): JournalEntry => {
    const entry = JSON.parse(text) as JournalEntry
    return { ...entry, edit: withMaker<JobRecord>(entry.edit as Edit) }
  })
  return upgraded(replay(entries, start))
}

/** Hashes of the entries that a job pins. */
export function pinnedHashes(document: JobDocument): string[] {
  return recordsOf(document, 'pin').map((pin) => pin.hash)
}

/** Does one task on a parsed job. */
export async function doTask(
  task: JudgingTask,
  document: JobDocument,
  kept: readonly KeptEntry[],
): Promise<JudgingAnswers[JudgingTask['kind']]> {
  if (task.kind === 'file') return readFile(task.text)
  if (task.kind === 'export') return writeJobFile(task.jobId, document, kept)
  const catalogue = new Catalogue(kept)
  if (task.kind === 'zone-card') return zoneCardPdf(document, catalogue)
  if (task.kind === 'labels') {
    const paper = labelPapers.find(({ key }) => key === task.paper) ?? labelPapers[0]
    if (!paper) throw new RangeError('labels: there is no paper')
    return labelsPdf(document, catalogue, { ...task, paper })
  }
  const input = {
    doc: document,
    catalogue,
    now: task.now,
    elsewhere: null,
    houseRules: task.rules,
    times: writtenIn(jobInfo(document).region),
  }
  switch (task.kind) {
    case 'summary': {
      const findings = judge(input)
      const owed = owedList(input, findings)
      const summary = {
        stage: nextStage(owed),
        owed: owed.length,
        stops: findings.filter(isStopping).length,
        clocks: [...clocksOf(input, task.now)],
        helped: helpedIn(document),
      }
      return { summary, due: dueAt(document, task.now) }
    }
    case 'changes': {
      const changes = findingChanges(judge(input), judge({ ...input, houseRules: task.other }))
      return {
        come: changes.come.map((finding) => finding.text),
        go: changes.go.map((finding) => finding.text),
      }
    }
    case 'handover': {
      const asked = { ...input, elsewhere: task.elsewhere }
      return owedList(asked, judge(asked))
        .filter((item) => item.blocks)
        .map((item) => item.text)
    }
    case 'schedule':
      return task.form === 'csv'
        ? zoneScheduleCsv(document, catalogue)
        : schedulePdf(document, catalogue, task.rules, new Date(task.now))
  }
}

function readFile(text: string): JudgingAnswers['file'] {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    return null
  }
  return readJobFile(json)
}

/** When the clock alone changes what is said: a temporary state runs out, or a day ends. */
function dueAt(document: JobDocument, now: string): string {
  const midnight = new Date(now)
  midnight.setUTCHours(24, 0, 0, 0)
  return openStates(document)
    .map((state) => new Date(state.until).toISOString())
    .filter((until) => until > now)
    .reduce((first, until) => (until < first ? until : first), midnight.toISOString())
}
