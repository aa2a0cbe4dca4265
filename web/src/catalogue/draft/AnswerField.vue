<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Answer, Catalogue, PlainForm } from '#core'

/** One answer of a simple form; what is typed goes out when the field is left, what is chosen at once. */
const props = defineProps<{
  form: PlainForm
  value: Answer['value'] | undefined
  label: string
  catalogue: Catalogue
  fault: string
  dense?: boolean
}>()
const emit = defineEmits<{ answer: [value: Answer['value'] | undefined] }>()

const typed = ref('')
const odd = ref('')
/** Whether somebody is typing here who has not left the field yet. */
const typing = ref(false)
const written = (now: Answer['value'] | undefined): string =>
  now == null ? '' : Array.isArray(now) ? now.join(', ') : String(now)
watch(
  () => props.value,
  (now) => {
    // What is half typed is not taken away by what a colleague answers meanwhile: both are shown.
    if (typing.value && typed.value.trim() !== written(now)) {
      odd.value = `Somebody else answered “${written(now)}” meanwhile: leave it so, or say yours`
      return
    }
    typed.value = written(now)
    odd.value = ''
  },
  { immediate: true },
)
const faults = computed(() => odd.value || props.fault)
const choices = computed(() => {
  const { form } = props
  if (form.is === 'one-of') return form.choices
  if (form.is === 'one-entry')
    return props.catalogue.all(form.kind).map(({ id, name }) => ({ value: id, title: name }))
  return []
})

const several = computed(() => (Array.isArray(props.value) ? props.value.map(String) : []))

/** Ticked, or by the order in which it was chosen. */
function mark(choice: string): string {
  const at = several.value.indexOf(choice)
  if (at < 0) return ''
  return props.form.is === 'some-of' && props.form.ordered ? `${at + 1}. ` : '✓ '
}

function turn(choice: string): void {
  const now = several.value.includes(choice)
    ? several.value.filter((one) => one !== choice)
    : [...several.value, choice]
  emit('answer', now.length > 0 ? now : undefined)
}

/** A part goes behind what is typed; where one types next stays where it is. */
function putIn(part: string): void {
  const text = `${typed.value.trimEnd()} ${part}`.trim()
  if (props.form.is === 'text' && text.length > props.form.most) {
    odd.value = `“${part}” does not fit: at most ${props.form.most} characters`
    return
  }
  typed.value = text
  say()
}

function say(): void {
  const text = typed.value.trim()
  typing.value = false
  odd.value = ''
  if (text === '') emit('answer', undefined)
  else if (props.form.is === 'words')
    emit(
      'answer',
      text
        .split(',')
        .map((word) => word.trim())
        .filter(Boolean),
    )
  else if (props.form.is !== 'number') emit('answer', text)
  else {
    const number = Number(text.replace(',', '.'))
    if (Number.isNaN(number))
      odd.value =
        `“${text}” is no number: from ${props.form.least} to ${props.form.most} ${props.form.unit}`.trim()
    else emit('answer', number)
  }
}
</script>

