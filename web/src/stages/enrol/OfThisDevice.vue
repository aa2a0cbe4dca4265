<script setup lang="ts">
import { computed } from 'vue'
import { deviceEvents, hangingOn } from '#core'
import { useJob } from '../../store/job-store.ts'
import type { Enrolling } from './useEnrol.ts'

/** What belongs to the device that is learned: its other events, each by itself, the repeater it hangs on, and what hangs on it. */
const props = defineProps<{ enrol: Enrolling }>()
const job = useJob()
const { target } = props.enrol
const of = computed(() => ({ doc: job.doc, catalogue: job.catalogue }))
const events = computed(() => (target.value ? deviceEvents(of.value, target.value) : []))
const missing = computed(() => events.value.filter((one) => one.target !== null && !one.target.done).length)
const hanging = computed(() => (target.value ? hangingOn(of.value, target.value) : null))
const how = { heard: 'learned', typed: 'typed, not heard', sister: 'as its sister, not heard' } as const
function state(one: (typeof events.value)[number]): string {
  if (one.asProgrammed) return 'left as programmed'
  if (!one.target) return 'no zone: nobody hears of it'
  const { name, done, waits, how: known } = one.target
  if (done && waits) return `${name}, accepted, waiting to be sent`
  return `${name}, ${done && known ? how[known] : 'missing'}`
}
const glyph = (one: (typeof events.value)[number]): string =>
  !one.target ? '–' : !one.target.done ? '○' : one.target.waits ? '…' : one.target.how === 'heard' ? '✓' : '≈'
</script>

<template>
  <section v-if="events.length > 0" class="of" aria-label="Events of this device">
    <h3>
      {{ events.length }} events, one ID<span class="quiet">{{
        missing === 0 ? '' : `: ${missing === 1 ? '1 is' : `${missing} are`} missing`
      }}</span>
    </h3>
    <ul>
      <li v-for="one in events" :key="one.loop.loop">
        <button
          v-if="one.target"
          type="button"
          :aria-current="one.target.id === target?.id"
          @click="enrol.choose(one.target.id)"
        >
          <span aria-hidden="true">{{ glyph(one) }}</span> {{ one.loop.name }}
          <span class="quiet">{{ state(one) }}</span>
        </button>
        <span v-else class="none"
          ><span aria-hidden="true">{{ glyph(one) }}</span> {{ one.loop.name }}
          <span class="quiet">{{ state(one) }}</span></span
        >
      </li>
    </ul>
  </section>
  <p v-if="hanging?.via" class="of">
    Reached through the {{ hanging.via.name
    }}<template v-if="hanging.via.learned">, which is learned.</template
    ><strong v-else>, which is not learned yet: power it at its place and learn it first.</strong>
  </p>
  <p v-if="hanging && hanging.behind.length > 0" class="of">
    Power it at its place first. Then what hangs on it is learned through it:
    <template v-for="(one, index) in hanging.behind" :key="index"
      >{{ index > 0 ? ', ' : '' }}{{ one.learned ? '✓' : '○' }} {{ one.name }}</template
    >.
  </p>
</template>

<style scoped>
.of {
  margin: 0;
}
h3 {
  font-size: 1rem;
}
ul {
  margin: 2px 0 0;
  padding: 0;
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
}
button,
.none {
  font: inherit;
  color: inherit;
  min-height: 48px;
  padding: 4px 12px;
  display: inline-flex;
  gap: 6px;
  align-items: center;
  border: 1px solid rgba(var(--v-theme-on-surface), 0.2);
  border-radius: 6px;
  background: transparent;
}
button {
  cursor: pointer;
}
button[aria-current='true'] {
  border-color: rgb(var(--v-theme-primary));
  border-width: 2px;
}
</style>
