<script setup lang="ts" generic="T">
import { computed, ref } from 'vue'

/** The first lines of a long list; the others unfold and fold again. Its slot fills a line. */
const props = defineProps<{ lines: readonly T[]; most: number }>()
const open = ref(false)
const shown = computed(() => (open.value ? props.lines : props.lines.slice(0, props.most)))
</script>

<template>
  <ul>
    <li v-for="(line, index) in shown" :key="index"><slot :line="line" /></li>
    <li v-if="lines.length > most">
      <button type="button" class="fold" :aria-expanded="open" @click="open = !open">
        {{ open ? 'fewer' : `and ${lines.length - most} more` }}
      </button>
    </li>
  </ul>
</template>

<style scoped>
.fold {
  font: inherit;
  color: rgb(var(--v-theme-primary));
  background: transparent;
  border: 0;
  padding: 0;
  min-height: 24px;
  cursor: pointer;
  text-decoration: underline;
}
</style>
