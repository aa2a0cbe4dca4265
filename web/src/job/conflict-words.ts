import {
  aRecord,
  fieldWords,
  printNumber,
  typeOfId,
  type Conflict,
  type JobDocument,
  type PanelModel,
} from '#core'

/** A conflict with the colleague's name and time, where known. */
export interface NamedConflict extends Conflict {
  readonly who?: string | null
  readonly when?: string | null
}

/** A value as a person reads it. */
export function valueWords(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'empty'
  if (value === true) return 'yes'
  if (value === false) return 'no'
  if (typeof value === 'object') return 'a whole record'
  return String(value)
}

/** What a record is called on screen; zone numbers as the panel prints them. */
function recordWords(doc: JobDocument, id: string, panel: PanelModel | null): string {
  const record = doc.records[id]
  const type = typeOfId(id)
  if (type === 'job') return 'the job'
  if (record?.type === 'zone') return `zone ${printNumber(panel, record.number)}`
  if (record?.type === 'device') return `the device in ${record.room || 'no room'}`
  if (record?.type === 'user') return `user ${record.name}`
  return type ? aRecord(type) : 'a record'
}

/** One sentence on what stands against a change. */
export function conflictWords(doc: JobDocument, conflict: Conflict, panel: PanelModel | null): string {
  const what = recordWords(doc, conflict.id, panel)
  switch (conflict.code) {
    case 'changed':
      return conflict.field
        ? `The ${fieldWords(conflict.id, conflict.field)} of ${what} was changed in the meantime.`
        : `${what} was changed in the meantime.`
    case 'gone':
      return 'What you changed has been removed in the meantime.'
    case 'exists':
      return `${what} is there already.`
    case 'reference':
      return `Something that ${what} needs or is needed by would be left hanging.`
  }
}

/** Who changed it and when, as far as the journal says. */
export function whoWhen(conflict: NamedConflict): string {
  if (!conflict.who) return ''
  return conflict.when ? `${conflict.who}, ${new Date(conflict.when).toLocaleTimeString()}` : conflict.who
}
