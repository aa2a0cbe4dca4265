import { describe, expect, it } from 'vitest'
import type { Edit } from './edit.ts'
import { UPGRADE, type JournalEntry } from './journal.ts'
import { clearTray, openReplica, shelve, type Replica } from './replica.ts'
import {
  aBook,
  anEdit,
  bob,
  kernel,
  libraryWith,
  type LibraryEdit,
  type LibraryOp,
  type LibraryRecord,
} from './testing/shelf.ts'

const set = (field: string, from: unknown, to: unknown, id = 'book:one'): LibraryOp => ({
  op: 'set',
  id,
  field,
  from,
  to,
})
const edit = (id: string, ...ops: LibraryOp[]): LibraryEdit => anEdit(ops, { id })
const entry = (
  revision: number,
  edited: Edit<LibraryRecord>,
  over: Partial<LibraryEdit> = {},
): JournalEntry<LibraryRecord> => ({
  revision,
  edit: { ...edited, ...over },
  takenAt: '2026-01-01T00:00:00Z',
})
const opened = (): Replica<LibraryRecord> => openReplica(libraryWith(aBook('one')), 5)

function making(...edits: readonly LibraryEdit[]): Replica<LibraryRecord> {
  return edits.reduce((replica, each) => {
    const made = kernel.makeEdit(replica, each)
    if (!made.ok) throw new Error(made.conflict.code)
    return made.replica
  }, opened())
}

const titleOf = (replica: Replica<LibraryRecord>, id = 'book:one'): unknown =>
  (replica.shown.records[id] as { title?: string } | undefined)?.title
const pendingIds = (replica: Replica<LibraryRecord>): string[] => replica.pending.map((item) => item.edit.id)
const trayed = (replica: Replica<LibraryRecord>): string[] =>
  replica.tray.map(
    ({ edit: { id }, reason }) =>
      `${id}: ${reason.kind === 'conflict' ? reason.conflict.code : reason.problems.map((p) => p.message).join()}`,
  )

describe('what is made here', () => {
  it('shows at once, above a head that stays', () => {
    const replica = making(edit('mine-0001', set('title', 'hall', 'attic')))
    expect(titleOf(replica)).toBe('attic')
    expect(replica.head.records['book:one']).toEqual(aBook('one'))
    expect(replica.pending).toEqual([
      { edit: edit('mine-0001', set('title', 'hall', 'attic')), took: [set('title', 'hall', 'attic')] },
    ])
    expect(replica.revision).toBe(5)
  })

  it('is refused here when it does not apply', () => {
    expect(kernel.makeEdit(opened(), edit('mine-0001', set('title', 'cellar', 'attic')))).toEqual({
      ok: false,
      conflict: { code: 'changed', id: 'book:one', field: 'title', yours: 'attic', theirs: 'hall' },
    })
  })
})

