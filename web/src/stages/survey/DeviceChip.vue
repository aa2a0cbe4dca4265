<script setup lang="ts">
import {
  mdiMoleculeCo,
  mdiBellRingOutline,
  mdiDialpad,
  mdiDoorOpen,
  mdiFire,
  mdiGlassFragile,
  mdiHandBackRightOutline,
  mdiKeyVariant,
  mdiMotionSensor,
  mdiRepeat,
  mdiSmokeDetectorOutline,
  mdiThermometer,
  mdiVibrate,
  mdiWater,
} from '@mdi/js'
import { computed } from 'vue'
import { printNumber, recordOf, recordsOf, type DeviceClass, type SystemDevice } from '#core'
import { placeOf } from '../../job/useShow.ts'
import { severityLook } from '../../shared/severity.ts'
import { useJob } from '../../store/job-store.ts'

const props = defineProps<{
  item: SystemDevice
  /** Whether it is told where it is: who carries it, its room, or its place in the room that it stands in. */
  where?: boolean
  place?: boolean
}>()
const job = useJob()
const icons: Readonly<Record<DeviceClass, string>> = {
  contact: mdiDoorOpen,
  motion: mdiMotionSensor,
  'glass-break': mdiGlassFragile,
  shock: mdiVibrate,
  smoke: mdiSmokeDetectorOutline,
  heat: mdiFire,
  gas: mdiMoleculeCo,
  flood: mdiWater,
  temperature: mdiThermometer,
  panic: mdiHandBackRightOutline,
  fob: mdiKeyVariant,
  keypad: mdiDialpad,
  siren: mdiBellRingOutline,
  repeater: mdiRepeat,
}
const zones = computed(() =>
  recordsOf(job.doc, 'zone').filter((zone) => zone.device === props.item.device.id),
)
const numbers = computed(() =>
  zones.value.map((zone) => printNumber(job.system?.panel ?? null, zone.number)).join(', '),
)
/** The gravest that is found about the device or a zone of it. */
const worst = computed(() => {
  const mine = new Set([props.item.device.id, ...zones.value.map((zone) => zone.id)])
  return job.findings.find(({ subject, waived }) => mine.has(subject) && waived === null) ?? null
})
const told = computed(() => {
  const { device } = props.item
  if (props.place) return device.position
  return props.where ? (recordOf(job.doc, 'user', device.user)?.name ?? device.room) : ''
})
const goes = computed(() => placeOf(zones.value[0]?.id ?? props.item.device.id, null, 'kit'))
const words = computed(() => {
  const { device, model } = props.item
  const place = [device.room, device.position].filter(Boolean).join(', ')
  return [
    numbers.value === '' ? '' : `${zones.value.length === 1 ? 'zone' : 'zones'} ${numbers.value}`,
    model.name,
    place,
    worst.value ? `${severityLook[worst.value.severity].word}: ${worst.value.text}` : '',
  ]
    .filter(Boolean)
    .join(', ')
})
</script>

<template>
  <router-link
    v-if="goes"
    :to="goes"
    class="chip"
    :class="worst?.severity"
    :aria-label="words"
    :title="words"
  >
    <v-icon :icon="icons[item.model.class]" size="15" />
    <span v-if="numbers" class="num">{{ numbers }}</span>
    <span v-else>{{ item.model.class }}</span>
    <span v-if="told" class="told">{{ told }}</span>
    <span
      v-if="worst"
      class="glyph"
      :style="{ color: `rgb(var(--v-theme-${severityLook[worst.severity].color}))` }"
      >{{ severityLook[worst.severity].glyph }}</span
    >
  </router-link>
</template>

<style scoped>
.chip {
  display: inline-flex;
  align-items: center;
  gap: 4px;
  min-height: 24px;
  padding: 0 6px;
  border-radius: 12px;
  border: 1px solid rgba(var(--v-theme-on-surface), 0.28);
  background: rgb(var(--v-theme-surface));
  color: inherit;
  text-decoration: none;
  font-size: 0.75rem;
  white-space: nowrap;
}
.chip:hover {
  background: rgba(var(--v-theme-primary), 0.12);
}
.told {
  max-width: 16ch;
  overflow: hidden;
  text-overflow: ellipsis;
}
.glyph {
  font-weight: 700;
}
</style>
