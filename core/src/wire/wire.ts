import { z } from 'zod'
import type { CatalogueAct } from '../catalogue/standing.ts'
import { leafletTypes } from '../formats/leaflet.ts'
import type { DraftJournalEntry } from '../draft/records.ts'
import { houseRulesSchema } from '../house-rules/house-rules.ts'
import type { JobDocument } from '../job/document.ts'
import type { JournalEntry } from '../job/edit.ts'
import { rungs } from '../job/records.ts'
import { clockKinds } from '../proof/clocks.ts'
import { editShape } from '../records/edit.ts'
import { time } from '../records/fields.ts'
import { rights, roles } from '../records/roles.ts'

/*
 * What goes over the line between client and server. Server and client take their types from here, and the OpenAPI document
 * describes every answer by it.
 */

/** A schema of the outer form, for a value whose inner form the kernel checks. */
const outer = <T>(schema: z.ZodType): z.ZodType<T> => schema as z.ZodType<T>

const record = z.looseObject({ id: z.string(), type: z.string() })
const documentWire = outer<JobDocument>(
  z.object({ schema: z.number().int(), records: z.record(z.string(), record) }),
)
const op = z.discriminatedUnion('op', [
  z.object({ op: z.literal('add'), record }),
  z.object({ op: z.literal('remove'), record }),
  z.object({ op: z.literal('set'), id: z.string(), field: z.string(), from: z.unknown(), to: z.unknown() }),
])
const edit = z.object({ ...editShape.shape, ops: z.array(op) })
const entryWire = outer<JournalEntry>(z.object({ revision: z.number().int(), edit, takenAt: time }))
const writtenWire = z.object({
  hash: z.string(),
  form: z.number().int(),
  raw: z.unknown(),
})
const problemWire = z.object({ path: z.string(), message: z.string() })
const conflictWire = z.object({
  code: z.enum(['changed', 'gone', 'exists', 'reference']),
  id: z.string(),
  field: z.string().nullable(),
  yours: z.unknown(),
  theirs: z.unknown(),
  /** Who changed it and when, where the journal knows. */
  who: z.string().nullable(),
  when: time.nullable(),
})

/** A request with edits: when the device sent it, by its own clock, lets the server put the device's times right. */
export const sentEdits = z.object({ edits: z.array(z.unknown()).min(1).max(100), sentAt: time.optional() })

/** The answer to one edit. */
const editAnswer = z.discriminatedUnion('outcome', [
  z.object({ id: z.string(), outcome: z.literal('taken'), revision: z.number().int() }),
  z.object({ id: z.string(), outcome: z.literal('conflict'), conflict: conflictWire }),
  z.object({ id: z.string(), outcome: z.literal('invalid'), problems: z.array(problemWire) }),
  /** Written in newer shapes than this server reads: its sender keeps it. */
  z.object({ id: z.string(), outcome: z.literal('held'), schema: z.number().int() }),
])
/** What became of sent edits, each by itself. */
export const editsAnswer = z.object({ answers: z.array(editAnswer), revision: z.number().int() })

/** What a person can take back and bring back, the next one last; `more` when there is more behind what is sent. */
export const undoAnswer = z.object({
  undo: z.array(entryWire),
  redo: z.array(entryWire),
  more: z.boolean(),
})
/** A job as it is opened. */
export const openedJob = z.object({
  revision: z.number().int(),
  document: documentWire,
  entries: z.array(writtenWire),
  steps: undoAnswer,
})
/** A page of a job’s journal. */
export const journalPage = z.object({ entries: z.array(entryWire) })

