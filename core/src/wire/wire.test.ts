import { describe, expect, it } from 'vitest'
import type { z } from 'zod'
import * as wire from './wire.ts'

/* What goes over the line is taken as it is written down, and nothing else. */

const time = '2026-05-04T10:00:00.000Z'
const takes = (schema: z.ZodType, value: unknown): boolean => schema.safeParse(value).success

describe('sent edits', () => {
  const many = (count: number) => ({ edits: Array.from({ length: count }, () => ({})) })
  it.each([
    [0, false],
    [1, true],
    [100, true],
    [101, false],
  ])('%i at a time: %s', (count, right) => {
    expect(takes(wire.sentEdits, many(count))).toBe(right)
  })
  it('may say when they were sent, as a time', () => {
    expect(takes(wire.sentEdits, { ...many(1), sentAt: time })).toBe(true)
    expect(takes(wire.sentEdits, { ...many(1), sentAt: 'now' })).toBe(false)
  })
})

describe('the answer to an edit', () => {
  const answers = (...list: unknown[]) => takes(wire.editsAnswer, { answers: list, revision: 3 })
  const conflict = { id: 'zone:1', field: null, yours: 1, theirs: 2, who: null, when: null }
  it.each(['changed', 'gone', 'exists', 'reference'])('is a conflict of the kind %s', (code) => {
    expect(answers({ id: 'e1', outcome: 'conflict', conflict: { ...conflict, code } })).toBe(true)
  })
  it('is taken, invalid or held, and nothing else', () => {
    expect(
      answers({ id: 'e1', outcome: 'taken', revision: 4 }, { id: 'e2', outcome: 'held', schema: 17 }),
    ).toBe(true)
    expect(answers({ id: 'e1', outcome: 'invalid', problems: [{ path: 'a', message: 'b' }] })).toBe(true)
    expect(answers({ id: 'e1', outcome: 'conflict', conflict: { ...conflict, code: 'odd' } })).toBe(false)
    expect(answers({ id: 'e1', outcome: 'lost' })).toBe(false)
    expect(answers({ id: 'e1', outcome: 'taken', revision: 1.5 })).toBe(false)
  })
})

describe('edits in a journal', () => {
  const by = { id: null, name: 'Ann' }
  const edit = { id: 'edit-0001', kind: 'zone.number', schema: 16, by, madeAt: time }
  const page = (op: unknown) =>
    takes(wire.journalPage, { entries: [{ revision: 1, edit: { ...edit, ops: [op] }, takenAt: time }] })
  const record = { id: 'zone:1', type: 'zone' }
  it('add, remove and set', () => {
    expect(page({ op: 'add', record })).toBe(true)
    expect(page({ op: 'remove', record })).toBe(true)
    expect(page({ op: 'set', id: 'zone:1', field: 'number', from: 1, to: 2 })).toBe(true)
  })
  it('do nothing else', () => {
    expect(page({ op: 'move', record })).toBe(false)
    expect(page({ op: 'add', record: { id: 'zone:1' } })).toBe(false)
    expect(page({ op: 'set', field: 'number', from: 1, to: 2 })).toBe(false)
  })
})

/** An answer that is right, and for each place where one of a few words stands the words that it may be. */
const words: readonly [string, z.ZodType, (word: string) => unknown, readonly string[]][] = [
  [
    'a link that works once',
    wire.linkAnswer,
    (kind) => ({ kind, firm: null, name: 'Ann', role: 'owner' }),
    ['set-up', 'invite', 'password'],
  ],
  [
    'room on the disk',
    wire.serviceAnswer,
    (room) => ({
      ...{ build: 'b', since: time, free: null, room },
      backups: { folder: null, kept: [], failed: null, late: false },
    }),
    ['enough', 'low', 'full'],
  ],
  [
    'how a version came',
    wire.versionsAnswer,
    (how) => ({ versions: [{ hash: 'h', how, by: null, at: null, why: '' }], entries: [], current: null }),
    ['published', 'pack', 'prices', 'list', 'shipped'],
  ],
  [
    'a device that is recalled',
    wire.recallsAnswer,
    (answer) => ({
      held: [
        {
          ...{ recall: 'r', job: 'j', name: 'n' },
          devices: [{ device: 'd', room: '', position: '', serial: null, madeYear: null, answer }],
        },
      ],
    }),
    ['yes', 'unknown'],
  ],
  [
    'how a pack is signed',
    wire.packSignatureAnswer,
    (state) => ({ state, by: null, words: null, own: false }),
    ['none', 'good', 'broken'],
  ],
  [
    'a draft in the list',
    wire.draftList,
    (state) => ({
      drafts: [
        {
          ...{ id: 'd', kind: 'device', name: '', corrects: null, state, entryId: null, hash: null, why: '' },
          ...{ revision: 1, changedBy: 'Ann', changedAt: time },
        },
      ],
    }),
    ['open', 'published', 'dropped'],
  ],
  [
    'a draft as it is opened',
    wire.openedDraft,
    (state) => ({ state, entryId: null, entries: [] }),
    ['open', 'published', 'dropped'],
  ],
]

describe.each(words)('%s', (_, schema, answer, allowed) => {
  it.each(allowed)('is %s', (word) => {
    expect(takes(schema, answer(word))).toBe(true)
  })
  it('is no other word', () => {
    expect(takes(schema, answer('odd'))).toBe(false)
    expect(takes(schema, answer(''))).toBe(false)
  })
})

it('says of what was done only that it was', () => {
  expect([takes(wire.okAnswer, { ok: true }), takes(wire.okAnswer, { ok: false })]).toEqual([true, false])
})
