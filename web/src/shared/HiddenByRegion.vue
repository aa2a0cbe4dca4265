<script setup lang="ts">
/** At the end of a list: how many the region of the job leaves out, and how to see them. */
defineProps<{ count: number; what: string; whatAll: string }>()
const shown = defineModel<boolean>({ required: true })
</script>

<template>
  <v-list-item v-if="count > 0" class="hidden" @mousedown.prevent @click.stop="shown = !shown">
    <v-list-item-title class="small">{{
      shown
        ? `Leave out what is made for another region (${count})`
        : `${count} ${count === 1 ? what : whatAll} made for another region ${count === 1 ? 'is' : 'are'} left out: show ${count === 1 ? 'it' : 'them'}`
    }}</v-list-item-title>
  </v-list-item>
</template>

<style scoped>
.hidden {
  border-top: 1px solid rgba(var(--v-theme-on-surface), 0.16);
}
.small {
  font-size: 0.875rem;
  color: rgb(var(--v-theme-primary));
}
</style>
