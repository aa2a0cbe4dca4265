<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useDisplay } from 'vuetify'
import { openProofs, PANEL, proofRoute, stationOnTest, waitsToBeSent } from '#core'
import { useJob } from '../../store/job-store.ts'
import ArmedRun from './ArmedRun.vue'
import DeviceProofs from './DeviceProofs.vue'
import FindStop from './FindStop.vue'
import RouteRow from './RouteRow.vue'
import States from './States.vue'
import Station from './Station.vue'
import WalkTest from './WalkTest.vue'

const job = useJob()
const { smAndDown: narrow } = useDisplay()
const chosen = ref<string | null>(null)
const onlyOpen = ref(false)
const route = computed(() => (job.system ? proofRoute(job.doc, job.catalogue, job.now) : []))
/** How many proofs of these kinds can be made in one run now. */
function ready(...kinds: readonly string[]): number {
  const items = route.value.flatMap((stop) => stop.items)
  return items.filter(({ kind, state, waits }) => kinds.includes(kind) && state !== 'pass' && waits === '')
    .length
}
const armed = computed(() => ready('armed'))
const walked = computed(() => ready('walk', 'toggle'))
/** Which run over the whole house is gone through; null for the round, device by device. */
const running = ref<'walk' | 'armed' | null>(null)
const open = computed(() => openProofs(route.value))
const all = computed(() => route.value.reduce((sum, entry) => sum + entry.items.length, 0))
/** Passed here, and not at the server yet. */
const waiting = computed(() =>
  route.value.reduce((sum, stop) => {
    const passed = stop.items.filter((item) => item.state === 'pass')
    return sum + passed.filter((item) => item.results.slice(-1).some(waitsToBeSent)).length
  }, 0),
)
const rooms = computed(() => {
  const map = new Map<string, typeof route.value>()
  for (const entry of route.value) {
    if (onlyOpen.value && openProofs([entry]) === 0) continue
    const room = entry.id === PANEL ? 'The panel' : entry.room || 'Carried and unplaced'
    map.set(room, [...(map.get(room) ?? []), entry])
  }
  return [...map]
})
/** The next device of the round that owes something which can be made now. */
const next = computed(
  () =>
    route.value.find(({ items }) => items.some(({ state, waits }) => state !== 'pass' && waits === '')) ??
    null,
)
// On a phone the round begins with it; at a desk somebody chooses.
const current = computed(
  () => route.value.find((entry) => entry.id === chosen.value) ?? (narrow.value ? next.value : null),
)
const onTest = computed(() => stationOnTest(job.doc, job.now))

const address = useRoute()
watch(
  () => address.query.show,
  (asked) => {
    if (typeof asked === 'string' && route.value.some((entry) => entry.id === asked)) choose(asked)
  },
  { immediate: true },
)

function choose(id: string): void {
  chosen.value = id
  void nextTick(() =>
    document.getElementById('proof-card')?.scrollIntoView({ block: narrow.value ? 'start' : 'nearest' }),
  )
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Prove</h1>
      <span class="quiet"
        >{{ all - open - waiting }} of {{ all }} proofs passed{{
          waiting > 0 ? `, ${waiting} waiting to be sent` : ''
        }}</span
      >
      <span class="grow" />
      <v-btn v-if="walked > 0 && !running" variant="tonal" min-height="44" @click="running = 'walk'"
        >Walk test: {{ walked }}</v-btn
      >
      <v-btn v-if="armed > 0 && !running" variant="tonal" min-height="44" @click="running = 'armed'"
        >Armed run: {{ armed }} {{ armed === 1 ? 'trip' : 'trips' }}</v-btn
      >
      <FindStop
        v-if="!running && route.length > 0 && !narrow"
        v-model="onlyOpen"
        :route="route"
        @found="choose"
      />
    </div>
    <div v-if="route.length === 0" class="sheet pa-6">
      <h2>Nothing to prove yet</h2>
      <p class="quiet mt-1">
        Every device owes proofs once it is in the kit.
        <router-link :to="{ name: 'kit' }">Fill the kit</router-link>.
      </p>
    </div>
    <template v-else>
      <Station v-if="job.system?.info.monitored && (!narrow || running)" :on-test="onTest" />
      <WalkTest v-if="running === 'walk'" :route="route" @close="running = null" />
      <ArmedRun v-else-if="running === 'armed'" :route="route" @close="running = null" />
      <div v-else class="work">
        <div class="rooms">
          <FindStop v-if="narrow" v-model="onlyOpen" :route="route" @found="choose" />
          <section v-for="[room, entries] in rooms" :key="room" class="sheet room" :aria-label="room">
            <h2>{{ room }}</h2>
            <RouteRow
              v-for="entry in entries"
              :key="entry.id"
              :entry="entry"
              :on="entry.id === current?.id"
              @choose="choose(entry.id)"
            />
          </section>
          <p v-if="rooms.length === 0" class="pa-2">Everything is proved.</p>
        </div>
        <div class="side">
          <DeviceProofs v-if="current" id="proof-card" :key="current.id" class="card" :entry="current" />
          <div v-else class="sheet pa-5">
            <template v-if="next === null && open > 0">
              <h2>Nothing can be proved now</h2>
              <p class="quiet mt-1">
                {{ open }} {{ open === 1 ? 'proof waits' : 'proofs wait' }} for something else. Each device
                says what comes first, and until when.
              </p>
            </template>
            <template v-else>
              <h2>Choose a device</h2>
              <p class="quiet mt-1">
                Go through the house room by room. Each device shows what it still owes, event by event: its
                reading, each event by its own trip and, where the job is monitored, each report.
              </p>
            </template>
          </div>
          <Station v-if="narrow && job.system?.info.monitored" :on-test="onTest" />
          <States />
        </div>
      </div>
    </template>
  </div>
</template>

<style scoped>
.work {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}
.rooms {
  display: grid;
  gap: 12px;
}
.room {
  padding: 10px 8px;
}
.room h2 {
  padding: 0 8px 2px;
  font-size: 1rem;
}
.card {
  scroll-margin-top: 104px;
}
.side {
  position: sticky;
  top: 64px;
  display: grid;
  gap: 12px;
  max-height: calc(100vh - 76px);
  overflow-y: auto;
}
@media (max-width: 900px) {
  .work {
    grid-template-columns: minmax(0, 1fr);
  }
  .side {
    order: -1;
    position: static;
    max-height: none;
  }
}
</style>
