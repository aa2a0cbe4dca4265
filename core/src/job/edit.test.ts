import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { emptyDocument, recordsOf, type JobDocument } from './document.ts'
import { applyOps, invertOps, readEdit, type Op } from './edit.ts'
import { aDevice, aJob } from './testing/records.ts'

function docWith(...ops: Op[]): JobDocument {
  const result = applyOps(emptyDocument, [{ op: 'add', record: aJob() }, ...aDevice.pins(), ...ops])
  if (!result.ok) throw new Error(JSON.stringify(result.conflict))
  return result.doc
}

const one = aDevice('one', { room: 'hall' })
const rooms = (from: string, to: string): Op => ({ op: 'set', id: 'device:one', field: 'room', from, to })
const anEdit = (ops: unknown) => ({
  id: 'edit-0001',
  kind: 'device.set',
  schema: 1,
  by: 'Ann',
  madeAt: '2026-01-01T00:00:00Z',
  ops,
})

describe('applying ops', () => {
  const doc = docWith({ op: 'add', record: one })

  it('sets a value that is still what the maker saw', () => {
    const result = applyOps(doc, [rooms('hall', 'attic')])
    expect(result.ok && recordsOf(result.doc, 'device')[0]?.room).toBe('attic')
  })

  it('leaves a value that is already wanted', () => {
    const result = applyOps(doc, [rooms('cellar', 'hall')])
    expect(result).toEqual({ ok: true, doc, took: [] })
    expect(result.ok && result.doc).toBe(doc)
  })

  it('names both values where another stands', () => {
    expect(applyOps(doc, [rooms('cellar', 'attic')])).toEqual({
      ok: false,
      conflict: { code: 'changed', id: 'device:one', field: 'room', yours: 'attic', theirs: 'hall' },
    })
  })

  it('refuses the whole edit for one conflict', () => {
    const result = applyOps(doc, [
      rooms('hall', 'attic'),
      { op: 'set', id: 'device:two', field: 'room', from: '', to: 'x' },
    ])
    expect(result).toMatchObject({ ok: false, conflict: { code: 'gone', id: 'device:two' } })
    expect(recordsOf(doc, 'device')[0]?.room).toBe('hall')
  })

  it('refuses an add under a taken id', () => {
    expect(applyOps(doc, [{ op: 'add', record: aDevice('one', { room: 'loft' }) }])).toMatchObject({
      conflict: { code: 'exists' },
    })
    expect(applyOps(doc, [{ op: 'add', record: one }])).toMatchObject({ ok: true, took: [] })
  })

  it('removes a record only as last seen', () => {
    expect(applyOps(doc, [{ op: 'remove', record: aDevice('one', { room: 'loft' }) }])).toMatchObject({
      conflict: { code: 'changed', field: 'room', theirs: 'hall' },
    })
    const gone = applyOps(doc, [{ op: 'remove', record: one }])
    expect(gone.ok && recordsOf(gone.doc, 'device')).toEqual([])
  })

  it('keeps references whole both ways', () => {
    const unpinned = aDevice('two', { model: 'device/other' })
    expect(applyOps(doc, [{ op: 'add', record: unpinned }])).toMatchObject({
      conflict: { code: 'reference', field: 'model' },
    })
    const pin = doc.records['pin:device/any']
    expect(pin && applyOps(doc, [{ op: 'remove', record: pin }])).toMatchObject({
      conflict: { code: 'reference', id: 'pin:device/any', theirs: 'device:one' },
    })
  })

  it('is undone exactly by the inverse of what it took', () => {
    const room = fc.constantFrom('hall', 'attic', 'loft', 'shed')
    const key = fc.constantFrom('one', 'two', 'three')
    const op: fc.Arbitrary<Op> = fc.oneof(
      fc.record({
        op: fc.constant('add' as const),
        record: fc.tuple(key, room).map(([k, r]) => aDevice(k, { room: r })),
      }),
      fc.record({
        op: fc.constant('remove' as const),
        record: fc.tuple(key, room).map(([k, r]) => aDevice(k, { room: r })),
      }),
      fc.record({
        op: fc.constant('set' as const),
        id: key.map((k) => `device:${k}`),
        field: fc.constant('room'),
        from: room,
        to: room,
      }),
    )
    let taken = 0
    fc.assert(
      fc.property(fc.array(op, { minLength: 1, maxLength: 6 }), (ops) => {
        const forth = applyOps(doc, ops)
        if (!forth.ok) return
        const back = applyOps(forth.doc, invertOps(forth.took))
        taken += forth.took.length
        expect(back.ok && back.doc.records).toEqual(doc.records)
      }),
      { seed: 7, numRuns: 500 },
    )
    expect(taken).toBeGreaterThan(50)
  })
})

