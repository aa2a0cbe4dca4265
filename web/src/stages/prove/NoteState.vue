<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref, watch } from 'vue'
import {
  blankState,
  recordProblems,
  stateProblem,
  stateRules,
  stateSubjects,
  type StateKind,
  type TemporaryState,
} from '#core'
import { useJob } from '../../store/job-store.ts'

/** Begins a temporary state where the act is done: of these kinds, about these things where it is said. */
const props = defineProps<{ kinds: readonly StateKind[]; among?: readonly string[]; title?: string }>()
const job = useJob()
const open = ref(false)
const kind = ref<StateKind>(props.kinds[0] ?? 'chime-demo')
const about = ref<string | null>(null)
const why = ref('')
const hours = ref(props.kinds[0] === 'mains-off' ? 1 : 8)
const faults = ref<Partial<Record<'about' | 'until' | 'why', string>>>({})
const kindItems = computed(() => props.kinds.map((value) => ({ value, title: stateRules[value].name })))
const subjects = computed(() =>
  stateSubjects(job.doc, job.catalogue, kind.value)
    .filter((subject) => !props.among || props.among.includes(subject.id))
    .map(({ id, name }) => ({ value: id, title: name })),
)
const ends = [
  { title: 'in 1 hour', value: 1 },
  { title: 'in 4 hours', value: 4 },
  { title: 'in 8 hours', value: 8 },
  { title: 'in a day', value: 24 },
  { title: 'in 3 days', value: 72 },
]
watch(
  [subjects, kind],
  () => {
    faults.value = {}
    if (!subjects.value.some((item) => item.value === about.value))
      about.value = subjects.value.length === 1 ? (subjects.value[0]?.value ?? null) : null
  },
  { immediate: true },
)

function begin(): void {
  const fresh = job.fresh()
  const record: TemporaryState = {
    ...blankState,
    ...fresh,
    id: `state:${uuid()}`,
    kind: kind.value,
    about: about.value,
    who: job.me.name,
    why: why.value.trim(),
    until: new Date(Date.parse(fresh.at) + hours.value * 3_600_000).toISOString(),
  }
  const problem = stateProblem(job.doc, job.catalogue, record)
  const [wrong] = recordProblems(record)
  faults.value = problem ? { [problem.field]: problem.message } : wrong ? { why: wrong.message } : {}
  if (problem || wrong) return
  job.edit('state.begin', [{ op: 'add', record }])
  why.value = ''
  open.value = false
}
</script>

<template>
  <div class="note">
    <v-btn size="small" variant="text" class="text-none" :aria-expanded="open" @click="open = !open">{{
      title ?? 'Note a temporary state here…'
    }}</v-btn>
    <form v-if="open" class="form" @submit.prevent="begin">
      <v-select v-if="kinds.length > 1" v-model="kind" label="State" :items="kindItems" />
      <p class="quiet small">{{ stateRules[kind].name }}. Meanwhile {{ stateRules[kind].costs }}.</p>
      <p v-if="stateRules[kind].caution" class="caution">⚠ {{ stateRules[kind].caution }}</p>
      <v-select
        v-if="stateRules[kind].about !== null"
        v-model="about"
        label="What it is about"
        :items="subjects"
        :error-messages="faults.about"
        no-data-text="Nothing of this kind in the job"
      />
      <v-text-field v-model="why" label="Why" maxlength="300" :error-messages="faults.why" />
      <v-select v-model="hours" label="It ends" :items="ends" :error-messages="faults.until" />
      <p class="quiet small">The day after: {{ stateRules[kind].task }}</p>
      <v-btn type="submit" variant="tonal" class="text-none">Note it</v-btn>
    </form>
  </div>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
  padding: 8px 0;
}
.form p {
  margin: 0;
}
.caution {
  padding: 6px 10px;
  border-left: 4px solid rgb(var(--v-theme-warning));
  background: rgba(var(--v-theme-warning), 0.1);
}
.small {
  font-size: 0.8125rem;
}
</style>
