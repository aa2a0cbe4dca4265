import { onUnmounted, ref, shallowRef, toRaw } from 'vue'
import { lostFor, type LostAnswer, type LostAsked, type SheetStart } from '#core'
import { useJob } from '../../store/job-store.ts'
import type { LostRequest } from './lost-worker.ts'

/** Asks where the panel may be, by what its display says; the panel's map is drawn in a worker when it is first asked. */
export function useLost(start: SheetStart) {
  const job = useJob()
  const answer = shallowRef<LostAnswer | null>(null)
  const working = ref(false)
  const failed = ref(false)
  let worker: Worker | null = null
  let here: ReturnType<typeof lostFor> = null

  function ask(asked: LostAsked): void {
    failed.value = false
    if (typeof Worker === 'undefined') {
      here ??= lostFor({ doc: job.doc, catalogue: job.catalogue, start })
      answer.value = here?.(asked) ?? null
      return
    }
    working.value = true
    started().postMessage({ asked } satisfies LostRequest)
  }

  function started(): Worker {
    if (worker) return worker
    worker = new Worker(new URL('./lost-worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = (event: MessageEvent<LostAnswer | null>) => {
      answer.value = event.data
      working.value = false
    }
    worker.onerror = () => {
      failed.value = true
      stop()
    }
    const { doc, catalogue } = job
    worker.postMessage({
      job: { doc: toRaw(doc), entries: catalogue.kept, start },
    } satisfies LostRequest)
    return worker
  }

  function stop(): void {
    worker?.terminate()
    worker = null
    working.value = false
  }

  onUnmounted(stop)
  return { answer, working, failed, ask }
}
