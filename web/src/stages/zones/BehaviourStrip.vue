<script setup lang="ts">
import { computed } from 'vue'
import { tripWords, type ResponseType, type Trip } from '#core'

const props = defineProps<{
  type: ResponseType | null
  /** Whether the user may make it a day zone. */
  dayZone?: boolean
}>()
const marks: Readonly<Record<Trip, string>> = {
  ignore: '·',
  instant: '!',
  'entry-1': '1',
  'entry-2': '2',
  follow: '›',
  alert: '♪',
  command: '⌘',
}
const modes = computed(() =>
  props.type
    ? [
        { name: 'away', trip: props.type.away },
        { name: 'stay', trip: props.type.stay },
        ...(props.type.night === undefined ? [] : [{ name: 'night', trip: props.type.night }]),
        {
          name: props.dayZone ? 'unset, if the user chooses' : 'unset',
          trip: props.dayZone ? ('alert' as const) : props.type.disarmed,
        },
      ]
    : [],
)
const words = computed(() => modes.value.map((mode) => `${mode.name}: ${tripWords(mode.trip)}`).join(', '))
</script>

<template>
  <span v-if="type" class="strip" role="img" :aria-label="words" :title="words">
    <span v-for="mode in modes" :key="mode.name" class="mode" :class="mode.trip">{{ marks[mode.trip] }}</span>
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
.ignore {
  font-weight: 400;
}
</style>
