<script setup lang="ts">
import { computed, ref } from 'vue'
import { numbersFor, presentBlocks, printNumber, recordsOf, stops, type Terminal } from '#core'
import { useRackMove } from './useRackMove.ts'
import { useJob } from '../../store/job-store.ts'

defineProps<{ lit: string | null }>()
const emit = defineEmits<{
  pick: [zone: string]
  point: [zone: string | null]
  focused: [zone: string | null]
}>()
const job = useJob()
const names = {
  wired: 'Wired',
  wireless: 'Wireless',
  fob: 'Fob buttons',
  'keypad-panic': 'Keypad calls',
  template: 'Template zones',
} as const

/** Numbers that no device may take: the panel has them spoken for. */
const none: ReadonlySet<number> = new Set()
const blocks = computed(() => {
  const { system } = job
  if (!system) return []
  const at = new Map<number, { id: string; label: string; count: number }>()
  for (const zone of recordsOf(job.doc, 'zone'))
    at.set(zone.number, {
      id: zone.id,
      label: zone.label || 'no label',
      count: (at.get(zone.number)?.count ?? 0) + 1,
    })
  const wrong = new Set(job.findings.filter(stops).map((finding) => finding.subject))
  const free = {
    wired: new Set(numbersFor({ doc: job.doc, system }, 'wired')),
    wireless: new Set(numbersFor({ doc: job.doc, system }, 'wireless')),
    fob: new Set(numbersFor({ doc: job.doc, system }, 'fob')),
    'keypad-panic': none,
    template: none,
  }
  return presentBlocks(job.doc, system).map((block) => ({
    name: names[block.use],
    use: block.use,
    places: Array.from({ length: block.to - block.from + 1 }, (_, index) => {
      const number = block.from + index
      const zone = at.get(number)
      const reserved = !free[block.use].has(number)
      return { number, zone, reserved, wrong: zone !== undefined && (wrong.has(zone.id) || zone.count > 1) }
    }),
  }))
})

const mover = useRackMove()
const terminal = ref<number | null>(null)
const terminalChoices = [
  { state: 'live', title: 'Live', why: 'left empty it reads open: never ready' },
  { state: 'off', title: 'Switched off', why: 'a radio device may take its number' },
  { state: 'sealed', title: 'Sealed with its end-of-line resistor', why: 'reads closed' },
] as const

function stateOf(number: number): Terminal['state'] {
  return recordsOf(job.doc, 'terminal').find((item) => item.number === number)?.state ?? 'live'
}

function setTerminal(state: Terminal['state']): void {
  const number = terminal.value
  terminal.value = null
  if (number === null) return
  const there = recordsOf(job.doc, 'terminal').find((item) => item.number === number)
  if (there) job.set('terminal.set', there.id, 'state', there.state, state)
  else
    job.edit('terminal.set', [
      { op: 'add', record: { id: `terminal:${number}`, type: 'terminal', number, state } },
    ])
}

type Place = (typeof blocks.value)[number]['places'][number]

/** A press shows the zone; while one is lifted it puts that zone here; an empty wired place asks for its terminal. */
function press(place: Place, use: string): void {
  if (mover.lifted.value) mover.drop(place.number)
  else if (place.zone) emit('pick', place.zone.id)
  else if (use === 'wired') terminal.value = place.number
}

/** M lifts a zone and arrows look for its place; Enter puts it there, Escape leaves it. */
function key(event: KeyboardEvent, place: Place): void {
  const buttons = [...document.querySelectorAll<HTMLButtonElement>('.rack .place')]
  const at = buttons.indexOf(event.currentTarget as HTMLButtonElement)
  const step = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 10, ArrowUp: -10 }[event.key]
  if (step !== undefined) {
    event.preventDefault()
    buttons[Math.min(Math.max(at + step, 0), buttons.length - 1)]?.focus()
  } else if (event.key.toLowerCase() === 'm' && place.zone && !event.ctrlKey && !event.metaKey) {
    event.stopPropagation()
    mover.lift(place.zone.id)
  } else if (event.key === 'Escape' && mover.lifted.value) {
    event.stopPropagation()
    mover.cancel()
  }
}

function look(place: Place): void {
  emit('focused', place.zone?.id ?? null)
  if (mover.lifted.value) mover.look(place.number)
}

