import { hashOf } from '../units/canonical.ts'
import { pressedClasses } from './entry-fields.ts'
import type { CatalogueEntry, Price } from './schema.ts'

/** An entry as it was written: what a pin hashes. Hash and raw entry travel together; readers upgrade, and never hash what came of it. */
export interface WrittenEntry {
  /** SHA-256 of the raw entry's canonical JSON. */
  readonly hash: string
  /** Number of the pack form it was written in. */
  readonly form: number
  /** The entry as it was written. */
  readonly raw: unknown
}

/** A written entry with what it says, in the form in force. */
export interface KeptEntry extends WrittenEntry {
  readonly entry: CatalogueEntry
}

/** Number of the pack form in force. Whatever adds entry fields takes the next one. */
export const PACK_FORMAT = 8

type Raw = Readonly<Record<string, unknown>>

/**
 * Steps from one form to the next; `steps[0]` reads form 1. What an older form did not have stays away: it reads as not
 * stated, never as a comforting default. Form 2 is form 1 with a number that counts; form 3 may say which families keep an average
 * of a whole day; form 4 which models join smoke and heat, and where they are apart; form 5 how a device is handled
 * before it is learned: where its sticker is, how long it is held, in which order its batteries go in, how long it sleeps; form 6 how a
 * panel is keyed, as an entry of its own; form 7 where the answers of an entry were read; form 8 leaves more of it open: encryption, answers, disarming,
 * ends of temperature, battery type, sticker, what a receiver holds and takes, and from which reading on a link is good.
 */
const asItWas = (raw: Raw): Raw => raw
const steps: readonly ((raw: Raw) => Raw)[] = [
  asItWas,
  asItWas,
  asItWas,
  asItWas,
  asItWas,
  asItWas,
  neverOrOpen,
]

/** Up to form 7 no check-in was “it does not, or not stated”: that is not stated, but for what sends only when it is pressed. */
function neverOrOpen(raw: Raw): Raw {
  const { checkInMinutes, ...rest } = raw
  const open =
    raw.kind === 'device' && checkInMinutes === null && raw.family !== null && !pressedClasses.has(raw.class)
  return open ? rest : raw
}

/** The raw entry brought to the form in force, not yet checked. */
export function upgradedEntry(raw: unknown, form: number): unknown {
  if (typeof raw !== 'object' || raw === null) return raw
  return steps.slice(form - 1).reduce((value, step) => step(value), raw as Raw)
}

/** A written entry that was checked when it was taken in, as it reads now. */
export function readKept(written: WrittenEntry): KeptEntry {
  return { ...written, entry: upgradedEntry(written.raw, written.form) as CatalogueEntry }
}

/** An entry made here, in the form in force. */
export function keepEntry(entry: CatalogueEntry): KeptEntry {
  return { hash: hashOf(entry), form: PACK_FORMAT, raw: entry, entry }
}

/** What travels of a kept entry. */
export function writtenOf({ hash, form, raw }: KeptEntry): WrittenEntry {
  return { hash, form, raw }
}

/** The version of an entry that comes after this one. */
export function nextVersion(version: string): string {
  const number = Number(version)
  // A version has 20 characters at most.
  return Number.isInteger(number) ? String(number + 1) : `${version.slice(0, 18)}.1`
}

/** A device with another price as the next version of its entry, in the form in which it was written; `null` for no price stated. */
export function pricedEntry(kept: KeptEntry, price: Price | null): KeptEntry {
  const { price: _price, ...rest } = kept.raw as Record<string, unknown>
  const raw = { ...rest, version: nextVersion(kept.entry.version), ...(price ? { price } : {}) }
  return readKept({ hash: hashOf(raw), form: kept.form, raw })
}
