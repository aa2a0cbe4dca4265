<script setup lang="ts">
import { mdiArrowLeft } from '@mdi/js'
import { computed } from 'vue'
import { systemOf, type ExplainedAnswer, type ExplainStart, type KeyEffect } from '#core'
import LongList from '../../shared/LongList.vue'
import { useJob } from '../../store/job-store.ts'
import DisplayBox from './DisplayBox.vue'
import KeysText from './KeysText.vue'
import { useExplain } from './useExplain.ts'

/** Keys that somebody wrote by hand, acted out at the job's panel: what each does, beside the plan. Nothing of it is noted. */
const props = defineProps<{ start: ExplainStart }>()
defineEmits<{ close: [] }>()
const job = useJob()
const { text, start, told, wrong, failed } = useExplain(props.start)
const panel = computed(() => systemOf(job.doc, job.catalogue).panel)
const description = computed(() => job.catalogue.get('interface', panel.value?.interface ?? null))
const rows = computed(() => description.value?.keys ?? [])
/** Whose codes this panel asks for. */
const codes = computed(() => {
  const widgets = Object.values(description.value?.screens ?? {}).map(({ widget }) => widget)
  return [...new Set(widgets.flatMap((one) => (one.kind === 'code' ? [`(${one.who} code)`] : [])))].sort()
})
const starts: readonly { readonly value: ExplainStart; readonly title: string }[] = [
  { value: 'factory', title: 'as it comes from the maker' },
  { value: 'keyed', title: 'as it was last keyed from here' },
  { value: 'plan', title: 'as the plan wants it' },
]
const items = computed(() =>
  (told.value?.lines ?? []).map((line, index) => ({ id: String(index), number: index + 1, line })),
)
const otherwise = computed(() => (told.value?.answers ?? []).filter(({ plan }) => plan === 'otherwise'))
const planned = computed(() => (told.value?.answers ?? []).filter(({ plan }) => plan === 'planned').length)
const open = computed(
  () => (told.value?.answers ?? []).filter(({ plan }) => plan === 'open' || plan === 'unasked').length,
)
const idle = computed(
  () => items.value.filter(({ line }) => line.did.some(({ kind }) => kind === 'nothing')).length,
)
const lost = computed(() =>
  items.value
    .flatMap(({ line }) => line.did)
    .reduce((sum, did) => sum + (did.kind === 'dropped' ? did.count : 0), 0),
)

/** Adds a key as it is written: a digit as it is, a name in brackets. */
function add(key: string): void {
  const before = text.value
  const joins = /\d$/.test(before) && key.length === 1
  text.value = `${before}${before === '' || joins ? '' : ' '}${key.length === 1 ? key : `[${key}]`}`
}

const count = (number: number, one: string, many: string): string => `${number} ${number === 1 ? one : many}`
function beside({ plan, wanted }: ExplainedAnswer): string {
  switch (plan) {
    case 'planned':
      return ''
    case 'otherwise':
      return ` — the plan wants ${wanted}`
    case 'open':
      return ' — the plan leaves it open'
    case 'unasked':
      return ' — not asked for the type that the plan has there'
  }
}
function effect(did: KeyEffect): { mark: string; text: string; is: 'good' | 'bad' | 'note' } {
  switch (did.kind) {
    case 'answered': {
      const told = `${did.part}, ${did.field}: ${did.words}${beside(did)}`
      if (did.plan === 'planned') return { mark: '✓', text: told, is: 'good' }
      return did.plan === 'otherwise'
        ? { mark: '■', text: told, is: 'bad' }
        : { mark: '◇', text: told, is: 'note' }
    }
    case 'kept':
      return { mark: '✓', text: `${count(did.count, 'answer is', 'answers are')} kept`, is: 'good' }
    case 'dropped':
      return { mark: '■', text: `${count(did.count, 'answer is', 'answers are')} lost unkept`, is: 'bad' }
    case 'wiped':
      return { mark: '■', text: 'everything is as it came from the maker', is: 'bad' }
    case 'nothing':
      return { mark: '▲', text: 'means nothing here', is: 'bad' }
    case 'says':
      return { mark: '▲', text: `the panel answers “${did.text}”`, is: 'bad' }
    case 'listens':
      return { mark: '◇', text: `listens for ${did.seconds} s`, is: 'note' }
  }
}
</script>

