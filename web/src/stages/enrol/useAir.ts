import { useNow } from '@vueuse/core'
import { computed, shallowRef, watch, type ComputedRef, type ShallowRef } from 'vue'
import { jobInfo, transmissions, type Transmission } from '#core'
import { useJob } from '../../store/job-store.ts'

/** How far back a page that begins to listen hears, in milliseconds. */
const BACK_MS = 15_000
const KEPT = 40

/** What a practice job hears. */
export interface Air {
  readonly listening: ComputedRef<boolean>
  /** What was heard, newest first. */
  readonly heard: ShallowRef<readonly Transmission[]>
  /** Seconds since listening began. */
  readonly seconds: ComputedRef<number>
  start(): void
  stop(): void
}

/**
 * Listens to the simulated air of the open practice job: it is the same for everyone who looks at the job at the same time. A
 * real job never listens.
 */
export function useAir(): Air {
  const job = useJob()
  const now = useNow({ interval: 500 })
  const heard = shallowRef<readonly Transmission[]>([])
  const startedAt = computed(() => {
    const info = job.jobId ? jobInfo(job.doc) : null
    return info?.practice ? info.airStartedAt : null
  })
  const listening = computed(() => startedAt.value !== null)
  const elapsed = computed(() => (startedAt.value ? now.value.getTime() - Date.parse(startedAt.value) : 0))
  let upTo = 0

  watch(startedAt, () => {
    heard.value = []
    upTo = Math.max(0, elapsed.value - BACK_MS)
  })
  watch(
    elapsed,
    (to) => {
      if (!listening.value || to <= upTo) return
      const fresh = transmissions(
        { doc: job.doc, catalogue: job.catalogue },
        Math.max(upTo, to - 4 * BACK_MS),
        to,
      )
      upTo = to
      if (fresh.length > 0) heard.value = [...fresh.reverse(), ...heard.value].slice(0, KEPT)
    },
    { immediate: true },
  )

  return {
    listening,
    heard,
    seconds: computed(() => Math.max(0, Math.floor(elapsed.value / 1000))),
    start: () =>
      void job.set('air.listen', 'job:main', 'airStartedAt', startedAt.value, new Date().toISOString()),
    stop: () => void job.set('air.stop', 'job:main', 'airStartedAt', startedAt.value, null),
  }
}
