<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import {
  cautions,
  expectedTrip,
  hints,
  levelWords,
  NOT_USED,
  proofMethods,
  resultProblem,
  stationSees,
  testBlocked,
  verdictOf,
  waitsToBeSent,
  type Family,
  type HomeVerdict,
  type Op,
  type ProofItem,
  type ProofStop,
  type Seen,
  type TestResult,
} from '#core'
import { useJob } from '../../store/job-store.ts'
import { useWritten } from '../../shared/times.ts'
import SeenOtherwise from '../../shared/SeenOtherwise.vue'
import { toldWords } from '../../shared/told.ts'
import ComingHome from './ComingHome.vue'
import Mounting from './Mounting.vue'
import SeenButtons from './SeenButtons.vue'
import { useProving } from './useProving.ts'
import { proofTitle, stateLook } from './words.ts'

const props = defineProps<{ entry: ProofStop; item: ProofItem; next: boolean; family: Family | null }>()
const job = useJob()
const proving = useProving()
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
/** Kinds with a way of their own to be recorded. */
const apart = computed(() => props.item.kind === 'mount' || props.item.kind === 'home')
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

/** What the plan expects of an armed trip; null where nothing is expected of it, or it is another proof. */
const expected = computed(() =>
  props.item.kind === 'armed'
    ? expectedTrip({ doc: job.doc, catalogue: job.catalogue }, props.item.subject)
    : null,
)

/** What one observation shows: this proof, the others that were ticked, and what it proves by itself. */
function shownBy(outcome: TestResult['outcome']): readonly ProofItem[] {
  const ticked = others.value.filter((other) => seenToo.value.includes(other.key))
  if (outcome !== 'pass') return [props.item]
  const seen = [props.item, ...ticked]
  return [...seen, ...proving.implied(props.entry, seen)]
}

/** An armed trip is judged by what was seen, never by who saw it. */
function saw(seen: Seen): void {
  const verdict = verdictOf({ doc: job.doc, catalogue: job.catalogue }, props.item.subject, seen)
  if (verdict) record(verdict.outcome, { because: verdict.note })
}

/** What came of somebody coming home; their pace is planned with from then on where that was said. */
function cameHome({ outcome, note: because }: HomeVerdict, seconds: number, ops: readonly Op[]): void {
  record(outcome, { because, seconds, ops })
}

/** Nobody unsets there who comes in by this door: said, not timed. */
function unused(): void {
  method.value = NOT_USED
  record('pass')
  method.value = ''
}

/** What a proof of its own kind tells besides its outcome. */
interface Told {
  readonly because?: string
  readonly seconds?: number | null
  readonly ops?: readonly Op[]
}

function record(outcome: TestResult['outcome'], { because = '', seconds = null, ops = [] }: Told = {}): void {
  const text = reading.value.trim().replace(',', '.')
  const value = text === '' ? seconds : Number(text)
  if (value !== null && Number.isNaN(value)) {
    fault.value = `Reading: “${reading.value}” must be a number${props.family?.placement.unit === undefined ? '' : ` in ${props.family.placement.unit}`}.`
    return
  }
  const own = note.value.trim()
  // What the proof tells of itself makes room for what somebody wrote.
  const said = [because.slice(0, Math.max(0, 499 - own.length)), own].filter(Boolean).join(' ')
  const results = proving.resultsOf(props.item, shownBy(outcome), {
    ...{ outcome, reading: value, note: said, method: method.value },
  })
  fault.value =
    blocked.value ??
    resultProblem(
      { kind: props.item.kind, family: props.family },
      { outcome, reading: value, note: said },
      job.rules.schools.reading,
    ) ??
    proving.write(results, ops)
  if (fault.value !== '') return
  reading.value = ''
  note.value = ''
  seenToo.value = []
  open.value = outcome !== 'pass'
}

function readingWords(reading: number): string {
  if (props.item.kind === 'home') return `${reading} s`
  return props.family ? levelWords(props.family, reading) : String(reading)
}

function resultWords(result: TestResult): string {
  return [
    `${stateLook[result.outcome].glyph} ${stateLook[result.outcome].word}`,
    ...(result.reading === null ? [] : [readingWords(result.reading)]),
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
    <p v-if="item.again" class="changed">
      ◷ Read in its first day, in which a battery reads well: read it once more from {{ clock(item.again) }}.
    </p>
    <p v-if="item.changed.length > 0" class="changed">
      ↻ Owed again, since what it proved has changed: {{ item.changed.join('; ') }}.
    </p>
    <div v-if="open" class="body">
      <p v-for="warning in warnings" :key="warning" class="caution">⚠ {{ warning }}</p>
      <p v-for="hint in advice" :key="hint" class="quiet">{{ hint }}</p>
      <p v-if="station && item.kind !== 'report'" class="quiet">The station should see {{ station }}.</p>
      <p v-if="blocked" class="blocked" role="note">■ {{ blocked }}</p>
      <template v-else>
        <div v-if="!apart" class="inputs">
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
        <fieldset v-if="others.length > 0 && !apart" class="too">
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
        <Mounting
          v-if="item.kind === 'mount'"
          :entry="entry"
          @looked="(outcome, because) => record(outcome, { because })"
        >
          <v-text-field v-model="note" label="Note" maxlength="500" />
        </Mounting>
        <ComingHome
          v-else-if="item.kind === 'home'"
          :item="item"
          :items="entry.items"
          @came="cameHome"
          @unused="unused"
        >
          <v-text-field v-model="note" label="Note" maxlength="500" />
        </ComingHome>
        <SeenButtons v-else-if="expected" :zone="item.subject" :name="item.label" @seen="saw" />
        <p v-else-if="item.kind === 'armed'" class="quiet">
          By its response type it never alarms: see that it does what the type says while the system is set.
        </p>
        <div v-if="!expected && !apart" class="acts">
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
        <SeenOtherwise :kind="item.kind" :model="entry.model" :family="family" />
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
