<script setup lang="ts">
import { computed } from 'vue'
import { compareIds, type Family } from '#core'

const props = defineProps<{
  family: Family | null
  sticker: string | null
  heard: string | null
  from: string
}>()

interface Cell {
  readonly sticker: string
  readonly heard: string
  readonly same: boolean
  /** True where a new group of the sticker begins. */
  readonly gap: boolean
}

/** Both IDs character by character, in the groups of the sticker. */
const cells = computed((): Cell[] => {
  const starts = new Set<number>()
  let at = 0
  for (const size of props.family?.sticker.groups ?? []) starts.add((at += size))
  const size = (props.family?.sticker.idTo ?? 8) - (props.family?.sticker.idFrom ?? 1) + 1
  const blank = ' '.repeat(size)
  return compareIds(props.heard ?? blank, props.sticker ?? blank).map((cell, index) => ({
    sticker: cell.expected,
    heard: cell.heard,
    // What the display did not show is no difference: only what was seen is compared.
    same: cell.same || cell.heard === ' ' || props.heard === null || props.sticker === null,
    gap: starts.has(index),
  }))
})
const differing = computed(() => cells.value.filter((cell) => !cell.same).length)
const words = computed(() => {
  if (props.heard === null) return 'nothing yet'
  if (props.sticker === null) return 'no sticker noted'
  const seen = cells.value.filter((cell) => cell.heard !== ' ').length
  if (differing.value === 0 && seen < cells.value.length)
    return `the last ${seen} are the same; the others were not seen`
  return differing.value === 0
    ? 'the same, character by character'
    : `${differing.value} ${differing.value === 1 ? 'character differs' : 'characters differ'}`
})
</script>

<template>
  <div class="compare">
    <div class="line">
      <span class="name">Sticker</span>
      <span class="signs" aria-hidden="true"
        ><span v-for="(cell, index) in cells" :key="index" class="sign" :class="{ gap: cell.gap }">{{
          cell.sticker.trim() || '–'
        }}</span></span
      >
      <span class="sr-only">{{ sticker ?? 'not noted' }}</span>
    </div>
    <div class="line">
      <span class="name">{{ from }}</span>
      <span class="signs" aria-hidden="true"
        ><span
          v-for="(cell, index) in cells"
          :key="index"
          class="sign"
          :class="{ gap: cell.gap, differs: !cell.same }"
          >{{ cell.heard.trim() || '·' }}</span
        ></span
      >
      <span class="sr-only">{{ heard ?? 'nothing yet' }}</span>
    </div>
    <div class="line quiet">
      <span class="name" />
      <span>{{ words }}</span>
    </div>
  </div>
</template>

<style scoped>
.compare {
  display: grid;
  gap: 4px;
}
.line {
  display: flex;
  align-items: baseline;
  gap: 12px;
}
.name {
  flex: 0 0 64px;
  font-size: 0.875rem;
  font-weight: 600;
}
.signs {
  font-family: var(--mono);
  font-size: clamp(1.5rem, 6.2vw, 2.25rem);
  line-height: 1.25;
  white-space: nowrap;
}
.sign {
  display: inline-block;
  width: 1.05em;
  text-align: center;
  border-bottom: 3px solid transparent;
}
.sign.gap {
  margin-left: 0.45em;
}
.differs {
  font-weight: 800;
  color: rgb(var(--v-theme-error));
  border-bottom-color: rgb(var(--v-theme-error));
  background: rgba(var(--v-theme-error), 0.12);
  border-radius: 4px 4px 0 0;
}
</style>
