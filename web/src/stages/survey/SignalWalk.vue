<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import {
  houseOf,
  levelWords,
  linkWords,
  receiverAdvice,
  recordProblems,
  recordsOf,
  spotRecord,
  systemOf,
  walkOf,
  type Family,
  type ReceiverPlace,
} from '#core'
import FoldLine from '../../shared/FoldLine.vue'
import { vStack } from '../../shared/stack.ts'
import { useWritten } from '../../shared/times.ts'
import { useJob } from '../../store/job-store.ts'
import { bandLook, needWords } from './walk-words.ts'

/* Links tried at spots before there is a kit: by where the powered receiver stands, and what each spot needs. */

const job = useJob()
const { moment: clock } = useWritten()
const places = computed(() => walkOf(job.doc, job.catalogue))
const open = ref(places.value.length > 0)
const rooms = computed(() => recordsOf(job.doc, 'room').map(({ name }) => name))
const system = computed(() => systemOf(job.doc, job.catalogue))
const advice = computed(() =>
  receiverAdvice(houseOf(job.doc, system.value, job.rules.figures), system.value, job.catalogue),
)
type Spot = ReturnType<typeof spotRecord>
/** The reading that was noted wrong, while it is said anew; null while a new one is noted. */
const correcting = ref<Spot | null>(null)
/** What the panel's receivers hear; every family while no panel is chosen. One that is corrected stays of its family. */
const families = computed<readonly Family[]>(() => {
  const heard = (system.value.panel?.receivers ?? []).flatMap(
    (id) => job.catalogue.get('receiver', id)?.hears.map(({ family }) => family) ?? [],
  )
  const all = job.catalogue.all('family')
  const kept = correcting.value?.family
  return system.value.panel ? all.filter(({ id }) => heard.includes(id) || id === kept) : all
})

/** Whoever goes on goes on with what was used last. */
const last = recordsOf(job.doc, 'spot').at(-1)
const place = ref('')
const receiver = ref(last?.receiver ?? '')
const repeater = ref('')
const used = ref(last?.used ?? '')
const familyId = ref<string | null>(last?.family ?? null)
const level = ref('')
const link = ref<(typeof linkWords)[number] | null>(null)
const note = ref('')
const faults = ref<Readonly<Partial<Record<'place' | 'receiver' | 'level', string>>>>({})
const family = computed(
  () => families.value.find(({ id }) => id === familyId.value) ?? families.value[0] ?? null,
)
const linkItems = linkWords.map((value) => ({ value, title: value === 'none' ? 'nothing heard' : value }))

const form = ref<HTMLFormElement | null>(null)

/** Puts a reading back into the fields. What was seen stays in the journal; the one noted in its place counts. */
function correct(spot: Spot): void {
  correcting.value = spot
  place.value = spot.place
  receiver.value = spot.receiver
  repeater.value = spot.repeater
  used.value = spot.used
  familyId.value = spot.family
  level.value = spot.reading === null ? '' : String(spot.reading)
  link.value = spot.link
  note.value = spot.note
  faults.value = {}
  form.value?.scrollIntoView({ block: 'center' })
}

/** Where the receiver stands and what is tried with stay for the next spot. */
function clear(): void {
  correcting.value = null
  place.value = repeater.value = level.value = note.value = ''
  link.value = null
  faults.value = {}
}

/** A reading in the unit of its family, or the word that it was noted by. */
function linkOf(of: Family, { reading, link: word }: Spot): string {
  if (reading !== null) return levelWords(of, reading)
  return word === 'none' || word === null ? 'nothing heard' : word
}

/** Spots known so far, for the fields that name one. */
const spots = computed(() => [
  ...new Set([...rooms.value, ...places.value.flatMap((one) => one.spots.map((spot) => spot.place))]),
])
const receivers = computed(() => [...new Set([...places.value.map((one) => one.receiver), ...rooms.value])])

