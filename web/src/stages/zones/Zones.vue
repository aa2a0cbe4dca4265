<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { recordsOf, type Finding } from '#core'
import { useJob } from '../../store/job-store.ts'
import { useShortcuts } from '../../job/useShortcuts.ts'
import Areas from './Areas.vue'
import Delays from './Delays.vue'
import EntryBudget from './EntryBudget.vue'
import NumberPlan from './NumberPlan.vue'
import Rack from './Rack.vue'
import SystemSettings from './SystemSettings.vue'
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

const plan = useTemplateRef<{ press: () => void }>('plan')
useShortcuts('Zones', [
  { keys: 'N', title: 'Number everything', run: () => plan.value?.press() },
  { keys: 'Alt + ↓ / ↑', title: 'Same column of the next or previous zone' },
  { keys: 'Space', title: 'Turn a tick' },
  { keys: 'M', title: 'On the rack: lift a zone, arrows to its place, Enter' },
])

/** Alt with an arrow goes to the same field of the row below or above. */
function walk(event: KeyboardEvent): void {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  const field = event.target as HTMLElement
  const row = field.closest('tr')
  if (!event.altKey || !step || !row) return
  event.preventDefault()
  const rows = [...(row.parentElement?.querySelectorAll<HTMLElement>('tr[id^="zone:"]') ?? [])]
  const column = field.closest('td')?.cellIndex ?? 0
  const at = [...(row.cells[column]?.querySelectorAll('input, select, button') ?? [])].indexOf(field)
  const next = rows[rows.indexOf(row) + step] as HTMLTableRowElement | undefined
  next?.cells[column]?.querySelectorAll<HTMLElement>('input, select, button')[at]?.focus()
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
      <NumberPlan ref="plan" @said="said = $event" />
    </div>
    <v-alert v-if="!panel" type="info" variant="tonal" density="compact">
      No panel is chosen yet: it decides numbers, types and labels.
      <router-link :to="{ name: 'survey' }">Choose it in the survey</router-link>.
    </v-alert>
    <template v-else>
      <Delays />
      <EntryBudget />
      <SystemSettings />
      <Rack @pick="mark" />
      <div class="sheet scroll">
        <div v-if="zones.length === 0" class="pa-6">
          <h2>No zones yet</h2>
          <p class="quiet mt-1">
            “Number everything” gives each device event its number, loop, response type and label. Everything
            can be changed afterwards.
          </p>
        </div>
        <table v-else class="plain" @keydown="walk">
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
      <Areas />
    </template>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
</style>
