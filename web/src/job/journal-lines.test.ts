import { describe, expect, it } from 'vitest'
import {
  blankTest,
  blankSignoff,
  blankState,
  freshEvidence,
  SCHEMA,
  UPGRADE,
  type JournalEntry,
  type Op,
} from '#core'
import { catalogue, learned, smallDoc } from '../testing/small-doc.ts'
import { journalLines, touches } from './journal-lines.ts'
import { opLines } from '../store/ops-words.ts'

const doc = smallDoc()
const entry = (ops: readonly Op[]): JournalEntry => ({
  revision: 1,
  takenAt: '2026-05-04T14:05:00Z',
  edit: {
    id: 'edit-0001',
    kind: 'zone.set',
    schema: SCHEMA,
    by: { id: 'p1', name: 'Nell' },
    madeAt: '2026-05-04T14:05:00Z',
    ops,
  },
})
const set = (id: string, field: string, from: unknown, to: unknown): Op => ({
  op: 'set',
  id,
  field,
  from,
  to,
})

describe('the journal in words', () => {
  it('names zone, field, former and new value as the panel calls them', () => {
    const lines = journalLines(
      doc,
      catalogue,
      entry([set('zone:one', 'response', 'instant', 'entry-1')]),
      null,
    )
    expect(lines).toEqual(['zone 07, response: Outer line → Way in, first delay'])
  })

  it('says nothing of the records that an upgrade touched', () => {
    const upgrade = entry([set('zone:one', 'label', 'a', 'b')])
    expect(
      journalLines(doc, catalogue, { ...upgrade, edit: { ...upgrade.edit, kind: UPGRADE } }, null),
    ).toEqual([])
  })

  it('reads empty fields, ticks and numbers', () => {
    const ops = [
      set('zone:one', 'label', '', 'Porch Door'),
      set('zone:one', 'transmissionDelay', false, true),
      set('zone:one', 'number', 6, 7),
      set('job:main', 'entry1', 30, null),
    ]
    expect(journalLines(doc, catalogue, entry(ops), null)).toEqual([
      'zone 07, label: empty → Porch Door',
      'zone 07, hold before sending: no → yes',
      'zone 07, number: 06 → 07',
      'the job, entry delay 1: 30 s → empty',
    ])
  })

  it('says of evidence what it was, of what, and how it came out', () => {
    const fresh = freshEvidence({ id: 'p1', name: 'Nell' }, '2026-05-04T14:05:00.000Z')
    const heard = Object.values(learned(doc, 'zone:one', '20417733').records).find(
      (item) => item.type === 'heard',
    )
    if (!heard) throw new Error('nothing heard')
    const test = {
      ...fresh,
      id: 'test:1',
      ...blankTest,
      subject: 'device:porch',
      of: null,
      kind: 'placement',
      outcome: 'fail',
      reading: 2,
      note: 'behind a shelf',
    } as const
    const signoff = { ...fresh, id: 'signoff:1', ...blankSignoff, what: 'read-back', note: '' } as const
    const state = {
      ...fresh,
      id: 'state:1',
      ...blankState,
      kind: 'sounder-off',
      about: 'device:porch',
      who: 'Nell',
      why: 'a baby sleeps',
      until: '2026-05-04T20:00:00Z',
    } as const
    const end = { ...fresh, id: 'state-end:1', type: 'state-end', state: state.id, kind: state.kind } as const
    const ops = [{ ...heard, family: 'family/wren' }, test, signoff, state, end].map((record): Op => ({
      op: 'add',
      record,
    }))
    expect(journalLines(doc, catalogue, entry(ops), null)).toEqual([
      'New: 2041 7733 for zone 07: accepted, heard',
      'New: placement reading of Reedling contact in porch: fail, 2, behind a shelf',
      'New: sign-off, read-back',
      'New: A keypad sounder is off (Reedling contact in porch): a baby sleeps',
      'New: end: A keypad sounder is off',
    ])
  })

  it('says what was added and removed, and leaves out pins', () => {
    const zone = doc.records['zone:one']
    const pin = doc.records['pin:device/reedling']
    if (!zone || !pin) throw new Error('the small job lacks its records')
    const ops: Op[] = [
      { op: 'remove', record: zone },
      { op: 'add', record: pin },
    ]
    expect(journalLines(doc, catalogue, entry(ops), null)).toEqual(['Removed: zone 07'])
    expect(opLines(doc, catalogue, [{ op: 'add', record: zone }])).toEqual([
      { what: 'New: zone 07', from: '', to: 'Porch Door · empty' },
    ])
  })

  it('shows one record’s own history', () => {
    const mixed = entry([set('zone:one', 'chime', false, true), set('job:main', 'exit', 60, 75)])
    const mine = new Set(['zone:one'])
    expect([touches(mixed, mine), touches(mixed, new Set(['zone:two']))]).toEqual([true, false])
    expect(journalLines(doc, catalogue, mixed, mine)).toEqual(['zone 07, chime: no → yes'])
  })
})
