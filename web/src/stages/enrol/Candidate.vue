<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { enrolmentOf, groupId, LOOP_UNTOLD, NO_STICKER, proofRoute, settledSubjects } from '#core'
import { useJob } from '../../store/job-store.ts'
import ScanCode from '../../shared/ScanCode.vue'
import LeafletButton from '../../leaflets/LeafletButton.vue'
import DeviceSheet from './DeviceSheet.vue'
import EntryIsWrong from './EntryIsWrong.vue'
import IdCompare from './IdCompare.vue'
import NotHeard from './NotHeard.vue'
import OfThisDevice from './OfThisDevice.vue'
import PanelListens from './PanelListens.vue'
import type { Enrolling } from './useEnrol.ts'

const props = defineProps<{ enrol: Enrolling; listening: boolean }>()
const job = useJob()
const { target, family, model, candidate, judgement, confirming, unconfirmed, loop, sister, holding } =
  props.enrol
const { mayGoWithout, goesWithout, without, practice, heardOnce, mayForget, pass } = props.enrol
const asking = ref(false)
const why = ref('')
const whyFault = ref('')

function goWithout(): void {
  whyFault.value = props.enrol.goWithout(why.value)
  if (whyFault.value !== '') return
  asking.value = false
  why.value = ''
}
const entry = ref('')
const shownEntry = ref('')
// While somebody types, what is heard must not change what the typing is for.
watch([entry, shownEntry], (texts) => (holding.value = texts.some((text) => text !== '')))
const fault = ref('')
const shownFault = ref('')
/** In a practice job the air is the display, so that it is typed only by whoever wants to. */
const displayOpen = ref(false)
/** What made the device send, and the loop that the display shows with it, where it shows one. */
const way = ref(0)
const shownLoop = ref<number | null>(null)
watch(
  () => target.value?.id,
  () => {
    way.value = 0
    shownLoop.value = null
    shownFault.value = ''
    fault.value = ''
  },
)
const ways = computed(() => {
  const known = model.value?.ways ?? []
  const items = known.length > 0 ? known : [{ way: 'made to send', sends: 'event' as const }]
  return items.map((item, index) => ({ title: item.way, value: index, sends: item.sends }))
})
watch([way, shownLoop], () =>
  props.enrol.tellMore({ cause: ways.value[way.value]?.sends ?? 'event', loop: shownLoop.value }),
)
/** A typed ID may be what the device's own sticker says, where none is noted for certain, or another that was misread. */
const mayNote = computed(() => {
  const now = judgement.value
  const misread = now?.kind === 'refuse' && ['look-alike', 'foreign'].includes(now.code)
  const noted = target.value?.device
  return candidate.value?.source === 'typed' && (!noted?.sticker || noted.stickerUnsure || misread)
})
const misnoted = computed(() => {
  const noted = target.value?.device.sticker
  return mayNote.value && noted != null && noted !== candidate.value?.serial
})
const tellsLoop = computed(() => target.value?.zone !== null && target.value?.zone?.loop !== null)
/** Loops that a panel may show: those of the entry first, but what it shows besides is said, too. */
const MOST_LOOPS = 8
const shownLoops = computed(() => {
  const own = (model.value?.loops ?? []).map(({ loop: number }) => number)
  const others = Array.from({ length: MOST_LOOPS }, (_, index) => index + 1).filter(
    (number) => !own.includes(number),
  )
  return [
    { title: 'none shown', value: null as number | null },
    ...own.map((value) => ({ title: `loop ${value}`, value })),
    ...others.map((value) => ({ title: `loop ${value}, which its entry lacks`, value })),
  ]
})
/** The loop that was shown and that its entry lacks; of a device that was compared with its sticker, not of any that was heard. */
const untold = computed(() =>
  judgement.value?.kind === 'refuse' &&
  judgement.value.code === LOOP_UNTOLD &&
  target.value?.device.sticker === candidate.value?.serial
    ? (candidate.value?.heard?.loop ?? null)
    : null,
)

