import { EntitySchema } from 'typeorm'
import type { LeafletType } from '#core'
import { ascii, time, words } from './columns.ts'

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
/** How a version came to be offered. */
export type OfferedBy = 'published' | 'pack' | 'prices' | 'list' | 'shipped'
/** That a version of an entry came to be offered. */
export interface CatalogueVersionRow {
  firmId: string
  id: string
  entryId: string
  hash: string
  how: OfferedBy
  offeredBy: string
  offeredAt: Date
  why: string
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

/** A leaflet of an entry or a draft; its content lies in parts. */
export interface LeafletRow {
  firmId: string
  id: string
  /** Id of an entry, or `draft/` and the id of a draft. */
  about: string
  name: string
  type: LeafletType
  bytes: number
  /** SHA-256 of the content. */
  digest: string
  addedBy: string
  addedAt: Date
}
/** A part of a leaflet's content, as base64. */
export interface LeafletPartRow {
  firmId: string
  leafletId: string
  number: number
  content: string
}

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

/** Table of when which version came to be offered. */
export const CatalogueVersion = new EntitySchema<CatalogueVersionRow>({
  name: 'catalogue_version',
  columns: {
    firmId: ascii(36, { primary: true, name: 'firm_id' }),
    id: ascii(36, { primary: true }),
    entryId: ascii(80, { name: 'entry_id' }),
    hash: ascii(64),
    how: ascii(12),
    offeredBy: { ...words(80), name: 'offered_by' },
    offeredAt: time('offered_at'),
    why: words(300),
  },
  indices: [{ name: 'catalogue_version_entry', columns: ['firmId', 'entryId', 'offeredAt'] }],
  foreignKeys: [
    {
      target: 'firm',
      columnNames: ['firmId'],
      referencedColumnNames: ['id'],
      name: 'catalogue_version_firm',
    },
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

/** Table of leaflets. */
export const Leaflet = new EntitySchema<LeafletRow>({
  name: 'leaflet',
  columns: {
    firmId: ascii(36, { primary: true, name: 'firm_id' }),
    id: ascii(36, { primary: true }),
    about: ascii(80),
    name: words(120),
    type: ascii(40),
    bytes: { type: 'int', unsigned: true },
    digest: ascii(64),
    addedBy: { ...words(80), name: 'added_by' },
    addedAt: time('added_at'),
  },
  indices: [{ name: 'leaflet_once', columns: ['firmId', 'about', 'digest'], unique: true }],
  foreignKeys: [
    { target: 'firm', columnNames: ['firmId'], referencedColumnNames: ['id'], name: 'leaflet_firm' },
  ],
})

/** Table of the parts of leaflets. */
export const LeafletPart = new EntitySchema<LeafletPartRow>({
  name: 'leaflet_part',
  columns: {
    firmId: ascii(36, { primary: true, name: 'firm_id' }),
    leafletId: ascii(36, { primary: true, name: 'leaflet_id' }),
    number: { type: 'int', unsigned: true, primary: true },
    content: { type: 'mediumtext' },
  },
  foreignKeys: [
    {
      target: 'leaflet',
      columnNames: ['firmId', 'leafletId'],
      referencedColumnNames: ['firmId', 'id'],
      name: 'leaflet_part_of',
      onDelete: 'CASCADE',
    },
  ],
})
