<script setup lang="ts">
import { mdiDownload } from '@mdi/js'
import { computed } from 'vue'
import { customerNotes, recordsOf, scheduleColumns, zoneCard, zoneSchedule } from '#core'
import { useJob } from '../../store/job-store.ts'
import Departures from './Departures.vue'
import OwedList from './OwedList.vue'
import Signoffs from './Signoffs.vue'
import Tonight from './Tonight.vue'
import { vStack } from '../../shared/stack.ts'

const job = useJob()
const lines = computed(() => zoneSchedule(job.doc, job.catalogue))
const notes = computed(() => customerNotes(job.doc, job.catalogue, job.rules))
const blocking = computed(() => job.owed.filter((item) => item.blocks).length)
const users = computed(() =>
  recordsOf(job.doc, 'user').map((user) => ({
    name: user.name,
    fobs: (job.system?.devices ?? []).filter(({ device }) => device.user === user.id).length,
  })),
)
const files = computed(() => [
  { path: 'schedule.pdf', title: 'Zone schedule, PDF' },
  { path: 'schedule.csv', title: 'Zone schedule, CSV' },
  // Where the panel shows no label, a card beside the keypad does.
  ...(zoneCard(job.doc, job.catalogue) ? [{ path: 'zone-card.pdf', title: 'Zone card, PDF' }] : []),
  { path: 'file', title: 'Job file, JSON' },
])
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Hand over</h1>
      <span :class="blocking > 0 ? 'not-ready' : 'ready'">
        {{
          blocking > 0
            ? `■ not ready: ${blocking} ${blocking === 1 ? 'thing blocks' : 'things block'} it`
            : job.unsent.length > 0
              ? `○ ready, once ${job.unsent.length} ${job.unsent.length === 1 ? 'change is' : 'changes are'} sent`
              : '✓ ready to hand over'
        }}
      </span>
      <span class="grow" />
      <div class="files no-print">
        <v-btn
          v-for="file in files"
          :key="file.path"
          :href="`/api/jobs/${job.jobId}/${file.path}`"
          variant="tonal"
          :prepend-icon="mdiDownload"
          class="text-none"
          >{{ file.title }}</v-btn
        >
      </div>
    </div>
    <div class="top">
      <OwedList :owed="job.owed" />
      <Signoffs :ready="blocking === 0" />
    </div>
    <Tonight v-if="blocking > 0" />
    <Departures class="mb-4" />
    <section v-if="notes.length > 0" class="sheet pa-4 mb-4" aria-label="To tell the customer">
      <h2>To tell the customer</h2>
      <ul class="notes">
        <li v-for="note in notes" :key="note">{{ note }}</li>
      </ul>
    </section>
    <section class="sheet pa-4">
      <h2>Zone schedule</h2>
      <p v-if="lines.length === 0" class="quiet mt-1">
        No zones yet. <router-link :to="{ name: 'zones' }">Number them</router-link>.
      </p>
      <div v-else class="scroll mt-1" tabindex="0" role="region" aria-label="Zone schedule">
        <table v-stack class="plain">
          <thead>
            <tr>
              <th v-for="[key, title] in scheduleColumns" :key="key">{{ title }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(line, index) in lines" :key="index">
              <td
                v-for="[key] in scheduleColumns"
                :key="key"
                :class="{
                  id: key === 'id' || key === 'number',
                  owed: line[key] === 'owed' || line[key].endsWith(' owed'),
                }"
              >
                {{ line[key] }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="users.length > 0" class="mt-3">
        Users:
        {{
          users.map((user) => `${user.name} (${user.fobs} ${user.fobs === 1 ? 'fob' : 'fobs'})`).join(', ')
        }}.
      </p>
    </section>
  </div>
</template>

<style scoped>
.notes {
  margin: 6px 0 0;
  padding-left: 20px;
}
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.top {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 16px;
  margin-bottom: 16px;
  align-items: start;
}
.not-ready {
  color: rgb(var(--v-theme-error));
  font-weight: 650;
}
.ready {
  color: rgb(var(--v-theme-success));
  font-weight: 650;
}
.scroll {
  overflow-x: auto;
}
.owed {
  color: rgb(var(--v-theme-warning));
  font-weight: 600;
  white-space: nowrap;
}
.id {
  min-width: 9ch;
}
@media (max-width: 900px) {
  .top {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
