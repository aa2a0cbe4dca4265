<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref, watch } from 'vue'
import {
  alsoShows,
  cautions,
  hints,
  proofMethods,
  proofRecord,
  recordProblems,
  resultProblem,
  stationSees,
  testBlocked,
  waitsToBeSent,
  type Family,
  type ProofItem,
  type ProofStop,
  type TestResult,
} from '#core'
import { useJob } from '../../store/job-store.ts'
import { useWritten } from '../../shared/times.ts'
import { toldWords } from '../../shared/told.ts'
import { proofTitle, stateLook } from './words.ts'

const props = defineProps<{ entry: ProofStop; item: ProofItem; next: boolean; family: Family | null }>()
const job = useJob()
const { moment: clock } = useWritten()
const reading = ref('')
const note = ref('')
const fault = ref('')
const open = ref(props.next)
watch(
  () => props.next,
  (now) => now && (open.value = true),
)
const look = computed(() => stateLook[props.item.state])
const warnings = computed(() => cautions(props.item, props.entry.model))
const advice = computed(() => hints(props.item, props.entry.model, props.family))
const blocked = computed(() => testBlocked({ doc: job.doc, catalogue: job.catalogue }, props.item, job.now))
const station = computed(() =>
  job.system?.info.monitored ? stationSees(props.item.kind, props.item.alarm) : '',
)
const hasReading = computed(() => props.item.kind === 'placement' || props.item.kind === 'average')
const methods = computed(() => [...proofMethods(props.item.kind, props.item.event)])
const method = ref(methods.value[0] ?? '')
/** Proofs that the same observation may show too: other events of this device, and the report of this one. */
const others = computed(() =>
  props.entry.items.filter(
    (other) =>
      other.key !== props.item.key &&
      other.subject !== props.entry.id &&
      other.state !== 'pass' &&
      (other.kind === props.item.kind || (other.kind === 'report' && other.subject === props.item.subject)) &&
      props.item.kind !== 'report' &&
      testBlocked({ doc: job.doc, catalogue: job.catalogue }, other, job.now) === null,
  ),
)
const seenToo = ref<string[]>([])
watch(others, (now) => (seenToo.value = seenToo.value.filter((key) => now.some((item) => item.key === key))))
const outcomes = [
  { outcome: 'pass', title: 'Passed', color: 'success' },
  { outcome: 'fail', title: 'Failed', color: 'error' },
  { outcome: 'inconclusive', title: 'Inconclusive', color: undefined },
] as const

/** What one observation shows: this proof, the others that were ticked, and what it proves by itself. */
function shownBy(outcome: TestResult['outcome']): readonly ProofItem[] {
  const ticked = others.value.filter((other) => seenToo.value.includes(other.key))
  if (outcome !== 'pass') return [props.item]
  const implied = props.entry.items.filter(
    (other) =>
      [props.item, ...ticked].some(
        (seen) => seen.subject === other.subject && alsoShows[seen.kind]?.includes(other.kind),
      ) &&
      other.state !== 'pass' &&
      other.waits === '',
  )
  return [props.item, ...ticked, ...implied]
}

function record(outcome: TestResult['outcome']): void {
  const text = reading.value.trim().replace(',', '.')
  const value = text === '' ? null : Number(text)
  if (value !== null && Number.isNaN(value)) {
    fault.value = `Reading: “${reading.value}” must be a number in ${props.family?.placement.unit ?? 'steps'}.`
    return
  }
  const at = new Date().toISOString()
  const results = shownBy(outcome).map((item) =>
    proofRecord({ doc: job.doc, catalogue: job.catalogue }, item, {
      made: { id: `test:${uuid()}`, who: job.me, at },
      result: {
        outcome,
        reading: value,
        note: note.value.trim(),
        method:
          item.kind === props.item.kind ? method.value : `seen at ${proofTitle(props.item)}`.slice(0, 80),
      },
    }),
  )
  fault.value =
    blocked.value ??
    resultProblem(
      { kind: props.item.kind, family: props.family },
      { outcome, reading: value, note: note.value.trim() },
      job.rules.schools.reading,
    ) ??
    results
      .flatMap((result) => recordProblems(result))
      .map((problem) => `${problem.path.replace(/^\./, '')} ${problem.message}`)
      .join('; ')
  if (fault.value !== '') return
  job.edit(
    'prove.record',
    results.map((result) => ({ op: 'add', record: result })),
  )
  reading.value = ''
  note.value = ''
  seenToo.value = []
  open.value = outcome !== 'pass'
}

