<script setup lang="ts">
import { mdiDownload } from '@mdi/js'
import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import { boxLabels, jobInfo, labelPapers, labelPlaces } from '#core'
import { useJob } from '../../store/job-store.ts'

/** Labels for the boxes, by the size of the paper at hand. */
const job = useJob()
const open = ref(false)
const chosen = useLocalStorage('kapelle-labels', '')
const fallback = computed(() => (jobInfo(job.doc).region === 'north-america' ? 'letter-30' : 'a4-24'))
const paper = computed(() => {
  const named = labelPapers.find(({ key }) => key === chosen.value)
  return named ?? labelPapers.find(({ key }) => key === fallback.value) ?? labelPapers[0]
})
const from = ref('1')
const perSheet = computed(() => (paper.value ? paper.value.columns * paper.value.rows : 1))
const first = computed(() => (/^\d{1,2}$/.test(from.value.trim()) ? Number(from.value.trim()) : 0))
const fault = computed(() =>
  first.value >= 1 && first.value <= perSheet.value
    ? ''
    : `First free label: a whole number from 1 to ${perSheet.value}.`,
)
const labels = computed(() => boxLabels(job.doc, job.catalogue))
const sheets = computed(() => {
  if (!paper.value || fault.value !== '') return 0
  return (labelPlaces(paper.value, labels.value.length, first.value).at(-1)?.page ?? -1) + 1
})
const without = computed(() => labels.value.filter(({ serial }) => serial === '').length)
const href = computed(
  () => `/api/jobs/${job.jobId ?? ''}/labels.pdf?paper=${paper.value?.key ?? ''}&from=${first.value}`,
)
</script>

<template>
  <v-btn variant="text" class="no-print" @click="open = true">Box labels…</v-btn>
  <v-dialog v-model="open" max-width="560">
    <v-card title="Box labels">
      <v-card-text class="body">
        <p>
          One for each device: zone, label, room, position and ID, with a code that opens the device here,
          scanned into Enrol or by a telephone’s camera. No user code is printed.
        </p>
        <v-select
          :model-value="paper?.key"
          label="Paper"
          :items="labelPapers.map(({ key, title }) => ({ value: key, title }))"
          @update:model-value="chosen = $event ?? ''"
        />
        <v-text-field
          v-if="perSheet > 1"
          v-model="from"
          label="First free label of the sheet"
          inputmode="numeric"
          maxlength="2"
          :error-messages="fault"
        />
        <p v-if="fault === ''">
          {{ labels.length }} {{ labels.length === 1 ? 'label' : 'labels' }} on {{ sheets }}
          {{ sheets === 1 ? 'page' : 'pages' }}.
          <template v-if="without > 0"
            >{{ without }} {{ without === 1 ? 'says' : 'say' }} “ID not known yet”: note the stickers first,
            or print them again later.</template
          >
        </p>
        <p class="quiet">
          The sheet is made on the server: it needs a connection. Print at full size, not fitted.
        </p>
      </v-card-text>
      <v-card-actions>
        <v-spacer />
        <v-btn variant="text" @click="open = false">Close</v-btn>
        <v-btn
          v-if="fault === ''"
          :href="href"
          color="primary"
          variant="flat"
          :prepend-icon="mdiDownload"
          @click="open = false"
          >Labels, PDF</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.body {
  display: grid;
  gap: 12px;
}
.body p {
  margin: 0;
}
</style>
