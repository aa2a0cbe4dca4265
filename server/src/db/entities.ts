import type { Role } from '#core'
import { EntitySchema, type EntitySchemaColumnOptions } from 'typeorm'

/** A firm. */
export interface FirmRow {
  id: string
  name: string
  settings: string
  /** Counts the changes of the house rules: what a summary was made by. */
  rulesRevision: number
  createdAt: Date
}
/** The pair of keys by which a firm signs packs. */
export interface SigningKeyRow {
  firmId: string
  publicKey: string
  privateKey: string
  madeAt: Date
}

/** A person of a firm. */
export interface PersonRow {
  id: string
  firmId: string
  login: string
  name: string
  role: Role
  password: string
  /** What an owner gave besides the role, as `catalogue,rules`. */
  rights: string
  /** When the person left the firm; the name stays. */
  removedAt: Date | null
  createdAt: Date
}
/** A session; its token is kept hashed. */
export interface SessionRow {
  tokenHash: string
  personId: string
  /** What the session was begun with, as its browser names itself. */
  device: string
  createdAt: Date
  /** When it was last used, to the minute or so. */
  usedAt: Date | null
  expiresAt: Date
}
/** What a link that works once is for. */
export type LinkKind = 'set-up' | 'invite' | 'password'
/** A link that works once, hashed. */
export interface LinkRow {
  tokenHash: string
  kind: LinkKind
  /** The firm that it leads into; null for the first set-up of all. */
  firmId: string | null
  /** Whose new password it allows. */
  personId: string | null
  /** Of an invitation: the role that it gives and a word on whom it is for. */
  role: Role
  name: string
  createdAt: Date
  expiresAt: Date
}
/** A failed sign-in. */
export interface AttemptRow {
  /** Hash of what failed attempts are counted by. */
  keyHash: string
  failures: number
  changedAt: Date
}
/** The head of a job; its document lies in snapshots and journal. */
export interface JobRow {
  firmId: string
  id: string
  revision: number
  name: string
  address: string
  practice: boolean
  summary: string
  summaryRevision: number
  /** The house rules, the build and the moment that the summary holds for. */
  summaryRules: number
  summaryBuild: string
  summaryDue: Date | null
  /** Until when a process has taken it on to sum this job up. */
  claimedUntil: Date | null
  createdAt: Date
  changedAt: Date
}
/** A document at a revision. */
export interface JobSnapshotRow {
  firmId: string
  jobId: string
  revision: number
  document: string
}
/** A journal entry. */
export interface JobEditRow {
  firmId: string
  jobId: string
  revision: number
  editId: string
  kind: string
  madeBy: string
  /** Id of the person; null for entries of builds that kept the name alone, and for the server's own. */
  madeById: string | null
  takenAt: Date
  body: string
}
/** Where an ID is used. */
export interface TransmitterRow {
  firmId: string
  jobId: string
  serial: string
}
/** A catalogue entry ever offered, by its hash. */
export interface CatalogueEntryRow {
  firmId: string
  hash: string
  entryId: string
  current: boolean
  /** Number of the pack form it was written in. */
  form: number
  body: string
}
/** What was said of an entry as a whole. */
export interface CatalogueActRow {
  firmId: string
  id: string
  entryId: string
  kind: string
  saidBy: string
  saidAt: Date
  body: string
}
/** A draft of an entry; its document lies in its journal. */
export interface DraftRow {
  firmId: string
  id: string
  revision: number
  kind: string
  name: string
  /** The entry that it corrects; null for a new one. */
  corrects: string | null
  /** `open`, `published` or `dropped`. */
  state: 'open' | 'published' | 'dropped'
  /** The entry that it became. */
  entryId: string | null
  hash: string | null
  /** Why it was published, in the publisher's words. */
  why: string
  changedBy: string
  createdAt: Date
  changedAt: Date
}
/** A journal entry of a draft. */
export interface DraftEditRow {
  firmId: string
  draftId: string
  revision: number
  editId: string
  takenAt: Date
  body: string
}

const ascii = (
  length: number,
  extra: Partial<EntitySchemaColumnOptions> = {},
): EntitySchemaColumnOptions => ({
  type: 'varchar',
  length,
  charset: 'ascii',
  collation: 'ascii_bin',
  ...extra,
})
const words = (length: number): EntitySchemaColumnOptions => ({ type: 'varchar', length })
const time = (name: string): EntitySchemaColumnOptions => ({ type: 'datetime', precision: 3, name })

/** Table of firms. */
export const Firm = new EntitySchema<FirmRow>({
  name: 'firm',
  columns: {
    id: ascii(36, { primary: true }),
    name: words(120),
    settings: { type: 'longtext' },
    rulesRevision: { type: 'int', unsigned: true, name: 'rules_revision', default: 0 },
    createdAt: time('created_at'),
  },
})

