<script setup lang="ts">
import { useNow } from '@vueuse/core'
import { computed, ref } from 'vue'
import { clocksOf, jobInfo, leftWords, type Clock } from '#core'
import { saveCalendar } from '../shared/calendar.ts'
import { useWritten } from '../shared/times.ts'
import { useJob } from '../store/job-store.ts'

/** Every clock of the job that runs, on every stage: what it is, how long it still runs, and when it ends. */
const job = useJob()
const { time, moment } = useWritten()
/** The clocks follow from the job; what is left of them goes by the second. */
const minute = useNow({ interval: 15_000 })
const now = useNow({ interval: 1_000 })
const clocks = computed(() =>
  job.jobId === null
    ? []
    : clocksOf({ doc: job.doc, catalogue: job.catalogue }, minute.value.toISOString()).filter(
        ({ kind, ends }) => kind === 'state' || ends > now.value.toISOString(),
      ),
)
const all = ref(false)
/** As many as stand on one line of a phone; the rest on demand. */
const FEW = 2
const shown = computed(() => (all.value ? clocks.value : clocks.value.slice(0, FEW)))

/** The clocks that still run as a calendar file; a later one moves their entries. */
function save(): void {
  const { name } = jobInfo(job.doc)
  const link = `${location.origin}/jobs/${job.jobId ?? ''}/prove`
  const running = clocks.value.filter((clock) => left(clock) !== '')
  saveCalendar(
    running.map((clock) => ({ ...clock, id: `${job.jobId ?? ''} ${clock.id}`, job: name, link })),
    `${name} clocks`,
  )
}
const left = ({ ends }: Clock): string => leftWords(now.value.toISOString(), ends)
/** An end of today as a time alone. */
function end({ ends }: Clock): string {
  return new Date(ends).toDateString() === now.value.toDateString() ? time(ends) : moment(ends)
}
</script>

<template>
  <section v-if="clocks.length > 0" class="clocks no-print" aria-label="Clocks">
    <ul>
      <li v-for="clock in shown" :key="clock.id" :class="{ past: left(clock) === '' }">
        <router-link :to="{ name: clock.kind === 'learn' ? 'enrol' : 'prove' }" :title="clock.then">
          <template v-if="left(clock) === ''">▲ {{ clock.words }}: its end was {{ end(clock) }}</template>
          <template v-else
            >◷ {{ clock.words }} <strong role="timer" aria-live="off">{{ left(clock) }}</strong>
            <span class="quiet">until {{ end(clock) }}</span></template
          >
        </router-link>
      </li>
    </ul>
    <v-btn
      v-if="clocks.length > FEW"
      variant="text"
      size="small"
      class="text-none"
      :aria-expanded="all"
      @click="all = !all"
      >{{ all ? 'Fewer clocks' : `${clocks.length - FEW} more` }}</v-btn
    >
    <v-btn
      v-if="clocks.some((clock) => clock.kind !== 'learn' && left(clock) !== '')"
      variant="text"
      size="small"
      class="text-none"
      @click="save"
      >Calendar file</v-btn
    >
  </section>
</template>

<style scoped>
.clocks {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  margin: 10px 20px -4px;
}
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  margin: 0;
  padding: 0;
  list-style: none;
}
a {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0 6px;
  align-items: center;
  min-height: 32px;
  color: inherit;
  font-size: 0.875rem;
  text-decoration: none;
}
a:hover {
  text-decoration: underline;
}
strong {
  font-variant-numeric: tabular-nums;
}
.past {
  font-weight: 650;
  color: rgb(var(--v-theme-warning));
}
</style>
