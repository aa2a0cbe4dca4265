<script setup lang="ts">
import { mdiMagnify, mdiPlus } from '@mdi/js'
import { useDebounceFn, useIntervalFn } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { writtenIn, type JobList, type ListedJob } from '#core'
import { api } from '../line/api.ts'
import { deviceQueue } from '../line/device-queue.ts'
import { useSession } from '../line/session.ts'
import { stageName } from '../job/stages.ts'
import ImportJob from './ImportJob.vue'
import RowClocks from './RowClocks.vue'
import { saveCalendar } from '../shared/calendar.ts'
import { vStack } from '../shared/stack.ts'

const router = useRouter()
const rows = ref<readonly ListedJob[]>([])
/** Jobs whose summary is being made anew, of the most there were at once. */
const renewing = ref({ left: 0, of: 0 })
const session = useSession()
const find = ref('')
const state = ref<'loading' | 'ready' | 'failed'>('loading')
const error = ref('')

const look = useDebounceFn(load, 180)
watch(find, look)
onMounted(load)

async function load(): Promise<void> {
  try {
    const list = await api<JobList>('GET', `/api/jobs?find=${encodeURIComponent(find.value)}`)
    rows.value = list.jobs
    const left = list.renewing
    renewing.value = { left, of: left === 0 ? 0 : Math.max(left, renewing.value.of) }
    state.value = 'ready'
    if (list.jobs.length === 0) await session.loadCatalogue()
  } catch (thrown) {
    error.value = (thrown as Error).message
    state.value = 'failed'
  }
}

// Summaries are made behind the answers: while some are old it is asked again.
useIntervalFn(() => {
  if (renewing.value.left > 0 && document.visibilityState === 'visible') void load()
}, 1_500)

/** Whether nothing could be planned yet, not even for practice. */
const isUnequipped = computed(
  () => session.catalogue !== null && session.offered({ practice: true }).all('panel').length === 0,
)
/** The clocks that still run, of all jobs that are listed. */
const clocks = computed(() =>
  rows.value.flatMap((row) =>
    (row.summary?.clocks ?? [])
      .filter(({ ends }) => Date.parse(ends) > Date.now())
      .map((clock) => ({
        ...{ ...clock, id: `${row.id} ${clock.id}`, job: row.name },
        link: `${location.origin}/jobs/${row.id}/prove`,
      })),
  ),
)

type Sort = 'name' | 'stops' | 'owed' | 'changed'
/** Jobs that ask for something: what stops, what is owed, what waits on this device to be sent. */
const only = ref<'all' | 'stops' | 'owed' | 'waits'>('all')
const sort = ref<Sort>('changed')
/** Changes of one's own that wait on this device to be sent, by job. */
const waits = ref<ReadonlyMap<string, number>>(new Map())

async function lookWaits(): Promise<void> {
  const { person } = session
  if (!person) return
  const left = await deviceQueue().left(person.firmId, [person.id])
  waits.value = new Map(left.map(({ job, edits }) => [job, edits.length]))
}
onMounted(lookWaits)