<template>
  <section class="explain" aria-label="Check keys">
    <div class="write">
      <v-btn
        variant="text"
        size="small"
        class="text-none back"
        :prepend-icon="mdiArrowLeft"
        @click="$emit('close')"
        >The sheet</v-btn
      >
      <v-select
        v-model="start"
        label="What the panel holds before the first key"
        :items="[...starts]"
        hide-details
      />
      <v-textarea
        v-model="text"
        label="Keys, in the order in which they are pressed"
        rows="7"
        max-rows="16"
        auto-grow
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        class="written"
        :error-messages="wrong ?? []"
      />
      <div class="pad" role="group" :aria-label="`Keys of the ${panel?.name ?? 'panel'}`">
        <div v-for="(row, index) in rows" :key="index" class="row">
          <v-btn
            v-for="key in row"
            :key="key"
            variant="tonal"
            size="small"
            class="text-none key"
            @click="add(key)"
            >{{ key }}</v-btn
          >
        </div>
      </div>
      <p class="quiet small">
        Also: <code>[{{ rows.at(-1)?.[0] }}] ×3</code>, <code>[{{ rows.at(-1)?.[0] }}] for 5 s</code>,
        <code>wait 40 s</code>, <code>(hears ID input)</code> for a device that transmits.
        <template v-if="codes.length > 0"
          >For a code write <code>{{ codes.join(' or ') }}</code>, never the code itself.</template
        >
        Nothing here is noted in the job.
      </p>
    </div>
    <div class="told" aria-live="polite">
      <p v-if="failed" class="bad">▲ This could not be worked out here. Load the page again.</p>
      <p v-else-if="!told && !wrong" class="quiet empty">
        Type or paste keys, from a sheet written by hand or as you remember pressing them: what each does at
        the
        {{ panel?.name }} appears here, beside what the plan wants.
      </p>
      <template v-else-if="told">
        <div class="sum">
          <strong>{{ count(told.inputs, 'key', 'keys') }}</strong>:
          {{ count(planned, 'answer', 'answers') }} as planned<template v-if="otherwise.length > 0"
            >, <strong class="bad">{{ otherwise.length }} otherwise</strong></template
          ><template v-if="open > 0">, {{ open }} that the plan does not ask for</template
          ><template v-if="idle > 0"
            >,
            <strong class="bad">{{ count(idle, 'key means', 'keys mean') }} nothing there</strong></template
          ><template v-if="lost > 0"
            >, <strong class="bad">{{ count(lost, 'answer', 'answers') }} lost</strong></template
          >.
          <span v-if="told.unsaved > 0" class="bad"
            >▲ {{ count(told.unsaved, 'answer is', 'answers are') }} not kept yet where the keys end.</span
          >
          <span v-if="told.wanted > 0" class="quiet">
            {{
              told.missing === 0
                ? `All ${told.wanted} values that the plan wants stand there.`
                : `Of ${told.wanted} values that the plan wants, ${told.missing} do not stand there.`
            }}
          </span>
          <p v-if="idle > 0 && idle === items.length">
            They begin outside, where the panel shows <DisplayBox :lines="items[0]?.line.shows ?? []" />:
            write the way in before them, as the sheet has it.
          </p>
          <ul v-if="otherwise.length > 0">
            <li v-for="one in otherwise" :key="one.address" class="bad">
              ■ {{ one.part }}, {{ one.field }}: {{ one.words || 'nothing' }}{{ beside(one) }}
            </li>
          </ul>
        </div>
        <LongList v-slot="{ item: { number, line } }" :items="items" tag="div" class="lines" :row="52">
          <div class="line">
            <span class="number quiet">{{ number }}</span>
            <KeysText :text="line.keys" class="pressed" />
            <DisplayBox :lines="line.shows" class="shown" />
            <div class="did">
              <div v-for="(one, index) in line.did.map(effect)" :key="index" :class="one.is">
                {{ one.mark }} {{ one.text }}
              </div>
            </div>
          </div>
        </LongList>
      </template>
    </div>
  </section>
</template>

<style scoped>
.explain {
  display: grid;
  grid-template-columns: minmax(280px, 380px) minmax(0, 1fr);
  gap: 24px;
  align-items: start;
}
.write {
  position: sticky;
  top: 12px;
  display: grid;
  gap: 12px;
}
.back {
  justify-self: start;
}
.written :deep(textarea) {
  font-family: var(--mono);
}
.pad {
  display: grid;
  gap: 4px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.key {
  min-width: 52px;
  min-height: 36px;
}
.small {
  font-size: 0.8125rem;
}
code {
  font-family: var(--mono);
}
.sum {
  padding: 12px 14px;
  margin-bottom: 12px;
  background: rgba(var(--v-theme-on-surface), 0.04);
  border-radius: 8px;
}
.sum ul {
  padding: 0;
  margin: 6px 0 0;
  list-style: none;
}
.line {
  display: grid;
  grid-template-columns: 2.2em minmax(110px, 0.7fr) minmax(196px, 0.8fr) minmax(0, 1.3fr);
  gap: 10px;
  align-items: start;
  padding: 6px 0;
  border-top: 1px solid rgba(var(--v-theme-on-surface), 0.12);
}
.number {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.shown {
  justify-self: start;
}
.bad {
  font-weight: 600;
  color: rgb(var(--v-theme-warning));
}
@media (width < 860px) {
  .explain {
    grid-template-columns: minmax(0, 1fr);
  }
  .write {
    position: static;
  }
  .line {
    grid-template-columns: 2.2em minmax(0, 1fr);
  }
  .shown,
  .did {
    grid-column: 2;
  }
}
</style>
