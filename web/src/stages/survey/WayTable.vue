<script setup lang="ts">
import { computed } from 'vue'
import { paceOf, recordsOf } from '#core'
import CellFlag from '../../shared/CellFlag.vue'
import CellText from '../../shared/CellText.vue'
import RemoveButton from '../../shared/RemoveButton.vue'
import { useJob } from '../../store/job-store.ts'
import { vStack } from '../../shared/stack.ts'

const job = useJob()
const ways = computed(() => recordsOf(job.doc, 'way'))
const rooms = computed(() => new Map(recordsOf(job.doc, 'room').map((room) => [room.id, room.name])))
const name = (id: string): string => rooms.value.get(id) ?? ''
const pace = computed(() => (job.system ? paceOf(job.system.info, job.rules.figures) : 0))
</script>

<template>
  <table v-stack class="plain">
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
          <RemoveButton
            :label="`Remove the way from ${name(way.from)} to ${name(way.to)}`"
            @press="job.edit('way.remove', [{ op: 'remove', record: way }])"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>
