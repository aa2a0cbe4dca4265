import type { Doc } from '../records/ops.ts'
import type { MovedSet, RawRecord, Step } from '../records/upgrade.ts'

type Records = Readonly<Record<string, RawRecord>>

/**
 * Shape 6: a job is practice or real, and evidence says where it comes from. Jobs of before are real: what they took from
 * simulated air, and from a sister that was learned from it, is practice and so counts for nothing; what was typed or scanned
 * is a sticker's ID that nobody heard. A noted sticker that an accepted typed ID equals may have been written in from it.
 */
export function sourcesStep(to: number): Step {
  return {
    to,
    records(records) {
      const typed = typedIds(records)
      return Object.fromEntries(
        Object.entries(records).map(([id, raw]) => [
          id,
          raw.type === 'device'
            ? filled({ stickerUnsure: typed.get(id)?.has(String(raw.sticker)) ?? false, ...raw } as RawRecord)
            : filled(raw),
        ]),
      )
    },
    record: (raw, doc) => filled(raw.type === 'device' ? { ...unsureIn(doc, raw), ...raw } : raw),
    set: (op): MovedSet => [op],
  }
}

const sources: Readonly<Record<string, string>> = {
  air: 'practice',
  sister: 'practice',
  typed: 'sticker',
  scanned: 'sticker',
}

const fill: Readonly<Record<string, Readonly<Record<string, unknown>>>> = {
  job: { practice: false, exercise: 'plain' },
  device: { stickerUnsure: false },
  heard: { shown: null, times: null },
  test: { loop: null, method: '' },
  state: { about: null },
  signoff: { about: null, keyed: null },
}

/** A record with what shape 6 adds to it; what it says already stays. */
function filled(raw: RawRecord): RawRecord {
  const record = { ...fill[raw.type], ...raw } as RawRecord
  if (raw.type === 'heard')
    return { ...record, source: sources[String(raw.source)] ?? raw.source, of: copied(raw.of) } as RawRecord
  return raw.type === 'test' ? ({ ...record, of: copied(raw.of) } as RawRecord) : record
}

/** The copy of what a piece of evidence names: neither IDs nor delays were kept in it. */
function copied(of: unknown): unknown {
  if (typeof of !== 'object' || of === null) return null
  const zones = ('zones' in of && Array.isArray(of.zones) ? of.zones : []) as object[]
  return {
    serial: null,
    user: null,
    ...of,
    zones: zones.map((zone) => ({ serial: null, delay: null, ...zone })),
  }
}

/** The accepted typed IDs of each device, in its slot or on its zones. */
function typedIds(records: Records): ReadonlyMap<string, ReadonlySet<string>> {
  const ids = new Map<string, Set<string>>()
  for (const raw of Object.values(records)) {
    if (raw.type !== 'heard' || raw.source !== 'typed' || raw.decision !== 'accepted') continue
    const subject = String(raw.subject)
    const zone = records[subject]
    const device = zone?.type === 'zone' ? String(zone.device) : subject
    ids.set(device, (ids.get(device) ?? new Set()).add(String(raw.serial)))
  }
  return ids
}

/** Whether a device that an edit takes out has an unconfirmed sticker in the document that it is taken out of. */
function unsureIn(doc: Doc<RawRecord> | null, raw: RawRecord): object {
  const there = doc?.records[raw.id]
  return there && there.sticker === raw.sticker ? { stickerUnsure: there.stickerUnsure ?? false } : {}
}