/** Table of people. */
export const Person = new EntitySchema<PersonRow>({
  name: 'person',
  columns: {
    id: ascii(36, { primary: true }),
    firmId: ascii(36, { name: 'firm_id' }),
    login: words(80),
    name: words(80),
    role: ascii(12),
    password: ascii(200),
    rights: ascii(60, { default: "''" }),
    removedAt: { ...time('removed_at'), nullable: true },
    createdAt: time('created_at'),
  },
  indices: [
    { name: 'person_login', columns: ['login'], unique: true },
    { name: 'person_name', columns: ['firmId', 'name'], unique: true },
  ],
  foreignKeys: [
    { target: 'firm', columnNames: ['firmId'], referencedColumnNames: ['id'], name: 'person_firm' },
  ],
})

/** Table of sessions. */
export const Session = new EntitySchema<SessionRow>({
  name: 'session',
  columns: {
    tokenHash: ascii(64, { primary: true, name: 'token_hash' }),
    personId: ascii(36, { name: 'person_id' }),
    device: { ...words(200), default: "''" },
    createdAt: time('created_at'),
    usedAt: { ...time('used_at'), nullable: true },
    expiresAt: time('expires_at'),
  },
  indices: [{ name: 'session_person', columns: ['personId'] }],
  foreignKeys: [
    {
      target: 'person',
      columnNames: ['personId'],
      referencedColumnNames: ['id'],
      name: 'session_person_key',
      onDelete: 'CASCADE',
    },
  ],
})

/** Table of links. */
export const Link = new EntitySchema<LinkRow>({
  name: 'link',
  columns: {
    tokenHash: ascii(64, { primary: true, name: 'token_hash' }),
    kind: ascii(12),
    firmId: ascii(36, { name: 'firm_id', nullable: true }),
    personId: ascii(36, { name: 'person_id', nullable: true }),
    role: ascii(12),
    name: words(80),
    createdAt: time('created_at'),
    expiresAt: time('expires_at'),
  },
  indices: [
    { name: 'link_firm', columns: ['firmId'] },
    { name: 'link_person', columns: ['personId'] },
  ],
  foreignKeys: [
    {
      target: 'firm',
      columnNames: ['firmId'],
      referencedColumnNames: ['id'],
      name: 'link_firm_key',
      onDelete: 'CASCADE',
    },
    {
      target: 'person',
      columnNames: ['personId'],
      referencedColumnNames: ['id'],
      name: 'link_person_key',
      onDelete: 'CASCADE',
    },
  ],
})

/** Table of failed sign-ins. */
export const Attempt = new EntitySchema<AttemptRow>({
  name: 'attempt',
  columns: {
    keyHash: ascii(64, { primary: true, name: 'key_hash' }),
    failures: { type: 'int', unsigned: true },
    changedAt: time('changed_at'),
  },
})

/** Table of job heads. */
export const Job = new EntitySchema<JobRow>({
  name: 'job',
  columns: {
    firmId: ascii(36, { primary: true, name: 'firm_id' }),
    id: ascii(36, { primary: true }),
    revision: { type: 'int', unsigned: true },
    name: words(120),
    address: words(200),
    practice: { type: 'boolean', default: false },
    summary: { type: 'longtext' },
    summaryRevision: { type: 'int', unsigned: true, name: 'summary_revision' },
    summaryRules: { type: 'int', unsigned: true, name: 'summary_rules', default: 0 },
    summaryBuild: ascii(60, { name: 'summary_build', default: "''" }),
    summaryDue: { ...time('summary_due'), nullable: true },
    claimedUntil: { ...time('claimed_until'), nullable: true },
    createdAt: time('created_at'),
    changedAt: time('changed_at'),
  },
  indices: [{ name: 'job_changed', columns: ['firmId', 'changedAt'] }],
  foreignKeys: [{ target: 'firm', columnNames: ['firmId'], referencedColumnNames: ['id'], name: 'job_firm' }],
})

const ofJob = (name: string) => ({
  target: 'job',
  columnNames: ['firmId', 'jobId'],
  referencedColumnNames: ['firmId', 'id'],
  name,
})

/** Table of documents. */
export const JobSnapshot = new EntitySchema<JobSnapshotRow>({
  name: 'job_snapshot',
  columns: {
    firmId: ascii(36, { primary: true, name: 'firm_id' }),
    jobId: ascii(36, { primary: true, name: 'job_id' }),
    revision: { type: 'int', unsigned: true, primary: true },
    document: { type: 'longtext' },
  },
  foreignKeys: [ofJob('job_snapshot_job')],
})

/** Table of journal entries. */
export const JobEdit = new EntitySchema<JobEditRow>({
  name: 'job_edit',
  columns: {
    firmId: ascii(36, { primary: true, name: 'firm_id' }),
    jobId: ascii(36, { primary: true, name: 'job_id' }),
    revision: { type: 'int', unsigned: true, primary: true },
    editId: ascii(40, { name: 'edit_id' }),
    kind: ascii(60),
    madeBy: { ...words(80), name: 'made_by' },
    madeById: ascii(36, { name: 'made_by_id', nullable: true }),
    takenAt: time('taken_at'),
    body: { type: 'longtext' },
  },
  indices: [{ name: 'job_edit_once', columns: ['firmId', 'jobId', 'editId'], unique: true }],
  foreignKeys: [ofJob('job_edit_job')],
})

