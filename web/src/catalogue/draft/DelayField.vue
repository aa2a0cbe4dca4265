<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { findDelayRule, type Answer } from '#core'
import { timeWords, type TimeRule } from './words.ts'

/** A time of the panel: its name and address, and two keyed values with their seconds from which unit, range and step are found. */
const props = defineProps<{
  value: Answer['value'] | undefined
  label: string
  fault: string
  /** A time described before, whose unit and range can be taken over. */
  before: { readonly label: string; readonly value: Answer['value'] } | null
}>()
const emit = defineEmits<{ answer: [value: Answer['value'] | undefined] }>()

type Kept = Partial<TimeRule> & { readonly name?: string | null; readonly address?: string | null }
const kept = computed(() => (props.value ?? {}) as Kept)
const isFound = computed(() => typeof kept.value.secondsPerUnit === 'number')
const lines = ref([
  { label: 'The least', keyed: '', seconds: '' },
  { label: 'The most', keyed: '', seconds: '' },
])
const chosen = ref<Record<string, Partial<TimeRule>>>({})
const isTyped = computed(() =>
  lines.value.every(({ keyed, seconds }) => keyed.trim() !== '' && seconds.trim() !== ''),
)
const found = computed(() => {
  const [least, most, ...others] = lines.value.map(({ keyed, seconds }) => ({
    keyed,
    seconds: Number(seconds),
  }))
  return least && most && isTyped.value ? findDelayRule({ least, most, others }) : null
})
watch(lines, () => (chosen.value = {}), { deep: true })
const openPoints = computed(() => found.value?.open ?? [])

function say(change: Partial<Kept>): void {
  // A number is what a field takes where nothing else is said; what was taken away is not said at all.
  const now = Object.entries({ ...kept.value, ...change }).filter(
    ([key, one]) => one !== undefined && (key !== 'form' || one === 'minutes-seconds'),
  )
  emit('answer', Object.fromEntries(now) as Answer['value'])
}
/** The rule with what was said of what is open. */
const chosenRule = computed((): TimeRule | null =>
  found.value?.rule
    ? Object.assign({}, found.value.rule, ...openPoints.value.map(({ about }) => chosen.value[about] ?? {}))
    : null,
)
function take(): void {
  if (!chosenRule.value) return
  say(chosenRule.value)
  for (const line of lines.value) line.keyed = line.seconds = ''
}
function asBefore(): void {
  const { secondsPerUnit, min, max, step, reserved, form } = (props.before?.value ?? {}) as Kept
  say({ secondsPerUnit, min, max, step, reserved, form })
}

const isSwitched = ref(false)
const switched = computed(() => (kept.value as { switched?: Record<string, number | string> }).switched)
const reservedValue = ref('')
const reservedMeaning = ref('')
function reserve(): void {
  const value = Number(reservedValue.value)
  if (!Number.isInteger(value) || reservedMeaning.value.trim() === '') return
  say({ reserved: [...(kept.value.reserved ?? []), { value, meaning: reservedMeaning.value.trim() }] })
  reservedValue.value = reservedMeaning.value = ''
}
const parts = [
  { key: 'secondsPerUnit', title: 'Seconds of one unit' },
  { key: 'min', title: 'Least' },
  { key: 'max', title: 'Most' },
  { key: 'step', title: 'Step' },
] as const
function saySwitched(key: string, text: string): void {
  const value = key === 'option' ? text.trim() : Number(text)
  const now = { ...(switched.value ?? {}), [key]: value }
  say({ switched: now } as Partial<Kept>)
}
</script>

