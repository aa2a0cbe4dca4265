<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { jobInfo, presets, recordsOf, stageOf } from '#core'
import {
  exerciseItems,
  gradeItems,
  kindItems,
  listedItems,
  monitoredItems,
  paceItems,
  regionItems,
} from '../../jobs/words.ts'
import FieldChoice from '../../shared/FieldChoice.vue'
import FieldText from '../../shared/FieldText.vue'
import FoldLine from '../../shared/FoldLine.vue'
import { useJob } from '../../store/job-store.ts'
import PanelChoice from './PanelChoice.vue'

/* Premises and system: one line once the house is described, so that the house is what the stage shows. */

const job = useJob()
const route = useRoute()
const info = computed(() => jobInfo(job.doc))
const preset = computed(() => presets[info.value.region])
const panel = computed(() => job.catalogue.get('panel', info.value.panel))
const main = { id: 'job:main', kind: 'job.set' }
const open = ref(panel.value === null || recordsOf(job.doc, 'room').length === 0)
watch(
  () => route.query.show,
  (id) => id === 'job:main' && (open.value = true),
  { immediate: true },
)

interface Item {
  readonly title: string
  readonly value: unknown
}
/** The title of what is chosen, without what stands behind it in brackets or after a colon. */
function chosen(items: readonly Item[], value: unknown): string {
  return (
    items.find((item) => item.value === value)?.title.replace(/(:| \(| of an| by a).*$/, '') ?? 'not said'
  )
}
const values = computed(() => {
  const { petKg, region, kind, monitored, grade, pace, slowest, radioFirmware } = info.value
  const firmware = panel.value && panel.value.radioFirmware.length > 0 ? ` ${radioFirmware}` : ''
  return [
    {
      name: 'Panel',
      value: panel.value ? `${panel.value.name}${firmware}` : 'not chosen',
      missing: panel.value === null,
    },
    { name: '', value: chosen(regionItems, region) },
    { name: '', value: chosen(kindItems, kind) },
    { name: '', value: chosen(monitoredItems, monitored) },
    { name: '', value: chosen(gradeItems, grade) },
    { name: 'Slowest person', value: pace === null ? chosen(paceItems, slowest) : `${pace} m/s, as timed` },
    { name: 'Pet', value: petKg === null ? 'none' : `${petKg} kg` },
  ]
})
/** Delays and settings of the panel are told with the zones. */
const findings = computed(() =>
  job.findings.filter(({ subject, field, waived }) => {
    return subject === 'job:main' && stageOf(subject, field) === 'survey' && waived === null
  }),
)
</script>

<template>
  <FoldLine
    v-model:open="open"
    label="Premises and system"
    part="survey-facts"
    :values="values"
    rest=""
    :findings="findings"
  >
    <section class="mb-4">
      <h2>Premises</h2>
      <div class="pair">
        <FieldText v-bind="main" field="name" label="Name of the job" />
        <FieldText v-bind="main" field="address" label="Address" />
        <FieldChoice
          v-bind="main"
          field="slowest"
          label="Slowest person"
          :items="paceItems"
          hint="Decides how long the delays must be"
        />
        <!-- Timed by somebody coming home; before that there is nothing to say. -->
        <FieldText
          v-if="info.pace !== null"
          v-bind="main"
          field="pace"
          label="Pace as timed"
          number
          suffix="m/s"
          hint="Told by somebody coming home; empty for the figure"
        />
        <FieldText
          v-bind="main"
          field="petKg"
          label="Heaviest pet"
          number
          suffix="kg"
          hint="Empty for none"
        />
      </div>
      <FieldText v-bind="main" class="mt-4" field="wishes" label="Wishes of the customer" :lines="2" />
    </section>
    <section class="mb-4">
      <h2>System</h2>
      <div class="pair">
        <PanelChoice />
        <FieldChoice v-bind="main" field="region" label="Region" :items="regionItems" :hint="preset.source" />
        <FieldChoice v-bind="main" field="kind" label="New or takeover" :items="kindItems" />
        <FieldChoice v-bind="main" field="monitored" label="Reports" :items="monitoredItems" />
        <FieldChoice
          v-if="info.practice"
          v-bind="main"
          field="exercise"
          label="Exercise"
          :items="exerciseItems"
          hint="How the simulated air behaves"
        />
        <FieldChoice v-bind="main" field="grade" label="Grade" :items="gradeItems" />
        <FieldChoice
          v-if="preset.entryPlusAbort !== null"
          v-bind="main"
          field="listed"
          label="Listing or certificate"
          :items="listedItems"
          :hint="`Only where it is asked for: entry delay and hold before sending at most ${preset.entryPlusAbort} s together`"
        />
      </div>
    </section>
  </FoldLine>
</template>

<style scoped>
.pair {
  align-items: start;
  margin-top: 14px;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
  gap: 14px 16px;
}
</style>
