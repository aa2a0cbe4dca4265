<script setup lang="ts">
import { computed } from 'vue'
import { departureLines } from '#core'
import { useJob } from '../../store/job-store.ts'
import { useWritten } from '../../shared/times.ts'
import { vStack } from '../../shared/stack.ts'

const job = useJob()
const { day } = useWritten()
const lines = computed(() => departureLines(job.doc, job.findings, job.system?.panel ?? null))
const kinds = {
  'life-safety': '■ Life safety, taken on',
  finding: '◇ Finding, taken on',
  'house-rule': '◇ Other than the house rule',
  zone: '◇ Zone',
} as const
</script>

<template>
  <section v-if="lines.length > 0" class="sheet pa-4" aria-label="Departures">
    <h2>Departures, each with its reason</h2>
    <table v-stack class="plain">
      <thead>
        <tr>
          <th>Kind</th>
          <th>What</th>
          <th>Reason</th>
          <th>By</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(line, index) in lines" :key="index" :class="{ life: line.kind === 'life-safety' }">
          <td>{{ kinds[line.kind] }}</td>
          <td>{{ line.what }}</td>
          <td>{{ line.reason }}</td>
          <td>{{ line.by }}{{ line.at ? `, ${day(line.at)}` : '' }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.life td {
  font-weight: 650;
  color: rgb(var(--v-theme-error));
}
</style>
