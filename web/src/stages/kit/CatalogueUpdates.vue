<script setup lang="ts">
import { computed, ref } from 'vue'
import { applyOps, findingChanges, judge, pinUpdateOps, pinUpdates } from '#core'
import { severityLook } from '../../shared/severity.ts'
import { useJob } from '../../store/job-store.ts'

const job = useJob()
const open = ref(false)
const updates = computed(() => (job.jobId ? pinUpdates(job.doc, job.offered) : []))
const ops = computed(() => pinUpdateOps(job.doc, job.offered, updates.value))
/** The job judged as it would be, so that nobody updates into a surprise. */
const changes = computed(() => {
  if (!open.value) return { come: [], go: [] }
  const result = applyOps(job.doc, ops.value)
  if (!result.ok) return { come: [], go: [] }
  const newer = new Set(updates.value.map((update) => update.entry.id))
  const catalogue = job.catalogue.with(job.offered.kept.filter((item) => newer.has(item.entry.id)))
  return findingChanges(job.findings, judge(job.inputOf(result.doc, catalogue)))
})

function take(): void {
  job.edit('catalogue.update', ops.value)
  open.value = false
}
</script>

<template>
  <div v-if="updates.length > 0" class="sheet notice no-print">
    <span
      >● The catalogue has a newer form of {{ updates.length }}
      {{ updates.length === 1 ? 'entry' : 'entries' }} of this job. It keeps its own until you take
      them.</span
    >
    <v-btn size="small" variant="tonal" class="text-none" @click="open = true">What would change…</v-btn>
    <v-dialog v-model="open" max-width="720" scrollable>
      <v-card aria-label="Newer catalogue entries">
        <v-card-title>Newer catalogue entries</v-card-title>
        <v-card-text>
          <p>{{ updates.map((update) => update.entry.name).join(', ') }}.</p>
          <h3 class="head">Findings that would come: {{ changes.come.length }}</h3>
          <ul>
            <li v-for="finding in changes.come" :key="finding.rule + finding.text">
              {{ severityLook[finding.severity].glyph }} {{ finding.text }}
            </li>
          </ul>
          <h3 class="head">Findings that would go: {{ changes.go.length }}</h3>
          <ul>
            <li v-for="finding in changes.go" :key="finding.rule + finding.text">
              {{ severityLook[finding.severity].glyph }} {{ finding.text }}
            </li>
          </ul>
        </v-card-text>
        <v-card-actions>
          <v-btn class="text-none" @click="open = false">Keep the old ones</v-btn>
          <v-btn color="primary" variant="flat" class="text-none" @click="take">Take the newer ones</v-btn>
        </v-card-actions>
      </v-card>
    </v-dialog>
  </div>
</template>

<style scoped>
.notice {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  padding: 10px 16px;
  margin-bottom: 14px;
  border-left: 4px solid rgb(var(--v-theme-info));
}
.head {
  margin: 12px 0 4px;
}
ul {
  padding-left: 20px;
}
</style>
