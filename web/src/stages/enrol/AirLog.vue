<script setup lang="ts">
import { computed } from 'vue'
import { deviceSerial, groupId, levelWords, targetOf, type Target, type Transmission } from '#core'
import { useJob } from '../../store/job-store.ts'

const props = defineProps<{ heard: readonly Transmission[]; targets: readonly Target[] }>()
const emit = defineEmits<{ show: [heard: Transmission]; choose: [id: string] }>()
const job = useJob()
const causes = {
  event: 'event',
  tamper: 'tamper',
  button: 'button',
  'power-up': 'power-up',
  'check-in': 'check-in',
} as const

const rows = computed(() =>
  props.heard.slice(0, 12).map((heard) => {
    const family = job.catalogue.get('family', heard.family)
    const device = (job.system?.devices ?? []).find(
      ({ device: one }) => one.sticker === heard.serial || deviceSerial(job.doc, one.id) === heard.serial,
    )
    const open = targetOf(props.targets, heard)
    const whose = device
      ? `${device.model.name}${device.device.room ? `, ${device.device.room}` : ''}`
      : 'on no sticker of this job'
    return {
      heard,
      id: groupId(family, heard.serial),
      what: `${causes[heard.cause]}${heard.loop === null ? '' : `, loop ${heard.loop}`}`,
      level: `${family ? levelWords(family, heard.level) : heard.level}${heard.lowBattery ? ' · battery low' : ''}`,
      whose,
      foreign: !device,
      open,
    }
  }),
)

function pick(row: (typeof rows.value)[number]): void {
  if (row.open) emit('choose', row.open.id)
  emit('show', row.heard)
}
</script>

<template>
  <ol class="log" aria-live="polite" aria-label="Heard on the air, newest first">
    <li v-for="row in rows" :key="row.heard.id">
      <button type="button" class="row" :class="{ foreign: row.foreign }" @click="pick(row)">
        <span class="id">{{ row.id }}</span>
        <span class="whose">{{ row.whose }}</span>
        <span class="quiet what">{{ row.what }} · {{ row.level }}</span>
        <strong v-if="row.open" class="to">{{ row.open.name }}</strong>
      </button>
    </li>
  </ol>
</template>

<style scoped>
.log {
  list-style: none;
  padding: 0;
  margin: 0;
}
.row {
  font: inherit;
  color: inherit;
  background: transparent;
  border: 0;
  border-bottom: 1px solid rgba(var(--v-theme-on-surface), 0.08);
  width: 100%;
  min-height: 44px;
  display: grid;
  grid-template-columns: 112px 1fr auto auto;
  gap: 12px;
  align-items: center;
  padding: 6px 8px;
  text-align: left;
  cursor: pointer;
}
.row:hover {
  background: rgba(var(--v-theme-primary), 0.06);
}
.foreign .whose {
  font-style: italic;
}
.what,
.to {
  font-size: 0.8125rem;
}
@media (max-width: 600px) {
  .row {
    grid-template-columns: 108px 1fr;
    gap: 2px 10px;
  }
}
</style>