<template>
  <div class="time" role="group" :aria-label="label">
    <v-text-field
      :model-value="kept.name ?? ''"
      label="The panel calls it"
      maxlength="80"
      hide-details
      @change="say({ name: ($event.target as HTMLInputElement).value.trim() || null })"
    />
    <v-text-field
      :model-value="kept.address ?? ''"
      label="Its address"
      maxlength="24"
      hide-details
      @change="say({ address: ($event.target as HTMLInputElement).value.trim() || null })"
    />
    <p v-if="isFound" class="kept wide">✓ {{ timeWords(kept as TimeRule) }}</p>
    <v-btn v-if="!isFound && before?.value" variant="tonal" class="wide left" @click="asBefore"
      >Takes the same values as {{ before.label }}</v-btn
    >
    <details class="wide" :open="!isFound">
      <summary>{{ isFound ? 'Find it anew from keyed values' : 'Found from keyed values' }}</summary>
      <div v-for="(line, index) in lines" :key="index" class="line">
        <span>{{ line.label }}</span>
        <v-text-field
          v-model="line.keyed"
          :label="`${line.label}: keyed`"
          maxlength="5"
          hide-details
          class="mono"
        />
        <v-text-field
          v-model="line.seconds"
          :label="`${line.label}: is`"
          suffix="s"
          inputmode="numeric"
          maxlength="6"
          hide-details
        />
      </div>
      <v-btn
        v-if="lines.length < 5"
        variant="text"
        @click="lines.push({ label: 'Another', keyed: '', seconds: '' })"
        >One more value</v-btn
      >
      <ul v-if="found && found.problems.length > 0" class="faults" role="alert">
        <li v-for="problem in found.problems" :key="problem">{{ problem }}</li>
      </ul>
      <fieldset v-for="point in openPoints" :key="point.about" class="open">
        <legend>? {{ point.ask }}</legend>
        <p class="quiet">{{ point.tell }}</p>
        <v-btn
          v-for="choice in point.choices"
          :key="choice.title"
          :variant="
            JSON.stringify(chosen[point.about]) === JSON.stringify(choice.change) ? 'flat' : 'outlined'
          "
          :color="
            JSON.stringify(chosen[point.about]) === JSON.stringify(choice.change) ? 'primary' : undefined
          "
          :aria-pressed="JSON.stringify(chosen[point.about]) === JSON.stringify(choice.change)"
          @click="chosen[point.about] = choice.change"
          >{{ choice.title }}</v-btn
        >
      </fieldset>
      <p v-if="chosenRule" role="status"><strong>Found:</strong> {{ timeWords(chosenRule) }}.</p>
      <v-btn
        v-if="found?.rule"
        color="primary"
        variant="tonal"
        :disabled="openPoints.some(({ about }) => !chosen[about])"
        @click="take"
        >Take it</v-btn
      >
    </details>
    <details v-if="isFound" class="wide" :open="isSwitched || switched !== undefined">
      <summary>Values with a meaning of their own; another unit by an option</summary>
      <p v-for="one in kept.reserved ?? []" :key="one.value" class="reserved">
        {{ one.value }}: {{ one.meaning }}
        <v-btn
          variant="text"
          size="small"
          height="40"
          :aria-label="`${one.value} has no meaning of its own`"
          @click="say({ reserved: (kept.reserved ?? []).filter((other) => other.value !== one.value) })"
          >Take away</v-btn
        >
      </p>
      <div class="line">
        <span>A value means</span>
        <v-text-field v-model="reservedValue" label="Keyed" inputmode="numeric" maxlength="4" hide-details />
        <v-text-field
          v-model="reservedMeaning"
          label="It means"
          placeholder="for ever"
          maxlength="80"
          hide-details
        />
        <v-btn variant="tonal" :disabled="reservedValue === '' || reservedMeaning === ''" @click="reserve"
          >Add</v-btn
        >
      </div>
      <v-checkbox
        v-if="switched === undefined"
        v-model="isSwitched"
        label="An option elsewhere changes its unit"
        hide-details
      />
      <div v-if="isSwitched || switched !== undefined" class="line">
        <v-text-field
          :model-value="String(switched?.option ?? '')"
          label="The option is called"
          maxlength="80"
          hide-details
          @change="saySwitched('option', ($event.target as HTMLInputElement).value)"
        />
        <v-text-field
          v-for="part in parts"
          :key="part.key"
          :model-value="String(switched?.[part.key] ?? '')"
          :label="part.title"
          inputmode="numeric"
          maxlength="4"
          hide-details
          @change="saySwitched(part.key, ($event.target as HTMLInputElement).value)"
        />
        <v-btn variant="text" @click="((isSwitched = false), say({ switched: undefined } as Partial<Kept>))"
          >No such option</v-btn
        >
      </div>
    </details>
    <p v-if="fault" class="faults wide" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.time {
  flex: 1 1 100%;
  display: grid;
  grid-template-columns: 2fr 1fr;
  gap: 8px;
}
.time p {
  margin: 0;
}
.wide {
  grid-column: 1 / -1;
}
.left {
  justify-self: start;
}
summary {
  cursor: pointer;
  padding: 8px 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
}
.line > span {
  flex: 0 0 110px;
}
.line .v-input {
  flex: 1 1 120px;
}
.mono :deep(input) {
  font-family: var(--mono);
}
.open {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  border: 0;
  border-left: 4px solid rgb(var(--v-theme-info));
  padding: 4px 12px;
  margin-bottom: 8px;
}
.open legend {
  float: left;
  width: 100%;
  font-weight: 650;
}
.open p {
  flex: 1 0 100%;
}
.reserved {
  display: flex;
  align-items: center;
  gap: 8px;
}
.faults {
  color: rgb(var(--v-theme-error));
  padding-left: 18px;
}
p.faults {
  padding: 0;
}
.kept {
  color: rgb(var(--v-theme-success));
}
@media (max-width: 600px) {
  .time {
    grid-template-columns: 1fr;
  }
}
</style>
