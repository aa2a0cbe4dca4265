<script setup lang="ts">
import { computed, ref } from 'vue'
import { mdiPrinter } from '@mdi/js'
import { useRoute, useRouter } from 'vue-router'
import { fitAll, type Verdict } from '#core'
import { useJob } from '../../store/job-store.ts'
import AddDevices from './AddDevices.vue'
import CatalogueUpdates from './CatalogueUpdates.vue'
import FitGrid from './FitGrid.vue'
import IdentifySticker from './IdentifySticker.vue'
import ImportList from './ImportList.vue'
import KitRow from './KitRow.vue'
import KitSums from './KitSums.vue'
import MakeFit from './MakeFit.vue'
import SinceHandOver from './SinceHandOver.vue'
import Receivers from './Receivers.vue'
import WhichPanel from './WhichPanel.vue'
import LongList from '../../shared/LongList.vue'
import { vStack } from '../../shared/stack.ts'

const job = useJob()
const route = useRoute()
const router = useRouter()
const onlyBad = ref(false)
const views = [
  { value: 'list', title: 'List' },
  { value: 'grid', title: 'Fit grid' },
  { value: 'panels', title: 'Which panel?' },
] as const
/** The view stands in the address, so that a link opens it. */
const view = computed({
  get: () => views.find((item) => item.value === route.query.view)?.value ?? 'list',
  set: (to) => void router.replace({ query: to === 'list' ? {} : { view: to } }),
})
const asked = computed(() => (typeof route.query.show === 'string' ? route.query.show : null))
const fits = computed(() => (job.system ? fitAll(job.system) : new Map()))
const rows = computed(() =>
  (job.system?.devices ?? []).flatMap((row) => {
    const { id } = row.device
    return !onlyBad.value || fits.value.get(id)?.verdict !== 'works' ? [{ id, row }] : []
  }),
)
const tally = computed(() => {
  const verdicts = [...fits.value.values()].map((fit) => fit.verdict)
  const count = (of: Verdict): number => verdicts.filter((verdict) => verdict === of).length
  return {
    ...{ all: verdicts.length, works: count('works'), no: count('no') },
    ...{ loss: count('loss'), unknown: count('unknown') },
  }
})

function print(): void {
  window.print()
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Kit</h1>
      <span v-if="tally.all" class="quiet"
        >{{ tally.all }} {{ tally.all === 1 ? 'device' : 'devices'
        }}<template v-if="job.system?.panel"
          >, {{ tally.works }} fit as they are, {{ tally.no }}
          {{ tally.no === 1 ? 'does' : 'do' }} not<template v-if="tally.loss > 0"
            >, {{ tally.loss }} with a loss</template
          ><template v-if="tally.unknown > 0">, of {{ tally.unknown }} it cannot be told</template></template
        ></span
      >
      <span class="grow" />
      <v-checkbox
        v-if="view !== 'panels' && tally.all > 0"
        v-model="onlyBad"
        label="Only misfits"
        class="no-print"
      />
      <v-btn-toggle v-model="view" mandatory density="compact" variant="outlined" class="no-print">
        <v-btn v-for="item in views" :key="item.value" :value="item.value" class="text-none">{{
          item.title
        }}</v-btn>
      </v-btn-toggle>
      <template v-if="view === 'list'"><ImportList /><IdentifySticker /></template>
      <MakeFit v-if="view === 'grid' && tally.all > 0" />
      <v-btn
        v-if="view !== 'list'"
        variant="tonal"
        class="text-none no-print"
        :prepend-icon="mdiPrinter"
        @click="print"
        >Print</v-btn
      >
    </div>
    <v-alert v-if="!job.system?.panel" type="info" variant="tonal" density="compact" class="mb-4">
      No panel is chosen yet, so nobody can tell what fits.
      <router-link :to="{ query: { view: 'panels' } }">Which panel?</router-link> shows what each would make
      of this kit; or <router-link :to="{ name: 'survey' }">choose it in the survey</router-link>.
    </v-alert>
    <SinceHandOver />
    <CatalogueUpdates />
    <Receivers />
    <AddDevices v-if="view === 'list'" />
    <div v-if="tally.all === 0" class="sheet pa-6">
      <h2>The kit is empty</h2>
      <p class="quiet mt-1">
        Add devices above, one by one or several of a kind. Each shows at once whether this panel can use it.
      </p>
    </div>
    <FitGrid v-else-if="view === 'grid'" :only-bad="onlyBad" :start="asked" />
    <WhichPanel v-else-if="view === 'panels'" />
    <div v-else class="sheet scroll">
      <table v-stack class="plain">
        <thead>
          <tr>
            <th>Device</th>
            <th>Room</th>
            <th>Position</th>
            <th>Use</th>
            <th>Sticker ID</th>
            <th>Fits {{ job.system?.panel?.name ?? 'the panel' }}?</th>
            <th><span class="sr-only">Acts</span></th>
          </tr>
        </thead>
        <LongList v-slot="{ item }" :items="rows" :row="46" :show="asked">
          <KitRow :key="item.id" v-bind="item.row" :fit="fits.get(item.id)" :marked="asked === item.id" />
        </LongList>
      </table>
      <p v-if="rows.length === 0" class="pa-4">Everything in the kit simply fits.</p>
    </div>
    <KitSums v-if="tally.all > 0 && view === 'list'" />
  </div>
</template>

<style scoped>
@media (max-width: 420px) {
  .page-head .v-btn-toggle {
    flex-wrap: wrap;
    height: auto;
  }
}
.plain:not(.stacked) :deep(tr > td) {
  padding-top: 1px;
  padding-bottom: 1px;
  line-height: 1.25;
}
.scroll {
  overflow-x: auto;
}
</style>
