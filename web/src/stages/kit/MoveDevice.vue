<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import {
  applyOps,
  deviceSerial,
  findingChanges,
  judge,
  labelTrouble,
  movedLabels,
  moveDeviceOps,
  printNumber,
  proofRoute,
  recordOf,
  recordsOf,
  stops,
  type Device,
  type DeviceModel,
  type NewPlace,
} from '#core'
import { severityLook } from '../../shared/severity.ts'
import { useJob } from '../../store/job-store.ts'
import { usesOf } from './words.ts'

/** A device hangs elsewhere: what its zones are called there, what stays, and what is owed anew. */
const props = defineProps<{ device: Device; model: DeviceModel; name: string }>()
const job = useJob()
const open = ref(false)
const tried = ref(false)
const place = reactive({
  room: '' as string | null,
  position: '',
  use: 'none' as NewPlace['use'],
  opening: null as string | null,
  via: null as string | null,
})
/** Labels that somebody wrote over those that were made, by zone. */
const written = reactive<Record<string, string>>({})
function begin(): void {
  Object.assign(place, { room: '', position: '', use: 'none', opening: null, via: props.device.via })
  for (const id of Object.keys(written)) Reflect.deleteProperty(written, id)
  tried.value = false
  open.value = true
}

const rooms = computed(() =>
  [
    ...new Set([
      ...recordsOf(job.doc, 'room').map(({ name }) => name),
      ...recordsOf(job.doc, 'device').map(({ room }) => room),
    ]),
  ].filter((room) => room !== ''),
)
const asked = computed((): NewPlace => ({
  ...place,
  room: (place.room ?? '').trim(),
  position: place.position.trim(),
}))
const uses = computed(() => usesOf(props.model.class))
const guards = computed(() => props.model.class === 'contact' || props.model.class === 'shock')
const openings = computed(() => [
  { title: 'none, or not said', value: null },
  ...recordsOf(job.doc, 'opening').map(({ id, name }) => ({ title: name, value: id })),
])
const repeaters = computed(() => [
  { title: 'heard by the receiver itself', value: null },
  ...(job.system?.devices ?? [])
    .filter(({ model, device }) => model.class === 'repeater' && device.id !== props.device.id)
    .map(({ model, device }) => ({ title: `${model.name} ${device.room}`.trim(), value: device.id })),
])
const labels = computed(() =>
  open.value && asked.value.room !== ''
    ? movedLabels({ doc: job.doc, catalogue: job.catalogue }, props.device, {
        place: asked.value,
        rules: job.rules,
      }).map(({ zone, label }) => ({ zone, label: written[zone.id] ?? label }))
    : [],
)
// Another room has labels of its own.
watch(
  () => [place.room, place.position],
  () => {
    for (const id of Object.keys(written)) Reflect.deleteProperty(written, id)
  },
)
function wrong(label: string): string {
  const panel = job.system?.panel
  return panel ? (labelTrouble(panel.label, label) ?? '') : ''
}
const fault = computed(() => {
  if (asked.value.room === '') return 'Say which room: one of the list, or a new one.'
  const { room, position } = props.device
  return room === asked.value.room && position === asked.value.position && place.opening === null
    ? 'That is where it hangs already.'
    : ''
})

function opsOf(device: Device) {
  const { rules } = job
  return moveDeviceOps({ doc: job.doc, catalogue: job.catalogue }, device, {
    ...{ place: asked.value, labels: labels.value, rules, at: new Date().toISOString() },
  })
}
/** What comes of it: proofs that no longer stand, and findings that come and go. */
const follows = computed(() => {
  if (!open.value || fault.value !== '') return null
  const moved = applyOps(job.doc, opsOf(props.device))
  if (!moved.ok) return null
  const passed = (doc: typeof job.doc): number =>
    proofRoute(doc, job.catalogue, null)
      .flatMap(({ items }) => items)
      .filter(({ state }) => state === 'pass').length
  const { come, go } = findingChanges(job.findings, judge(job.inputOf(moved.doc, job.catalogue)))
  const had = new Set(go.map(({ rule, subject }) => `${rule} ${subject}`))
  return {
    anew: passed(job.doc) - passed(moved.doc),
    come: come.filter(({ rule, subject }) => !had.has(`${rule} ${subject}`)),
  }
})
const isLearned = computed(() => deviceSerial(job.doc, props.device.id) !== null)
const calls = computed(() => labels.value.some(({ zone, label }) => zone.label !== label))

function move(): void {
  tried.value = true
  const device = recordOf(job.doc, 'device', props.device.id)
  if (fault.value !== '' || !device) return
  if (job.edit('device.move', opsOf(device))) open.value = false
}
</script>

<template>
  <v-btn size="small" variant="text" class="text-none" @click="begin">Move {{ name }}…</v-btn>
  <v-dialog v-model="open" max-width="640" scrollable>
    <v-card class="pa-6" :title="`Move ${name}`">
      <form class="form" @submit.prevent="move">
        <v-combobox
          v-model="place.room"
          label="Room"
          :items="rooms"
          maxlength="60"
          :error-messages="tried ? fault : ''"
          autofocus
        />
        <v-text-field v-model="place.position" label="Position" maxlength="80" />
        <v-select
          v-if="guards && openings.length > 1"
          v-model="place.opening"
          label="Opening it guards there"
          :items="openings"
        />
        <v-select v-if="uses.length > 1" v-model="place.use" label="Use of its place" :items="uses" />
        <v-select
          v-if="model.family !== null && repeaters.length > 1"
          v-model="place.via"
          label="Reached through"
          :items="repeaters"
        />
        <template v-if="labels.length > 0">
          <v-text-field
            v-for="{ zone, label } in labels"
            :key="zone.id"
            :model-value="label"
            :label="`Label of zone ${printNumber(job.system?.panel ?? null, zone.number)}`"
            :hint="`now: ${zone.label || 'none'}`"
            persistent-hint
            maxlength="60"
            :error-messages="wrong(label)"
            @update:model-value="written[zone.id] = $event"
          />
        </template>
        <button type="submit" class="sr-only">Move it</button>
      </form>
      <ul class="pl-5 mt-3">
        <li>
          {{ isLearned ? 'ID, zone' : 'Zone' }} numbers, loops and types stay{{
            model.slot === 'none' ? '' : ', and so does its slot'
          }}.
        </li>
        <li v-if="model.class === 'motion' || model.class === 'contact'">
          Height, gap and what it sees were of the old place: they are asked again.
        </li>
        <li v-if="calls">Key the new label into the panel; a read-back tells whether it is there.</li>
        <li v-if="follows && follows.anew > 0">
          {{ follows.anew === 1 ? '1 proof' : `${follows.anew} proofs` }} that passed
          {{ follows.anew === 1 ? 'is' : 'are' }} owed anew at the new place.
        </li>
      </ul>
      <template v-if="follows && follows.come.length > 0">
        <p class="mt-3"><strong>Then it finds:</strong></p>
        <ul class="pl-5">
          <li v-for="found in follows.come" :key="found.rule + found.text" :class="{ stop: stops(found) }">
            {{ severityLook[found.severity].glyph }} {{ found.text }}
          </li>
        </ul>
      </template>
      <div class="acts mt-4">
        <v-btn variant="text" @click="open = false">Cancel</v-btn>
        <v-btn color="primary" @click="move">Move it</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 240px), 1fr));
  gap: 14px;
  align-items: start;
  padding-top: 8px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 8px;
}
.stop {
  font-weight: 650;
}
</style>
