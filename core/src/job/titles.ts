import { jobRecords } from './records.ts'
import { typeOfId, type Edit } from './edit.ts'

const titles: Readonly<Record<string, string>> = {
  'job.start': 'began the job',
  'job.copy': 'began the job from another’s plan',
  'job.set': 'changed the survey',
  'job.panel': 'chose the panel',
  'device.add': 'added devices',
  'device.set': 'changed a device',
  'device.inputs': 'chose the inputs of a contact',
  'device.remove': 'removed a device',
  'device.replace': 'replaced a device',
  'device.move': 'moved a device',
  'device.import': 'imported an equipment list',
  'receiver.add': 'added a receiver',
  'receiver.set': 'changed a receiver',
  'receiver.remove': 'removed a receiver',
  'zone.number': 'numbered the zones',
  'zone.add': 'added a zone',
  'zone.set': 'changed a zone',
  'zone.remove': 'removed a zone',
  'terminal.set': 'changed a wired terminal',
  'user.add': 'added a user',
  'user.set': 'changed a user',
  'user.remove': 'removed a user',
  'area.add': 'added an area',
  'area.remove': 'removed an area',
  'area.set': 'changed an area',
  'house.words': 'described the house',
  'spot.add': 'noted a reading at a spot',
  'spot.correct': 'corrected a reading at a spot',
  'room.rename': 'renamed a room',
  'room.remove': 'removed a room',
  'opening.remove': 'removed an opening',
  'way.remove': 'removed a way',
  'sight.set': 'said what a motion sees',
  'zone.move': 'moved a zone',
  'zone.area': 'put a zone into another area',
  'keypad.areas': 'said which areas a keypad sets',
  'departure.begin': 'departed from a house rule',
  'departure.end': 'went back to the house rule',
  'finding.waive': 'took a finding on',
  'finding.unwaive': 'took a waiver back',
  'handover.done': 'handed the system over',
  'handover.tonight': 'left for tonight, not handed over',
  'catalogue.update': 'took newer catalogue entries',
  'air.listen': 'started listening',
  'air.stop': 'stopped listening',
  'enrol.accept': 'accepted a device',
  'enrol.refuse': 'refused a transmission',
  'enrol.told': 'told the panel to learn',
  'enrol.tried': 'tried to make a device heard',
  'enrol.release': 'took a device out of the panel',
  'enrol.deleted': 'noted that the panel knows a device of before no more',
  'prove.record': 'recorded a result',
  'state.begin': 'began a temporary state',
  'state.end': 'ended a temporary state',
  'panel.keyed': 'noted what was keyed into the panel',
  'panel.read': 'noted what the panel shows',
  'panel.followed': 'let the plan follow what stands in the panel',
  'panel.left': 'noted that nothing unsaved is left in the panel',
  'panel.clean': 'noted a step of the clean start',
  'panel.wiped': 'noted that the panel is as it came',
  'handover.sign': 'signed something off',
}

/** What an edit did, in a few words for the undo control and the journal. */
export function titleOf(edit: Edit): string {
  const known = titles[edit.kind]
  if (edit.kind === 'upgrade') return 'brought the job to a newer version'
  if (edit.kind.startsWith('fix.')) return 'applied a fix'
  if (edit.kind.startsWith('remedy.')) return 'applied a remedy'
  if (edit.kind === 'undo') return 'took a change back'
  if (edit.kind === 'redo') return 'brought a change back'
  if (/^(air|catalogue)\./.test(edit.kind) && known) return known
  const first = edit.ops[0]
  if (edit.ops.length === 1 && first?.op === 'set') {
    const type = typeOfId(first.id) ?? 'record'
    return `changed the ${fieldWords(first.id, first.field)} of ${type === 'job' ? 'the job' : aRecord(type)}`
  }
  return known ?? 'changed the job'
}

/** What a field of a record is called, as its declaration says; a name that is not declared is given back as it is. */
export function fieldWords(recordId: string, field: string): string {
  const type = typeOfId(recordId)
  return (type && jobRecords.types[type]?.fields[field]?.words) ?? field
}

/** A record of a type, as in a sentence: `an area`, `a zone`. */
export function aRecord(type: string): string {
  const words = jobRecords.types[type]?.words ?? 'record'
  return `${/^[aeiou]/.test(words) ? 'an' : 'a'} ${words}`
}
