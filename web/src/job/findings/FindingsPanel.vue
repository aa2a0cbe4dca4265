<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { ruleOf, type Finding } from '#core'
import LongList from '../../shared/LongList.vue'
import { severityLook } from '../../shared/severity.ts'
import { useJob } from '../../store/job-store.ts'
import { placeOf, useShow } from '../useShow.ts'
import FindingCard from './FindingCard.vue'

const open = defineModel<boolean>({ required: true })
const job = useJob()
const route = useRoute()
const go = useShow()
const all = ref(true)

const shown = computed(() =>
  job.findings
    .filter((finding) => all.value || ruleOf(finding.rule).stage === route.name)
    .sort((a, b) => Number(a.waived !== null) - Number(b.waived !== null))
    .map((finding) => ({ id: `${finding.rule} ${finding.subject} ${finding.text}`, finding })),
)
const counts = computed(() =>
  (['stops', 'risks', 'advice'] as const).map((severity) => {
    const { glyph, color, word } = severityLook[severity]
    const count = job.findings.filter((finding) => finding.severity === severity && !finding.waived).length
    return { glyph, color, count, word: severity === 'risks' && count === 1 ? word.toLowerCase() : severity }
  }),
)

/** Opens the stage where the finding's subject stands and marks it. */
function show(finding: Finding): void {
  const place = placeOf(finding.subject, finding.field, ruleOf(finding.rule).stage)
  if (place) go(place)
}
</script>

<template>
  <v-navigation-drawer
    v-model="open"
    location="right"
    width="360"
    disable-resize-watcher
    aria-label="Findings"
  >
    <div v-if="open" class="pa-4">
      <div class="d-flex align-center ga-2 mb-1">
        <h2 class="flex-grow-1">Findings</h2>
        <v-btn size="small" variant="text" class="text-none" @click="open = false">Close</v-btn>
      </div>
      <p class="counts">
        <span v-for="item in counts" :key="item.word" :style="{ color: `rgb(var(--v-theme-${item.color}))` }"
          >{{ item.glyph }} {{ item.count }} {{ item.word }}</span
        >
      </p>
      <v-checkbox v-model="all" label="Findings of every stage" />
      <p v-if="shown.length === 0" class="mt-4">Nothing found {{ all ? 'in this job' : 'on this stage' }}.</p>
      <div aria-live="polite">
        <LongList v-slot="{ item: { id, finding } }" :items="shown" tag="div" :row="150">
          <FindingCard :key="id" :finding="finding" @show="show" />
        </LongList>
      </div>
    </div>
  </v-navigation-drawer>
</template>

<style scoped>
.counts {
  display: flex;
  gap: 14px;
  font-size: 0.875rem;
  font-weight: 600;
}
</style>
