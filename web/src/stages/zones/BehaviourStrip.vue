<script setup lang="ts">
import { computed } from 'vue'
import { tripWords, type ModeTrip, type Trip } from '#core'

const props = defineProps<{ modes: readonly ModeTrip[] }>()
const marks: Readonly<Record<Trip, string>> = {
  ignore: '·',
  instant: '!',
  'entry-1': '1',
  'entry-2': '2',
  follow: '›',
  alert: '♪',
  command: '⌘',
}
const words = computed(() =>
  props.modes
    .map((item) => `${item.mode}: ${tripWords(item.trip)}${item.because ? ` (${item.because})` : ''}`)
    .join(', '),
)
</script>

<template>
  <span v-if="modes.length > 0" class="strip" role="img" :aria-label="words" :title="words">
    <span
      v-for="item in modes"
      :key="item.mode"
      class="mode"
      :class="[item.trip, { coupled: item.because !== '' }]"
      >{{ marks[item.trip] }}</span
    >
  </span>
</template>

<style scoped>
.strip {
  display: inline-flex;
  gap: 2px;
  vertical-align: middle;
}
.mode {
  width: 19px;
  height: 19px;
  border-radius: 4px;
  display: grid;
  place-items: center;
  font-family: var(--mono);
  font-size: 0.8125rem;
  font-weight: 700;
  background: rgba(var(--v-theme-on-surface), 0.08);
}
.instant {
  background: rgb(var(--v-theme-primary));
  color: rgb(var(--v-theme-surface));
}
.entry-1,
.entry-2 {
  background: rgba(var(--v-theme-secondary), 0.3);
}
.follow {
  box-shadow: inset 0 0 0 1.5px rgb(var(--v-theme-secondary));
}
.coupled {
  outline: 1.5px dashed rgb(var(--v-theme-secondary));
}
.ignore {
  font-weight: 400;
}
</style>
