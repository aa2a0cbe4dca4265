<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef, useTemplateRef } from 'vue'
import type { LostAnswer, LostPlace, SheetLine, SheetStart } from '#core'
import DisplayBox from './DisplayBox.vue'
import DisplayFields from './DisplayFields.vue'
import KeysText from './KeysText.vue'
import { usePanelDesk } from './usePanelDesk.ts'

/** Lost in the panel's menus: what the display says is typed, and the keys back to the step are told. */
const props = defineProps<{
  line: SheetLine
  /** How many lines the panel's display has. */
  lines: number
  start: SheetStart
  /** Whether each answer is stored as it is sent. */
  atOnce: boolean
  /** Steps of the sheet after which the display shows this, by place. */
  ahead: (place: string) => number | null
}>()
const emit = defineEmits<{ step: [index: number]; shows: [] }>()

const { ask, failed } = usePanelDesk(props.start)
const answer = shallowRef<LostAnswer | null>(null)
const working = ref(false)
const read = ref<string[]>(Array.from({ length: props.lines }, () => ''))
const told = ref<{ key: string; read: string[] }[]>([])
/** The key that was pressed to tell places apart, while what it shows is awaited. */
const pressed = ref<string | null>(null)
const first = ref<readonly string[]>([])
const isRead = computed(() => read.value.some((line) => line.trim() !== ''))

watchDebounced(
  read,
  async () => {
    if (!isRead.value) return
    const then =
      pressed.value === null ? told.value : [...told.value, { key: pressed.value, read: read.value }]
    working.value = true
    answer.value = await ask('lost', {
      from: props.line.from,
      read: pressed.value === null ? [...read.value] : [...first.value],
      then: then.map((one) => ({ key: one.key, read: [...one.read] })),
    })
    working.value = false
  },
  { debounce: 200, deep: true },
)

/** The likeliest, and those that are as likely. */
const places = computed(() => {
  const found = isRead.value ? (answer.value?.places ?? []) : []
  return found.filter(({ apart }) => apart === found[0]?.apart)
})
const more = computed(() => {
  const { places: told = [], more: untold = 0 } = answer.value ?? {}
  return told.length + untold - places.value.length
})
const tell = computed(() => (isRead.value ? (answer.value?.tell ?? null) : null))

/** The key was pressed: what is read from now on stands after it. */
function press(key: string): void {
  if (pressed.value === null) first.value = [...read.value]
  else told.value.push({ key: pressed.value, read: [...read.value] })
  pressed.value = key
  read.value = read.value.map(() => '')
}

function again(): void {
  told.value = []
  pressed.value = null
  first.value = []
  read.value = read.value.map(() => '')
}

// The fields and what they tell stand below what is asked: on a small screen nobody would see them.
const box = useTemplateRef('box')
onMounted(() => box.value?.scrollIntoView?.({ block: 'center' }))

const isHere = (place: LostPlace): boolean => place.place === props.line.to && place.back !== ''
</script>

<template>
  <section ref="box" class="lost" aria-label="Lost">
    <p>
      Stop here; nothing of this step is noted. Type what the display shows: one line is enough, and misread
      signs are allowed.
    </p>
    <p v-if="pressed !== null" class="told">
      After <kbd>{{ pressed }}</kbd> it shows:
      <button type="button" class="link" @click="again">begin again</button>
    </p>
    <DisplayFields v-model="read" :lines="lines" />
    <div aria-live="polite">
      <p v-if="failed" class="warn">
        ▲ This could not be worked out here. Load the page again; the plan is safe.
      </p>
      <p v-else-if="working && places.length === 0" class="quiet">Looking through the panel’s displays …</p>
      <p v-else-if="isRead && answer && places.length === 0" class="warn">
        ▲ No display of this panel comes near that. Read it once more; if it stays, the panel is another than
        the plan has, or works on something: wait a minute.
      </p>
      <template v-for="(place, index) in places" :key="`${place.place} ${place.shows.join()}`">
        <div class="place">
          <div class="quiet small">
            {{ index === 0 ? 'Most likely' : 'Or' }}
            {{ place.asks === '' ? 'here' : `at ${place.asks}` }}
            {{
              place.apart === 0 ? '' : `· ${place.apart} ${place.apart === 1 ? 'sign' : 'signs'} otherwise`
            }}
          </div>
          <DisplayBox :lines="place.shows" />
          <template v-if="index === 0">
            <p v-if="isHere(place)">
              That is where this step leads.
              <v-btn variant="tonal" size="small" class="text-none" @click="emit('shows')"
                >It shows that</v-btn
              >
            </p>
            <p v-if="place.back === ''">That is where this step begins: press its keys again.</p>
            <p v-else-if="place.back !== null">
              <span class="quiet">Back to where this step begins: </span><KeysText :text="place.back" />
              <span class="quiet"> — these keys store nothing.</span>
            </p>
            <p v-else class="warn">
              ▲ No keys lead back to this step without storing or dropping something. Answer each question as
              it stands there, and type what it then shows.
            </p>
            <p v-if="place.unsaved === false" class="warn">
              ▲ To be here, the panel has kept or dropped what was answered: read back before you go on, or
              begin again.
            </p>
            <p v-else-if="place.unsaved === true" class="quiet">
              What was answered and not kept yet is still there.
            </p>
            <p v-else-if="atOnce" class="quiet">
              What was sent is stored already: come back to a wrong answer and answer it again.
            </p>
          </template>
          <p v-if="index === 0 && ahead(place.place) !== null">
            <button type="button" class="link" @click="emit('step', ahead(place.place) ?? 0)">
              Or go on behind step {{ ahead(place.place) }}, which also leads here
            </button>
          </p>
        </div>
      </template>
      <p v-if="places.length > 0 && more > 0" class="quiet">
        {{ more }} more {{ more === 1 ? 'display comes' : 'displays come' }} less near
      </p>
      <div v-if="tell && places.length > 1" class="tell">
        Not sure which? Press <kbd>{{ tell.key }}</kbd>: it changes nothing, and tells
        {{ tell.groups }} places apart.
        <v-btn variant="tonal" class="text-none" min-height="48" @click="press(tell.key)"
          >Pressed: read it now</v-btn
        >
      </div>
    </div>
  </section>
</template>

<style scoped>
.lost {
  display: grid;
  gap: 10px;
  padding: 12px 14px;
  background: rgba(var(--v-theme-on-surface), 0.04);
  border-radius: 8px;
}
.lost p {
  margin: 0 0 6px;
}
.place {
  padding: 10px 0 4px;
  border-top: 1px solid rgba(var(--v-theme-on-surface), 0.12);
}
.place p {
  margin-top: 6px;
}
.small {
  font-size: 0.8125rem;
}
.tell {
  display: grid;
  gap: 8px;
  padding: 10px 0;
  border-top: 1px solid rgba(var(--v-theme-on-surface), 0.12);
}
.warn {
  font-weight: 600;
  color: rgb(var(--v-theme-warning));
}
kbd {
  padding: 0 6px;
  font-family: var(--mono);
  border: 1px solid rgba(var(--v-theme-on-surface), 0.35);
  border-bottom-width: 2px;
  border-radius: 5px;
}
.link {
  color: inherit;
  text-decoration: underline;
  cursor: pointer;
}
</style>