const jobSummary = z.object({
  /** The stage whose work is next. */
  stage: z.string(),
  /** How many things it still owes before hand-over. */
  owed: z.number().int(),
  /** How many findings stop it. */
  stops: z.number().int(),
  /** The clocks that ran when it was summed up, the one that ends first before the others. */
  clocks: z.array(
    z.object({
      id: z.string(),
      kind: z.enum(clockKinds),
      words: z.string(),
      ends: time,
      /** What it means when it ends. */
      then: z.string(),
    }),
  ),
})
const listedJob = z.object({
  id: z.string(),
  name: z.string(),
  address: z.string(),
  /** A practice job: nothing of it counts as real. */
  practice: z.boolean(),
  changedAt: time,
  /** Who made the latest change. */
  changedBy: z.string(),
  /** As it was last summed up; null until it was for the first time. */
  summary: jobSummary.nullable(),
  /** Whether the summary is of the job as it is now. */
  fresh: z.boolean(),
})
/** The jobs of a firm. */
export const jobList = z.object({
  jobs: z.array(listedJob),
  /** How many of the firm's jobs wait to be summed up anew. */
  renewing: z.number().int(),
})
/** Who is signed in. */
export const accountWire = z.object({
  id: z.string(),
  name: z.string(),
  login: z.string(),
  role: z.enum(roles),
  rights: z.array(z.enum(rights)),
  firm: z.string(),
  firmId: z.string(),
})
/** The people of a firm. */
export const peopleAnswer = z.object({
  people: z.array(
    accountWire.omit({ firm: true, firmId: true }).extend({
      /** When they left; their sign-in name is then empty. */
      removedAt: time.nullable(),
      usedAt: time.nullable(),
    }),
  ),
  invitations: z.array(z.object({ id: z.string(), name: z.string(), role: z.enum(roles), expiresAt: time })),
})
/** A link that works once is made of this token; the page it leads to has it behind a #, which no server sees. */
export const newLink = z.object({ token: z.string() })
/** A link that works once. */
export const linkAnswer = z.object({
  kind: z.enum(['set-up', 'invite', 'password']),
  firm: z.string().nullable(),
  name: z.string(),
  role: z.enum(roles),
})
/** Where somebody is signed in. */
export const sessionsAnswer = z.object({
  sessions: z.array(
    z.object({
      id: z.string(),
      device: z.string(),
      createdAt: time,
      usedAt: time.nullable(),
      here: z.boolean(),
    }),
  ),
})
/** How many sessions were ended. */
export const endedAnswer = z.object({ ended: z.number().int() })
/** What an owner sees of the service itself. */
export const serviceAnswer = z.object({
  build: z.string(),
  since: time,
  /** Bytes; null where it is not known. */
  free: z.number().nullable(),
  room: z.enum(['enough', 'low', 'full']),
  backups: z.object({
    /** Where they are kept; null when none are made here. */
    folder: z.string().nullable(),
    kept: z.array(z.object({ name: z.string(), madeAt: time, bytes: z.number() })),
    /** Why the last try failed; null when it did not. */
    failed: z.string().nullable(),
    /** No backup within three days. */
    late: z.boolean(),
  }),
})
/** Whether a job can be handed over. */
export const readyAnswer = z.object({ ready: z.boolean() })
/** Where else in the firm an ID is used. */
export const usesAnswer = z.object({ uses: z.array(z.object({ serial: z.string(), job: z.string() })) })
/** What a device of a model was heard after, how often. */
export const helpedAnswer = z.object({
  helped: z.array(z.object({ model: z.string(), rung: z.enum(rungs), times: z.number().int() })),
})
/** Catalogue entries as written. */
export const entriesAnswer = z.object({ entries: z.array(writtenWire) })
const actWire = outer<CatalogueAct>(
  z.object({
    id: z.string(),
    kind: z.string(),
    entryId: z.string(),
    why: z.string(),
    by: z.string(),
    at: time,
  }),
)
const leafletWire = z.object({
  id: z.string(),
  /** Id of an entry, or `draft/` and the id of a draft. */
  about: z.string(),
  name: z.string(),
  type: z.enum(leafletTypes),
  bytes: z.number().int(),
  by: z.string(),
  at: time,
})
/** A leaflet as it was kept. */
export const leafletAnswer = z.object({ leaflet: leafletWire })
/** The catalogue: entries as written, what was said of them as a whole, oldest first, and their leaflets. */
export const catalogueAnswer = z.object({
  /** Changes with all else of it. */
  state: z.string(),
  entries: z.array(writtenWire),
  acts: z.array(actWire),
  leaflets: z.array(leafletWire),
})
/** Whether the catalogue moved. */
export const catalogueState = z.object({ state: z.string() })
/** What was said of an entry, as it was kept. */
export const catalogueActAnswer = z.object({ act: actWire })
/** The versions of an entry that were offered, the latest first. */
export const versionsAnswer = z.object({
  versions: z.array(
    z.object({
      hash: z.string(),
      /** Null, as `by` and `at`, where it was offered before that was written down. */
      how: z.enum(['published', 'pack', 'prices', 'list', 'shipped']).nullable(),
      by: z.string().nullable(),
      at: time.nullable(),
      why: z.string(),
    }),
  ),
  entries: z.array(writtenWire),
  /** Hash of the version that is offered now; null where there is none. */
  current: z.string().nullable(),
})
/** Where devices hang that are recalled, or may be. */
export const recallsAnswer = z.object({
  held: z.array(
    z.object({
      recall: z.string(),
      job: z.string(),
      name: z.string(),
      devices: z.array(
        z.object({
          device: z.string(),
          room: z.string(),
          position: z.string(),
          serial: z.string().nullable(),
          madeYear: z.number().int().nullable(),
          answer: z.enum(['yes', 'unknown']),
        }),
      ),
    }),
  ),
})
/** The house rules of a firm. */
export const rulesAnswer = z.object({ rules: houseRulesSchema, revision: z.number().int() })
/** What other house rules would change in open jobs. */
export const rulesPreview = z.object({
  jobs: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      come: z.array(z.string()),
      go: z.array(z.string()),
    }),
  ),
  judged: z.number().int(),
  more: z.boolean(),
})
/** What a list’s columns were taken for. */
export const columnsAnswer = z.object({ columns: z.record(z.string(), z.string()) })
/** What a pack brought. */
export const packAnswer = z.object({
  new: z.number(),
  changed: z.number(),
  same: z.number(),
  /** Entries of which one's own stays. */
  kept: z.number(),
  /** Entries that are kept beside one's own, under which ids. */
  renamed: z.array(z.object({ from: z.string(), to: z.string() })),
})
/** The words of a firm's key. */
export const packKeyAnswer = z.object({ words: z.string() })
/** How a pack is signed. */
export const packSignatureAnswer = z.object({
  /** Broken where it was changed after it was signed. */
  state: z.enum(['none', 'good', 'broken']),
  by: z.string().nullable(),
  /** The words of the key. */
  words: z.string().nullable(),
  /** Whether it is this firm's own key. */
  own: z.boolean(),
})
/** How a pack is signed. */
export type PackSignatureAnswer = z.infer<typeof packSignatureAnswer>
/** Drafts of catalogue entries, and what was published of them. */
export const draftList = z.object({
  drafts: z.array(
    z.object({
      id: z.string(),
      kind: z.string(),
      name: z.string(),
      corrects: z.string().nullable(),
      state: z.enum(['open', 'published', 'dropped']),
      entryId: z.string().nullable(),
      hash: z.string().nullable(),
      why: z.string(),
      revision: z.number().int(),
      changedBy: z.string(),
      changedAt: time,
    }),
  ),
})
/** A draft: journal entries, and whether it is at work. */
export const openedDraft = z.object({
  state: z.enum(['open', 'published', 'dropped']),
  entryId: z.string().nullable(),
  entries: z.array(outer<DraftJournalEntry>(z.object({ revision: z.number().int(), edit, takenAt: time }))),
})
/** The revision at which an edit of a draft stands. */
export const draftTaken = z.object({ revision: z.number().int() })
/** The entry that a draft became. */
export const publishedDraft = z.object({ entryId: z.string(), hash: z.string(), version: z.string() })
/** That it was done. */
export const okAnswer = z.object({ ok: z.literal(true) })
/** Whether the first person is still to be made. */
export const setupAnswer = z.object({ needed: z.boolean() })

