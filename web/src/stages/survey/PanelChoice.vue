<script setup lang="ts">
import { computed, ref } from 'vue'
import { choosePanelOps, jobInfo, offerPanels, type Verdict } from '#core'
import HiddenByRegion from '../../shared/HiddenByRegion.vue'
import { useJob } from '../../store/job-store.ts'

const job = useJob()
const info = computed(() => jobInfo(job.doc))
const panel = computed(() => job.catalogue.get('panel', info.value.panel))
const offers = computed(() => (job.system ? offerPanels(job.system, job.catalogue) : []))
const everywhere = ref(false)
const hidden = computed(
  () => offers.value.filter((offer) => !offer.here && offer.panel.id !== info.value.panel).length,
)
/** Each with what it makes of the kit as it comes. */
const items = computed(() =>
  offers.value
    .filter((offer) => offer.here || everywhere.value || offer.panel.id === info.value.panel)
    .map(({ panel: one, counts, here }) => ({
      title: one.name,
      value: one.id,
      subtitle: [one.style, ...fitOf(counts), ...(here ? [] : ['not made for this region'])].join(' · '),
    })),
)

function fitOf(counts: Readonly<Record<Verdict, number>>): string[] {
  const all = counts.works + counts.loss + counts.no + counts.unknown
  if (all === 0) return []
  const parts = [
    `${counts.works + counts.loss} of ${all} devices fit as it comes`,
    counts.loss > 0 ? `${counts.loss} with a loss` : '',
    counts.unknown > 0 ? `of ${counts.unknown} nobody can tell` : '',
  ]
  return [parts.filter(Boolean).join(', ')]
}

function choose(id: string | null): void {
  job.edit('job.panel', choosePanelOps(job.doc, job.catalogue, id))
}

const came = [
  { title: 'not said', value: null },
  { title: 'new', value: 'new' },
  { title: 'used before', value: 'used' },
  { title: 'was there, stays', value: 'there' },
] as const
function setCame(to: string | null): void {
  job.set('job.set', 'job:main', 'panelCame', info.value.panelCame, to)
}

function setFirmware(to: string): void {
  job.set('job.set', 'job:main', 'radioFirmware', info.value.radioFirmware, to)
}
</script>

<template>
  <div class="both">
    <v-select
      :model-value="info.panel"
      label="Panel"
      :items="items"
      item-props
      :menu-props="{ transition: false }"
      clearable
      @update:model-value="choose"
    >
      <template #menu-footer
        ><HiddenByRegion v-model="everywhere" :count="hidden" what="panel" what-all="panels"
      /></template>
    </v-select>
    <v-select
      v-if="panel && panel.radioFirmware.length > 0"
      :model-value="info.radioFirmware"
      label="Radio firmware"
      :items="[...panel.radioFirmware]"
      hint="Read it from the panel's start display"
      @update:model-value="setFirmware"
    />
    <v-select
      v-if="panel"
      :model-value="info.panelCame"
      label="How the panel came"
      :items="[...came]"
      @update:model-value="setCame"
    />
  </div>
</template>

<style scoped>
/* Both are cells of the survey's own grid. */
.both {
  display: contents;
}
</style>
