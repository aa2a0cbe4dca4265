<script setup lang="ts">
import { computed, ref } from 'vue'
import {
  askedKinds,
  cellsAsked,
  cellsFrom,
  cellsOfBits,
  cellsOfField,
  cellsOfPointer,
  cellsOfValues,
  fieldCells,
  fieldFrom,
  formProblem,
  partsOf,
  screenName,
  templateOf,
  toldScreen,
  usualField,
  widgetFrom,
  type Answer,
  type AskedKind,
  type Catalogue,
  type Mark,
  type PanelModel,
  type Sketch,
  type SketchScreen,
  type Told,
} from '#core'
import GroupField from '../GroupField.vue'
import RowsField from '../RowsField.vue'

type Row = Readonly<Record<string, Answer['value']>>

/** A display is told: which signs of it change, what is asked on it, and what it stores. */
const props = defineProps<{
  lines: readonly string[]
  sketch: Sketch
  model: PanelModel
  catalogue: Catalogue
  /** Numbers of the display before. */
  pointers: Readonly<Record<string, number>>
  /** A display that was told before and is told anew. */
  name: string | null
}>()
const emit = defineEmits<{ told: [told: readonly Told[], name: string]; away: []; cancel: [] }>()

/** Values that no plan has words for, as this person calls them. */
const own = ref('')
const owned = ref<readonly string[]>([])
function addOwn(): void {
  const slug = own.value
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 30)
  if (slug !== '' && !owned.value.includes(`panel.${slug}`)) owned.value = [...owned.value, `panel.${slug}`]
  own.value = ''
}
/** With what this person calls by a word of their own. */
const offered = computed((): Sketch => ({
  ...props.sketch,
  fields: {
    ...props.sketch.fields,
    ...Object.fromEntries(owned.value.map((at) => [at, { form: { kind: 'digits' as const } }])),
  },
}))

const before = props.name === null ? null : (props.sketch.screens[props.name] ?? null)
const asked = before?.widget ? cellsFrom(before.widget) : null
const kind = ref<AskedKind | null>(asked?.kind ?? null)
const cells = ref<Row>((asked?.cells ?? {}) as Row)
const bits = ref<readonly Row[]>((asked?.bits ?? []) as readonly Row[])
const patterns = ref((asked?.patterns ?? []).join(' '))
const note = ref(before?.note ?? '')
const templates = ref([...(before?.lines ?? [])])

/** Marks by the place of their part; an end of a line has one of its own. */
const marks = ref<Readonly<Record<string, Mark>>>({})
const parts = computed(() =>
  before
    ? []
    : [
        ...partsOf(props.sketch, props.lines, props.pointers),
        ...props.lines.map((text, line) => ({
          ...{ line, from: text.length, to: text.length, text: '', pointers: [] as readonly string[] },
        })),
      ].toSorted((a, b) => a.line - b.line || a.from - b.from),
)
const place = ({ line, from, to }: { line: number; from: number; to: number }): string =>
  `${line} ${from} ${to}`
/** Signs side by side that are one thing are marked as one. */
const joined = computed(() => {
  const all = Object.values(marks.value).toSorted((a, b) => a.line - b.line || a.from - b.from)
  return all.reduce<Mark[]>((list, mark) => {
    const last = list.at(-1)
    const between = last?.line === mark.line ? (props.lines[mark.line] ?? '').slice(last.to, mark.from) : 'x'
    if (last?.is !== mark.is || between.trim() !== '') return [...list, mark]
    return [...list.slice(0, -1), { ...last, to: mark.to }]
  }, [])
})
const lines = computed(() => (before ? templates.value : templateOf(props.lines, joined.value)))