/** Words of their own for what is neither this one nor plainly another. */
const words: Readonly<Record<string, string>> = {
  elsewhere: 'In another job, too.',
  'look-alike': 'Nearly, but not it.',
  clash: 'Two at once.',
  'sticker-unsure': 'Read the sticker first.',
  [LOOP_UNTOLD]: 'Another loop than its entry knows.',
}
const verdict = computed(() => {
  const now = judgement.value
  if (!now) return null
  const looks = {
    accept: {
      glyph: '✓',
      word: candidate.value?.source === 'typed' ? 'The noted sticker’s ID.' : 'This is it.',
      color: 'success',
    },
    'ask-loop': { glyph: '?', word: 'Which loop?', color: 'warning' },
    query: {
      glyph: '?',
      word: candidate.value?.source === 'typed' ? 'Typed, not heard.' : 'No sticker to compare with.',
      color: 'warning',
    },
    refuse: { glyph: '■', word: 'Not this one.', color: 'error' },
  } as const
  const code = 'code' in now ? now.code : ''
  return {
    ...looks[now.kind],
    ...(words[code] && !(code === 'look-alike' && now.kind === 'query') ? { word: words[code] } : {}),
    reason: now.reason,
  }
})
const loops = computed(() =>
  (model.value?.loops ?? []).map((item) => ({ title: `${item.loop} ${item.name}`, value: item.loop })),
)
const wrongLoop = computed(
  () =>
    judgement.value?.kind === 'ask-loop' &&
    loop.value !== null &&
    target.value?.loop !== null &&
    loop.value !== target.value?.loop?.loop,
)
const ready = computed(
  () =>
    judgement.value !== null &&
    judgement.value.kind !== 'refuse' &&
    !unconfirmed.value &&
    (judgement.value.kind !== 'ask-loop' ||
      target.value?.loop === null ||
      loop.value === target.value?.loop?.loop),
)
const froms = { typed: 'Typed', display: 'Display', air: 'Heard' } as const
const from = computed(() => {
  const now = candidate.value
  if (now) return froms[now.source]
  if (!target.value?.done) return practice.value ? 'Heard' : 'Display'
  return target.value.how === 'heard' ? 'Learned' : 'Typed'
})
/** What the display showed stands at the end of the ID; the rest was not seen. */
const shown = computed(() => {
  const now = candidate.value
  if (now?.shown) return now.shown.padStart(now.serial.length)
  return now?.serial ?? (target.value?.done ? bound.value : null)
})
/** In words, how a target that is done is known. */
const doneWords = computed(() => {
  const now = target.value
  if (!now) return ''
  const id = groupId(family.value, bound.value ?? '')
  const waiting = now.waits ? ', waiting to be sent' : ''
  if (now.how === 'typed') return `Typed, not heard, as ${id}${waiting}: a trip at its place must prove it.`
  if (now.how === 'sister')
    return `Has the ID of its sister zone, ${id}${waiting}: this event itself was not heard.`
  const alone = enrolmentOf(job.doc, now.id)?.evidence.code === NO_STICKER
  const settled = alone && settledSubjects(proofRoute(job.doc, job.catalogue, null)).has(now.id)
  const unread = !alone
    ? ''
    : settled
      ? ' No sticker was compared; its trip at its place has settled it.'
      : ' No sticker was compared: its armed trip settles it.'
  return `${now.waits ? 'Accepted' : 'Learned'} as ${id}${waiting}.${unread}`
})
const bound = computed(() => target.value?.serial ?? null)

function enter(): void {
  fault.value = props.enrol.type(entry.value)
  if (fault.value === '') entry.value = ''
}

function scanned(text: string): void {
  entry.value = text
  enter()
}

function read(): void {
  const cause = ways.value[way.value]?.sends ?? 'event'
  shownFault.value =
    shownEntry.value.trim() === ''
      ? 'Type what the display shows: the last four signs, or all.'
      : props.enrol.display({ signs: shownEntry.value, cause, loop: shownLoop.value })
  if (shownFault.value === '') shownEntry.value = ''
}
</script>

