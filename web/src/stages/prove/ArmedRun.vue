<script setup lang="ts">
import { useNow } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, shallowRef } from 'vue'
import {
  armedRun,
  delaySets,
  leftWords,
  PANEL,
  printNumber,
  recordOf,
  testBlocked,
  verdictOf,
  type ArmedSetting,
  type ProofItem,
  type ProofStop,
  type Seen,
} from '#core'
import { useJob } from '../../store/job-store.ts'
import { useWritten } from '../../shared/times.ts'
import SeenButtons from './SeenButtons.vue'
import { useProving } from './useProving.ts'
import { stateLook } from './words.ts'

/** All armed trips in one run: set as rarely as the doors allow, trip by trip, judged by what was seen. */
const props = defineProps<{ route: readonly ProofStop[] }>()
const emit = defineEmits<{ close: [] }>()
const job = useJob()
const proving = useProving()
const written = useWritten()
const now = useNow({ interval: 1_000 })
const at = computed(() => ({ doc: job.doc, catalogue: job.catalogue }))
/** As the run was when it began: what is recorded on the way takes nothing off the list. */
const run = shallowRef(armedRun(at.value, props.route))
const count = computed(() => run.value.settings.reduce((sum, { zones }) => sum + zones.length, 0))
const setCount = computed(() => {
  const sets = run.value.settings.filter(({ mode }) => mode !== 'unset').length
  return sets === 1 ? 'set once' : `set ${sets} times`
})
/** When the system was set, by the number of the setting. */
const setAt = ref<Readonly<Record<number, string>>>({})
const fault = ref<Readonly<Record<string, string>>>({})
const head = ref<HTMLElement | null>(null)
onMounted(() => void nextTick(() => head.value?.focus()))

const items = computed(
  () =>
    new Map(
      props.route.flatMap((entry) =>
        entry.items
          .filter(({ kind }) => kind === 'armed')
          .map((item): [string, { entry: ProofStop; item: ProofItem }] => [item.subject, { entry, item }]),
      ),
    ),
)
const panel = computed(() => job.system?.panel ?? null)
/** The longest exit delay of the system or of one of its areas: all are set together. */
const exit = computed(() => {
  const sets = panel.value ? delaySets(job.doc, panel.value) : []
  const known = sets.flatMap(({ values }) => values.exit ?? [])
  return known.length > 0 ? Math.max(...known) : null
})
const first = computed(() =>
  run.value.settings.flatMap(({ zones }) => zones).find((id) => items.value.get(id)?.item.state !== 'pass'),
)
/** Why nothing can be tripped now: the station is not on test. */
const blocked = computed(() => {
  const next = first.value === undefined ? undefined : items.value.get(first.value)
  return next ? testBlocked(at.value, next.item, job.now) : null
})

const titles: Readonly<Record<ArmedSetting['mode'], string>> = {
  unset: 'Without setting: these alarm at any hour',
  away: 'Set away, no zone left out',
  stay: 'Set stay, no zone left out',
  night: 'Set night, no zone left out',
}

function titleOf({ mode, part }: ArmedSetting): string {
  const area = recordOf(job.doc, 'area', part)
  return area ? `Set ${area.name}` : titles[mode]
}

/** How long to wait after setting, s: people leave, and motions that setting does not wake sleep off their last trip. */
const waitOf = ({ sleeps }: ArmedSetting): number => Math.max(exit.value ?? 0, sleeps)

function waitWords(setting: ArmedSetting): string {
  const parts = [
    exit.value === null ? 'its exit delay, which the plan does not say' : `the exit delay of ${exit.value} s`,
    ...(setting.sleeps > 0 ? [`${setting.sleeps} s in which nobody moves before its motions`] : []),
  ]
  return `Then wait for ${parts.join(', and ')}.`
}

/** From when the trips of a setting count; empty while it is not set. */
function readyAt(index: number, setting: ArmedSetting): string {
  const since = setAt.value[index]
  return since === undefined ? '' : new Date(Date.parse(since) + waitOf(setting) * 1000).toISOString()
}

function nameOf(id: string): string {
  const zone = recordOf(job.doc, 'zone', id)
  return zone
    ? ['zone', printNumber(panel.value, zone.number), zone.label].filter(Boolean).join(' ')
    : 'a zone that is not there any more'
}

/** The panel's second unset, where only that clears it. */
const clears = computed(() =>
  props.route
    .flatMap((entry) => entry.items)
    .find(({ kind, subject }) => kind === 'clears' && subject === PANEL),
)
function sawCleared(outcome: 'pass' | 'fail'): void {
  if (!clears.value) return
  const observed = { outcome, note: '', reading: null, method: 'in the armed run' }
  const why =
    testBlocked(at.value, clears.value, job.now) ??
    proving.write(proving.resultsOf(clears.value, [clears.value], observed))
  fault.value = { ...fault.value, [PANEL]: why }
}

function saw(id: string, mode: ArmedSetting['mode'], seen: Seen): void {
  const found = items.value.get(id)
  const verdict = found ? verdictOf(at.value, id, seen) : null
  if (!found || !verdict) return
  const { entry, item } = found
  const shown = verdict.outcome === 'pass' ? [item, ...proving.implied(entry, [item])] : [item]
  const results = proving.resultsOf(item, shown, {
    ...{ outcome: verdict.outcome, note: verdict.note, reading: null },
    method: mode === 'unset' ? 'in the armed run, unset' : `in the armed run, ${mode}`,
  })
  const why = testBlocked(at.value, item, job.now) ?? proving.write(results)
  fault.value = { ...fault.value, [id]: why }
}
</script>

