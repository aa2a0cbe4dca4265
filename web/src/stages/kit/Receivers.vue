<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed } from 'vue'
import { nextOrder, receiverLoad, recordOf } from '#core'
import CellFlag from '../../shared/CellFlag.vue'
import { useJob } from '../../store/job-store.ts'

const job = useJob()
const loads = computed(() => (job.system ? receiverLoad(job.system) : []))
const offered = computed(() => {
  const panel = job.system?.panel
  return (panel?.receivers ?? [])
    .filter((id) => id !== panel?.builtIn)
    .flatMap((id) => job.catalogue.get('receiver', id) ?? [])
})

function add(model: string): void {
  job.edit('receiver.add', [
    ...job.pins([model]),
    {
      op: 'add',
      record: {
        id: `receiver:${uuid()}`,
        type: 'receiver',
        model,
        room: '',
        encryptedOnly: false,
        order: nextOrder(job.doc, 'receiver'),
      },
    },
  ])
}

function remove(id: string): void {
  const record = recordOf(job.doc, 'receiver', id)
  if (record) job.edit('receiver.remove', [{ op: 'remove', record }])
}
</script>

<template>
  <section class="receivers" aria-label="Receivers">
    <div v-for="{ receiver, used } in loads" :key="receiver.id" class="sheet receiver">
      <strong>{{ receiver.model.name }}</strong>
      <span class="quiet small"
        >{{ receiver.id === 'built-in' ? 'built in, ' : '' }}hears
        {{ receiver.families.map((family) => family.name).join(', ') }}</span
      >
      <v-progress-linear
        v-if="receiver.model.transmitters"
        :model-value="(100 * used) / receiver.model.transmitters"
        :color="used >= receiver.model.transmitters ? 'error' : 'primary'"
        height="8"
        rounded
        class="load"
        :aria-label="`${receiver.model.name}: ${used} of ${receiver.model.transmitters} transmitters`"
      />
      <span v-if="receiver.model.transmitters" class="small"
        >{{ used }} of {{ receiver.model.transmitters }} transmitters</span
      >
      <span v-else class="small"
        >{{ used === 1 ? '1 transmitter' : `${used} transmitters` }}; how many it holds is not stated</span
      >
      <label v-if="receiver.model.encryptedOnlySetting && receiver.id !== 'built-in'" class="small">
        <CellFlag
          :id="receiver.id"
          field="encryptedOnly"
          kind="receiver.set"
          label="Takes encrypted devices only"
        />
        encrypted devices only
      </label>
      <v-btn
        v-if="receiver.id !== 'built-in'"
        size="x-small"
        variant="text"
        class="text-none"
        :aria-label="`Remove ${receiver.model.name}`"
        @click="remove(receiver.id)"
        >Remove</v-btn
      >
    </div>
    <div v-if="job.system?.panel && loads.length === 0" class="sheet receiver">
      <strong>No receiver yet</strong>
      <div class="quiet small">{{ job.system.panel.name }} hears no radio without one.</div>
    </div>
    <v-menu v-if="offered.length > 0">
      <template #activator="{ props: menu }"
        ><v-btn v-bind="menu" variant="tonal" class="text-none no-print">Add a receiver</v-btn></template
      >
      <v-list>
        <v-list-item
          v-for="model in offered"
          :key="model.id"
          :title="model.name"
          :subtitle="`${model.transmitters === undefined ? 'transmitters not stated' : `${model.transmitters} transmitters`}, ${model.place}`"
          @click="add(model.id)"
        />
      </v-list>
    </v-menu>
  </section>
</template>

<style scoped>
.receivers {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-bottom: 10px;
}
.receiver {
  padding: 5px 14px;
  min-height: 36px;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 12px;
}
.load {
  width: 90px;
}
.small {
  font-size: 0.8125rem;
}
</style>
