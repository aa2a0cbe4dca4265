<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import { openStates, recordProblems, stateWords, type TemporaryState } from '#core'
import { useJob } from '../../job/job-store.ts'
import { clock, stateItems } from './words.ts'

const job = useJob()
const kind = ref<TemporaryState['kind']>('sounder-off')
const why = ref('')
const fault = ref('')
const adding = ref(false)
const states = computed(() => openStates(job.doc).filter((state) => state.kind !== 'station-on-test'))

function begin(): void {
  const fresh = job.fresh()
  const record: TemporaryState = {
    id: `state:${uuid()}`,
    type: 'state',
    kind: kind.value,
    who: job.me.name,
    why: why.value.trim(),
    ...fresh,
    until: new Date(Date.parse(fresh.at) + 8 * 3_600_000).toISOString(),
  }
  fault.value = recordProblems(record).length > 0 ? 'Say why, so that the next person knows.' : ''
  if (fault.value !== '') return
  job.edit('state.begin', [{ op: 'add', record }])
  why.value = ''
  adding.value = false
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
</script>

<template>
  <section class="sheet card" aria-label="Temporary states">
    <div class="head">
      <h2>Temporary states</h2>
      <v-btn size="small" variant="text" class="text-none" :aria-expanded="adding" @click="adding = !adding"
        >Note one</v-btn
      >
    </div>
    <p v-if="states.length === 0 && !adding" class="quiet small">
      None. Note what is only for now, such as a sounder off: it blocks hand-over until it is ended.
    </p>
    <ul>
      <li v-for="state in states" :key="state.id">
        <span>
          <strong>▲ {{ stateWords[state.kind] }}</strong
          >: {{ state.why }}
          <span class="quiet small"
            >{{ state.who }}, since {{ clock(state.at) }}, until {{ clock(state.until) }}</span
          >
        </span>
        <v-btn size="small" variant="tonal" class="text-none" @click="end(state)">Ended</v-btn>
      </li>
    </ul>
    <form v-if="adding" class="form" @submit.prevent="begin">
      <v-select v-model="kind" label="State" :items="[...stateItems]" />
      <v-text-field v-model="why" label="Why" :error-messages="fault" maxlength="300" />
      <v-btn type="submit" variant="tonal" class="text-none">Note it for 8 hours</v-btn>
    </form>
  </section>
</template>

<style scoped>
.card {
  padding: 10px 16px 12px;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
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
.form {
  display: grid;
  gap: 10px;
  margin-top: 8px;
}
</style>
