<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import { blankArea, recordProblems, recordsOf, removeAreaOps, type Area } from '#core'
import CellText from '../../shared/CellText.vue'
import RemoveButton from '../../shared/RemoveButton.vue'
import KeypadAreas from './KeypadAreas.vue'
import { useJob } from '../../store/job-store.ts'
import { vStack } from '../../shared/stack.ts'

const job = useJob()
const name = ref('')
const fault = ref('')
const areas = computed(() => recordsOf(job.doc, 'area'))
const most = computed(() => job.system?.panel?.areas.count ?? 1)
/** Delays of an area's own, where the panel keeps them per area; empty: those of the job. */
const perArea = computed(() => job.system?.panel?.couplings?.delaysPerArea === true)
const delays = computed(() =>
  (
    [
      ['entry1', 'Entry 1'],
      ['entry2', 'Entry 2'],
      ['exit', 'Exit'],
      ['exitStay', 'Exit of stay'],
    ] as const
  ).filter(([field]) => job.system?.panel?.delays[field] !== undefined),
)
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

/** What was in it goes to the first of the others; rooms and keypads forget it. */
function remove(area: Area): void {
  const to = areas.value.find((other) => other.id !== area.id)?.id ?? null
  job.edit('area.remove', removeAreaOps(job.doc, area, to))
}
</script>

<template>
  <section id="areas" class="sheet pa-4 areas">
    <h2>Areas</h2>
    <p class="quiet">{{ job.system?.panel?.areas.meaning }}</p>
    <table v-stack class="plain mt-1">
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
            <RemoveButton
              v-if="areas.length > 1"
              :label="`Remove area ${area.name}; its zones go to another`"
              @press="remove(area)"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <form v-if="areas.length < most" class="add" @submit.prevent="add">
      <v-text-field v-model="name" label="New area" :error-messages="fault" />
      <v-btn type="submit" variant="tonal" class="text-none">Add area</v-btn>
    </form>
    <KeypadAreas v-if="areas.length > 1" />
    <p v-if="areas.length >= most" class="quiet small">
      This panel has {{ most }} {{ most === 1 ? 'area' : 'areas' }}.
    </p>
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
