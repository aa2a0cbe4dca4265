import { onUnmounted, ref, toRaw } from 'vue'
import type { SheetStart } from '#core'
import { useJob } from '../../store/job-store.ts'
import {
  panelDesk,
  type PanelAnswers,
  type PanelAsked,
  type PanelJob,
  type PanelRequest,
} from './panel-worker.ts'

/** Asks about the job's panel as the plan was when the first question was asked; the work is done in a worker. */
export function usePanelDesk(start: SheetStart) {
  const job = useJob()
  const failed = ref(false)
  const open = new Map<number, (answer: never) => void>()
  let worker: Worker | null = null
  let desk: ReturnType<typeof panelDesk> | null = null
  let count = 0

  /** The answer; null where nobody has described the panel. It never comes once the page has gone or the worker failed. */
  function ask<K extends PanelAsked['kind']>(
    kind: K,
    asked: Extract<PanelAsked, { kind: K }>['asked'],
  ): Promise<PanelAnswers[K] | null> {
    failed.value = false
    const question = { kind, asked } as PanelAsked
    if (typeof Worker === 'undefined') {
      desk ??= panelDesk(thisJob())
      return Promise.resolve(desk(question) as PanelAnswers[K] | null)
    }
    const id = (count += 1)
    return new Promise((resolve) => {
      open.set(id, resolve as (answer: never) => void)
      started().postMessage({ id, asked: structuredClone(toRaw(question)) } satisfies PanelRequest)
    })
  }

  function thisJob(): PanelJob {
    return { doc: toRaw(job.doc), entries: job.catalogue.kept, start }
  }

  function started(): Worker {
    if (worker) return worker
    worker = new Worker(new URL('./panel-worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = (event: MessageEvent<{ id: number; answer: never }>) => {
      open.get(event.data.id)?.(event.data.answer)
      open.delete(event.data.id)
    }
    worker.onerror = () => {
      failed.value = true
      stop()
    }
    worker.postMessage({ job: thisJob() } satisfies PanelRequest)
    return worker
  }

  function stop(): void {
    worker?.terminate()
    worker = null
    open.clear()
  }

  /** Asks of the job as it is now from here on. */
  function forget(): void {
    stop()
    desk = null
  }

  onUnmounted(stop)
  return { ask, failed, forget }
}
