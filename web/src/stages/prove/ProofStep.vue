<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref, watch } from 'vue'
import {
  asItIs,
  cautions,
  hints,
  recordProblems,
  resultProblem,
  testBlocked,
  type Family,
  type ProofDevice,
  type ProofItem,
  type TestResult,
} from '#core'
import { useJob } from '../../job/job-store.ts'
import { toldWords } from '../../shared/told.ts'
import { clock, proofNames, stateLook } from './words.ts'

const props = defineProps<{ entry: ProofDevice; item: ProofItem; next: boolean; family: Family | null }>()
const job = useJob()
const reading = ref('')
const note = ref('')
const fault = ref('')
const open = ref(props.next)
watch(
  () => props.next,
  (now) => now && (open.value = true),
)
const look = computed(() => stateLook[props.item.state])
const warnings = computed(() => cautions(props.entry, props.item.kind))
const advice = computed(() => hints(props.entry, props.item.kind, props.family))
const blocked = computed(() => testBlocked(job.doc, job.catalogue, props.item.kind, job.now))
const outcomes = [
  { outcome: 'pass', title: 'Passed', color: 'success' },
  { outcome: 'fail', title: 'Failed', color: 'error' },
  { outcome: 'inconclusive', title: 'Inconclusive', color: undefined },
] as const

function record(outcome: TestResult['outcome']): void {
  const text = reading.value.trim().replace(',', '.')
  const value = text === '' ? null : Number(text)
  if (value !== null && Number.isNaN(value)) {
    fault.value = `Reading: “${reading.value}” must be a number in ${props.family?.placement.unit ?? 'steps'}.`
    return
  }
  const result: TestResult = {
    id: `test:${uuid()}`,
    type: 'test',
    ...job.fresh(),
    subject: props.entry.device.id,
    of: asItIs(job.doc, props.entry.device.id),
    kind: props.item.kind,
    outcome,
    reading: value,
    note: note.value.trim(),
  }
  fault.value =
    resultProblem(props.item.kind, props.family, result, job.rules.schools.reading) ??
    recordProblems(result)
      .map((problem) => `${problem.path.replace(/^\./, '')} ${problem.message}`)
      .join('; ')
  if (fault.value !== '') return
  job.edit('prove.record', [{ op: 'add', record: result }])
  reading.value = ''
  note.value = ''
  open.value = outcome !== 'pass'
}
</script>

<template>
  <div class="step">
    <button type="button" class="head" :aria-expanded="open" @click="open = !open">
      <span :style="{ color: `rgb(var(--v-theme-${look.color}))` }"
        ><span aria-hidden="true">{{ look.glyph }}</span> <strong>{{ proofNames[item.kind] }}</strong></span
      >
      <span class="quiet">{{ look.word }}</span>
    </button>
    <ul v-if="item.results.length > 0" class="results">
      <li v-for="result in [...item.results].reverse()" :key="result.id">
        {{ stateLook[result.outcome].glyph }} {{ stateLook[result.outcome].word
        }}<template v-if="result.reading !== null"
          >, {{ result.reading }} {{ family?.placement.unit }}</template
        >, {{ result.made.name }}{{ toldWords(result.made) }}, {{ clock(result.at)
        }}<template v-if="result.note">: {{ result.note }}</template>
      </li>
    </ul>
    <div v-if="open" class="body">
      <p v-for="warning in warnings" :key="warning" class="caution">⚠ {{ warning }}</p>
      <p v-for="hint in advice" :key="hint" class="quiet">{{ hint }}</p>
      <p v-if="blocked" class="blocked" role="note">■ {{ blocked }}</p>
      <template v-else>
        <div class="inputs">
          <v-text-field
            v-if="item.kind === 'placement'"
            v-model="reading"
            label="Reading"
            :suffix="family?.placement.unit"
            inputmode="decimal"
            class="reading"
            @update:model-value="fault = ''"
          />
          <v-text-field v-model="note" label="Note" maxlength="500" @update:model-value="fault = ''" />
        </div>
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
.inputs {
  display: flex;
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
