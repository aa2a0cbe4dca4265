<script setup lang="ts">
import { mdiClose } from '@mdi/js'

defineProps<{ label: string }>()
const emit = defineEmits<{ press: [] }>()
</script>

<template>
  <v-btn :icon="mdiClose" size="x-small" variant="text" :aria-label="label" @click="emit('press')" />
</template>
