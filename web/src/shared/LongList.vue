<script setup lang="ts" generic="T extends { readonly id: string }">
import { computed, nextTick, watch } from 'vue'
import LongPart from './LongPart.vue'

defineOptions({ inheritAttrs: false })
/**
 * Rows of a list that may have hundreds: a short list is there as a whole, of a long one the parts about the screen. It scrolls
 * with its page, so that a table is one table; what is printed is whole.
 */
const props = withDefaults(
  defineProps<{
    items: readonly T[]
    tag?: 'tbody' | 'div'
    /** Height of a row before it is laid out, px. */
    row: number
    /** The item that is gone to, an element by its id: its part is there, wherever the page stands. */
    show?: string | null
  }>(),
  { tag: 'tbody', show: null },
)
const PART = 24
/** Up to so many rows nothing is gained by leaving any out. */
const FEW = 96

const parts = computed(() => {
  if (props.items.length <= FEW) return [props.items]
  const count = Math.ceil(props.items.length / PART)
  return Array.from({ length: count }, (_, index) => props.items.slice(index * PART, (index + 1) * PART))
})
const shownPart = computed(() => {
  const at = props.items.findIndex((item) => item.id === props.show)
  return at < 0 || props.items.length <= FEW ? 0 : Math.floor(at / PART)
})
// Rows above that are laid out on the way move the place: it is gone to again once they stand.
watch(
  () => props.show,
  async (id) => {
    if (id === null) return
    for (let turn = 0; turn < 3; turn++) {
      await nextTick()
      await new Promise((done) => requestAnimationFrame(done))
      document.getElementById(id)?.scrollIntoView({ block: 'center' })
    }
  },
  { immediate: true },
)
</script>

<template>
  <LongPart
    v-for="(part, index) in parts"
    :key="part[0]?.id ?? index"
    v-slot="{ item }"
    v-bind="$attrs"
    :items="part"
    :tag="tag"
    :always="parts.length === 1 || index === shownPart || index === 0"
    :height="row * part.length"
  >
    <slot :item="item" />
  </LongPart>
</template>
