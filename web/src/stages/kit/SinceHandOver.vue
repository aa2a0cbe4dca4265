<script setup lang="ts">
import { computed } from 'vue'
import { evidenceOf, unfinishedSince } from '#core'
import { useJob } from '../../store/job-store.ts'
import { useWritten } from '../../shared/times.ts'

/** A system that was handed over: nothing of it moves when something is added, and what is not done since says what comes next. */
const job = useJob()
const { day } = useWritten()
const list = computed(() =>
  job.system ? unfinishedSince({ doc: job.doc, catalogue: job.catalogue }, job.now) : null,
)
const at = computed(
  () => evidenceOf(job.doc, 'signoff').findLast(({ what }) => what === 'handed-over')?.at ?? '',
)
const stages = { number: 'zones', learn: 'enrol', prove: 'prove' } as const
function next({ step, open }: NonNullable<typeof list.value>[number]): string {
  if (step === 'number') return 'give it its number'
  return step === 'learn' ? 'key and learn it' : open === 1 ? '1 proof is open' : `${open} proofs are open`
}
</script>

<template>
  <section v-if="list" class="sheet since no-print" aria-label="Since hand-over">
    <p>
      <strong>Handed over {{ day(at) }}.</strong> What is added takes free numbers: no number, label or ID of
      what hangs there moves.
      <span v-if="list.length === 0" class="quiet">Nothing is unfinished since.</span>
    </p>
    <ul v-if="list.length > 0">
      <li v-for="one in list" :key="one.id">
        {{ one.name }}:
        <router-link :to="{ name: stages[one.step], query: one.step === 'number' ? {} : { show: one.id } }">{{
          next(one)
        }}</router-link>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.since {
  padding: 10px 16px;
  margin-bottom: 14px;
  border-left: 4px solid rgb(var(--v-theme-info));
}
p {
  margin: 0;
}
ul {
  margin: 6px 0 0;
  padding-left: 20px;
}
</style>
