<script setup lang="ts">
import { mdiMagnify, mdiPlus } from '@mdi/js'
import { useDebounceFn } from '@vueuse/core'
import { onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api } from '../app/api.ts'
import { stageName } from '../job/stages.ts'
import ImportJob from './ImportJob.vue'

interface Row {
  readonly id: string
  readonly name: string
  readonly address: string
  readonly changedAt: string
  readonly summary: { stage: string; owed: number; stops: number }
}

const router = useRouter()
const rows = ref<Row[]>([])
const find = ref('')
const state = ref<'loading' | 'ready' | 'failed'>('loading')
const error = ref('')

const look = useDebounceFn(load, 180)
watch(find, look)
onMounted(load)

async function load(): Promise<void> {
  try {
    rows.value = (await api<{ jobs: Row[] }>('GET', `/api/jobs?find=${encodeURIComponent(find.value)}`)).jobs
    state.value = 'ready'
  } catch (thrown) {
    error.value = (thrown as Error).message
    state.value = 'failed'
  }
}

function when(time: string): string {
  return new Date(time).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
}
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
        <ImportJob />
        <v-btn color="primary" to="/jobs/new" :prepend-icon="mdiPlus">New job</v-btn>
      </div>
      <v-alert v-if="state === 'failed'" type="error" variant="tonal">
        {{ error }} <v-btn size="small" variant="text" @click="load">Try again</v-btn>
      </v-alert>
      <v-progress-linear v-else-if="state === 'loading'" indeterminate aria-label="Loading the jobs" />
      <div v-else-if="rows.length === 0 && find === ''" class="sheet pa-8">
        <h2>No jobs yet</h2>
        <p class="quiet my-2">A job is one premises' system, from the first visit to the yearly service.</p>
        <v-btn color="primary" to="/jobs/new">Begin the first job</v-btn>
      </div>
      <p v-else-if="rows.length === 0" class="quiet">Nothing found for “{{ find }}”.</p>
      <div v-else class="sheet">
        <table class="plain jobs">
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
            <tr
              v-for="row in rows"
              :key="row.id"
              @click="router.push(`/jobs/${row.id}/${row.summary.stage}`)"
            >
              <td>
                <router-link :to="`/jobs/${row.id}/${row.summary.stage}`" class="job-link">{{
                  row.name
                }}</router-link>
              </td>
              <td>{{ row.address }}</td>
              <td>{{ stageName(row.summary.stage) }}</td>
              <td class="num" :class="{ stop: row.summary.stops > 0 }">
                <template v-if="row.summary.stops > 0">■ {{ row.summary.stops }}</template>
                <template v-else>–</template>
              </td>
              <td class="num">{{ row.summary.owed || '–' }}</td>
              <td>{{ when(row.changedAt) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
  </v-main>
</template>

<style scoped>
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
