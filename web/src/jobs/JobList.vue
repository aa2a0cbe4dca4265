<script setup lang="ts">
import { mdiMagnify, mdiPlus } from '@mdi/js'
import { useDebounceFn, useIntervalFn } from '@vueuse/core'
import { onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { JobList, ListedJob } from '#core'
import { api } from '../line/api.ts'
import { useSession } from '../line/session.ts'
import { stageName } from '../job/stages.ts'
import ImportJob from './ImportJob.vue'
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
  } catch (thrown) {
    error.value = (thrown as Error).message
    state.value = 'failed'
  }
}

// Summaries are made behind the answers: while some are old it is asked again.
useIntervalFn(() => {
  if (renewing.value.left > 0 && document.visibilityState === 'visible') void load()
}, 1_500)

/** A job opens at the stage whose work is next; one not summed up yet at its beginning. */
function pathOf(row: ListedJob): string {
  return `/jobs/${row.id}/${row.summary?.stage ?? 'survey'}`
}

function when(time: string): string {
  return new Date(time).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
}
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
        <v-btn v-if="session.person?.role !== 'viewer'" color="primary" to="/jobs/new"
          >Begin the first job</v-btn
        >
      </div>
      <p v-else-if="rows.length === 0" class="quiet">Nothing found for “{{ find }}”.</p>
      <div v-else class="sheet">
        <table v-stack class="plain jobs">
          <thead>
            <tr>
              <th>Job</th>
              <th>Address</th>
              <th>Next stage</th>
              <th class="num">Stops</th>
              <th class="num">Owed</th>
              <th>Last change</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.id" @click="router.push(pathOf(row))">
              <td>
                <router-link :to="pathOf(row)" class="job-link">{{ row.name }}</router-link>
                <span v-if="row.practice" class="practice-mark">practice</span>
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
              <td>{{ when(row.changedAt) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
  </v-main>
</template>

<style scoped>
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
