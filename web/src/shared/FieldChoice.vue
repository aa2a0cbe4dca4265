<script setup lang="ts">
import { useField } from './useField.ts'

const props = defineProps<{
  id: string
  field: string
  kind: string
  label: string
  items: readonly { title: string; value: unknown }[]
  hint?: string
}>()

const { value, error, begin, commit } = useField<unknown>(
  () => props.id,
  () => props.field,
  () => props.kind,
)
</script>

<template>
  <v-select
    :model-value="value"
    :label="label"
    :items="[...items]"
    :error-messages="error"
    :hint="hint"
    :persistent-hint="!!hint"
    @focus="begin"
    @update:model-value="commit"
  />
</template>
