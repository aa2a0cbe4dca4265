<script setup lang="ts">
import { computed } from 'vue'
import type { Answer, Choice } from '#core'

/** What is keyed for each of a few choices. */
const props = defineProps<{ choices: readonly Choice[]; value: Answer['value'] | undefined }>()
const emit = defineEmits<{ answer: [value: Answer['value'] | undefined] }>()
const keyed = computed(() => (props.value ?? {}) as Record<string, string>)

function say(choice: string, event: Event): void {
  const text = (event.target as HTMLInputElement).value.trim()
  const { [choice]: _was, ...rest } = keyed.value
  const now = text === '' ? rest : { ...keyed.value, [choice]: text }
  emit('answer', Object.keys(now).length > 0 ? now : undefined)
}
</script>

<template>
  <div class="keyed">
    <v-text-field
      v-for="choice in choices"
      :key="choice.value"
      :model-value="keyed[choice.value] ?? ''"
      :label="choice.title"
      maxlength="16"
      hide-details
      class="one"
      @change="say(choice.value, $event)"
    />
  </div>
</template>

<style scoped>
.keyed {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.one {
  flex: 0 1 170px;
}
</style>