describe('news', () => {
  it('goes below what waits', () => {
    const replica = kernel.takeNews(making(edit('mine-0001', set('title', 'hall', 'attic'))), [
      entry(6, edit('news-0001', set('pages', null, 12)), { by: bob }),
    ])
    expect(replica.shown.records['book:one']).toEqual(aBook('one', { title: 'attic', pages: 12 }))
    expect(replica.head.records['book:one']).toEqual(aBook('one', { pages: 12 }))
    expect([replica.revision, pendingIds(replica), replica.tray]).toEqual([6, ['mine-0001'], []])
  })

  it('that is what waited ends the waiting', () => {
    const mine = edit('mine-0001', set('title', 'hall', 'attic'))
    const later = edit('mine-0002', set('title', 'attic', 'loft'))
    const replica = kernel.takeNews(making(mine, later), [entry(6, mine)])
    expect([pendingIds(replica), titleOf(replica), replica.revision]).toEqual([['mine-0002'], 'loft', 6])
  })

  it('known already changes nothing, and ends the waiting of an edit whose answer was lost', () => {
    const mine = edit('mine-0001', set('title', 'hall', 'attic'))
    const replica = making(mine)
    expect(kernel.takeNews(replica, [entry(5, edit('other-001', set('pages', 3, 4)))])).toBe(replica)
    expect(kernel.takeNews(replica, [])).toBe(replica)
    expect(pendingIds(kernel.takeNews(replica, [entry(5, mine)]))).toEqual([])
  })

  it('with a gap, or that does not apply, throws: taking it would lose work', () => {
    const news = (revision: number, from: string) => [
      entry(revision, edit('news-0001', set('title', from, 'x'))),
    ]
    expect(() => kernel.takeNews(opened(), news(7, 'hall'))).toThrow('expected revision 6, got 7')
    expect(() => kernel.takeNews(opened(), news(6, 'cellar'))).toThrow('revision 6 does not apply')
  })

  it('of an upgrade counts its revision and says nothing new', () => {
    const upgrade = entry(
      6,
      edit('upgrade-1', { op: 'remove', record: aBook('never') }, { op: 'add', record: aBook('two') }),
      { kind: UPGRADE },
    )
    const replica = kernel.takeNews(opened(), [
      upgrade,
      entry(7, edit('news-0001', set('title', 'hall', 'loft'))),
    ])
    expect([replica.revision, titleOf(replica), titleOf(replica, 'book:two')]).toEqual([7, 'loft', undefined])
  })

  it('that another changed the same puts mine and what was built on it into the tray', () => {
    const replica = kernel.takeNews(
      making(
        edit('mine-0001', set('title', 'hall', 'attic')),
        edit('mine-0002', set('title', 'attic', 'loft')),
        edit('mine-0003', set('pages', null, 7)),
      ),
      [entry(6, edit('news-0001', set('title', 'hall', 'shed')), { by: bob })],
    )
    expect(trayed(replica)).toEqual(['mine-0001: changed', 'mine-0002: changed'])
    expect(pendingIds(replica)).toEqual(['mine-0003'])
    expect(replica.shown.records['book:one']).toEqual(aBook('one', { title: 'shed', pages: 7 }))
  })
})

describe('a refusal', () => {
  const why = { kind: 'invalid', problems: [{ path: 'title', message: 'is too long' }] } as const

  it('leaves what is shown, and takes along what was built on it', () => {
    const replica = kernel.takeRefusal(
      making(
        edit('mine-0001', { op: 'add', record: aBook('two') }),
        edit('mine-0002', set('title', 'hall', 'loft', 'book:two')),
        edit('mine-0003', set('title', 'hall', 'attic')),
      ),
      'mine-0001',
      why,
    )
    expect(trayed(replica)).toEqual(['mine-0001: is too long', 'mine-0002: gone'])
    expect([pendingIds(replica), titleOf(replica), titleOf(replica, 'book:two')]).toEqual([
      ['mine-0003'],
      'attic',
      undefined,
    ])
  })

  it('of what does not wait here changes nothing', () => {
    const replica = making(edit('mine-0001', set('title', 'hall', 'attic')))
    expect(kernel.takeRefusal(replica, 'other-001', why)).toBe(replica)
  })

  it('stands in the tray once, with its newest reason, until its maker decides', () => {
    const first = edit('mine-0001', set('title', 'hall', 'attic'))
    const second = edit('mine-0002', set('title', 'hall', 'loft'))
    const later = { kind: 'invalid', problems: [{ path: '', message: 'is still too long' }] } as const
    let replica = shelve(opened(), { edit: first, reason: why })
    replica = shelve(replica, { edit: second, reason: why })
    replica = shelve(replica, { edit: first, reason: later })
    expect(trayed(replica)).toEqual(['mine-0002: is too long', 'mine-0001: is still too long'])
    expect(trayed(clearTray(replica, 'mine-0002'))).toEqual(['mine-0001: is still too long'])
  })
})
