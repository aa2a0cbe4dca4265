import { describe, expect, it } from 'vitest'
import { emptyDocument, recordOf, type JobDocument } from './document.ts'
import { applyOps, readEdit, type Edit, type Op } from './edit.ts'
import { lastTouch, planUndo, replay, undoState, type JournalEntry } from './journal.ts'
import { aDevice, aJob } from './testing/records.ts'
import { upgradeDocument, upgradeEdit, type Upgrade } from './upgrades.ts'

const set = (field: string, from: unknown, to: unknown): Op => ({
  op: 'set',
  id: 'device:one',
  field,
  from,
  to,
})

class Book {
  doc: JobDocument = emptyDocument
  readonly entries: JournalEntry[] = []

  constructor() {
    this.write('ann', [
      { op: 'add', record: aJob() },
      ...aDevice.pins(),
      { op: 'add', record: aDevice('one') },
    ])
  }

  write(by: string, ops: readonly Op[], extra: Partial<Edit> = {}): JournalEntry {
    const result = applyOps(this.doc, ops)
    if (!result.ok) throw new Error(result.conflict.code)
    this.doc = result.doc
    const revision = this.entries.length + 1
    const edit: Edit = {
      id: `edit-${revision}`,
      kind: 'x.y',
      schema: 1,
      by,
      madeAt: '2026-01-01T00:00:00Z',
      ops: result.took,
      ...extra,
    }
    const entry = { revision, edit, takenAt: edit.madeAt }
    this.entries.push(entry)
    return entry
  }

  undo(by: string): void {
    const entry = undoState(this.entries, by).undo
    if (entry) this.write(by, planUndo(this.doc, entry).ops, { kind: 'undo', undoes: entry.edit.id })
  }

  redo(by: string): void {
    const entry = undoState(this.entries, by).redo
    if (entry) this.write(by, planUndo(this.doc, entry).ops, { kind: 'redo', redoes: entry.edit.id })
  }

  get device() {
    return recordOf(this.doc, 'device', 'device:one')
  }
}

describe('undo', () => {
  it("takes back mine and leaves a colleague's", () => {
    const book = new Book()
    book.write('ann', [set('room', 'hall', 'attic')])
    book.write('bob', [set('position', '', 'door')])
    book.undo('ann')
    expect(book.device).toMatchObject({ room: 'hall', position: 'door' })
  })

  it('offers what is left when a colleague changed part', () => {
    const book = new Book()
    const mine = book.write('ann', [set('room', 'hall', 'attic'), set('position', '', 'door')])
    book.write('bob', [set('room', 'attic', 'loft')])
    const plan = planUndo(book.doc, mine)
    expect(plan.ops).toEqual([set('position', 'door', '')])
    expect(plan.conflicts).toEqual([
      { code: 'changed', id: 'device:one', field: 'room', yours: 'hall', theirs: 'loft' },
    ])
    expect(lastTouch(book.entries, 'device:one', 'room')?.edit.by).toBe('bob')
  })

  it('goes back step by step and forth again', () => {
    const book = new Book()
    book.write('ann', [set('room', 'hall', 'attic')])
    book.write('ann', [set('room', 'attic', 'loft')])
    book.undo('ann')
    book.undo('ann')
    expect(book.device?.room).toBe('hall')
    book.redo('ann')
    expect(book.device?.room).toBe('attic')
    book.redo('ann')
    expect(book.device?.room).toBe('loft')
    expect(undoState(book.entries, 'ann').redo).toBeNull()
    book.undo('ann')
    expect(book.device?.room).toBe('attic')
  })

  it('forgets the way forth after another edit', () => {
    const book = new Book()
    book.write('ann', [set('room', 'hall', 'attic')])
    book.undo('ann')
    book.write('ann', [set('position', '', 'door')])
    expect(undoState(book.entries, 'ann').redo).toBeNull()
  })

  it('passes over evidence', () => {
    const book = new Book()
    const mine = book.write('ann', [set('room', 'hall', 'attic')])
    const record = {
      id: 'signoff:a',
      type: 'signoff',
      what: 'codes',
      by: 'ann',
      at: '2026-01-01T00:00:00Z',
      note: '',
    } as const
    book.write('ann', [{ op: 'add', record }])
    expect(undoState(book.entries, 'ann').undo).toBe(mine)
  })

  it('replays to the same document', () => {
    const book = new Book()
    book.write('ann', [set('room', 'hall', 'attic')])
    book.undo('ann')
    expect(replay(book.entries)).toEqual(book.doc)
    expect(() => replay(book.entries.slice(1))).toThrow('revision 2 does not apply')
  })
})

describe('upgrades', () => {
  const addLoft: Upgrade = (record) => (record.type === 'device' ? { ...record, loft: false } : { ...record })
  const nameShed: Upgrade = (record) =>
    record.type === 'device' ? { ...record, shed: record.loft } : { ...record }

  it('runs each step once, from the shape it was written in', () => {
    const records = { 'device:one': aDevice('one') }
    expect(upgradeDocument({ schema: 1, records }, [addLoft, nameShed], 3)).toMatchObject({
      ok: true,
      value: { schema: 3, records: { 'device:one': { loft: false, shed: false, room: 'hall' } } },
    })
    const later = { 'device:one': { ...aDevice('one'), loft: true } }
    expect(upgradeDocument({ schema: 2, records: later }, [addLoft, nameShed], 3)).toMatchObject({
      value: { records: { 'device:one': { loft: true, shed: true } } },
    })
  })

  it('upgrades the records an edit carries', () => {
    const edit: Edit = {
      id: 'edit-0001',
      kind: 'x.y',
      schema: 1,
      by: 'ann',
      madeAt: '',
      ops: [{ op: 'add', record: aDevice('one') }],
    }
    expect(upgradeEdit(edit, [addLoft], 2)).toMatchObject({
      value: { schema: 2, ops: [{ record: { loft: false } }] },
    })
  })

  it('brings a device of shape 1 the facts of a takeover, not yet known', () => {
    const { plan: _plan, madeYear: _made, batteryAt: _battery, ...old } = aDevice('one', { room: 'attic' })
    const result = upgradeDocument({ schema: 1, records: { 'device:one': old, 'job:main': aJob() } })
    expect(result).toEqual({
      ok: true,
      value: {
        schema: 3,
        records: {
          'device:one': aDevice('one', { room: 'attic' }),
          'job:main': aJob(),
        },
      },
    })
  })

  it('takes an edit of shape 1 from a page that was not reloaded', () => {
    const { plan: _plan, madeYear: _made, batteryAt: _battery, ...old } = aDevice('one')
    const read = readEdit({
      id: 'edit-0001',
      kind: 'x.y',
      schema: 1,
      by: 'ann',
      madeAt: '2026-05-04T09:30:00Z',
      ops: [{ op: 'add', record: old }],
    })
    expect(read).toMatchObject({ ok: true, edit: { schema: 3, ops: [{ record: { plan: null } }] } })
  })

  it('refuses what a newer version wrote', () => {
    const result = upgradeDocument({ schema: 9, records: {} })
    expect(!result.ok && result.reason).toContain(
      'newer version of Kapelle (shape 9; this one reads up to 3)',
    )
  })
})
