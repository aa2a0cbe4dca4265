<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { planFollows } from '#core'
import { useJob } from '../../store/job-store.ts'
import DisplayBox from './DisplayBox.vue'
import DisplayFields from './DisplayFields.vue'
import KeysText from './KeysText.vue'
import { useReadBack, type Compared } from './useReadBack.ts'

/** The panel read back, one display at a time: what it should show, or, where a glance is not enough, what stands there. */
const props = defineProps<{ from: string | null }>()
defineEmits<{ close: [] }>()
const job = useJob()
const { plan, step, at, says, state, saved, failed, begin, shows, typed, stands, mended, next } = useReadBack(
  props.from,
)
const total = computed(() => plan.value?.steps.length ?? 0)
const other = ref(false)
const read = ref<string[]>([])
const missing = ref('')
/** Keys back to the display, where an answer led on from it. */
const back = ref<string | null>(null)
watch(
  step,
  () => {
    other.value = false
    back.value = null
    missing.value = ''
    read.value = (step.value?.shows ?? []).map(() => '')
  },
  { immediate: true },
)

function compare(): void {
  const empty = (step.value?.shows ?? []).findIndex(
    (line, index) => line !== '' && !read.value[index]?.trim(),
  )
  missing.value =
    empty < 0 ? '' : `Line ${empty + 1} has something on this display: type it as it stands there.`
  if (empty < 0) void typed([...read.value])
}

const wrong = (said: Compared): Compared['values'] => said.values.filter(({ is, value }) => is !== value)
const noted = ref(false)
watch(says, () => (noted.value = false))
function standsSo(said: Compared): void {
  stands(said)
  noted.value = wrong(said).length > 0
}

function keyedRight(said: Compared, value: Compared['values'][number]): void {
  mended(said.part, value)
  back.value = value.mend?.back ?? null
  other.value = false
  read.value = read.value.map(() => '')
}

/** The plan takes what stands in the panel. */
function follow(value: Compared['values'][number]): void {
  const { ops, why } = planFollows({ doc: job.doc, catalogue: job.catalogue }, value)
  missing.value = ops.length === 0 ? `The plan cannot follow: ${why}.` : ''
  if (ops.length > 0 && job.edit('panel.followed', [...ops])) void begin()
}
const count = (number: number, one: string, many: string): string => `${number} ${number === 1 ? one : many}`
</script>

