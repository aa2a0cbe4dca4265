<script setup lang="ts">
import { computed } from 'vue'
import { jobInfo } from '#core'
import { useJob } from '../../store/job-store.ts'
import CopyPlan from '../../job/CopyPlan.vue'
import House from './House.vue'
import JobRules from './JobRules.vue'
import SignalWalk from './SignalWalk.vue'
import SurveyFacts from './SurveyFacts.vue'

const job = useJob()
const info = computed(() => jobInfo(job.doc))
</script>

<template>
  <div class="page survey">
    <div class="page-head">
      <h1>Survey</h1>
      <span class="quiet">{{ info.address }}</span>
      <span class="grow" />
      <CopyPlan v-if="!info.practice" />
    </div>
    <SurveyFacts />
    <House />
    <SignalWalk />
    <JobRules />
  </div>
</template>

<style scoped>
.survey {
  max-width: 1240px;
  display: grid;
  /* Never wider than the window: a table that finds no room stands as blocks then. */
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}
.grow {
  flex: 1;
}
</style>
