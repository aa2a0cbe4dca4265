<script setup lang="ts">
import { computed } from 'vue'
import type { CatalogueEntry, DraftList } from '#core'
import { useWritten } from '../../shared/times.ts'
import { kindWords } from './words.ts'

/** Drafts at work, and who published the entries that are looked at. */
const props = defineProps<{ drafts: DraftList['drafts']; of: readonly CatalogueEntry[] }>()
const { moment } = useWritten()
const open = computed(() => props.drafts.filter(({ state }) => state === 'open'))
const history = computed(() =>
  props.of.flatMap((entry) =>
    props.drafts
      .filter(({ state, entryId }) => state === 'published' && entryId === entry.id)
      .map((row) => ({ entry, row })),
  ),
)
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
  <section v-if="history.length > 0" class="sheet pa-4" aria-label="Published here">
    <h2>Published here</h2>
    <ul>
      <li v-for="{ entry, row } in history" :key="row.id">
        <strong>{{ entry.name }}</strong>
        <span class="quiet">
          {{ row.changedBy }}, {{ moment(row.changedAt) }}{{ row.why ? `: ${row.why}` : '' }}</span
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
