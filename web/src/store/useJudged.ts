import { useDebounceFn, useIntervalFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import {
  judge,
  jobInfo,
  owedList,
  writtenIn,
  placesOf,
  rulesInForce,
  serialsOf,
  systemOf,
  type Catalogue,
  type DevicePlace,
  type HouseRules,
  type JobDocument,
  type JudgeInput,
} from '#core'
import { api } from '../line/api.ts'

/** What is judged of an open job, each part only when it is looked at and something it depends on has changed. */
export function useJudged(opts: {
  readonly jobId: Ref<string | null>
  readonly doc: Ref<JobDocument>
  readonly catalogue: Ref<Catalogue>
  readonly houseRules: () => HouseRules
}) {
  const { jobId, doc, catalogue, houseRules } = opts
  const now = ref(new Date().toISOString())
  useIntervalFn(() => (now.value = new Date().toISOString()), 30_000)
  const elsewhere = useElsewhere(jobId, doc)
  const system = computed(() => (jobId.value ? systemOf(doc.value, catalogue.value) : null))
  /** What judging this job, or a copy of it, depends on. */
  function inputOf(document: JobDocument, entries: Catalogue): JudgeInput {
    return {
      doc: document,
      catalogue: entries,
      now: now.value,
      elsewhere: elsewhere.value,
      houseRules: houseRules(),
      times: writtenIn(jobInfo(document).region),
    }
  }
  const findings = computed(() => (jobId.value ? judge(inputOf(doc.value, catalogue.value)) : []))
  /** The house rules that hold for this job. */
  const rules = computed(() => rulesInForce(doc.value, houseRules()))
  /** Where each device stands, by device id. */
  const places = computed(() =>
    system.value ? placesOf(doc.value, system.value, rules.value) : new Map<string, DevicePlace>(),
  )
  const owed = computed(() =>
    jobId.value ? owedList(inputOf(doc.value, catalogue.value), findings.value) : [],
  )
  return { now, elsewhere, system, inputOf, findings, rules, places, owed }
}

/** The firm's other uses of this job's transmitters, asked for anew when they change; null while nobody knows. */
function useElsewhere(
  jobId: Ref<string | null>,
  doc: Ref<JobDocument>,
): Ref<readonly { serial: string; job: string }[] | null> {
  const elsewhere = shallowRef<readonly { serial: string; job: string }[] | null>(null)
  const serials = computed(() => (jobId.value ? [...serialsOf(doc.value)].sort().join(' ') : ''))
  watch(serials, useDebounceFn(ask, 400))
  // Of the next job nothing is known yet.
  watch(jobId, () => (elsewhere.value = null), { flush: 'sync' })

  async function ask(): Promise<void> {
    const id = jobId.value
    if (!id || serials.value === '') {
      elsewhere.value = []
      return
    }
    try {
      const path = `/api/jobs/${id}/elsewhere`
      const { uses } = await api<{ uses: { serial: string; job: string }[] }>('GET', path)
      if (jobId.value === id) elsewhere.value = uses
    } catch {
      elsewhere.value = null
    }
  }
  return elsewhere
}
