<script setup lang="ts">
import { computed } from 'vue'
import {
  bothNumbers,
  delayFieldOf,
  delayKeys,
  delayNames,
  encodeDelay,
  limitOf,
  presets,
  upperFirst,
  wantedDelay,
} from '#core'
import FieldText from '../../shared/FieldText.vue'
import { useJob } from '../../store/job-store.ts'

const job = useJob()
/** Of stay only where the panel keeps one of its own. */
const shown = computed(() =>
  delayKeys.filter((key) => key !== 'exitStay' || job.system?.panel?.delays.exitStay !== undefined),
)
const rows = computed(() =>
  shown.value.map((key) => {
    const field = job.system ? delayFieldOf(job.system.panel, job.system.info, key) : null
    const wanted = wantedDelay(job.doc, key)
    const encoded =
      field && wanted !== null ? encodeDelay(field, wanted, { limit: limitOf(job.doc, key) }) : null
    const hint = !field ? 'not on this panel' : encoded ? `keyed ${bothNumbers(field, encoded)}` : 'not set'
    return { key, field: key === 'abort' ? 'abortWindow' : key, name: upperFirst(delayNames[key]), hint }
  }),
)
const source = computed(() => (job.system ? presets[job.system.info.region].source : ''))
</script>

<template>
  <section class="delays" aria-label="Delays">
    <FieldText
      v-for="row in rows"
      :id="'job:main'"
      :key="row.key"
      :field="row.field"
      kind="job.delay"
      :label="row.name"
      number
      suffix="s"
      :hint="row.hint"
    />
    <p class="quiet small">{{ source }}</p>
  </section>
</template>

<style scoped>
.delays {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 8px 14px;
  align-items: start;
  margin-bottom: 14px;
}
.small {
  grid-column: 1 / -1;
  font-size: 0.8125rem;
  margin: 0;
}
</style>
