<script setup lang="ts">
/** What a display shows, sign by sign. */
defineProps<{ lines: readonly string[]; columns: number; label: string }>()
</script>

<template>
  <div class="shown" role="img" :aria-label="`${label}: ${lines.join(', ')}`">
    <div v-for="(line, index) in lines" :key="index" class="line">{{ line.padEnd(columns) }}</div>
  </div>
</template>

<style scoped>
.shown {
  display: inline-block;
  max-width: 100%;
  overflow-x: auto;
  padding: 10px 14px;
  border-radius: 6px;
  background: rgb(var(--v-theme-on-surface));
  color: rgb(var(--v-theme-surface));
  font-family: var(--mono);
  font-size: 1.0625rem;
}
.line {
  white-space: pre;
  min-height: 1.45em;
}
</style>