function words(place: {
  number: number
  zone: { label: string } | undefined
  reserved: boolean
  wrong: boolean
}): string {
  const state = place.zone ? place.zone.label : place.reserved ? 'spoken for' : 'free'
  return `${printNumber(job.system?.panel ?? null, place.number)}: ${state}${place.wrong ? ', stops' : ''}`
}
</script>

<template>
  <aside class="rack sheet" aria-label="Numbered places of the panel">
    <section v-for="block in blocks" :key="`${block.name}${block.places[0]?.number}`">
      <h3>{{ block.name }}</h3>
      <div class="places">
        <button
          v-for="place in block.places"
          :id="`place-${block.use}-${place.number}`"
          :key="place.number"
          type="button"
          class="place num"
          :class="{
            used: place.zone,
            reserved: place.reserved && !place.zone,
            wrong: place.wrong,
            lit: place.zone && place.zone.id === lit,
            lifted: place.zone && place.zone.id === mover.lifted.value,
            may: mover.over.value === place.number && mover.verdict.value?.ok,
            refused: mover.over.value === place.number && mover.verdict.value?.ok === false,
          }"
          :title="words(place)"
          :aria-label="words(place)"
          :draggable="place.zone !== undefined"
          @mouseenter="emit('point', place.zone?.id ?? null)"
          @mouseleave="emit('point', null)"
          @blur="emit('focused', null)"
          @click="press(place, block.use)"
          @dragstart="place.zone && mover.lift(place.zone.id, $event)"
          @dragover="mover.hover(place.number, $event)"
          @drop.prevent="mover.drop(place.number)"
          @dragend="mover.cancel()"
          @keydown="key($event, place)"
          @focus="look(place)"
        >
          {{ printNumber(job.system?.panel ?? null, place.number) }}
        </button>
      </div>
    </section>
    <p class="say no-print" role="status" :class="{ refused: mover.verdict.value?.ok === false }">
      {{ mover.says.value }}
    </p>
    <v-menu
      v-if="terminal !== null"
      :model-value="true"
      :target="`#place-wired-${terminal}`"
      @update:model-value="terminal = null"
    >
      <v-list density="compact">
        <v-list-subheader>Wired terminal {{ terminal }}</v-list-subheader>
        <v-list-item
          v-for="choice in terminalChoices"
          :key="choice.state"
          :title="choice.title"
          :subtitle="choice.why"
          :active="stateOf(terminal) === choice.state"
          @click="setTerminal(choice.state)"
        />
      </v-list>
    </v-menu>
  </aside>
</template>

<style scoped>
.rack {
  padding: 8px 14px;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 20px;
  margin-bottom: 10px;
}
section {
  display: flex;
  gap: 8px;
}
h3 {
  font-size: 0.8125rem;
  line-height: 24px;
  white-space: nowrap;
}
.places {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
}
/* Apart by 24 px from middle to middle: the least that a finger is asked to hit. */
.place {
  font: inherit;
  font-family: var(--mono);
  font-size: 0.75rem;
  min-width: 22px;
  height: 22px;
  padding: 0 1px;
  text-align: center;
  border: 1px solid rgba(var(--v-theme-on-surface), 0.22);
  border-radius: 4px;
  background: transparent;
  color: rgba(var(--v-theme-on-surface), 0.75);
}
.used {
  background: rgb(var(--v-theme-primary));
  color: rgb(var(--v-theme-surface));
  font-weight: 650;
  cursor: pointer;
}
.lit {
  box-shadow: 0 0 0 3px rgb(var(--v-theme-secondary));
}
.lifted {
  outline: 2px dashed rgb(var(--v-theme-secondary));
}
.place.may {
  box-shadow: 0 0 0 3px rgb(var(--v-theme-success));
}
.place.refused {
  box-shadow: 0 0 0 3px rgb(var(--v-theme-error));
  cursor: not-allowed;
}
.say {
  flex: 1 1 200px;
  margin: 0;
  line-height: 24px;
  font-size: 0.8125rem;
  color: rgba(var(--v-theme-on-surface), 0.72);
}
.say.refused {
  color: rgb(var(--v-theme-error));
}
.reserved {
  background: repeating-linear-gradient(
    45deg,
    transparent 0 4px,
    rgba(var(--v-theme-on-surface), 0.16) 4px 6px
  );
}
.wrong {
  background: rgb(var(--v-theme-error));
  border: 2px dashed rgb(var(--v-theme-surface));
}
</style>
