<script setup lang="ts">
import { computed } from 'vue'
import { kitSums } from '#core'
import { useJob } from '../../store/job-store.ts'
import { useWritten } from '../../shared/times.ts'

const job = useJob()
const sums = computed(() => (job.system ? kitSums(job.system) : null))
const written = useWritten()
const money = (amount: number): string => written.money(amount, sums.value?.currency ?? 'EUR')
</script>

<template>
  <section v-if="sums" class="sheet sums" aria-label="Batteries and cost">
    <div>
      <h2>Batteries</h2>
      <p v-if="sums.batteries.length === 0" class="quiet">None.</p>
      <p v-else>
        <span v-for="line in sums.batteries" :key="line.type ?? ''" class="battery"
          ><strong class="num">{{ line.count }}</strong> ×
          {{ line.type ?? 'of a type that is not stated' }}</span
        >
      </p>
    </div>
    <div>
      <h2>Cost</h2>
      <p>
        <template v-if="sums.toBuy > 0">{{ money(sums.toBuy) }} to buy</template
        ><template v-else>nothing to buy</template
        ><template v-if="sums.saved > 0">; keeping what is there saves {{ money(sums.saved) }}</template
        >.
        <span v-if="sums.elsewhere > 0" class="quiet"
          >{{ sums.elsewhere }} {{ sums.elsewhere === 1 ? 'device is' : 'devices are' }} priced in another
          currency and not counted.
        </span>
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
  gap: 8px clamp(16px, 4vw, 48px);
  padding: 12px 16px;
  margin-top: 16px;
}
.battery {
  display: inline-block;
  margin-right: 18px;
  white-space: nowrap;
}
</style>
