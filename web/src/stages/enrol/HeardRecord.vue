<script setup lang="ts">
import { countsHere, groupId, knownBy, type Heard } from '#core'
import { useJob } from '../../store/job-store.ts'
import { useWritten } from '../../shared/times.ts'
import { toldWords } from '../../shared/told.ts'
import { vStack } from '../../shared/stack.ts'

defineProps<{ records: readonly Heard[] }>()
const job = useJob()
const decisions = { accepted: '✓ accepted', refused: '■ refused', released: '○ taken out' } as const
/** Where it comes from: heard, as far as the display showed it; typed; or practice, which counts as nothing real. */
function sourceWords(record: Heard): string {
  const how = { heard: record.source, typed: 'typed, not heard', sister: 'as its sister zone' }[
    knownBy(record)
  ]
  const part = record.shown === null ? '' : `, shown … ${record.shown}`
  const not = countsHere(job.doc, record) ? '' : ', counts for nothing here'
  return `${record.source === 'practice' && how !== 'practice' ? 'practice, ' : ''}${how}${part}${not}`
}
const { second: when } = useWritten()
</script>

<template>
  <div class="sheet scroll" tabindex="0" role="region" aria-label="On record">
    <table v-stack class="plain">
      <thead>
        <tr>
          <th>When</th>
          <th>ID</th>
          <th>Decision</th>
          <th>Reason</th>
          <th>By</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="record in [...records].reverse()" :key="record.id">
          <td>{{ when(record.at) }}</td>
          <td class="id">{{ groupId(job.catalogue.get('family', record.family), record.serial) }}</td>
          <td>{{ decisions[record.decision] }} ({{ sourceWords(record) }})</td>
          <td>{{ record.reason }}</td>
          <td>{{ record.made.name }}{{ toldWords(record.made) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.id {
  white-space: nowrap;
}
</style>
