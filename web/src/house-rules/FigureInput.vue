<script setup lang="ts">
import { ref, watch } from 'vue'

/** A number as text: what is being typed stays until the field is left, whatever else changes meanwhile. */
const props = defineProps<{ value: number; disabled: boolean; wrong: boolean }>()
const emit = defineEmits<{ change: [text: string] }>()
const draft = ref(String(props.value))
let typing = false
watch(
  () => props.value,
  (now) => {
    if (!typing) draft.value = String(now)
  },
)

function finish(): void {
  if (!typing) return
  typing = false
  if (draft.value !== String(props.value)) emit('change', draft.value)
}
</script>

<template>
  <input
    v-model="draft"
    :disabled="disabled"
    inputmode="decimal"
    size="5"
    :aria-invalid="wrong ? 'true' : undefined"
    @focus="typing = true"
    @blur="finish"
    @keydown.enter="($event.target as HTMLElement).blur()"
  />
</template>

<style scoped>
input {
  font: inherit;
  font-variant-numeric: tabular-nums;
  text-align: right;
  color: inherit;
  padding: 3px 6px;
  border: 1px solid rgba(var(--v-theme-on-surface), 0.35);
  border-radius: 5px;
  background: transparent;
}
input[aria-invalid='true'] {
  border-color: rgb(var(--v-theme-error));
}
</style>
