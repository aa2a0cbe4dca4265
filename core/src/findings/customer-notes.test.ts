import { describe, expect, it } from 'vitest'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { customerNotes } from './customer-notes.ts'

const notes = (job: SmallJob) => customerNotes(job.doc, catalogue, job.houseRules)

describe('what the customer is told', () => {
  it('is nothing before there is a panel', () => {
    expect(notes(new SmallJob({ panel: null }))).toEqual([])
  })

  it('is what chimes and how to clear, where nothing else is special', () => {
    // On the Tarn 40 only the door and the window chime; it clears at the second unsetting.
    expect(notes(cleanTarn())).toEqual([
      'While the system is unset these zones chime: 01 Porch Front Door, 02 Study Window.',
      'After an alarm unset twice: the first time silences, the second clears.',
    ])
  })

  it('is what a panel-wide setting leaves unprotected or to them', () => {
    const job = new SmallJob({ panel: 'panel/pinfold-16', grade: 1, entry2: 45 })
      .add('study', 'pebble', { use: 'opening', position: 'window' })
      .number()
    job.set(job.zone('study').id, { chime: false, dayZone: true, label: 'Study window' })
    job.set('job:main', { openAtExit: 'exclude', swinger: 3 })
    expect(notes(job)).toEqual([
      'At the keypad these may be made day zones, which then give a local notice while unset: 09 Study window.',
      'A window or door left open when the time to leave ends is left out: it is not protected until the system is set again.',
      'After 3 alarms in one set period a zone is left out until the system is set again.',
    ])
  })

  it('is who sets which part, and what is watched only while both are set', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11', exitStay: 0 })
      .area(2, 'Annexe')
      .add('front', 'sill-8', { use: 'entry', position: 'door' })
      .add('pad', 'scriber-8', { room: 'hall' })
      .user('Nell')
      .add('fob', 'quatern-8', { user: 'user:Nell', room: '' })
      .number()
      .serves('pad', 1)
      .serves('fob', 2)
    job.set(job.zone('front').id, { area2: 'area:2', chime: false, label: 'Front door' })
    job.set('job:main', { outputs: 'latched' })
    job.houseRules = { ...defaultHouseRules, schools: { ...defaultHouseRules.schools, fobStore: 'keypad' } }
    expect(notes(job)).toEqual([
      'The Scriber 8 keypad in hall sets and unsets Whole premises only.',
      'The fob of Nell sets and unsets Annexe only.',
      'Zone 01 Front door is common to Whole premises and Annexe: it is watched only while both are set.',
      'What the outputs drive stays on after an alarm until a code is keyed.',
      'Fobs are kept in the keypad: if it is replaced or its codes are changed, they must be taught again.',
    ])
  })

  it('does not tell who sets what where there is one area', () => {
    const job = SmallJob.morrow().user('Nell').add('fob', 'fourkey', { user: 'user:Nell', room: '' }).number()
    expect(notes(job).filter((line) => line.includes('sets and unsets'))).toEqual([])
  })

  it('is what the keys no longer do, and how leaving ends', () => {
    const job = new SmallJob({ panel: 'panel/quillet-32', entry2: 50 }).set('job:main', {
      exitBy: 'door',
      keySwitch: 'latching',
      // A key of another panel, chosen before: this one has none.
      keysOff: ['help key'],
    })
    expect(notes(job)).toEqual([
      'The time to leave ends when the last door closes.',
      'The system is set by the key switch alone: no keypad or fob sets it.',
    ])
    expect(notes(cleanTarn().set('job:main', { keysOff: ['help key'] }))[1]).toBe(
      'These keys of the keypads do nothing: help key. In need, call the emergency number.',
    )
  })

  it('is nothing of a setting that is off, or that this panel has not', () => {
    const told = notes(cleanTarn())
    for (const over of [{ swinger: 0 }, { keySwitch: 'latching' }, { outputs: 'momentary' }])
      expect(notes(cleanTarn().set('job:main', over))).toEqual(told)
    // No list of day zones on this panel: what was noted for another one offers nothing.
    const noted = cleanTarn()
    noted.set(noted.zone('study').id, { dayZone: true })
    expect(notes(noted)).toEqual(told)
    expect(notes(cleanTarn().set('job:main', { swinger: 1 }))).toContain(
      'After 1 alarm in one set period a zone is left out until the system is set again.',
    )
  })

  it('does not call a part set a second area, nor a zone without a name by a blank', () => {
    const job = new SmallJob({ panel: 'panel/quillet-32', entry2: 50 })
      .area(2, 'Night')
      .add('front', 'sill-8', { use: 'entry', position: 'door' })
      .number()
    job.set(job.zone('front').id, { area2: 'area:2', label: '' })
    expect(notes(job)).toEqual(['While the system is unset these zones chime: 001.'])
  })

  it('tells of a wired keypad in one part, and of one without a room', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11', exitStay: 0 })
      .area(2, 'Annexe')
      .add('siren', 'herald-8', { room: 'hall' })
      .add('pad', 'scriber-8', { room: '' })
      .number()
      .serves('pad', 2)
      .serves('siren', 1)
    expect(notes(job)).toEqual(['The Scriber 8 keypad sets and unsets Annexe only.'])
    expect(notes(job.serves('pad', 1, 2))).toEqual([])
  })

  it('names zones that give a notice by their type', () => {
    const job = cleanTarn()
    job.set(job.zone('study').id, { response: 'day', chime: false })
    expect(notes(job)[1]).toBe(
      'While the system is unset these zones give a local notice, and call nobody: 02 Study Window.',
    )
  })
})
