<script setup lang="ts">
import { computed } from 'vue'
import { entryWays, houseOf, openingUses, recordsOf, removeOpeningOps } from '#core'
import CellChoice from '../../shared/CellChoice.vue'
import CellFlag from '../../shared/CellFlag.vue'
import CellText from '../../shared/CellText.vue'
import RemoveButton from '../../shared/RemoveButton.vue'
import { useJob } from '../../store/job-store.ts'
import { vStack } from '../../shared/stack.ts'

const job = useJob()
const openings = computed(() => recordsOf(job.doc, 'opening'))
const rooms = computed(() => new Map(recordsOf(job.doc, 'room').map((room) => [room.id, room.name])))
const name = (id: string | null): string => rooms.value.get(id ?? '') ?? ''
const useTitles = { everyday: 'every day', occasional: 'now and then', never: 'never' } as const
const useItems = openingUses.map((use) => ({ title: useTitles[use], value: use }))
const seconds = computed(() => {
  const { system } = job
  if (!system) return new Map<string, number>()
  const { figures } = job.rules
  const list = entryWays(houseOf(job.doc, system, figures), system, figures)
  return new Map(list.filter((way) => way.nearest).map((way) => [way.door.id, way.seconds]))
})
</script>

<template>
  <table v-stack class="plain">
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
          <RemoveButton
            :label="`Remove the opening ${opening.name}`"
            @press="job.edit('opening.remove', removeOpeningOps(job.doc, opening))"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>
