import { describe, expect, it } from 'vitest'
import { compiled, type Compiled } from '../panel/compiled.ts'
import { display } from '../panel/display.ts'
import { act, switchedOn } from '../panel/machine.ts'
import { keptDraft, type PanelState } from '../panel/state.ts'
import { catalogue } from '../testing/small-job.ts'
import { runs } from '../testing/runs.ts'
import { seededRandom } from '../units/random.ts'
import { draftEntry } from './entry.ts'
import { ExploringInstaller } from './testing/exploring-installer.ts'
import { anyAct } from './testing/whole-answers.ts'

const described = catalogue.entries.flatMap((entry) =>
  entry.kind === 'panel' && entry.interface !== null ? [entry] : [],
)
const isLong = process.env.KAPELLE_LONG === '1'
/** Two panels that are keyed alike are both tried where there is time. */
const panels = described.filter(
  (panel, index) => isLong || described.findIndex((one) => one.interface === panel.interface) === index,
)
const families = catalogue.entries.flatMap((entry) => (entry.kind === 'family' ? [entry] : []))

/**
 * Rows of a dozen questions for each of many zones: at the last zone the script does not come to their end by chance, so that what
 * follows there stays untold. Held against fewer acts.
 */
const farEnds: readonly string[] = ['interface/ostler-s', 'interface/quillet-32']

/** What can be seen and heard of a panel. */
const seen = (panel: Compiled, state: PanelState) => ({
  ...{ shows: display(panel, state), beeped: state.beeped },
})
const holds = (state: PanelState): string => JSON.stringify([...keptDraft(state)].sort())

describe('an interface described by answering at its panel', () => {
  it.each(panels.map((model) => [model.name, model] as const))(
    '%s: acts as the panel does on random keys',
    (_name, model) => {
      const installer = new ExploringInstaller(catalogue, model, 7)
      // Until nothing new was asked for a whole round, and the manual names no display that was not seen.
      let asked = -1
      for (let round = 0; round < 16 && (asked < installer.asked || installer.unseen.length > 0); round++) {
        asked = installer.asked
        installer.explore(4000)
        installer.wander(isLong ? 60_000 : 20_000)
      }
      const { kept, problems, missing } = draftEntry(installer.doc, catalogue)
      expect([...problems.map((one) => `${one.path} ${one.message}`), ...missing]).toEqual([])
      if (kept?.entry.kind !== 'interface') throw new RangeError('no interface came of it')
      const mine = compiled(kept.entry, model, families)
      const real = compiled(installer.real.description, model, families)
      const random = seededRandom(11)
      let at = [switchedOn(real, real.factory), switchedOn(mine, mine.factory)] as const
      for (let count = 0; count < (farEnds.includes(model.interface ?? '') ? 2_000 : runs(20_000)); count++)
        for (const input of anyAct(real, at[0], random)) {
          const before = at[0].screen
          at = [act(real, at[0], input), act(mine, at[1], input)]
          expect({ before, input, ...seen(mine, at[1]) }).toEqual({ before, input, ...seen(real, at[0]) })
        }
      expect(holds(at[1])).toBe(holds(at[0]))
    },
  )
})
