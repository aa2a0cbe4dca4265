import { jobInfo, recordsOf } from '../job/document.ts'
import { deviceAt, enrolmentAt, type MemoryWords } from './words.ts'
import { isLifeSafety } from '../response/advise.ts'
import { delayFieldOf, delayNames, type DelayKey } from '../response/delays.ts'

/*
 * What is written down as it stands on the display before it is compared, without the expected value beside it: where a glance sees
 * what it expects. IDs that came off a sticker, loops and types of fire and gas detection, and times that a panel counts in units.
 */

/** Whether the value of an address is typed as it stands there, not only seen. */
export function mustBeTyped(words: MemoryWords, address: string): boolean {
  const [group = '', number = ''] = address.split('.')
  const field = address.split('.').at(-1) ?? ''
  if (field === 'serial') return !wasHeard(words, address)
  if (group === 'zone' && (field === 'loop' || field === 'response'))
    return isSafetyZone(words, Number(number))
  return (group === 'system' || group === 'area') && countsUnits(words, field)
}

/** Whether the ID at an address was heard here, and not only written on something. */
function wasHeard(words: MemoryWords, address: string): boolean {
  const known = enrolmentAt(words, address)
  return known?.told === null && known.how !== 'typed'
}

/**
 * Whether the ID at an address is learned by making its device transmit, by whoever would rather learn than type: nobody heard it yet,
 * and its event can be tripped on the bench. It then proves the device and its input.
 */
export function isToBeHeard(words: MemoryWords, address: string): boolean {
  if (!address.endsWith('.serial') || wasHeard(words, address)) return false
  const device = deviceAt(words, address)
  const [group = '', number = ''] = address.split('.')
  if (group !== 'zone') return device !== undefined
  const zone = recordsOf(words.doc, 'zone').find((one) => one.number === Number(number))
  const model = words.catalogue.get('device', device?.model ?? null)
  return model?.loops.find(({ event }) => event === zone?.event)?.bench === true
}

function isSafetyZone({ doc, panel }: MemoryWords, number: number): boolean {
  const zone = recordsOf(doc, 'zone').find((one) => one.number === number)
  const type = panel.responseTypes.find((one) => one.key === zone?.response)
  return type !== undefined && isLifeSafety(type.kind)
}

/** Whether a panel counts a time otherwise than in plain seconds. */
function countsUnits({ doc, panel }: MemoryWords, field: string): boolean {
  const stated = field === 'siren' ? panel.siren : undefined
  const delay = stated ?? (field in delayNames ? delayFieldOf(panel, jobInfo(doc), field as DelayKey) : null)
  return (
    delay !== null && delay !== undefined && (delay.secondsPerUnit !== 1 || delay.form === 'minutes-seconds')
  )
}
