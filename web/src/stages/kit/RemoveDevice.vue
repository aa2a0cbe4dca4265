<script setup lang="ts">
import { computed, ref } from 'vue'
import {
  deviceSerial,
  groupId,
  printNumber,
  recordsOf,
  removeDeviceOps,
  type Device,
  type DeviceModel,
} from '#core'
import { useJob } from '../../store/job-store.ts'

const props = defineProps<{ device: Device; model: DeviceModel; name: string }>()
const job = useJob()
const asking = ref(false)
const zones = computed(() => recordsOf(job.doc, 'zone').filter((zone) => zone.device === props.device.id))
/** The ID by which the panel still knows it; null where it was never learned. */
const known = computed(() => {
  const serial = deviceSerial(job.doc, props.device.id)
  return serial === null ? null : groupId(job.catalogue.get('family', props.model.family), serial)
})

/** What nothing hangs on goes at once: it can be undone. */
function begin(): void {
  if (zones.value.length === 0 && known.value === null) remove('go')
  else asking.value = true
}

function remove(then: 'go' | 'stay'): void {
  asking.value = false
  job.edit('device.remove', removeDeviceOps(job.doc, props.device, then))
}
</script>

<template>
  <v-btn size="small" variant="text" class="text-none" @click="begin"
    >Remove {{ name }}{{ zones.length > 0 ? '…' : '' }}</v-btn
  >
  <v-dialog v-model="asking" max-width="560">
    <v-card class="pa-6" :title="`Remove ${name}?`">
      <p v-if="known" class="mb-3">
        The panel still knows it by {{ known }}. Delete that ID there first: else it may be heard beside its
        successor.
      </p>
      <template v-if="zones.length > 0">
        <p>What becomes of {{ zones.length === 1 ? 'its zone' : 'its zones' }}?</p>
        <ul class="my-2 pl-5">
          <li v-for="zone in zones" :key="zone.id">
            {{ printNumber(job.system?.panel ?? null, zone.number) }} {{ zone.label || 'without a label' }}
          </li>
        </ul>
        <p class="quiet">
          An open zone keeps number, label, type and area for a successor; until it has one, it is a stop.
        </p>
      </template>
      <div class="acts mt-4">
        <v-btn variant="text" class="text-none" @click="asking = false">Cancel</v-btn>
        <v-btn v-if="zones.length > 0" variant="tonal" class="text-none" @click="remove('stay')">
          Keep {{ zones.length === 1 ? 'its zone' : 'its zones' }} open
        </v-btn>
        <v-btn color="primary" class="text-none" @click="remove('go')">
          {{
            zones.length === 0
              ? 'Remove it'
              : zones.length === 1
                ? 'Remove its zone, too'
                : 'Remove its zones, too'
          }}
        </v-btn>
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
