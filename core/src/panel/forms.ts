import type { Family, Form, PanelModel } from '../catalogue/schema.ts'
import { readSticker } from '../identity/sticker.ts'
import type { Memory } from '../memory/memory.ts'
import { libraryEntries } from '../zones/labels.ts'

/** One value that a list offers. */
interface Listed {
  readonly value: string
  /** What is typed for it. */
  readonly keyed: string
  /** How the display names it. */
  readonly shows: string
}

/** The values of an address: what may be stored, how it is typed and how the display names it. */
export interface Values {
  /** The value that what was typed stands for; null where it stands for none. */
  readonly read: (typed: string) => string | null
  /** What is typed for a value; null for one that cannot be stored. */
  readonly keyed: (value: string) => string | null
  /** How the display names a stored value. */
  readonly shows: (value: string) => string
  /** The stored value that the display names so; null where it names none so. */
  readonly stored: (shown: string) => string | null
  /** Every value in the order of the panel's list; empty where there is none. */
  readonly list: readonly Listed[]
  /** What may be stored, for whoever planned something else: “5 to 240 in steps of 5”. */
  readonly takes: string
}

/** What a form is read by. */
export interface FormSource {
  readonly panel: PanelModel
  /** Families that the panel can hear. */
  readonly families: readonly Family[]
}

/** The values of a form; the memory tells those that depend on another address. */
export function valuesOf(form: Form, source: FormSource): (memory: (address: string) => string) => Values {
  const { panel } = source
  switch (form.kind) {
    case 'stated':
      return statedValues(form.of, panel)
    case 'number':
      return always(numbers((value) => value >= form.from && value <= form.to, `${form.from} to ${form.to}`))
    case 'of-entry':
      return always(listed(entryList(form.list, panel)))
    case 'list':
      return always(listed(form.values))
    case 'bit':
      return always(
        listed([
          { value: 'on', keyed: '1', shows: form.on },
          { value: 'off', keyed: '0', shows: form.off },
        ]),
      )
    case 'digits':
      return always(plain((typed) => (/^\d+$/.test(typed) ? typed : null), 'digits'))
    case 'serial':
      return always(
        plain(
          (typed) => serialOf(source.families, typed),
          `an ID of ${source.families.map((family) => family.name).join(' or ')}`,
        ),
      )
    case 'label':
      return always(panel.label.style === 'library' ? wordValues(panel) : textValues(panel))
  }
}

const always = (values: Values) => () => values

function plain(read: Values['read'], takes: string): Values {
  return {
    read,
    keyed: (value) => (read(value) === value ? value : null),
    shows: (value) => value,
    stored: (shown) => (read(shown) === shown ? shown : null),
    list: [],
    takes,
  }
}

function listed(list: readonly Listed[]): Values {
  return {
    read: (typed) => list.find((item) => item.keyed === typed)?.value ?? null,
    keyed: (value) => list.find((item) => item.value === value)?.keyed ?? null,
    shows: (value) => list.find((item) => item.value === value)?.shows ?? value,
    stored: (shown) => list.find((item) => item.shows === shown)?.value ?? null,
    list,
    takes: list.map((item) => item.shows).join(', '),
  }
}

/** Numbers as the panel stores them: zeros in front are dropped. */
function numbers(holds: (value: number) => boolean, takes: string): Values {
  return plain(
    (typed) => (/^\d{1,5}$/.test(typed) && holds(Number(typed)) ? String(Number(typed)) : null),
    takes,
  )
}

function statedValues(
  of: Extract<Form, { kind: 'stated' }>['of'],
  panel: PanelModel,
): (memory: (address: string) => string) => Values {
  if (of === 'swinger') {
    const range = panel.swinger
    return always(
      numbers(
        (value) => range !== undefined && value >= range.from && value <= range.to,
        range ? `${range.from} to ${range.to}` : 'nothing',
      ),
    )
  }
  const field = of === 'siren' ? panel.siren : panel.delays[of]
  const within =
    (unit: { readonly min: number; readonly max: number; readonly step: number }) => (value: number) =>
      (value >= unit.min && value <= unit.max && value % unit.step === 0) ||
      field?.reserved.some((item) => item.value === value) === true
  if (!field) return always(numbers(() => false, 'nothing'))
  if (field.form === 'minutes-seconds') return always(minutesAndSeconds(within(field), unitWords(field)))
  const usual = numbers(within(field), unitWords(field))
  if (!field.switched) return always(usual)
  const switched = numbers(within(field.switched), unitWords(field.switched))
  return (memory) => (memory('system.exitUnit') === 'on' ? switched : usual)
}

