<script setup lang="ts">
import { mdiPaperclip } from '@mdi/js'
import { computed, ref, useTemplateRef } from 'vue'
import { leafletTrouble, leafletTypes, type LeafletAnswer, type LeafletWire } from '#core'
import { api, ApiError, sendFile } from '../line/api.ts'
import { useSession } from '../line/session.ts'
import { useWritten } from '../shared/times.ts'

/** The maker's leaflets of an entry or a draft: read, attached and taken away here. */
const props = defineProps<{
  /** What they are about, the first of it where one is attached to: ids of entries, `draft/` and that of a draft. */
  about: readonly string[]
  /** The leaflet that is shown now. */
  shown?: string | null
}>()
const emit = defineEmits<{ show: [leaflet: LeafletWire | null] }>()
const session = useSession()
const { moment } = useWritten()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const trouble = ref('')
const busy = ref(false)
const asked = ref<string | null>(null)
const list = computed(() => session.leaflets.filter(({ about }) => props.about.includes(about)))
const mayAdd = computed(() => session.person !== null && session.person.role !== 'viewer')

function mayRemove({ about }: LeafletWire): boolean {
  return mayAdd.value && (about.startsWith('draft/') || session.may('catalogue'))
}
function size({ bytes, type }: LeafletWire): string {
  const kind = type === 'application/pdf' ? 'PDF' : 'photo'
  const much =
    bytes < 1024 * 1024
      ? `${Math.max(1, Math.round(bytes / 1024))} kB`
      : `${(bytes / 1024 / 1024).toFixed(1)} MB`
  return `${kind}, ${much}`
}

async function attach(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  const [about] = props.about
  if (!file || about === undefined) return
  trouble.value = ''
  busy.value = true
  try {
    const bytes = new Uint8Array(await file.arrayBuffer())
    const wrong = leafletTrouble(bytes)
    if (wrong !== null) {
      trouble.value = `${file.name} ${wrong}. Nothing was sent.`
      return
    }
    const query = new URLSearchParams({ about, name: file.name.slice(-120) })
    const { leaflet } = await sendFile<LeafletAnswer>(`/api/catalogue/leaflets?${query.toString()}`, bytes)
    session.noteLeaflet(leaflet)
    emit('show', leaflet)
  } catch (thrown) {
    const problems = thrown instanceof ApiError ? thrown.problems : []
    trouble.value = [
      thrown instanceof ApiError && thrown.status === 0
        ? 'The server cannot be reached. The leaflet was not sent: attach it again then.'
        : (thrown as Error).message,
      ...problems.map(({ message }) => `${file.name} ${message}.`),
    ].join(' ')
  } finally {
    busy.value = false
  }
}

async function remove(leaflet: LeafletWire): Promise<void> {
  trouble.value = ''
  try {
    await api('DELETE', `/api/catalogue/leaflets/${leaflet.id}`)
  } catch (thrown) {
    // Somebody else took it away already.
    if (!(thrown instanceof ApiError && thrown.status === 404)) {
      trouble.value = (thrown as Error).message
      return
    }
  }
  asked.value = null
  session.forgetLeaflet(leaflet.id)
  if (props.shown === leaflet.id) emit('show', null)
}
</script>

<template>
  <section class="sheet pa-4" aria-label="Leaflets">
    <h2>Leaflets</h2>
    <p v-if="list.length === 0" class="quiet">
      None is attached. A PDF or a photo of the maker’s own sheet is at hand here and on site.
    </p>
    <ul v-else>
      <li v-for="one in list" :key="one.id">
        <span class="what">
          <strong>{{ one.name }}</strong>
          <span class="quiet"> {{ size(one) }} · {{ one.by }}, {{ moment(one.at) }}</span>
        </span>
        <v-btn
          variant="tonal"
          height="40"
          :aria-pressed="shown === one.id"
          :aria-label="`${shown === one.id ? 'Close' : 'Read'} ${one.name}`"
          @click="emit('show', shown === one.id ? null : one)"
          >{{ shown === one.id ? 'Close' : 'Read' }}</v-btn
        >
        <v-btn
          v-if="mayRemove(one) && asked !== one.id"
          variant="text"
          height="40"
          :aria-label="`Take ${one.name} away`"
          @click="asked = one.id"
          >Take away…</v-btn
        >
        <span v-if="asked === one.id" class="sure">
          It is gone for good, for everybody.
          <v-btn variant="tonal" color="error" height="40" @click="remove(one)">Take it away</v-btn>
          <v-btn variant="text" height="40" @click="asked = null">Keep it</v-btn>
        </span>
      </li>
    </ul>
    <template v-if="mayAdd">
      <input
        ref="chooser"
        type="file"
        class="sr-only"
        tabindex="-1"
        aria-label="Leaflet file"
        :accept="leafletTypes.join(',')"
        @change="attach"
      />
      <v-btn variant="text" class="add" :prepend-icon="mdiPaperclip" :loading="busy" @click="chooser?.click()"
        >Attach a leaflet…</v-btn
      >
    </template>
    <p v-if="trouble" role="alert" class="text-error">{{ trouble }}</p>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 6px 0 0;
  display: grid;
  gap: 8px;
}
li,
.sure {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.what > .quiet {
  display: block;
  font-size: 0.875rem;
}
.what {
  flex: 1 1 200px;
  overflow-wrap: anywhere;
}
.sure {
  flex: 1 1 100%;
}
.add {
  margin-left: -12px;
}
p {
  margin: 4px 0 0;
}
</style>
