<script setup lang="ts">
import { mdiDownload, mdiMagnify } from '@mdi/js'
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import {
  deviceClasses,
  isDescribed,
  openRecalls,
  regions,
  standingsOf,
  type CatalogueEntry,
  type DeviceClass,
  type EntryKind,
  type LeafletWire,
} from '#core'
import LeafletList from '../leaflets/LeafletList.vue'
import LeafletPages from '../leaflets/LeafletPages.vue'
import { useSession } from '../line/session.ts'
import { regionItems } from '../jobs/words.ts'
import CatalogueGuide from './CatalogueGuide.vue'
import CompareEntries from './CompareEntries.vue'
import DescribeMenu from './draft/DescribeMenu.vue'
import DevicesDialog from './DevicesDialog.vue'
import DraftsBeside from './draft/DraftsBeside.vue'
import { useDrafts } from './draft/useDrafts.ts'
import EntryStanding from './EntryStanding.vue'
import EntryVersions from './EntryVersions.vue'
import ImportPack from './ImportPack.vue'
import PricesDialog from './PricesDialog.vue'
import KeyedPanels from './KeyedPanels.vue'
import SharePack from './SharePack.vue'

const MOST_COMPARED = 4
const session = useSession()
const route = useRoute()
const router = useRouter()
const kind = ref<EntryKind>('device')
const find = ref('')
const deviceClass = ref<DeviceClass | null>(null)
const family = ref<string | null>(null)
const region = ref<string | null>(null)
const picked = ref<string[]>([])
const { drafts, trouble, begin } = useDrafts()
const mayDescribe = computed(() => session.person !== null && session.person.role !== 'viewer')
onMounted(() => session.loadCatalogue())
/** What was just published, and what another entry leads to, is shown: also where the list was narrowed to others. */
watch(
  () => [session.catalogue, route.query.show] as const,
  async ([entries, show], before) => {
    const entry = entries?.entries.find(({ id }) => id === show)
    if (!entry || (before?.[0] && before[1] === show)) return
    kind.value = entry.kind
    find.value = ''
    deviceClass.value = family.value = region.value = null
    picked.value = [entry.id]
    await nextTick()
    document.querySelector('.entry.on')?.scrollIntoView({ block: 'nearest' })
  },
  { immediate: true },
)

const catalogue = computed(() => session.catalogue)
const kinds = [
  { value: 'device', title: 'Devices' },
  { value: 'panel', title: 'Panels' },
  { value: 'receiver', title: 'Receivers' },
  { value: 'family', title: 'Radio families' },
  { value: 'interface', title: 'How panels are keyed' },
] as const
const families = computed(() =>
  (catalogue.value?.all('family') ?? []).map((item) => ({ title: item.name, value: item.id })),
)
const regionChoices = regionItems.filter(
  (item) => (regions as readonly string[]).includes(item.value) && item.value !== 'own',
)
const shown = computed((): CatalogueEntry[] => {
  const text = find.value.trim().toLowerCase()
  return ((catalogue.value?.all(kind.value) ?? []) as CatalogueEntry[]).filter(
    (entry) =>
      (text === '' || JSON.stringify(entry).toLowerCase().includes(text)) &&
      (region.value === null || (entry.regions as string[]).includes(region.value)) &&
      (entry.kind !== 'device' ||
        ((deviceClass.value === null || entry.class === deviceClass.value) &&
          (family.value === null || entry.family === family.value))),
  )
})
const compared = computed(() =>
  picked.value.flatMap((id) => catalogue.value?.entries.find((entry) => entry.id === id) ?? []),
)

function pick(id: string): void {
  // What somebody picks stands instead of what a link showed: the same link leads there again.
  if (route.query.show) void router.replace({ query: {} })
  picked.value = picked.value.includes(id)
    ? picked.value.filter((item) => item !== id)
    : [...picked.value, id].slice(-MOST_COMPARED)
}

function describe(entry: CatalogueEntry, corrects: boolean): void {
  if (isDescribed(entry.kind)) void begin(entry.kind, entry, corrects)
}

function turn(to: EntryKind): void {
  kind.value = to
  picked.value = []
}

const listing = ref(false)
const reading = shallowRef<LeafletWire | null>(null)
watch(picked, () => (reading.value = null))
const standings = computed(() => standingsOf(session.acts))
const recalled = computed(() => new Set(openRecalls(session.acts).map(({ entryId }) => entryId)))
/** What is said of it besides: how it stands, where not as most. */
function standingOf({ id }: CatalogueEntry): string {
  const state = standings.value.get(id)?.state
  return [
    state === 'practice' ? ' · for practice' : state === 'retired' ? ' · retired' : '',
    recalled.value.has(id) ? ' · ▲ recalled' : '',
  ].join('')
}

const encryptionWords = { always: 'encrypted', optional: 'can encrypt', none: 'plain' } as const

function gist(entry: CatalogueEntry): string {
  switch (entry.kind) {
    case 'device':
      return [
        catalogue.value?.get('family', entry.family)?.name ?? 'wired',
        entry.class,
        entry.encryption === undefined ? 'encryption not stated' : encryptionWords[entry.encryption],
      ]
        .concat(entry.discontinued ? ['no longer made'] : [])
        .join(' · ')
    case 'panel':
      return entry.style
    case 'receiver':
      return entry.transmitters === undefined
        ? `${entry.place} · transmitters not stated`
        : `${entry.place} · ${entry.transmitters} transmitters`
    case 'family':
      return `${entry.bandMHz.from === entry.bandMHz.to ? entry.bandMHz.from : `${entry.bandMHz.from}–${entry.bandMHz.to}`} MHz · ${entry.way}`
    case 'interface':
      return `${entry.display.lines} × ${entry.display.columns} signs · ${Object.keys(entry.screens).length} screens`
  }
}
</script>

