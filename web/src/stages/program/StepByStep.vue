<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { WAY_OUT, type PanelSheet, type SheetStart } from '#core'
import { useWritten } from '../../shared/times.ts'
import DisplayBox from './DisplayBox.vue'
import KeysText from './KeysText.vue'
import LostBox from './LostBox.vue'
import ReadBack from './ReadBack.vue'
import { useKeying } from './useKeying.ts'

/** One step at a time, large, at the panel: what to press, and what it should show now. */
const props = defineProps<{ sheet: Extract<PanelSheet, { ok: true }>; start: SheetStart }>()
defineEmits<{ close: [] }>()
const { steps, step, at, resumedAt, unsaved, problem, keeping, shows, goTo, again } = useKeying(props.sheet)
const { moment } = useWritten()
const lost = ref(false)
/** Read back in the middle: what is not saved yet is still easily put right. */
const reading = ref(false)
/** Whether the next keys lead out of the menus. */
const leaves = computed(
  () => step.value?.part === WAY_OUT && steps[at.value - 1]?.part !== WAY_OUT && at.value > 0,
)
watch(at, () => {
  lost.value = false
})
/** How many steps are behind whoever stands at a place that a later step leads to; null where none does. */
function ahead(place: string): number | null {
  const index = steps.findIndex(({ line }, index) => index > at.value && line.to === place)
  return index < 0 ? null : index + 1
}
</script>

<template>
  <section class="steps" aria-label="Step by step">
    <div class="bar">
      <v-btn variant="text" class="text-none" min-height="48" @click="$emit('close')"
        >‹ The whole sheet</v-btn
      >
      <span v-if="step" class="quiet" aria-live="polite">{{ at + 1 }} of {{ steps.length }}</span>
    </div>
    <v-progress-linear :model-value="(100 * at) / Math.max(1, steps.length)" aria-label="How far" />
    <p v-if="!reading && resumedAt > 0 && at === resumedAt && unsaved.last" class="resumed" role="note">
      {{ unsaved.last.made.name }} keyed up to here, until {{ moment(unsaved.last.at) }}; nothing of it is
      saved yet. Go on if the panel still stands there. If it was left meanwhile, all of it is lost:
      <button type="button" class="link" @click="again">begin again</button>.
    </p>
    <ReadBack v-if="reading && step" :from="step.line.from" @close="reading = false" />
    <template v-else-if="step">
      <h2>{{ step.part }}</h2>
      <div v-if="leaves && keeping !== 'at-once'" class="resumed" role="note">
        Read it back before it is saved: a wrong answer is put right from here, and after the restart three
        lines are enough.
        <v-btn variant="tonal" min-height="48" class="text-none" @click="reading = true"
          >Read it back now</v-btn
        >
      </div>
      <div class="label quiet">{{ step.line.kind === 'wait' ? 'Now' : 'Press' }}</div>
      <div class="press"><KeysText :text="step.line.keys" /></div>
      <div v-if="step.line.kind === 'learn'" class="do">
        <template v-if="step.line.typed"
          >It reads <span class="mono">{{ step.line.typed }}</span>: </template
        >make the device transmit now
      </div>
      <div v-else-if="step.line.typed" class="quiet">
        Before the last key it reads <span class="mono">{{ step.line.typed }}</span>
      </div>
      <div class="label quiet">It should show now</div>
      <DisplayBox :lines="step.line.shows" large />
      <ul v-if="step.line.sets.length > 0" class="means">
        <li v-for="item in step.line.sets" :key="item.address">
          <span class="quiet">{{ item.field }}: </span
          >{{ step.line.kind === 'empty' ? 'emptied first' : item.words }}
        </li>
      </ul>
      <p v-if="step.line.check.length > 0" class="check">
        ◇ A wrong key would not show here: read back {{ step.line.check.join(', ') }}.
      </p>
      <p v-if="step.line.note" class="quiet">{{ step.line.note }}</p>
      <p v-if="problem" class="check" role="alert">▲ {{ problem }}</p>
      <div class="acts">
        <v-btn color="primary" min-height="56" class="text-none" @click="shows">It shows that</v-btn>
        <v-btn variant="tonal" min-height="56" class="text-none" :aria-expanded="lost" @click="lost = !lost"
          >It shows something else</v-btn
        >
        <v-btn v-if="at > 0" variant="text" min-height="48" class="text-none" @click="goTo(at - 1)"
          >‹ One step back</v-btn
        >
      </div>
      <LostBox
        v-if="lost"
        :key="at"
        :line="step.line"
        :lines="step.line.shows.length"
        :start="start"
        :at-once="keeping === 'at-once'"
        :ahead="ahead"
        @step="goTo"
        @shows="shows"
      />
    </template>
    <div v-else class="done">
      <h2>✓ All steps are keyed</h2>
      <p>
        {{
          keeping === 'at-once'
            ? 'Every answer was stored as it was sent. Read it back before hand-over.'
            : 'The panel has saved and started again. Read it back before hand-over.'
        }}
      </p>
      <v-btn color="primary" min-height="48" class="text-none" @click="$emit('close')">To the sheet</v-btn>
    </div>
  </section>
</template>

<style scoped>
.steps {
  max-width: 560px;
  margin: 0 auto;
}
.bar {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
h2 {
  margin: 12px 0 4px;
  font-size: 1.125rem;
}
.label {
  margin-top: 12px;
}
.press {
  padding: 6px 0;
}
.press :deep(.keys),
.press :deep(kbd) {
  font-size: 1.25rem;
  line-height: 1.9;
}
.do,
.check {
  font-weight: 600;
}
.check {
  color: rgb(var(--v-theme-warning));
}
.means {
  margin: 10px 0 0;
  padding: 0;
  list-style: none;
}
.acts {
  display: grid;
  gap: 10px;
  margin: 18px 0;
}
.link {
  color: inherit;
  text-decoration: underline;
  cursor: pointer;
}
.resumed {
  padding: 8px 12px;
  border-left: 3px solid rgb(var(--v-theme-warning));
}
.mono {
  font-family: var(--mono);
}
</style>
