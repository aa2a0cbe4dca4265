<script setup lang="ts">
import { ref } from 'vue'
import { ASSUMED } from '#core'

/** Where an answer was read: what nobody read is a risk in every job that rests on it, until somebody sees it. */
const props = defineProps<{ source: string; label: string }>()
const emit = defineEmits<{ said: [source: string] }>()
const open = ref(false)
const offers = ['leaflet', 'seen on the panel', 'tried', ASSUMED] as const

function say(source: string): void {
  open.value = false
  if (source.trim() !== props.source) emit('said', source.trim())
}
</script>

<template>
  <div class="source">
    <v-btn
      variant="text"
      size="small"
      height="40"
      :color="source === ASSUMED ? 'warning' : undefined"
      :aria-expanded="open"
      :aria-label="`Where it was read: ${label}`"
      @click="open = !open"
      >{{
        source === '' ? 'where was it read?' : source === ASSUMED ? '▲ assumed' : `read: ${source}`
      }}</v-btn
    >
    <div v-if="open" class="offers">
      <v-btn
        v-for="offer in offers"
        :key="offer"
        variant="outlined"
        height="40"
        :aria-pressed="source === offer"
        @click="say(source === offer ? '' : offer)"
        >{{ source === offer ? '✓ ' : '' }}{{ offer }}</v-btn
      >
      <v-text-field
        :model-value="source"
        :aria-label="`Read at: ${label}`"
        placeholder="leaflet p. 4"
        maxlength="80"
        hide-details
        class="own"
        @change="say(($event.target as HTMLInputElement).value)"
      />
    </div>
  </div>
</template>

<style scoped>
.source {
  flex: 1 1 100%;
}
.source > .v-btn {
  margin-left: -12px;
}
.offers {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.own {
  flex: 1 1 160px;
  max-width: 300px;
}
</style>
