import {
  choiceWords,
  fieldWords,
  groupId,
  jobRecords,
  knownBy,
  PANEL,
  printNumber,
  schools,
  proofRules,
  rungNames,
  stateRules,
  systemOf,
  typeOfId,
  type Catalogue,
  type JobDocument,
  type JobRecord,
  type Op,
} from '#core'

/** One op as a line that a person can check before it is applied. */
export interface OpLine {
  readonly what: string
  readonly from: string
  readonly to: string
}

/** Ops as lines, in order; pins of catalogue entries are left out, being bookkeeping. */
export function opLines(doc: JobDocument, catalogue: Catalogue, ops: readonly Op[]): OpLine[] {
  return ops.flatMap((op): OpLine[] => {
    if (op.op === 'set') {
      const record = doc.records[op.id]
      const what = `${record ? recordName(doc, catalogue, record) : op.id}, ${fieldWords(op.id, op.field)}`
      return [
        {
          what,
          from: valueName(doc, catalogue, op, op.from),
          to: valueName(doc, catalogue, op, op.to),
        },
      ]
    }
    if (op.record.type === 'pin') return []
    const name = recordName(doc, catalogue, op.record)
    return [
      op.op === 'add'
        ? { what: `New: ${name}`, from: '', to: summary(doc, catalogue, op.record) }
        : { what: `Removed: ${name}`, from: '', to: '' },
    ]
  })
}

/** What a record is called: `zone 07`, `Reedling contact in porch`. */
function recordName(doc: JobDocument, catalogue: Catalogue, record: JobRecord): string {
  const panel = systemOf(doc, catalogue).panel
  switch (record.type) {
    case 'zone':
      return `zone ${printNumber(panel, record.number)}`
    case 'device':
      return `${catalogue.get('device', record.model)?.name ?? 'device'}${record.room ? ` in ${record.room}` : ''}`
    case 'receiver':
      return catalogue.get('receiver', record.model)?.name ?? 'receiver'
    case 'job':
      return 'the job'
    case 'terminal':
      return `wired terminal ${record.number}`
    case 'user':
    case 'room':
    case 'opening':
    case 'area':
      return `${record.type} ${record.name}`
    case 'way': {
      const name = (id: string): string => {
        const room = doc.records[id]
        return room?.type === 'room' ? room.name : 'a room'
      }
      return `way ${name(record.from)} – ${name(record.to)}`
    }
    case 'heard':
      return `${groupId(catalogue.get('family', record.family), record.serial)} for ${about(doc, catalogue, record.subject)}`
    case 'tried':
      return `${rungNames[record.rung]} for ${about(doc, catalogue, record.subject)}`
    case 'spot':
      return `reading at ${record.place}`
    case 'test':
      return `${proofRules[record.kind].name.toLowerCase()} of ${record.subject === PANEL ? 'the panel' : about(doc, catalogue, record.subject)}`
    case 'signoff':
      return `sign-off, ${record.what}`
    case 'state':
    case 'state-end':
      return `${record.type === 'state' ? '' : 'end: '}${stateRules[record.kind].name}${record.type === 'state' && record.about !== null ? ` (${about(doc, catalogue, record.about)})` : ''}`
    case 'departure':
      return `departure, ${schools.find((item) => item.key === record.rule)?.question ?? record.rule}`
    default:
      return jobRecords.types[record.type]?.words ?? record.type
  }
}

/** What a piece of evidence names, as it is called now; its bare name where it is gone. */
function about(doc: JobDocument, catalogue: Catalogue, subject: string): string {
  const record = doc.records[subject]
  return record ? recordName(doc, catalogue, record) : 'what was there then'
}

function summary(doc: JobDocument, catalogue: Catalogue, record: JobRecord): string {
  if (record.type === 'zone')
    return [record.label, valueName(doc, catalogue, { id: record.id, field: 'response' }, record.response)]
      .filter(Boolean)
      .join(' · ')
  if (record.type === 'departure') return choiceWords(record.rule, record.choice)
  if (record.type === 'waiver') return record.reason
  if (record.type === 'test')
    return [record.outcome, record.reading, record.method, record.note]
      .filter((part) => part !== null && part !== '')
      .join(', ')
  if (record.type === 'heard')
    return record.decision === 'released'
      ? 'taken out of the panel'
      : `${record.decision}, ${{ heard: 'heard', typed: 'typed, not heard', sister: 'as its sister zone' }[knownBy(record)]}`
  if (record.type === 'tried') return record.way
  if (record.type === 'spot') return record.link ?? String(record.reading ?? '')
  if (record.type === 'state') return record.why
  return record.type === 'terminal' ? record.state : ''
}

function valueName(
  doc: JobDocument,
  catalogue: Catalogue,
  { id, field }: { readonly id: string; readonly field: string },
  value: unknown,
): string {
  if (value === null || value === undefined || value === '') return 'empty'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  const { panel } = systemOf(doc, catalogue)
  if (field === 'response')
    return panel?.responseTypes.find((type) => type.key === value)?.name ?? String(value)
  if (field === 'number' && typeof value === 'number') return printNumber(panel, value)
  const entry = typeof value === 'string' ? catalogue.entries.find((item) => item.id === value) : undefined
  if (entry) return entry.name
  const record = typeof value === 'string' ? doc.records[value] : undefined
  if (record && 'name' in record) return record.name
  const unit = jobRecords.types[typeOfId(id) ?? '']?.fields[field]?.unit
  return typeof value === 'number' && unit ? `${value} ${unit}` : String(value)
}
