<script setup lang="ts">
import {
  mdiChevronLeft,
  mdiChevronRight,
  mdiDownload,
  mdiMagnifyMinusOutline,
  mdiMagnifyPlusOutline,
} from '@mdi/js'
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, ref, shallowRef, useTemplateRef, watch } from 'vue'
import type { LeafletWire } from '#core'
import type { PdfPages } from './pdf-pages.ts'

/** A leaflet to read: page by page, or a photo, as wide as there is room and larger. */
const props = defineProps<{ leaflet: LeafletWire }>()
const sheet = useTemplateRef<HTMLElement>('sheet')
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const { width } = useElementSize(sheet)
const pdf = shallowRef<PdfPages | null>(null)
const page = ref(1)
const zoom = ref(1)
const words = ref('')
const trouble = ref('')
const address = computed(() => `/api/catalogue/leaflets/${props.leaflet.id}`)
const isPhoto = computed(() => props.leaflet.type !== 'application/pdf')
const zooms = [1, 1.5, 2, 3]

watch(() => props.leaflet.id, open, { immediate: true })
watch([page, zoom, width], draw)
onBeforeUnmount(() => pdf.value?.close())

async function open(id: string): Promise<void> {
  pdf.value?.close()
  pdf.value = null
  page.value = zoom.value = 1
  words.value = trouble.value = ''
  if (isPhoto.value) return
  try {
    const response = await fetch(address.value)
    if (!response.ok)
      throw new Error(
        response.status === 404 ? 'This leaflet was taken away.' : `The server answered ${response.status}.`,
      )
    const data = new Uint8Array(await response.arrayBuffer())
    const { openPdf } = await import('./pdf-pages.ts')
    const opened = await openPdf(data)
    if (props.leaflet.id !== id) return opened.close()
    pdf.value = opened
    await nextTick()
    await draw()
  } catch (thrown) {
    if (props.leaflet.id !== id) return
    trouble.value =
      thrown instanceof TypeError
        ? 'The server cannot be reached, and this leaflet was not read on this device yet.'
        : (thrown as Error).message
  }
}

/** One drawing at a time on one canvas; what was asked for meanwhile is drawn afterwards. */
let drawing = false
let again = false
async function draw(): Promise<void> {
  if (!pdf.value || !canvas.value || width.value === 0) return
  if (drawing) {
    again = true
    return
  }
  drawing = true
  try {
    words.value = await pdf.value.draw(page.value, canvas.value, width.value * zoom.value)
  } catch {
    trouble.value = 'This page cannot be drawn here. Save the leaflet and open it with another program.'
  } finally {
    drawing = false
    if (again) {
      again = false
      await draw()
    }
  }
}

function turn(by: 1 | -1): void {
  page.value = Math.min(Math.max(page.value + by, 1), pdf.value?.count ?? 1)
  sheet.value?.scrollTo({ top: 0 })
}
function larger(by: 1 | -1): void {
  const at = zooms.indexOf(zoom.value) + by
  zoom.value = zooms[Math.min(Math.max(at, 0), zooms.length - 1)] ?? 1
}
</script>

<template>
  <div class="leaflet" role="region" :aria-label="`Leaflet ${leaflet.name}`">
    <div class="bar">
      <template v-if="pdf && pdf.count > 1">
        <v-btn
          :icon="mdiChevronLeft"
          variant="text"
          size="48"
          :disabled="page === 1"
          aria-label="Page before"
          @click="turn(-1)"
        />
        <span role="status">page {{ page }} of {{ pdf.count }}</span>
        <v-btn
          :icon="mdiChevronRight"
          variant="text"
          size="48"
          :disabled="page === pdf.count"
          aria-label="Next page"
          @click="turn(1)"
        />
      </template>
      <span class="grow" />
      <v-btn
        :icon="mdiMagnifyMinusOutline"
        variant="text"
        size="48"
        :disabled="zoom === 1"
        aria-label="Smaller"
        @click="larger(-1)"
      />
      <v-btn
        :icon="mdiMagnifyPlusOutline"
        variant="text"
        size="48"
        :disabled="zoom === 3"
        aria-label="Larger"
        @click="larger(1)"
      />
      <v-btn
        :icon="mdiDownload"
        :href="address"
        variant="text"
        size="48"
        aria-label="Save this leaflet"
        download
      />
    </div>
    <p v-if="trouble" role="alert" class="text-error">{{ trouble }}</p>
    <!-- A page wider than its place is moved with the arrow keys, too. -->
    <div ref="sheet" class="page-of" tabindex="0" :aria-label="`${leaflet.name}, page ${page}`" role="group">
      <img
        v-if="isPhoto"
        :src="address"
        :alt="`Photo: ${leaflet.name}`"
        :style="{ width: `${zoom * 100}%` }"
        @error="trouble = 'This photo cannot be shown: the server is not reached, or it was taken away.'"
      />
      <template v-else>
        <v-progress-linear v-if="!pdf && !trouble" indeterminate aria-label="Loading the leaflet" />
        <canvas v-show="pdf" ref="canvas" :style="{ width: `${zoom * 100}%` }" aria-hidden="true" />
        <p class="sr-only">{{ words }}</p>
      </template>
    </div>
  </div>
</template>

<style scoped>
.leaflet {
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  min-height: 0;
}
.bar {
  display: flex;
  align-items: center;
  gap: 2px;
}
.page-of {
  overflow: auto;
  min-height: 160px;
  /* A page is paper, whatever the theme. */
  background: #fff;
  border: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
}
canvas,
img {
  display: block;
  max-width: none;
}
.grow {
  flex: 1;
}
</style>
