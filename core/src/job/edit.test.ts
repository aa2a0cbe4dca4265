import { describe, expect, it } from 'vitest'
import { emptyDocument } from './document.ts'
import { applyOps, changeOps, readEdit, setOp, typeOfId } from './edit.ts'
import { jobRecords, SCHEMA } from './records.ts'
import { aDevice, aJob } from './testing/records.ts'

const problems = (op: unknown): string[] => {
  const result = readEdit({
    id: 'edit-0001',
    kind: 'device.set',
    schema: SCHEMA,
    by: { id: 'ann', name: 'Ann' },
    madeAt: '2026-01-01T00:00:00Z',
    ops: [op],
  })
  return result.ok || result.code === 'newer' ? [] : result.problems.map((p) => `${p.path}: ${p.message}`)
}

describe('reading an edit of a job', () => {
  it.each([
    [
      'a zone number 0',
      { op: 'set', id: 'zone:a', field: 'number', from: 1, to: 0 },
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
      'an ID set by hand',
      { op: 'set', id: 'zone:a', field: 'serial', from: null, to: '20417733' },
      'serial: is no field of a zone that can be set',
    ],
    [
      'an empty name',
      { op: 'set', id: 'job:main', field: 'name', from: 'x', to: ' ' },
      'name: must not be empty',
    ],
    ['removing the job', { op: 'remove', record: aJob() }, 'ops.0: the job record cannot be removed'],
    [
      'a second job record',
      { op: 'add', record: aJob({ id: 'job:other' }) },
      'ops.0.record.id: must begin with "job:" and fit its record',
    ],
    [
      'a pin under another name',
      {
        op: 'add',
        record: { id: 'pin:device/other', type: 'pin', entry: 'device/any', hash: '0'.repeat(64) },
      },
      'ops.0.record.id: must begin with "pin:" and fit its record',
    ],
  ])('refuses %s by name', (_what, op, message) => {
    expect(problems(op)).toEqual([message])
  })

  it('knows what an id names', () => {
    expect([typeOfId('zone:a'), typeOfId('state-end:a'), typeOfId('x:a'), typeOfId('zone')]).toEqual([
      'zone',
      'state-end',
      null,
      null,
    ])
  })
})

describe('references of a job', () => {
  it('stand for the pin where they hold a catalogue entry', () => {
    const add = applyOps(emptyDocument, [{ op: 'add', record: aDevice('two', { model: 'device/other' }) }])
    expect(add).toMatchObject({ conflict: { code: 'reference', field: 'model', yours: 'device/other' } })
  })

  it('are the fields that each type declares', () => {
    const named = Object.entries(jobRecords.references).flatMap(([type, fields]) =>
      fields.map(([field]) => `${type}.${field}`),
    )
    expect(named.sort()).toEqual([
      'device.model',
      'device.opening',
      'device.user',
      'device.via',
      'job.panel',
      'opening.room',
      'opening.to',
      'receiver.model',
      'room.area',
      'serves.area',
      'serves.device',
      'sight.device',
      'sight.opening',
      'sight.room',
      'way.from',
      'way.to',
      'zone.area',
      'zone.area2',
      'zone.device',
      'zone.leaves',
    ])
  })
})

describe('the declarations', () => {
  const types = Object.values(jobRecords.types)

  it('make evidence of what was seen or vouched for, and let nobody remove it', () => {
    expect(
      types
        .filter((item) => item.is === 'evidence')
        .map((item) => item.type)
        .sort(),
    ).toEqual([
      'fixed-rules',
      'heard',
      'held',
      'signoff',
      'spot',
      'state',
      'state-end',
      'test',
      'told',
      'tried',
      'waiver',
      'waiver-end',
    ])
    for (const item of types.filter((one) => one.is === 'evidence')) {
      expect(item).toMatchObject({ named: true, removable: false })
      expect(jobRecords.references[item.type]).toEqual([])
    }
    expect(types.filter((item) => item.is === 'plan' && item.named).map((item) => item.type)).toEqual([
      'departure',
    ])
  })

  it('let a viewer add nothing', () => {
    expect(types.filter((item) => item.may === 'viewer')).toEqual([])
  })

  it('name every field in words', () => {
    for (const item of types)
      for (const [field, { words }] of Object.entries(item.fields))
        expect(words, `${item.type}.${field}`).toMatch(/^(?!.*[a-z][A-Z]).+$/)
  })
})

describe('an op from what stands now', () => {
  const device = aDevice('porch', { room: 'porch' })

  it('sets a field that has another value, and nothing where it has this one', () => {
    const op = { op: 'set', id: 'device:porch', field: 'room', from: 'porch', to: 'hall' }
    expect(setOp(device, 'room', 'hall')).toEqual(op)
    expect(changeOps(device, 'room', 'hall')).toEqual([op])
    expect(changeOps(device, 'room', 'porch')).toEqual([])
  })
})
