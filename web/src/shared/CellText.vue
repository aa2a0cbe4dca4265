<script setup lang="ts">
import { ref, watch } from 'vue'
import { readNumber, useField } from './useField.ts'

const props = defineProps<{
  id: string
  field: string
  kind: string
  label: string
  number?: boolean
  mono?: boolean
  size?: number
  placeholder?: string
  /** Turns what was typed into the stored value, or throws an Error that says why it cannot. */
  read?: (text: string) => unknown
}>()
const emit = defineEmits<{ taken: [] }>()

const { value, error, begin, commit } = useField<string | number | null>(
  () => props.id,
  () => props.field,
  () => props.kind,
)
const show = (now: string | number | null): string => (now === null || now === undefined ? '' : String(now))
const draft = ref(show(value.value))
let typing = false
watch(value, (now) => {
  if (!typing) draft.value = show(now)
})

function start(): void {
  typing = true
  begin()
}

function finish(): void {
  if (!typing) return
  typing = false
  if (draft.value === show(value.value)) {
    error.value = ''
    return
  }
  try {
    if (commit(parse() as string)) emit('taken')
  } catch (thrown) {
    error.value = (thrown as Error).message
  }
}

function parse(): unknown {
  const text = draft.value.trim()
  if (props.read) return props.read(text)
  if (!props.number) return draft.value
  return readNumber(text)
}

function restore(): void {
  draft.value = show(value.value)
  error.value = ''
  typing = false
}
</script>

<template>
  <span class="cell">
    <input
      v-model="draft"
      :aria-label="label"
      :aria-invalid="error !== ''"
      :class="{ id: mono, num: number, wrong: error !== '' }"
      :size="size ?? 10"
      :placeholder="placeholder"
      :inputmode="number ? 'decimal' : 'text'"
      @focus="start"
      @blur="finish"
      @keydown.enter="($event.target as HTMLElement).blur()"
      @keydown.esc="restore"
    />
    <span v-if="error" class="fault" role="alert">{{ error }}</span>
  </span>
</template>

<style scoped>
.cell {
  display: inline-flex;
  flex-direction: column;
  max-width: 100%;
}
input {
  font: inherit;
  color: inherit;
  padding: 3px 6px;
  border: 1px solid transparent;
  border-radius: 5px;
  background: transparent;
  max-width: 100%;
}
input.id {
  font-family: var(--mono);
}
input:hover {
  border-color: rgba(var(--v-theme-on-surface), 0.25);
}
input:focus {
  border-color: rgb(var(--v-theme-primary));
  background: rgb(var(--v-theme-background));
}
input::placeholder {
  color: rgba(var(--v-theme-on-surface), 0.62);
}
.wrong {
  border-color: rgb(var(--v-theme-error));
}
.fault {
  color: rgb(var(--v-theme-error));
  font-size: 0.8125rem;
  max-width: 260px;
}
</style>
