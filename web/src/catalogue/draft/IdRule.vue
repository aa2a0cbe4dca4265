<script setup lang="ts">
import { computed, ref } from 'vue'
import { findStickerRule, type Answer, type StickerRule } from '#core'

/** The rule of a family’s IDs, found from stickers in hand; what they leave open is asked. */
const props = defineProps<{ value: Answer['value'] | undefined; fault: string }>()
const emit = defineEmits<{ answer: [value: Answer['value'] | undefined] }>()

const lines = ref([
  { sticker: '', shown: '' },
  { sticker: '', shown: '' },
  { sticker: '', shown: '' },
])
/** What was chosen of what is open, by what it is about. */
const chosen = ref<Record<string, Partial<StickerRule>>>({})
const found = computed(() => findStickerRule(lines.value))
const rule = computed((): StickerRule | null =>
  found.value.rule
    ? Object.assign({}, found.value.rule, ...found.value.open.map(({ about }) => chosen.value[about] ?? {}))
    : null,
)
const kept = computed(() => (props.value ?? null) as StickerRule | null)
const isKept = computed(
  () => rule.value !== null && JSON.stringify(kept.value) === JSON.stringify(rule.value),
)
const alphabetWords: Readonly<Record<StickerRule['alphabet'], string>> = {
  digits: 'digits',
  hexadecimal: '0–9 and A–F',
  'letters-and-digits': 'letters and digits',
  'letter-then-digits': 'a letter, then digits',
}

function words({ length, alphabet, idFrom, idTo, groups, check }: StickerRule): string {
  const part =
    idFrom === 1 && idTo === length ? 'all of them the ID' : `the ID is characters ${idFrom} to ${idTo}`
  return `${length} characters, ${alphabetWords[alphabet]}; ${part}, shown as ${groups.join(' + ')}; ${check === 'none' ? 'no check digit' : 'the last digit is a check digit'}`
}

function changed(): void {
  chosen.value = {}
}
</script>

<template>
  <div class="ids">
    <p v-if="kept" class="kept">✓ {{ words(kept) }}</p>
    <div v-for="(line, index) in lines" :key="index" class="line">
      <v-text-field
        v-model="line.sticker"
        :label="`Sticker ${index + 1}, as printed`"
        maxlength="40"
        class="mono"
        @update:model-value="changed"
      />
      <v-text-field
        v-model="line.shown"
        label="The panel then showed"
        maxlength="40"
        class="mono"
        @update:model-value="changed"
      />
    </div>
    <v-btn v-if="lines.length < 8" variant="text" @click="lines.push({ sticker: '', shown: '' })"
      >One more sticker</v-btn
    >
    <ul v-if="found.problems.length > 0" class="faults" role="alert">
      <li v-for="problem in found.problems" :key="problem">{{ problem }}</li>
    </ul>
    <fieldset v-for="point in found.open" :key="point.about" class="open">
      <legend>? {{ point.ask }}</legend>
      <p class="quiet">{{ point.tell }}</p>
      <v-btn
        v-for="choice in point.choices"
        :key="choice.title"
        :variant="JSON.stringify(chosen[point.about]) === JSON.stringify(choice.change) ? 'flat' : 'outlined'"
        :color="JSON.stringify(chosen[point.about]) === JSON.stringify(choice.change) ? 'primary' : undefined"
        :aria-pressed="JSON.stringify(chosen[point.about]) === JSON.stringify(choice.change)"
        @click="chosen[point.about] = choice.change"
        >{{ choice.title }}</v-btn
      >
    </fieldset>
    <template v-if="rule && !isKept">
      <p role="status"><strong>Found:</strong> {{ words(rule) }}.</p>
      <v-btn
        color="primary"
        variant="tonal"
        :disabled="found.open.some(({ about }) => !chosen[about])"
        @click="emit('answer', { ...rule })"
        >Take this rule</v-btn
      >
      <p v-if="found.open.some(({ about }) => !chosen[about])" class="quiet">
        Answer what is open first: a guess would refuse good devices, or let a mistyped one through.
      </p>
    </template>
    <p v-if="fault" class="faults" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.ids {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.ids p {
  margin: 0;
}
.line {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  width: 100%;
}
.mono :deep(input) {
  font-family: var(--mono);
}
.open {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  border: 0;
  border-left: 4px solid rgb(var(--v-theme-info));
  padding: 4px 12px;
}
.open legend {
  float: left;
  width: 100%;
  font-weight: 650;
}
.open p {
  flex: 1 0 100%;
}
.faults {
  color: rgb(var(--v-theme-error));
  padding-left: 18px;
}
p.faults {
  padding: 0;
}
.kept {
  color: rgb(var(--v-theme-success));
}
@media (max-width: 600px) {
  .line {
    grid-template-columns: 1fr;
  }
}
</style>