function resultWords(result: TestResult): string {
  const unit = props.family?.placement.unit ?? ''
  return [
    `${stateLook[result.outcome].glyph} ${stateLook[result.outcome].word}`,
    ...(result.reading === null ? [] : [`${result.reading} ${unit}`]),
    ...(result.method === '' ? [] : [result.method]),
    `${result.made.name}${toldWords(result.made)}`,
    clock(result.at),
    ...(waitsToBeSent(result) ? ['waiting to be sent'] : []),
  ].join(', ')
}
</script>

<template>
  <div class="step">
    <button type="button" class="head" :aria-expanded="open" @click="open = !open">
      <span :style="{ color: `rgb(var(--v-theme-${look.color}))` }"
        ><span aria-hidden="true">{{ look.glyph }}</span> <strong>{{ proofTitle(item) }}</strong></span
      >
      <span class="quiet">{{ item.from ? `waits until ${clock(item.from)}` : look.word }}</span>
    </button>
    <ul v-if="item.results.length > 0" class="results">
      <li v-for="result in [...item.results].reverse()" :key="result.id">
        {{ resultWords(result) }}<template v-if="result.note">: {{ result.note }}</template>
      </li>
    </ul>
    <p v-if="item.changed.length > 0" class="changed">
      ↻ Owed again, since what it proved has changed: {{ item.changed.join('; ') }}.
    </p>
    <div v-if="open" class="body">
      <p v-for="warning in warnings" :key="warning" class="caution">⚠ {{ warning }}</p>
      <p v-for="hint in advice" :key="hint" class="quiet">{{ hint }}</p>
      <p v-if="station && item.kind !== 'report'" class="quiet">The station should see {{ station }}.</p>
      <p v-if="blocked" class="blocked" role="note">■ {{ blocked }}</p>
      <template v-else>
        <div class="inputs">
          <v-text-field
            v-if="hasReading"
            v-model="reading"
            label="Reading"
            :suffix="family?.placement.unit"
            inputmode="decimal"
            class="reading"
            @update:model-value="fault = ''"
          />
          <v-select v-if="methods.length > 1" v-model="method" label="How" :items="methods" class="how" />
          <v-text-field v-model="note" label="Note" maxlength="500" @update:model-value="fault = ''" />
        </div>
        <fieldset v-if="others.length > 0" class="too">
          <legend>Seen at the same time, each by itself</legend>
          <v-checkbox
            v-for="other in others"
            :key="other.key"
            v-model="seenToo"
            :value="other.key"
            :label="proofTitle(other)"
          />
        </fieldset>
        <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
        <div class="acts">
          <v-btn
            v-for="choice in outcomes"
            :key="choice.outcome"
            :color="choice.color"
            variant="tonal"
            min-height="48"
            class="text-none"
            @click="record(choice.outcome)"
            >{{ stateLook[choice.outcome].glyph }} {{ choice.title }}</v-btn
          >
        </div>
      </template>
    </div>
  </div>
</template>

<style scoped>
.step {
  border-top: 1px solid rgba(var(--v-theme-on-surface), 0.12);
  padding: 4px 0;
}
.head {
  font: inherit;
  color: inherit;
  background: transparent;
  border: 0;
  width: 100%;
  min-height: 44px;
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: center;
  text-align: left;
  cursor: pointer;
}
.results {
  list-style: none;
  padding: 0 0 4px;
  margin: 0;
  font-size: 0.875rem;
}
.body {
  display: grid;
  gap: 8px;
  padding-bottom: 10px;
}
.body p {
  margin: 0;
  font-size: 0.875rem;
}
.caution {
  padding: 6px 10px;
  border-left: 4px solid rgb(var(--v-theme-warning));
  background: rgba(var(--v-theme-warning), 0.1);
}
.blocked {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}
.fault {
  color: rgb(var(--v-theme-error));
}
.changed {
  margin: 0 0 6px;
  font-size: 0.875rem;
  font-weight: 600;
}
.too {
  border: 0;
  padding: 0;
  margin: 0;
}
.too legend {
  font-size: 0.8125rem;
  font-weight: 600;
}
.how {
  flex: 1 1 180px;
}
.inputs {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.reading {
  flex: 0 0 132px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.acts :deep(.v-btn) {
  flex: 1 1 110px;
}
</style>