<template>
  <section class="sheet run" aria-label="Armed run">
    <div class="head">
      <h2 ref="head" tabindex="-1">Armed run</h2>
      <span class="quiet">{{ count }} {{ count === 1 ? 'trip' : 'trips' }}, {{ setCount }}</span>
      <span class="grow" />
      <v-btn variant="text" @click="emit('close')">Back to the round</v-btn>
    </div>
    <p class="caution">
      ⚠ Siren sound harms hearing: protect your ears, keep people away from it, silence it as soon as it was
      heard.
    </p>
    <p class="quiet">
      Set and unset with a user code or fob: an installer code may do neither. Close every cover before the
      installer menu is left, or it may sound. Other zones may be tripped while it sounds: each shows by
      itself.
    </p>
    <p v-if="blocked" class="blocked" role="note">■ {{ blocked }}</p>
    <p v-if="count === 0">Every armed trip that can be made now has passed.</p>
    <section
      v-for="(setting, index) in run.settings"
      :key="index"
      class="part"
      :aria-label="titleOf(setting)"
    >
      <h3>{{ index + 1 }}. {{ titleOf(setting) }}</h3>
      <template v-if="setting.mode !== 'unset'">
        <p class="quiet">{{ waitWords(setting) }}</p>
        <div class="set">
          <v-btn
            color="primary"
            variant="tonal"
            min-height="48"
            :disabled="blocked !== null"
            @click="setAt = { ...setAt, [index]: new Date().toISOString() }"
            >{{ setAt[index] ? 'Set again now' : 'It is set now' }}</v-btn
          >
          <strong v-if="readyAt(index, setting)" role="timer">{{
            leftWords(now.toISOString(), readyAt(index, setting)) === ''
              ? 'Trip them in this order.'
              : `Trips count in ${leftWords(now.toISOString(), readyAt(index, setting))}.`
          }}</strong>
        </div>
      </template>
      <ol>
        <li v-for="id in setting.zones" :key="id" :class="items.get(id)?.item.state">
          <div class="who">
            <strong>{{ nameOf(id) }}</strong>
            <span class="quiet">{{
              [items.get(id)?.entry.room, items.get(id)?.entry.device?.position].filter(Boolean).join(', ')
            }}</span>
            <span class="state"
              ><span aria-hidden="true">{{ stateLook[items.get(id)?.item.state ?? 'owed'].glyph }}</span>
              {{ stateLook[items.get(id)?.item.state ?? 'owed'].word }}</span
            >
          </div>
          <p v-if="items.get(id)?.item.results.at(-1)?.note" class="note">
            {{ items.get(id)?.item.results.at(-1)?.note }}
            <span class="quiet">{{ written.moment(items.get(id)?.item.results.at(-1)?.at ?? '') }}</span>
          </p>
          <SeenButtons
            v-if="items.get(id) && items.get(id)?.item.state !== 'pass'"
            :blocked="blocked !== null"
            :zone="id"
            :name="nameOf(id)"
            @seen="saw(id, setting.mode, $event)"
          />
          <p v-if="fault[id]" class="fault" role="alert">{{ fault[id] }}</p>
        </li>
      </ol>
      <p class="end">
        <strong>Then:</strong> unset with a user code: it falls silent.
        <template v-if="panel?.secondDisarmClears"
          >Unset once more: only the second clears this panel.</template
        >
        See that it is ready.
        <template v-if="job.system?.info.monitored"
          >The first unset recalls no report that was sent: tell the station.</template
        >
      </p>
      <div v-if="clears && clears.state !== 'pass'" class="set">
        <v-btn variant="tonal" min-height="48" :disabled="blocked !== null" @click="sawCleared('pass')"
          >✓ The second unset cleared it</v-btn
        >
        <v-btn variant="text" min-height="48" :disabled="blocked !== null" @click="sawCleared('fail')"
          >✕ It still shows the alarm</v-btn
        >
        <span v-if="clears.state === 'fail'" class="fault">✕ failed: it was not cleared</span>
      </div>
      <p v-else-if="clears" class="note">✓ The second unset was seen to clear it.</p>
      <p v-if="fault[PANEL]" class="fault" role="alert">{{ fault[PANEL] }}</p>
    </section>
    <template v-if="run.left.length > 0">
      <h3>Not in this run</h3>
      <ul class="left">
        <li v-for="{ zone, why } in run.left" :key="zone">
          <strong>{{ nameOf(zone) }}:</strong> {{ why }}
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.run {
  padding: 14px 16px;
  display: grid;
  gap: 10px;
}
.run p {
  margin: 0;
}
.grow {
  flex: 1;
}
.head,
.set {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
}
.part {
  display: grid;
  gap: 8px;
  border-top: 1px solid rgba(var(--v-theme-on-surface), 0.2);
  padding-top: 10px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  gap: 6px;
}
ol li {
  padding: 8px 0;
  border-top: 1px solid rgba(var(--v-theme-on-surface), 0.12);
}
.who {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
}
.state {
  margin-left: auto;
}
.note,
.end,
.left {
  font-size: 0.875rem;
}
.pass .state {
  color: rgb(var(--v-theme-success));
  font-weight: 600;
}
.fail .state,
.fault,
.blocked {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}
.caution {
  padding: 6px 10px;
  border-left: 4px solid rgb(var(--v-theme-warning));
  background: rgba(var(--v-theme-warning), 0.1);
}
.left {
  margin: 0;
  padding-left: 18px;
}
</style>
