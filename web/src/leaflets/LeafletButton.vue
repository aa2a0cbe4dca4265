<script setup lang="ts">
import { mdiFileDocumentOutline } from '@mdi/js'
import { computed, onMounted, ref } from 'vue'
import { useDisplay } from 'vuetify'
import { useSession } from '../line/session.ts'
import LeafletPages from './LeafletPages.vue'

/** Opens the maker's leaflets of what one has in hand; nothing where none is attached. */
const props = defineProps<{
  /** Ids of the entries that they are about. */
  about: readonly (string | null | undefined)[]
  name: string
}>()
const session = useSession()
const { smAndDown: narrow } = useDisplay()
const open = ref(false)
const chosen = ref<string | null>(null)
// Where the catalogue is not reached there are none to offer: the stage goes on without.
onMounted(() => void session.loadCatalogue().catch(() => undefined))
const list = computed(() => session.leaflets.filter(({ about }) => props.about.includes(about)))
const shown = computed(() => list.value.find(({ id }) => id === chosen.value) ?? list.value[0] ?? null)
</script>

<template>
  <v-btn
    v-if="list.length > 0"
    variant="text"
    height="48"
    class="no-print"
    :prepend-icon="mdiFileDocumentOutline"
    @click="open = true"
    >Leaflet</v-btn
  >
  <v-dialog
    v-model="open"
    max-width="960"
    :fullscreen="narrow"
    scrollable
    :aria-label="`Leaflets of ${name}`"
  >
    <v-card v-if="shown">
      <div class="head">
        <h2>{{ name }}</h2>
        <span class="grow" />
        <v-btn variant="text" height="48" @click="open = false">Close</v-btn>
      </div>
      <div v-if="list.length > 1" class="choose" role="group" aria-label="Leaflets">
        <v-btn
          v-for="one in list"
          :key="one.id"
          :variant="one.id === shown.id ? 'flat' : 'outlined'"
          :color="one.id === shown.id ? 'primary' : undefined"
          :aria-pressed="one.id === shown.id"
          height="44"
          @click="chosen = one.id"
          >{{ one.name }}</v-btn
        >
      </div>
      <v-card-text class="body"><LeafletPages :leaflet="shown" /></v-card-text>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.head,
.choose {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 8px 16px 0;
}
.choose :deep(.v-btn__content) {
  white-space: normal;
  overflow-wrap: anywhere;
}
.body {
  padding: 4px 16px 16px;
}
.grow {
  flex: 1;
}
</style>
