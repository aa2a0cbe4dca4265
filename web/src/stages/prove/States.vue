<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed } from 'vue'
import {
  blankSignoff,
  openStates,
  openTasks,
  stateAbout,
  stateRules,
  TASK_DONE,
  type StateKind,
  type TemporaryState,
} from '#core'
import { useJob } from '../../store/job-store.ts'
import { useWritten } from '../../shared/times.ts'
import NoteState from './NoteState.vue'

const job = useJob()
const { moment: clock } = useWritten()
/** The station has a place of its own. */
const kinds = (Object.keys(stateRules) as StateKind[]).filter((kind) => kind !== 'station-on-test')
const states = computed(() => openStates(job.doc).filter((state) => state.kind !== 'station-on-test'))
/** Tasks of states that are over, for the day after. */
const tasks = computed(() => {
  const open = openStates(job.doc)
  return openTasks(job.doc).filter(({ state }) => !open.includes(state))
})

function nameOf(state: TemporaryState): string {
  const about = stateAbout(job.doc, job.catalogue, state)
  return `${stateRules[state.kind].name}${about === '' ? '' : `: ${about}`}`
}

function end(state: TemporaryState): void {
  const record = {
    id: `state-end:${uuid()}`,
    type: 'state-end',
    state: state.id,
    kind: state.kind,
    ...job.fresh(),
  } as const
  job.edit('state.end', [{ op: 'add', record }])
}

function done(state: TemporaryState): void {
  const record = {
    ...blankSignoff,
    ...job.fresh(),
    id: `signoff:${uuid()}`,
    what: TASK_DONE,
    about: state.id,
  }
  job.edit('handover.sign', [{ op: 'add', record }])
}
</script>

<template>
  <section class="sheet card" aria-label="Temporary states">
    <h2>Temporary states</h2>
    <p v-if="states.length === 0" class="quiet small">
      None. Note what is only for now, such as a sounder off: it blocks hand-over until it is ended.
    </p>
    <ul>
      <li v-for="state in states" :key="state.id">
        <span>
          <strong>▲ {{ nameOf(state) }}</strong
          >: {{ state.why }}
          <span class="quiet small"
            >{{ state.who }}, since {{ clock(state.at) }}, until {{ clock(state.until) }}. Meanwhile
            {{ stateRules[state.kind].costs }}.</span
          >
        </span>
        <v-btn size="small" variant="tonal" class="text-none" @click="end(state)">Ended</v-btn>
      </li>
    </ul>
    <template v-if="tasks.length > 0">
      <h3>For the day after</h3>
      <ul>
        <li v-for="{ state, task, from } in tasks" :key="state.id">
          <span
            >{{ task }} <span class="quiet small">{{ nameOf(state) }}, from {{ clock(from) }}</span></span
          >
          <v-btn
            size="small"
            variant="tonal"
            class="text-none"
            :aria-label="`Done: ${task}`"
            @click="done(state)"
            >Done</v-btn
          >
        </li>
      </ul>
    </template>
    <NoteState :kinds="kinds" title="Note one…" />
  </section>
</template>

<style scoped>
.card {
  padding: 10px 16px 12px;
}
h3 {
  margin: 10px 0 2px;
  font-size: 0.875rem;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 8px;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: center;
}
.small {
  font-size: 0.8125rem;
}
</style>
