<script setup lang="ts">
/** Fields for the lines of a panel's display, typed as they stand there. */
const props = defineProps<{ lines: number }>()
const read = defineModel<string[]>({ required: true })
const label = (index: number): string =>
  props.lines === 1 ? 'What the display shows' : `Line ${index + 1} of the display`
function put(index: number, text: string): void {
  read.value = read.value.map((line, at) => (at === index ? text : line))
}
</script>

<template>
  <div class="fields">
    <v-text-field
      v-for="(line, index) in read"
      :key="index"
      :model-value="line"
      :label="label(index)"
      autocomplete="off"
      autocapitalize="off"
      spellcheck="false"
      maxlength="40"
      hide-details
      @update:model-value="put(index, $event)"
    />
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 10px;
}
.fields :deep(input) {
  font-family: var(--mono);
}
</style>
