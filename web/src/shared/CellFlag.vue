<script setup lang="ts">
import { useField } from './useField.ts'

const props = defineProps<{ id: string; field: string; kind: string; label: string }>()
const { value, commit } = useField<boolean>(
  () => props.id,
  () => props.field,
  () => props.kind,
)
</script>

<template>
  <input type="checkbox" :checked="value" :aria-label="label" :title="label" @change="commit(!value)" />
</template>

<style scoped>
input {
  width: 17px;
  height: 17px;
  vertical-align: middle;
}
</style>
