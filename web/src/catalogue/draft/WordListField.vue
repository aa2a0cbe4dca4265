<script setup lang="ts">
import { computed, ref } from 'vue'
import { readWordList, type Answer } from '#core'

/** The words of a panel, pasted as its manual prints them. */
const props = defineProps<{ value: Answer['value'] | undefined; label: string; fault: string }>()
const emit = defineEmits<{ answer: [value: Answer['value'] | undefined] }>()
const text = ref('')
const MOST_SHOWN = 5
const read = computed(() => readWordList(text.value))
const kept = computed(() =>
  Array.isArray(props.value) ? (props.value as { readonly number: string; readonly text: string }[]) : [],
)

async function load(files: File | File[]): Promise<void> {
  const file = Array.isArray(files) ? files[0] : files
  if (file) text.value = await file.text()
}
function take(): void {
  emit('answer', read.value.words.map((word) => ({ ...word })) as Answer['value'])
  text.value = ''
}
</script>

<template>
  <div class="list">
    <p v-if="kept.length > 0" class="kept">
      ✓ {{ kept.length }} words:
      {{
        kept
          .slice(0, MOST_SHOWN)
          .map((word) => `${word.number} ${word.text}`)
          .join(', ')
      }}{{ kept.length > MOST_SHOWN ? ' …' : '' }}
    </p>
    <v-textarea
      v-model="text"
      :aria-label="label"
      :placeholder="'012 KITCHEN\n013 LANDING'"
      rows="5"
      max-rows="14"
      auto-grow
      hide-details
      class="paste"
    />
    <v-file-input
      label="Or from a text file"
      accept=".txt,.csv,text/plain,text/csv"
      hide-details
      class="paste"
      @update:model-value="load"
    />
    <template v-if="text.trim() !== ''">
      <ul v-if="read.problems.length > 0" class="faults" role="alert">
        <li v-for="problem in read.problems.slice(0, 20)" :key="problem.line + problem.message">
          Line {{ problem.line }}: {{ problem.message }}
        </li>
      </ul>
      <p v-if="read.gaps.length > 0" class="quiet">
        No word for {{ read.gaps.join(', ') }}: look whether a line was lost in copying.
      </p>
      <v-btn
        color="primary"
        variant="tonal"
        :disabled="read.problems.length > 0 || read.words.length === 0"
        @click="take"
        >Take these {{ read.words.length }} words</v-btn
      >
      <p v-if="read.problems.length > 0" class="quiet">
        Mend the lines above first: a wrong number says a wrong place.
      </p>
    </template>
    <p v-if="fault" class="faults" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.list {
  flex: 1 1 100%;
  display: grid;
  gap: 8px;
  justify-items: start;
}
.list p {
  margin: 0;
}
.paste {
  width: 100%;
}
.paste :deep(textarea) {
  font-family: var(--mono);
}
.kept {
  color: rgb(var(--v-theme-success));
}
.faults {
  color: rgb(var(--v-theme-error));
  padding-left: 18px;
}
p.faults {
  padding: 0;
}
</style>
