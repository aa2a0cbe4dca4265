<script setup lang="ts">
import { computed, onBeforeUnmount, ref } from 'vue'

/** Counts some seconds down while something is pressed by hand. */
const props = defineProps<{ seconds: number }>()
const since = ref<number | null>(null)
const now = ref(0)
let ticks: ReturnType<typeof setInterval> | undefined
const left = computed(() =>
  since.value === null ? props.seconds : Math.ceil(props.seconds - (now.value - since.value) / 1000),
)

function start(): void {
  clearInterval(ticks)
  since.value = now.value = Date.now()
  ticks = setInterval(() => {
    now.value = Date.now()
    if (left.value <= 0) clearInterval(ticks)
  }, 250)
}
onBeforeUnmount(() => clearInterval(ticks))
</script>

<template>
  <v-btn variant="outlined" min-height="48" @click="start">
    <template v-if="since === null">Press: {{ seconds }} s</template>
    <template v-else-if="left > 0"
      ><span role="timer">{{ left }} s</span></template
    >
    <template v-else>✓ {{ seconds }} s pressed</template>
  </v-btn>
</template>
