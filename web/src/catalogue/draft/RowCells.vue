<script setup lang="ts">
import type { Answer, Catalogue, Cell } from '#core'
import AnswerField from './AnswerField.vue'
import KeyedField from './KeyedField.vue'

type Row = Record<string, Answer['value']>

/** The cells of one row. */
const props = defineProps<{ cells: readonly Cell[]; row: Row; catalogue: Catalogue }>()
const emit = defineEmits<{ set: [cell: Cell, value: Answer['value'] | undefined] }>()

/** What may be said to a cell depends on another one of its row. */
function keyedChoices(cell: Cell) {
  return cell.form.is === 'keyed' ? (cell.form.of[String(props.row[cell.form.by])] ?? []) : []
}
</script>

<template>
  <div
    v-for="cell in cells.filter((one) => one.form.is !== 'keyed' || keyedChoices(one).length > 0)"
    :key="cell.key"
    class="cell"
    :class="cell.form.is"
  >
    <span v-if="cell.form.is === 'yes-no' || cell.form.is === 'keyed'" class="quiet small">{{
      cell.title
    }}</span>
    <KeyedField
      v-if="cell.form.is === 'keyed'"
      :choices="keyedChoices(cell)"
      :value="row[cell.key]"
      @answer="emit('set', cell, $event)"
    />
    <AnswerField
      v-else
      :form="cell.form"
      :value="row[cell.key]"
      :label="cell.title"
      :catalogue="catalogue"
      fault=""
      dense
      @answer="emit('set', cell, $event)"
    />
  </div>
</template>

<style scoped>
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
.cell.keyed {
  flex: 1 0 100%;
}
.cell.some-of {
  flex: 2 1 240px;
}
.small {
  font-size: 0.8125rem;
}
</style>
