<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed } from 'vue'
import {
  houseOf,
  leavesFrom,
  placeWords,
  recordsOf,
  sightsWith,
  type Device,
  type DeviceModel,
  type Op,
} from '#core'
import CellChoice from '../../shared/CellChoice.vue'
import CellFlag from '../../shared/CellFlag.vue'
import CellText from '../../shared/CellText.vue'
import { useJob } from '../../store/job-store.ts'

const props = defineProps<{ device: Device; model: DeviceModel; name: string }>()
const job = useJob()
const none = (title: string) => [{ title, value: null }]
const openings = computed(() => [
  ...none('none, or not said'),
  ...recordsOf(job.doc, 'opening').map((opening) => ({ title: opening.name, value: opening.id })),
])
const repeaters = computed(() => [
  ...none('heard by the receiver itself'),
  ...(job.system?.devices ?? [])
    .filter(({ model, device }) => model.class === 'repeater' && device.id !== props.device.id)
    .map(({ model, device }) => ({ title: `${model.name} ${device.room}`.trim(), value: device.id })),
])
const settings = computed(() => [
  ...none('not said'),
  ...(props.model.petSettings?.map((item) => item.setting) ?? props.model.sensitivity ?? []).map((text) => ({
    title: text,
    value: text,
  })),
])
const stores = computed(() => [
  { title: `by house rule: the ${job.rules.schools.fobStore}`, value: null },
  { title: 'the panel', value: 'panel' },
  { title: 'the keypad', value: 'keypad' },
])
const place = computed(() => job.places.get(props.device.id) ?? null)
const sights = computed(() => recordsOf(job.doc, 'sight').filter((sight) => sight.device === props.device.id))
const leaves = computed(() => {
  const room = place.value?.room
  if (!job.system || !room) return []
  return leavesFrom(houseOf(job.doc, job.system, job.rules.figures), room, sights.value)
})
type Leaf = (typeof leaves.value)[number]

/** A tick says that the motion sees this leaf, and that an inner door between them stands open. The first says that it sees no other. */
function turn(leaf: Leaf, on: boolean): void {
  const { door } = leaf
  const others = leaves.value.filter((other) => other !== leaf && other.said)
  const isShared = (room: string | null) => others.some((other) => other.door.room === room)
  const before = sights.value.filter(
    (sight) =>
      sight.opening === door.id || (leaf.inner !== null && sight.room === door.room && !isShared(sight.room)),
  )
  const ops = [
    ...before.map((record): Op => ({ op: 'remove', record })),
    ...sightsWith(leaf, on).map((sight): Op => ({
      op: 'add',
      record: { id: `sight:${uuid()}`, type: 'sight', device: props.device.id, ...sight },
    })),
  ]
  if (ops.length > 0) job.edit('sight.set', ops)
}

/** Sees nothing but its own room: the fact that it sees no leaf. */
function seesRoomOnly(): void {
  const room = place.value?.room
  if (!room) return
  const record = {
    id: `sight:${uuid()}`,
    type: 'sight',
    device: props.device.id,
    opening: null,
    room: room.id,
  } as const
  job.edit('sight.set', [
    ...sights.value.map((sight): Op => ({ op: 'remove', record: sight })),
    { op: 'add', record },
  ])
}
</script>

<template>
  <dl class="facts">
    <div v-if="(model.class === 'contact' || model.class === 'shock') && openings.length > 1">
      <dt>Opening it guards</dt>
      <dd>
        <CellChoice
          :id="device.id"
          field="opening"
          kind="device.set"
          :label="`Opening that ${name} guards`"
          :items="openings"
        />
        <span v-if="device.opening === null && place?.opening" class="quiet small"
          >taken to be: {{ place.opening.name }}</span
        >
      </dd>
    </div>
    <div v-if="model.class === 'motion' && leaves.length > 0">
      <dt>Sees the leaf of</dt>
      <dd class="ticks">
        <label v-for="leaf in leaves" :key="leaf.door.id"
          ><input
            type="checkbox"
            :checked="leaf.said && leaf.behind === null"
            @change="turn(leaf, ($event.target as HTMLInputElement).checked)"
          />
          {{ leaf.door.name
          }}<span v-if="leaf.inner" class="quiet small">
            – only if the {{ leaf.inner.name }} stands open while the system is set (a motion sees neither
            through glass nor through a closed door)</span
          ></label
        >
        <v-btn
          v-if="sights.length === 0 && place?.room"
          size="x-small"
          variant="tonal"
          class="text-none"
          @click="seesRoomOnly"
          >sees none of them</v-btn
        >
      </dd>
    </div>
    <div v-if="model.class === 'contact'">
      <dt>Gap of the magnet</dt>
      <dd>
        <CellText
          :id="device.id"
          field="gapMm"
          kind="device.set"
          :label="`Magnet gap of ${name}, mm`"
          number
          :size="4"
          placeholder="mm"
        />
        <span class="quiet small"
          >of {{ model.magnetGapMm ?? '?' }} mm
          <label
            ><CellFlag :id="device.id" field="onSteel" kind="device.set" :label="`${name} sits on steel`" />
            on steel</label
          ></span
        >
      </dd>
    </div>
    <div v-if="model.class === 'motion'">
      <dt>Height</dt>
      <dd>
        <CellText
          :id="device.id"
          field="heightM"
          kind="device.set"
          :label="`Height of ${name}, m`"
          number
          :size="4"
          placeholder="m"
        />
      </dd>
    </div>
    <div v-if="settings.length > 1">
      <dt>{{ model.petSettings ? 'Pet setting' : 'Sensitivity' }}</dt>
      <dd>
        <CellChoice
          :id="device.id"
          field="setting"
          kind="device.set"
          :label="`Setting of ${name}`"
          :items="settings"
        />
      </dd>
    </div>
    <div v-if="model.family !== null && repeaters.length > 1">
      <dt>Reached through</dt>
      <dd>
        <CellChoice
          :id="device.id"
          field="via"
          kind="device.set"
          :label="`Repeater that reaches ${name}`"
          :items="repeaters"
        />
      </dd>
    </div>
    <div v-if="model.slot === 'fob' && (job.system?.panel?.couplings?.fobsInKeypad || device.storedIn)">
      <dt>Stored in</dt>
      <dd>
        <CellChoice
          :id="device.id"
          field="storedIn"
          kind="device.set"
          :label="`Where ${name} is stored`"
          :items="stores"
        />
      </dd>
    </div>
    <div v-if="model.class === 'keypad'">
      <dt>Own terminal over number</dt>
      <dd>
        <CellText
          :id="device.id"
          field="mappedOver"
          kind="device.set"
          :label="`Number that the terminal of ${name} is mapped over`"
          number
          :size="4"
          placeholder="none"
        />
      </dd>
    </div>
    <div v-if="place?.why" class="why quiet">{{ placeWords(place.why) }}</div>
  </dl>
</template>

<style scoped>
.ticks {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: center;
}
.why {
  align-self: end;
  max-width: 44ch;
  font-size: 0.8125rem;
}
.small {
  font-size: 0.8125rem;
}
</style>
