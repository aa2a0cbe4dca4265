<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, defineAsyncComponent } from 'vue'
import {
  delayNeeds,
  delaySets,
  entryWays,
  formatSeconds,
  houseOf,
  openingName,
  paceOf,
  type EntryWay,
} from '#core'
import { useJob } from '../../store/job-store.ts'
import { vStack } from '../../shared/stack.ts'

/** The chart comes when somebody opens it. */
const BudgetChart = defineAsyncComponent(() => import('./BudgetChart.vue'))
const job = useJob()
const open = useLocalStorage('kapelle-entry-budget', false)
const ways = computed<readonly EntryWay[]>(() => {
  const { system } = job
  if (!system) return []
  const { figures } = job.rules
  return entryWays(houseOf(job.doc, system, figures), system, figures)
})
const nearest = computed(() => ways.value.filter((way) => way.nearest))
const needs = computed(() => delayNeeds(ways.value))
const info = computed(() => job.system?.info ?? null)
/** The entry delay that counts at a door: of its area where that has one of its own, else of the job. */
const chosen = (way: EntryWay): number | null => {
  const { system } = job
  if (!system) return null
  const area = houseOf(job.doc, system, job.rules.figures).areaOf(way.door.room)
  const key = way.delay === 1 ? 'entry1' : 'entry2'
  const sets = delaySets(job.doc, system.panel)
  return sets.find((set) => set.id === area)?.values[key] ?? info.value?.[key] ?? null
}

/** What is lacking, each with where it is said. */
const missing = computed(() => {
  const { system } = job
  if (!system) return []
  const house = houseOf(job.doc, system, job.rules.figures)
  const list: { text: string; to: string }[] = []
  if (house.rooms.length === 0) return [{ text: 'Describe the house in words first', to: 'survey' }]
  if (house.doors.length === 0) list.push({ text: 'Say which openings people come in by', to: 'survey' })
  if (house.keypads.length === 0) list.push({ text: 'Put a keypad into a described room', to: 'kit' })
  const several = house.keypads.some((keypad) => keypad.areas !== null)
  for (const door of house.doors)
    if (house.keypads.length > 0 && !nearest.value.some((way) => way.door.id === door.id))
      list.push({
        text: `No way joins ${openingName(door, house)} with a keypad${several ? ' that sets its area' : ''}`,
        to: 'survey',
      })
  return list
})

/** Delays that are shorter than the house asks for, or not set. */
const wanted = computed(() =>
  (['entry1', 'entry2', 'exit'] as const).flatMap((key) => {
    const way = needs.value[key]
    const now = info.value?.[key] ?? null
    return way && (now === null || now < way.seconds) ? [{ key, way, now }] : []
  }),
)
const names = { entry1: 'Entry 1', entry2: 'Entry 2', exit: 'Exit' } as const
</script>

<template>
  <section class="budget" aria-label="How long people need">
    <div class="head">
      <h2>How long people need</h2>
      <ul v-if="missing.length > 0" class="missing">
        <li v-for="item in missing" :key="item.text">
          ◇ <router-link :to="{ name: item.to }">{{ item.text }}</router-link>
        </li>
      </ul>
    </div>
    <template v-if="nearest.length > 0">
      <p>
        <template v-for="key in ['entry1', 'entry2', 'exit'] as const" :key="key">
          <span v-if="needs[key]" class="need"
            ><strong>{{ names[key] }} ≥ {{ formatSeconds(needs[key]!.seconds) }}</strong>
            <span class="quiet"> slowest: {{ needs[key]!.name }}</span></span
          >
        </template>
        <span v-if="wanted.length > 0" class="short"
          >■ Too short:
          {{
            wanted
              .map((item) => `${names[item.key]} ${item.now === null ? 'not set' : `${item.now} s`}`)
              .join(', ')
          }}</span
        >
      </p>
      <details :open="open" class="small" @toggle="open = ($event.target as HTMLDetailsElement).open">
        <summary>The budget of each door</summary>
        <BudgetChart v-if="open" :ways="nearest" :chosen="chosen" />
        <table v-stack class="plain">
          <thead>
            <tr>
              <th>Door</th>
              <th>Keypad</th>
              <th>Through</th>
              <th class="num">Walk</th>
              <th class="num">Code</th>
              <th class="num">Margin</th>
              <th class="num">Needs</th>
              <th class="num">Set</th>
              <th class="num">Remains</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="way in ways" :key="way.door.id + way.keypad.id">
              <td>{{ way.name }}</td>
              <td>{{ way.keypad.room }}{{ way.nearest ? '' : ' (further)' }}</td>
              <td class="quiet">{{ way.walk.rooms.map((room) => room.name).join(' → ') }}</td>
              <td class="num">{{ way.walk.seconds.toFixed(1) }} s</td>
              <td class="num">{{ way.keyIn }} s</td>
              <td class="num">{{ way.margin }} s</td>
              <td class="num">{{ way.seconds }} s</td>
              <td class="num">{{ chosen(way) === null ? 'not set' : `${chosen(way)} s` }}</td>
              <td class="num">{{ chosen(way) === null ? '' : `${(chosen(way) ?? 0) - way.seconds} s` }}</td>
            </tr>
          </tbody>
        </table>
        <p class="quiet">
          At {{ job.system ? paceOf(job.system.info, job.rules.figures) : '' }} m/s{{
            job.system?.info.pace == null ? '' : ', as timed at the house'
          }}, {{ job.rules.figures.stairs }} × that on stairs:
          <router-link to="/house-rules">house rules</router-link>.
        </p>
      </details>
    </template>
  </section>
</template>

<style scoped>
.budget {
  margin-bottom: 14px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  align-items: baseline;
}
.missing {
  list-style: none;
  padding: 0;
  margin: 4px 0;
}
.need {
  margin-right: 18px;
}
.short {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}
.small {
  font-size: 0.8125rem;
}
summary {
  cursor: pointer;
}
</style>
