<script setup lang="ts">
import { computed } from 'vue'
import { leftOutOf, toldOpen, type RoundBy, type Target } from '#core'
import { useJob } from '../../store/job-store.ts'

/** What is to be enrolled, in the order in which it is gone through. */
defineProps<{
  parts: readonly { readonly name: string; readonly targets: readonly Target[] }[]
  current: string | null
}>()
const by = defineModel<RoundBy>('by', { required: true })
const orders: readonly { readonly key: RoundBy; readonly title: string; readonly what: string }[] = [
  { key: 'room', title: 'Room', what: 'room by room, in the house' },
  { key: 'box', title: 'Box', what: 'box by box, on the bench' },
  { key: 'number', title: 'Number', what: 'by number' },
]
const leftOut = computed(() => leftOutOf({ doc: job.doc, catalogue: job.catalogue }))
const emit = defineEmits<{ choose: [id: string] }>()
const job = useJob()
const where = (target: Target): string =>
  target.zone?.label ||
  [job.system?.byId.get(target.device.id)?.model.name, target.device.room].filter(Boolean).join(', ')
const how = { heard: 'learned', typed: 'typed, not heard', sister: 'as its sister zone, not heard' } as const
const told = computed(() => toldOpen(job.doc))
function stateOf(target: Target): string {
  if (!target.done || target.how === null)
    return told.value.has(target.id) ? 'told to the panel, not heard' : 'to enrol'
  return target.waits ? 'accepted, waiting to be sent' : how[target.how]
}
function glyph({ id, done, waits, how: known }: Target): string {
  if (done) return waits ? '…' : known === 'heard' ? '✓' : '≈'
  return told.value.has(id) ? '◔' : '○'
}
</script>

<template>
  <div class="orders" role="group" aria-label="Order of the round">
    <button
      v-for="order in orders"
      :key="order.key"
      type="button"
      class="order"
      :aria-pressed="by === order.key"
      :title="order.what"
      @click="by = order.key"
    >
      {{ order.title }}
    </button>
  </div>
  <template v-for="part in parts" :key="part.name">
    <h3 v-if="part.name !== ''">{{ part.name }}</h3>
    <ul class="targets">
      <li v-for="target in part.targets" :key="target.id">
        <button
          type="button"
          class="target"
          :class="{ on: target.id === current, done: target.done }"
          :aria-current="target.id === current"
          @click="emit('choose', target.id)"
        >
          <span class="state" aria-hidden="true">{{ glyph(target) }}</span>
          <span class="num">{{ target.name.replace('zone ', '') }}</span>
          <span class="what">{{ where(target) }}</span>
          <span class="sr-only">{{ stateOf(target) }}</span>
        </button>
      </li>
    </ul>
  </template>
  <template v-if="leftOut.length > 0">
    <h3>Not now</h3>
    <ul class="targets">
      <li v-for="one in leftOut" :key="one.id" class="later">
        {{ one.name }}: <span class="quiet">{{ one.why }}</span>
      </li>
    </ul>
  </template>
</template>

<style scoped>
.orders {
  display: flex;
  gap: 2px;
  margin-bottom: 4px;
}
.order {
  font: inherit;
  font-size: 0.875rem;
  color: inherit;
  flex: 1;
  min-height: 40px;
  border: 1px solid rgba(var(--v-theme-on-surface), 0.24);
  border-radius: 6px;
  background: transparent;
  cursor: pointer;
}
.order[aria-pressed='true'] {
  font-weight: 650;
  border-color: rgb(var(--v-theme-primary));
  background: rgba(var(--v-theme-primary), 0.12);
}
h3 {
  font-size: 0.8125rem;
  font-weight: 600;
  padding: 8px 12px 2px;
  opacity: 0.8;
}
.later {
  padding: 4px 12px;
  font-size: 0.875rem;
}
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
