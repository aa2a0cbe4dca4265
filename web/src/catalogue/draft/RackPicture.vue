<script setup lang="ts">
import { computed } from 'vue'
import type { Answer } from '#core'

/** The numbers of a panel as they grow: one lane for each use, so that what overlaps is seen. */
const props = defineProps<{ value: Answer['value'] | undefined }>()

interface Block {
  readonly use?: string | null
  readonly from?: number | null
  readonly to?: number | null
  readonly optional?: boolean | null
}
const blocks = computed(() =>
  (Array.isArray(props.value) ? (props.value as Block[]) : []).flatMap(({ use, from, to, optional }) =>
    use && typeof from === 'number' && typeof to === 'number' && to >= from
      ? [{ use, from, to, optional: optional === true }]
      : [],
  ),
)
const last = computed(() => Math.max(...blocks.value.map(({ to }) => to)))
const lanes = computed(() =>
  [...new Set(blocks.value.map(({ use }) => use))].map((use) => ({
    use,
    blocks: blocks.value.filter((block) => block.use === use),
  })),
)
const WHOLE = 100
function place({ from, to }: { readonly from: number; readonly to: number }): Record<string, string> {
  return {
    left: `${((from - 1) / last.value) * WHOLE}%`,
    width: `${((to - from + 1) / last.value) * WHOLE}%`,
  }
}
/** Numbers that two uses share: a terminal there must be switched off, or its number left free. */
const shared = computed(() =>
  blocks.value.flatMap((one, index) =>
    blocks.value.slice(index + 1).flatMap((other) => {
      const from = Math.max(one.from, other.from)
      const to = Math.min(one.to, other.to)
      return from > to ? [] : [`${from === to ? from : `${from}–${to}`} are ${one.use} and ${other.use}`]
    }),
  ),
)
</script>

<template>
  <figure v-if="blocks.length > 0" class="rack">
    <div v-for="lane in lanes" :key="lane.use" class="lane">
      <span class="use">{{ lane.use }}</span>
      <span class="track">
        <span
          v-for="block in lane.blocks"
          :key="block.from"
          class="block"
          :class="{ optional: block.optional }"
          :style="place(block)"
          >{{ block.from === block.to ? block.from : `${block.from}–${block.to}` }}</span
        >
      </span>
    </div>
    <figcaption v-if="shared.length > 0" class="quiet">
      {{ shared.join('; ') }}: one of them must be off where the other is used.
    </figcaption>
  </figure>
</template>

<style scoped>
.rack {
  flex: 1 1 100%;
  margin: 0;
  display: grid;
  gap: 4px;
}
.lane {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  align-items: center;
}
.use {
  font-size: 0.8125rem;
}
.track {
  position: relative;
  height: 26px;
  background: rgba(var(--v-theme-on-surface), 0.06);
  border-radius: 4px;
}
.block {
  position: absolute;
  top: 0;
  bottom: 0;
  overflow: hidden;
  border-radius: 4px;
  background: rgb(var(--v-theme-primary));
  color: rgb(var(--v-theme-on-primary));
  font-size: 0.8125rem;
  display: grid;
  place-items: center;
  white-space: nowrap;
}
.optional {
  background: transparent;
  color: rgb(var(--v-theme-on-surface));
  border: 2px dashed rgb(var(--v-theme-primary));
}
</style>
