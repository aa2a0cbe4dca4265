<script setup lang="ts">
import { computed } from 'vue'
import { bothNumbers, encodeDelay, jobInfo, presets } from '#core'
import CellFlag from '../../shared/CellFlag.vue'
import FieldChoice from '../../shared/FieldChoice.vue'
import FieldText from '../../shared/FieldText.vue'
import { useJob } from '../../job/job-store.ts'

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
    : `this panel: ${panel.value?.swinger?.from ?? 0}–${panel.value?.swinger?.to ?? 15}`,
)
const exits = {
  timer: 'when the time is over',
  door: 'when the last door closes',
  either: 'whichever is first',
}
const exitItems = computed(() => [
  { title: 'as it comes', value: null },
  ...(couplings.value.exitBy ?? []).map((value) => ({ title: exits[value], value })),
])
const opens = { exclude: 'is left out: unprotected', alarm: 'alarms' }
const openItems = computed(() => [
  { title: 'as it comes', value: null },
  ...(couplings.value.openAtExit ?? []).map((value) => ({ title: opens[value], value })),
])

function turnKey(key: string, off: boolean): void {
  const now = info.value.keysOff
  const next = off ? [...now, key] : now.filter((item) => item !== key)
  job.set('job.set', 'job:main', 'keysOff', now, next)
}

const notes = computed(() => [
  ...(couplings.value.latchingKeySwitch ? ['A latching key switch disables all other ways to set.'] : []),
  ...(couplings.value.dayZones === 'user' ? ['The user chooses which zones are day zones.'] : []),
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
        :hint="`empty: as it comes${panel.superviseMinutes ? `, ${panel.superviseMinutes} min` : ''}`"
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
    <fieldset v-if="couplings.functionKeys" class="keys">
      <legend>Keypad keys switched off</legend>
      <label v-for="key in couplings.functionKeys" :key="key">
        <input
          type="checkbox"
          :checked="info.keysOff.includes(key)"
          :aria-label="`Switch the ${key} off`"
          @change="turnKey(key, ($event.target as HTMLInputElement).checked)"
        />
        {{ key }}
      </label>
      <span class="quiet"
        >Losing a help or panic key needs the customer’s consent, recorded at hand-over.</span
      >
    </fieldset>
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
  margin-top: 12px;
}
.flag {
  align-self: center;
}
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin-top: 10px;
  padding: 4px 12px 8px;
  border: 1px solid rgba(var(--v-theme-on-surface), 0.2);
  border-radius: 6px;
}
.small {
  font-size: 0.8125rem;
  margin: 6px 0 0;
  padding-left: 18px;
}
</style>
