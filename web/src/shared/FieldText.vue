<script setup lang="ts">
import { ref, watch } from 'vue'
import { readNumber, useField } from './useField.ts'

const props = defineProps<{
  id: string
  field: string
  kind: string
  label: string
  lines?: number
  number?: boolean
  suffix?: string
  hint?: string
}>()

const { value, error, begin, commit } = useField<string | number | null>(
  () => props.id,
  () => props.field,
  () => props.kind,
)
const draft = ref(show(value.value))
let typing = false
watch(value, (now) => {
  if (!typing) draft.value = show(now)
})

function show(now: string | number | null): string {
  return now === null || now === undefined ? '' : String(now)
}

function start(): void {
  typing = true
  begin()
}

function finish(): void {
  if (!typing) return
  typing = false
  if (draft.value === show(value.value)) {
    commit(value.value)
    return
  }
  commit(parse())
}

function parse(): string | number | null {
  return props.number ? readNumber(draft.value) : draft.value
}
</script>

<template>
  <v-textarea
    v-if="lines"
    v-model="draft"
    :label="label"
    :rows="lines"
    auto-grow
    :error-messages="error"
    :hint="hint"
    @focus="start"
    @blur="finish"
  />
  <v-text-field
    v-else
    v-model="draft"
    :label="label"
    :suffix="suffix"
    :inputmode="number ? 'decimal' : 'text'"
    :error-messages="error"
    :hint="hint"
    :persistent-hint="!!hint"
    @focus="start"
    @blur="finish"
    @keydown.enter="($event.target as HTMLElement).blur()"
  />
</template>