/** Seconds that are typed and shown as minutes and seconds: 130 stands for 1:30. */
function minutesAndSeconds(holds: (value: number) => boolean, takes: string): Values {
  const keyed = (seconds: number): string => {
    const [minutes, rest] = [Math.floor(seconds / 60), seconds % 60]
    return minutes === 0 ? String(rest) : `${minutes}${String(rest).padStart(2, '0')}`
  }
  const secondsOf = (typed: string): number | null => {
    const [, minutes = '', rest = ''] = /^(\d{0,2}?)(\d{1,2})$/.exec(typed) ?? []
    return rest === '' || Number(rest) > 59 ? null : Number(minutes) * 60 + Number(rest)
  }
  return {
    read(typed) {
      const seconds = secondsOf(typed)
      return seconds !== null && holds(seconds) ? String(seconds) : null
    },
    keyed: (value) => (/^\d{1,4}$/.test(value) && holds(Number(value)) ? keyed(Number(value)) : null),
    shows: (value) => `${Math.floor(Number(value) / 60)}:${String(Number(value) % 60).padStart(2, '0')}`,
    stored(shown) {
      const seconds = /^\d{1,2}:\d{2}$/.test(shown) ? secondsOf(shown.replace(':', '')) : null
      return seconds !== null && holds(seconds) ? String(seconds) : null
    },
    list: [],
    takes: `${takes}, in seconds`,
  }
}

function unitWords({
  min,
  max,
  step,
}: {
  readonly min: number
  readonly max: number
  readonly step: number
}): string {
  return `${min} to ${max}${step === 1 ? '' : ` in steps of ${step}`}`
}

function entryList(list: Extract<Form, { kind: 'of-entry' }>['list'], panel: PanelModel): readonly Listed[] {
  if (list === 'responseTypes')
    return panel.responseTypes.map((type) => ({ value: type.code, keyed: type.code, shows: type.name }))
  if (list === 'kinds')
    return panel.equipment.kinds.map((kind) => ({ value: kind.keyed, keyed: kind.keyed, shows: kind.name }))
  const styles = panel.couplings?.chimeStyles ?? []
  return [
    { value: 'off', keyed: 'off', shows: 'off' },
    ...styles.map((style) => ({ value: style.key, keyed: style.keyed, shows: style.keyed })),
  ]
}

/** The ID that was typed whole, by a family that the panel hears; what a sticker has before and behind it is not taken here. */
function serialOf(families: readonly Family[], typed: string): string | null {
  for (const family of families) {
    const read = readSticker(family, typed)
    if (read.ok && read.serial === typed) return typed
  }
  return null
}

function textValues({ label }: PanelModel): Values {
  if (label.style !== 'text') return plain(() => null, 'nothing')
  const signs = new Set(label.characters)
  return plain(
    (typed) =>
      typed.trim() !== '' &&
      typed.length <= label.length &&
      [...typed].every((sign) => sign === ' ' || signs.has(sign))
        ? typed
        : null,
    `up to ${label.length} signs that it has`,
  )
}

/** Numbers of the panel's word list with a gap between them. */
function wordValues({ label }: PanelModel): Values {
  if (label.style !== 'library') return plain(() => null, 'nothing')
  const words = new Map(label.words.map((word) => [word.number, word.text]))
  const read = (typed: string): string | null => {
    const parts = typed.split(' ')
    return parts.length <= label.entries && parts.every((part) => words.has(part)) ? typed : null
  }
  return {
    read,
    keyed: read,
    shows: (value) =>
      value
        .split(' ')
        .map((part) => words.get(part) ?? part)
        .join(' '),
    stored(shown) {
      const numbers = libraryEntries(label, shown).map((entry) => entry.number)
      return numbers.length === 0 || numbers.includes(null) ? null : read(numbers.join(' '))
    },
    list: [],
    takes: `up to ${label.entries} words of its list`,
  }
}

/** What a memory holds at an address, nothing as the empty text. */
export function heldIn(...memories: readonly Memory[]): (address: string) => string {
  return (address) => {
    for (const memory of memories) {
      const value = memory.get(address)
      if (value !== undefined) return value
    }
    return ''
  }
}
