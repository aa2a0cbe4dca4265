<script setup lang="ts">
import { computed } from 'vue'
import { handlingLines, wayWords, type DeviceModel } from '#core'

/** How this device is handled before it is learned, by its maker: its ways to send first, one below the other. */
const props = defineProps<{ model: DeviceModel }>()
/** What most devices do not need to be told of: left out where the maker says nothing. */
const untold: ReadonlySet<string> = new Set(['Ready after power-up', 'Sleeps after a trip'])
const ways = computed(() => props.model.ways.map(wayWords))
const rest = computed(() =>
  handlingLines(props.model).filter(
    ({ label, value }) =>
      value !== '' && label !== 'Ways to transmit' && !(untold.has(label) && value === 'not stated'),
  ),
)
const inside = computed(() => (props.model.stickerPlace ?? 'outside') !== 'outside')
</script>

<template>
  <dl class="handling" :aria-label="`How ${model.name} is handled`">
    <div>
      <dt>To make it send</dt>
      <dd v-for="way in ways" :key="way">{{ way }}</dd>
      <dd v-if="ways.length === 0">not stated: see its own sheet</dd>
    </div>
    <div v-for="line in rest" :key="line.label">
      <dt>{{ line.label }}</dt>
      <dd>
        {{ line.value
        }}<template v-if="inside && line.label === 'Sticker is'">. Read it before the cover closes.</template>
      </dd>
    </div>
  </dl>
</template>

<style scoped>
.handling {
  margin: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 260px), 1fr));
  gap: 8px 24px;
  font-size: 0.9375rem;
}
dt {
  font-size: 0.8125rem;
  opacity: 0.8;
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
