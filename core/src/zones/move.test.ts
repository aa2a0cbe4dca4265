import { describe, expect, it } from 'vitest'
import { systemOf } from '../system/system.ts'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { moveZone } from './move.ts'

const move = (job: SmallJob, device: string, number: number, event?: string) =>
  moveZone(
    { doc: job.doc, system: systemOf(job.doc, catalogue), rules: defaultHouseRules },
    job.zone(device, event),
    number,
  )
const refusals = (job: SmallJob, device: string, number: number) => {
  const result = move(job, device, number)
  return result.ok ? 'taken' : result.reason
}

describe('putting a zone on a number', () => {
  it('pins it there', () => {
    const job = cleanTarn()
    const result = move(job, 'study', 20)
    if (!result.ok) throw new Error(result.reason)
    job.apply(result.ops)
    expect(job.zone('study')).toMatchObject({ number: 20, pinned: true })
    expect(result.says).toBe('Zone 02 goes to 20.')
  })

  it('lets two zones change places', () => {
    const job = cleanTarn()
    const result = move(job, 'study', 1)
    if (!result.ok) throw new Error(result.reason)
    job.apply(result.ops)
    expect([job.zone('study').number, job.zone('porch').number]).toEqual([1, 2])
  })

  it('refuses what the panel or the plan forbids, with the reason', () => {
    const job = cleanTarn()
    expect(refusals(job, 'study', 2)).toBe('It is on 02 already.')
    expect(refusals(job, 'study', 41)).toBe(
      '41 is not for wireless zones: those are 01–40. The next free one is 10.',
    )
    job.set(job.zone('porch').id, { pinned: true })
    expect(refusals(job, 'study', 1)).toBe(
      '01 is taken by a pinned zone (“Porch Front Door”). The next free one is 10.',
    )
    job.learn(job.zone('hall').id, '12345678')
    expect(refusals(job, 'study', 3)).toBe(
      '03 is taken by an enrolled zone (“Hall Motion”). The next free one is 10.',
    )
    expect(refusals(job, 'hall', 20)).toBe('Zone 03 is enrolled: the panel knows it by its number.')
    job.set(job.zone('study').id, { asProgrammed: true, existing: true })
    expect(refusals(job, 'study', 20)).toBe(
      'Zone 02 is left as programmed: the panel knows it by its number.',
    )
  })

  it('refuses live terminals, kept groups and numbers under a keypad', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
      .add('pad', 'scriber-8')
      .add('window', 'sill-slim-8')
      .number()
      .add('gate', 'contact-w')
      .number()
    expect(job.zone('gate').number).toBe(1)
    expect(refusals(job, 'window', 7)).toBe(
      'Wired terminal 07 is live: a radio device there would trip beside it. Switch the terminal off first. The next free one is 12.',
    )
    job.apply([{ op: 'add', record: { id: 'terminal:3', type: 'terminal', number: 3, state: 'off' } }])
    // Terminals 1 to 5 are one group of the board, and 1 is used.
    expect(refusals(job, 'window', 3)).toBe(
      '03 is kept for the wired block (house rule). The next free one is 12.',
    )
    job.set('device:pad', { mappedOver: 30 })
    expect(refusals(job, 'window', 30)).toBe(
      'A keypad’s own terminal is mapped over 30. The next free one is 12.',
    )
    expect(refusals(job, 'window', 31)).toBe('taken')
  })

  it('does not swap a zone back to where it may not be', () => {
    const job = new SmallJob({ panel: 'panel/morrow-60', region: 'north-america' })
      .receiver('morrow-radio-module')
      .add('gate', 'contact-w')
      .add('window', 'latchet-thin')
      .number()
    job.set(job.zone('gate').id, { number: 8 })
    expect(refusals(job, 'gate', 7)).toBe(
      'The zone on 07 cannot go back: Wired terminal 08 is live: a radio device there would trip beside it. Switch the terminal off first.',
    )
  })
})
