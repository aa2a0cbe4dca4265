<script setup lang="ts">
/**
 * Below a list: how many the region of the job leaves out, and how to see them; by keyboard it is a Tab from the entries.
 *
 * The menu that holds it opens without a transition: at the end of one the list takes the focus back to its chosen row,
 * and Enter would choose that row instead.
 */
defineProps<{ count: number; what: string; whatAll: string }>()
const shown = defineModel<boolean>({ required: true })
</script>

<template>
  <button v-if="count > 0" type="button" class="left-out" @mousedown.prevent @click.stop="shown = !shown">
    {{
      shown
        ? `Leave out what is made for another region (${count})`
        : `${count} ${count === 1 ? what : whatAll} made for another region ${count === 1 ? 'is' : 'are'} left out: show ${count === 1 ? 'it' : 'them'}`
    }}
  </button>
</template>

<style scoped>
.left-out {
  font: inherit;
  font-size: 0.875rem;
  text-align: left;
  color: rgb(var(--v-theme-primary));
  background: transparent;
  border: 0;
  border-top: 1px solid rgba(var(--v-theme-on-surface), 0.16);
  width: 100%;
  min-height: 44px;
  padding: 8px 16px;
  cursor: pointer;
}
</style>
