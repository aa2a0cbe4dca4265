<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import { costWords, fitAll, remediesFor, type Remedy } from '#core'
import { useJob } from '../store/job-store.ts'
import OpsPreview from './OpsPreview.vue'
import { verdictLook } from './severity.ts'

/** What would let a device fit, cheapest first, each looked at before it is applied. */
const props = defineProps<{ device: string }>()
const job = useJob()
const open = ref<string | null>(null)
const costsOpen = ref(false)
const remedies = computed(() =>
  remediesFor({ doc: job.doc, catalogue: job.catalogue }, props.device, {
    newId: uuid,
    costs: job.rules.costs,
  }),
)
/** Only a fact is missing, such as a firmware that nobody has read. */
const missing = computed(
  () =>
    remedies.value.length === 0 &&
    job.system !== null &&
    job.system.panel !== null &&
    fitAll(job.system).get(props.device)?.verdict === 'unknown',
)
/** It is an entry of the catalogue that lacks it. */
const unstated = computed(
  () =>
    job.system !== null &&
    fitAll(job.system)
      .get(props.device)
      ?.reasons.some(({ code }) => code === 'unstated') === true,
)

function deviceName(id: string): string {
  const item = job.system?.byId.get(id)
  return [item?.model.name, item?.device.room].filter(Boolean).join(', ')
}

function apply(remedy: Remedy): void {
  job.edit(`remedy.${remedy.kind}`, remedy.ops)
  open.value = null
}
</script>

<template>
  <div>
    <p v-if="missing && unstated" class="quiet">
      Nothing needs to be swapped for what nobody stated: look it up on the leaflet,
      <router-link to="/catalogue">correct the entry in the catalogue</router-link>, and take the newer one
      into this job.
    </p>
    <p v-else-if="missing" class="quiet">
      Nothing needs to be swapped for what is not known yet: read it, note it, and the fit is told at once.
    </p>
    <p v-else-if="remedies.length === 0" class="quiet">
      Nothing in the catalogue lets it fit without making another device fit worse. Leave it out, or look at
      another panel.
    </p>
    <ol v-else class="remedies">
      <li v-for="remedy in remedies" :key="remedy.title">
        <button
          type="button"
          class="remedy"
          :aria-expanded="open === remedy.title"
          @click="open = open === remedy.title ? null : remedy.title"
        >
          <span>{{ remedy.title }}</span>
          <span class="cost num" :title="'Cost by the table below'">{{ remedy.cost }}</span>
        </button>
        <div v-if="open === remedy.title" class="preview">
          <h3>This would change</h3>
          <OpsPreview :ops="remedy.ops" />
          <p v-for="change in remedy.changes" :key="change.device" class="small">
            {{ deviceName(change.device) }}: {{ verdictLook[change.from].word }} →
            <strong>{{ verdictLook[change.to].word }}</strong>
          </p>
          <v-btn size="small" color="primary" class="text-none" @click="apply(remedy)">Apply</v-btn>
        </div>
      </li>
    </ol>
    <v-btn
      size="x-small"
      variant="text"
      class="text-none"
      :aria-expanded="costsOpen"
      @click="costsOpen = !costsOpen"
      >How the cost is counted</v-btn
    >
    <ul v-if="costsOpen" class="small quiet costs">
      <li v-for="(words, key) in costWords" :key="key">{{ words }}: {{ job.rules.costs[key] }}</li>
      <li>The owner changes these on the <router-link to="/house-rules">house-rules page</router-link>.</li>
    </ul>
  </div>
</template>

<style scoped>
.remedies {
  list-style: none;
  padding: 0;
  margin: 6px 0;
}
.remedy {
  font: inherit;
  color: inherit;
  width: 100%;
  display: flex;
  justify-content: space-between;
  gap: 10px;
  text-align: left;
  padding: 8px 6px;
  border: 0;
  border-bottom: 1px solid rgba(var(--v-theme-on-surface), 0.1);
  background: transparent;
  cursor: pointer;
}
.remedy:hover {
  background: rgba(var(--v-theme-primary), 0.06);
}
.preview {
  padding: 10px;
  background: rgb(var(--v-theme-background));
  border-radius: 8px;
  overflow-x: auto;
}
.small {
  font-size: 0.8125rem;
}
.costs {
  padding-left: 18px;
}
</style>
