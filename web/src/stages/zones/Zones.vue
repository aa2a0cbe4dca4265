<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { numberAll, recordsOf, type Finding } from '#core'
import { useJob } from '../../job/job-store.ts'
import Delays from './Delays.vue'
import Rack from './Rack.vue'
import Users from './Users.vue'
import ZoneRow from './ZoneRow.vue'

const job = useJob()
const route = useRoute()
const marked = ref<string | null>(null)
const said = ref('')
const panel = computed(() => job.system?.panel ?? null)
const zones = computed(() => recordsOf(job.doc, 'zone'))
const findings = computed(() => {
  const map = new Map<string, Finding[]>()
  for (const finding of job.findings) map.set(finding.subject, [...(map.get(finding.subject) ?? []), finding])
  return map
})
watch(
  () => route.query.show,
  (id) => typeof id === 'string' && mark(id),
  { immediate: true },
)

/** One press, one edit, one undo. */
function numberEverything(): void {
  const plan = numberAll(job.doc, job.catalogue, {
    newId: () => `zone:${uuid()}`,
    houseRules: job.rules,
  })
  if (plan.ops.length > 0) job.edit('zone.number', plan.ops)
  const left = plan.left.map((item) => item.reason)
  said.value =
    plan.ops.length === 0 && left.length === 0
      ? 'Everything that can be numbered has its number already.'
      : [`${plan.added} zones added, ${plan.moved} moved.`, ...new Set(left)].join(' ')
}

function mark(id: string): void {
  marked.value = id
  void nextTick(() => document.getElementById(id)?.scrollIntoView({ block: 'center' }))
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Zones</h1>
      <span class="quiet">{{ zones.length }} zones{{ panel ? ` on ${panel.name}` : '' }}</span>
      <span class="grow" />
      <span class="quiet" role="status">{{ said }}</span>
      <v-btn color="primary" :disabled="!panel" @click="numberEverything">Number everything</v-btn>
    </div>
    <v-alert v-if="!panel" type="info" variant="tonal" density="compact">
      No panel is chosen yet: it decides numbers, types and labels.
      <router-link :to="{ name: 'survey' }">Choose it in the survey</router-link>.
    </v-alert>
    <template v-else>
      <Delays />
      <Rack @pick="mark" />
      <div class="sheet scroll">
        <div v-if="zones.length === 0" class="pa-6">
          <h2>No zones yet</h2>
          <p class="quiet mt-1">
            “Number everything” gives each device event its number, loop, response type and label. Everything
            can be changed afterwards.
          </p>
        </div>
        <table v-else class="plain">
          <thead>
            <tr>
              <th title="Number; a tick keeps it where it is">No., keep</th>
              <th><span class="sr-only">Findings</span></th>
              <th>Label</th>
              <th>Device, event</th>
              <th title="What a trip does: away, stay, unset">Response</th>
              <th title="Chime while unset">Chime</th>
              <th title="Report to the station">Rep.</th>
              <th title="Watch for silence, low battery and tamper">Sup.</th>
              <th title="Hold an alarm before it is sent">Hold</th>
              <th><span class="sr-only">Acts</span></th>
            </tr>
          </thead>
          <tbody>
            <ZoneRow
              v-for="zone in zones"
              :key="zone.id"
              :zone="zone"
              :panel="panel"
              :findings="findings.get(zone.id) ?? []"
              :marked="marked === zone.id"
            />
          </tbody>
        </table>
      </div>
      <Users />
    </template>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
</style>
