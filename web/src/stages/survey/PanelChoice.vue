<script setup lang="ts">
import { computed } from 'vue'
import { jobInfo, type Op } from '#core'
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

/** Choosing a new panel also takes its newest radio firmware, as one edit; that of a panel on the wall must be read. */
function choose(id: string | null): void {
  const { panel: from, radioFirmware, kind } = info.value
  if (id === from) return
  const newest = job.catalogue.get('panel', id)?.radioFirmware.at(-1) ?? null
  const firmware = kind === 'new' ? newest : null
  const ops: Op[] = [...job.pins([id]), { op: 'set', id: 'job:main', field: 'panel', from, to: id }]
  if (firmware !== radioFirmware)
    ops.push({ op: 'set', id: 'job:main', field: 'radioFirmware', from: radioFirmware, to: firmware })
  job.edit('job.panel', ops)
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
