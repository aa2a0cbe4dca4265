<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { v4 as uuid } from 'uuid'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { houseFromKit, readHouse, recordsOf, writeHouse, type HouseReading } from '#core'
import { useJob } from '../../store/job-store.ts'
import { useShortcuts } from '../../job/useShortcuts.ts'
import HousePicture from './HousePicture.vue'
import HouseTables from './HouseTables.vue'

const job = useJob()
const text = ref('')
const area = useTemplateRef<HTMLTextAreaElement>('area')
useShortcuts('Survey', [
  { keys: 'H', title: 'Describe the house', run: () => area.value?.focus() },
  { keys: 'Ctrl + Enter', title: 'Take the described lines in' },
])
const empty: HouseReading = { lines: [], ops: [] }
const reading = ref<HouseReading>(empty)
const read = (): void => {
  reading.value = text.value.trim() === '' ? empty : readHouse(text.value, job.doc, uuid)
}
const readSoon = useDebounceFn(read, 150)
watch(text, () => void readSoon())
const bad = computed(() => reading.value.lines.filter((line) => !line.ok))
/** What is wrong stands first: it may be far down in the text. */
const lines = computed(() => [...bad.value, ...reading.value.lines.filter((line) => line.ok)])
const rooms = computed(() => recordsOf(job.doc, 'room').length)
const fromKit = computed(() => (job.system ? houseFromKit(job.doc, job.system) : ''))
const said = ref('')

/** What is good goes in as one edit; lines with a fault stay to be put right. */
function take(): void {
  read()
  const { lines, ops } = reading.value
  if (lines.length === 0) return
  if (ops.length > 0) job.edit('house.words', ops)
  const changed = lines.filter((line) => line.changes).length
  const left = bad.value.map((line) => line.text)
  said.value = `${changed} ${changed === 1 ? 'line' : 'lines'} taken in${left.length > 0 ? `, ${left.length} left to put right` : ''}.`
  text.value = left.join('\n')
}

/** From a box of the picture to what is said of the room. */
function goTo(room: string): void {
  const row = document.getElementById(room)
  row?.scrollIntoView({ block: 'center' })
  row?.querySelector('input')?.focus({ preventScroll: true })
}

function begin(lines: string): void {
  text.value = lines
  said.value = ''
}
</script>

<template>
  <section class="sheet pa-5" aria-labelledby="house-head">
    <div class="head">
      <h2 id="house-head">The house</h2>
      <span v-if="rooms === 0" class="quiet small"
        >Tells how people come in and how long they need: from it follow uses, delays and reading order. All
        of it is optional.</span
      >
    </div>
    <HousePicture @room="goTo" />
    <h3 v-if="rooms > 0" class="words no-print">In words</h3>
    <div class="both no-print">
      <div>
        <label class="quiet small" for="house-text"
          >A line each for a room, a way, an opening. Ctrl + Enter takes them in.</label
        >
        <textarea
          id="house-text"
          ref="area"
          v-model="text"
          :rows="rooms > 0 ? 5 : 9"
          spellcheck="false"
          placeholder="Porch:
Hall: floor Ground
Porch - Hall 4
Hall - Landing 6 stairs
Front door in Porch: every day
Study window in Study: never"
          @keydown.ctrl.enter.prevent="take"
          @keydown.meta.enter.prevent="take"
        />
        <div class="acts">
          <v-btn color="primary" class="text-none" :disabled="text.trim() === ''" @click="take"
            >Take it in</v-btn
          >
          <v-btn v-if="fromKit" variant="tonal" class="text-none" @click="begin(fromKit)"
            >Begin from the kit</v-btn
          >
          <v-btn v-if="rooms > 0" variant="text" class="text-none" @click="begin(writeHouse(job.doc))"
            >Edit all as words</v-btn
          >
          <span class="quiet small" role="status">{{ said }}</span>
        </div>
      </div>
      <div class="reading" aria-live="polite" aria-label="As it is understood">
        <p v-if="reading.lines.length === 0" class="quiet small">
          What you type is read back here before it is taken in. A room may say: kitchen, hall, bedroom,
          workshop, garage, store, outdoors · unheated · sleeps · pet 18 · metal · compartment North · floor
          Upper. An opening: every day · now and then · never · not in stay. An inner one:
          <em>Glass door between Hall and Studio</em>.
        </p>
        <ol v-else>
          <li v-for="line in lines" :key="line.line" :class="{ wrong: !line.ok }">
            <template v-if="line.ok"
              ><span aria-hidden="true">{{ line.changes ? '+' : '=' }}</span> {{ line.says
              }}<span v-if="!line.changes" class="quiet"> (as it is)</span></template
            >
            <template v-else>■ Line {{ line.line }}, “{{ line.text }}”: {{ line.says }}.</template>
          </li>
        </ol>
      </div>
    </div>
    <HouseTables v-if="rooms > 0" />
  </section>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  align-items: baseline;
}
.words {
  margin-top: 18px;
}
.both {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 8px 20px;
  margin-top: 10px;
}
textarea {
  width: 100%;
  font-family: var(--mono);
  font-size: 0.875rem;
  line-height: 1.5;
  color: inherit;
  background: rgb(var(--v-theme-background));
  border: 1px solid rgba(var(--v-theme-on-surface), 0.35);
  border-radius: 6px;
  padding: 8px 10px;
  resize: vertical;
}
textarea::placeholder {
  color: rgba(var(--v-theme-on-surface), 0.55);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-top: 6px;
}
.reading {
  font-size: 0.875rem;
  max-height: 300px;
  overflow: auto;
}
ol {
  list-style: none;
  padding: 0;
  margin: 0;
}
.wrong {
  color: rgb(var(--v-theme-error));
}
.small {
  font-size: 0.8125rem;
}
@media (max-width: 800px) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
