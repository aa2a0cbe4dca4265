<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import {
  factChanges,
  readKept,
  type Catalogue,
  type CatalogueEntry,
  type FactChange,
  type VersionsAnswer,
} from '#core'
import { api } from '../line/api.ts'
import { useWritten } from '../shared/times.ts'

/** What an entry was: who made which version when and why, and what it changed. */
const props = defineProps<{ entry: CatalogueEntry; catalogue: Catalogue }>()
const { moment } = useWritten()
const answer = ref<VersionsAnswer | null>(null)
const trouble = ref('')
const all = ref(false)
watch(
  () => props.entry,
  async ({ id }, before) => {
    if (id !== before?.id) {
      answer.value = null
      all.value = false
    }
    trouble.value = ''
    try {
      const got = await api<VersionsAnswer>('GET', `/api/catalogue/versions?id=${encodeURIComponent(id)}`)
      // Another entry may be looked at by now.
      if (props.entry.id === id) answer.value = got
    } catch (thrown) {
      if (props.entry.id === id) trouble.value = (thrown as Error).message
    }
  },
  { immediate: true },
)

type Version = VersionsAnswer['versions'][number]
const ways = {
  published: 'published',
  pack: 'taken from a pack',
  prices: 'its price changed',
  list: 'read from a list',
  shipped: 'came with Kapelle',
} as const
interface Line {
  readonly key: string
  readonly version: string
  readonly now: boolean
  readonly how: string
  readonly why: string
  readonly changes: readonly FactChange[]
}
const lines = computed((): readonly Line[] => {
  const { versions, entries, current } = answer.value ?? { versions: [], entries: [], current: null }
  const kept = new Map(entries.map((one) => [one.hash, readKept(one).entry]))
  return versions.flatMap((one, index): Line[] => {
    const entry = kept.get(one.hash)
    if (!entry) return []
    const before = kept.get(versions[index + 1]?.hash ?? '')
    return [
      {
        key: `${index} ${one.hash}`,
        version: entry.version,
        now: one.hash === current && index === versions.findIndex(({ hash }) => hash === current),
        how: howOf(one),
        why: one.why,
        changes: before
          ? factChanges(before, entry, props.catalogue).filter(({ label }) => label !== 'Version')
          : [],
      },
    ]
  })
})
const shown = computed(() => (all.value ? lines.value : lines.value.slice(0, 1)))

function howOf({ how, by, at }: Version): string {
  if (how === null || at === null) return 'offered before Kapelle wrote down who and when'
  return how === 'shipped' ? `${ways[how]}, ${moment(at)}` : `${ways[how]} by ${by ?? ''}, ${moment(at)}`
}
</script>

<template>
  <section class="sheet pa-4" aria-label="Versions">
    <h2>Versions</h2>
    <p v-if="trouble" class="quiet">What it was before cannot be told now: {{ trouble }}</p>
    <v-progress-linear v-else-if="!answer" indeterminate aria-label="Loading the versions" />
    <ol v-else>
      <li v-for="line in shown" :key="line.key">
        <strong>{{ line.version }}</strong>
        <span v-if="line.now"> · in use</span>
        <span class="quiet"> · {{ line.how }}</span>
        <p v-if="line.why" class="why">{{ line.why }}</p>
        <ul v-if="line.changes.length > 0">
          <li v-for="one in line.changes" :key="one.label">
            {{ one.label
            }}<template v-if="one.was !== null"
              >: <span class="quiet">{{ one.was }}</span> → {{ one.now }}</template
            ><template v-else> was changed</template>
          </li>
        </ul>
      </li>
    </ol>
    <v-btn v-if="lines.length > 1" variant="text" class="more" :aria-expanded="all" @click="all = !all">{{
      all ? 'Only the latest' : `Earlier versions (${lines.length - 1})`
    }}</v-btn>
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  padding: 0;
  margin: 6px 0 0;
  display: grid;
  gap: 10px;
}
ul {
  margin: 2px 0 0;
  padding-left: 20px;
}
.why {
  margin: 2px 0 0;
}
.more {
  margin: 4px 0 0 -12px;
}
</style>
