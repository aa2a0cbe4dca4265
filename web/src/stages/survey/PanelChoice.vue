<script setup lang="ts">
import { computed } from 'vue'
import { choosePanelOps, jobInfo } from '#core'
import { useJob } from '../../store/job-store.ts'

const job = useJob()
const info = computed(() => jobInfo(job.doc))
const panel = computed(() => job.catalogue.get('panel', info.value.panel))
const items = computed(() =>
  job.catalogue
    .all('panel')
    .filter(
      (item) =>
        info.value.region === 'own' ||
        item.regions.includes(info.value.region) ||
        item.id === info.value.panel,
    )
    .map((item) => ({ title: `${item.name} — ${item.style}`, value: item.id })),
)

function choose(id: string | null): void {
  job.edit('job.panel', choosePanelOps(job.doc, job.catalogue, id))
}

function setFirmware(to: string): void {
  job.set('job.set', 'job:main', 'radioFirmware', info.value.radioFirmware, to)
}
</script>

<template>
  <div class="both">
    <v-select :model-value="info.panel" label="Panel" :items="items" clearable @update:model-value="choose" />
    <v-select
      v-if="panel && panel.radioFirmware.length > 0"
      :model-value="info.radioFirmware"
      label="Radio firmware"
      :items="[...panel.radioFirmware]"
      hint="Read it from the panel's start display"
      @update:model-value="setFirmware"
    />
  </div>
</template>

<style scoped>
/* Both are cells of the survey's own grid. */
.both {
  display: contents;
}
</style>
