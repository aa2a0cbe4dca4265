<script setup lang="ts">
import { useNow } from '@vueuse/core'
import { computed } from 'vue'
import { leftWords, type JobSummary } from '#core'

/** The clocks of a job in its line of the list: the one that ends first, and how many more run. */
const props = defineProps<{ clocks: JobSummary['clocks'] }>()
const now = useNow({ interval: 1_000 })
const running = computed(() =>
  props.clocks
    .map((clock) => ({ ...clock, left: leftWords(now.value.toISOString(), clock.ends) }))
    // A temporary state that is past its end stays until somebody ends it.
    .filter(({ kind, left }) => left !== '' || kind === 'state'),
)
const first = computed(() => running.value[0] ?? null)
</script>

<template>
  <div v-if="first" class="clock" :class="{ past: first.left === '' }">
    <template v-if="first.left === ''">▲ {{ first.words }}: past its end</template>
    <template v-else
      >◷ <span role="timer" aria-live="off">{{ first.left }}</span> · {{ first.words }}</template
    >
    <span v-if="running.length > 1" class="quiet">, {{ running.length - 1 }} more</span>
  </div>
</template>

<style scoped>
.clock {
  font-size: 0.8125rem;
  font-variant-numeric: tabular-nums;
}
.past {
  font-weight: 650;
  color: rgb(var(--v-theme-warning));
}
</style>
