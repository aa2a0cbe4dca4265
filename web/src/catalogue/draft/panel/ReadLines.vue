<script setup lang="ts">
import { ref } from 'vue'
import { vFocus } from '../../../shared/focus.ts'

/** What the panel shows is typed as it stands there, line by line. */
const props = defineProps<{ lines: number; columns: number; asked: string; begins: readonly string[] }>()
const emit = defineEmits<{ read: [lines: readonly string[]]; cancel: [] }>()
const typed = ref(Array.from({ length: props.lines }, (_, index) => props.begins[index] ?? ''))
const fault = ref('')

function say(): void {
  const lines = typed.value.map((line) => line.trimEnd())
  fault.value = lines.every((line) => line === '')
    ? 'Type what stands on the display: at least one sign.'
    : ''
  if (fault.value === '') emit('read', lines)
}
</script>

<template>
  <form v-focus class="read" @submit.prevent="say">
    <h4>{{ asked }}</h4>
    <v-text-field
      v-for="(_, index) in typed"
      :key="index"
      v-model="typed[index]"
      :label="lines === 1 ? 'The display' : `Line ${index + 1}`"
      :maxlength="columns"
      :error-messages="index === 0 ? fault : ''"
      autocomplete="off"
      class="line"
      hide-details="auto"
    />
    <div class="acts">
      <v-btn type="submit" color="primary" variant="flat" height="44">That is what it shows</v-btn>
      <v-btn variant="text" height="44" @click="emit('cancel')">Back to the keys</v-btn>
    </div>
  </form>
</template>

<style scoped>
.read {
  display: grid;
  gap: 8px;
}
.line :deep(input) {
  font-family: var(--mono);
}
h4 {
  margin: 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