<template>
  <v-btn-toggle
    v-if="form.is === 'yes-no'"
    :model-value="value"
    variant="outlined"
    density="comfortable"
    divided
    :aria-label="label"
    role="group"
  >
    <v-btn :value="true" :aria-label="`${label} Yes`" @click="emit('answer', true)">Yes</v-btn>
    <v-btn :value="false" :aria-label="`${label} No`" @click="emit('answer', false)">No</v-btn>
  </v-btn-toggle>
  <v-btn-toggle
    v-else-if="form.is === 'one-of' && form.choices.length <= 4 && !dense"
    :model-value="value"
    variant="outlined"
    density="comfortable"
    divided
    class="few"
    :aria-label="label"
    role="group"
  >
    <v-btn
      v-for="choice in form.choices"
      :key="choice.value"
      :value="choice.value"
      @click="emit('answer', choice.value)"
      >{{ choice.title }}</v-btn
    >
  </v-btn-toggle>
  <v-autocomplete
    v-else-if="form.is === 'some-of' && dense"
    :model-value="several"
    :items="[...form.choices]"
    multiple
    chips
    closable-chips
    hide-details
    :label="label"
    :aria-label="label"
    @update:model-value="emit('answer', $event.length > 0 ? [...$event] : undefined)"
  />
  <div v-else-if="form.is === 'some-of'" class="some" role="group" :aria-label="label">
    <v-btn
      v-for="choice in form.choices"
      :key="choice.value"
      :variant="several.includes(choice.value) ? 'flat' : 'outlined'"
      :color="several.includes(choice.value) ? 'primary' : undefined"
      :aria-pressed="several.includes(choice.value)"
      height="40"
      @click="turn(choice.value)"
      >{{ mark(choice.value) }}{{ choice.title }}</v-btn
    >
    <span v-if="form.choices.length === 0" class="quiet"
      >Nothing in the catalogue yet: describe it first.</span
    >
    <p v-if="faults" class="fault" role="alert">{{ faults }}</p>
  </div>
  <v-autocomplete
    v-else-if="form.is === 'one-of' || form.is === 'one-entry'"
    :model-value="value ?? null"
    :items="choices"
    auto-select-first
    :aria-label="label"
    :label="dense ? label : undefined"
    :error-messages="faults"
    no-data-text="Nothing like it in the catalogue yet"
    @update:model-value="emit('answer', $event ?? undefined)"
  />
  <v-textarea
    v-else-if="form.is === 'text' && (form.lines ?? 1) > 1 && !form.offers"
    v-model="typed"
    :aria-label="label"
    :rows="form.lines"
    auto-grow
    :maxlength="form.most"
    :error-messages="faults"
    @input="typing = true"
    @change="say"
  />
  <div v-else-if="form.is === 'text' && form.offers && !dense" class="offering">
    <v-text-field
      v-model="typed"
      :aria-label="label"
      :maxlength="form.most"
      :error-messages="faults"
      @input="typing = true"
      @change="say"
    />
    <div class="some">
      <v-btn
        v-for="offer in form.offers"
        :key="offer"
        variant="outlined"
        height="40"
        class="offer"
        @click="emit('answer', offer)"
        >{{ offer }}</v-btn
      >
    </div>
  </div>
  <div v-else-if="form.is === 'text' && form.parts" class="composed">
    <v-text-field
      v-model="typed"
      :aria-label="label"
      :label="dense ? label : undefined"
      :maxlength="form.most"
      :error-messages="faults"
      @input="typing = true"
      @change="say"
    />
    <div class="some parts" role="group" aria-label="Put in">
      <v-btn
        v-for="part in form.parts"
        :key="part"
        variant="outlined"
        size="small"
        height="36"
        tabindex="-1"
        @pointerdown.prevent
        @click="putIn(part)"
        >{{ part }}</v-btn
      >
    </div>
  </div>
  <v-text-field
    v-else
    v-model="typed"
    :aria-label="label"
    :label="dense ? label : undefined"
    :suffix="form.is === 'number' ? form.unit : undefined"
    :inputmode="form.is === 'number' ? 'decimal' : undefined"
    :placeholder="form.is === 'words' ? 'one, two, three' : undefined"
    :maxlength="form.is === 'text' ? form.most : form.is === 'number' ? 10 : 200"
    :error-messages="faults"
    :class="form.is === 'number' ? 'number' : ''"
    @input="typing = true"
    @change="say"
  />
</template>

<style scoped>
.some {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.composed {
  position: relative;
}
/*
 * Only where one types: a list of steps would else be a wall of buttons. Above the field and out of the flow: nothing below moves
 * away under the finger that presses it next. A Tab goes on to the next field, not through them.
 */
.parts {
  position: absolute;
  bottom: calc(100% + 8px);
  left: 0;
  z-index: 2;
  width: max-content;
  max-width: min(90vw, 560px);
  padding: 6px;
  border-radius: 8px;
  background: rgb(var(--v-theme-surface));
  border: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
  box-shadow: 0 4px 14px rgb(0 0 0 / 25%);
}
.composed:not(:focus-within) .parts {
  display: none;
}
.offering {
  flex: 1 1 100%;
  display: grid;
  gap: 6px;
}
.offer {
  height: auto;
  min-height: 40px;
  white-space: normal;
  text-align: left;
}
.fault {
  color: rgb(var(--v-theme-error));
  margin: 0;
}
.few {
  flex-wrap: wrap;
  height: auto;
}
.few :deep(.v-btn) {
  min-height: 40px;
}
.number {
  max-width: 220px;
}
</style>