/** Numbers that displays go by, as most panels have them. */
const usual = ['zone', 'fob', 'keypad', 'siren', 'area']
const stored = [
  { value: 'buf', title: 'typed, else stored, as it names it' },
  { value: 'raw', title: 'typed, else stored, as it was typed' },
  { value: 'value', title: 'stored, as it names it' },
  { value: 'typed', title: 'what is typed' },
]
/** What can stand on a display besides text, by what is asked there. */
const standing: Partial<Readonly<Record<AskedKind, typeof stored>>> = {
  jump: [{ value: 'typed', title: 'what is typed' }],
  code: [{ value: 'typed', title: 'what is typed' }],
  ...{ number: stored, text: stored, words: stored, serial: stored },
  yesno: [{ value: 'value', title: 'stored, as it names it' }],
  choice: [
    { value: 'row', title: 'the one of the list' },
    { value: 'value', title: 'stored, as it names it' },
  ],
  options: [{ value: 'lit', title: 'the lights that are on' }],
}
/** What a part of the display may be: numbers where it is digits, else what the question shows. */
function meanings({ text, pointers }: (typeof parts.value)[number]) {
  const isNumber = /^\d+$/.test(text)
  const more = usual.filter((name) => isNumber && text.length <= 3 && !props.sketch.pointers[name])
  const shown = kind.value === 'summary' || kind.value === 'menu' ? Object.keys(props.sketch.fields) : []
  return [
    { value: '', title: 'always the same' },
    ...[...pointers, ...more].map((name) => ({ value: name, title: `the number of the ${name}` })),
    ...((kind.value && standing[kind.value]) ?? []),
    ...shown.map((at) => ({ value: `@${at}@`, title: `stored as ${titleOf(at)}` })),
    ...(text === '' ? [] : [{ value: 'live', title: 'changes by itself' }]),
  ]
}
/** Words are text on most displays; where they can be a value they are asked, too. */
const wordsToo = ref(false)
const asksValue = computed(
  () => wordsToo.value || ['yesno', 'choice', 'options', 'summary'].includes(kind.value ?? 'menu'),
)
const askedParts = computed(() =>
  parts.value.filter(({ text }) => asksValue.value || !/^\p{L}+$/u.test(text)),
)
function meaning(part: (typeof parts.value)[number], is: string): void {
  const { [place(part)]: _was, ...others } = marks.value
  marks.value =
    is === '' ? others : { ...others, [place(part)]: { line: part.line, from: part.from, to: part.to, is } }
}

const form = computed(() => (kind.value ? cellsAsked(offered.value, props.model, kind.value) : []))
const bitForm = computed(() => ({
  ...{ is: 'rows' as const, most: 16, row: 'light', pick: 'key' },
  cells: cellsOfBits(offered.value, props.model),
}))
const titles = computed(() => {
  const at = cellsOfBits(offered.value, props.model).find(({ key }) => key === 'at')?.form
  return new Map(at?.is === 'one-of' ? at.choices.map(({ value, title }) => [value, title]) : [])
})
const titleOf = (address: string): string => titles.value.get(address) ?? address
/** A key that another question had is not one of this. */
function choose(to: AskedKind | null): void {
  kind.value = to
  const kept = to ? cellsAsked(props.sketch, props.model, to).map(({ key }) => key) : []
  cells.value = Object.fromEntries(Object.entries(cells.value).filter(([key]) => kept.includes(key)))
}

const addresses = computed(() => {
  const set = [cells.value.at, cells.value.loopAt, ...bits.value.map(({ at }) => at)]
  const own = kind.value === null ? [] : set
  return [...new Set(own.filter((one): one is string => typeof one === 'string' && one !== ''))]
})
/** Addresses that nobody has told yet, with what is usually stored there. */
const newAddresses = computed(() => addresses.value.filter((at) => !props.sketch.fields[at]))
const fields = ref<Readonly<Record<string, { readonly cells: Row; readonly values: readonly Row[] }>>>({})
const fieldAt = (at: string) =>
  fields.value[at] ??
  (() => {
    const field = usualField(props.model, at)
    return field
      ? (fieldCells(field) as { cells: Row; values: readonly Row[] })
      : { cells: {} as Row, values: [] as readonly Row[] }
  })()
function setField(at: string, more: { cells?: Row; values?: readonly Row[] }): void {
  fields.value = { ...fields.value, [at]: { ...fieldAt(at), ...more } }
}
const kindAt = (at: string) => (fieldAt(at).cells.kind ?? null) as Parameters<typeof cellsOfField>[0]

const namesIn = (text: string): string[] =>
  [...text.matchAll(/\{([a-zA-Z0-9-]+)\}/g)].map((match) => match[1] ?? '')
