<script setup lang="ts">
import { computed, ref } from 'vue'
import {
  heardBy,
  readSticker,
  reasonWords,
  samplePlan,
  triedWithPanels,
  type Catalogue,
  type CatalogueEntry,
} from '#core'
import { verdictLook } from '../../shared/severity.ts'
import TryKeyed from './panel/TryKeyed.vue'
import BehaviourStrip from '../../stages/zones/BehaviourStrip.vue'

/** What an entry does, before it counts. */
const props = defineProps<{ entry: CatalogueEntry; catalogue: Catalogue; panel?: string | null }>()
/** The panel that is keyed so, where it is described. */
const keyed = computed(() => props.catalogue.get('panel', props.panel ?? null))
const tried = computed(() =>
  props.entry.kind === 'device' ? triedWithPanels(props.entry, props.catalogue) : [],
)
const heard = computed(() => (props.entry.kind === 'receiver' ? heardBy(props.entry, props.catalogue) : null))
const sample = computed(() =>
  props.entry.kind === 'panel' ? samplePlan(props.entry, props.catalogue, new Date().toISOString()) : null,
)
const sticker = ref('')
const read = computed(() =>
  props.entry.kind === 'family' && sticker.value.trim() !== ''
    ? readSticker(props.entry, sticker.value)
    : null,
)
const events = computed(() =>
  props.entry.kind === 'device' ? props.entry.loops.map(({ loop, name }) => `${name} on loop ${loop}`) : [],
)
</script>

<template>
  <section aria-label="What it does">
    <h2>What it does</h2>
    <template v-if="entry.kind === 'device'">
      <p v-if="events.length > 0" class="quiet">
        {{ events.length === 1 ? 'One zone' : `${events.length} zones, each with its own proof` }}:
        {{ events.join(', ') }}.
      </p>
      <ul class="panels">
        <li v-for="one in tried" :key="one.panel.id">
          <span :class="`text-${verdictLook[one.verdict].color}`" class="verdict"
            >{{ verdictLook[one.verdict].glyph }} {{ verdictLook[one.verdict].word }}</span
          >
          <span>
            <strong>{{ one.panel.name }}</strong>
            <template v-if="one.add.length > 0">
              with {{ one.add.map(({ name }) => name).join(' and ') }}</template
            >
            <span v-for="(reason, index) in one.reasons" :key="index" class="quiet reason">{{
              reasonWords(reason)
            }}</span>
          </span>
        </li>
        <li v-if="tried.length === 0" class="quiet">
          There is no panel in the catalogue yet to try it with.
        </li>
      </ul>
    </template>
    <template v-else-if="entry.kind === 'family'">
      <v-text-field v-model="sticker" label="Try a sticker" maxlength="40" hide-details />
      <p v-if="read" role="status" :class="read.ok ? 'text-success' : 'text-error'">
        {{ read.ok ? `✓ ID ${read.serial}` : `■ ${read.reason}` }}
      </p>
      <p v-else class="quiet">
        Type another sticker of this family, also a wrong one: it is read or refused as it will be on site.
      </p>
    </template>
    <template v-else-if="entry.kind === 'interface'">
      <TryKeyed v-if="keyed" :entry="entry" :panel="keyed" :catalogue="catalogue" />
      <p v-if="keyed && keyed.interface !== entry.id" class="quiet">
        Once it is published, say on its page that {{ keyed.name }} is keyed so: then its sheets are proven.
      </p>
    </template>
    <template v-else-if="sample">
      <p class="quiet">A small house with devices of your catalogue, planned on this panel:</p>
      <p v-if="sample.zones.length === 0">
        No device of the catalogue fits it: describe one of a family that its receivers hear.
      </p>
      <table v-else class="sample">
        <thead>
          <tr>
            <th>Zone</th>
            <th>Its name on the panel</th>
            <th>Its type</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="zone in sample.zones" :key="zone.number">
            <td class="mono">{{ zone.number }}</td>
            <td>
              {{ zone.label || '–' }}<span class="quiet reason">{{ zone.device }}</span>
            </td>
            <td>
              <template v-if="zone.type"
                >{{ zone.type.code }} {{ zone.type.name }} <BehaviourStrip :modes="zone.modes"
              /></template>
              <span v-else class="text-error">■ no type suits it</span>
            </td>
          </tr>
        </tbody>
      </table>
      <ul v-if="sample.stops.length > 0" class="stops">
        <li v-for="stop in sample.stops" :key="stop.rule + stop.subject">
          <span class="text-error">■</span> {{ stop.text }}
        </li>
      </ul>
      <p v-for="one in sample.left" :key="one.device">
        <span class="text-warning">▲</span> {{ one.device }} got no number: {{ one.reason }}
      </p>
      <p v-for="one in sample.without" :key="one.class" class="quiet">
        No {{ one.class }} of the catalogue fits it<template v-if="one.nearest"
          >: of {{ one.nearest.device }} {{ one.nearest.reasons.map(reasonWords).join('; ') }}</template
        >.
      </p>
      <p v-if="sample.zones.length > 0" class="quiet">
        Its sheet has {{ sample.steps }} steps; {{ sample.open }} wait for IDs that are learned on site.
      </p>
    </template>
    <template v-else-if="heard">
      <p v-if="heard.takes === null">
        {{ heard.spoken }} of the catalogue’s devices speak its families; which of them it takes cannot be
        told, since its classes are not stated.
      </p>
      <p v-else>
        Of the catalogue’s devices it takes <strong>{{ heard.takes.length }}</strong><template
          v-if="heard.refuses.length > 0"
        >
          and not {{ heard.refuses.map(({ name }) => name).join(', ') }}: their classes are not
          stated</template
        >.
      </p>
      <p class="quiet">A panel must name it among its receivers before a job can have it.</p>
    </template>
  </section>
</template>

<style scoped>
.panels {
  list-style: none;
  padding: 0;
  margin: 6px 0 0;
  display: grid;
  gap: 6px;
}
.panels li {
  display: grid;
  grid-template-columns: 130px minmax(0, 1fr);
  gap: 8px;
}
.verdict {
  font-weight: 650;
}
.reason {
  display: block;
  font-size: 0.8125rem;
}
.sample {
  width: 100%;
  border-collapse: collapse;
}
.sample th,
.sample td {
  text-align: left;
  vertical-align: top;
  padding: 4px 8px 4px 0;
}
.mono {
  font-family: var(--mono);
}
.stops {
  list-style: none;
  padding: 0;
  margin: 6px 0;
}
p {
  margin: 6px 0;
}
</style>
