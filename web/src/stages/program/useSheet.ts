import { watchDebounced } from '@vueuse/core'
import { onUnmounted, ref, shallowRef, toRaw, watch, type Ref } from 'vue'
import { panelSheet, type PanelSheet, type SheetStart } from '#core'
import { useJob } from '../../store/job-store.ts'
import type { SheetRequest } from './sheet-worker.ts'

/** The sheet of the panel's own keys, made in a worker and again whenever the plan or where it begins changes. */
export function useSheet(start: Ref<SheetStart>) {
  const job = useJob()
  const sheet = shallowRef<PanelSheet | null>(null)
  const working = ref(true)
  const failed = ref(false)
  let worker: Worker | null = null
  let gone = false

  function make(): void {
    // A change that was waited for may come after the page has gone.
    if (gone) return
    end()
    working.value = true
    failed.value = false
    const { sheetOrder: order, identity } = job.rules.schools
    if (typeof Worker === 'undefined') {
      sheet.value = panelSheet({
        doc: job.doc,
        catalogue: job.catalogue,
        start: start.value,
        order,
        identity,
      })
      working.value = false
      return
    }
    worker = new Worker(new URL('./sheet-worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = (event: MessageEvent<PanelSheet | null>) => {
      sheet.value = event.data
      end()
    }
    worker.onerror = () => {
      failed.value = true
      end()
    }
    worker.postMessage({
      doc: toRaw(job.doc),
      entries: job.catalogue.kept,
      start: start.value,
      order,
      identity,
    } satisfies SheetRequest)
  }

  function end(): void {
    worker?.terminate()
    worker = null
    working.value = false
  }

  // A plan that is being typed into is waited for; what is first shown is not.
  const schools = (): string => `${job.rules.schools.sheetOrder} ${job.rules.schools.identity}`
  watchDebounced([() => job.doc, () => job.catalogue, schools], make, {
    debounce: 150,
  })
  watch(start, make, { immediate: true })
  onUnmounted(() => {
    gone = true
    end()
  })
  return { sheet, working, failed }
}
