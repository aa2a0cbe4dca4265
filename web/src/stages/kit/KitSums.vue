<script setup lang="ts">
import { computed } from 'vue'
import { kitSums, type Money } from '#core'
import { useJob } from '../../store/job-store.ts'

const job = useJob()
const sums = computed(() => (job.system ? kitSums(job.system) : null))
const money = (list: readonly Money[]): string =>
  list
    .map((item) =>
      new Intl.NumberFormat(undefined, { style: 'currency', currency: item.currency }).format(item.amount),
    )
    .join(' and ')
</script>

<template>
  <section v-if="sums" class="sheet sums" aria-label="Batteries and cost">
    <div>
      <h2>Batteries</h2>
      <p v-if="sums.batteries.length === 0" class="quiet">None.</p>
      <p v-else>
        <span v-for="line in sums.batteries" :key="line.type" class="battery"
          ><strong class="num">{{ line.count }}</strong> × {{ line.type }}</span
        >
      </p>
    </div>
    <div>
      <h2>Cost</h2>
      <p>
        <template v-if="sums.toBuy.length > 0">{{ money(sums.toBuy) }} to buy</template
        ><template v-else>nothing to buy</template
        ><template v-if="sums.saved.length > 0"
          >; keeping what is there saves {{ money(sums.saved) }}</template
        >.
        <span v-if="sums.unpriced > 0" class="quiet"
          >{{ sums.unpriced }} {{ sums.unpriced === 1 ? 'device has' : 'devices have' }} no price in the
          catalogue.</span
        >
      </p>
    </div>
  </section>
</template>

<style scoped>
.sums {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 48px;
  padding: 12px 16px;
  margin-top: 16px;
}
.battery {
  margin-right: 18px;
  white-space: nowrap;
}
</style>