/** Table of IDs. */
export const Transmitter = new EntitySchema<TransmitterRow>({
  name: 'transmitter',
  columns: {
    firmId: ascii(36, { primary: true, name: 'firm_id' }),
    serial: ascii(40, { primary: true }),
    jobId: ascii(36, { primary: true, name: 'job_id' }),
  },
  indices: [{ name: 'transmitter_job', columns: ['firmId', 'jobId'] }],
  foreignKeys: [ofJob('transmitter_job_key')],
})

/** Table of catalogue entries. */
export const CatalogueEntry = new EntitySchema<CatalogueEntryRow>({
  name: 'catalogue_entry',
  columns: {
    firmId: ascii(36, { primary: true, name: 'firm_id' }),
    hash: ascii(64, { primary: true }),
    entryId: ascii(80, { name: 'entry_id' }),
    current: { type: 'boolean' },
    form: { type: 'int', unsigned: true, default: 1 },
    body: { type: 'longtext' },
  },
  indices: [{ name: 'catalogue_entry_id', columns: ['firmId', 'entryId'] }],
  foreignKeys: [
    { target: 'firm', columnNames: ['firmId'], referencedColumnNames: ['id'], name: 'catalogue_entry_firm' },
  ],
})

/** Table of what was said of entries as a whole. */
export const CatalogueActs = new EntitySchema<CatalogueActRow>({
  name: 'catalogue_act',
  columns: {
    firmId: ascii(36, { primary: true, name: 'firm_id' }),
    id: ascii(36, { primary: true }),
    entryId: ascii(80, { name: 'entry_id' }),
    kind: ascii(12),
    saidBy: { ...words(80), name: 'said_by' },
    saidAt: time('said_at'),
    body: { type: 'text' },
  },
  indices: [{ name: 'catalogue_act_said', columns: ['firmId', 'saidAt'] }],
  foreignKeys: [
    { target: 'firm', columnNames: ['firmId'], referencedColumnNames: ['id'], name: 'catalogue_act_firm' },
  ],
})

/** Table of drafts. */
export const Draft = new EntitySchema<DraftRow>({
  name: 'draft',
  columns: {
    firmId: ascii(36, { primary: true, name: 'firm_id' }),
    id: ascii(36, { primary: true }),
    revision: { type: 'int', unsigned: true },
    kind: ascii(12),
    name: words(120),
    corrects: ascii(80, { nullable: true }),
    state: ascii(12),
    entryId: ascii(80, { name: 'entry_id', nullable: true }),
    hash: ascii(64, { nullable: true }),
    why: words(300),
    changedBy: { ...words(80), name: 'changed_by' },
    createdAt: time('created_at'),
    changedAt: time('changed_at'),
  },
  indices: [{ name: 'draft_changed', columns: ['firmId', 'changedAt'] }],
  foreignKeys: [
    { target: 'firm', columnNames: ['firmId'], referencedColumnNames: ['id'], name: 'draft_firm' },
  ],
})

/** Table of journal entries of drafts. */
export const DraftEdit = new EntitySchema<DraftEditRow>({
  name: 'draft_edit',
  columns: {
    firmId: ascii(36, { primary: true, name: 'firm_id' }),
    draftId: ascii(36, { primary: true, name: 'draft_id' }),
    revision: { type: 'int', unsigned: true, primary: true },
    editId: ascii(40, { name: 'edit_id' }),
    takenAt: time('taken_at'),
    body: { type: 'longtext' },
  },
  indices: [{ name: 'draft_edit_once', columns: ['firmId', 'draftId', 'editId'], unique: true }],
  foreignKeys: [
    {
      target: 'draft',
      columnNames: ['firmId', 'draftId'],
      referencedColumnNames: ['firmId', 'id'],
      name: 'draft_edit_draft',
    },
  ],
})

/** Table of the keys by which firms sign packs; no backup has them. */
export const SigningKeys = new EntitySchema<SigningKeyRow>({
  name: 'signing_key',
  columns: {
    firmId: ascii(36, { primary: true, name: 'firm_id' }),
    publicKey: ascii(44, { name: 'public_key' }),
    privateKey: ascii(200, { name: 'private_key' }),
    madeAt: time('made_at'),
  },
  foreignKeys: [
    { target: 'firm', columnNames: ['firmId'], referencedColumnNames: ['id'], name: 'signing_key_firm' },
  ],
})

/** Every table of the product. */
export const entities = [
  Firm,
  Person,
  Session,
  Link,
  Attempt,
  Job,
  JobSnapshot,
  JobEdit,
  Transmitter,
  CatalogueEntry,
  CatalogueActs,
  Draft,
  DraftEdit,
  SigningKeys,
]