const reserved = ['typed', 'buf', 'raw', 'value', 'row', 'lit']
const patternList = computed(() => patterns.value.split(/[\s,;]+/).filter((one) => one !== ''))
const newPointers = computed(() => {
  const named = [...lines.value, ...addresses.value, ...(kind.value === 'jump' ? patternList.value : [])]
  const all = named.flatMap(namesIn).filter((name) => !reserved.includes(name))
  return [...new Set(all)].filter((name) => !props.sketch.pointers[name])
})
const numbers = ref<Readonly<Record<string, Row>>>({})
/** How many digits it is printed with is seen on the display. */
const numberAt = (name: string): Row => {
  const mark = joined.value.find(({ is }) => is === name)
  return { from: 1, ends: 'stop', ...(mark ? { digits: mark.to - mark.from } : {}), ...numbers.value[name] }
}

const tried = ref(false)
const faults = computed(() => {
  const group = (list: typeof form.value, row: Row): string =>
    list.length > 0 ? formProblem({ is: 'group', cells: list }, row) : ''
  const pointers = newPointers.value.map((name) => [
    `number ${name}`,
    group(cellsOfPointer, numberAt(name)) ||
      (Number(numberAt(name).from) > Number(numberAt(name).to) ? 'must not end before it begins' : ''),
  ])
  const stored = newAddresses.value.map((at) => [
    `field ${at}`,
    group(cellsOfField(kindAt(at)), fieldAt(at).cells) ||
      (kindAt(at) === 'list'
        ? formProblem({ is: 'rows', most: 60, row: 'value', cells: cellsOfValues }, [...fieldAt(at).values])
        : ''),
  ])
  const widget =
    kind.value === null
      ? 'say what is asked here: one of those offered'
      : group(form.value, cells.value) ||
        (kind.value === 'options' ? formProblem(bitForm.value, [...bits.value]) : '') ||
        (kind.value === 'jump' && patternList.value.length === 0
          ? 'name at least one number that leads on, such as 14 or {zone}'
          : '')
  return Object.fromEntries(
    [...pointers, ...stored, ['asked', widget]].filter(([, message]) => message !== ''),
  )
})

function tell(): void {
  tried.value = true
  if (Object.keys(faults.value).length > 0 || kind.value === null) return
  const name = props.name ?? screenName(props.sketch, lines.value)
  const screen: SketchScreen = {
    ...(before ?? { keys: {}, holds: {}, skip: [] }),
    lines: lines.value.map((line) => line.trimEnd()),
    note: note.value.trim(),
    widget: widgetFrom(
      { kind: kind.value, cells: cells.value, bits: bits.value, patterns: patternList.value },
      before?.widget ?? null,
    ),
  }
  emit(
    'told',
    [
      ...newPointers.value.map((one): Told => {
        const { digits, ...rest } = numberAt(one)
        return [`pointers.${one}`, { ...rest, ...(typeof digits === 'number' ? { digits } : {}) } as Told[1]]
      }),
      ...newAddresses.value.map((at): Told => [
        `fields.${at}`,
        fieldFrom(fieldAt(at).cells, fieldAt(at).values) as Told[1],
      ]),
      toldScreen(name, screen),
    ],
    name,
  )
}
const kindItems = Object.entries(askedKinds).map(([value, { title, why }]) => ({
  value,
  title,
  props: { subtitle: why },
}))
</script>

