<script setup lang="ts">
import { computed, onUnmounted, shallowRef, watch } from 'vue'
import {
  knownAddresses,
  NO_PLACE,
  panelSheet,
  sampleJob,
  type Catalogue,
  type PanelInterface,
  type PanelModel,
  type PanelSheet,
} from '#core'
import type { SheetRequest } from '../../../stages/program/sheet-worker.ts'

/** The sheet of a small house, keyed as it was told, and what the machine says of it. */
const props = defineProps<{ entry: PanelInterface; panel: PanelModel; catalogue: Catalogue }>()
const sheet = shallowRef<PanelSheet | null>(null)
const failed = shallowRef(false)
const job = computed(() => sampleJob(props.entry, props.panel, props.catalogue))
let worker: Worker | null = null

/** What changes in the telling makes it anew; who goes away wants it no more. */
watch(
  () => JSON.stringify(props.entry),
  () => {
    worker?.terminate()
    sheet.value = null
    failed.value = false
    const { doc, catalogue } = job.value
    const wanted = { start: 'factory', order: 'shortest', identity: 'type' } as const
    if (typeof Worker === 'undefined') {
      sheet.value = panelSheet({ doc, catalogue, ...wanted })
      return
    }
    worker = new Worker(new URL('../../../stages/program/sheet-worker.ts', import.meta.url), {
      type: 'module',
    })
    worker.onmessage = (event: MessageEvent<PanelSheet | null>) => (sheet.value = event.data)
    worker.onerror = () => (failed.value = true)
    worker.postMessage({ doc, entries: catalogue.kept, ...wanted } satisfies SheetRequest)
  },
  { immediate: true },
)
onUnmounted(() => worker?.terminate())
/** What nobody has told a place for, by meaning: each once. */
const placeless = computed(() => {
  if (sheet.value === null || sheet.value.ok) return []
  const titles = new Map(
    knownAddresses(props.panel).map(({ address, title }) => [address.replace(/\{[a-z]+\}/g, '0'), title]),
  )
  const missing = sheet.value.reasons.filter(({ reason }) => reason.endsWith(NO_PLACE))
  return [...new Set(missing.map(({ address }) => titles.get(address.replace(/\.\d+\./, '.0.')) ?? address))]
})
const others = computed(() =>
  sheet.value === null || sheet.value.ok
    ? []
    : sheet.value.reasons.filter(({ reason }) => !reason.endsWith(NO_PLACE)),
)
const first = computed(() =>
  sheet.value?.ok ? sheet.value.parts.flatMap(({ lines }) => lines).slice(0, 6) : [],
)
</script>

<template>
  <p class="quiet">
    A small house with devices of your catalogue, keyed into {{ panel.name }} as it was told:
  </p>
  <p v-if="failed" class="text-error">■ The sheet could not be made.</p>
  <v-progress-linear v-else-if="!sheet" indeterminate aria-label="Making the sheet" />
  <template v-else-if="sheet.ok">
    <p :class="sheet.differences === 0 ? 'text-success' : 'text-error'" role="status">
      {{ sheet.differences === 0 ? '✓' : '■' }} {{ sheet.keys }} keys, {{ sheet.differences }}
      {{ sheet.differences === 1 ? 'difference' : 'differences' }} in {{ sheet.wanted }} values
    </p>
    <ol class="lines">
      <li v-for="(line, index) in first" :key="index">
        <span class="mono">{{ line.keys }}</span>
        <span class="quiet mono"> {{ line.shows.join(' | ') }}</span>
      </li>
    </ol>
    <p class="quiet">This is what was told. Whether the panel does so, only the panel can say.</p>
  </template>
  <template v-else>
    <p class="text-error">■ No sheet leads there yet.</p>
    <p v-if="placeless.length > 0">No display was told that stores: {{ placeless.join(', ') }}.</p>
    <ul v-if="others.length > 0" class="lines">
      <li v-for="one in others.slice(0, 8)" :key="one.address + one.reason">
        {{ one.part }}: {{ one.reason }}
      </li>
    </ul>
  </template>
</template>

<style scoped>
p {
  margin: 6px 0;
}
.lines {
  padding-left: 18px;
  margin: 6px 0;
  display: grid;
  gap: 4px;
  font-size: 0.875rem;
}
.mono {
  font-family: var(--mono);
}
</style>
