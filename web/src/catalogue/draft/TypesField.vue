<script setup lang="ts">
import { mdiArrowUp, mdiClose, mdiPlus } from '@mdi/js'
import { computed, ref } from 'vue'
import {
  fireChoices,
  hideChoices,
  kindChoices,
  leavingChoices,
  openOf,
  soundChoices,
  tripChoices,
  usualTypes,
  type Answer,
  type ModeTrip,
  type TypeRow,
} from '#core'
import BehaviourStrip from '../../stages/zones/BehaviourStrip.vue'

/** The types of a panel’s zones: a usual one is chosen, called and keyed as the panel does; what panels differ in is asked. */
const props = defineProps<{ value: Answer['value'] | undefined; label: string; fault: string }>()
const emit = defineEmits<{ answer: [value: Answer['value'] | undefined] }>()
const rows = computed(() => (Array.isArray(props.value) ? (props.value as TypeRow[]) : []))
const opened = ref<number | null>(null)
const hasNight = ref(false)
const night = computed(() => hasNight.value || rows.value.some((row) => row.night))
const rest = { name: null, code: null }
const nothing: TypeRow = {
  ...{ ...rest, kind: null, away: null, stay: null, disarmed: null, sound: null, hides: [] },
  ...{ whileExit: { away: null, stay: null }, transmissionDelayAllowed: null },
}

function say(list: readonly TypeRow[]): void {
  emit('answer', list.length > 0 ? (list as unknown as Answer['value']) : undefined)
}
function set(index: number, change: Partial<TypeRow>): void {
  say(rows.value.map((row, at) => (at === index ? { ...row, ...change } : row)))
}
function add(row: TypeRow): void {
  say([...rows.value, { ...row, ...rest }])
  opened.value = openOf({ ...row, name: 'it', code: '1' }).length > 0 ? rows.value.length : null
}
function drop(index: number): void {
  say(rows.value.filter((_, at) => at !== index))
  opened.value = null
}
function raise(index: number): void {
  const order = [...rows.value]
  const [moved] = order.splice(index, 1)
  if (moved) order.splice(index - 1, 0, moved)
  say(order)
}
/** Whether a type has a night of its own: then every type has one, as in stay until somebody says otherwise. */
function turnNight(on: boolean | null): void {
  hasNight.value = on === true
  say(rows.value.map((row) => ({ ...row, night: on ? (row.stay ?? null) : null })))
}
function strip(row: TypeRow): ModeTrip[] {
  const modes = [
    { mode: 'away', trip: row.away },
    { mode: 'stay', trip: row.stay },
    { mode: 'night', trip: row.night },
    { mode: 'unset', trip: row.disarmed },
  ] as const
  return modes.flatMap(({ mode, trip }) => (trip ? [{ mode, trip, because: '' }] : []))
}
/** Which question a trip in a mode answers. */
const questions = [
  { key: 'away', ask: 'Set away, it trips' },
  { key: 'stay', ask: 'Set stay, it trips' },
  { key: 'night', ask: 'At night, it trips' },
  { key: 'disarmed', ask: 'Unset, it trips' },
] as const
const asks = computed(() => questions.filter(({ key }) => key !== 'night' || night.value))
</script>

