<script setup lang="ts">
import { mdiPrinter } from '@mdi/js'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRoute, type RouteLocationRaw } from 'vue-router'
import {
  formatSeconds,
  jobInfo,
  programmingSheet,
  readBackState,
  recordsOf,
  systemOf,
  type PanelSheet,
  type SheetStart,
} from '#core'
import LeafletButton from '../../leaflets/LeafletButton.vue'
import { useJob } from '../../store/job-store.ts'
import CleanStart from './CleanStart.vue'
import ExplainKeys from './ExplainKeys.vue'
import MachineSheet from './MachineSheet.vue'
import PlainSheet from './PlainSheet.vue'
import ReadBack from './ReadBack.vue'
import TakeStock from './TakeStock.vue'
import StepByStep from './StepByStep.vue'
import { useSheet } from './useSheet.ts'

const job = useJob()
const panel = computed(() => systemOf(job.doc, job.catalogue).panel)
const described = computed(
  () => panel.value !== null && job.catalogue.get('interface', panel.value.interface ?? null) !== null,
)
/** Whether anybody noted from here what this panel was given. */
const readings = computed(() => recordsOf(job.doc, 'held').some((one) => one.panel === panel.value?.id))
/** What the panel holds is known where it was keyed from here; else it is taken to be new. */
const start = ref<SheetStart>(
  readings.value ? 'keyed' : jobInfo(job.doc).panelCame === 'used' ? 'unknown' : 'factory',
)
// Once it is brought back to how it came, nobody does that again.
watch(readings, (known) => {
  if (known && start.value === 'unknown' && atSheet.value) start.value = 'keyed'
})
const starts: readonly { readonly value: SheetStart; readonly title: string }[] = [
  { value: 'factory', title: 'as it comes from the maker' },
  { value: 'keyed', title: 'as it was last keyed from here' },
  { value: 'unknown', title: 'unknown: begins with a clean start' },
]
const { sheet, working, failed } = useSheet(start)
/** Where a value that cannot be held is planned: its zone, or what is set on the stage of zones. */
function placeOf(address: string): RouteLocationRaw {
  const [, number] = address.split('.')
  const zone = recordsOf(job.doc, 'zone').find((one) => String(one.number) === number)
  return zone ? { name: 'zones', query: { show: zone.id } } : { name: 'zones' }
}
const left = computed(() => programmingSheet(job.doc, job.catalogue, job.rules)?.left ?? [])
const byPlan = computed(() => job.rules.schools.sheetOrder === 'plan')

/** Whether the panel hung there before and is kept. */
const stays = computed(() => jobInfo(job.doc).panelCame === 'there')
/** Whether somebody takes stock of a panel of which nothing is known. */
const auditing = ref(false)
/** Whether keys written by hand are being checked. */
const explaining = ref(false)
/** Whether the sheet itself stands there. */
const atSheet = computed(() => !keyed.value && !reading.value && !explaining.value && !auditing.value)

/** The sheet that is keyed step by step: it stays as it was begun, whatever is noted meanwhile. */
const keyed = shallowRef<Extract<PanelSheet, { ok: true }> | null>(null)
function begin(): void {
  if (sheet.value?.ok) keyed.value = sheet.value
}

/** Whether the panel is being read back, from outside; Hand over leads straight to it. */
const reading = ref(described.value && useRoute().query.read !== undefined)
const compared = computed(() => readBackState({ doc: job.doc, catalogue: job.catalogue }, job.rules))

/** What was keyed meanwhile is what the panel holds now. */
function closed(): void {
  keyed.value = null
  reading.value = false
  auditing.value = false
  if (readings.value) start.value = 'keyed'
}

