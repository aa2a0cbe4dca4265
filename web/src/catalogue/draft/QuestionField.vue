<script setup lang="ts">
import type { Answer, Catalogue, DraftDocument, Question, Told } from '#core'
import AnswerField from './AnswerField.vue'
import DelayField from './DelayField.vue'
import GroupField from './GroupField.vue'
import IdRule from './IdRule.vue'
import AtPanel from './panel/AtPanel.vue'
import RowsField from './RowsField.vue'
import TypesField from './TypesField.vue'
import WordListField from './WordListField.vue'

/** The answer to a question, in the form in which it is asked. */
defineProps<{
  question: Question
  value: Answer['value'] | undefined
  fault: string
  catalogue: Catalogue
  doc: DraftDocument
  /** Another time of the panel, which often takes the same values. */
  before: { readonly label: string; readonly value: Answer['value'] } | null
  locked: boolean
}>()
const emit = defineEmits<{
  answer: [value: Answer['value'] | undefined]
  tell: [told: readonly Told[]]
}>()
</script>

<template>
  <AtPanel
    v-if="question.form.is === 'at-panel'"
    :doc="doc"
    :catalogue="catalogue"
    :locked="locked"
    @tell="emit('tell', $event)"
  />
  <RowsField
    v-else-if="question.form.is === 'rows'"
    :form="question.form"
    :value="value"
    :label="question.ask"
    :catalogue="catalogue"
    :fault="fault"
    @answer="emit('answer', $event)"
  />
  <GroupField
    v-else-if="question.form.is === 'group'"
    :cells="question.form.cells"
    :value="value"
    :label="question.ask"
    :catalogue="catalogue"
    :fault="fault"
    @answer="emit('answer', $event)"
  />
  <TypesField
    v-else-if="question.form.is === 'response-types'"
    :value="value"
    :label="question.ask"
    :fault="fault"
    @answer="emit('answer', $event)"
  />
  <DelayField
    v-else-if="question.form.is === 'delay'"
    :value="value"
    :label="question.ask"
    :fault="fault"
    :before="before"
    @answer="emit('answer', $event)"
  />
  <WordListField
    v-else-if="question.form.is === 'word-list'"
    :value="value"
    :label="question.ask"
    :fault="fault"
    @answer="emit('answer', $event)"
  />
  <IdRule
    v-else-if="question.form.is === 'id-rule'"
    :value="value"
    :fault="fault"
    @answer="emit('answer', $event)"
  />
  <AnswerField
    v-else
    :form="question.form"
    :value="value"
    :label="question.ask"
    :catalogue="catalogue"
    :fault="fault"
    @answer="emit('answer', $event)"
  />
</template>
