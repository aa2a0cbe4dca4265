import { shallowRef, watch, type ShallowRef } from 'vue'
import { lastTouch, type Conflict, type JobRecord, type JournalEntry } from '#core'
import { api } from '../line/api.ts'
import { useJob } from '../store/job-store.ts'

/** Who last changed what a conflict is about, and when: asked of the journal; empty until it answers, or without a net. */
export function useTouch(
  conflict: () => Conflict | null,
): ShallowRef<{ readonly who: string | null; readonly when: string | null }> {
  const job = useJob()
  const touch = shallowRef<{ who: string | null; when: string | null }>({ who: null, when: null })
  watch(
    conflict,
    async (now) => {
      touch.value = { who: null, when: null }
      if (!now?.id) return
      const about = encodeURIComponent(now.id)
      const page = await api<{ entries: JournalEntry[] }>(
        'GET',
        `/api/jobs/${job.jobId}/journal?about=${about}`,
      ).catch(() => null)
      const entry = page && lastTouch<JobRecord>([...page.entries].reverse(), now.id, now.field)
      if (entry && conflict() === now) touch.value = { who: entry.edit.by.name, when: entry.takenAt }
    },
    { immediate: true },
  )
  return touch
}
