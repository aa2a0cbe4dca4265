import type { Role } from '#core'
import { EntitySchema } from 'typeorm'
import {
  CatalogueActs,
  CatalogueEntry,
  CatalogueVersion,
  Draft,
  DraftEdit,
  Leaflet,
  LeafletPart,
} from './catalogue-entities.ts'
import { ascii, time, words } from './columns.ts'

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
  CatalogueVersion,
  Draft,
  DraftEdit,
  Leaflet,
  LeafletPart,
  SigningKeys,
]
