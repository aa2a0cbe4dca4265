<script setup lang="ts">
import type { Answer, Catalogue, Cell } from '#core'
import RowCells from './RowCells.vue'

/** A few cells that belong together. */
const props = defineProps<{
  cells: readonly Cell[]
  value: Answer['value'] | undefined
  label: string
  catalogue: Catalogue
  fault: string
}>()
const emit = defineEmits<{ answer: [value: Answer['value'] | undefined] }>()

function set(cell: Cell, value: Answer['value'] | undefined): void {
  const row = { ...((props.value ?? {}) as Record<string, Answer['value']>), [cell.key]: value ?? null }
  emit('answer', Object.values(row).every((one) => one === null) ? undefined : row)
}
</script>

<template>
  <div class="group" role="group" :aria-label="label">
    <RowCells
      :cells="cells"
      :row="(value ?? {}) as Record<string, Answer['value']>"
      :catalogue="catalogue"
      @set="set"
    />
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.group {
  flex: 1 1 100%;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.fault {
  flex: 1 0 100%;
  color: rgb(var(--v-theme-error));
  margin: 0;
}
</style>
