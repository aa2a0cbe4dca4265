<script setup lang="ts">
import { mdiChevronDown, mdiChevronUp } from '@mdi/js'
import { computed, ref } from 'vue'
import { readSticker, reasonWords, type Device, type DeviceModel, type Family, type Fit } from '#core'
import CellChoice from '../../shared/CellChoice.vue'
import CellText from '../../shared/CellText.vue'
import { verdictLook } from '../../shared/severity.ts'
import KitDetail from './KitDetail.vue'
import { usesOf } from './words.ts'

const props = defineProps<{
  device: Device
  model: DeviceModel
  family: Family | null
  fit: Fit | undefined
  marked: boolean
}>()
const open = ref(props.marked)
/** What a takeover knows of it, on one line. */
const history = computed(() =>
  !props.device.existing
    ? ''
    : [
        'there already',
        ...(props.device.madeYear === null ? [] : [`made ${props.device.madeYear}`]),
        ...(props.device.batteryAt === null ? [] : [`battery ${props.device.batteryAt}`]),
        props.device.plan ?? 'not decided',
      ].join(' · '),
)
const look = computed(() => verdictLook[props.fit?.verdict ?? 'unknown'])
/** That no panel is chosen is said once above the list, not in every row. */
const reason = computed(() =>
  (props.fit?.reasons ?? [])
    .filter((item) => item.code !== 'no-panel')
    .map(reasonWords)
    .join(' '),
)
const name = computed(() => `${props.model.name}${props.device.room ? ` in ${props.device.room}` : ''}`)

function readId(text: string): string | null {
  if (text === '') return null
  if (!props.family) throw new Error('A wired device has no radio ID.')
  const read = readSticker(props.family, text)
  if (!read.ok) throw new Error(read.reason)
  return read.serial
}
</script>

<template>
  <tr :id="device.id" :class="{ marked }">
    <td class="device">
      <strong>{{ model.name }}</strong>
      <div class="quiet small">
        {{ family?.name ?? 'wired' }}<template v-if="history"> · {{ history }}</template
        >{{ device.deferred ? ` · place open: ${device.deferred}` : '' }}
      </div>
    </td>
    <td>
      <CellText
        :id="device.id"
        field="room"
        kind="device.set"
        :label="`Room of ${name}`"
        placeholder="room"
      />
    </td>
    <td>
      <CellText
        :id="device.id"
        field="position"
        kind="device.set"
        :label="`Position of ${name}`"
        placeholder="position"
      />
    </td>
    <td>
      <CellChoice
        v-if="usesOf(model.class).length > 1"
        :id="device.id"
        field="use"
        kind="device.set"
        :label="`Use of ${name}`"
        :items="usesOf(model.class)"
        class="use"
      />
      <span v-else class="quiet">—</span>
    </td>
    <td>
      <CellText
        v-if="family"
        :id="device.id"
        field="sticker"
        kind="device.set"
        :label="`Sticker ID of ${name}`"
        mono
        :size="14"
        placeholder="sticker ID"
        :read="readId"
      />
    </td>
    <td class="fit">
      <span class="verdict" :style="{ color: `rgb(var(--v-theme-${look.color}))` }"
        ><span aria-hidden="true">{{ look.glyph }}</span> {{ look.word }}</span
      >
      <div v-if="reason" class="small">
        {{ reason }}
        <router-link :to="{ query: { view: 'grid', show: device.id } }" class="help no-print"
          >What would help?</router-link
        >
      </div>
    </td>
    <td class="no-print">
      <v-btn
        :icon="open ? mdiChevronUp : mdiChevronDown"
        size="x-small"
        variant="text"
        :aria-label="`More of ${name}`"
        :aria-expanded="open"
        @click="open = !open"
      />
    </td>
  </tr>
  <tr v-if="open" :class="{ marked }">
    <td colspan="7"><KitDetail :device="device" :model="model" :name="name" /></td>
  </tr>
</template>

<style scoped>
.small {
  font-size: 0.8125rem;
}
.verdict {
  font-weight: 650;
  white-space: nowrap;
}
.device {
  min-width: 170px;
}
.fit {
  min-width: 210px;
}
.help {
  color: rgb(var(--v-theme-primary));
}
.use {
  width: 216px;
}
.marked td {
  background: rgba(var(--v-theme-secondary), 0.16);
}
</style>