<template>
  <v-main>
    <div class="page">
      <div class="page-head">
        <h1>Catalogue</h1>
        <span class="quiet">{{ shown.length }} {{ shown.length === 1 ? 'entry' : 'entries' }}</span>
        <span class="grow" />
        <DescribeMenu v-if="mayDescribe" @begin="begin($event)" @list="listing = true" />
        <DevicesDialog v-if="listing" v-model="listing" />
        <PricesDialog />
        <ImportPack />
        <SharePack v-if="session.may('catalogue')" :picked="picked" />
        <v-btn v-else href="/api/catalogue/pack" variant="tonal" class="text-none" :prepend-icon="mdiDownload"
          >Export as a pack</v-btn
        >
      </div>
      <v-alert v-if="trouble" type="error" variant="tonal" class="mb-3">{{ trouble }}</v-alert>
      <CatalogueGuide v-if="catalogue && mayDescribe" @begin="begin($event)" />
      <div class="filters">
        <v-btn-toggle :model-value="kind" mandatory density="compact" variant="outlined">
          <v-btn
            v-for="item in kinds"
            :key="item.value"
            :value="item.value"
            class="text-none"
            @click="turn(item.value)"
            >{{ item.title }}</v-btn
          >
        </v-btn-toggle>
        <v-text-field
          v-model="find"
          label="Find any word, code or figure"
          :prepend-inner-icon="mdiMagnify"
          maxlength="80"
        />
        <template v-if="kind === 'device'">
          <v-select v-model="deviceClass" label="Class" :items="[...deviceClasses]" clearable />
          <v-select v-model="family" label="Family" :items="families" clearable />
        </template>
        <v-select v-model="region" label="Region" :items="regionChoices" clearable />
      </div>
      <v-progress-linear v-if="!catalogue" indeterminate aria-label="Loading the catalogue" />
      <div v-else class="both">
        <ul class="sheet list" aria-label="Entries">
          <li v-for="entry in shown" :key="entry.id">
            <button
              type="button"
              class="entry"
              :class="{ on: picked.includes(entry.id) }"
              :aria-pressed="picked.includes(entry.id)"
              @click="pick(entry.id)"
            >
              <strong>{{ entry.name }}</strong>
              <span class="quiet small">{{ entry.maker }} · {{ gist(entry) }}{{ standingOf(entry) }}</span>
            </button>
          </li>
          <li v-if="shown.length === 0" class="pa-4 quiet">
            Nothing like it. Clear a filter, import a pack that has it, or describe it from its leaflet.
          </li>
        </ul>
        <div class="right">
          <div
            v-if="compared.length === 1 && compared[0] && isDescribed(compared[0].kind) && mayDescribe"
            class="acts"
          >
            <v-btn variant="tonal" @click="describe(compared[0], false)">Begin a new one like it</v-btn>
            <v-btn variant="tonal" @click="describe(compared[0], true)">Correct it</v-btn>
          </div>
          <div v-if="compared.length === 1 && compared[0]" class="two">
            <EntryStanding :entry="compared[0]" />
            <KeyedPanels
              v-if="compared[0].kind === 'interface'"
              :entry="compared[0]"
              :may-describe="mayDescribe"
            />
            <LeafletList :about="[compared[0].id]" :shown="reading?.id ?? null" @show="reading = $event" />
          </div>
          <div v-if="reading" class="sheet pa-4 read"><LeafletPages :leaflet="reading" /></div>
          <CompareEntries
            v-if="compared.length > 0"
            :entries="compared"
            :catalogue="catalogue"
            @drop="pick"
          />
          <div v-else class="sheet pa-5">
            <h2>Choose an entry</h2>
            <p class="quiet mt-1">
              Choose up to {{ MOST_COMPARED }} to lay them side by side: what differs is marked. A job keeps
              the entries it was planned with, also when a newer one comes.
            </p>
          </div>
          <EntryVersions
            v-if="compared.length === 1 && compared[0]"
            :entry="compared[0]"
            :catalogue="catalogue"
          />
          <DraftsBeside :drafts="drafts" />
        </div>
      </div>
    </div>
  </v-main>
</template>

<style scoped>
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  margin-bottom: 14px;
}
.filters > .v-input {
  flex: 1 1 150px;
}
.both {
  display: grid;
  grid-template-columns: 330px minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}
.right {
  display: grid;
  gap: 12px;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 320px), 1fr));
  gap: 12px;
}
.read {
  max-height: calc(100vh - 90px);
  display: grid;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.list {
  list-style: none;
  padding: 6px;
  margin: 0;
  max-height: calc(100vh - 200px);
  overflow-y: auto;
}
.entry {
  font: inherit;
  color: inherit;
  width: 100%;
  display: grid;
  text-align: left;
  padding: 6px 10px;
  border: 0;
  border-radius: 8px;
  background: transparent;
  cursor: pointer;
}
.entry:hover {
  background: rgba(var(--v-theme-primary), 0.08);
}
.on {
  background: rgba(var(--v-theme-primary), 0.14);
  box-shadow: inset 4px 0 0 rgb(var(--v-theme-primary));
}
.small {
  font-size: 0.8125rem;
}
@media (max-width: 800px) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }
  .list {
    max-height: 320px;
  }
}
@media (max-width: 600px) {
  .filters .v-btn-toggle {
    flex-wrap: wrap;
    height: auto;
  }
}
</style>
