import { evidenceOf } from '../job/evidence.ts'
import type { JobDocument } from '../job/document.ts'
import type { RecordNamed } from '../job/records.ts'
import type { Memory } from './memory.ts'

type Held = RecordNamed<'held'>

/* What is known of a panel by what people keyed into it and read off it. */

/** What is known of one address. */
export interface KnownValue {
  /** As the panel stores it; the empty text where nothing is held. */
  readonly value: string
  readonly how: Held['how']
  /** When it was keyed or read, ISO 8601. */
  readonly at: string
  /** Whether it was read or kept after the panel had saved. */
  readonly saved: boolean
}

/** What is known of a panel now. */
export interface PanelReadings {
  /** The latest of each address, kept or not. */
  readonly now: ReadonlyMap<string, KnownValue>
  /** The latest reading of each address off the display, whatever was keyed since. */
  readonly read: ReadonlyMap<string, KnownValue>
  /** What it keeps: read after it had saved, or keyed and saved since. */
  readonly saved: ReadonlyMap<string, KnownValue>
  /** What was keyed or read and not saved since. */
  readonly unsaved: ReadonlyMap<string, KnownValue>
  /** The last keying that is not saved; null where all is. */
  readonly last: Held | null
  /** The last record by which it saved or became as it came; null for none. */
  readonly kept: Held | null
}

/**
 * The readings of a panel in the order of their time: the latest of an address counts, what was dropped unsaved counts no more, and
 * nothing of before it was brought back to how it came. Total.
 */
export function readingsOf(doc: JobDocument, panel: string): PanelReadings {
  let known: PanelReadings = nothing
  for (const record of evidenceOf(doc, 'held')) if (record.panel === panel) known = after(known, record)
  return known
}

const nothing: PanelReadings = {
  ...{ now: new Map(), read: new Map(), saved: new Map(), unsaved: new Map(), last: null, kept: null },
}

function after(before: PanelReadings, record: Held): PanelReadings {
  const { now, read, saved, unsaved, last, kept } = before
  if (record.how === 'wiped') return { ...nothing, kept: record }
  if (record.how === 'dropped') {
    // What was read of what is gone says nothing any more.
    const stays = new Map([...read].filter(([address]) => !unsaved.has(address)))
    return { ...nothing, now: saved, saved, kept, read: stays }
  }
  const known = new Map(
    record.values.map(({ address, value }): [string, KnownValue] => [
      address,
      { value, how: record.how, at: record.at, saved: record.saved },
    ]),
  )
  const is = new Map([...now, ...known])
  if (record.how === 'keyed') {
    // A panel keeps all of a session or nothing: what was keyed before it saved is kept with the rest.
    if (record.saved) return { ...nothing, now: is, saved: is, read, kept: record }
    return { ...before, now: is, unsaved: new Map([...unsaved, ...known]), last: record }
  }
  const off = new Map([...read, ...known])
  if (!record.saved) return { ...before, now: is, read: off, unsaved: new Map([...unsaved, ...known]) }
  return {
    ...{ now: is, read: off, saved: new Map([...saved, ...known]), last, kept },
    unsaved: new Map([...unsaved].filter(([address]) => !known.has(address))),
  }
}

/** What a panel holds as far as it is known: as it came, with what was kept or read since. Unsaved answers are left out. */
export function knownMemory(doc: JobDocument, panel: string, factory: Memory): Memory {
  const memory = new Map(factory)
  for (const [address, { value }] of readingsOf(doc, panel).saved)
    if (value === '') memory.delete(address)
    else memory.set(address, value)
  return memory
}
