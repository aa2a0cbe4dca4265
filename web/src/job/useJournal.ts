import { ref, shallowRef, watch, type Ref } from 'vue'
import type { JournalEntry } from '#core'
import { api } from '../line/api.ts'
import { useJob } from '../store/job-store.ts'

const PAGE = 100

/** The open job's journal, newest first, page by page; with records in question only what touched them. */
export function useJournal(open: Readonly<Ref<boolean>>) {
  const job = useJob()
  const entries = shallowRef<readonly JournalEntry[]>([])
  /** Whether there may be entries behind the last one. */
  const older = ref(false)
  const state = ref<'ready' | 'loading' | 'failed'>('ready')
  let asked = 0

  watch(
    () => [open.value, job.jobId, job.journalAbout],
    () => {
      entries.value = []
      if (open.value && job.jobId) void more()
    },
  )
  // What the server has taken meanwhile comes to the front.
  watch(
    () => job.revision,
    () => open.value && void refresh(),
  )

  async function more(): Promise<void> {
    const last = entries.value.at(-1)
    const page = await fetchPage(last ? last.revision : null)
    if (page) {
      entries.value = [...entries.value, ...page]
      older.value = page.length === PAGE
    }
  }

  async function refresh(): Promise<void> {
    const page = await fetchPage(null)
    if (!page) return
    const floor = page.at(-1)?.revision ?? 0
    entries.value = [...page, ...entries.value.filter((entry) => entry.revision < floor)]
  }

  async function fetchPage(before: number | null): Promise<readonly JournalEntry[] | null> {
    const turn = (asked += 1)
    state.value = 'loading'
    const about = [...(job.journalAbout?.ids ?? [])].join(',')
    const query = new URLSearchParams({ ...(before === null ? {} : { before: String(before) }), about })
    const answer = await api<{ entries: JournalEntry[] }>(
      'GET',
      `/api/jobs/${job.jobId}/journal?${query}`,
    ).catch(() => null)
    if (turn !== asked) return null
    state.value = answer ? 'ready' : 'failed'
    return answer?.entries ?? null
  }

  return { entries, older, state, more }
}
