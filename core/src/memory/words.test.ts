import { describe, expect, it } from 'vitest'
import type { PanelModel } from '../catalogue/schema.ts'
import { systemOf } from '../system/system.ts'
import { catalogue, cleanMorrow, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { isToBeHeard, mustBeTyped } from './must-type.ts'
import { enrolmentAt, fieldOf, partOf, valueOf, type MemoryWords } from './words.ts'

function wordsOf(job: SmallJob): MemoryWords {
  const panel = systemOf(job.doc, catalogue).panel as PanelModel
  return { doc: job.doc, panel, catalogue }
}
const value = (job: SmallJob, address: string, stored: string, shown = stored): string =>
  valueOf(wordsOf(job), address, { value: stored, shown })
const field = (job: SmallJob, address: string): string => fieldOf(wordsOf(job), address)
const part = (job: SmallJob, address: string): string => partOf(wordsOf(job), address)

/** One door on line 1 of the Tarn with a sticker, a fob in slot 2. */
function tarn(): SmallJob {
  const job = new SmallJob()
    .add('porch', 'reedling', { use: 'entry', sticker: '20417733' })
    .add('fob', 'quartet-c', { slot: 2, sticker: '4B2K90QX', room: '' })
    .number()
  job.set(job.zone('porch').id, { number: 1, label: 'Front door' })
  return job
}

describe('what an address belongs to', () => {
  it('is the system, an area by its name, a zone by its number as printed and its label, a slot', () => {
    const job = tarn().area(2, 'Annexe').area(3, '')
    expect(part(job, 'system.entry1')).toBe('Whole system')
    expect(part(job, 'area.2.entry1')).toBe('Area 2 — Annexe')
    expect(part(job, 'area.3.entry1')).toBe('Area 3')
    expect(part(job, 'area.4.entry1')).toBe('Area 4')
    expect(part(job, 'zone.1.response')).toBe('Zone 01 — Front door')
    expect(part(job, 'wired.41.wiring')).toBe('Zone 41')
    expect(part(job, 'fob.2.serial')).toBe('Fob 2')
    expect(part(job, 'keypad.1.serial')).toBe('Keypad 1')
  })

  it('prints a number as the panel does', () => {
    const job = new SmallJob({ panel: 'panel/quillet-32' })
    expect(part(job, 'zone.7.response')).toBe('Zone 007')
  })
})

describe('the field of an address', () => {
  it.each([
    ['system.entry1', 'entry delay 1'],
    ['area.2.exit', 'exit delay'],
    ['zone.1.response', 'response type'],
    ['zone.1.serial', 'transmitter ID'],
    ['zone.1.loop', 'loop'],
    ['zone.1.equipmentCode', 'equipment code'],
    ['zone.1.inputs.reed', 'contact inputs, reed'],
    ['zone.1.sirens.3', 'siren outputs, 3'],
    ['wired.41.wiring', 'wiring'],
    ['zone.1.areas.2', 'in Annexe'],
    ['fob.2.areas.1', 'in Home'],
    ['zone.1.areas.4', 'in area 4'],
    ['system.keysOff.fire-key', 'fire key off'],
    ['system.keysOff.help-key', 'help key off'],
    // A name that nothing declares stands as it is.
    ['zone.1.strange', 'strange'],
  ])('%s: %s', (address, words) => {
    const job = tarn().area(2, 'Annexe').set('area:1', { name: 'Home' })
    expect(field(job, address)).toBe(words)
  })

  it('is called as the form of the whole system calls it, with a small letter', () => {
    expect(field(tarn(), 'system.siren')).toBe('siren time')
    expect(field(tarn(), 'system.entryBeeps')).toMatch(/^[a-z]/)
    expect(field(tarn(), 'system.exitBy')).toMatch(/^[a-z]/)
  })
})

describe('a stored value', () => {
  it('says nothing where nothing is held, and yes or no of a flag', () => {
    expect(value(tarn(), 'zone.1.label', '')).toBe('nothing')
    expect(value(tarn(), 'zone.1.chime', 'on', 'LIT')).toBe('yes')
    expect(value(tarn(), 'zone.1.chime', 'off', 'OUT')).toBe('no')
  })

  it('has both numbers where a panel counts in units, and one where it counts seconds', () => {
    expect(value(tarn(), 'system.entry1', '45')).toBe('45 s')
    expect(value(tarn(), 'system.siren', '3')).toBe('3 → 3 min')
    expect(value(cleanMorrow(), 'system.exit', '4')).toBe('4 → 60 s')
    // Pinfold: seconds, or steps of 15 s where its option says so.
    const pinfold = (switched: boolean) =>
      new SmallJob({ panel: 'panel/pinfold-16', radioFirmware: null, exitUnitSwitched: switched })
    expect(value(pinfold(false), 'system.exit', '40')).toBe('40 s')
    expect(value(pinfold(true), 'system.exit', '4')).toBe('4 → 60 s')
    expect(value(pinfold(false), 'system.siren', '8')).toBe('8 → 4 min')
    expect(value(tarn(), 'system.supervise', '400')).toBe('400 min')
    // Of a zone it is a flag, not a time.
    expect(value(tarn(), 'zone.1.supervise', 'on')).toBe('yes')
    // A delay that the panel does not have.
    expect(value(tarn(), 'system.exitStay', '30')).toBe('30')
  })

  it('has the name of a response type beside its code, unless they are one', () => {
    expect(value(tarn(), 'zone.1.response', '21', 'Way in, first delay')).toBe('21, Way in, first delay')
    expect(value(tarn(), 'zone.1.response', 'shell', 'shell')).toBe('shell')
  })

  it('says which models a code means', () => {
    expect(value(tarn(), 'zone.1.equipmentCode', '318')).toBe('318, Reedling contact')
    expect(value(tarn(), 'zone.1.equipmentCode', '001')).toBe('001, no model of the catalogue')
  })

  it('says what a wiring is', () => {
    expect(value(cleanMorrow(), 'wired.1.wiring', '4')).toBe('4, end-of-line resistor')
    expect(value(tarn(), 'wired.41.wiring', 'strange')).toBe('strange')
  })

  it('is the text that stands on the display, and the number where both are numbers', () => {
    expect(value(tarn(), 'zone.1.label', '187 070', 'Front Door')).toBe('Front Door')
    expect(value(tarn(), 'zone.1.loop', '3', '3')).toBe('3')
    expect(value(tarn(), 'system.swinger', '3', '3')).toBe('3')
  })
})

describe('an ID', () => {
  it('stands in the groups of its sticker, and says where it comes from', () => {
    const job = tarn()
    expect(value(job, 'zone.1.serial', '20417733')).toBe('2041 7733, from the sticker, not learned yet')
    expect(value(job, 'fob.2.serial', '4B2K90QX')).toBe('4B2K 90QX, from the sticker, not learned yet')
    job.learn(job.zone('porch').id, '20417733', { loop: 3 })
    expect(value(job, 'zone.1.serial', '20417733')).toBe('2041 7733, learned')
  })

  it('that was typed is not told as learned, nor one of a file', () => {
    const job = tarn()
    const { id } = job.zone('porch')
    job.learn(id, '20417733', { loop: 3, source: 'sticker', cause: 'typed' })
    expect(value(job, 'zone.1.serial', '20417733')).toBe('2041 7733, typed from the sticker, not heard yet')
    const filed = tarn()
    const heard = filed.heard(filed.zone('porch').id, '20417733', { loop: 3 })
    filed.apply([{ op: 'add', record: { ...heard, made: { ...heard.made, told: 'file' } } }])
    expect(value(filed, 'zone.1.serial', '20417733')).toBe('2041 7733, told by the file, not learned here')
  })

  it('that the plan does not have there comes from nowhere that is known', () => {
    const job = tarn()
    expect(value(job, 'zone.1.serial', '20417801')).toBe('2041 7801')
    expect(value(job, 'zone.2.serial', '20417733')).toBe('2041 7733')
    expect(value(job, 'fob.1.serial', '4B2K90QX')).toBe('4B2K 90QX')
    // Nor does the sticker where another ID was learned.
    job.learn(job.zone('porch').id, '20417801', { loop: 3 })
    expect(value(job, 'zone.1.serial', '20417733')).toBe('2041 7733')
    // One of no family that this panel hears stands as it is.
    expect(value(job, 'zone.1.serial', 'XYZ')).toBe('XYZ')
  })
})

describe('how the panel knows what is at an address', () => {
  it('by its zone, or by the device in its slot', () => {
    const job = tarn()
    const known = (address: string) => enrolmentAt(wordsOf(job), address)?.serial ?? null
    expect([known('zone.1.serial'), known('fob.2.serial'), known('zone.9.serial')]).toEqual([
      null,
      null,
      null,
    ])
    job.learn(job.zone('porch').id, '20417733', { loop: 3 })
    job.learn('device:fob', '4B2K90QX', { family: 'family/wren-c' })
    expect([known('zone.1.serial'), known('fob.2.serial'), known('fob.1.serial')]).toEqual([
      '20417733',
      '4B2K90QX',
      null,
    ])
    // A slot of another kind with the same number is another device.
    expect(known('keypad.2.serial')).toBeNull()
  })
})

describe('what is typed as it stands there before it is compared', () => {
  const typed = (job: SmallJob, address: string): boolean => mustBeTyped(wordsOf(job), address)

  it('an ID that nobody heard; one that was learned is only seen', () => {
    const job = tarn()
    const { id } = job.zone('porch')
    expect(typed(job, 'zone.1.serial')).toBe(true)
    expect(typed(job, 'fob.2.serial')).toBe(true)
    job.learn(id, '20417733', { loop: 3, source: 'sticker', cause: 'typed' })
    expect(typed(job, 'zone.1.serial')).toBe(true)
    job.learn(id, '20417733', { loop: 3 })
    expect(typed(job, 'zone.1.serial')).toBe(false)
    const filed = tarn()
    const heard = filed.heard(filed.zone('porch').id, '20417733', { loop: 3 })
    filed.apply([{ op: 'add', record: { ...heard, made: { ...heard.made, told: 'build' } } }])
    expect(typed(filed, 'zone.1.serial')).toBe(true)
  })

  it('loops and types of fire and gas detection, not of a door, and nothing else of theirs', () => {
    const job = cleanTarn()
    const [smoke, gas, door] = [job.zone('landing', 'smoke'), job.zone('kitchen'), job.zone('porch')]
    for (const { number } of [smoke, gas]) {
      expect([number, typed(job, `zone.${number}.loop`)]).toEqual([number, true])
      expect(typed(job, `zone.${number}.response`)).toBe(true)
      expect(typed(job, `zone.${number}.label`)).toBe(false)
    }
    expect(typed(job, `zone.${door.number}.loop`)).toBe(false)
    expect(typed(job, `zone.${door.number}.response`)).toBe(false)
    // No zone of the plan has that number.
    expect(typed(job, 'zone.33.response')).toBe(false)
  })

  it('times that a panel counts otherwise than in seconds', () => {
    expect(typed(tarn(), 'system.entry1')).toBe(false)
    expect(typed(tarn(), 'system.siren')).toBe(true)
    expect(typed(tarn(), 'system.swinger')).toBe(false)
    expect(typed(cleanMorrow(), 'system.exit')).toBe(true)
    const pinfold = new SmallJob({ panel: 'panel/pinfold-16', radioFirmware: null })
    expect([typed(pinfold, 'system.entry1'), typed(pinfold, 'system.entry2')]).toEqual([false, true])
    // No delay of this name, or none of this panel.
    expect(typed(tarn(), 'system.exitStay')).toBe(false)
    expect(typed(tarn(), 'zone.1.exit')).toBe(false)
  })
})

describe('an ID that is learned where the firm would rather', () => {
  const heard = (job: SmallJob, address: string): boolean => isToBeHeard(wordsOf(job), address)

  it('is one that nobody heard yet, of an event that can be tripped on the bench, or of what has a slot', () => {
    const job = tarn()
    expect(heard(job, 'zone.1.serial')).toBe(true)
    expect(heard(job, 'fob.2.serial')).toBe(true)
    // No device of the plan is there.
    expect([heard(job, 'zone.9.serial'), heard(job, 'fob.1.serial'), heard(job, 'keypad.2.serial')]).toEqual([
      ...[false, false, false],
    ])
    // No ID.
    expect([heard(job, 'zone.1.loop'), heard(job, 'system.entry1')]).toEqual([false, false])
  })

  it('is not learned again once it was heard; one that was typed or told is', () => {
    const job = tarn()
    const { id } = job.zone('porch')
    job.learn(id, '20417733', { loop: 3, source: 'sticker', cause: 'typed' })
    expect(heard(job, 'zone.1.serial')).toBe(true)
    job.learn(id, '20417733', { loop: 3 })
    expect(heard(job, 'zone.1.serial')).toBe(false)
    job.learn('device:fob', '4B2K90QX', { family: 'family/wren-c' })
    expect(heard(job, 'fob.2.serial')).toBe(false)
  })

  it('is typed of an event that nobody can trip there: heat of a smoke detector', () => {
    const job = cleanTarn()
    expect(heard(job, `zone.${job.zone('landing', 'smoke').number}.serial`)).toBe(true)
    expect(heard(job, `zone.${job.zone('landing', 'heat').number}.serial`)).toBe(false)
  })
})
