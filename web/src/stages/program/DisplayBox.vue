<script setup lang="ts">
/** What a panel's display shows, line by line, as it stands there. */
defineProps<{ lines: readonly string[]; large?: boolean }>()
</script>

<template>
  <span class="display" :class="{ large }"
    ><span v-for="(line, index) in lines" :key="index" class="line">{{ line || ' ' }}</span></span
  >
</template>

<style scoped>
.display {
  display: inline-block;
  max-width: 100%;
  padding: 2px 8px;
  overflow-x: auto;
  font-family: var(--mono);
  font-size: 0.8125rem;
  line-height: 1.35;
  background: rgba(var(--v-theme-on-surface), 0.06);
  border-radius: 4px;
}
.line {
  display: block;
  min-height: 1.35em;
  white-space: pre;
}
.large {
  display: block;
  padding: 10px 16px;
  font-size: 1.25rem;
}
@media print {
  .display {
    background: none;
    border: 1px solid #999;
  }
}
</style>
