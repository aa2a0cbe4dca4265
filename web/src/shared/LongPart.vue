<script setup lang="ts" generic="T">
import { useElementVisibility, useEventListener } from '@vueuse/core'
import { ref, useTemplateRef, watch } from 'vue'

const props = defineProps<{
  items: readonly T[]
  /** The element around the rows: a table has several bodies. */
  tag: 'tbody' | 'div'
  /** Rows are there whatever is on screen. */
  always: boolean
  /** Height that the part is taken to have until it was laid out, px. */
  height: number
}>()
const root = useTemplateRef<HTMLElement>('root')
/** Two screens ahead, so that no blank is seen at a reading pace. */
const near = useElementVisibility(root, { rootMargin: '1600px 0px' })
const there = ref(props.always)
const height = ref(props.height)
watch([near, () => props.always], ([isNear, always]) => {
  if (isNear || always) there.value = true
  else if (there.value && root.value && !inUse(root.value)) {
    height.value = root.value.offsetHeight
    there.value = false
  }
})
useEventListener('beforeprint', () => (there.value = true))

/** What is typed in, unfolded or refused there stays. */
function inUse(part: HTMLElement): boolean {
  return (
    part.contains(document.activeElement) ||
    part.querySelector('[aria-expanded="true"], [aria-invalid="true"]') !== null
  )
}
</script>

<template>
  <component :is="tag" ref="root">
    <template v-if="there"><slot v-for="item in items" :item="item" /></template>
    <tr v-else-if="tag === 'tbody'" class="unseen">
      <td colspan="99" :style="{ height: `${height}px` }" />
    </tr>
    <div v-else :style="{ height: `${height}px` }" />
  </component>
</template>
