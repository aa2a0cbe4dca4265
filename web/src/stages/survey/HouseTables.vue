<script setup lang="ts">
import { computed } from 'vue'
import { recordsOf } from '#core'
import { useJob } from '../../store/job-store.ts'
import OpeningTable from './OpeningTable.vue'
import RoomTable from './RoomTable.vue'
import WayTable from './WayTable.vue'

const job = useJob()
const ways = computed(() => recordsOf(job.doc, 'way').length)
</script>

<template>
  <div class="tables">
    <div><RoomTable /></div>
    <div><OpeningTable /></div>
    <div v-if="ways > 0"><WayTable /></div>
  </div>
</template>

<style scoped>
.tables {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 10px 24px;
  margin-top: 16px;
  align-items: start;
}
/* The rooms have most to say of themselves. */
.tables > :first-child {
  grid-column: 1 / -1;
}
@media (max-width: 1100px) {
  .tables {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
