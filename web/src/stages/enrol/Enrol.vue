<script setup lang="ts">
import { mdiAccessPoint, mdiAccessPointOff } from '@mdi/js'
import { useEventListener } from '@vueuse/core'
import { computed, onUnmounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { recordsOf } from '#core'
import { useJob } from '../../store/job-store.ts'
import { lockShortcuts } from '../../job/useShortcuts.ts'
import AirLog from './AirLog.vue'
import BoxLabels from './BoxLabels.vue'
import Candidate from './Candidate.vue'
import HeardRecord from './HeardRecord.vue'
import LeftInPanel from './LeftInPanel.vue'
import TargetList from './TargetList.vue'
import { useAir } from './useAir.ts'
import { useEnrol } from './useEnrol.ts'

const job = useJob()
const air = useAir()
const enrol = useEnrol(air)
const { by, parts, targets, target, follow, said } = enrol
const { listening, heard, seconds } = air
// The code of a box label leads here.
const route = useRoute()
watch(
  () => route.query.show,
  (asked) => {
    if (typeof asked === 'string') said.value = enrol.turnTo(asked) || said.value
  },
  { immediate: true },
)
/** Accepted here, and not at the server yet. */
const waiting = computed(() => targets.value.filter((item) => item.done && item.waits).length)
const counts = computed(() => {
  const done = targets.value.filter((item) => item.done && !item.waits)
  const heard = done.filter((item) => item.how === 'heard').length
  const other = done.length - heard
  return [
    `${heard} of ${targets.value.length} learned`,
    ...(other > 0 ? [`${other} typed, not heard`] : []),
    ...(waiting.value > 0 ? [`${waiting.value} waiting to be sent`] : []),
  ].join(', ')
})
const { practice } = enrol
const records = computed(() => recordsOf(job.doc, 'heard'))
const recordOpen = ref(false)
// A scanner types into the page: its digits must not be taken for shortcuts.
onUnmounted(lockShortcuts())

useEventListener(document, 'keydown', (event: KeyboardEvent) => {
  if (event.target instanceof HTMLElement && /INPUT|TEXTAREA|SELECT/.test(event.target.tagName)) return
  if (event.ctrlKey || event.metaKey || event.altKey) return
  if (/^[0-9A-Za-z]$/.test(event.key)) document.getElementById('sticker-entry')?.focus()
})
const identityWords = computed(() =>
  job.rules.schools.identity === 'learn'
    ? 'learn each device over the air, it proves device and loop; type only what cannot be tripped here.'
    : 'type each ID from its sticker; prove each loop by tripping it afterwards.',
)
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Enrol</h1>
      <span class="quiet">{{ counts }}</span>
      <span class="grow" />
      <BoxLabels v-if="targets.length > 0" />
      <v-btn
        v-if="practice"
        size="large"
        :color="listening ? undefined : 'primary'"
        :variant="listening ? 'tonal' : 'flat'"
        :prepend-icon="listening ? mdiAccessPointOff : mdiAccessPoint"
        :disabled="targets.length === 0"
        @click="listening ? air.stop() : air.start()"
        >{{ listening ? `Stop listening (${seconds} s)` : 'Start listening' }}</v-btn
      >
    </div>
    <p v-if="targets.length > 0" class="quiet rule">House rule: {{ identityWords }}</p>
    <LeftInPanel />
    <div v-if="targets.length === 0" class="sheet pa-6">
      <h2>Nothing to enrol yet</h2>
      <p class="quiet mt-1">
        Enrolling binds each radio ID to its zone, so the zones come first.
        <router-link :to="{ name: 'zones' }">Number the zones</router-link>.
      </p>
    </div>
    <div v-else class="work">
      <aside class="sheet list no-print" aria-label="To enrol">
        <TargetList v-model:by="by" :parts="parts" :current="target?.id ?? null" @choose="enrol.choose" />
      </aside>
      <div class="main">
        <Candidate :enrol="enrol" :listening="listening" />
        <p class="said" role="status">{{ said }}</p>
        <section v-if="practice" class="sheet air">
          <div class="air-head">
            <h2>On the air</h2>
            <span class="quiet small">simulated, for practice</span>
            <span class="grow" />
            <v-checkbox v-model="follow" label="Bring up what is heard" />
          </div>
          <p v-if="!listening" class="quiet pa-2">
            Start listening, then trip each device. A panel takes any device in range, the neighbour’s too:
            compare the two IDs every time.
          </p>
          <p v-else-if="heard.length === 0" class="quiet pa-2">Listening. Nothing heard yet.</p>
          <AirLog v-else :heard="heard" :targets="targets" @show="enrol.show" @choose="enrol.choose" />
        </section>
        <v-btn
          variant="text"
          class="text-none record"
          :aria-expanded="recordOpen"
          @click="recordOpen = !recordOpen"
          >{{ records.length }} on record: accepted and refused</v-btn
        >
        <HeardRecord v-if="recordOpen" :records="records" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.rule {
  margin: -8px 0 10px;
  font-size: 0.875rem;
}
.work {
  display: grid;
  grid-template-columns: 264px minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}
.list {
  padding: 8px;
  max-height: calc(100vh - 150px);
  overflow-y: auto;
  /* What is said to screen readers only stays in the list that scrolls: it must not lengthen the page. */
  position: relative;
}
.main {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
}
.air {
  padding: 8px 12px;
}
.air-head {
  display: flex;
  align-items: center;
  gap: 10px;
}
.grow {
  flex: 1;
}
.said {
  margin: 0;
  padding-left: 16px;
  font-weight: 600;
}
.said:empty {
  display: none;
}
.record {
  justify-self: start;
}
.small {
  font-size: 0.8125rem;
}
@media (max-width: 900px) {
  .work {
    grid-template-columns: minmax(0, 1fr);
  }
  .list {
    order: 2;
    max-height: none;
  }
}
</style>
