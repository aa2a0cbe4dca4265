<script setup lang="ts">
import { useField } from './useField.ts'

const props = defineProps<{
  id: string
  field: string
  kind: string
  label: string
  items: readonly { title: string; value: string | null }[]
  /** Takes the choice instead, where it is more than one field. */
  take?: (value: string | null) => void
}>()

const { value, error, begin, commit } = useField<string | null>(
  () => props.id,
  () => props.field,
  () => props.kind,
)

function choose(event: Event): void {
  const chosen = (event.target as HTMLSelectElement).value
  const choice = chosen === '' ? null : chosen
  if (props.take) props.take(choice)
  else commit(choice)
}
</script>

<template>
  <select
    :value="value ?? ''"
    :aria-label="label"
    :aria-invalid="error !== ''"
    :title="error"
    @focus="begin"
    @change="choose"
  >
    <option
      v-if="value !== null && value !== undefined && !items.some((item) => item.value === value)"
      :value="value"
    >
      {{ value }} (not on this panel)
    </option>
    <option v-for="item in items" :key="item.value ?? ''" :value="item.value ?? ''">{{ item.title }}</option>
  </select>
</template>

<style scoped>
select {
  font: inherit;
  color: inherit;
  padding: 3px 4px;
  border: 1px solid transparent;
  border-radius: 5px;
  background: transparent;
  max-width: 100%;
}
select:hover {
  border-color: rgba(var(--v-theme-on-surface), 0.25);
}
option {
  color: #1d2527;
  background: #fffdf8;
}
</style>