<template>
  <div class="types">
    <v-switch
      v-if="rows.length > 0"
      :model-value="night"
      label="It has a night mode of its own"
      color="primary"
      hide-details
      density="compact"
      @update:model-value="turnNight"
    />
    <p v-if="rows.length > 0" class="quiet legend">
      The marks say what a trip does set away, set stay{{ night ? ', at night' : '' }}, unset: ! alarm at
      once, 1 and 2 start that entry delay, › waits while one runs, ♪ a sound only, · nothing.
    </p>
    <div
      v-for="(row, index) in rows"
      :key="index"
      class="type"
      role="group"
      :aria-label="`Type ${index + 1}`"
    >
      <div class="line">
        <v-text-field
          :model-value="row.code ?? ''"
          label="Keyed"
          maxlength="16"
          hide-details
          class="code"
          @change="set(index, { code: ($event.target as HTMLInputElement).value.trim() || null })"
        />
        <v-text-field
          :model-value="row.name ?? ''"
          label="The panel calls it"
          maxlength="80"
          hide-details
          class="name"
          @change="set(index, { name: ($event.target as HTMLInputElement).value.trim() || null })"
        />
        <BehaviourStrip :modes="strip(row)" />
        <v-btn
          variant="text"
          :aria-expanded="opened === index"
          :aria-label="`What type ${index + 1} does`"
          @click="opened = opened === index ? null : index"
          >{{
            openOf({ ...row, name: 'it', code: '1' }).length > 0 ? '○ what it does' : 'what it does'
          }}</v-btn
        >
        <v-btn
          v-if="index > 0"
          :icon="mdiArrowUp"
          variant="text"
          size="40"
          :aria-label="`Type ${index + 1} comes earlier`"
          @click="raise(index)"
        />
        <v-btn
          :icon="mdiClose"
          variant="text"
          size="40"
          :aria-label="`Remove type ${index + 1}`"
          @click="drop(index)"
        />
      </div>
      <div v-if="opened === index" class="questions">
        <v-select
          :model-value="row.kind"
          :items="[...kindChoices]"
          label="It is about"
          hide-details
          @update:model-value="set(index, { kind: $event })"
        />
        <v-select
          v-for="one in asks"
          :key="one.key"
          :model-value="row[one.key]"
          :items="[...tripChoices]"
          :label="one.ask"
          hide-details
          @update:model-value="set(index, { [one.key]: $event })"
        />
        <v-select
          :model-value="row.whileExit?.away ?? null"
          :items="[...leavingChoices]"
          label="While leaving, set away"
          hide-details
          @update:model-value="set(index, { whileExit: { ...row.whileExit, away: $event } })"
        />
        <v-select
          :model-value="row.whileExit?.stay ?? null"
          :items="[...leavingChoices]"
          label="While leaving, set stay"
          hide-details
          @update:model-value="set(index, { whileExit: { ...row.whileExit, stay: $event } })"
        />
        <v-select
          :model-value="row.sound"
          :items="[...soundChoices]"
          label="It sounds"
          hide-details
          @update:model-value="set(index, { sound: $event })"
        />
        <v-select
          v-if="row.kind === 'fire'"
          :model-value="row.fire ?? 'plain'"
          :items="[...fireChoices]"
          label="Fire is reported"
          hide-details
          @update:model-value="set(index, { fire: $event === 'plain' ? null : $event })"
        />
        <v-select
          :model-value="row.hides ?? []"
          :items="[...hideChoices]"
          multiple
          label="It does not ask for"
          hide-details
          @update:model-value="set(index, { hides: $event })"
        />
        <v-select
          :model-value="row.transmissionDelayAllowed"
          :items="[
            { value: true, title: 'yes' },
            { value: false, title: 'no: sent at once' },
          ]"
          label="May be held before sending"
          hide-details
          @update:model-value="set(index, { transmissionDelayAllowed: $event })"
        />
      </div>
    </div>
    <div class="usual" role="group" aria-label="Types that panels usually have">
      <span class="quiet"
        >Which has it? What a usual one does is filled in: look whether this panel does the same.</span
      >
      <v-btn
        v-for="one in usualTypes"
        :key="one.title"
        variant="outlined"
        height="40"
        :prepend-icon="mdiPlus"
        @click="add(one.row)"
        >{{ one.title }}</v-btn
      >
      <v-btn variant="outlined" height="40" :prepend-icon="mdiPlus" @click="add(nothing)">Another</v-btn>
    </div>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.types {
  flex: 1 1 100%;
  display: grid;
  gap: 8px;
}
.type {
  padding: 8px;
  border: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
  border-radius: 8px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.code {
  flex: 0 1 110px;
}
.code :deep(input) {
  font-family: var(--mono);
}
.name {
  flex: 1 1 200px;
}
.questions {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 8px;
  margin-top: 8px;
}
.usual {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.legend {
  margin: 0;
  font-size: 0.8125rem;
}
.usual .quiet {
  flex: 1 0 100%;
}
.fault {
  color: rgb(var(--v-theme-error));
  margin: 0;
}
</style>
