import { useSessionStorage, watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Explained, ExplainStart } from '#core'
import { useJob } from '../../store/job-store.ts'
import { usePanelDesk } from './usePanelDesk.ts'

/** Keys that are checked, kept in this tab, and what they do at the job's panel as it is planned now. */
export function useExplain(begins: ExplainStart) {
  const job = useJob()
  const { ask, failed, forget } = usePanelDesk('factory')
  const text = useSessionStorage(`kapelle-keys ${job.jobId ?? ''}`, '')
  const start = ref<ExplainStart>(begins)
  const answer = shallowRef<Explained | null>(null)
  let asked = 0

  async function explain(): Promise<void> {
    // The job may have been closed while a change was waited for.
    if (job.jobId === null) return
    const mine = (asked += 1)
    const told = text.value.trim() === '' ? null : await ask('explain', [text.value, start.value])
    if (mine === asked) answer.value = told
  }
  watchDebounced([text, start], explain, { debounce: 150, immediate: true })
  watch(
    () => job.doc,
    () => {
      forget()
      void explain()
    },
  )

  /** Where the keys cannot be read, as a line and a sign of it, counted from 1. */
  const wrong = computed(() => {
    if (answer.value?.ok !== false) return null
    const { at, reason } = answer.value
    const before = text.value.slice(0, at).split('\n')
    return `Line ${before.length}, sign ${(before.at(-1) ?? '').length + 1}: ${reason}`
  })
  const told = computed(() => (answer.value?.ok ? answer.value : null))
  return { text, start, told, wrong, failed }
}
