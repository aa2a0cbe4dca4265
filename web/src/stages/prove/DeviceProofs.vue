<script setup lang="ts">
import { computed } from 'vue'
import type { ProofDevice } from '#core'
import { useJob } from '../../job/job-store.ts'
import ProofStep from './ProofStep.vue'

const props = defineProps<{ entry: ProofDevice }>()
const job = useJob()
const first = computed(() => props.entry.items.find((item) => item.state !== 'pass')?.kind ?? null)
const family = computed(() => job.catalogue.get('family', props.entry.model.family))
</script>

<template>
  <section class="sheet card" :aria-label="`Proofs of ${entry.name}`">
    <h2>{{ entry.zones[0]?.label || entry.model.name }}</h2>
    <p class="quiet">
      {{ entry.name }} · {{ entry.model.name
      }}<template v-if="entry.device.room"> · {{ entry.device.room }}</template
      ><template v-if="entry.device.position">, {{ entry.device.position }}</template>
    </p>
    <ProofStep
      v-for="item in entry.items"
      :key="item.kind"
      :entry="entry"
      :item="item"
      :next="item.kind === first"
      :family="family"
    />
  </section>
</template>

<style scoped>
.card {
  padding: 14px 16px;
}
</style>
