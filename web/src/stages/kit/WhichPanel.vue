<script setup lang="ts">
import { computed, ref } from 'vue'
import { choosePanelOps, type PanelChoice } from '#core'
import OpsPreview from '../../shared/OpsPreview.vue'
import { useJob } from '../../store/job-store.ts'
import { useFitGrid } from './useFitGrid.ts'
import { vStack } from '../../shared/stack.ts'

const job = useJob()
const { choices } = useFitGrid()
const picked = ref<string | null>(null)
const all = computed(() => job.system?.devices.length ?? 0)
const fitting = (choice: PanelChoice): number => choice.countsThen.works + choice.countsThen.loss
const pick = computed(() => choices.value.find((choice) => choice.panel.id === picked.value) ?? null)
const ops = computed(() => (pick.value ? choosePanelOps(job.doc, job.catalogue, pick.value.panel.id) : []))

function apply(): void {
  job.edit('job.panel', ops.value)
  picked.value = null
}
</script>

<template>
  <section class="sheet scroll" aria-label="Which panel">
    <table v-stack class="plain">
      <thead>
        <tr>
          <th>Panel</th>
          <th class="num">Fit as it comes</th>
          <th>With further receivers</th>
          <th class="num" title="Zone numbers left">Zones left</th>
          <th class="num">Fobs left</th>
          <th class="num">Keypads left</th>
          <th class="num">Sirens left</th>
          <th>What it loses</th>
          <th><span class="sr-only">Acts</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="choice in choices" :key="choice.panel.id" :class="{ now: choice.current }">
          <td>
            <strong>{{ choice.panel.name }}</strong>
            <div class="quiet small">{{ choice.panel.style }}{{ choice.current ? ' · chosen' : '' }}</div>
          </td>
          <td class="num">
            {{ choice.counts.works + choice.counts.loss }} of {{ all
            }}<template v-if="choice.counts.loss">, {{ choice.counts.loss }} with a loss</template>
          </td>
          <td>
            <template v-if="choice.add.length > 0"
              >{{ fitting(choice) }} of {{ all }} with
              {{ choice.add.map((item) => item.name).join(' and ') }}</template
            ><span v-else class="quiet">–</span>
          </td>
          <td class="num" :class="{ short: choice.left.zones < 0 }">{{ choice.left.zones }}</td>
          <td class="num" :class="{ short: choice.left.fobs < 0 }">{{ choice.left.fobs }}</td>
          <td class="num" :class="{ short: choice.left.keypads < 0 }">{{ choice.left.keypads }}</td>
          <td class="num" :class="{ short: choice.left.sirens < 0 }">{{ choice.left.sirens }}</td>
          <td>{{ choice.loses.join('; ') || 'nothing' }}</td>
          <td>
            <v-btn
              v-if="!choice.current"
              size="small"
              variant="tonal"
              class="text-none"
              :aria-label="`Choose ${choice.panel.name}`"
              @click="picked = choice.panel.id"
              >Choose…</v-btn
            >
          </td>
        </tr>
      </tbody>
    </table>
    <v-dialog :model-value="pick !== null" max-width="620" @update:model-value="picked = null">
      <v-card v-if="pick">
        <v-card-title>Choose {{ pick.panel.name }}?</v-card-title>
        <v-card-text>
          <p v-if="pick.counts.no > 0">
            {{ pick.counts.no }} of {{ all }} devices do not fit it as it comes.
            <template v-if="pick.add.length > 0"
              >{{ pick.countsThen.no }} with {{ pick.add.map((item) => item.name).join(' and ') }}, which you
              add in the kit.</template
            >
          </p>
          <p>Zones keep their fields; what the new panel does not have shows as findings.</p>
          <OpsPreview :ops="ops" />
        </v-card-text>
        <v-card-actions>
          <v-btn class="text-none" @click="picked = null">Cancel</v-btn>
          <v-btn color="primary" variant="flat" class="text-none" @click="apply">Choose it</v-btn>
        </v-card-actions>
      </v-card>
    </v-dialog>
  </section>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
strong {
  white-space: nowrap;
}
.small {
  font-size: 0.8125rem;
}
.now td {
  background: rgba(var(--v-theme-primary), 0.08);
}
.short {
  color: rgb(var(--v-theme-error));
  font-weight: 700;
}
</style>
