<script setup lang="ts">
import { mdiMagnify } from '@mdi/js'
import { useDebounceFn } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { JobList } from '#core'
import { api } from '../line/api.ts'
import { useSession } from '../line/session.ts'
import { latelyOf, noteUsed, type Used } from './lately.ts'
import { rank } from './rank.ts'
import { useFindable, type Hit } from './useFindable.ts'

/** How many are shown at once: whoever sees none of them types another word. */
const SHOWN = 40

const open = defineModel<boolean>({ required: true })
const router = useRouter()
const session = useSession()
const findable = useFindable()
const typed = ref('')
const at = ref(0)
const jobs = ref<readonly Hit[]>([])
/** Whether the server could not be asked: jobs are then those of this page alone. */
const alone = ref(false)
const lately = ref<readonly Used[]>([])
const field = useTemplateRef<HTMLInputElement>('field')
const list = useTemplateRef<HTMLElement>('list')
const firm = computed(() => session.person?.firmId ?? '')

watch(open, begin, { immediate: true })

async function begin(now: boolean): Promise<void> {
  if (!now) return
  typed.value = ''
  at.value = 0
  lately.value = latelyOf(firm.value)
  void askJobs()
  await nextTick()
  field.value?.focus()
}

/** Jobs are known to the server alone: by name, address or serial, of this firm. */
async function askJobs(): Promise<void> {
  const asked = typed.value
  try {
    const { jobs: found } = await api<JobList>('GET', `/api/jobs?find=${encodeURIComponent(asked)}`)
    alone.value = false
    // An answer to what was typed before is no answer.
    if (asked !== typed.value) return
    jobs.value = found.slice(0, 8).map((row) => {
      const path = `/jobs/${row.id}/${row.summary?.stage ?? 'survey'}`
      return {
        ...{ key: `job:${row.id}`, sort: 'job', title: row.name, detail: row.address, also: asked, path },
        go: () => void router.push(path),
      }
    })
  } catch {
    alone.value = true
    jobs.value = []
  }
}
const askSoon = useDebounceFn(askJobs, 150)
watch(typed, () => {
  at.value = 0
  void askSoon()
})

/** What was used lately and is not at hand now, such as another job. */
const before = computed((): Hit[] => {
  const known = new Set([...jobs.value, ...findable.value].map(({ key }) => key))
  return lately.value.flatMap(({ path, ...used }) =>
    path === null || known.has(used.key)
      ? []
      : [{ ...used, path, sort: 'lately', also: '', go: () => void router.push(path) }],
  )
})
const hits = computed(() =>
  rank(
    [...findable.value, ...jobs.value, ...before.value],
    typed.value,
    lately.value.map(({ key }) => key),
  ).slice(0, SHOWN),
)

function move(step: number): void {
  const count = hits.value.length
  if (count === 0) return
  at.value = (at.value + step + count) % count
  void nextTick(() =>
    list.value?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' }),
  )
}

function take(hit: Hit | undefined): void {
  if (!hit) return
  noteUsed(firm.value, { key: hit.key, title: hit.title, detail: hit.detail, path: hit.path })
  open.value = false
  // An act may open a dialog of its own: this one has to be gone by then.
  void nextTick(hit.go)
}
</script>

<template>
  <v-dialog v-model="open" max-width="640" location="top" :transition="false" class="search-dialog">
    <v-card aria-label="Search">
      <label class="typed">
        <v-icon :icon="mdiMagnify" />
        <input
          ref="field"
          v-model="typed"
          type="text"
          role="combobox"
          aria-label="Search jobs, zones, IDs, devices, findings, settings and acts"
          aria-autocomplete="list"
          aria-controls="search-hits"
          :aria-expanded="hits.length > 0"
          :aria-activedescendant="hits.length > 0 ? `hit-${at}` : undefined"
          placeholder="Job, zone, ID, device, finding, setting or act"
          maxlength="100"
          @keydown.down.prevent="move(1)"
          @keydown.up.prevent="move(-1)"
          @keydown.enter.prevent="take(hits[at])"
          @keydown.esc.prevent.stop="open = false"
        />
      </label>
      <ul id="search-hits" ref="list" role="listbox" aria-label="Found" class="hits">
        <li
          v-for="(hit, index) in hits"
          :id="`hit-${index}`"
          :key="hit.key"
          role="option"
          :aria-selected="index === at"
          :class="{ on: index === at }"
          @mousemove="at = index"
          @click="take(hit)"
        >
          <span class="what"
            ><strong>{{ hit.title }}</strong> <span class="quiet">{{ hit.detail }}</span></span
          >
          <span class="sort">{{ hit.sort }}</span>
        </li>
      </ul>
      <p v-if="hits.length === 0" class="none" role="status">
        Nothing is found for “{{ typed }}”: try a room, a number, a part of an ID.
      </p>
      <p v-if="alone" class="none quiet" role="status">
        The server does not answer: other jobs cannot be searched now.
      </p>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.typed {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 10px 16px;
  border-bottom: 1px solid rgba(var(--v-theme-on-surface), 0.14);
}
.typed input {
  font: inherit;
  font-size: 1.0625rem;
  color: inherit;
  flex: 1;
  min-width: 0;
  min-height: 36px;
  border: 0;
  background: transparent;
  outline: none;
}
.typed:focus-within {
  box-shadow: inset 0 -2px 0 rgb(var(--v-theme-secondary));
}
.hits {
  list-style: none;
  margin: 0;
  padding: 6px;
  max-height: min(60vh, 480px);
  overflow-y: auto;
}
.hits li {
  display: flex;
  align-items: baseline;
  gap: 12px;
  padding: 7px 10px;
  border-radius: 6px;
  cursor: pointer;
}
.hits .on {
  background: rgba(var(--v-theme-primary), 0.12);
}
.what {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.sort {
  font-size: 0.8125rem;
  color: rgba(var(--v-theme-on-surface), 0.72);
}
.none {
  margin: 0;
  padding: 10px 16px;
}
</style>
