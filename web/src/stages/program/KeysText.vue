<script setup lang="ts">
import { computed } from 'vue'

const props = defineProps<{ text: string }>()
/** `[go] 14 [tick]` in parts: what stands in brackets is a key of its own, the rest is typed. */
const parts = computed(() =>
  props.text
    .split(/(\[[^\]]+\])/)
    .filter((part) => part.trim() !== '')
    .map((part) =>
      part.startsWith('[') ? { key: true, text: part.slice(1, -1) } : { key: false, text: part },
    ),
)
</script>

<template>
  <span class="keys">
    <template v-for="(part, index) in parts" :key="index">
      <kbd v-if="part.key">{{ part.text }}</kbd><span v-else>{{ part.text }}</span
      >{{ ' ' }}
    </template>
  </span>
</template>

<style scoped>
.keys {
  font-family: var(--mono);
  font-size: 0.875rem;
  overflow-wrap: anywhere;
}
kbd {
  font: inherit;
  font-size: 0.8125rem;
  padding: 0 6px;
  border: 1px solid rgba(var(--v-theme-on-surface), 0.35);
  border-bottom-width: 2px;
  border-radius: 5px;
}
</style>
