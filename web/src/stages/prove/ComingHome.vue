<script setup lang="ts">
import { computed, onBeforeUnmount, ref } from 'vue'
import {
  homeDelay,
  homeVerdict,
  jobInfo,
  mayBeUnused,
  NOT_USED,
  paceOf,
  placesToUnset,
  setOp,
  type CameHome,
  type HomeVerdict,
  type Op,
  type ProofItem,
} from '#core'
import { useJob } from '../../store/job-store.ts'

/** Somebody comes home by a door and unsets at one place: one tap as it opens, one when it is unset or alarms; seconds left beside the plan. */
const props = defineProps<{ item: ProofItem; items: readonly ProofItem[] }>()
const emit = defineEmits<{
  came: [verdict: HomeVerdict, seconds: number, ops: readonly Op[]]
  unused: []
}>()
const job = useJob()
const at = computed(() => ({ doc: job.doc, catalogue: job.catalogue, figures: job.rules.figures }))
const delay = computed(() => homeDelay(at.value, props.item.subject) ?? 0)
const place = computed(() =>
  placesToUnset(at.value, props.item.subject).find(({ id }) => id === props.item.unsetAt),
)
const notUsed = computed(() => props.item.state !== 'pass' && mayBeUnused(props.items, props.item))
const slowest = ref(false)
const typed = ref('')
const fault = ref('')

const since = ref<number | null>(null)
const now = ref(0)
let ticks: ReturnType<typeof setInterval> | undefined
const elapsed = computed(() => (since.value === null ? 0 : (now.value - since.value) / 1000))
const left = computed(() => Math.ceil(delay.value - elapsed.value))
const seen = ref<Pick<CameHome, 'seconds' | 'alarmed'> | null>(null)
/** Whether to plan with their pace, where somebody said. */
const said = ref<boolean | null>(null)
const pace = computed(() => paceOf(jobInfo(job.doc), job.rules.figures))

const verdict = computed(() =>
  seen.value && place.value
    ? homeVerdict(at.value, props.item.subject, { ...seen.value, slowest: slowest.value, at: place.value })
    : null,
)
/** The pace that was seen, where it is not the one that is planned with. */
const otherPace = computed(() => {
  const told = verdict.value?.pace ?? null
  return told !== null && Math.abs(told - pace.value) >= 0.05 ? told : null
})
/** Slower than is planned with is what the delays must bear; quicker is for whoever plans to say. */
const withPace = computed(() => said.value ?? (otherPace.value !== null && otherPace.value < pace.value))

function start(): void {
  seen.value = null
  fault.value = ''
  since.value = now.value = Date.now()
  clearInterval(ticks)
  ticks = setInterval(() => (now.value = Date.now()), 200)
}

function stop(alarmed: boolean): void {
  clearInterval(ticks)
  now.value = Date.now()
  judge(Math.round(elapsed.value), alarmed)
  since.value = null
}

/** Seconds by a watch, where nobody could tap. */
function type(alarmed: boolean): void {
  const text = typed.value.trim().replace(',', '.')
  const seconds = Number(text)
  if (text === '' || !(seconds >= 1 && seconds <= 900)) {
    fault.value = `Seconds: “${typed.value}” must be a number from 1 to 900.`
    return
  }
  judge(seconds, alarmed)
}

function judge(seconds: number, alarmed: boolean): void {
  seen.value = { seconds, alarmed }
  said.value = null
}

function record(): void {
  if (!verdict.value || !seen.value) return
  const slower = withPace.value ? otherPace.value : null
  const ops = slower === null ? [] : [setOp(jobInfo(job.doc), 'pace', slower)]
  emit('came', verdict.value, seen.value.seconds, ops)
  seen.value = null
  typed.value = ''
}
onBeforeUnmount(() => clearInterval(ticks))
</script>

<template>
  <div class="home">
    <p>
      <strong>Planned: {{ delay }} s</strong>, of which {{ job.rules.figures.margin }} s are to spare.
    </p>
    <div class="who">
      <span>Unset at {{ place?.name }}.</span>
      <v-checkbox v-model="slowest" label="The slowest of the house comes in" />
    </div>
    <template v-if="since !== null">
      <p class="count" role="timer" aria-live="off">
        <strong>{{ Math.floor(elapsed) }} s</strong>
        <span>{{ left >= 0 ? `${left} s left of the plan` : `${-left} s over the plan` }}</span>
      </p>
      <div class="acts">
        <v-btn color="success" variant="tonal" min-height="56" @click="stop(false)">It is unset</v-btn>
        <v-btn color="error" variant="tonal" min-height="56" @click="stop(true)">It alarms</v-btn>
      </div>
    </template>
    <template v-else-if="verdict">
      <p class="told" :class="verdict.outcome" role="status">
        {{ { pass: '✓', fail: '■', inconclusive: '?' }[verdict.outcome] }} {{ seen?.seconds }} s:
        {{ verdict.note }}
      </p>
      <v-checkbox
        v-if="otherPace !== null"
        :model-value="withPace"
        :label="`Plan with their pace from now on: ${otherPace} m/s, not ${pace}`"
        @update:model-value="said = $event === true"
      />
      <slot />
      <div class="acts">
        <v-btn color="primary" variant="flat" min-height="48" @click="record">Record it</v-btn>
        <v-btn variant="tonal" min-height="48" @click="seen = null">Time it again</v-btn>
      </div>
    </template>
    <template v-else>
      <v-btn color="primary" variant="flat" min-height="56" block @click="start">The door opens: start</v-btn>
      <div class="acts typed">
        <v-text-field
          v-model="typed"
          label="Or by a watch"
          suffix="s"
          inputmode="decimal"
          maxlength="6"
          class="seconds"
          :error-messages="fault"
          @update:model-value="fault = ''"
        />
        <v-btn variant="tonal" min-height="48" @click="type(false)">It was unset</v-btn>
        <v-btn variant="tonal" min-height="48" @click="type(true)">It alarmed</v-btn>
      </div>
      <v-btn v-if="notUsed" variant="text" min-height="48" class="unused" @click="emit('unused')"
        >Or: {{ NOT_USED }}</v-btn
      >
    </template>
  </div>
</template>

<style scoped>
.home {
  display: grid;
  gap: 8px;
}
.home p {
  margin: 0;
}
.who {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
}
.unused {
  white-space: normal;
}
.count {
  display: flex;
  align-items: baseline;
  gap: 14px;
}
.count strong {
  font-size: 2.25rem;
  font-variant-numeric: tabular-nums;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.acts :deep(.v-btn) {
  flex: 1 1 130px;
}
.typed {
  align-items: start;
}
.seconds {
  flex: 1 1 130px;
}
.told {
  padding: 8px 10px;
  border-left: 4px solid rgb(var(--v-theme-warning));
  background: rgba(var(--v-theme-on-surface), 0.04);
}
.told.pass {
  border-color: rgb(var(--v-theme-success));
}
.told.fail {
  border-color: rgb(var(--v-theme-error));
}
</style>
