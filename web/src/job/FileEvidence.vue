<script setup lang="ts">
import { computed } from 'vue'
import { fileEvidence, proofRules, recordOf, type Heard, type TestResult } from '#core'
import { useJob } from '../store/job-store.ts'
import { useWritten } from '../shared/times.ts'

/** What the opened job file brought of enrolments and proofs: kept, shown here, and counted for nothing until it is repeated. */
const job = useJob()
const { day } = useWritten()
const brought = computed(() => fileEvidence(job.doc))
const outcomes = { pass: 'passed', fail: 'failed', inconclusive: 'inconclusive' } as const

function counted(number: number, one: string, many: string): string[] {
  return number === 0 ? [] : [`${number} ${number === 1 ? one : many}`]
}
const counts = computed(() => {
  const { heard, tests, others } = brought.value ?? { heard: [], tests: [], others: 0 }
  return [
    ...counted(heard.length, 'enrolment', 'enrolments'),
    ...counted(tests.length, 'proof', 'proofs'),
    ...counted(others, 'other record', 'other records'),
  ].join(', ')
})

/** The device that a piece is of, as it was named then, and its zone where it still has that number. */
function subjectOf({ of, subject }: Heard | TestResult): string {
  const zone = recordOf(job.doc, 'zone', subject)
  const device = [job.catalogue.nameOf(of?.model ?? null), of?.room].filter(Boolean).join(', ')
  return [zone ? `Zone ${zone.number}` : '', device].filter(Boolean).join(' · ') || 'The panel'
}
const lines = computed(() => [
  ...(brought.value?.heard ?? []).map((one) => ({
    id: one.id,
    text: `${subjectOf(one)}: enrolled as ${one.serial}, ${one.made.name}, ${day(one.at)}`,
  })),
  ...(brought.value?.tests ?? []).map((one) => ({
    id: one.id,
    text: `${subjectOf(one)}: ${proofRules[one.kind].name} ${outcomes[one.outcome]}, ${one.made.name}, ${day(one.at)}`,
  })),
])
</script>

<template>
  <details v-if="brought" class="brought no-print">
    <summary>
      <strong>The job file brought {{ counts }}.</strong> They were made elsewhere, so none of them counts
      here until it is repeated.
    </summary>
    <ul tabindex="0" aria-label="What the job file brought">
      <li v-for="line in lines" :key="line.id">{{ line.text }}</li>
    </ul>
  </details>
</template>

<style scoped>
.brought {
  padding: 6px 24px;
  background: rgba(var(--v-theme-on-surface), 0.06);
}
summary {
  cursor: pointer;
  min-height: 24px;
}
ul {
  padding-left: 20px;
  max-height: 40vh;
  overflow-y: auto;
}
@media (max-width: 600px) {
  .brought {
    padding: 4px 12px;
  }
}
</style>
