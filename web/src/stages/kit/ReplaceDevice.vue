<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import {
  deviceSerial,
  groupId,
  recordOf,
  replaceOps,
  successorsOf,
  type Device,
  type DeviceModel,
} from '#core'
import { useJob } from '../../store/job-store.ts'

/** A device that failed or was lost gives way to another: what is carried over, and what is to be done. */
const props = defineProps<{ device: Device; model: DeviceModel; name: string }>()
const job = useJob()
const open = ref(false)
const picked = ref<string | null>(null)
const item = computed(() => job.system?.byId.get(props.device.id) ?? null)
const offers = computed(() =>
  open.value && item.value ? successorsOf({ doc: job.doc, catalogue: job.catalogue }, item.value) : [],
)
const choice = computed(
  () => offers.value.find(({ model }) => model.id === picked.value) ?? offers.value[0] ?? null,
)
const known = computed(() => {
  const serial = deviceSerial(job.doc, props.device.id)
  return serial === null ? null : groupId(job.catalogue.get('family', props.model.family), serial)
})
const moved = computed(() => choice.value?.loops.filter(({ was, is }) => was !== is) ?? [])

function title({ model, fit }: NonNullable<typeof choice.value>): string {
  const same = model.id === props.model.id ? 'another of the same: ' : ''
  return `${same}${model.name}${fit.verdict === 'works' ? '' : ', cannot tell yet whether it works'}`
}

function replace(): void {
  const device = recordOf(job.doc, 'device', props.device.id)
  const model = choice.value?.model
  open.value = false
  if (!device || !model) return
  job.edit(
    'device.replace',
    replaceOps({ doc: job.doc, catalogue: job.catalogue }, device, { model, id: uuid() }),
  )
}
</script>

<template>
  <v-btn size="small" variant="text" @click="open = true">Replace {{ name }}…</v-btn>
  <v-dialog v-model="open" max-width="600">
    <v-card class="pa-6" :title="`Replace ${name}`">
      <template v-if="choice">
        <v-select
          :model-value="choice.model.id"
          label="What follows in its place"
          :items="offers.map((offer) => ({ value: offer.model.id, title: title(offer) }))"
          @update:model-value="picked = $event"
        />
        <p class="mt-3">
          Room, position, use, zones with number, label and type{{
            device.slot === null ? '' : ', slot and user'
          }}
          stay. Its ID, its measures and every proof do not: they are owed anew.
        </p>
        <ul v-if="moved.length > 0" class="ml-5">
          <li v-for="{ event, was, is } in moved" :key="event">
            {{ event }}: loop {{ was ?? 'none' }} before, loop {{ is ?? 'none' }} now
          </li>
        </ul>
        <p class="mt-3"><strong>Then, at the panel:</strong></p>
        <ol class="ml-5">
          <li v-if="known">
            delete {{ known }} there and note it at Enrol: until then nothing is learned in its place;
          </li>
          <li>take the battery out of the old one: heard again, it is named;</li>
          <li>learn the new one at Enrol, then prove it at its place.</li>
        </ol>
      </template>
      <p v-else>
        Nothing of the catalogue stands in its place and is heard by this panel. Make it fit on Kit, or add
        another device.
      </p>
      <div class="acts mt-4">
        <v-btn variant="text" @click="open = false">Cancel</v-btn>
        <v-btn v-if="choice" color="primary" @click="replace">Replace it</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 8px;
}
</style>
