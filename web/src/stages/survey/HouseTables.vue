<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed } from 'vue'
import {
  entryWays,
  houseOf,
  openingUses,
  paceOf,
  recordsOf,
  removeOpeningOps,
  removeRoomOps,
  renameRoomOps,
  roomKinds,
  type Room,
} from '#core'
import CellChoice from '../../shared/CellChoice.vue'
import CellFlag from '../../shared/CellFlag.vue'
import CellText from '../../shared/CellText.vue'
import { useJob } from '../../job/job-store.ts'

const job = useJob()
const rooms = computed(() => recordsOf(job.doc, 'room'))
const ways = computed(() => recordsOf(job.doc, 'way'))
const openings = computed(() => recordsOf(job.doc, 'opening'))
const areas = computed(() => [
  { title: 'the first', value: null },
  ...recordsOf(job.doc, 'area').map((area) => ({ title: area.name, value: area.id })),
])
const kinds = roomKinds.map((kind) => ({ title: kind, value: kind }))
const useTitles = { everyday: 'every day', occasional: 'now and then', never: 'never' } as const
const useItems = openingUses.map((use) => ({ title: useTitles[use], value: use }))
const name = (id: string | null): string => rooms.value.find((room) => room.id === id)?.name ?? ''
const seconds = computed(() => {
  const { system } = job
  if (!system) return new Map<string, number>()
  const { figures } = job.rules
  const list = entryWays(houseOf(job.doc, system, figures), system, figures)
  return new Map(list.filter((way) => way.nearest).map((way) => [way.door.id, way.seconds]))
})
const pace = computed(() => (job.system ? paceOf(job.system.info, job.rules.figures) : 0))

/** A new name goes to the devices of the room as well, as one edit. */
function rename(room: Room, event: Event): void {
  const input = event.target as HTMLInputElement
  const to = input.value.trim()
  if (to === room.name) return
  const taken = rooms.value.some(
    (other) => other.id !== room.id && other.name.toLowerCase() === to.toLowerCase(),
  )
  if (to === '' || to.length > 60 || taken) {
    const message = taken ? `there is a room “${to}” already` : 'must have 1 to 60 characters'
    job.tell(`${room.name} keeps its name.`, [{ path: 'name', message }])
    input.value = room.name
    return
  }
  job.edit('room.rename', renameRoomOps(job.doc, room, to))
}
</script>

