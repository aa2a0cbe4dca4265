<script setup lang="ts">
import { mdiClose, mdiPlus } from '@mdi/js'
import { computed } from 'vue'
import type { Answer, Catalogue, Cell, Form } from '#core'
import AnswerField from './AnswerField.vue'

type Row = Record<string, Answer['value']>
type RowsForm = Extract<Form, { is: 'rows' }>

/** Several alike: events with their loops, ways to transmit, codes. */
const props = defineProps<{
  form: RowsForm
  value: Answer['value'] | undefined
  label: string
  catalogue: Catalogue
  fault: string
}>()
const emit = defineEmits<{ answer: [value: Answer['value'] | undefined] }>()
const rows = computed((): readonly Row[] => (Array.isArray(props.value) ? (props.value as Row[]) : []))

function set(index: number, cell: Cell, value: Answer['value'] | undefined): void {
  const before = rows.value[index] ?? {}
  const row: Row = { ...before, [cell.key]: value ?? null }
  // What is called nothing yet is called by its event.
  if (cell.key === 'event' && 'name' in row && !row.name && cell.form.is === 'one-of')
    row.name = cell.form.choices.find((choice) => choice.value === value)?.title ?? ''
  emit('answer', rows.value.map((one, at) => (at === index ? row : one)) as Answer['value'])
}

function add(): void {
  const row = Object.fromEntries(
    props.form.cells.map(({ key, form }) => [key, form.is === 'yes-no' ? true : null]),
  )
  emit('answer', [...rows.value, row] as Answer['value'])
}

function drop(index: number): void {
  const left = rows.value.filter((_, at) => at !== index)
  emit('answer', left.length > 0 ? (left as Answer['value']) : undefined)
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
      <div v-for="cell in form.cells" :key="cell.key" class="cell" :class="cell.form.is">
        <span v-if="cell.form.is === 'yes-no'" class="quiet small">{{ cell.title }}</span>
        <AnswerField
          :form="cell.form"
          :value="row[cell.key]"
          :label="cell.title"
          :catalogue="catalogue"
          fault=""
          dense
          @answer="set(index, cell, $event)"
        />
      </div>
      <v-btn
        :icon="mdiClose"
        variant="text"
        size="40"
        :aria-label="`Remove ${form.row} ${index + 1}`"
        @click="drop(index)"
      />
    </div>
    <v-btn v-if="rows.length < form.most" variant="tonal" :prepend-icon="mdiPlus" @click="add"
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
.cell {
  flex: 1 1 150px;
}
.cell.number {
  flex: 0 1 120px;
}
.cell.yes-no {
  flex: 0 0 auto;
  display: grid;
}
.small {
  font-size: 0.8125rem;
}
.fault {
  color: rgb(var(--v-theme-error));
  margin: 0;
}
</style>
