<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { reasonWords } from '#core'
import { verdictLook } from '../../shared/severity.ts'
import FitExplained from './FitExplained.vue'
import { useFitGrid } from './useFitGrid.ts'

const props = defineProps<{ onlyBad: boolean; start: string | null }>()
const { columns, rows } = useFitGrid()
const at = ref<{ device: string; column: number } | null>(
  props.start ? { device: props.start, column: -1 } : null,
)
const shown = computed(() =>
  rows.value.filter((row) => !props.onlyBad || (row.fit && row.fit.verdict !== 'works')),
)
const current = computed(() => {
  const row = rows.value.find((item) => item.device === at.value?.device)
  return row && at.value
    ? { row, cell: at.value.column < 0 ? null : (row.cells[at.value.column] ?? null) }
    : null
})

/** One cell is in the tab order; the arrow keys walk the grid. */
function walk(event: KeyboardEvent, row: number, column: number): void {
  const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key]
  if (!step) return
  event.preventDefault()
  const to = Math.min(Math.max(row + (step[0] ?? 0), 0), shown.value.length - 1)
  const across = Math.min(Math.max(column + (step[1] ?? 0), -1), columns.value.length - 1)
  choose(shown.value[to]?.device ?? '', across)
  void nextTick(() => document.getElementById(`cell-${to}-${across}`)?.focus())
}

function choose(device: string, column: number): void {
  at.value = { device, column }
}

function tab(row: number, column: number): number {
  const here = at.value ? shown.value.findIndex((item) => item.device === at.value?.device) : 0
  return row === Math.max(here, 0) && column === (at.value?.column ?? -1) ? 0 : -1
}
</script>

<template>
  <div class="both">
    <div class="sheet scroll">
      <table class="plain grid" role="grid" aria-label="Fit grid">
        <thead>
          <tr>
            <th>Device</th>
            <th>This job</th>
            <th
              v-for="(column, index) in columns"
              :key="column.key"
              class="slant"
              :class="{ first: column.kind === 'panel' && columns[index - 1]?.kind !== 'panel' }"
            >
              {{ column.title }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, y) in shown" :key="row.device" :class="{ on: at?.device === row.device }">
            <th scope="row">
              {{ row.name }} <span class="quiet small">{{ row.place }}</span>
            </th>
            <td>
              <button
                :id="`cell-${y}--1`"
                type="button"
                class="cell"
                :class="row.fit?.verdict"
                :tabindex="tab(y, -1)"
                :aria-label="`${row.name} in this job: ${verdictLook[row.fit?.verdict ?? 'unknown'].word}`"
                @click="choose(row.device, -1)"
                @keydown="walk($event, y, -1)"
              >
                {{ verdictLook[row.fit?.verdict ?? 'unknown'].glyph }}
              </button>
            </td>
            <td
              v-for="(cell, x) in row.cells"
              :key="cell.column"
              :class="{
                panel: columns[x]?.kind === 'panel',
                first: columns[x]?.kind === 'panel' && columns[x - 1]?.kind !== 'panel',
              }"
            >
              <button
                :id="`cell-${y}-${x}`"
                type="button"
                class="cell"
                :class="[cell.verdict, { at: at?.device === row.device && at.column === x }]"
                :tabindex="tab(y, x)"
                :aria-label="`${row.name} with ${cell.name}: ${verdictLook[cell.verdict].word}`"
                :title="cell.reasons.map(reasonWords).join(' ')"
                @click="choose(row.device, x)"
                @keydown="walk($event, y, x)"
              >
                {{ verdictLook[cell.verdict].glyph }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="shown.length === 0" class="pa-4">Everything in the kit simply fits.</p>
      <p class="legend quiet small">
        <span v-for="look in verdictLook" :key="look.word">{{ look.glyph }} {{ look.word }}</span>
        <span>Arrow keys walk the grid.</span>
      </p>
    </div>
    <FitExplained v-if="current" :key="current.row.device" :row="current.row" :cell="current.cell" />
    <aside v-else class="sheet pa-4 side">
      <h2>Choose a cell</h2>
      <p class="quiet mt-1">
        It explains why a device fits or not, and what would help. On the left the receivers of this job, on
        the right what the other panels would make of the kit.
      </p>
    </aside>
  </div>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: 16px;
  align-items: start;
}
.scroll {
  overflow-x: auto;
}
.grid th[scope='row'] {
  color: rgb(var(--v-theme-on-surface));
  font-weight: 600;
  font-size: 0.875rem;
  padding: 2px 8px;
  border-bottom: 1px solid rgba(var(--v-theme-on-surface), 0.08);
}
.grid td {
  padding: 1px 2px;
  text-align: center;
}
.grid thead th {
  white-space: normal;
  vertical-align: bottom;
  text-align: center;
  max-width: 78px;
  line-height: 1.2;
}
.grid thead th:first-child {
  text-align: left;
}
.first {
  border-left: 2px solid rgba(var(--v-theme-on-surface), 0.18);
}
.cell {
  font: inherit;
  font-weight: 700;
  width: 36px;
  height: 28px;
  border: 1px solid transparent;
  border-radius: 6px;
  background: transparent;
  color: inherit;
  cursor: pointer;
}
.works {
  color: rgb(var(--v-theme-success));
}
.loss {
  color: rgb(var(--v-theme-warning));
  background: rgba(var(--v-theme-warning), 0.1);
}
.no {
  color: rgb(var(--v-theme-error));
}
td:not(.panel) > .no {
  background: rgba(var(--v-theme-error), 0.1);
}
.panel > .no {
  font-size: 0.6875rem;
}
.unknown {
  color: rgb(var(--v-theme-info));
}
.at {
  border-color: currentcolor;
}
tr.on th {
  background: rgba(var(--v-theme-primary), 0.1);
}
.small {
  font-size: 0.8125rem;
  font-weight: 400;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  padding: 8px;
}
@media (max-width: 1000px) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
