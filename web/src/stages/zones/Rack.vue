<script setup lang="ts">
import { computed, ref } from 'vue'
import { liveTerminals, presentBlocks, printNumber, recordsOf, type Terminal } from '#core'
import { useJob } from '../../job/job-store.ts'

const emit = defineEmits<{ pick: [zone: string] }>()
const job = useJob()
const names = {
  wired: 'Wired',
  wireless: 'Wireless',
  fob: 'Fob buttons',
  'keypad-panic': 'Keypad calls',
  template: 'Template zones',
} as const

const blocks = computed(() => {
  const { system } = job
  if (!system) return []
  const live = liveTerminals(job.doc, system)
  const at = new Map<number, { id: string; label: string; count: number }>()
  for (const zone of recordsOf(job.doc, 'zone'))
    at.set(zone.number, {
      id: zone.id,
      label: zone.label || 'no label',
      count: (at.get(zone.number)?.count ?? 0) + 1,
    })
  const wrong = new Set(
    job.findings.filter((finding) => finding.severity === 'stops').map((finding) => finding.subject),
  )
  return presentBlocks(job.doc, system).map((block) => ({
    name: names[block.use],
    use: block.use,
    places: Array.from({ length: block.to - block.from + 1 }, (_, index) => {
      const number = block.from + index
      const zone = at.get(number)
      const reserved = block.use === 'keypad-panic' || (block.use === 'wireless' && live.has(number))
      return { number, zone, reserved, wrong: zone !== undefined && (wrong.has(zone.id) || zone.count > 1) }
    }),
  }))
})

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
          :class="{ used: place.zone, reserved: place.reserved && !place.zone, wrong: place.wrong }"
          :title="words(place)"
          :aria-label="words(place)"
          :disabled="!place.zone && block.use !== 'wired'"
          @click="place.zone ? emit('pick', place.zone.id) : (terminal = place.number)"
        >
          {{ printNumber(job.system?.panel ?? null, place.number) }}
        </button>
      </div>
    </section>
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
  padding: 10px 14px;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
  margin-bottom: 14px;
}
.places {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  margin-top: 4px;
}
.place {
  font: inherit;
  font-family: var(--mono);
  font-size: 0.75rem;
  width: 24px;
  height: 24px;
  padding: 0;
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