<template>
  <div class="tables">
    <div class="scroll">
      <table class="plain">
        <caption class="sr-only">
          Rooms
        </caption>
        <thead>
          <tr>
            <th>Room</th>
            <th>Kind</th>
            <th>Floor</th>
            <th title="Heated; unheated rooms are taken as −10 to 45 °C">Heated</th>
            <th>Sleeps</th>
            <th>Pet, kg</th>
            <th title="Inside a metal building">Metal</th>
            <th v-if="areas.length > 2">Area</th>
            <th><span class="sr-only">Remove</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="room in rooms" :key="room.id">
            <td>
              <input
                class="name"
                :value="room.name"
                :aria-label="`Name of ${room.name}`"
                size="14"
                @change="rename(room, $event)"
              />
            </td>
            <td>
              <CellChoice
                :id="room.id"
                field="kind"
                kind="room.set"
                :label="`Kind of ${room.name}`"
                :items="kinds"
              />
            </td>
            <td>
              <CellText
                :id="room.id"
                field="floor"
                kind="room.set"
                :label="`Floor of ${room.name}`"
                :size="8"
                placeholder="floor"
              />
            </td>
            <td>
              <CellFlag :id="room.id" field="heated" kind="room.set" :label="`${room.name} is heated`" />
            </td>
            <td>
              <CellFlag
                :id="room.id"
                field="sleeps"
                kind="room.set"
                :label="`People sleep in ${room.name}`"
              />
            </td>
            <td>
              <CellText
                :id="room.id"
                field="petKg"
                kind="room.set"
                :label="`Pet in ${room.name}, kg`"
                number
                :size="4"
                placeholder="none"
              />
            </td>
            <td>
              <CellFlag :id="room.id" field="metal" kind="room.set" :label="`${room.name} is of metal`" />
            </td>
            <td v-if="areas.length > 2">
              <CellChoice
                :id="room.id"
                field="area"
                kind="room.set"
                :label="`Area of ${room.name}`"
                :items="areas"
              />
            </td>
            <td>
              <v-btn
                :icon="mdiClose"
                size="x-small"
                variant="text"
                :aria-label="`Remove the room ${room.name} with its ways and openings`"
                @click="job.edit('room.remove', removeRoomOps(job.doc, room))"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <div class="scroll">
      <table class="plain">
        <caption class="sr-only">
          Openings
        </caption>
        <thead>
          <tr>
            <th>Opening</th>
            <th>Where</th>
            <th>People come in</th>
            <th title="Also while the house is in stay">In stay</th>
            <th class="num" title="Walk to the nearest keypad, code and margin">To keypad</th>
            <th><span class="sr-only">Remove</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="opening in openings" :key="opening.id">
            <td>
              <CellText
                :id="opening.id"
                field="name"
                kind="opening.set"
                :label="`Name of ${opening.name}`"
                :size="14"
              />
            </td>
            <td>{{ name(opening.room) }}{{ opening.to ? ` – ${name(opening.to)}` : '' }}</td>
            <td>
              <CellChoice
                v-if="opening.to === null"
                :id="opening.id"
                field="use"
                kind="opening.set"
                :label="`How often people come in by ${opening.name}`"
                :items="useItems"
              />
              <span v-else class="quiet">inner door</span>
            </td>
            <td>
              <CellFlag
                v-if="opening.to === null && opening.use !== 'never'"
                :id="opening.id"
                field="inStay"
                kind="opening.set"
                :label="`${opening.name} is still used in stay`"
              />
            </td>
            <td class="num">
              {{
                seconds.has(opening.id)
                  ? `${seconds.get(opening.id)} s`
                  : opening.to === null && opening.use !== 'never'
                    ? 'no way'
                    : ''
              }}
            </td>
            <td>
              <v-btn
                :icon="mdiClose"
                size="x-small"
                variant="text"
                :aria-label="`Remove the opening ${opening.name}`"
                @click="job.edit('opening.remove', removeOpeningOps(job.doc, opening))"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="ways.length > 0" class="scroll">
      <table class="plain">
        <caption class="sr-only">
          Ways
        </caption>
        <thead>
          <tr>
            <th>Way</th>
            <th class="num">Metres</th>
            <th>Stairs</th>
            <th class="num" :title="`At ${pace} m/s, the pace of the slowest person`">Walk</th>
            <th><span class="sr-only">Remove</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="way in ways" :key="way.id">
            <td>{{ name(way.from) }} – {{ name(way.to) }}</td>
            <td class="num">
              <CellText
                :id="way.id"
                field="metres"
                kind="way.set"
                :label="`Metres from ${name(way.from)} to ${name(way.to)}`"
                number
                :size="4"
              />
            </td>
            <td>
              <CellFlag
                :id="way.id"
                field="stairs"
                kind="way.set"
                :label="`Stairs from ${name(way.from)} to ${name(way.to)}`"
              />
            </td>
            <td class="num">
              {{ (way.metres / (way.stairs ? pace * job.rules.figures.stairs : pace)).toFixed(1) }} s
            </td>
            <td>
              <v-btn
                :icon="mdiClose"
                size="x-small"
                variant="text"
                :aria-label="`Remove the way from ${name(way.from)} to ${name(way.to)}`"
                @click="job.edit('way.remove', [{ op: 'remove', record: way }])"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.tables {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 10px 24px;
  margin-top: 16px;
  align-items: start;
}
.scroll {
  overflow-x: auto;
}
.scroll:first-child {
  grid-column: 1 / -1;
}
.name {
  font: inherit;
  font-weight: 600;
  color: inherit;
  background: transparent;
  border: 1px solid transparent;
  border-radius: 5px;
  padding: 3px 6px;
}
.name:hover {
  border-color: rgba(var(--v-theme-on-surface), 0.25);
}
@media (max-width: 1100px) {
  .tables {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
