import { expect, it } from 'vitest'
import type { DeviceModel } from '../catalogue/schema.ts'
import { catalogue } from '../testing/small-job.ts'
import { draftEntry } from './entry.ts'
import { draftInfo, draftKernel } from './records.ts'
import { correctionBySeenLoop } from './seen-loop.ts'

/** Every event of every radio device of the catalogue. */
const all = catalogue
  .all('device')
  .filter(({ family }) => family !== null)
  .flatMap((model) => model.loops.map(({ event, loop }) => ({ model, event, loop })))

it('corrects that one loop and says where it was seen, for every event of every device', () => {
  expect(all.length).toBeGreaterThan(100)
  for (const { model, event, loop } of all) {
    // A loop that the entry has not.
    const seen = [1, 2, 3, 4, 5, 6, 7, 8, 9].find((one) => !model.loops.some((own) => own.loop === one)) ?? 16
    const ops = correctionBySeenLoop(
      model,
      { event, loop: seen, source: 'seen on the panel, Mill' },
      catalogue,
    )
    const begun = draftKernel.applyOps(draftKernel.empty, ops)
    if (!begun.ok) throw new Error(model.id)
    expect(draftInfo(begun.doc)?.corrects).toBe(model.id)
    const { kept, problems, missing } = draftEntry(begun.doc, catalogue)
    expect([model.id, problems, missing]).toEqual([model.id, [], []])
    const { sources, ...entry } = kept?.entry as DeviceModel
    const { sources: _sources, ...before } = model
    expect(entry).toEqual({
      ...before,
      version: entry.version,
      loops: model.loops.map((own) =>
        own.event === event && own.loop === loop ? { ...own, loop: seen } : own,
      ),
    })
    expect(entry.version).not.toBe(model.version)
    expect(sources?.find(({ path }) => path === 'loops')?.from).toBe('seen on the panel, Mill')
  }
})
