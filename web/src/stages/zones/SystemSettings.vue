<script setup lang="ts">
import { computed } from 'vue'
import { bothNumbers, encodeDelay, exitWords, jobInfo, presets } from '#core'
import CellFlag from '../../shared/CellFlag.vue'
import FieldChoice from '../../shared/FieldChoice.vue'
import FieldText from '../../shared/FieldText.vue'
import KeypadKeys from './KeypadKeys.vue'
import { useJob } from '../../store/job-store.ts'

const job = useJob()
const main = { id: 'job:main', kind: 'job.set' }
const panel = computed(() => job.system?.panel ?? null)
const couplings = computed(() => panel.value?.couplings ?? {})
const info = computed(() => jobInfo(job.doc))
const preset = computed(() => presets[info.value.region])
const sirenHint = computed(() => {
  const field = panel.value?.siren
  const wanted = info.value.sirenSeconds
  if (!field) return 'not a field of this panel'
  if (wanted === null) return `as it comes; ${preset.value.siren.source}`
  return `keyed ${bothNumbers(field, encodeDelay(field, wanted, preset.value.siren, 'down'))}`
})
const swingerHint = computed(() =>
  preset.value.swinger
    ? `CP-01: ${preset.value.swinger.min}–${preset.value.swinger.max}, ${preset.value.swinger.usual} as shipped`
    : panel.value?.swinger
      ? `this panel: ${panel.value.swinger.from}–${panel.value.swinger.to}`
      : 'this panel states no range',
)
const exitItems = computed(() => [
  asItComes,
  ...(couplings.value.exitBy ?? []).map((value) => ({ title: exitWords[value], value })),
])
const opens = { exclude: 'is left out: unprotected', alarm: 'alarms' }
const asItComes = { title: 'as it comes', value: null }
const outputItems = computed(() => [
  asItComes,
  ...(couplings.value.outputs ?? []).map((value) => ({
    title: value === 'latched' ? 'stay on until a code is keyed' : 'give a pulse',
    value,
  })),
])
const beepItems = [asItComes, { title: 'keypads sound', value: true }, { title: 'silent', value: false }]
const switchItems = [
  { title: 'none', value: 'none' },
  { title: 'springs back', value: 'momentary' },
  { title: 'latches: nothing else sets then', value: 'latching' },
]
const openItems = computed(() => [
  asItComes,
  ...(couplings.value.openAtExit ?? []).map((value) => ({ title: opens[value], value })),
])

const notes = computed(() => [
  ...(couplings.value.dayZones === 'user'
    ? [
        'The user chooses day zones at the keypad, among those that the plan offers (in the details of a zone).',
      ]
    : []),
  ...(couplings.value.typeGroups
    ? [
        `A zone stands in one of these lists only, and leaves it when it enters another: ${couplings.value.typeGroups.map((group) => group.name).join(', ')}.`,
      ]
    : []),
  ...(couplings.value.exitInStay === 'none' ? ['There is no exit delay in stay.'] : []),
  ...(couplings.value.shorterEntryWins === true
    ? ['A second entry zone with a shorter delay shortens one that runs.']
    : []),
  ...(panel.value ? [`Area here: ${panel.value.areas.meaning}`] : []),
])
</script>

<template>
  <details v-if="panel" class="sheet more">
    <summary>Siren, shutdown, supervision and what the panel couples</summary>
    <div class="fields">
      <FieldText v-bind="main" field="sirenSeconds" label="Siren time" number suffix="s" :hint="sirenHint" />
      <FieldText
        v-bind="main"
        field="swinger"
        label="Swinger shutdown"
        number
        suffix="trips"
        :hint="swingerHint"
      />
      <FieldText
        v-bind="main"
        field="superviseMinutes"
        label="Lost after silence of"
        number
        suffix="min"
        :hint="`empty: as it comes, ${panel.superviseMinutes ? `${panel.superviseMinutes} min` : 'how long is not stated'}`"
      />
      <FieldChoice
        v-if="exitItems.length > 1"
        v-bind="main"
        field="exitBy"
        label="Exit ends"
        :items="exitItems"
      />
      <FieldChoice
        v-if="openItems.length > 1"
        v-bind="main"
        field="openAtExit"
        label="A zone open at the end of exit"
        :items="openItems"
      />
      <FieldChoice
        v-if="outputItems.length > 2"
        v-bind="main"
        field="outputs"
        label="Outputs"
        :items="outputItems"
      />
      <template v-if="couplings.beeps">
        <FieldChoice v-bind="main" field="entryBeeps" label="While entry runs" :items="beepItems" />
        <FieldChoice v-bind="main" field="exitBeeps" label="While exit runs" :items="beepItems" />
      </template>
      <FieldChoice
        v-if="couplings.latchingKeySwitch"
        v-bind="main"
        field="keySwitch"
        label="Key switch"
        :items="switchItems"
      />
      <label v-if="panel.delays.exit.switched" class="flag"
        ><CellFlag v-bind="main" field="exitUnitSwitched" label="The unit of the exit delay is switched" />
        Exit in steps of {{ panel.delays.exit.switched.secondsPerUnit }} s
        <span class="quiet">({{ panel.delays.exit.switched.option }})</span></label
      >
      <label v-if="couplings.stayToEntry2" class="flag"
        ><CellFlag v-bind="main" field="stayToEntry2" label="All stay zones take entry 2" /> All stay zones
        take entry 2 <span class="quiet">({{ couplings.stayToEntry2 }})</span></label
      >
      <FieldText
        v-bind="main"
        field="unheatedFrom"
        label="Coldest unheated room"
        number
        suffix="°C"
        hint="empty: −10"
      />
      <FieldText
        v-bind="main"
        field="unheatedTo"
        label="Hottest unheated room"
        number
        suffix="°C"
        hint="empty: 45"
      />
    </div>
    <KeypadKeys v-if="couplings.functionKeys" :keys="couplings.functionKeys" />
    <ul class="quiet small">
      <li v-for="note in notes" :key="note">{{ note }}</li>
    </ul>
  </details>
</template>

<style scoped>
.more {
  padding: 10px 16px;
  margin-bottom: 14px;
}
summary {
  cursor: pointer;
  font-weight: 600;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  gap: 8px 14px;
  align-items: start;
  margin-top: 12px;
}
.flag {
  align-self: center;
}
.small {
  font-size: 0.8125rem;
  margin: 6px 0 0;
  padding-left: 18px;
}
</style>