function add(): void {
  const text = level.value.trim().replace(',', '.')
  const reading = text === '' ? null : Number(text)
  const unit = family.value?.placement.unit
  const number = unit === undefined ? 'a number' : `a number in ${unit}`
  faults.value = {
    ...(place.value.trim() === '' ? { place: 'Spot: name the room or the place.' } : {}),
    ...(receiver.value.trim() === '' ? { receiver: 'Receiver: say where it stands with power.' } : {}),
    ...(reading !== null && Number.isNaN(reading)
      ? { level: `Level: “${level.value}” must be ${number}.` }
      : reading === null && link.value === null
        ? { level: `Level: ${number}, or how it was in a word.` }
        : {}),
  }
  if (Object.keys(faults.value).length > 0 || !family.value) return
  const record = spotRecord(
    {
      ...{ place: place.value.trim(), family: family.value.id, used: used.value.trim() },
      ...{ receiver: receiver.value.trim(), repeater: repeater.value.trim() },
      ...{ reading, link: reading === null ? link.value : null, note: note.value.trim() },
    },
    {
      ...{ id: `spot:${uuid()}`, who: job.me, at: new Date().toISOString() },
      corrects: correcting.value?.id ?? null,
    },
  )
  const [problem] = recordProblems(record)
  if (problem) {
    faults.value = { level: `${problem.path.replace(/^\./, '')} ${problem.message}` }
    return
  }
  if (job.edit(correcting.value ? 'spot.correct' : 'spot.add', [{ op: 'add', record }])) clear()
}

const values = computed(() => {
  const [first] = places.value
  if (!first) return [{ name: 'Signal walk', value: 'not walked' }]
  const short = first.spots.filter(({ need }) => need.need !== 'nothing').length
  return [
    { name: 'Signal walk', value: counted(first.spots.length, 'spot') },
    { name: `receiver at ${first.receiver}:`, value: short === 0 ? 'all good' : `${short} to see to` },
  ]
})

function counted(count: number, word: string): string {
  return `${count} ${word}${count === 1 ? '' : 's'}`
}

/** From where on a link is good and holds, as far as its family states it. */
function bandWords(of: Family): string {
  const { best, least } = of.placement
  if (best === undefined && least === undefined)
    return 'from which level on a link is good, or holds, is not stated'
  return [
    best === undefined
      ? 'from where on it is in the best band is not stated'
      : `from ${levelWords(of, best)} in the best band`,
    least === undefined
      ? 'below which it no longer holds is not stated'
      : `below ${levelWords(of, least)} nothing to build on`,
  ].join(', ')
}

/** What was heard with the receiver at one place, in numbers. */
function heard({ best, hold, spots }: ReceiverPlace): string {
  const none = spots.filter(({ band }) => band === 'fails').length
  const open = spots.filter(({ band }) => band === 'unjudged').length
  return [
    `${best} in the best band`,
    ...(hold > 0 ? [`${hold} that ${hold === 1 ? 'holds' : 'hold'}`] : []),
    ...(none > 0 ? [`${none} that ${none === 1 ? 'does' : 'do'} not hold`] : []),
    ...(open > 0 ? [`${open} that nobody can judge`] : []),
  ].join(', ')
}
</script>

