<script setup lang="ts">
import { computed, onMounted, ref, toRef, watch } from 'vue'
import {
  rowOf,
  takenAway,
  untriedKeys,
  type Catalogue,
  type DraftDocument,
  type PanelInput,
  type Told,
} from '#core'
import HowForm from './HowForm.vue'
import PanelKeys from './PanelKeys.vue'
import ReadLines from './ReadLines.vue'
import ScreenMap from './ScreenMap.vue'
import ShownDisplay from './ShownDisplay.vue'
import TellDisplay from './TellDisplay.vue'
import { useAtPanel } from './useAtPanel.ts'
import { inputWords, landingWords } from './words-at-panel.ts'

/**
 * An interface is described while standing before its panel: the same key is pressed there and here. Here says what it must show; what
 * it cannot say is asked.
 */
const props = defineProps<{ doc: DraftDocument; catalogue: Catalogue; locked: boolean }>()
const emit = defineEmits<{ tell: [told: readonly Told[]] }>()
const panel = useAtPanel(toRef(props, 'doc'), toRef(props, 'catalogue'), (told) => emit('tell', told))
const {
  sketch,
  model,
  here,
  shows,
  last,
  step,
  trouble,
  open,
  alike,
  contradicts,
  deciding,
  values,
  passed,
} = panel

onMounted(panel.begin)
watch(model, panel.begin)
// What somebody else takes back, or *undo* does, may be the display that one stands at.
watch(here, (now) => now === null && sketch.value.start !== '' && panel.begin())

const ready = computed(() => sketch.value.keys.length > 0 && 'answer:display' in props.doc.records)
const untried = computed(() => (here.value ? untriedKeys(sketch.value, here.value.screen) : []))
const screen = computed(() => (here.value ? sketch.value.screens[here.value.screen] : undefined))
const editing = ref<string | null>(null)
const holding = ref(false)
const seconds = ref('3')
const fault = ref('')

function press(key: string): void {
  fault.value = ''
  if (!holding.value) {
    panel.act({ kind: 'press', key })
    return
  }
  const held = Number(seconds.value.replace(',', '.'))
  if (!(held >= 0.5 && held <= 30)) fault.value = 'A key is held for 0.5 to 30 seconds.'
  else {
    holding.value = false
    panel.act({ kind: 'hold', key, seconds: held })
  }
}
/** What can be done besides pressing a key, where the display asks for it. */
const besides = computed((): readonly { readonly title: string; readonly input: PanelInput }[] => {
  const widget = screen.value?.widget
  const idle = sketch.value.idle
  return [
    ...(widget?.kind === 'code'
      ? [{ title: 'The code was typed', input: { kind: 'code', who: widget.who } as const }]
      : []),
    ...(widget?.kind === 'busy'
      ? [
          {
            title: `${widget.seconds} s later`,
            input: { kind: 'wait', seconds: widget.seconds } as const,
          },
        ]
      : []),
    ...(idle && widget?.kind !== 'busy'
      ? [
          {
            title: `${idle.seconds} s without a key`,
            input: { kind: 'wait', seconds: idle.seconds } as const,
          },
        ]
      : []),
  ]
})
/** What the panel was said to show, while it is asked what that is; and what this had said. */
const seenLines = ref<readonly string[]>([])
const expected = computed(() => last.value?.said.shows?.filter((line) => line !== '').join(' / ') ?? '')
watch(step, (now) => {
  if (now.is === 'which' || now.is === 'new') seenLines.value = now.lines
  else if (now.is !== 'how') seenLines.value = []
})
const asked = computed(() => {
  if (step.value.is !== 'lines') return ''
  const did = last.value ? inputWords(last.value.input) : ''
  return {
    start: 'What does the panel show at rest?',
    open: `What does the panel show after ${did}?`,
    other: `What does the panel show after ${did} instead?`,
    stand: 'What does the panel show now?',
  }[step.value.why]
})
/** A row of questions goes on where it went on before. */
const begins = computed(() => {
  const from = last.value?.from.screen
  const row = from === undefined ? null : rowOf(sketch.value, from)
  const to = step.value.is === 'how' ? step.value.to.screen : ''
  if (!row || !from) return 'no' as const
  const [a, b] = [row[1].screens.indexOf(from), row[1].screens.indexOf(to)]
  return b > a ? ('next' as const) : b >= 0 && b < a ? ('previous' as const) : ('no' as const)
})
async function edited(told: readonly Told[]): Promise<void> {
  await panel.say(told)
  editing.value = null
}
</script>