const order: Readonly<Record<Sort, (a: ListedJob, b: ListedJob) => number>> = {
  name: (a, b) => a.name.localeCompare(b.name),
  stops: (a, b) => (b.summary?.stops ?? 0) - (a.summary?.stops ?? 0),
  owed: (a, b) => (b.summary?.owed ?? 0) - (a.summary?.owed ?? 0),
  changed: (a, b) => b.changedAt.localeCompare(a.changedAt),
}
const asks: Readonly<Record<typeof only.value, (row: ListedJob) => boolean>> = {
  all: () => true,
  stops: (row) => (row.summary?.stops ?? 0) > 0,
  owed: (row) => (row.summary?.owed ?? 0) > 0,
  waits: (row) => waits.value.has(row.id),
}
const counts = computed(() => ({
  stops: rows.value.filter(asks.stops).length,
  owed: rows.value.filter(asks.owed).length,
  waits: rows.value.filter(asks.waits).length,
}))
const shown = computed(() => rows.value.filter(asks[only.value]).sort(order[sort.value]))
/** What waits here is named only while something does. */
const chips = computed(() => [
  ['all', `All ${rows.value.length}`] as const,
  ['stops', `■ ${counts.value.stops} with stops`] as const,
  ['owed', `○ ${counts.value.owed} ${counts.value.owed === 1 ? 'owes' : 'owe'} something`] as const,
  ...(waits.value.size > 0 ? [['waits', `${counts.value.waits} with changes to be sent`] as const] : []),
])
const columns: readonly { key: Sort | null; title: string; num?: boolean }[] = [
  { key: 'name', title: 'Job' },
  { key: null, title: 'Address' },
  { key: null, title: 'Next stage' },
  { key: 'stops', title: 'Stops', num: true },
  { key: 'owed', title: 'Owed', num: true },
  { key: 'changed', title: 'Last change' },
]
const directions: Readonly<Record<Sort, 'ascending' | 'descending'>> = {
  ...{ name: 'ascending', stops: 'descending', owed: 'descending', changed: 'descending' },
}

/** A job opens at the stage whose work is next; one not summed up yet at its beginning. */
function pathOf(row: ListedJob): string {
  return `/jobs/${row.id}/${row.summary?.stage ?? 'survey'}`
}

const { moment: when } = writtenIn(undefined)
/** A browser keeps jobs offline on secure addresses only, and on this machine's own. */
const secure = window.isSecureContext !== false
</script>