<template>
  <FoldLine
    v-model:open="open"
    label="Signal walk"
    part="signal-walk"
    :values="values"
    rest="Links tried at the house before there is a kit"
    :findings="[]"
  >
    <p class="advice">
      <template v-if="advice">
        <strong v-if="advice.place === 'middle'">The receiver belongs into the middle of this house</strong>
        <strong v-else>The receiver may hang with the panel</strong>: it has
        {{ advice.floors === 1 ? 'one floor' : `${advice.floors} floors`
        }}<template v-if="advice.longest !== null">
          and {{ Math.round(advice.longest) }} m from end to end</template
        >.
        <template v-if="advice.apart.length > 0"
          >Apart from the panel it can be: {{ advice.apart.join(', ') }}.</template
        >
        <template v-else-if="advice.place === 'middle' && system.panel"
          >No receiver of this panel hangs apart: hang the panel itself there.</template
        >
        <template v-if="advice.metal.length > 0">
          Inside metal ({{ advice.metal.join(', ') }}) nothing is heard: neither receiver nor device goes
          there.</template
        >
      </template>
      <span class="quiet">
        Some hang the receiver by the front door, where its wires are short and it is soon reached: good in a
        small flat. In the middle every device has the shortest way, and who breaks in does not find it first:
        the safer choice. What is read below decides.</span
      >
    </p>
    <form v-if="!job.looksOn" ref="form" class="fields no-print" @submit.prevent="add">
      <p v-if="correcting" class="correcting" role="status">
        In place of the reading of {{ correcting.place
        }}{{ correcting.repeater ? ` through ${correcting.repeater}` : '' }} by {{ correcting.made.name }},
        {{ clock(correcting.at) }}. Both stay in the journal; the new one counts.
        <v-btn variant="text" size="small" height="40" @click="clear">Leave it as it was</v-btn>
      </p>
      <v-combobox
        :model-value="receiver"
        label="The receiver stands at"
        :items="receivers"
        maxlength="80"
        :error-messages="faults.receiver"
        @update:model-value="receiver = $event ?? ''"
      />
      <v-combobox
        :model-value="place"
        label="Spot"
        :items="spots"
        maxlength="80"
        :error-messages="faults.place"
        @update:model-value="place = $event ?? ''"
      />
      <v-select
        v-if="families.length > 1"
        :model-value="family?.id"
        label="Family"
        :items="families.map((one) => ({ value: one.id, title: one.name }))"
        @update:model-value="familyId = $event"
      />
      <v-text-field
        v-model="level"
        label="Level"
        inputmode="decimal"
        maxlength="8"
        :suffix="family?.placement.unit"
        :error-messages="faults.level"
      />
      <v-select
        v-model="link"
        label="Or in a word"
        :items="linkItems"
        clearable
        :disabled="level.trim() !== ''"
      />
      <v-combobox
        :model-value="repeater"
        label="Through a repeater at"
        :items="spots"
        maxlength="80"
        hint="Empty for none; try its own spot first"
        @update:model-value="repeater = $event ?? ''"
      />
      <v-text-field v-model="used" label="Tried with" maxlength="80" />
      <v-text-field v-model="note" label="Note" maxlength="300" />
      <v-btn type="submit" variant="tonal" min-height="48">{{
        correcting ? 'Note it in its place' : 'Note this reading'
      }}</v-btn>
    </form>
    <p v-if="family" class="quiet">
      {{ family.name }}: {{ bandWords(family) }}. The last reading of a spot counts.
    </p>
    <section v-for="one in places" :key="`${one.receiver} ${one.family.id}`" class="one">
      <h3>
        Receiver at {{ one.receiver }}, {{ one.family.name }}: <span class="quiet">{{ heard(one) }}</span>
      </h3>
      <table v-stack class="plain">
        <caption class="sr-only">
          Spots with the receiver at
          {{
            one.receiver
          }}
        </caption>
        <thead>
          <tr>
            <th>Spot</th>
            <th>Link</th>
            <th v-if="one.spots.some(({ through }) => through.length > 0)">Through a repeater</th>
            <th>Needs</th>
            <th v-if="one.spots.some(({ later }) => later.length > 0)">Since then</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="spot in one.spots" :key="spot.place">
            <td>{{ spot.place }}</td>
            <td>
              <template v-if="spot.direct && spot.band">
                <span :class="spot.band"
                  >{{ bandLook[spot.band].glyph }} {{ linkOf(one.family, spot.direct) }}</span
                >
                <v-btn
                  v-if="!job.looksOn"
                  variant="text"
                  size="small"
                  class="no-print"
                  :aria-label="`Correct the reading of ${spot.place}`"
                  @click="correct(spot.direct)"
                  >Correct…</v-btn
                >
                <span class="quiet small"
                  >{{ spot.direct.made.name }}, {{ clock(spot.direct.at)
                  }}{{ spot.direct.used ? `, ${spot.direct.used}` : ''
                  }}{{ spot.direct.note ? `: ${spot.direct.note}` : '' }}</span
                >
              </template>
              <span v-else class="quiet">not tried</span>
            </td>
            <td v-if="one.spots.some(({ through }) => through.length > 0)">
              <span v-for="via in spot.through" :key="via.spot.repeater" class="via"
                >{{ bandLook[via.band].glyph }} {{ via.spot.repeater }}: {{ linkOf(one.family, via.spot) }}
                <v-btn
                  v-if="!job.looksOn"
                  variant="text"
                  size="small"
                  class="no-print"
                  :aria-label="`Correct the reading of ${spot.place} through ${via.spot.repeater}`"
                  @click="correct(via.spot)"
                  >Correct…</v-btn
                ></span
              >
            </td>
            <td>{{ needWords(spot.need) }}</td>
            <td v-if="one.spots.some(({ later }) => later.length > 0)">
              <span v-for="later in spot.later" :key="later.at" class="via"
                >{{ bandLook[later.band].glyph }} {{ levelWords(one.family, later.reading) }},
                {{ clock(later.at) }}</span
              >
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </FoldLine>
</template>

<style scoped>
.advice {
  margin: 0 0 12px;
  max-width: 90ch;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 12px;
  align-items: start;
}
.correcting {
  grid-column: 1 / -1;
  margin: 0;
}
.one {
  margin-top: 14px;
}
.small {
  display: block;
  font-size: 0.8125rem;
}
.via {
  display: block;
}
.fails {
  font-weight: 600;
}
</style>
