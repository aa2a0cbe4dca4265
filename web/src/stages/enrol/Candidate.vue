<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { groupId } from '#core'
import IdCompare from './IdCompare.vue'
import type { Enrolling } from './useEnrol.ts'

const props = defineProps<{ enrol: Enrolling; listening: boolean }>()
const { target, family, model, candidate, judgement, confirming, unconfirmed, loop, sister, holding } =
  props.enrol
const { mayGoWithout, goesWithout, without } = props.enrol
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
// While somebody types, what is heard must not change what the typing is for.
watch(entry, (text) => (holding.value = text !== ''))
const fault = ref('')

/** Words of their own for what is neither this one nor plainly another. */
const words: Readonly<Record<string, string>> = {
  elsewhere: 'In another job, too.',
  'look-alike': 'Nearly, but not it.',
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
      word: candidate.value?.source === 'typed' ? 'Typed, not heard.' : 'Compare with the sticker.',
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
const from = computed(() => (candidate.value?.source === 'typed' ? 'Typed' : 'Heard'))
const shown = computed(() => candidate.value?.serial ?? (target.value?.done ? bound.value : null))
const bound = computed(() => target.value?.serial ?? null)

function enter(): void {
  fault.value = props.enrol.type(entry.value)
  if (fault.value === '') entry.value = ''
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
    <IdCompare
      :family="family"
      :sticker="target.device.sticker"
      :heard="shown"
      :from="target.done && !candidate ? 'Enrolled' : from"
    />
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
    <p v-else-if="target.done" class="quiet">
      {{ target.waits ? 'Accepted' : 'Enrolled' }} as {{ groupId(family, bound ?? '')
      }}{{ target.waits ? ', waiting to be sent' : '' }}. To learn it again, trip it or type its sticker.
    </p>
    <p v-else-if="bound" class="quiet">
      {{ groupId(family, bound) }} is told by the job’s file or an earlier version; nobody here saw it. Learn
      it again to make it count.
    </p>
    <p v-else-if="target.sister" class="quiet">
      {{ target.loop?.name }} cannot be tripped on the bench: it takes the ID of its sister zone.
    </p>
    <p v-else class="quiet">
      {{ listening ? 'Waiting for it.' : '' }} Ways to make it transmit:
      {{ model?.ways.map((way) => way.way).join('; ') || 'see its own sheet' }}. Sticker:
      {{ model?.sticker }}.
    </p>
    <form v-if="mayGoWithout && asking" class="without" @submit.prevent="goWithout">
      <v-text-field
        v-model="why"
        :label="`Why, for every ${model?.class ?? 'device'} enrolled now`"
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
    <div class="acts">
      <v-btn size="x-large" color="primary" :disabled="!ready" class="text-none" @click="enrol.accept"
        >Accept for {{ target.name }}</v-btn
      >
      <v-btn size="x-large" variant="tonal" :disabled="!candidate" class="text-none" @click="enrol.refuse"
        >Refuse, keep on record</v-btn
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
        v-if="sister && !target.done"
        size="x-large"
        variant="tonal"
        class="text-none"
        @click="enrol.takeSister"
        >Take the sister’s ID {{ groupId(family, sister) }}</v-btn
      >
    </div>
    <form class="entry" @submit.prevent="enter">
      <v-text-field
        id="sticker-entry"
        v-model="entry"
        label="Type or scan the sticker"
        autocomplete="off"
        maxlength="60"
        :error-messages="fault"
        @update:model-value="fault = ''"
      />
      <v-btn type="submit" variant="tonal" height="40" class="text-none">Compare</v-btn>
    </form>
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
.entry {
  display: flex;
  gap: 10px;
  max-width: 460px;
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
