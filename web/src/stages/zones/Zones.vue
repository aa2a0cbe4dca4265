<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { recordsOf, type Finding } from '#core'
import { useJob } from '../../store/job-store.ts'
import { useShortcuts } from '../../job/useShortcuts.ts'
import LongList from '../../shared/LongList.vue'
import Areas from './Areas.vue'
import NumberPlan from './NumberPlan.vue'
import Rack from './Rack.vue'
import Timing from './Timing.vue'
import Users from './Users.vue'
import ZoneRow from './ZoneRow.vue'

const job = useJob()
const route = useRoute()
const marked = ref<string | null>(null)
/** The zone under the pointer or with the focus, in the list or on the rack: both show it. */
const pointed = ref<string | null>(null)
const focused = ref<string | null>(null)
const lit = computed(() => pointed.value ?? focused.value)
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
  const rows = [...(row.closest('table')?.querySelectorAll<HTMLElement>('tr[id^="zone:"]') ?? [])]
  const column = field.closest('td')?.cellIndex ?? 0
  const at = [...(row.cells[column]?.querySelectorAll('input, select, button') ?? [])].indexOf(field)
  const next = rows[rows.indexOf(row) + step] as HTMLTableRowElement | undefined
  next?.cells[column]?.querySelectorAll<HTMLElement>('input, select, button')[at]?.focus()
}

function mark(id: string): void {
  // Gone to again where it was gone to before.
  marked.value = null
  void nextTick(() => (marked.value = id))
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
      <Timing />
      <Rack :lit="lit" @pick="mark" @point="pointed = $event" @focused="focused = $event" />
      <div class="sheet scroll">
        <div v-if="zones.length === 0" class="pa-6">
          <h2>No zones yet</h2>
          <p class="quiet mt-1">
            “Number everything” gives each device event its number, loop, response type and label. Everything
            can be changed afterwards.
          </p>
        </div>
        <table v-else class="plain zones" @keydown="walk" @mouseleave="pointed = null">
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
          <LongList v-slot="{ item: zone }" :items="zones" :row="41" :show="marked">
            <ZoneRow
              :key="zone.id"
              :zone="zone"
              :panel="panel"
              :findings="findings.get(zone.id) ?? []"
              :marked="marked === zone.id"
              :lit="lit === zone.id"
              @point="pointed = $event"
              @focused="focused = $event"
            />
          </LongList>
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
  container-type: inline-size;
}
/* Ten zones and more are to be seen at once. */
.zones :deep(tr[id] > td) {
  padding-top: 2px;
  padding-bottom: 2px;
  line-height: 1.25;
}

/* Beside the open findings, and on a tablet: the device stands under its label. */
@container (max-width: 940px) {
  .zones,
  .zones thead,
  .zones :deep(tbody),
  .zones :deep(tbody tr:not([id])),
  .zones :deep(tbody tr:not([id]) > td) {
    display: block;
  }
  .zones thead tr,
  .zones :deep(tr[id]) {
    display: grid;
    grid-template-columns: 72px 22px minmax(0, 1fr) minmax(0, 1.5fr) repeat(4, 39px) 36px;
    align-items: center;
    border-bottom: 1px solid rgba(var(--v-theme-on-surface), 0.08);
  }
  .zones th,
  .zones :deep(tr[id] > td) {
    border: 0;
    grid-row: 1 / 3;
    padding-left: 3px;
    padding-right: 3px;
  }
  .zones th {
    font-size: 0.75rem;
  }
  .zones th:nth-child(4) {
    display: none;
  }
  .zones :deep(tr[id] > td.label) {
    grid-row: 1;
    grid-column: 3;
  }
  .zones :deep(tr[id] > td.device) {
    grid-row: 2;
    grid-column: 3 / 5;
    padding-left: 10px;
    font-size: 0.8125rem;
  }
  .zones :deep(.device div) {
    display: inline;
    font-size: 0.75rem;
  }
  .zones :deep(.device div)::before {
    content: '· ';
  }
  .zones :deep(.code) {
    display: none;
  }
  .zones :deep(td.label input) {
    width: 100%;
  }
  .zones :deep(tr[id] > td.response) {
    min-width: 0;
    grid-row: 1;
    grid-column: 4;
  }
  .zones :deep(.response .d-flex) {
    min-width: 0;
  }
  .zones :deep(.type) {
    flex: 1 1 0;
    width: auto;
    min-width: 0;
  }
}
/* On a phone a zone is a block of its own. */
@container (max-width: 600px) {
  .zones thead {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  .zones :deep(tr[id]) {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    padding: 6px 4px;
    border-bottom: 1px solid rgba(var(--v-theme-on-surface), 0.16);
  }
  .zones :deep(tr[id] > td) {
    border: 0;
    order: 3;
  }
  .zones :deep(tr[id] > td.num),
  .zones :deep(tr[id] > td.mark),
  .zones :deep(tr[id] > td.label) {
    order: 1;
  }
  .zones :deep(tr[id] > td.label) {
    flex: 1 1 0;
  }
  .zones :deep(td.label input) {
    width: 100%;
  }
  .zones :deep(tr[id] > td.acts) {
    order: 2;
  }
  .zones :deep(tr[id] > td.device),
  .zones :deep(tr[id] > td.response) {
    flex: 0 0 100%;
  }
  .zones :deep(.flag) {
    margin-right: 10px;
  }
  .zones :deep(.flag)::before {
    content: attr(data-short) ' ';
    font-size: 0.8125rem;
  }
  .zones :deep(.type) {
    width: 220px;
  }
}
</style>
