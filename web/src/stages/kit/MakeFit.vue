<script setup lang="ts">
import { mdiPuzzleCheckOutline } from '@mdi/js'
import { computed, ref } from 'vue'
import { reasonWords } from '#core'
import OpsPreview from '../../shared/OpsPreview.vue'
import { useJob } from '../../store/job-store.ts'
import { useSolver } from './useSolver.ts'

const job = useJob()
const open = ref(false)
const { running, stopped, progress, start, stop } = useSolver()
const best = computed(() => progress.value?.best ?? null)
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
            <strong>{{
              best.leftOut.length === 0
                ? best.ops.length === 0
                  ? '✓ Everything fits as it is.'
                  : `✓ Everything fits, at a cost of ${best.cost}.`
                : `■ Not everything can fit: ${best.leftOut.length} ${best.leftOut.length === 1 ? 'device stays' : 'devices stay'} out.`
            }}</strong>
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
