<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import {
  catalogueActInput,
  openRecalls,
  standingsOf,
  type CatalogueActInput,
  type CatalogueEntry,
  type RecallsAnswer,
  type Standing,
} from '#core'
import { api } from '../line/api.ts'
import { useSession } from '../line/session.ts'
import { useWritten } from '../shared/times.ts'
import UnofferedNeeds from './UnofferedNeeds.vue'

/** How an entry stands: offered, for practice only or retired; of a device what of it is recalled, and where that hangs. */
const props = defineProps<{ entry: CatalogueEntry }>()
const session = useSession()
const { moment } = useWritten()
const asked = ref<'retire' | 'practice' | 'offer' | 'recall' | null>(null)
const why = ref('')
const ids = ref({ from: '', to: '' })
const years = ref({ from: '', to: '' })
const trouble = ref('')
const busy = ref(false)
const held = ref<RecallsAnswer['held']>([])
watch(
  () => props.entry.id,
  () => (asked.value = null),
)

const standing = computed(
  (): Standing => standingsOf(session.acts).get(props.entry.id) ?? { state: 'offered', act: null },
)
const kept = computed(() => session.catalogue?.kept.find(({ entry }) => entry.id === props.entry.id))
const recalls = computed(() => openRecalls(session.acts).filter(({ entryId }) => entryId === props.entry.id))
const words = { offered: 'Offered for new work', practice: 'For practice only', retired: 'Retired' } as const
const what = {
  retire: 'No new work is offered it. Jobs that have it keep it, and it is read as before.',
  practice: 'Practice jobs are offered it, real ones are not.',
  offer: 'Every job is offered it.',
  recall: 'Jobs that hold such devices are named here until the recall is ended.',
} as const
const titles = {
  retire: 'Retire it',
  practice: 'For practice only',
  offer: 'Offer it',
  recall: 'Recall devices',
} as const
const possible = computed(() =>
  (['offer', 'retire', 'practice', 'recall'] as const).filter((kind) => {
    if (kind === 'recall') return props.entry.kind === 'device'
    return { offer: 'offered', retire: 'retired', practice: 'practice' }[kind] !== standing.value.state
  }),
)
watch(
  recalls,
  async (now) => {
    held.value =
      now.length === 0
        ? []
        : await api<RecallsAnswer>('GET', '/api/catalogue/recalls')
            .then((answer) => answer.held)
            .catch(() => [])
  },
  { immediate: true },
)

function ask(kind: keyof typeof titles): void {
  asked.value = asked.value === kind ? null : kind
  why.value = trouble.value = ''
}

async function say(input: unknown): Promise<void> {
  const read = catalogueActInput.safeParse(input)
  trouble.value = read.success ? '' : (read.error.issues[0]?.message ?? '')
  if (!read.success) return
  busy.value = true
  try {
    await api('POST', '/api/catalogue/acts', read.data satisfies CatalogueActInput)
    await session.reloadCatalogue()
    asked.value = null
  } catch (thrown) {
    trouble.value = (thrown as Error).message
  } finally {
    busy.value = false
  }
}
function sayAsked(): Promise<void> {
  const base = { kind: asked.value, entryId: props.entry.id, why: why.value }
  if (asked.value !== 'recall') return say(base)
  const { from, to } = years.value
  return say({
    ...base,
    serials: ids.value.from.trim() === '' && ids.value.to.trim() === '' ? null : ids.value,
    years: from.trim() === '' && to.trim() === '' ? null : { from: Number(from), to: Number(to || from) },
  })
}
function heldBy(recall: string) {
  return held.value.filter((one) => one.recall === recall)
}
</script>

<template>
  <section class="sheet pa-4" aria-label="How it stands">
    <h2>{{ words[standing.state] }}</h2>
    <p v-if="standing.act" class="quiet">
      {{ standing.act.by }}, {{ moment(standing.act.at) }}: {{ standing.act.why }}
    </p>
    <UnofferedNeeds v-if="kept" :kept="kept" />
    <div v-for="recall in recalls" :key="recall.id" class="recall">
      <p>
        <strong class="text-warning">▲ Recalled</strong>
        <template v-if="recall.serials"> IDs {{ recall.serials.from }} to {{ recall.serials.to }}</template>
        <template v-if="recall.years"> made {{ recall.years.from }} to {{ recall.years.to }}</template
        >: {{ recall.why }}
        <span class="quiet">{{ recall.by }}, {{ moment(recall.at) }}</span>
      </p>
      <ul>
        <li v-for="job in heldBy(recall.id)" :key="job.job">
          <RouterLink :to="`/jobs/${job.job}/kit`">{{ job.name }}</RouterLink>
          <span v-for="one in job.devices" :key="one.device" class="quiet where">
            {{ [one.room, one.position].filter(Boolean).join(', ') || 'no room stated' }}
            {{
              one.answer === 'yes'
                ? `ID ${one.serial ?? 'unknown'}`
                : '? its ID or year is not known: look at it'
            }}
          </span>
        </li>
        <li v-if="heldBy(recall.id).length === 0" class="quiet">No job of this firm holds one.</li>
      </ul>
      <v-btn
        v-if="session.may('catalogue')"
        variant="text"
        @click="say({ kind: 'end-recall', entryId: entry.id, recall: recall.id, why: 'all were dealt with' })"
        >All were dealt with</v-btn
      >
    </div>
    <div v-if="session.may('catalogue')" class="acts">
      <v-btn
        v-for="kind in possible"
        :key="kind"
        variant="text"
        :aria-expanded="asked === kind"
        @click="ask(kind)"
        >{{ titles[kind] }}…</v-btn
      >
    </div>
    <form v-if="asked" class="ask" @submit.prevent="sayAsked">
      <p>{{ what[asked] }}</p>
      <template v-if="asked === 'recall'">
        <v-text-field v-model="ids.from" label="IDs from" maxlength="40" hide-details />
        <v-text-field v-model="ids.to" label="IDs to" maxlength="40" hide-details />
        <v-text-field
          v-model="years.from"
          label="Made from year"
          inputmode="numeric"
          maxlength="4"
          hide-details
        />
        <v-text-field
          v-model="years.to"
          label="Made to year"
          inputmode="numeric"
          maxlength="4"
          hide-details
        />
      </template>
      <v-text-field v-model="why" label="Why" maxlength="300" :error-messages="trouble" class="wide" />
      <v-btn type="submit" color="primary" variant="flat" height="44" :loading="busy">{{
        titles[asked]
      }}</v-btn>
    </form>
    <p v-else-if="trouble" class="text-error" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped>
p {
  margin: 4px 0;
}
ul {
  list-style: none;
  padding: 0;
  margin: 4px 0;
}
.where {
  display: block;
  padding-left: 12px;
}
.recall {
  border-left: 4px solid rgb(var(--v-theme-warning));
  padding-left: 12px;
  margin: 8px 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-left: -12px;
}
.ask {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(160px, 1fr));
  gap: 8px;
  align-items: start;
}
.ask p,
.wide {
  grid-column: 1 / -1;
}
</style>