<template>
  <section v-if="target" class="sheet card" aria-label="The two IDs">
    <div class="head">
      <h2>
        {{ target.name }}<template v-if="target.zone?.label">: {{ target.zone.label }}</template>
      </h2>
      <span class="quiet">
        {{ model?.name
        }}<template v-if="target.loop">, {{ target.loop.name }} (loop {{ target.loop.loop }})</template
        ><template v-if="target.device.room">, {{ target.device.room }}</template>
      </span>
    </div>
    <OfThisDevice :enrol="enrol" />
    <IdCompare :family="family" :sticker="target.device.sticker" :heard="shown" :from="from" />
    <p v-if="target.device.stickerUnsure" class="unsure" role="note">
      ▲ This sticker was written in from a typed ID by an earlier version: it compares with itself. Read the
      sticker off the device, type it below and note it.
    </p>
    <PanelListens v-if="!practice && (!target.done || candidate)" :enrol="enrol" />
    <div class="entries" :class="{ last: practice }">
      <form class="entry" @submit.prevent="enter">
        <v-text-field
          id="sticker-entry"
          v-model="entry"
          label="Type or scan the sticker"
          autocomplete="off"
          maxlength="300"
          :error-messages="fault"
          @update:model-value="fault = ''"
        />
        <span class="enter">
          <ScanCode @read="scanned" />
          <v-btn type="submit" variant="tonal" height="40" class="text-none">{{
            target.device.sticker === null || target.device.stickerUnsure ? 'Read' : 'Compare'
          }}</v-btn>
        </span>
      </form>
      <v-btn
        v-if="practice && !displayOpen"
        variant="text"
        class="text-none to-display"
        @click="displayOpen = true"
        >Type what the display shows…</v-btn
      >
      <form v-else class="entry" @submit.prevent="read">
        <v-text-field
          v-model="shownEntry"
          label="What does the display show?"
          autocomplete="off"
          maxlength="40"
          :hint="target.device.sticker === null ? 'The whole ID' : 'The last four suffice'"
          persistent-hint
          :error-messages="shownFault"
          @update:model-value="shownFault = ''"
        />
        <v-btn
          type="submit"
          variant="tonal"
          height="40"
          class="text-none"
          aria-label="Compare the display with the sticker"
          >Compare</v-btn
        >
        <div class="told">
          <v-select v-if="ways.length > 1" v-model="way" label="What made it send" :items="ways" />
          <v-select v-if="tellsLoop" v-model="shownLoop" label="Loop on the display" :items="shownLoops" />
        </div>
      </form>
    </div>
    <div
      v-if="verdict"
      class="verdict"
      role="status"
      :style="{ color: `rgb(var(--v-theme-${verdict.color}))` }"
    >
      <strong>{{ verdict.glyph }} {{ verdict.word }}</strong>
      <span class="reason">{{ verdict.reason }}</span>
      <span v-if="confirming" class="reason">{{ confirming }}</span>
    </div>
    <p v-else-if="target.done" class="quiet">{{ doneWords }} To learn it again, trip it and compare.</p>
    <p v-else-if="bound" class="quiet">
      {{ groupId(family, bound) }} is told by the job’s file or an earlier version; nobody here saw it. Learn
      it again to make it count.
    </p>
    <p v-else-if="target.sister" class="quiet">
      {{ target.loop?.name }} cannot be tripped on the bench: it takes the ID of its sister zone.
    </p>
    <p v-else class="quiet">
      {{
        practice
          ? listening
            ? 'Waiting for it.'
            : ''
          : 'Let the panel learn, make the device send, and type what the display shows.'
      }}
    </p>
    <form v-if="mayGoWithout && asking" class="without" @submit.prevent="goWithout">
      <v-text-field
        v-model="why"
        :label="`Why, for every ${model?.class ?? 'device'} accepted now`"
        :error-messages="whyFault"
        autofocus
        maxlength="200"
      />
      <v-btn type="submit" variant="tonal" class="text-none">Go without</v-btn>
      <v-btn variant="text" class="text-none" @click="asking = false">Cancel</v-btn>
    </form>
    <p v-else-if="mayGoWithout || goesWithout" class="mb-0">
      <v-btn v-if="mayGoWithout" size="small" variant="text" class="text-none" @click="asking = true"
        >Go without a second transmission…</v-btn
      >
      <v-btn v-else size="small" variant="text" class="text-none" @click="without = null"
        >Ask for it again</v-btn
      >
    </p>
    <v-select
      v-if="judgement?.kind === 'ask-loop'"
      v-model="loop"
      label="Loop of this zone"
      :items="loops"
      :error-messages="
        wrongLoop ? `${target.name} is the ${target.loop?.name}, loop ${target.loop?.loop}.` : ''
      "
      class="loop"
    />
    <EntryIsWrong
      v-if="untold !== null && model && target.loop"
      :model="model"
      :planned="target.loop"
      :seen="untold"
    />
    <div class="acts">
      <v-btn v-if="mayNote" size="x-large" color="primary" class="text-none" @click="enrol.noteSticker">{{
        misnoted ? 'The sticker says this: note it instead' : 'Note it as the sticker'
      }}</v-btn>
      <v-btn
        size="x-large"
        :color="mayNote ? undefined : 'primary'"
        :variant="mayNote ? 'tonal' : 'flat'"
        :disabled="!ready"
        class="text-none"
        @click="enrol.accept"
        >Accept for {{ target.name }}{{ mayNote ? ', typed only' : '' }}</v-btn
      >
      <v-btn
        v-if="candidate?.source === 'display' && heardOnce"
        size="x-large"
        variant="tonal"
        class="text-none"
        @click="enrol.sawAgain"
        >Tripped again, it shows the same</v-btn
      >
      <v-btn size="x-large" variant="tonal" :disabled="!candidate" class="text-none" @click="enrol.refuse"
        >Refuse, keep on record</v-btn
      >
      <v-btn v-if="mayForget" size="x-large" variant="tonal" class="text-none" @click="enrol.forgetSticker"
        >No sticker can be read on it</v-btn
      >
      <v-btn
        v-if="bound && !candidate"
        size="x-large"
        variant="tonal"
        class="text-none"
        @click="enrol.release"
        >Take it out of the panel</v-btn
      >
      <v-btn
        v-if="pass.length > 0 && !candidate"
        size="x-large"
        color="primary"
        class="text-none"
        @click="enrol.takePass"
        >The same press learned its
        {{ pass.length === 1 ? 'other button' : `${pass.length} other buttons` }}</v-btn
      >
      <v-btn
        v-if="sister && !target.done"
        size="x-large"
        variant="tonal"
        class="text-none"
        @click="enrol.takeSister"
        >Take the sister’s ID {{ groupId(family, sister) }}</v-btn
      >
    </div>
    <NotHeard v-if="!candidate && !target.sister" :enrol="enrol" class="handling" />
    <LeafletButton v-if="model" :about="[model.id, model.family]" :name="model.name" />
    <DeviceSheet v-if="model && !candidate" :model="model" class="handling" />
  </section>
