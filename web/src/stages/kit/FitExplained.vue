<script setup lang="ts">
import { computed } from 'vue'
import { reasonWords } from '#core'
import Remedies from '../../shared/Remedies.vue'
import { verdictLook } from '../../shared/severity.ts'
import type { GridCell, GridRow } from './useFitGrid.ts'

const props = defineProps<{ row: GridRow; cell: GridCell | null }>()
const shown = computed(() =>
  props.cell
    ? { with: props.cell.name, verdict: props.cell.verdict, reasons: props.cell.reasons }
    : {
        with: 'this job',
        verdict: props.row.fit?.verdict ?? ('unknown' as const),
        reasons: props.row.fit?.reasons ?? [],
      },
)
const look = computed(() => verdictLook[shown.value.verdict])
</script>

<template>
  <aside class="sheet pa-4 side" aria-label="Why, and what would help" aria-live="polite">
    <h2>{{ row.name }}</h2>
    <p v-if="row.place" class="quiet place">{{ row.place }}</p>
    <p class="verdict" :style="{ color: `rgb(var(--v-theme-${look.color}))` }">
      {{ look.glyph }} {{ shown.with }}: {{ look.word }}
    </p>
    <ul v-if="shown.reasons.length > 0" class="reasons">
      <li v-for="reason in shown.reasons" :key="reason.code">{{ reasonWords(reason) }}</li>
    </ul>
    <p v-else class="quiet">Band, protocol, encryption, class, region and grade all agree.</p>
    <template v-if="row.fit && row.fit.verdict !== 'works'">
      <h3 class="help">What would help</h3>
      <Remedies :device="row.device" />
    </template>
  </aside>
</template>

<style scoped>
.side {
  position: sticky;
  top: 68px;
  max-height: calc(100vh - 84px);
  overflow-y: auto;
}
.place {
  margin: 0;
}
.verdict {
  font-weight: 650;
  margin: 8px 0 4px;
}
.reasons {
  padding-left: 18px;
  margin: 0;
}
.help {
  margin-top: 18px;
}
</style>
