<script setup lang="ts">
import type { Target } from '#core'
import { useJob } from '../../store/job-store.ts'

defineProps<{ targets: readonly Target[]; current: string | null }>()
const emit = defineEmits<{ choose: [id: string] }>()
const job = useJob()
const where = (target: Target): string =>
  target.zone?.label ||
  [job.system?.byId.get(target.device.id)?.model.name, target.device.room].filter(Boolean).join(', ')
const how = { heard: 'learned', typed: 'typed, not heard', sister: 'as its sister zone, not heard' } as const
function stateOf(target: Target): string {
  if (!target.done || target.how === null) return 'to enrol'
  return target.waits ? 'accepted, waiting to be sent' : how[target.how]
}
</script>

<template>
  <ul class="targets">
    <li v-for="target in targets" :key="target.id">
      <button
        type="button"
        class="target"
        :class="{ on: target.id === current, done: target.done }"
        :aria-current="target.id === current"
        @click="emit('choose', target.id)"
      >
        <span class="state" aria-hidden="true">{{
          target.done ? (target.waits ? '…' : target.how === 'heard' ? '✓' : '≈') : '○'
        }}</span>
        <span class="num">{{ target.name.replace('zone ', '') }}</span>
        <span class="what">{{ where(target) }}</span>
        <span class="sr-only">{{ stateOf(target) }}</span>
      </button>
    </li>
  </ul>
</template>

<style scoped>
.targets {
  list-style: none;
  padding: 0;
  margin: 0;
}
.target {
  font: inherit;
  color: inherit;
  background: transparent;
  border: 0;
  width: 100%;
  min-height: 40px;
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 4px 12px;
  border-radius: 8px;
  text-align: left;
  cursor: pointer;
}
.target:hover {
  background: rgba(var(--v-theme-primary), 0.08);
}
.on {
  background: rgb(var(--v-theme-primary)) !important;
  color: rgb(var(--v-theme-surface));
  font-weight: 650;
}
.done:not(.on) {
  color: rgba(var(--v-theme-on-surface), 0.72);
}
.what {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.num {
  flex: 0 0 auto;
  min-width: 24px;
}
.state {
  width: 16px;
  text-align: center;
}
</style>
