import { onUnmounted, ref, shallowRef, toRaw } from 'vue'
import { useJob } from '../../store/job-store.ts'
import type { SolveMessage, SolveRequest } from './solve-worker.ts'

/** Searches what would make the whole kit fit, in a worker: progress as it goes, and it can be stopped. */
export function useSolver() {
  const job = useJob()
  const running = ref(false)
  const stopped = ref(false)
  const progress = shallowRef<SolveMessage | null>(null)
  let worker: Worker | null = null

  function start(): void {
    end()
    progress.value = null
    stopped.value = false
    running.value = true
    worker = new Worker(new URL('./solve-worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = (event: MessageEvent<SolveMessage>) => {
      progress.value = event.data
      if (event.data.ended) end()
    }
    worker.onerror = end
    const request: SolveRequest = {
      doc: toRaw(job.doc),
      entries: job.catalogue.kept,
      costs: toRaw(job.rules.costs),
    }
    worker.postMessage(request)
  }

  /** Ends the search early; its best so far stays, with the bound below which nothing can be. */
  function stop(): void {
    stopped.value = running.value
    end()
  }

  function end(): void {
    worker?.terminate()
    worker = null
    running.value = false
  }

  onUnmounted(end)
  return { running, stopped, progress, start, stop }
}
