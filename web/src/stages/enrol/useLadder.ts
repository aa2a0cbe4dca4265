import { useNow } from '@vueuse/core'
import { v4 as uuid } from 'uuid'
import { computed, ref, shallowRef, watch } from 'vue'
import { helpedIn, ladderOf, leftWords, triedRecord, type Helped, type LadderRung } from '#core'
import { api } from '../../line/api.ts'
import { useJob } from '../../store/job-store.ts'
import type { Enrolling } from './useEnrol.ts'

/** What can be done about a target that is not heard, one press each; what helped with its model in the firm's jobs comes first. */
export function useLadder({ target }: Pick<Enrolling, 'target'>) {
  const job = useJob()
  const now = useNow({ interval: 1_000 })
  /** Of the firm's other jobs; empty while it is not known, as without a net. */
  const elsewhere = shallowRef<readonly Helped[]>([])
  watch(
    () => job.jobId,
    async (id) => {
      elsewhere.value = []
      if (id === null) return
      const answer = await api<{ helped: Helped[] }>('GET', `/api/jobs/${id}/helped`).catch(() => null)
      if (answer && job.jobId === id) elsewhere.value = answer.helped
    },
    { immediate: true },
  )
  const ladder = computed(() =>
    target.value && !target.value.done
      ? ladderOf({
          ...{ doc: job.doc, catalogue: job.catalogue, target: target.value },
          helped: [...helpedIn(job.doc), ...elsewhere.value],
        })
      : null,
  )
  /** The rung that is looked at: somebody's choice, what is being done, else the next. */
  const picked = ref<LadderRung['rung'] | null>(null)
  const doing = ref<LadderRung['rung'] | null>(null)
  watch(
    () => target.value?.id,
    () => {
      picked.value = null
      doing.value = null
    },
  )
  const shown = computed(
    () =>
      ladder.value?.rungs.find(({ rung }) => rung === (picked.value ?? doing.value ?? ladder.value?.next)) ??
      null,
  )
  const begun = computed(() => (ladder.value?.rungs ?? []).some(({ tried }) => tried.length > 0))
  /** What is left of the wait that a rung asks for since it was last begun, as on a clock; empty for none. */
  function waits({ tried, waitSeconds }: LadderRung): string {
    const at = tried.at(-1)
    if (at === undefined || waitSeconds === 0) return ''
    const ends = new Date(Date.parse(at) + waitSeconds * 1000)
    // The clock of the page ticks once a second: it may not have reached the press yet.
    const from = new Date(Math.max(now.value.getTime(), Date.parse(at)))
    return leftWords(from.toISOString(), ends.toISOString())
  }

  /** Notes that a rung is done now. */
  function doIt(rung: LadderRung): void {
    if (!target.value) return
    const record = triedRecord(job.doc, {
      ...{ id: `tried:${uuid()}`, target: target.value, rung },
      ...{ who: job.me, at: new Date().toISOString() },
    })
    if (!job.edit('enrol.tried', [{ op: 'add', record }])) return
    picked.value = null
    doing.value = rung.rung
    if (rung.rung === 'type') document.getElementById('sticker-entry')?.focus()
  }

  /** It is still not heard: the next comes up. */
  function stillNothing(): void {
    picked.value = null
    doing.value = null
  }

  return { ladder, shown, picked, doing, begun, waits, doIt, stillNothing }
}