<template>
  <form class="tell" @submit.prevent="tell">
    <template v-if="before">
      <h4>What of it may change stands in braces</h4>
      <v-text-field
        v-for="(_, index) in templates"
        :key="index"
        v-model="templates[index]"
        :label="`Line ${index + 1}`"
        maxlength="80"
        hide-details
        class="mono"
      />
    </template>
    <h4>{{ before ? 'What is asked here?' : 'A display that was not told yet. What is asked here?' }}</h4>
    <v-select
      :model-value="kind"
      :items="kindItems"
      label="What is asked here"
      hide-details="auto"
      :error-messages="tried && kind === null ? faults.asked : ''"
      @update:model-value="choose"
    />
    <template v-if="!before && kind">
      <h4>What of it changes?</h4>
      <p class="quiet">What is not said here is always the same.</p>
      <div class="parts">
        <v-select
          v-for="part in askedParts"
          :key="place(part)"
          :model-value="marks[place(part)]?.is ?? ''"
          :items="meanings(part)"
          :label="part.text === '' ? `Behind line ${part.line + 1}` : `What “${part.text}” is`"
          density="compact"
          hide-details
          class="part"
          @update:model-value="meaning(part, $event)"
        />
      </div>
      <v-checkbox
        v-if="!asksValue || wordsToo"
        v-model="wordsToo"
        label="A word of it changes, too"
        density="compact"
        hide-details
      />
      <p class="mono">
        <template v-for="(line, index) in lines" :key="index">{{ line }}<br /></template>
      </p>
    </template>
    <GroupField
      v-if="kind && form.length > 0"
      :cells="form"
      :value="cells"
      label="What is asked here"
      :catalogue="catalogue"
      :fault="tried ? (faults.asked ?? '') : ''"
      @answer="cells = ($event ?? {}) as Row"
    />
    <div v-if="form.some(({ key }) => key === 'at') || kind === 'options'" class="acts">
      <v-text-field
        v-model="own"
        label="It stores something else: what, in your words"
        maxlength="40"
        hide-details
        @keydown.enter.prevent="addOwn"
      />
      <v-btn variant="tonal" height="44" :disabled="own.trim() === ''" @click="addOwn">Offer it above</v-btn>
    </div>
    <v-text-field
      v-if="kind === 'jump'"
      v-model="patterns"
      label="What can be typed, blanks between"
      placeholder="14 15 {zone} 81{zone}"
      hint="A number of a zone or fob stands in braces: {zone}"
      persistent-hint
      maxlength="600"
      class="mono"
    />
    <RowsField
      v-if="kind === 'options'"
      :form="bitForm"
      :value="bits as Answer['value']"
      label="Lights"
      :catalogue="catalogue"
      :fault="tried ? (faults.asked ?? '') : ''"
      @answer="bits = ($event ?? []) as readonly Row[]"
    />
    <section v-for="at in newAddresses" :key="at" class="new" :aria-label="`Stored as ${titleOf(at)}`">
      <h4>{{ titleOf(at) }}: what is stored there?</h4>
      <GroupField
        :cells="cellsOfField(kindAt(at))"
        :value="fieldAt(at).cells"
        :label="titleOf(at)"
        :catalogue="catalogue"
        :fault="tried ? (faults[`field ${at}`] ?? '') : ''"
        @answer="setField(at, { cells: ($event ?? {}) as Row })"
      />
      <RowsField
        v-if="kindAt(at) === 'list'"
        :form="{ is: 'rows', most: 60, row: 'value', cells: cellsOfValues }"
        :value="fieldAt(at).values as Answer['value']"
        :label="`Values of ${titleOf(at)}`"
        :catalogue="catalogue"
        fault=""
        @answer="setField(at, { values: ($event ?? []) as readonly Row[] })"
      />
    </section>
    <section v-for="one in newPointers" :key="one" class="new" :aria-label="`Numbers of the ${one}`">
      <h4>The number of the {{ one }}: from which to which?</h4>
      <GroupField
        :cells="cellsOfPointer"
        :value="numberAt(one)"
        :label="`Numbers of the ${one}`"
        :catalogue="catalogue"
        :fault="tried ? (faults[`number ${one}`] ?? '') : ''"
        @answer="numbers = { ...numbers, [one]: ($event ?? {}) as Row }"
      />
    </section>
    <v-text-field v-model="note" label="What to mind here, once on a sheet" maxlength="240" hide-details />
    <div class="acts">
      <v-btn type="submit" color="primary" variant="flat" height="44">{{
        before ? 'Put it right' : 'That is the display'
      }}</v-btn>
      <v-btn variant="text" height="44" @click="emit('cancel')">Back to the keys</v-btn>
      <v-btn v-if="before" variant="text" color="error" height="44" @click="emit('away')"
        >Take this display away</v-btn
      >
    </div>
  </form>
</template>

<style scoped>
.tell,
.new {
  display: grid;
  gap: 10px;
}
.new {
  padding-left: 12px;
  border-left: 3px solid rgb(var(--v-theme-primary));
}
h4 {
  margin: 4px 0 0;
}
.parts,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.part {
  flex: 1 1 210px;
  max-width: 320px;
}
.mono,
.mono :deep(input) {
  font-family: var(--mono);
  white-space: pre-wrap;
  margin: 0;
}
</style>