describe('reading an edit from outside', () => {
  const problems = (input: unknown) => {
    const result = readEdit(input)
    return result.ok ? [] : result.problems.map((p) => `${p.path}: ${p.message}`)
  }

  it('takes a right one', () => {
    expect(problems(anEdit([rooms('hall', 'attic'), { op: 'add', record: one }]))).toEqual([])
  })

  it.each([
    [
      'a zone number 0',
      { op: 'set', id: 'zone:a', field: 'number', from: 1, to: 0 },
      'number: must be a whole number from 1 to 999',
    ],
    [
      'a zone number 9999',
      { op: 'set', id: 'zone:a', field: 'number', from: 1, to: 9999 },
      'number: must be a whole number from 1 to 999',
    ],
    [
      'a number as text',
      { op: 'set', id: 'zone:a', field: 'number', from: 1, to: '7' },
      'number: must be a whole number from 1 to 999',
    ],
    [
      'a grade of 7',
      { op: 'set', id: 'job:main', field: 'grade', from: 1, to: 7 },
      'grade: must be grade 1, 2 or 3',
    ],
    [
      'an unknown field',
      { op: 'set', id: 'zone:a', field: 'colour', from: 1, to: 2 },
      'colour: is no field of a zone that can be set',
    ],
    [
      'the id itself',
      { op: 'set', id: 'zone:a', field: 'id', from: 'zone:a', to: 'zone:b' },
      'id: is no field of a zone that can be set',
    ],
    [
      'an empty name',
      { op: 'set', id: 'job:main', field: 'name', from: 'x', to: ' ' },
      'name: must not be empty',
    ],
    [
      'a changed result',
      { op: 'set', id: 'test:a', field: 'outcome', from: 'fail', to: 'pass' },
      'ops.0: a test record is evidence: it is corrected by a later one, never changed',
    ],
    [
      'an unknown type',
      { op: 'add', record: { id: 'x:1', type: 'x' } },
      'ops.0.record: has type "x"; known types are job, pin, area, receiver, device, zone, terminal, user, heard, test, state, state-end, signoff, room, way, opening, sight, serves, departure, fixed-rules, waiver, waiver-end',
    ],
    [
      'an odd id',
      { op: 'add', record: aDevice('one', { id: 'zone:one' }) },
      'ops.0.record.id: must begin with "device:" and fit its record',
    ],
    ['removing the job', { op: 'remove', record: aJob() }, 'ops.0: the job record cannot be removed'],
    [
      'an extra field',
      { op: 'add', record: { ...one, colour: 'red' } },
      'ops.0.record.colour: is not a known field here',
    ],
  ])('refuses %s by name', (_what, op, message) => {
    expect(problems(anEdit([op]))).toEqual([message])
  })

  it('names what is missing around the ops', () => {
    expect(problems({ ...anEdit([]), id: 3 })).toEqual([
      'id: must be a text',
      'ops: must have at least 1 entries',
    ])
    expect(problems(null)).toEqual([': must be an object'])
  })

  it('keeps evidence out of the inverse', () => {
    const record = {
      id: 'signoff:a',
      type: 'signoff',
      what: 'codes',
      by: 'Ann',
      at: '2026-01-01T00:00:00Z',
      note: '',
    } as const
    expect(invertOps([{ op: 'add', record }, rooms('hall', 'attic')])).toEqual([rooms('attic', 'hall')])
  })
})
