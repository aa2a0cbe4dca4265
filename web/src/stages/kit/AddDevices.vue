<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, reactive, ref } from 'vue'
import { blankDevice, nextOrder, recordProblems, type Device, type Op, type Use } from '#core'
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

const region = computed(() => job.system?.info.region)
const items = computed(() =>
  job.catalogue.all('device').map((model) => ({
    title: model.name,
    value: model.id,
    subtitle: [
      model.maker,
      job.catalogue.get('family', model.family)?.name ?? 'wired',
      region.value !== 'own' && !model.regions.includes(region.value as 'europe') ? 'other region' : '',
    ]
      .filter(Boolean)
      .join(' · '),
  })),
)
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
      class="wide"
    />
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
  flex: 1 1 150px;
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
