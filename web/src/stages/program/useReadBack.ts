import { v4 as uuid } from 'uuid'
import { computed, onMounted, ref, shallowRef } from 'vue'
import { readBackState, systemOf, type DisplaySays, type ReadBackPlan } from '#core'
import { useJob } from '../../store/job-store.ts'
import { usePanelDesk } from './usePanelDesk.ts'

/** What stood on a display, compared: what is noted once somebody says that it stands there so. */
export type Compared = Extract<DisplaySays, { kind: 'values' }>

/**
 * Reading the panel back display by display, from a place inside it or from outside. What is read is noted at once, display by display,
 * so that a colleague goes on; what is left is asked of the job as it is when it begins.
 */
export function useReadBack(from: string | null) {
  const job = useJob()
  const { panel } = systemOf(job.doc, job.catalogue)
  const atOnce = job.catalogue.get('interface', panel?.interface ?? null)?.keeping === 'at-once'
  /** From outside the panel shows what it has kept. */
  const saved = atOnce || from === null
  const { ask, failed, forget } = usePanelDesk('keyed')
  const plan = shallowRef<ReadBackPlan | null>(null)
  const at = ref(0)
  const says = shallowRef<DisplaySays | null>(null)
  const state = computed(() => readBackState({ doc: job.doc, catalogue: job.catalogue }, job.rules))
  const step = computed(() => plan.value?.steps[at.value] ?? null)

  async function begin(): Promise<void> {
    forget()
    const { different = [], open = [], drawn = [] } = state.value ?? {}
    const left = new Set([...different.map(({ address }) => address), ...open])
    const addresses = (state.value?.wanted ?? []).filter((address) => left.has(address))
    plan.value = await ask('plan', [addresses.length > 0 ? addresses : [...drawn], from])
    at.value = 0
    says.value = null
  }
  onMounted(begin)

  function note(
    how: 'seen' | 'typed' | 'keyed',
    section: string,
    values: readonly { address: string; value: string }[],
  ): boolean {
    return (
      panel !== null &&
      job.edit(how === 'keyed' ? 'panel.keyed' : 'panel.read', [
        {
          op: 'add',
          record: {
            ...{ id: `held:${uuid()}`, type: 'held', ...job.fresh(), panel: panel.id, how },
            ...{ saved: how === 'keyed' ? atOnce : saved, section: section.slice(0, 90) },
            values: values.map(({ address, value }) => ({ address, value })),
          },
        },
      ])
    )
  }

  function next(): void {
    at.value += 1
    says.value = null
  }

  /** It shows what it should. */
  function shows(): void {
    if (step.value && note('seen', step.value.part, step.value.values)) next()
  }

  /** What was typed off the display: what is as the plan wants it is noted at once, anything else once it is confirmed. */
  async function typed(read: readonly string[]): Promise<void> {
    const here = step.value
    if (!here) return
    says.value = await ask('says', [{ place: here.place, shows: here.shows }, read])
    const said = says.value
    if (said?.kind === 'values' && said.here && said.values.every(({ is, value }) => is === value))
      stands(said)
  }

  /** It stands there so. */
  function stands(said: Compared): void {
    const values = said.values.map(({ address, is }) => ({ address, value: is }))
    if (!note('typed', said.part, values)) return
    if (said.here && said.values.every(({ is, value }) => is === value)) next()
  }

  /** A value was keyed right: its display is read once more. */
  function mended(section: string, value: { readonly address: string; readonly value: string }): void {
    if (note('keyed', section, [value])) says.value = null
  }

  return { plan, step, at, says, state, saved, atOnce, failed, begin, shows, typed, stands, mended, next }
}
