import { describe, expect, it } from 'vitest'
import type { DeviceModel } from '../catalogue/schema.ts'
import { keepEntry } from '../catalogue/written.ts'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { applyOps, invertOps } from '../job/edit.ts'
import { pinUpdateOps, pinUpdates } from '../job/pins.ts'
import { catalogue, cleanTarn } from '../testing/small-job.ts'
import { findingChanges } from './changes.ts'
import { judge } from './judge.ts'

/** The catalogue after its maker learned that the Stilt Hound needs two-way, and that a Reedling reports on loop 6. */
const later = catalogue.with([
  keepEntry({ ...(catalogue.get('device', 'device/stilt-hound') as DeviceModel), needsTwoWay: true }),
  keepEntry({
    ...(catalogue.get('device', 'device/reedling') as DeviceModel),
    loops: [{ loop: 6, event: 'open', name: 'reed', bench: true }],
  }),
])
const judged = (doc: ReturnType<typeof cleanTarn>['doc'], entries: typeof catalogue) =>
  judge({
    doc,
    catalogue: entries,
    now: '2026-05-04T09:30:00Z',
    elsewhere: [],
    houseRules: defaultHouseRules,
  })

describe('a newer catalogue', () => {
  it('is told per pinned entry, and not of what the job does not use', () => {
    const { doc } = cleanTarn()
    expect(pinUpdates(doc, catalogue)).toEqual([])
    expect(
      pinUpdates(doc, later)
        .map((update) => update.entry.id)
        .sort(),
    ).toEqual(['device/reedling', 'device/stilt-hound'])
  })

  it('says which findings would come and go before it is taken', () => {
    const { doc } = cleanTarn()
    const before = judged(doc, catalogue)
    const changes = findingChanges(before, judged(doc, later))
    expect(changes.come.map((finding) => finding.rule).sort()).toEqual(['loop-wrong', 'no-fit'])
    expect(changes.go).toEqual([])
    expect(findingChanges(judged(doc, later), before).go).toHaveLength(2)
    expect(findingChanges(before, before)).toEqual({ come: [], go: [] })
  })

  it('is taken by an edit that can be undone', () => {
    const { doc } = cleanTarn()
    const ops = pinUpdateOps(doc, later, pinUpdates(doc, later))
    const taken = applyOps(doc, ops)
    if (!taken.ok) throw new Error(taken.conflict.id)
    expect(pinUpdates(taken.doc, later)).toEqual([])
    const back = applyOps(taken.doc, invertOps(taken.took))
    expect(back.ok && back.doc.records).toEqual(doc.records)
  })
})
