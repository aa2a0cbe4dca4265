import { v4 as uuid } from 'uuid'
import { computed, onMounted, ref, shallowRef } from 'vue'
import {
  planTakes,
  readingsOf,
  systemOf,
  type AuditReport,
  type NextDisplay,
  type StandingValue,
  type StandsThere,
} from '#core'
import { useJob } from '../../store/job-store.ts'
import { usePanelDesk } from './usePanelDesk.ts'

/** Lines that say what the panel holds. */
export type Standing = Extract<StandsThere, { kind: 'values' }>

/**
 * Reading off a panel of which nothing is known. What stands there is noted display by display, so that a colleague goes on; where one
 * is in it, and what was passed over, belongs to this page alone.
 */
export function useTakeStock() {
  const job = useJob()
  const { panel } = systemOf(job.doc, job.catalogue)
  const { ask, failed, forget } = usePanelDesk('keyed')
  const asked = new Set<string>()
  const from = ref<string | null>(null)
  const next = shallowRef<NextDisplay | null>(null)
  const working = ref(true)
  const said = shallowRef<StandsThere | null>(null)
  const upTo = ref<number | null>(null)
  /** What a display could not tell from nothing, by address. */
  const vague = shallowRef<ReadonlyMap<string, StandingValue>>(new Map())
  const report = shallowRef<AuditReport | null>(null)
  const leave = ref('')
  const count = ref(0)
  const passed = ref(0)

  const read = computed(
    () =>
      new Map(
        [...readingsOf(job.doc, panel?.id ?? '').saved].map(([address, { value }]) => [address, value]),
      ),
  )

  async function look(): Promise<void> {
    working.value = true
    said.value = null
    next.value = await ask('look', [{ read: read.value, asked, upTo: upTo.value }, from.value])
    if (!next.value) await tell()
    working.value = false
  }
  onMounted(look)

  /** What was read, beside the plan as it is now. */
  async function tell(): Promise<void> {
    forget()
    report.value = await ask('report', [read.value])
    leave.value = from.value === null ? '' : ((await ask('leave', [read.value, from.value])) ?? '')
  }

  async function note(how: 'seen' | 'typed', place: string, values: readonly StandingValue[]): Promise<void> {
    const [first] = values
    const record = first && {
      ...{ id: `held:${uuid()}`, type: 'held' as const, ...job.fresh(), panel: panel?.id ?? '', how },
      ...{ saved: true, section: first.part.slice(0, 90) },
      values: values.map(({ address, value }) => ({ address, value })),
    }
    if (record && !job.edit('panel.read', [{ op: 'add', record }])) return
    from.value = place
    count.value += 1
    await look()
  }

  /** Nothing is stored there. */
  async function isEmpty(): Promise<void> {
    if (next.value?.empty) await note('seen', next.value.place, next.value.empty.values)
  }

  async function typed(lines: readonly string[], at: string): Promise<void> {
    said.value = await ask('stands', [read.value, lines, at])
  }

  /** It stands there so. */
  async function stands({ place, values, vague: unclear }: Standing): Promise<void> {
    vague.value = new Map([...vague.value, ...unclear.map((one) => [one.address, one] as const)])
    // It would be asked for again and again: what it cannot tell stays unknown.
    if (unclear.length > 0) asked.add(place)
    await note('typed', place, values)
  }

  /** Goes on without it. */
  async function pass(): Promise<void> {
    if (next.value) asked.add(next.value.place)
    passed.value += 1
    await look()
  }

  /** What the plan would be with what stands in the panel. */
  const takes = computed(() =>
    planTakes({ doc: job.doc, catalogue: job.catalogue }, report.value?.held ?? new Map()),
  )
  async function take(): Promise<void> {
    if (job.edit('panel.followed', [...takes.value.ops])) await tell()
  }

  return {
    ...{ next, said, working, failed, report, leave, vague, read, upTo, takes, count, passed },
    ...{ look, tell, isEmpty, typed, stands, pass, take },
  }
}
