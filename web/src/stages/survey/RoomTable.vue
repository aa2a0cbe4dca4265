<script setup lang="ts">
import { computed, ref } from 'vue'
import { recordsOf, removeRoomOps, renameRoomOps, roomKinds, type Room } from '#core'
import CellChoice from '../../shared/CellChoice.vue'
import CellFlag from '../../shared/CellFlag.vue'
import CellText from '../../shared/CellText.vue'
import RemoveButton from '../../shared/RemoveButton.vue'
import { useJob } from '../../store/job-store.ts'
import { vStack } from '../../shared/stack.ts'

const job = useJob()
const rooms = computed(() => recordsOf(job.doc, 'room'))
const areas = computed(() => [
  { title: 'the first', value: null },
  ...recordsOf(job.doc, 'area').map((area) => ({ title: area.name, value: area.id })),
])
const kinds = roomKinds.map((kind) => ({ title: kind, value: kind }))

/** The name that was typed and refused, with why: it stands there until it is mended. */
const refused = ref<{ room: string; typed: string; why: string } | null>(null)

/** A new name goes to the devices of the room as well, as one edit. */
function rename(room: Room, event: Event): void {
  const to = (event.target as HTMLInputElement).value.trim()
  refused.value = null
  if (to === room.name) return
  const taken = rooms.value.some(
    (other) => other.id !== room.id && other.name.toLowerCase() === to.toLowerCase(),
  )
  if (to === '' || to.length > 60 || taken) {
    const why = taken ? `there is a room “${to}” already` : 'must have 1 to 60 characters'
    refused.value = { room: room.id, typed: to, why }
    return
  }
  job.edit('room.rename', renameRoomOps(job.doc, room, to))
}

function restore(room: Room, event: Event): void {
  refused.value = null
  ;(event.target as HTMLInputElement).value = room.name
}
</script>

<template>
  <table v-stack class="plain">
    <caption class="sr-only">
      Rooms
    </caption>
    <thead>
      <tr>
        <th>Room</th>
        <th>Kind</th>
        <th>Floor</th>
        <th title="Heated; unheated rooms are taken as −10 to 45 °C">Heated</th>
        <th title="How hot it gets, of a sauna, a boiler room, a loft">Hot, °C</th>
        <th>Sleeps</th>
        <th>Pet, kg</th>
        <th title="Inside a metal building">Metal</th>
        <th title="Fire compartment, by any name">Compartment</th>
        <th v-if="areas.length > 2">Area</th>
        <th><span class="sr-only">Remove</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="room in rooms" :id="room.id" :key="room.id">
        <td>
          <input
            class="name"
            :class="{ wrong: refused?.room === room.id }"
            :value="refused?.room === room.id ? refused.typed : room.name"
            :aria-label="`Name of ${room.name}`"
            :aria-invalid="refused?.room === room.id"
            size="14"
            @change="rename(room, $event)"
            @keydown.esc="restore(room, $event)"
          />
          <div v-if="refused?.room === room.id" class="fault" role="alert">{{ refused.why }}</div>
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
          <CellText
            :id="room.id"
            field="hottestC"
            kind="room.set"
            :label="`How hot ${room.name} gets, °C`"
            number
            :size="4"
            placeholder="no"
          />
        </td>
        <td>
          <CellFlag :id="room.id" field="sleeps" kind="room.set" :label="`People sleep in ${room.name}`" />
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
        <td>
          <CellText
            :id="room.id"
            field="compartment"
            kind="room.set"
            :label="`Fire compartment of ${room.name}`"
            :size="7"
            placeholder="–"
          />
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
          <RemoveButton
            :label="`Remove the room ${room.name} with its ways and openings`"
            @press="job.edit('room.remove', removeRoomOps(job.doc, room))"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.wrong {
  border-color: rgb(var(--v-theme-error)) !important;
}
.fault {
  color: rgb(var(--v-theme-error));
  font-size: 0.8125rem;
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
</style>
