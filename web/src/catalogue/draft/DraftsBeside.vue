<script setup lang="ts">
import { computed } from 'vue'
import type { DraftList } from '#core'
import { useWritten } from '../../shared/times.ts'
import { kindWords } from './words.ts'

/** Drafts at work. */
const props = defineProps<{ drafts: DraftList['drafts'] }>()
const { moment } = useWritten()
const open = computed(() => props.drafts.filter(({ state }) => state === 'open'))
</script>

<template>
  <section v-if="open.length > 0" class="sheet pa-4" aria-label="Drafts">
    <h2>Drafts</h2>
    <ul>
      <li v-for="one in open" :key="one.id">
        <RouterLink :to="`/catalogue/drafts/${one.id}`">{{
          one.name || `Unnamed ${kindWords[one.kind] ?? one.kind}`
        }}</RouterLink>
        <span class="quiet">
          {{ one.corrects ? 'correction' : kindWords[one.kind] }}, {{ one.changedBy }},
          {{ moment(one.changedAt) }}</span
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 6px 0 0;
  display: grid;
  gap: 4px;
}
</style>
