<script setup lang="ts">
import { useDisplay } from 'vuetify'
import { computed, nextTick, watch } from 'vue'
import { useRoute } from 'vue-router'
import { ruleOf, stops } from '#core'
import { stages } from './stages.ts'
import StageLink from './StageLink.vue'
import { useJob } from '../store/job-store.ts'

const job = useJob()
const { mdAndUp } = useDisplay()
const route = useRoute()
watch(
  () => route.name,
  () =>
    void nextTick(() =>
      document.querySelector('.strip .on')?.scrollIntoView({ inline: 'center', block: 'nearest' }),
    ),
  { immediate: true },
)

/** Findings per stage, with the gravest of them: the wrong thing is always visible. */
const marks = computed(() => {
  const map = new Map<string, { stops: number; risks: number }>()
  for (const finding of job.findings) {
    const stage = ruleOf(finding.rule).stage
    const mark = map.get(stage) ?? { stops: 0, risks: 0 }
    if (stops(finding)) mark.stops += 1
    else if (finding.severity === 'risks') mark.risks += 1
    map.set(stage, mark)
  }
  return map
})
/** What each stage still owes, so that the next thing is always visible. */
const owed = computed(() => {
  const map = new Map<string, number>()
  for (const item of job.owed) map.set(item.stage, (map.get(item.stage) ?? 0) + item.count)
  return map
})

const linkOf = (stage: (typeof stages)[number]) => ({
  to: `/jobs/${job.jobId}/${stage.key}`,
  name: stage.name,
  stops: marks.value.get(stage.key)?.stops ?? 0,
  risks: marks.value.get(stage.key)?.risks ?? 0,
  owed: owed.value.get(stage.key) ?? 0,
})
</script>

<template>
  <v-navigation-drawer v-if="mdAndUp" permanent width="164" color="background" :border="0" class="rail">
    <nav aria-label="Stages">
      <StageLink v-for="stage in stages" :key="stage.key" v-bind="linkOf(stage)" />
    </nav>
  </v-navigation-drawer>
  <v-app-bar v-else flat height="44" color="background" order="1">
    <nav class="strip" aria-label="Stages">
      <StageLink v-for="stage in stages" :key="stage.key" v-bind="linkOf(stage)" />
    </nav>
  </v-app-bar>
</template>

<style scoped>
nav {
  padding: 14px 10px;
  display: grid;
  gap: 2px;
}
.strip {
  display: flex;
  overflow-x: auto;
  padding: 0 8px;
  width: 100%;
}
</style>
