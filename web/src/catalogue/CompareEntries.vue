<script setup lang="ts">
import { computed } from 'vue'
import { describeEntry, type Catalogue, type CatalogueEntry } from '#core'

const props = defineProps<{ entries: readonly CatalogueEntry[]; catalogue: Catalogue }>()
const emit = defineEmits<{ drop: [id: string] }>()

/** One row per fact; a fact that none of them has is left out. */
const rows = computed(() => {
  const columns = props.entries.map((entry) => describeEntry(entry, props.catalogue))
  return (columns[0] ?? [])
    .map((line, index) => {
      const values = columns.map((column) => column[index]?.value ?? '–')
      return { label: line.label, values, differs: new Set(values).size > 1 }
    })
    .filter((row) => row.values.some((value) => value !== '–'))
})
</script>

<template>
  <div class="sheet scroll">
    <table class="plain">
      <thead>
        <tr>
          <th><span class="sr-only">Fact</span></th>
          <th v-for="entry in entries" :key="entry.id" class="name">
            {{ entry.name }}
            <v-btn
              size="x-small"
              variant="text"
              class="text-none"
              :aria-label="`Leave ${entry.name} out`"
              @click="emit('drop', entry.id)"
              >✕</v-btn
            >
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.label" :class="{ differs: row.differs }">
          <th scope="row">{{ row.differs ? '≠ ' : '' }}{{ row.label }}</th>
          <td v-for="(value, index) in row.values" :key="index">{{ value }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow: auto;
  max-height: calc(100vh - 200px);
}
.name {
  color: rgb(var(--v-theme-on-surface)) !important;
  font-size: 0.9375rem !important;
}
.differs td {
  font-weight: 650;
}
.differs th {
  color: rgb(var(--v-theme-on-surface)) !important;
}
th[scope='row'] {
  vertical-align: top;
}
td {
  vertical-align: top !important;
  min-width: 130px;
}
</style>