<template>
  <section class="steps" aria-label="Read back">
    <div class="bar">
      <v-btn variant="text" class="text-none" min-height="48" @click="$emit('close')">‹ Back</v-btn>
      <span v-if="step" class="quiet" aria-live="polite">{{ at + 1 }} of {{ total }}</span>
    </div>
    <v-progress-linear :model-value="(100 * at) / Math.max(1, total)" aria-label="How far" />
    <p v-if="failed" class="warn" role="alert">▲ This could not be worked out here. Load the page again.</p>
    <p v-else-if="!plan" class="quiet" role="status">Looking for the fewest displays that show it all …</p>
    <template v-else-if="step">
      <h2>{{ step.part }}</h2>
      <template v-if="(back ?? step.keys) !== ''">
        <div class="label quiet">{{ back === null ? 'Press' : 'Back to this display' }}</div>
        <div class="press"><KeysText :text="back ?? step.keys" /></div>
      </template>
      <template v-if="step.blind">
        <p>
          Type what stands there now, without looking at the plan: a glance sees what it expects.
          <span class="quiet">{{ step.values.map(({ field }) => field).join(', ') }}</span>
        </p>
      </template>
      <template v-else>
        <div class="label quiet">It should show</div>
        <DisplayBox :lines="step.shows" large />
        <ul class="means">
          <li v-for="value in step.values" :key="value.address">
            <span class="quiet">{{ value.field }}: </span>{{ value.words }}
          </li>
        </ul>
      </template>
      <form v-if="(step.blind || other) && !noted" class="typed" @submit.prevent="compare">
        <DisplayFields v-model="read" :lines="step.shows.length" />
        <v-btn type="submit" color="primary" min-height="48" class="text-none">Compare</v-btn>
      </form>
      <div v-if="!step.blind && !other" class="acts">
        <v-btn color="primary" min-height="56" class="text-none" @click="shows">It shows this</v-btn>
        <v-btn variant="tonal" min-height="56" class="text-none" @click="other = true"
          >It shows something else</v-btn
        >
      </div>
      <p v-if="missing" class="warn" role="alert">▲ {{ missing }}</p>
      <div aria-live="polite">
        <p v-if="says?.kind === 'typed'" class="warn">
          ▲ Something is typed there and not sent. Clear it or leave the question, come back, and read it
          again.
        </p>
        <div v-else-if="says?.kind === 'unread'" class="warn">
          <p>▲ No display of this panel shows exactly that. Read it once more, sign by sign.</p>
          <template v-if="says.near.length > 0 && !step.blind">
            <p class="quiet">These come nearest:</p>
            <DisplayBox v-for="lines in says.near" :key="lines.join()" :lines="lines" />
          </template>
        </div>
        <div v-else-if="says?.kind === 'values'" class="differs">
          <p v-if="!says.here" class="warn">
            ▲ That is a display of {{ says.part }}, not the one that was asked for. Press the keys above once
            more.
          </p>
          <template v-else>
            <div v-for="value in wrong(says)" :key="value.address" class="difference">
              <p class="warn">
                ■ {{ says.part }}, {{ value.field }}: the panel has {{ value.isWords }}, the plan
                {{ value.words }}.
              </p>
              <template v-if="noted">
                <p v-if="value.mend">
                  <span class="quiet">Put it right from here: </span><KeysText :text="value.mend.keys" />
                </p>
                <p v-else class="quiet">Put it right with the sheet of Program, as last keyed.</p>
                <div class="acts">
                  <v-btn
                    v-if="value.mend"
                    color="primary"
                    min-height="48"
                    class="text-none"
                    @click="keyedRight(says, value)"
                    >Keyed: read it again</v-btn
                  >
                  <v-btn variant="tonal" min-height="48" class="text-none" @click="follow(value)"
                    >The plan follows the panel</v-btn
                  >
                  <v-btn variant="text" min-height="48" class="text-none" @click="next"
                    >Go on, it stays a difference</v-btn
                  >
                </div>
              </template>
            </div>
            <v-btn
              v-if="!noted && wrong(says).length > 0"
              color="primary"
              min-height="48"
              class="text-none"
              @click="standsSo(says)"
              >It stands there so</v-btn
            >
          </template>
        </div>
      </div>
    </template>
    <div v-else class="done">
      <template v-if="state && state.different.length > 0">
        <h2>■ {{ count(state.different.length, 'value stands', 'values stand') }} otherwise in the panel</h2>
        <p>One difference stops hand-over until it is keyed again or the plan follows.</p>
      </template>
      <h2 v-else-if="state && state.open.length > 0">
        ◇ {{ count(state.open.length, 'value is', 'values are') }} not read back
      </h2>
      <template v-else>
        <h2>✓ {{ count(state?.wanted.length ?? 0, 'value', 'values') }} read back, none otherwise</h2>
        <p v-if="state && state.drawn.length > 0">
          {{
            saved
              ? `${count(state.drawn.length, 'line is', 'lines are')} read once more, drawn at random.`
              : 'Now save and let it restart; then three lines drawn at random are read once more, from outside.'
          }}
        </p>
      </template>
      <p v-if="plan.notShown.length > 0" class="warn">
        ▲ No display of this panel shows {{ plan.notShown.join('; ') }}: it cannot be read back.
      </p>
      <p v-if="plan.leave !== '' && saved">
        <span class="quiet">Leave the menus: </span><KeysText :text="plan.leave" />
      </p>
      <div class="acts">
        <v-btn
          v-if="
            state &&
            (state.different.length > 0 || state.open.length > 0 || (saved && state.drawn.length > 0))
          "
          variant="tonal"
          min-height="48"
          class="text-none"
          @click="begin"
          >Read what is left</v-btn
        >
        <v-btn color="primary" min-height="48" class="text-none" @click="$emit('close')">Done</v-btn>
      </div>
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
.means {
  margin: 10px 0 0;
  padding: 0;
  list-style: none;
}
.acts,
.typed,
.differs {
  display: grid;
  gap: 10px;
  margin: 14px 0;
}
.warn {
  font-weight: 600;
  color: rgb(var(--v-theme-warning));
}
</style>
