<script setup lang="ts">
import { computed } from 'vue'
import type { PanelSheet } from '#core'
import LongList from '../../shared/LongList.vue'
import DisplayBox from './DisplayBox.vue'
import KeysText from './KeysText.vue'

/** The sheet that the panel's own keys were proved on: what to press, what must then stand on the display, what it means. */
const props = defineProps<{ sheet: Extract<PanelSheet, { ok: true }> }>()
const items = computed(() => props.sheet.parts.map((part) => ({ id: part.id, part })))
</script>

<template>
  <div>
    <LongList v-slot="{ item: { part } }" :items="items" tag="div" class="columns" :row="260">
      <section class="sheet block" :aria-label="part.title">
        <h2>{{ part.title }}</h2>
        <table class="plain">
          <thead class="sr-only">
            <tr>
              <th>Press</th>
              <th>Display then shows</th>
              <th>Meaning</th>
            </tr>
          </thead>
          <tbody>
            <template v-for="(line, index) in part.lines" :key="index">
              <tr>
                <td class="key">
                  <KeysText :text="line.keys" />
                  <div v-if="line.typed" class="typed">
                    ▸ <span class="mono">{{ line.typed }}</span>
                  </div>
                  <div v-if="line.kind === 'learn'" class="do">▸ make the device transmit now</div>
                </td>
                <td class="shows"><DisplayBox :lines="line.shows" /></td>
                <td class="means">
                  <div v-for="item in line.sets" :key="item.address">
                    <span class="quiet">{{ item.field }}: </span
                    >{{ line.kind === 'empty' ? 'emptied first' : item.words }}
                  </div>
                </td>
              </tr>
              <tr v-if="line.check.length > 0 || line.note" class="more">
                <td colspan="3">
                  <div v-if="line.check.length > 0" class="check">
                    ◇ a wrong key would not show: read back {{ line.check.join(', ') }}
                  </div>
                  <div v-if="line.note" class="quiet small">{{ line.note }}</div>
                </td>
              </tr>
            </template>
          </tbody>
        </table>
      </section>
    </LongList>
  </div>
</template>

<style scoped>
:deep(.columns) {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 500px), 1fr));
  gap: 16px;
  align-items: start;
}
.block {
  break-inside: avoid;
  padding: 12px 14px;
}
.block h2 {
  margin-bottom: 4px;
  font-size: 1rem;
}
td.key,
td.shows,
td.means {
  vertical-align: top;
}
tr:has(+ .more) td {
  border-bottom: 0;
}
.more td {
  padding-top: 0;
}
.key {
  width: 34%;
}
.shows {
  width: 30%;
}
.mono {
  font-family: var(--mono);
}
.typed,
.do,
.small,
.check {
  font-size: 0.8125rem;
}
.typed {
  color: rgba(var(--v-theme-on-surface), 0.72);
}
.do,
.check {
  font-weight: 600;
}
.check {
  color: rgb(var(--v-theme-warning));
}
@media print {
  :deep(.columns) {
    grid-template-columns: 1fr 1fr;
    gap: 8px;
  }
  .block {
    padding: 4px 6px;
  }
}
</style>
