<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import { blankArea, recordProblems, recordsOf, type Area, type Op } from '#core'
import CellText from '../../shared/CellText.vue'
import { useJob } from '../../job/job-store.ts'

const job = useJob()
const name = ref('')
const fault = ref('')
const areas = computed(() => recordsOf(job.doc, 'area'))
const most = computed(() => job.system?.panel?.areas.count ?? 1)
/** Delays of an area's own, where the panel keeps them per area; empty: those of the job. */
const perArea = computed(() => job.system?.panel?.couplings?.delaysPerArea === true)
const delays = [
  ['entry1', 'Entry 1'],
  ['entry2', 'Entry 2'],
  ['exit', 'Exit'],
] as const
const zonesIn = (area: Area): number =>
  recordsOf(job.doc, 'zone').filter((zone) => zone.area === area.id || zone.area2 === area.id).length

function add(): void {
  const number = areas.value.reduce((highest, area) => Math.max(highest, area.number), 0) + 1
  const record: Area = { ...blankArea, id: `area:${uuid()}`, number, name: name.value.trim(), order: number }
  const problems = recordProblems(record)
  fault.value = problems.map((problem) => `${problem.path.replace(/^\./, '')} ${problem.message}`).join('; ')
  if (problems.length > 0) return
  job.edit('area.add', [{ op: 'add', record }])
  name.value = ''
}

/** What was in it goes to the first of the others; rooms forget it. */
function remove(area: Area): void {
  const to = areas.value.find((other) => other.id !== area.id)?.id ?? null
  const set = (id: string, field: string, value: string | null): Op => ({
    op: 'set',
    id,
    field,
    from: area.id,
    to: value,
  })
  const ops = [
    ...recordsOf(job.doc, 'zone').flatMap((zone) => [
      ...(zone.area === area.id ? [set(zone.id, 'area', zone.area2 ?? to)] : []),
      ...(zone.area2 === area.id ? [set(zone.id, 'area2', null)] : []),
      ...(zone.area === area.id && zone.area2 !== null && zone.area2 !== area.id
        ? [{ ...set(zone.id, 'area2', null), from: zone.area2 }]
        : []),
    ]),
    ...recordsOf(job.doc, 'room').flatMap((room) =>
      room.area === area.id ? [set(room.id, 'area', null)] : [],
    ),
  ]
  job.edit('area.remove', [...ops, { op: 'remove', record: area }])
}
</script>

<template>
  <section class="sheet pa-4 areas">
    <h2>Areas</h2>
    <p class="quiet">{{ job.system?.panel?.areas.meaning }} A keypad unsets only its own areas.</p>
    <table class="plain mt-1">
      <thead>
        <tr>
          <th class="num">No.</th>
          <th>Name</th>
          <th class="num">Zones</th>
          <template v-if="perArea">
            <th v-for="[, title] in delays" :key="title">{{ title }}, s</th>
          </template>
          <th><span class="sr-only">Remove</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="area in areas" :key="area.id">
          <td class="num">{{ area.number }}</td>
          <td>
            <CellText
              :id="area.id"
              field="name"
              kind="area.set"
              :label="`Name of area ${area.number}`"
              :size="22"
            />
          </td>
          <td class="num">{{ zonesIn(area) }}</td>
          <template v-if="perArea">
            <td v-for="[field, title] in delays" :key="field">
              <CellText
                :id="area.id"
                :field="field"
                kind="area.set"
                :label="`${title} of ${area.name}, s`"
                number
                :size="5"
                placeholder="as the job"
              />
            </td>
          </template>
          <td>
            <v-btn
              v-if="areas.length > 1"
              :icon="mdiClose"
              size="x-small"
              variant="text"
              :aria-label="`Remove area ${area.name}; its zones go to another`"
              @click="remove(area)"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <form v-if="areas.length < most" class="add" @submit.prevent="add">
      <v-text-field v-model="name" label="New area" :error-messages="fault" />
      <v-btn type="submit" variant="tonal" class="text-none">Add area</v-btn>
    </form>
    <p v-else class="quiet small">This panel has {{ most }} {{ most === 1 ? 'area' : 'areas' }}.</p>
  </section>
</template>

<style scoped>
.areas {
  margin-top: 14px;
}
.add {
  display: flex;
  gap: 10px;
  align-items: start;
  max-width: 420px;
  margin-top: 10px;
}
.small {
  font-size: 0.8125rem;
}
</style>
