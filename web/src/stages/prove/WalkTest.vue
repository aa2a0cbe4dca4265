<script setup lang="ts">
import { computed, nextTick, onMounted, ref, shallowRef } from 'vue'
import { notHeard, walkRun, whyNotHeard, type NotHeardWhy, type ProofStop, type WalkTrip } from '#core'
import { useJob } from '../../store/job-store.ts'
import NoteState from './NoteState.vue'
import { useProving } from './useProving.ts'
import { stateLook } from './words.ts'

/** The walk test on one round: who was heard, who was not, and why not. */
const props = defineProps<{ route: readonly ProofStop[] }>()
const emit = defineEmits<{ close: [] }>()
const job = useJob()
const proving = useProving()
const at = computed(() => ({ doc: job.doc, catalogue: job.catalogue }))
const now = computed(() => walkRun(at.value, props.route))
/** As the round was when it began: what is heard on the way takes nothing off the list. */
const run = shallowRef(now.value)
const fault = ref<Readonly<Record<string, string>>>({})
const asked = ref<string | null>(null)
const head = ref<HTMLElement | null>(null)
onMounted(() => void nextTick(() => head.value?.focus()))

const items = computed(
  () => new Map(props.route.flatMap((stop) => stop.items.map((item) => [item.key, item] as const))),
)
const stateOf = (trip: WalkTrip) => items.value.get(trip.item.key)?.state ?? trip.item.state
const of = (state: ReturnType<typeof stateOf>): number =>
  run.value.trips.filter((trip) => stateOf(trip) === state).length
const heard = computed(() => of('pass'))
const unheard = computed(() => of('fail') + of('inconclusive'))
const rest = computed(() => run.value.trips.length - heard.value - unheard.value)
const sleepers = computed(() => run.value.trips.filter(({ sleeps }) => sleeps !== null).length)
const whys: Readonly<Record<NotHeardWhy, string>> = {
  asleep: 'It may have slept',
  'shut-out': 'It may be shut out',
  sounder: 'Nothing could be heard at the keypad',
  awake: 'It should have been heard',
}
const labelOf = ({ stop, item }: WalkTrip): string =>
  stop.zones.find(({ id }) => id === item.subject)?.label || stop.title
const nameOf = (trip: WalkTrip): string => [labelOf(trip), trip.item.label].filter(Boolean).join(', ')

function write(trip: WalkTrip, why: NotHeardWhy | null): void {
  asked.value = null
  const item = items.value.get(trip.item.key)
  if (!item) return
  const came = why === null ? { outcome: 'pass' as const, note: '' } : notHeard(run.value, trip, why)
  const results = proving.resultsOf(item, [item], { ...came, reading: null, method: 'in the walk test' })
  fault.value = { ...fault.value, [item.key]: now.value.blocked || proving.write(results) }
}
</script>

<template>
  <section class="sheet run" aria-label="Walk test">
    <div class="head">
      <h2 ref="head" tabindex="-1">Walk test</h2>
      <span class="quiet" aria-live="polite"
        >{{ heard }} heard, {{ unheard }} not heard, {{ rest }} to go</span
      >
      <span class="grow" />
      <v-btn variant="text" @click="emit('close')">Back to the round</v-btn>
    </div>
    <p class="quiet">
      Put the panel into its walk test, a keypad’s sounder on, and trip each once in this order. It shows that
      trips arrive; it is not the final test.
      <template v-if="sleepers > 0"
        >{{ sleepers === 1 ? 'One motion sleeps' : `${sleepers} motions sleep` }} after a trip and
        {{ sleepers === 1 ? 'is' : 'are' }} not woken by it: walk past once only.</template
      >
      <template v-if="run.shutsOutAfter !== null"
        >The panel shuts a zone out after {{ run.shutsOutAfter }}
        {{ run.shutsOutAfter === 1 ? 'trip' : 'trips' }}: unset it before the round.</template
      >
    </p>
    <p v-if="now.blocked" class="blocked" role="note">■ {{ now.blocked }}</p>
    <NoteState v-else :kinds="['sounder-off']" title="A sounder stays off…" />
    <p v-if="run.trips.length === 0">Everything that can be walked now has been heard.</p>
    <ol>
      <li v-for="trip in run.trips" :key="trip.item.key" :class="stateOf(trip)">
        <div class="who">
          <strong>{{ labelOf(trip) }}</strong>
          <span class="quiet">{{
            [trip.item.label, trip.stop.room, trip.stop.device?.position].filter(Boolean).join(', ')
          }}</span>
          <span class="state"
            ><span aria-hidden="true">{{ stateLook[stateOf(trip)].glyph }}</span>
            {{ stateOf(trip) === 'pass' ? 'heard' : stateLook[stateOf(trip)].word }}</span
          >
        </div>
        <p v-if="stateOf(trip) !== 'pass' && items.get(trip.item.key)?.results.at(-1)?.note" class="note">
          {{ items.get(trip.item.key)?.results.at(-1)?.note }}
        </p>
        <div v-if="stateOf(trip) !== 'pass' && !now.blocked" class="acts">
          <v-btn
            color="success"
            variant="tonal"
            min-height="48"
            :aria-label="`Heard: ${nameOf(trip)}`"
            @click="write(trip, null)"
            >✓ {{ trip.item.kind === 'toggle' ? 'Opened and closed' : 'Heard' }}</v-btn
          >
          <template v-if="asked === trip.item.key">
            <v-btn
              v-for="why in whyNotHeard(run, trip)"
              :key="why"
              variant="tonal"
              min-height="48"
              @click="write(trip, why)"
              >{{ whys[why] }}</v-btn
            >
          </template>
          <v-btn
            v-else
            variant="tonal"
            min-height="48"
            :aria-label="`Not heard: ${nameOf(trip)}`"
            @click="asked = trip.item.key"
            >Not heard…</v-btn
          >
        </div>
        <p v-if="fault[trip.item.key]" class="fault" role="alert">{{ fault[trip.item.key] }}</p>
      </li>
    </ol>
    <template v-if="run.left.length > 0">
      <h3>Not in this round</h3>
      <ul class="left">
        <li v-for="{ stop, item, why } in run.left" :key="item.key">
          <strong>{{ item.label || stop.title }}:</strong> {{ why }}
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
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
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
.left {
  margin: 0;
  padding-left: 18px;
}
</style>
