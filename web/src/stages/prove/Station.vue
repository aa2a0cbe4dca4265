<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import { blankState, openStates, recordProblems, type TemporaryState } from '#core'
import { useJob } from '../../store/job-store.ts'
import { useWritten } from '../../shared/times.ts'

defineProps<{ onTest: TemporaryState | null }>()
const job = useJob()
const { moment: clock } = useWritten()
const hours = ref(2)
const why = ref('Tests of this job')
const fault = ref('')
const items = [
  { title: 'half an hour', value: 0.5 },
  { title: '1 hour', value: 1 },
  { title: '2 hours', value: 2 },
  { title: '4 hours', value: 4 },
]
/** Open, perhaps past its time: until somebody takes it off, it counts as on test and blocks hand-over. */
const open = computed(() => openStates(job.doc).find((state) => state.kind === 'station-on-test') ?? null)

function begin(): void {
  const fresh = job.fresh()
  const record: TemporaryState = {
    id: `state:${uuid()}`,
    ...blankState,
    kind: 'station-on-test',
    who: job.me.name,
    why: why.value.trim(),
    ...fresh,
    until: new Date(Date.parse(fresh.at) + hours.value * 3_600_000).toISOString(),
  }
  fault.value = recordProblems(record)
    .map((problem) => `Reason ${problem.message}`)
    .join('; ')
  if (fault.value === '') job.edit('state.begin', [{ op: 'add', record }])
}

function end(): void {
  if (!open.value) return
  const record = {
    id: `state-end:${uuid()}`,
    type: 'state-end',
    state: open.value.id,
    kind: open.value.kind,
    ...job.fresh(),
  } as const
  job.edit('state.end', [{ op: 'add', record }])
}
</script>

<template>
  <section class="station" :class="{ on: open }" aria-label="Station">
    <template v-if="open">
      <div class="words">
        <strong>{{ onTest ? '● The station is on test' : '■ The time of the station test is over' }}</strong>
        <div class="small">
          by {{ open.who }}, since {{ clock(open.at) }}, until {{ clock(open.until) }}: {{ open.why }}.
          {{
            onTest
              ? 'Hand-over waits until it is taken off.'
              : 'Call the station, then take it off here or put it on again.'
          }}
        </div>
      </div>
      <v-btn variant="flat" color="surface" min-height="48" class="text-none" @click="end"
        >Take it off test</v-btn
      >
    </template>
    <template v-else>
      <div class="words">
        <strong>The station is not on test</strong>
        <div class="small">
          An alarm, panic or fire test now would bring help to a test. Call the station first.
        </div>
      </div>
      <v-text-field v-model="why" label="Reason" class="why" maxlength="300" :error-messages="fault" />
      <v-select v-model="hours" label="For" :items="items" class="hours" />
      <v-btn color="primary" min-height="48" class="text-none" @click="begin">Put the station on test</v-btn>
    </template>
  </section>
</template>

<style scoped>
.station {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 16px;
  align-items: center;
  padding: 12px 16px;
  margin-bottom: 14px;
  border-radius: 10px;
  background: rgb(var(--v-theme-surface));
}
.on {
  background: rgb(var(--v-theme-warning));
  color: rgb(var(--v-theme-surface));
}
.words {
  flex: 1 1 320px;
}
.small {
  font-size: 0.875rem;
}
.why {
  flex: 1 1 200px;
}
.hours {
  flex: 0 1 150px;
}
</style>
