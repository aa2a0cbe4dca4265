<script setup lang="ts">
import { computed, ref } from 'vue'
import {
  contentsOf,
  entryWays,
  formatSeconds,
  houseOf,
  layHouse,
  type Floor,
  type RoomBox as Box,
} from '#core'
import { useJob } from '../../store/job-store.ts'
import DeviceChip from './DeviceChip.vue'
import RoomBox from './RoomBox.vue'

/* The house as boxes: rooms by floors, beside those that a way joins them with, with all that stands in them. */

const job = useJob()
const emit = defineEmits<{ room: [id: string] }>()
const house = computed(() => (job.system ? houseOf(job.doc, job.system, job.rules.figures) : null))
const layout = computed(() => layHouse(house.value ?? { rooms: [], ways: [] }))
const contents = computed(() =>
  house.value && job.system ? contentsOf(house.value, job.system.devices, job.places) : null,
)
/** The quickest way from each door to a keypad. */
const ways = computed(() =>
  house.value && job.system
    ? entryWays(house.value, job.system, job.rules.figures).filter((way) => way.nearest)
    : [],
)
/** The door that is pointed at, or that the focus is on. */
const door = ref<string | null>(null)
const shownWay = computed(() => ways.value.find((way) => way.door.id === door.value) ?? null)
const lit = computed(() => new Set(shownWay.value?.walk.rooms.map((room) => room.id) ?? []))
const told = computed(() => {
  const way = shownWay.value
  if (!way)
    return ways.value.length > 0
      ? 'Point at a door that people come in by: the rooms on the way to its keypad light up.'
      : ''
  const rooms = way.walk.rooms.map((room) => room.name).join(', ')
  return `By the ${way.name}: ${rooms}. ${formatSeconds(way.seconds)} to the keypad, code and margin counted; it takes entry delay ${way.delay}.`
})
const elsewhere = computed(() => {
  const [carried, unplaced] = partition(contents.value?.elsewhere ?? [], ({ model }) => model.class === 'fob')
  return (
    [
      ['Carried:', carried],
      ['In no described room:', unplaced],
    ] as const
  ).filter(([, items]) => items.length > 0)
})
const several = computed(() => layout.value.floors.length > 1)

function partition<T>(items: readonly T[], is: (item: T) => boolean): [T[], T[]] {
  return [items.filter(is), items.filter((item) => !is(item))]
}

/** A floor without a name is told by what leads there. */
function titleOf(floor: Floor): string {
  if (floor.name !== '') return floor.name
  const names = floor.boxes.map(({ room }) => room.name)
  return names.length <= 3 ? names.join(', ') : 'Floor not said'
}

const cell = ({ x, y, width }: Box) => ({
  gridColumn: `${2 * x + 1} / span ${2 * width - 1}`,
  gridRow: String(2 * y + 1),
})
const gateCell = ({ x, y, across }: Floor['gates'][number]) => ({
  gridColumn: String(2 * x + (across ? 2 : 1)),
  gridRow: String(2 * y + (across ? 1 : 2)),
})
/** Ways by gates are lines in the picture; in words they stand in both rooms. */
function gatesOf(floor: Floor, id: string) {
  return floor.gates.flatMap(({ way }) => {
    const other = way.from === id ? way.to : way.to === id ? way.from : null
    const to = floor.boxes.find(({ room }) => room.id === other)?.room
    return to ? [{ way, to }] : []
  })
}
</script>

<template>
  <div v-if="layout.floors.length > 0" class="picture" aria-label="The house" role="region">
    <section v-for="(floor, index) in layout.floors" :key="index" :aria-label="titleOf(floor)">
      <h3 v-if="several">{{ titleOf(floor) }}</h3>
      <div class="scroll">
        <ul
          class="grid"
          :style="{
            gridTemplateColumns: `repeat(${floor.columns - 1}, minmax(128px, 1fr) 34px) minmax(128px, 1fr)`,
          }"
        >
          <RoomBox
            v-for="box in floor.boxes"
            :key="box.room.id"
            :style="cell(box)"
            :room="box.room"
            :contents="contents?.rooms.get(box.room.id) ?? null"
            :gates="gatesOf(floor, box.room.id)"
            :links="layout.links.get(box.room.id) ?? []"
            :lit="lit.has(box.room.id)"
            @pick="emit('room', $event)"
            @point="door = $event"
          />
          <li
            v-for="gate in floor.gates"
            :key="gate.way.id"
            class="gate num"
            :class="{ across: gate.across, lit: lit.has(gate.way.from) && lit.has(gate.way.to) }"
            :style="gateCell(gate)"
            aria-hidden="true"
          >
            <span>{{ gate.way.metres }} m</span>
          </li>
        </ul>
      </div>
    </section>
    <p class="told quiet small no-print" role="status">{{ told }}</p>
    <div v-for="[title, items] in elsewhere" :key="title" class="elsewhere">
      <span class="quiet small">{{ title }}</span>
      <DeviceChip v-for="item in items" :key="item.device.id" :item="item" where />
    </div>
  </div>
</template>

<style scoped>
.picture {
  display: grid;
  gap: 6px;
  container-type: inline-size;
}
h3 {
  font-size: 0.875rem;
  margin: 2px 0 4px;
}
.scroll {
  overflow-x: auto;
  padding: 2px;
}
.grid {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  grid-auto-rows: auto;
  width: fit-content;
  min-width: min(100%, 560px);
}
.gate {
  display: grid;
  place-items: center;
  font-size: 0.6875rem;
  min-height: 20px;
  color: rgba(var(--v-theme-on-surface), 0.75);
  background: linear-gradient(currentcolor, currentcolor) center / 2px 100% no-repeat;
}
.gate.across {
  background-size: 100% 2px;
}
.gate span {
  background: rgb(var(--v-theme-surface));
  padding: 0 2px;
  white-space: nowrap;
}
.gate.lit {
  color: rgb(var(--v-theme-primary));
  font-weight: 700;
}
.elsewhere {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  align-items: center;
}
.told {
  min-height: 1.4em;
  margin: 0;
}
.small {
  font-size: 0.8125rem;
}
/* No room for a picture: the rooms in their order, their ways in words. */
@container (max-width: 620px) {
  .grid {
    display: grid;
    grid-template-columns: minmax(0, 1fr) !important;
    gap: 6px;
    width: 100%;
    min-width: 0;
  }
  .grid > :deep(*) {
    grid-column: 1 !important;
    grid-row: auto !important;
  }
  .gate {
    display: none;
  }
}
</style>
