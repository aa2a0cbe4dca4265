import { describe, expect, it } from 'vitest'
import { AHEAD_MS, OLDEST_MS, type Sender } from './authority.ts'
import { roles, type Role } from './roles.ts'
import {
  aBook,
  aLoan,
  anEdit,
  ann,
  aNotice,
  bob,
  kernel,
  type LibraryEdit,
  type LibraryOp,
} from './testing/shelf.ts'

const now = new Date('2026-05-04T12:00:00.000Z')
const sender = (role: Role): Sender => ({ id: 'ann', name: 'Ann', role })
const refused = (
  ops: readonly LibraryOp[],
  role: Role = 'installer',
  undone: LibraryEdit | null = null,
): string[] => kernel.authorityProblems(anEdit(ops), sender(role), undone).map((problem) => problem.message)
const add = (record: Extract<LibraryOp, { op: 'add' }>['record']): LibraryOp => ({ op: 'add', record })

describe('who may do what', () => {
  const motto = add({ id: 'desk:main', type: 'desk', motto: 'hush' })

  it('asks each op for the role that its type declares', () => {
    const may = (op: LibraryOp): Role[] => roles.filter((role) => refused([op], role).length === 0)
    expect(may(motto)).toEqual(['owner'])
    expect(may({ op: 'set', id: 'desk:main', field: 'motto', from: '', to: 'x' })).toEqual(['owner'])
    expect(may(add(aBook('one')))).toEqual(['installer', 'owner'])
    expect(may({ op: 'remove', record: aBook('one') })).toEqual(['installer', 'owner'])
    expect(may(add(aLoan('a')))).toEqual(['installer', 'owner'])
    expect(refused([motto], 'installer')).toEqual(['is a desk: only an owner of the firm may do this'])
    expect(refused([add(aBook('one'))], 'viewer')).toEqual([
      'is a book: only an installer or an owner of the firm may do this',
    ])
  })

  it('lets nobody add in another’s name', () => {
    expect(refused([add(aLoan('a', bob))])).toEqual(["must be Ann: nobody adds a loan in another's name"])
    expect(refused([add(aNotice('a', bob))])).toEqual(["must be Ann: nobody adds a notice in another's name"])
    expect(refused([add(aLoan('a', ann)), add(aNotice('a', ann))])).toEqual([])
    // A person renamed since is the same person; a namesake is not.
    expect(refused([add(aLoan('a', { id: 'ann', name: 'Ann of before' }))])).toEqual([])
    expect(refused([add(aLoan('a', { id: 'other', name: 'Ann' }))])).toHaveLength(1)
    // A page of an older build knows the name alone.
    expect(refused([add(aLoan('a', { id: null, name: 'Ann' }))])).toEqual([])
    expect(refused([add(aLoan('a', { id: null, name: 'Bob' }))])).toHaveLength(1)
  })

  it('lets nobody touch what the set does not know', () => {
    expect(
      kernel.authorityProblems(
        anEdit([
          add(aBook('one')),
          { op: 'set', id: 'x:1', field: 'a', from: 1, to: 2 },
          { op: 'add', record: { ...aBook('one'), type: 'x' as 'book' } },
        ]),
        sender('owner'),
        null,
      ),
    ).toEqual([
      { path: 'ops.1', message: 'names no known kind of record' },
      { path: 'ops.2', message: 'names no known kind of record' },
    ])
  })

  it('lets anybody who may change a named record take it out or change its text', () => {
    const notice = aNotice('a', bob)
    const says: LibraryOp = { op: 'set', id: 'notice:a', field: 'says', from: 'quiet', to: 'hush' }
    expect(refused([{ op: 'remove', record: notice }, says])).toEqual([])
    const removal = anEdit([{ op: 'remove', record: notice }, says])
    expect(
      kernel.stamped(removal, { who: sender('owner'), clocks: { now, behindMs: 60_000 }, undone: null }).ops,
    ).toEqual(removal.ops)
  })

  it('lets nobody say that something was told', () => {
    const loan = aLoan('a', ann)
    expect(refused([add({ ...loan, made: { ...loan.made, told: 'file' } })])).toHaveLength(1)
  })

  it('lets an undo put back what it took out, as it was', () => {
    const notice = aNotice('a', bob)
    const removal = anEdit([{ op: 'remove', record: notice }])
    expect(refused([add(notice)], 'installer', removal)).toEqual([])
    expect(refused([add({ ...notice, says: 'loud' })], 'installer', removal)).toHaveLength(1)
    const kept = kernel.stamped(anEdit([add(notice)]), {
      who: sender('owner'),
      clocks: { now, behindMs: 0 },
      undone: removal,
    })
    expect(kept.ops).toEqual([add(notice)])
    // What was taken out stands among other things; what was only added is not put back.
    const among = anEdit([
      { op: 'remove', record: aBook('one') },
      { op: 'remove', record: notice },
    ])
    expect(refused([add(notice)], 'installer', among)).toEqual([])
    expect(refused([add(notice)], 'installer', anEdit([add(notice)]))).toHaveLength(1)
  })
})

