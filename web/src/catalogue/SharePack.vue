<script setup lang="ts">
import { mdiExportVariant } from '@mdi/js'
import { computed, ref } from 'vue'
import { standingsOf, withNeeded, type CatalogueEntry } from '#core'
import { api, ApiError } from '../line/api.ts'
import { useSession } from '../line/session.ts'
import { saveFile } from '../shared/save-file.ts'

/** Writes chosen entries, with what they need, into a pack that is signed by the firm. */
const props = defineProps<{ picked: readonly string[] }>()
const session = useSession()
const open = ref(false)
const title = ref('')
const which = ref<'offered' | 'chosen'>('offered')
const chosen = ref<string[]>([])
const words = ref('')
const trouble = ref('')
const problems = ref<Record<string, string>>({})
const busy = ref(false)

const entries = computed(() => session.catalogue?.entries ?? [])
const standings = computed(() => standingsOf(session.acts))
const stateOf = (id: string): string => standings.value.get(id)?.state ?? 'offered'
const offered = computed(() =>
  entries.value.filter(({ id }) => stateOf(id) === 'offered').map(({ id }) => id),
)
const kinds: Readonly<Record<CatalogueEntry['kind'], string>> = {
  device: 'device',
  panel: 'panel',
  receiver: 'receiver',
  family: 'radio family',
  interface: 'how a panel is keyed',
}
const items = computed(() =>
  entries.value
    .map(({ id, name, maker, kind }) => ({
      value: id,
      title: name,
      props: { subtitle: `${maker} · ${kinds[kind]}${stateOf(id) === 'offered' ? '' : ` · ${stateOf(id)}`}` },
    }))
    .toSorted((a, b) => (a.title < b.title ? -1 : 1)),
)
const asked = computed(() => (which.value === 'offered' ? offered.value : chosen.value))
const needed = computed(() => {
  const { catalogue } = session
  const ids = new Set(asked.value)
  const all = catalogue ? withNeeded(catalogue, ids) : []
  return entries.value.filter(({ id }) => all.includes(id) && !ids.has(id))
})
/** What comes with it though real work is not offered it. */
const odd = computed(() => needed.value.filter(({ id }) => stateOf(id) !== 'offered'))

async function begin(): Promise<void> {
  trouble.value = ''
  problems.value = {}
  chosen.value = [...props.picked]
  const names = entries.value.filter(({ id }) => props.picked.includes(id)).map(({ name }) => name)
  title.value = names.length > 0 ? names.join(', ').slice(0, 120) : 'Our catalogue'
  which.value = props.picked.length > 0 ? 'chosen' : 'offered'
  open.value = true
  words.value = await api<{ words: string }>('GET', '/api/catalogue/key')
    .then((answer) => answer.words)
    .catch(() => '')
}

async function write(): Promise<void> {
  problems.value = {}
  trouble.value = ''
  if (title.value.trim() === '') problems.value = { title: 'Say what the pack is, in 1 to 120 characters.' }
  if (asked.value.length === 0)
    problems.value = { ...problems.value, ids: 'Choose at least one entry, or take all that is offered.' }
  if (Object.keys(problems.value).length > 0) return
  busy.value = true
  try {
    const ids = which.value === 'offered' ? null : chosen.value
    const pack = await api<object>('POST', '/api/catalogue/pack/write', { title: title.value, ids })
    const file = `${title.value.replace(/[^\p{L}\p{N} -]/gu, '').trim() || 'catalogue-pack'}.json`
    saveFile(file, 'application/json', `${JSON.stringify(pack, null, 2)}\n`)
    open.value = false
  } catch (thrown) {
    const lines = thrown instanceof ApiError ? thrown.problems.map(({ message }) => message) : []
    trouble.value = [(thrown as Error).message, ...lines].join(' ')
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <v-btn variant="tonal" class="text-none" :prepend-icon="mdiExportVariant" @click="begin"
    >Share a pack</v-btn
  >
  <v-dialog v-model="open" max-width="640" scrollable>
    <v-card aria-label="Share a pack">
      <v-card-title>Share a pack</v-card-title>
      <v-card-text class="form">
        <p class="quiet">
          A pack is a file with entries of your catalogue, for another firm or another Kapelle. Prices go with
          them; jobs, people and IDs never do.
        </p>
        <v-text-field
          v-model="title"
          label="What the pack is"
          maxlength="120"
          :error-messages="problems['title'] ? [problems['title']] : []"
        />
        <v-radio-group v-model="which" label="What goes into it" hide-details>
          <v-radio value="offered" :label="`All that is offered for real work: ${offered.length} entries`" />
          <v-radio value="chosen" label="Chosen entries" />
        </v-radio-group>
        <v-autocomplete
          v-if="which === 'chosen'"
          v-model="chosen"
          label="Entries"
          :items="items"
          multiple
          chips
          closable-chips
          clear-on-select
          :error-messages="problems['ids'] ? [problems['ids']] : []"
        />
        <v-alert v-else-if="problems['ids']" type="error" variant="tonal">{{ problems['ids'] }}</v-alert>
        <p v-if="needed.length > 0" class="needs">
          <strong>With what they need:</strong>
          {{ needed.map(({ name, kind }) => `${name} (${kinds[kind]})`).join(', ') }}.
        </p>
        <p v-if="odd.length > 0" class="quiet">
          {{ odd.map(({ name }) => name).join(', ') }}
          {{ odd.length === 1 ? 'is' : 'are' }} not offered for real work here, and
          {{ odd.length === 1 ? 'goes' : 'go' }} along because the others cannot be read without.
        </p>
        <p class="key">
          It is signed by your firm’s key<template v-if="words"
            >: <strong class="words">{{ words }}</strong></template
          >. Whoever takes it in is shown the same four groups: tell them by telephone or on paper, for
          anybody can write your name on a pack.
        </p>
        <v-alert v-if="trouble" type="error" variant="tonal">{{ trouble }}</v-alert>
      </v-card-text>
      <v-card-actions>
        <v-btn class="text-none" @click="open = false">Cancel</v-btn>
        <v-btn color="primary" variant="flat" class="text-none" :loading="busy" @click="write"
          >Save a pack of {{ asked.length + needed.length }}
          {{ asked.length + needed.length === 1 ? 'entry' : 'entries' }}</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
.words {
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
}
</style>