<template>
  <div class="at">
    <p v-if="!model || !ready" class="quiet">
      First say above which panel it is, how large its display is and how its keys lie: then each key is tried
      there and here.
    </p>
    <template v-else>
      <p class="quiet">
        Press the same key on the panel and here. Where both show the same, go on; where this shows something
        else, or nothing was told, say what the panel shows. Never write a code down here. Whatever is keyed
        on the way is stored in the panel: use one that protects nobody, or read it back afterwards.
      </p>
      <v-alert v-if="trouble" type="warning" variant="tonal" density="compact">{{ trouble }}</v-alert>
      <div class="both">
        <div class="hand">
          <template v-if="step.is === 'keys' && here">
            <ShownDisplay :lines="shows" :columns="sketch.display.columns" label="The panel must now show" />
            <p class="quiet small">
              The panel must now show this<template v-if="last">, after {{ inputWords(last.input) }}</template
              >: <span class="mono">{{ here.screen }}</span>
              <strong v-if="here.beeped">. It beeps.</strong>
            </p>
          </template>
          <template v-else-if="seenLines.length > 0">
            <ShownDisplay :lines="seenLines" :columns="sketch.display.columns" label="The panel shows" />
            <p class="quiet small">
              The panel shows this<template v-if="last">, after {{ inputWords(last.input) }}</template
              ><template v-if="expected">; this said it would be “{{ expected }}”</template>.
            </p>
          </template>
          <template v-if="step.is === 'keys' && here">
            <PanelKeys :rows="sketch.keys" :quiet="untried" @press="press" />
            <p v-if="untried.length > 0" class="quiet small">
              Dashed: not tried on this display. A key that nobody tried counts as doing nothing.
            </p>
            <div class="acts">
              <v-btn
                v-for="one in besides"
                :key="one.title"
                variant="outlined"
                height="44"
                @click="panel.act(one.input)"
                >{{ one.title }}</v-btn
              >
              <v-checkbox v-model="holding" label="Hold the next key" hide-details class="hold" />
              <v-text-field
                v-if="holding"
                v-model="seconds"
                label="Seconds"
                inputmode="decimal"
                maxlength="4"
                hide-details
                class="seconds"
              />
            </div>
            <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
            <div class="acts">
              <v-btn variant="tonal" color="warning" height="44" :disabled="locked" @click="panel.differs()"
                >The panel shows something else</v-btn
              >
              <v-btn variant="text" height="44" @click="panel.begin()">Begin at rest</v-btn>
              <v-btn
                v-if="editing === null"
                variant="text"
                height="44"
                :disabled="locked"
                @click="editing = here.screen"
                >Change this display</v-btn
              >
            </div>
            <TellDisplay
              v-if="editing !== null"
              :key="editing"
              :name="editing"
              :lines="[]"
              :sketch="sketch"
              :model="model"
              :catalogue="catalogue"
              :pointers="{}"
              @told="edited"
              @away="editing !== null && edited(takenAway(sketch, editing))"
              @cancel="editing = null"
            />
          </template>
          <ReadLines
            v-else-if="step.is === 'lines'"
            :key="`${asked} ${sketch.display.lines}`"
            :asked="asked"
            :lines="sketch.display.lines"
            :columns="sketch.display.columns"
            :begins="[]"
            @read="panel.read"
            @cancel="panel.begin()"
          />
          <div v-else-if="step.is === 'which'" class="which">
            <h4>Which display is that?</h4>
            <v-btn
              v-for="one in step.found"
              :key="landingWords(one)"
              variant="outlined"
              height="44"
              @click="panel.chosen(one)"
              >{{ landingWords(one) }}</v-btn
            >
            <v-btn
              v-if="sketch.display.lines === 1 && last"
              variant="outlined"
              height="44"
              @click="panel.messageOver(step.lines)"
              >A message; behind it is still {{ last.from.screen }}</v-btn
            >
            <v-btn variant="tonal" height="44" @click="step = { is: 'new', lines: step.lines }"
              >A display that was not told yet</v-btn
            >
            <v-btn variant="text" height="44" @click="panel.begin()">Back to rest</v-btn>
          </div>
          <TellDisplay
            v-else-if="step.is === 'new'"
            :name="null"
            :lines="step.lines"
            :sketch="sketch"
            :model="model"
            :catalogue="catalogue"
            :pointers="last?.said.state.pointers ?? {}"
            @told="(told, name) => step.is === 'new' && panel.toldNew(told, name, step.lines)"
            @cancel="panel.begin()"
          />
          <HowForm
            v-else-if="step.is === 'how'"
            :key="landingWords(step.to)"
            :to="step.to"
            :sketch="sketch"
            :did="last ? inputWords(last.input) : ''"
            :other="contradicts !== null"
            :deciding="deciding"
            :values="values"
            :passed="passed"
            :begins="begins"
            :row="contradicts === '>' ? 'next' : contradicts === '<' ? 'previous' : null"
            @down="(how) => step.is === 'how' && panel.putDown(step.to, how)"
            @passed="(guard) => step.is === 'how' && panel.putPassed(step.to, guard)"
            @elsewhere="(where) => step.is === 'how' && panel.putElsewhere(step.to, where)"
            @cancel="panel.begin()"
          />
        </div>
        <div class="left">
          <h3>{{ open.length === 0 ? 'Nothing is open' : `${open.length} open` }}</h3>
          <ul class="open">
            <li v-for="one in open.slice(0, 12)" :key="one.screen + one.words">
              ○ <span class="mono">{{ one.screen }}</span>: {{ one.words }}
            </li>
          </ul>
          <p v-if="open.length > 12" class="quiet">and {{ open.length - 12 }} more</p>
          <div v-for="one in alike" :key="one.key + JSON.stringify(one.target)" class="alike">
            <p>
              <strong>[{{ one.key }}]</strong> does the same on {{ one.screens.length }} displays. On all of
              them?
            </p>
            <v-btn
              size="small"
              height="40"
              variant="tonal"
              :disabled="locked"
              @click="panel.sayAlike(one, true)"
              >On all that do not say otherwise</v-btn
            >
            <v-btn size="small" height="40" variant="text" @click="panel.sayAlike(one, false)">No</v-btn>
          </div>
        </div>
      </div>
      <h3>Map of the displays</h3>
      <ScreenMap
        :sketch="sketch"
        :here="here?.screen ?? null"
        @pick="editing = step.is === 'keys' ? $event : null"
      />
    </template>
  </div>
</template>

<style scoped>
.at,
.hand,
.which,
.left {
  display: grid;
  gap: 10px;
  align-content: start;
}
.at,
.hand,
.which {
  grid-template-columns: minmax(0, 1fr);
}
.at {
  flex: 1 1 100%;
  min-width: 0;
}
.both {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 240px;
  gap: 18px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.small {
  font-size: 0.8125rem;
}
.hold {
  flex: 0 0 auto;
}
.seconds {
  max-width: 110px;
}
.open {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 4px;
  font-size: 0.875rem;
}
.mono {
  font-family: var(--mono);
}
.fault {
  color: rgb(var(--v-theme-error));
  margin: 0;
}
p,
h4 {
  margin: 0;
}
@media (max-width: 960px) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
