<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, reactive, ref } from 'vue'
import {
  blankDevice,
  nextOrder,
  offerDevices,
  reasonWords,
  recordProblems,
  type Device,
  type Op,
  type Use,
} from '#core'
import { verdictLook } from '../../shared/severity.ts'
import HiddenByRegion from '../../shared/HiddenByRegion.vue'
import { useJob } from '../../store/job-store.ts'
import { usesOf } from './words.ts'

const job = useJob()
const faults = ref<Record<string, string>>({})
const form = reactive({
  model: null as string | null,
  quantity: '1',
  room: '',
  position: '',
  use: 'none' as Use,
  deferred: '',
})
const later = ref(false)

/** Judged when the list is opened: it is every model of the catalogue. */
const listed = ref(false)
/** A device that this job has may be retired since: another one of it is not offered. */
const isOffered = (id: string): boolean => job.offered.has(id)
const offers = computed(() =>
  listed.value && job.system
    ? offerDevices(job.system, job.catalogue).filter(({ model }) => isOffered(model.id))
    : [],
)
const everywhere = ref(false)
const hidden = computed(() => offers.value.filter(({ here }) => !here).length)
const order = { works: 0, loss: 1, unknown: 2, no: 3 } as const
/** What fits stands first; what was made for another region is left out until it is asked for. */
const items = computed(() => {
  if (offers.value.length === 0)
    return job.catalogue
      .all('device')
      .filter(({ id }) => isOffered(id))
      .map((model) => ({ title: model.name, value: model.id }))
  return offers.value
    .filter(({ here, model }) => here || everywhere.value || model.id === form.model)
    .sort((a, b) => order[a.fit.verdict] - order[b.fit.verdict])
    .map(({ model, fit, here }) => ({
      title: model.name,
      value: model.id,
      subtitle: [
        `${verdictLook[fit.verdict].glyph} ${verdictLook[fit.verdict].word}`,
        ...fit.reasons.slice(0, 1).map(reasonWords),
        model.maker,
        job.catalogue.get('family', model.family)?.name ?? 'wired',
        ...(here ? [] : ['made for another region']),
      ].join(' · '),
    }))
})
/** The chosen one, said where it was chosen before it is added. */
const chosen = computed(() => offers.value.find(({ model }) => model.id === form.model) ?? null)
const chosenFit = computed(() => {
  if (!chosen.value) return ''
  const { fit } = chosen.value
  const { glyph, word } = verdictLook[fit.verdict]
  return [`${glyph} ${word}.`, ...fit.reasons.map(reasonWords)].join(' ')
})
const uses = computed(() => usesOf(job.catalogue.get('device', form.model)?.class ?? 'siren'))

function add(): void {
  faults.value = {}
  const quantity = Number(form.quantity)
  if (!form.model) faults.value.model = 'choose a device from the catalogue'
  if (!Number.isInteger(quantity) || quantity < 1 || quantity > 50)
    faults.value.quantity = 'a whole number from 1 to 50'
  if (later.value && form.deferred.trim() === '') faults.value.deferred = 'say why its place is still open'
  if (!form.model || Object.keys(faults.value).length > 0) return
  const start = nextOrder(job.doc, 'device')
  const records = Array.from({ length: quantity }, (_, index) => record(form.model as string, start + index))
  const problems = recordProblems(records[0])
  for (const problem of problems) faults.value[problem.path.replace(/^\./, '')] = problem.message
  if (problems.length > 0) return
  const ops: Op[] = [...job.pins([form.model]), ...records.map((item): Op => ({ op: 'add', record: item }))]
  job.edit('device.add', ops)
  Object.assign(form, { quantity: '1', position: '', deferred: '' })
}

function record(model: string, order: number): Device {
  return {
    ...blankDevice,
    id: `device:${uuid()}`,
    model,
    room: form.room.trim(),
    position: form.position.trim(),
    deferred: later.value ? form.deferred.trim() : null,
    use: uses.value.some((item) => item.value === form.use) ? form.use : 'none',
    order,
  }
}
</script>

<template>
  <form class="adding sheet no-print" @submit.prevent="add">
    <v-autocomplete
      v-model="form.model"
      label="Device from the catalogue"
      :items="items"
      item-props
      :error-messages="faults.model"
      :hint="chosenFit"
      persistent-hint
      :menu-props="{ maxWidth: 620, transition: false }"
      class="wide"
      @update:menu="listed = listed || $event"
    >
      <template #menu-footer
        ><HiddenByRegion v-model="everywhere" :count="hidden" what="device" what-all="devices"
      /></template>
      <template #no-data>
        <p class="pa-4 quiet">
          The catalogue has nothing like it.
          <RouterLink to="/catalogue">Describe it from its leaflet</RouterLink>
        </p>
      </template>
    </v-autocomplete>
    <v-text-field
      v-model="form.quantity"
      label="Quantity"
      inputmode="numeric"
      :error-messages="faults.quantity"
      class="narrow"
    />
    <v-text-field v-model="form.room" label="Room" :error-messages="faults.room" />
    <v-text-field
      v-if="!later"
      v-model="form.position"
      label="Position"
      placeholder="back door, window left"
      :error-messages="faults.position"
    />
    <v-text-field
      v-else
      v-model="form.deferred"
      label="Why its place is open"
      :error-messages="faults.deferred"
    />
    <v-select v-if="uses.length > 1" v-model="form.use" label="Use" :items="[...uses]" />
    <v-checkbox v-model="later" label="Place still open" />
    <v-btn type="submit" color="primary">Add to the kit</v-btn>
  </form>
</template>

<style scoped>
.adding {
  padding: 10px 14px;
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: flex-start;
  margin-bottom: 10px;
}
.adding > * {
  flex: 1 1 120px;
}
.adding > .wide {
  flex: 2 1 220px;
}
.adding > .narrow {
  flex: 0 1 96px;
}
.adding > .v-btn,
.adding > .v-checkbox {
  flex: 0 0 auto;
}
</style>