</template>

<style scoped>
.without {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: start;
  margin-top: 8px;
}
.without > :first-child {
  flex: 1 1 260px;
}
.card {
  padding: 16px;
  display: grid;
  gap: 14px;
}
.head h2::first-letter {
  text-transform: uppercase;
}
.verdict {
  font-size: 1.0625rem;
}
.reason {
  margin-left: 6px;
  color: rgb(var(--v-theme-on-surface));
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.acts :deep(.v-btn) {
  min-height: 52px;
}
.entries {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 280px), 1fr));
  gap: 14px 24px;
}
/* An order of its own in the card: what is typed comes last where the air is simulated, the device's sheet behind all. */
.entries.last {
  order: 1;
}
.handling {
  order: 2;
}
.entry {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 14px 10px;
  align-content: start;
}
.enter {
  display: flex;
  align-items: start;
  gap: 4px;
}
.enter :deep(.scan) {
  margin-top: -4px;
}
.told {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 10px;
}
.to-display {
  justify-self: start;
}
.unsure {
  margin: 0;
  padding: 8px 12px;
  border-left: 4px solid rgb(var(--v-theme-warning));
  background: rgba(var(--v-theme-warning), 0.1);
}
.loop {
  max-width: 320px;
}
@media (max-width: 600px) {
  .acts :deep(.v-btn) {
    flex: 1 1 100%;
  }
}
</style>