/** What became of one edit. */
export type EditAnswer = z.infer<typeof editAnswer>
/** What became of sent edits. */
export type EditsAnswer = z.infer<typeof editsAnswer>
/** What one person can take back. */
export type UndoAnswer = z.infer<typeof undoAnswer>
/** A job as it is opened. */
export type OpenedJob = z.infer<typeof openedJob>
/** A job in a line of the list. */
export type JobSummary = z.infer<typeof jobSummary>
/** A listed job. */
export type ListedJob = z.infer<typeof listedJob>
/** The list of jobs. */
export type JobList = z.infer<typeof jobList>
/** The people of a firm. */
export type PeopleAnswer = z.infer<typeof peopleAnswer>
/** A link that works once. */
export type LinkAnswer = z.infer<typeof linkAnswer>
/** Where somebody is signed in. */
export type SessionsAnswer = z.infer<typeof sessionsAnswer>
/** How the service is: disk, backups, certificate. */
export type ServiceAnswer = z.infer<typeof serviceAnswer>
/** Who is signed in. */
export type AccountWire = z.infer<typeof accountWire>
/** Drafts of the firm. */
export type DraftList = z.infer<typeof draftList>
/** A draft as it is opened. */
export type OpenedDraft = z.infer<typeof openedDraft>
/** The entry that a draft became. */
export type PublishedDraft = z.infer<typeof publishedDraft>
/** What other house rules would change. */
export type RulesPreview = z.infer<typeof rulesPreview>
/** A leaflet without its content. */
export type LeafletWire = z.infer<typeof leafletWire>
/** A leaflet as it was kept. */
export type LeafletAnswer = z.infer<typeof leafletAnswer>
/** The catalogue of a firm, and how its entries stand. */
export type CatalogueAnswer = z.infer<typeof catalogueAnswer>
/** The versions of an entry that were offered. */
export type VersionsAnswer = z.infer<typeof versionsAnswer>
/** Where devices hang that are recalled, or may be. */
export type RecallsAnswer = z.infer<typeof recallsAnswer>
