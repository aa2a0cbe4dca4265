<script setup lang="ts">
import { mdiPuzzleCheckOutline } from '@mdi/js'
import { computed, ref } from 'vue'
import { applyOps, fitAll, reasonWords, systemOf } from '#core'
import OpsPreview from '../../shared/OpsPreview.vue'
import { useJob } from '../../store/job-store.ts'
import { useSolver } from './useSolver.ts'

const job = useJob()
const open = ref(false)
const { running, stopped, progress, start, stop } = useSolver()
const best = computed(() => progress.value?.best ?? null)
/** Devices of which it cannot be told yet whether they fit, once all of it is applied: a fact is missing, such as a firmware. */
const untold = computed(() => {
  const result = best.value && applyOps(job.doc, best.value.ops)
  if (!result?.ok) return []
  const fits = fitAll(systemOf(result.doc, job.catalogue))
  return [...fits].flatMap(([id, { verdict }]) => (verdict === 'unknown' ? id : []))
})
const headline = computed(() => {
  const { leftOut, ops, cost } = best.value ?? { leftOut: [], ops: [], cost: 0 }
  if (leftOut.length > 0)
    return `■ Not everything can fit: ${leftOut.length} ${leftOut.length === 1 ? 'device stays' : 'devices stay'} out.`
  if (untold.value.length > 0)
    return `○ Nothing is known not to fit${ops.length > 0 ? `, at a cost of ${cost}` : ''}: of ${untold.value.length} it cannot be told yet.`
  return ops.length === 0 ? '✓ Everything fits as it is.' : `✓ Everything fits, at a cost of ${cost}.`
})
const name = (id: string): string => {
  const item = job.system?.byId.get(id)
  return [item?.model.name, item?.device.room].filter(Boolean).join(', ')
}
const model = (id: string): string => job.catalogue.get('device', id)?.name ?? id

function begin(): void {
  open.value = true
  start()
}

function apply(): void {
  if (best.value) job.edit('remedy.kit', best.value.ops)
  close()
}

function close(): void {
  stop()
  open.value = false
}
</script>

<template>
  <v-btn variant="tonal" class="text-none no-print" :prepend-icon="mdiPuzzleCheckOutline" @click="begin"
    >Make it all fit</v-btn
  >
  <v-dialog :model-value="open" max-width="760" scrollable @update:model-value="close">
    <v-card aria-label="Make it all fit">
      <v-card-title>The cheapest way to make it all fit</v-card-title>
      <v-card-text>
        <div v-if="running" class="run" role="status">
          <v-progress-linear
            :model-value="progress && progress.of > 0 ? (100 * progress.done) / progress.of : 0"
            height="8"
            rounded
            aria-label="Search"
          />
          <span>{{ progress?.done ?? 0 }} of {{ progress?.of ?? '…' }} ways to set the whole tried</span>
          <v-btn variant="tonal" class="text-none" @click="stop">Stop</v-btn>
        </div>
        <template v-if="best">
          <p class="sum">
            <strong>{{ headline }}</strong>
            <span v-if="stopped && best.lowerBound < best.cost" class="quiet">
              Stopped early: a cheaper way may exist, but none below {{ best.lowerBound }}.</span
            >
          </p>
          <ul>
            <li v-for="change in best.changes" :key="change">{{ change }}</li>
            <li v-for="swap in best.swaps" :key="swap.device">
              swap {{ name(swap.device) }} for {{ model(swap.model) }}
            </li>
          </ul>
          <template v-if="untold.length > 0">
            <h3 class="head">Not known yet</h3>
            <p class="quiet">
              Read what is missing and note it in the survey; nothing is to be swapped for that.
            </p>
            <ul>
              <li v-for="id in untold" :key="id">{{ name(id) }}</li>
            </ul>
          </template>
          <template v-if="best.leftOut.length > 0">
            <h3 class="head">Left out</h3>
            <ul>
              <li v-for="item in best.leftOut" :key="item.device">
                {{ name(item.device) }}: {{ reasonWords(item.reason) }}
              </li>
            </ul>
          </template>
          <details v-if="best.ops.length > 0 && !running" class="mt-3">
            <summary>Each change, before it is made</summary>
            <OpsPreview :ops="best.ops" />
          </details>
        </template>
      </v-card-text>
      <v-card-actions>
        <v-btn class="text-none" @click="close">Cancel</v-btn>
        <v-btn
          v-if="best && best.ops.length > 0"
          color="primary"
          variant="flat"
          class="text-none"
          :disabled="running"
          @click="apply"
          >Apply all of it</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.run {
  display: grid;
  gap: 8px;
  justify-items: start;
  margin-bottom: 12px;
}
.sum {
  margin-bottom: 8px;
}
.head {
  margin: 12px 0 4px;
}
ul {
  padding-left: 20px;
}
</style>
