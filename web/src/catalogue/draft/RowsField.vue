<script setup lang="ts">
import { mdiArrowUp, mdiClose, mdiPlus } from '@mdi/js'
import { computed } from 'vue'
import type { Answer, Catalogue, Cell, Form } from '#core'
import RowCells from './RowCells.vue'

type Row = Record<string, Answer['value']>
type RowsForm = Extract<Form, { is: 'rows' }>

/** Several alike: events with their loops, steps, blocks of numbers. Some are put in by choosing them, in their order. */
const props = defineProps<{
  form: RowsForm
  value: Answer['value'] | undefined
  label: string
  catalogue: Catalogue
  fault: string
}>()
const emit = defineEmits<{ answer: [value: Answer['value'] | undefined] }>()
const rows = computed((): readonly Row[] => (Array.isArray(props.value) ? (props.value as Row[]) : []))
const picked = computed(() => props.form.cells.find(({ key }) => key === props.form.pick))
/** What can still be put in: each once. */
const offered = computed(() => {
  const form = picked.value?.form
  if (!form || form.is !== 'one-of') return []
  return form.choices.filter(({ value }) => !rows.value.some((row) => row[props.form.pick ?? ''] === value))
})
const cells = computed(() => props.form.cells.filter(({ key }) => key !== props.form.pick))

function titleOf(row: Row): string {
  const form = picked.value?.form
  const value = row[props.form.pick ?? '']
  const choice = form?.is === 'one-of' ? form.choices.find((one) => one.value === value) : undefined
  return choice?.title ?? String(value)
}

function set(index: number, cell: Cell, value: Answer['value'] | undefined): void {
  const before = rows.value[index] ?? {}
  const row: Row = { ...before, [cell.key]: value ?? null }
  // What is called nothing yet is called by its event.
  if (cell.key === 'event' && 'name' in row && !row.name && cell.form.is === 'one-of')
    row.name = cell.form.choices.find((choice) => choice.value === value)?.title ?? ''
  emit('answer', rows.value.map((one, at) => (at === index ? row : one)) as Answer['value'])
}

function add(choice: string | null): void {
  const row = Object.fromEntries(
    props.form.cells.map(({ key, begins }) => [key, key === props.form.pick ? choice : (begins ?? null)]),
  )
  emit('answer', [...rows.value, row] as Answer['value'])
}

function drop(index: number): void {
  const left = rows.value.filter((_, at) => at !== index)
  emit('answer', left.length > 0 ? (left as Answer['value']) : undefined)
}

function raise(index: number): void {
  const order = [...rows.value]
  const [moved] = order.splice(index, 1)
  if (moved) order.splice(index - 1, 0, moved)
  emit('answer', order as Answer['value'])
}
</script>

<template>
  <div class="rows">
    <div
      v-for="(row, index) in rows"
      :key="index"
      class="row"
      role="group"
      :aria-label="`${form.row} ${index + 1}`"
    >
      <strong v-if="picked" class="title">{{ index + 1 }}. {{ titleOf(row) }}</strong>
      <RowCells :cells="cells" :row="row" :catalogue="catalogue" @set="(cell, to) => set(index, cell, to)" />
      <v-btn
        v-if="picked && index > 0"
        :icon="mdiArrowUp"
        variant="text"
        size="40"
        :aria-label="`${titleOf(row)} comes earlier`"
        @click="raise(index)"
      />
      <v-btn
        :icon="mdiClose"
        variant="text"
        size="40"
        :aria-label="`Remove ${form.row} ${index + 1}`"
        @click="drop(index)"
      />
    </div>
    <div v-if="picked && offered.length > 0" class="offered" role="group" :aria-label="`Next ${form.row}`">
      <span class="quiet">{{ rows.length === 0 ? 'First comes' : 'Then comes' }}</span>
      <v-btn
        v-for="choice in offered"
        :key="choice.value"
        variant="outlined"
        height="40"
        :prepend-icon="mdiPlus"
        @click="add(choice.value)"
        >{{ choice.title }}</v-btn
      >
    </div>
    <v-btn
      v-else-if="!picked && rows.length < form.most"
      variant="tonal"
      :prepend-icon="mdiPlus"
      @click="add(null)"
      >Add {{ /^[aeiou]/.test(form.row) ? 'an' : 'a' }} {{ form.row }}</v-btn
    >
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.rows {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  width: 100%;
  padding: 8px;
  border: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
  border-radius: 8px;
}
.title {
  flex: 0 0 170px;
  font-weight: 650;
}
.offered {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.fault {
  color: rgb(var(--v-theme-error));
  margin: 0;
}
</style>
