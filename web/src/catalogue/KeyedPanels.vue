<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { correctionBy, type PanelInterface } from '#core'
import { useBeginDraft } from '../line/useBeginDraft.ts'
import { useSession } from '../line/session.ts'

/** Which panels are keyed as an entry says; a further one is pointed at it by its correction. */
const props = defineProps<{ entry: PanelInterface; mayDescribe: boolean }>()
const session = useSession()
const { trouble, start } = useBeginDraft()
const chosen = ref<string | null>(null)
const fault = ref('')
watch(
  () => props.entry.id,
  () => {
    chosen.value = null
    fault.value = ''
  },
)

const panels = computed(() => session.catalogue?.all('panel') ?? [])
const keyed = computed(() => panels.value.filter((panel) => panel.interface === props.entry.id))
const ask = computed(() =>
  keyed.value.length === 0 ? 'Which panel is keyed so?' : 'Which other panel is keyed so?',
)
/** Of the same maker first, and of those such as are not described yet. */
const others = computed(() => {
  const rank = (panel: (typeof panels.value)[number]) =>
    (panel.maker === props.entry.maker ? 0 : 2) + (panel.interface === null ? 0 : 1)
  return panels.value
    .filter((panel) => panel.interface !== props.entry.id)
    .sort((a, b) => rank(a) - rank(b))
    .map(({ id, name, maker }) => ({ value: id, title: `${name}, ${maker}` }))
})

async function point(): Promise<void> {
  const { catalogue } = session
  const panel = catalogue?.get('panel', chosen.value) ?? null
  fault.value = panel ? '' : 'Choose the panel that is keyed so.'
  if (!panel || !catalogue) return
  const seen = { path: 'interface', value: () => props.entry.id, source: '' }
  await start(correctionBy(panel, seen, catalogue))
}
</script>

<template>
  <section class="sheet pa-4" aria-label="Panels keyed so">
    <h2>{{ keyed.length === 0 ? 'No panel is keyed so yet' : 'Panels keyed so' }}</h2>
    <p v-if="keyed.length > 0">{{ keyed.map(({ name }) => name).join(', ') }}</p>
    <p v-else class="quiet">Until a panel names it, no sheet is proven by it.</p>
    <form v-if="mayDescribe && others.length > 0" class="point" @submit.prevent="point">
      <v-autocomplete
        v-model="chosen"
        :label="ask"
        :aria-label="ask"
        :items="others"
        auto-select-first
        :error-messages="fault"
      />
      <v-btn type="submit" variant="tonal" height="44">Correct that panel</v-btn>
      <p v-if="trouble" class="text-error" role="alert">{{ trouble }}</p>
      <p class="quiet">Its correction is a draft: it counts once it is published.</p>
    </form>
  </section>
</template>

<style scoped>
p {
  margin: 4px 0;
}
.point {
  display: grid;
  gap: 8px;
  margin-top: 8px;
}
.point .v-btn {
  justify-self: start;
}
</style>
