<script setup lang="ts">
import { computed } from 'vue'
import { programmingSheet, type SheetSection } from '#core'
import { useJob } from '../../store/job-store.ts'
import LongList from '../../shared/LongList.vue'
import KeysText from './KeysText.vue'

/** The sheet of a panel that nobody has described: its fields in its order, with what to key. */
const job = useJob()
const sheet = computed(() => programmingSheet(job.doc, job.catalogue, job.rules))
/** Titles tell sections apart. */
const sections = computed(() =>
  (sheet.value?.sections ?? []).map((section) => ({ id: section.title, section })),
)
const openIn = (section: SheetSection): number => section.steps.filter((step) => step.open).length
/** What the notes say of a field holds for every zone: they are printed with the first. */
const firstZone = computed(
  () => sheet.value?.sections.find((section) => section.title.startsWith('Zone'))?.title,
)

const workWords = computed(() =>
  job.rules.schools.placeOfWork === 'bench'
    ? 'On the bench before the visit: box each device with its room and zone written on it; motions wait until their place is known.'
    : 'On site: each device is learned where it stays.',
)
</script>

<template>
  <div v-if="sheet">
    <details class="sheet before">
      <summary>
        {{ job.rules.schools.placeOfWork === 'bench' ? 'On the bench before the visit' : 'On site' }} · codes
        are written in by hand
        <strong v-if="sheet.open > 0" class="open">
          ▲ {{ sheet.open }} {{ sheet.open === 1 ? 'value is' : 'values are' }} still open in the plan and
          printed as a line
        </strong>
        <span v-if="sheet.left.length > 0" class="quiet">
          · {{ sheet.left.length === 1 ? 'zone' : 'zones' }} {{ sheet.left.join(', ') }} left as
          programmed</span
        >
      </summary>
      <p>
        {{ workWords }} Key it in the order of the sheet, from left to right and down. Each line shows what is
        keyed, what the display should then show, and what it means. Codes are secrets: never leave them on
        the sheet or the panel.
        <template v-if="sheet.left.length > 0">
          What is left as the panel has it is not keyed, and owes its proof like the rest.
        </template>
      </p>
    </details>
    <LongList v-slot="{ item: { section } }" :items="sections" tag="div" class="columns" :row="220">
      <section :key="section.title" class="sheet block">
        <h2>
          {{ section.title }}
          <span v-if="openIn(section) > 0" class="open small">▲ {{ openIn(section) }} open</span>
        </h2>
        <table class="plain">
          <thead class="sr-only">
            <tr>
              <th>Key</th>
              <th>Display shows</th>
              <th>Meaning</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(step, index) in section.steps" :key="index" :class="{ missing: step.open }">
              <td class="key">
                <KeysText :text="step.keys" />
                <div class="shows" :title="'The display should then show this'">{{ step.shows }}</div>
              </td>
              <td class="means">
                <span v-if="step.field" class="quiet">{{ step.field }}: </span
                ><span :class="{ open: step.open }">{{ step.meaning }}</span>
                <div v-if="step.note && (!step.field || section.title === firstZone)" class="quiet small">
                  {{ step.note }}
                </div>
              </td>
            </tr>
          </tbody>
        </table>
      </section>
    </LongList>
  </div>
</template>

<style scoped>
.before {
  padding: 8px 14px;
  margin-bottom: 14px;
}
.before summary {
  cursor: pointer;
}
.before p {
  max-width: 880px;
  margin: 8px 0 2px;
}
/* In the order of the panel: from left to right, then down. */
:deep(.columns) {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 440px), 1fr));
  gap: 16px;
  align-items: start;
}
.block {
  break-inside: avoid;
  padding: 12px 14px;
}
.block h2 {
  margin-bottom: 4px;
  font-size: 1rem;
}
.key {
  width: 52%;
}
.shows {
  font-family: var(--mono);
  font-size: 0.8125rem;
  color: rgba(var(--v-theme-on-surface), 0.72);
}
.shows::before {
  content: '▸ ';
}
.open {
  color: rgb(var(--v-theme-warning));
  font-weight: 650;
}
.small {
  font-size: 0.8125rem;
}
@media print {
  :deep(.columns) {
    grid-template-columns: 1fr 1fr;
    gap: 8px;
  }
  .block {
    padding: 4px 6px;
  }
}
</style>
