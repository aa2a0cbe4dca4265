<script setup lang="ts">
import { computed } from 'vue'
import { jobInfo, presets } from '#core'
import { useJob } from '../../store/job-store.ts'
import CopyPlan from '../../job/CopyPlan.vue'
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
import House from './House.vue'
import JobRules from './JobRules.vue'
import PanelChoice from './PanelChoice.vue'

const job = useJob()
const info = computed(() => jobInfo(job.doc))
const preset = computed(() => presets[info.value.region])
const main = { id: 'job:main', kind: 'job.set' }
</script>

<template>
  <div class="page survey">
    <div class="page-head">
      <h1>Survey</h1>
      <span class="grow" />
      <CopyPlan v-if="!info.practice" />
    </div>
    <section class="sheet pa-5">
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
    <section class="sheet pa-5">
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
    <House />
    <JobRules />
  </div>
</template>

<style scoped>
.survey {
  max-width: 1240px;
  display: grid;
  gap: 16px;
}
.grow {
  flex: 1;
}
.pair {
  align-items: start;
  margin-top: 14px;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: 14px 16px;
}
</style>
