<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Decides, Effect, Landing, Sketch } from '#core'
import { decidesWords, effectWords, landingWords } from './words-at-panel.ts'
import type { How } from './useAtPanel.ts'

/** What a key did, besides where it led; and what decides where it did something else before. */
const props = defineProps<{
  to: Landing
  sketch: Sketch
  did: string
  /** Whether something else was told before. */
  other: boolean
  deciding: readonly Decides[]
  /** Stored values that could decide. */
  values: readonly Decides[]
  passed: { readonly screen: string; readonly when: readonly Decides[] } | null
  begins: How['along']
  /** Where it was told to go along a row of questions: which way. */
  row: 'next' | 'previous' | null
}>()
const emit = defineEmits<{
  down: [how: How]
  passed: [guard: Decides['guard']]
  elsewhere: [where: 'before' | 'behind']
  cancel: []
}>()
const effect = ref<Effect>('none')
const beeped = ref(false)
const along = ref<How['along']>(props.begins)
const chosen = ref<number | null>(null)
const from = ref('')
const upto = ref('')
const fault = ref('')

const ways = [
  { value: 'no', title: 'just to that display' },
  { value: 'next', title: 'on along a row of questions' },
  { value: 'previous', title: 'back along a row of questions' },
  { value: 'end', title: 'out of a row, behind its last question' },
  { value: 'beginning', title: 'out of a row, before its first question' },
]
const effects = (Object.entries(effectWords) as [Effect, string][]).map(([value, title]) => ({
  value,
  title,
}))

const ALWAYS = -1
const BETWEEN = -2
/** What decides: always, one that holds, or that this is about a display that was passed over. */
const reasons = computed(() => [
  ...(props.row
    ? [{ value: BETWEEN, title: `“${props.to.screen}” stands between: it was passed over before` }]
    : []),
  { value: ALWAYS, title: 'it is always so: what was told before was wrong' },
  ...props.deciding.map((one, index) => ({ value: index, title: decidesWords(one) })),
  ...(props.values.length > 0 ? [{ value: VALUE, title: 'this, because something else is stored' }] : []),
])
const PASSED = 1000
const VALUE = 500
/** Stored values, as one reason with a list of its own. */
const value = ref<number | null>(null)
const stored = computed(() =>
  props.values.map(({ guard: { at, in: holds } }, index) => ({
    value: index,
    title: `${at ?? ''} is ${holds?.[0] === '' ? 'empty' : `“${holds?.[0] ?? ''}”`}`,
  })),
)
const skips = computed(() =>
  props.passed === null
    ? []
    : [
        ...props.passed.when.map((one, index) => ({
          value: PASSED + index,
          title: `“${props.passed?.screen ?? ''}” is passed over: ${decidesWords(one).replace('this, because ', '')}`,
        })),
        { value: PASSED - 1, title: `“${props.passed.screen}” comes before both in the row` },
        { value: PASSED - 2, title: `“${props.passed.screen}” comes behind both in the row` },
      ],
)
const picked = computed((): Decides | null => {
  const at = chosen.value
  if (at === null) return null
  if (at === VALUE) return (value.value === null ? null : props.values[value.value]) ?? null
  return (at >= PASSED ? props.passed?.when[at - PASSED] : props.deciding[at]) ?? null
})
/** The pointer whose range is to be said. */
const range = computed(() => {
  const entry = Object.entries(picked.value?.guard.pointer ?? {})[0]
  if (!entry || !Array.isArray(entry[1])) return null
  const [name, [first]] = entry as [string, [number, number]]
  return { name, at: first, pointer: props.sketch.pointers[name], of: picked.value?.of ?? 'now' }
})

/** The guard with the range that was said; null where it cannot be one. */
function guard(): Decides['guard'] | null {
  if (!picked.value) return null
  if (!range.value) return picked.value.guard
  const { name, at, pointer, of } = range.value
  const [a, b] = [Number(from.value), Number(upto.value)]
  const allowed = `from ${pointer?.from ?? 0} to ${pointer?.to ?? 999}`
  const isRange =
    from.value !== '' && upto.value !== '' && Number.isInteger(a) && Number.isInteger(b) && a <= b
  if (!isRange || a < (pointer?.from ?? 0) || b > (pointer?.to ?? 999)) {
    fault.value = `Say the first and the last ${name} of which it holds, ${allowed}.`
    return null
  }
  if (of === 'now' && (at < a || at > b)) {
    fault.value = `It holds now, at ${name} ${at}: that must be among them.`
    return null
  }
  return { pointer: { [name]: [a, b] } }
}

function down(): void {
  fault.value = ''
  if (props.other && chosen.value === null) {
    fault.value = 'Say what decides: one of those offered, or that it is always so.'
    return
  }
  if (chosen.value === VALUE && value.value === null) {
    fault.value = 'Say which stored value decides: one of those offered.'
    return
  }
  if (chosen.value === PASSED - 1) emit('elsewhere', 'before')
  else if (chosen.value === PASSED - 2) emit('elsewhere', 'behind')
  else if (chosen.value !== null && chosen.value >= PASSED) {
    const holds = guard()
    if (holds) emit('passed', holds)
  } else {
    const holds = picked.value ? guard() : null
    if (picked.value && !holds) return
    const decides = picked.value && holds ? { of: picked.value.of, guard: holds } : null
    const goes = chosen.value === BETWEEN && props.row ? props.row : along.value
    emit('down', { effect: effect.value, beeped: beeped.value, along: goes, decides })
  }
}
</script>

<template>
  <form class="how" @submit.prevent="down">
    <h4>{{ did }} led to {{ landingWords(to) }}</h4>
    <template v-if="other">
      <p>Another thing was told of it before. What decides?</p>
      <v-radio-group v-model="chosen" :error-messages="fault" hide-details="auto" aria-label="What decides">
        <v-radio
          v-for="one in [...skips, ...reasons]"
          :key="one.value"
          :value="one.value"
          :label="one.title"
        />
      </v-radio-group>
      <v-autocomplete
        v-if="chosen === VALUE"
        v-model="value"
        :items="stored"
        label="What is stored now"
        hide-details
      />
      <div v-if="range" class="range">
        <v-text-field
          v-model="from"
          :label="`First ${range.name}`"
          inputmode="numeric"
          hide-details
          maxlength="3"
        />
        <v-text-field
          v-model="upto"
          :label="`Last ${range.name}`"
          inputmode="numeric"
          hide-details
          maxlength="3"
        />
      </div>
    </template>
    <div class="range">
      <v-select v-model="along" :items="ways" label="Where it goes" hide-details />
      <v-select v-model="effect" :items="effects" label="What is keyed meanwhile" hide-details />
    </div>
    <v-checkbox v-model="beeped" label="It gave the sound of a key that does nothing" hide-details />
    <p v-if="fault && !other" class="fault" role="alert">{{ fault }}</p>
    <div class="range">
      <v-btn type="submit" color="primary" variant="flat" height="44">Put it down</v-btn>
      <v-btn variant="text" height="44" @click="emit('cancel')">Back to the keys</v-btn>
    </div>
  </form>
</template>

<style scoped>
.how {
  display: grid;
  gap: 8px;
}
h4,
p {
  margin: 0;
}
.range {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.range > * {
  flex: 0 1 260px;
}
.fault {
  color: rgb(var(--v-theme-error));
}
</style>
