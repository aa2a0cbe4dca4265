import { describe, expect, it } from 'vitest'
import { keepEntry } from '../catalogue/written.ts'
import { recordsOf } from '../job/document.ts'
import { catalogue, cleanMorrow, type SmallJob } from '../testing/small-job.ts'
import { numberAll } from './number-all.ts'

/* On the Morrow 60 each button of a fob is a zone; the Fourkey sends plain and one-way, so its disarm button can be recorded. */

const all = ['arm-away', 'arm-stay', 'disarm', 'output']
const buttons = (job: SmallJob) =>
  recordsOf(job.doc, 'zone')
    .flatMap(({ device, event }) => (device === 'device:keys' ? (event ?? []) : []))
    .sort()
const withFob = () => cleanMorrow().user('Ola').add('keys', 'fourkey', { user: 'user:Ola', room: '' })
const without = (job: SmallJob, ...events: readonly string[]) =>
  job.apply(events.map((event) => ({ op: 'remove', record: job.zone('keys', event) })))
/** The same fob, described as one that always encrypts. */
const encrypting = (job: SmallJob): SmallJob => {
  const fob = catalogue.get('device', 'device/fourkey') ?? expect.fail()
  job.catalogue = catalogue.with([keepEntry({ ...fob, encryption: 'always' })])
  return job
}
const pressed = (job: SmallJob, fresh = false) => {
  let count = 0
  const newId = () => `zone:new-${(count += 1)}`
  return job.apply(numberAll(job.doc, job.catalogue, { newId, houseRules: job.houseRules, fresh }).ops)
}

describe('a disarm button that was left unprogrammed', () => {
  it.each([false, true])('stays so when everything is numbered (afresh: %s)', (fresh) => {
    const job = without(withFob().number(), 'disarm')
    expect(buttons(pressed(job, fresh))).toEqual(['arm-away', 'arm-stay', 'output'])
    expect(job.rules()).not.toContain('fit-loss')
  })

  it('stays so where another button comes back', () => {
    expect(buttons(pressed(without(withFob().number(), 'disarm', 'arm-stay')))).toEqual([
      'arm-away',
      'arm-stay',
      'output',
    ])
  })

  it('is given with the others where no button has a zone yet', () => {
    expect(buttons(pressed(withFob()))).toEqual(all)
    expect(buttons(pressed(without(withFob().number(), ...all)))).toEqual(all)
  })

  it('comes back where the fob encrypts', () => {
    expect(buttons(pressed(without(encrypting(withFob().number()), 'disarm')))).toEqual(all)
  })

  it('is the only button that may be missing', () => {
    expect(buttons(pressed(without(withFob().number(), 'output')))).toEqual(all)
  })
})