it('doubts a clock more than 30 days behind or 5 minutes ahead', () => {
  expect([OLDEST_MS, AHEAD_MS]).toEqual([2_592_000_000, 300_000])
})

describe('what the server writes', () => {
  const stampedLoan = (at: string, behindMs = 0) => {
    const edit = kernel.stamped(anEdit([add(aLoan('a', ann, at))]), {
      who: sender('owner'),
      clocks: { now, behindMs },
      undone: null,
    })
    const [op] = edit.ops
    if (op?.op !== 'add' || op.record.type !== 'loan') throw new Error('no loan')
    return op.record
  }

  it('is id, name and role as known here, and when it was taken', () => {
    expect(stampedLoan('2026-05-04T11:59:00.000Z').made).toEqual({
      id: 'ann',
      name: 'Ann',
      role: 'owner',
      takenAt: '2026-05-04T12:00:00.000Z',
      clockDoubtful: false,
      told: null,
    })
    const edit = kernel.stamped(anEdit([add(aBook('one'))], { by: { id: null, name: 'me' } }), {
      who: sender('installer'),
      clocks: { now, behindMs: 0 },
      undone: null,
    })
    expect(edit.by).toEqual({ id: 'ann', name: 'Ann' })
    expect(edit.ops).toEqual([add(aBook('one'))])
  })

  it('puts a device’s times right by how far its clock was off', () => {
    const loan = stampedLoan('2026-05-04T10:00:00.000Z', 3_600_000)
    expect([loan.at, loan.until]).toEqual(['2026-05-04T11:00:00.000Z', '2026-05-05T10:30:00.000Z'])
    expect(stampedLoan('2026-05-04T11:00:00Z').at).toBe('2026-05-04T11:00:00Z')
  })

  it.each([
    ['30 days back', -OLDEST_MS, false],
    ['a moment more', -OLDEST_MS - 1, true],
    ['5 minutes ahead', AHEAD_MS, false],
    ['a moment more ahead', AHEAD_MS + 1, true],
  ])('takes %s, doubtful: %s', (_words, offset, doubtful) => {
    const at = new Date(now.getTime() + offset).toISOString()
    expect(stampedLoan(at).made.clockDoubtful).toBe(doubtful)
  })
})

describe('what an owner hands in for somebody who left', () => {
  it('is the owner’s and says whose it was; what bears a name bears theirs, told, at its own time put right', () => {
    const plan = add(aBook('one'))
    const edit = anEdit([plan, add(aLoan('a', bob, '2026-05-04T10:00:00.000Z')), add(aNotice('n', bob))])
    const given = kernel.handedIn(edit, {
      owner: sender('owner'),
      maker: bob,
      clocks: { now, behindMs: 3_600_000 },
    })
    expect([given.by, given.madeFor, given.id]).toEqual([{ id: 'ann', name: 'Ann' }, bob, edit.id])
    expect(given.ops[0]).toEqual(plan)
    for (const op of given.ops.slice(1))
      expect(op).toMatchObject({
        record: { made: { ...bob, role: null, told: 'owner', takenAt: now.toISOString() } },
      })
    expect(given.ops[1]).toMatchObject({ record: { at: '2026-05-04T11:00:00.000Z' } })
  })

  it('is said of no edit by whoever sends it', () => {
    const edit = { ...anEdit([add(aBook('one'))]), madeFor: bob }
    expect(
      'madeFor' in kernel.stamped(edit, { who: sender('owner'), clocks: { now, behindMs: 0 }, undone: null }),
    ).toBe(false)
  })
})