function print(): void {
  window.print()
}
const count = (number: number, one: string, many: string): string => `${number} ${number === 1 ? one : many}`
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Program</h1>
      <span v-if="panel" class="quiet">{{ panel.name }}, {{ panel.style }}</span>
      <LeafletButton v-if="panel" :about="[panel.id, panel.interface]" :name="panel.name" />
      <span class="grow" />
      <v-select
        v-if="described && atSheet"
        v-model="start"
        label="What the panel holds now"
        :items="[...starts]"
        class="begin no-print"
        hide-details
      />
      <v-btn
        v-if="sheet?.ok && sheet.parts.length > 0 && atSheet"
        color="primary"
        class="no-print text-none"
        @click="begin"
        >Step by step</v-btn
      >
      <v-btn
        v-if="described && sheet?.ok && atSheet"
        variant="tonal"
        color="primary"
        class="no-print text-none"
        @click="reading = true"
        >Read back</v-btn
      >
      <v-btn
        v-if="described && atSheet"
        variant="tonal"
        color="primary"
        class="no-print text-none"
        title="What a panel holds of which nothing is known"
        @click="auditing = true"
        >Take stock</v-btn
      >
      <v-btn
        v-if="described && atSheet"
        variant="tonal"
        color="primary"
        class="no-print text-none"
        @click="explaining = true"
        >Check keys</v-btn
      >
      <v-btn
        v-if="panel && atSheet && !described"
        color="primary"
        :prepend-icon="mdiPrinter"
        class="no-print text-none"
        @click="print"
        >Print the sheet</v-btn
      >
    </div>
    <CleanStart v-if="atSheet && panel" :keys="start === 'unknown' && sheet?.ok === true" @begin="begin" />
    <StepByStep v-if="keyed" :sheet="keyed" :start="start" @close="closed" />
    <ReadBack v-else-if="reading" :from="null" @close="closed" />
    <TakeStock v-else-if="auditing" @close="closed" />
    <ExplainKeys
      v-else-if="explaining"
      :start="start === 'keyed' ? 'keyed' : 'factory'"
      @close="explaining = false"
    />
    <v-alert v-else-if="!panel" type="info" variant="tonal" density="compact">
      No panel is chosen yet, so there is nothing to key.
      <router-link :to="{ name: 'survey' }">Choose it in the survey</router-link>.
    </v-alert>
    <template v-else-if="!described">
      <p class="proof" role="note">
        <strong class="open">◇ not proven</strong> · nobody has described how the {{ panel.name }} is keyed:
        the sheet has its fields in its order, and no display was acted out.
      </p>
      <PlainSheet />
    </template>
    <template v-else>
      <p v-if="stays && !readings" class="proof" role="note">
        ◇ The panel hung there already and stays: what it holds is not known.
        <v-btn variant="text" size="small" class="text-none" @click="auditing = true"
          >Take stock of it first</v-btn
        >
      </p>
      <div class="proof" role="status">
        <template v-if="working">Making the sheet and acting it out …</template>
        <span v-else-if="failed" class="open">
          ▲ The sheet could not be made here. Load the page again; the plan is safe.
        </span>
        <template v-else-if="sheet?.ok">
          <strong v-if="sheet.differences === 0"
            >✓ acted out: {{ count(sheet.keys, 'key', 'keys') }}, 0 differences</strong
          >
          <strong v-else class="open"
            >▲ {{ count(sheet.differences, 'difference', 'differences') }} after {{ sheet.keys }} keys</strong
          >
          in {{ count(sheet.wanted, 'value', 'values') }}
          <span class="quiet">
            · {{ sheet.open }} left open by the plan · {{ sheet.hidden }} not asked for their type ·
            {{ formatSeconds(sheet.seconds) }} of waiting ·
            {{ byPlan ? 'with fewest keys' : 'zone by zone' }} it would be
            {{ sheet.otherKeys }}
            <template v-if="left.length > 0">
              · {{ left.length === 1 ? 'zone' : 'zones' }} {{ left.join(', ') }} left as programmed: not
              keyed, proved like the rest
            </template>
          </span>
          <div v-if="compared" class="compared">
            <span v-if="compared.different.length > 0" class="open"
              >■ read back: {{ count(compared.different.length, 'value stands', 'values stand') }} otherwise
              in the panel</span
            >
            <span v-else-if="compared.open.length > 0" class="quiet"
              >◇ {{ compared.open.length }} of {{ count(compared.wanted.length, 'value', 'values') }} not read
              back yet</span
            >
            <span v-else-if="compared.drawn.length > 0" class="quiet"
              >◇ read back; {{ count(compared.drawn.length, 'line', 'lines') }} to be read once more after it
              saved</span
            >
            <span v-else>✓ read back: {{ count(compared.wanted.length, 'value', 'values') }} as planned</span>
          </div>
        </template>
      </div>
      <template v-if="sheet?.ok && !failed">
        <p v-if="sheet.parts.length === 0" class="nothing">
          Nothing is to be keyed: the panel {{ start === 'factory' ? 'comes' : 'already is' }} as the plan
          wants it.
        </p>
        <div v-else class="guide">
          <p class="quiet small">
            From left to right and down; ▸ is what must stand there before the last key of a line. Codes are
            written in by hand and are secrets: never leave them on the sheet or the panel.
          </p>
          <v-btn
            variant="text"
            size="small"
            :prepend-icon="mdiPrinter"
            class="no-print text-none"
            @click="print"
            >Print</v-btn
          >
        </div>
        <MachineSheet :sheet="sheet" />
      </template>
      <section v-else-if="sheet && !sheet.ok && !failed" class="sheet reasons">
        <h2>
          ▲ {{ count(sheet.reasons.length, 'thing', 'things') }} the {{ panel.name }} cannot hold as planned
        </h2>
        <p class="quiet">There is no sheet until the plan can be keyed whole.</p>
        <ul>
          <li v-for="item in sheet.reasons" :key="`${item.address} ${item.reason}`">
            <router-link :to="placeOf(item.address)">{{ item.part }}</router-link>: {{ item.reason }}
          </li>
        </ul>
      </section>
    </template>
  </div>
</template>

<style scoped>
.begin {
  flex: 0 1 270px;
}
.proof {
  max-width: 1000px;
  margin: 0 0 12px;
}
.open {
  color: rgb(var(--v-theme-warning));
}
.guide {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  margin: 0 0 10px;
}
.guide p {
  margin: 0;
}
.reasons {
  padding: 14px 18px;
}
.reasons h2 {
  font-size: 1.0625rem;
  color: rgb(var(--v-theme-warning));
}
.reasons li {
  margin: 6px 0 6px 18px;
}
.small {
  font-size: 0.8125rem;
  margin: 0 0 10px;
}
</style>