<template>
  <v-main>
    <div class="page">
      <div class="page-head">
        <h1>Jobs</h1>
        <span class="grow" />
        <v-text-field
          v-model="find"
          label="Find by name, address or serial"
          :prepend-inner-icon="mdiMagnify"
          clearable
          class="find"
          maxlength="100"
          @click:clear="find = ''"
        />
        <v-btn variant="text" to="/catalogue" class="text-none">Catalogue</v-btn>
        <template v-if="session.person?.role !== 'viewer'">
          <ImportJob />
          <v-btn color="primary" to="/jobs/new" :prepend-icon="mdiPlus">New job</v-btn>
        </template>
      </div>
      <p v-if="!secure" class="quiet" role="note">
        This address is not secure (plain http): this browser cannot keep jobs offline here. Ask the owner for
        the https address.
      </p>
      <div v-if="renewing.left > 3" class="renewing small quiet" role="status">
        <span
          >Summing up {{ renewing.left }} of {{ renewing.of }} jobs anew; until then the list shows them as
          they were.</span
        >
        <v-progress-linear
          :model-value="(100 * (renewing.of - renewing.left)) / renewing.of"
          aria-label="Jobs summed up anew"
        />
      </div>
      <v-alert v-if="state === 'failed'" type="error" variant="tonal">
        {{ error }} <v-btn size="small" variant="text" @click="load">Try again</v-btn>
      </v-alert>
      <v-progress-linear v-else-if="state === 'loading'" indeterminate aria-label="Loading the jobs" />
      <div v-else-if="rows.length === 0 && find === ''" class="sheet pa-8">
        <h2>No jobs yet</h2>
        <p class="quiet my-2">A job is one premises' system, from the first visit to the yearly service.</p>
        <p v-if="isUnequipped" class="my-2">
          First your own equipment: no panel is in the catalogue yet, and a job is planned for one.
        </p>
        <template v-if="session.person?.role !== 'viewer'">
          <v-btn v-if="isUnequipped" color="primary" class="me-2" to="/catalogue"
            >Describe your equipment</v-btn
          >
          <v-btn
            :color="isUnequipped ? undefined : 'primary'"
            :variant="isUnequipped ? 'text' : undefined"
            to="/jobs/new"
            >Begin the first job</v-btn
          >
        </template>
      </div>
      <p v-else-if="rows.length === 0" class="quiet">Nothing found for “{{ find }}”.</p>
      <div v-else class="sheet">
        <div class="filters" role="group" aria-label="Which jobs">
          <v-chip
            v-for="[key, title] in chips"
            :key="key"
            tag="button"
            type="button"
            size="small"
            :variant="only === key ? 'flat' : 'outlined'"
            :color="only === key ? 'primary' : undefined"
            :aria-pressed="only === key"
            @click="only = key"
            >{{ title }}</v-chip
          >
          <v-btn
            v-if="clocks.length > 0"
            variant="text"
            size="small"
            class="text-none"
            :title="`The ${clocks.length} clocks that run, each at its end`"
            @click="saveCalendar(clocks, 'Clocks')"
            >Calendar file</v-btn
          >
        </div>
        <p v-if="rows.length >= 200" class="quiet px-4">
          These are the latest {{ rows.length }} jobs: find older ones by name, address or serial.
        </p>
        <p v-if="shown.length === 0" class="quiet px-4 pb-4">None of these jobs does.</p>
        <table v-else v-stack class="plain jobs">
          <thead>
            <tr>
              <th
                v-for="column in columns"
                :key="column.title"
                :class="{ num: column.num }"
                :aria-sort="column.key !== null && column.key === sort ? directions[column.key] : undefined"
              >
                <button v-if="column.key" type="button" class="sort" @click="sort = column.key">
                  {{ column.title }}<span v-if="column.key === sort" aria-hidden="true"> ↓</span>
                </button>
                <template v-else>{{ column.title }}</template>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in shown" :key="row.id" @click="router.push(pathOf(row))">
              <td>
                <router-link :to="pathOf(row)" class="job-link">{{ row.name }}</router-link>
                <span v-if="row.practice" class="practice-mark">practice</span>
                <RowClocks v-if="row.summary" :clocks="row.summary.clocks" />
                <div v-if="waits.has(row.id)" class="waits">
                  {{ waits.get(row.id) }} {{ waits.get(row.id) === 1 ? 'change waits' : 'changes wait' }} here
                  to be sent
                </div>
              </td>
              <td>{{ row.address }}</td>
              <template v-if="row.summary">
                <td>
                  {{ stageName(row.summary.stage)
                  }}<span v-if="!row.fresh" class="quiet" title="Being summed up anew"> …</span>
                </td>
                <td class="num" :class="{ stop: row.summary.stops > 0 }">
                  <template v-if="row.summary.stops > 0">■ {{ row.summary.stops }}</template>
                  <template v-else>–</template>
                </td>
                <td class="num">{{ row.summary.owed || '–' }}</td>
              </template>
              <td v-else colspan="3" class="quiet">being summed up …</td>
              <td>
                {{ when(row.changedAt) }}
                <span v-if="row.changedBy" class="quiet">by {{ row.changedBy }}</span>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
  </v-main>
</template>

<style scoped>
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 10px 12px 4px;
}
.sort {
  font: inherit;
  color: inherit;
  background: transparent;
  border: 0;
  padding: 2px 0;
  min-height: 24px;
  cursor: pointer;
}
.sort:hover {
  text-decoration: underline;
}
.waits {
  font-size: 0.8125rem;
  color: rgb(var(--v-theme-warning));
}
.renewing {
  display: grid;
  gap: 6px;
  margin-bottom: 12px;
}
.find {
  flex: 0 1 360px;
}
.jobs tbody tr {
  cursor: pointer;
}
.jobs td {
  padding: 12px 10px;
}
.job-link {
  color: rgb(var(--v-theme-primary));
  font-weight: 650;
  text-decoration: none;
}
.job-link:hover {
  text-decoration: underline;
}
.stop {
  color: rgb(var(--v-theme-error));
  font-weight: 650;
}
</style>
