<script setup lang="ts">
import { computed } from 'vue'
import { recordsOf, wiringWords, type DeviceModel, type PanelModel, type Zone } from '#core'
import CellChoice from '../../shared/CellChoice.vue'
import CellFlag from '../../shared/CellFlag.vue'
import CellText from '../../shared/CellText.vue'
import { useJob } from '../../store/job-store.ts'

const props = defineProps<{ zone: Zone; panel: PanelModel; model: DeviceModel | null; name: string }>()
const job = useJob()
const couplings = computed(() => props.panel.couplings ?? {})
const inputs = [
  ['reed', 'reedOn', 'Reed'],
  ['terminals', 'terminalsOn', 'Terminals'],
  ['end-of-line', 'endOfLineOn', 'End-of-line'],
] as const
const switches = computed(() =>
  inputs.filter(([key]) => props.model?.switches?.some((item) => item.switch === key)),
)
const areas = computed(() => [
  { title: 'none', value: null },
  ...recordsOf(job.doc, 'area').map((area) => ({ title: `${area.number} ${area.name}`, value: area.id })),
])
const areaWord = computed(() =>
  couplings.value.twoAreas === 'full-and-part' ? 'Also in the part set' : 'Common with area',
)
const type = computed(() => props.panel.responseTypes.find((item) => item.key === props.zone.response))
const wirings = [
  { title: 'not said', value: null },
  ...Object.entries(wiringWords).map(([value, title]) => ({ title, value })),
]
const chimes = computed(() => [
  { title: couplings.value.chimeStyles?.[0]?.name ?? '', value: null },
  ...(couplings.value.chimeStyles ?? []).slice(1).map((style) => ({ title: style.name, value: style.key })),
])
/** A place that is never opened needs a word on how it is opened quietly. */
const alwaysOn = computed(() => job.places.get(props.zone.device ?? '')?.use === 'always-on')
const outputs = computed(() =>
  Array.from({ length: couplings.value.sirenOutputs ?? 0 }, (_, index) => index + 1),
)

function turn(output: number): void {
  const now = props.zone.sirens ?? outputs.value
  const next = now.includes(output) ? now.filter((item) => item !== output) : [...now, output].sort()
  job.set('zone.set', props.zone.id, 'sirens', props.zone.sirens, next)
}
</script>

<template>
  <dl class="facts">
    <div v-if="switches.length > 0">
      <dt>Inputs of the contact</dt>
      <dd class="ticks">
        <label v-for="[key, field, title] in switches" :key="key"
          ><CellFlag :id="zone.id" :field="field" kind="zone.set" :label="`${title} of ${name}`" />
          {{ title }}</label
        >
      </dd>
    </div>
    <div v-if="couplings.twoAreas && couplings.twoAreas !== 'forbidden' && areas.length > 2">
      <dt>{{ areaWord }}</dt>
      <dd>
        <CellChoice
          :id="zone.id"
          field="area2"
          kind="zone.set"
          :label="`Second area of ${name}`"
          :items="areas"
          :title="panel.areas.meaning"
        />
      </dd>
    </div>
    <div v-if="couplings.chimeStyles && zone.chime">
      <dt>Chimes with</dt>
      <dd>
        <CellChoice
          :id="zone.id"
          field="chimeStyle"
          kind="zone.set"
          :label="`How ${name} chimes`"
          :items="chimes"
        />
      </dd>
    </div>
    <div v-if="couplings.dayZones === 'user' || zone.dayZone">
      <dt>Offered as day zone</dt>
      <dd>
        <CellFlag
          :id="zone.id"
          field="dayZone"
          kind="zone.set"
          :label="`The user may make ${name} a day zone`"
        />
      </dd>
    </div>
    <div v-if="outputs.length > 0">
      <dt>Siren outputs</dt>
      <dd class="ticks">
        <label v-for="output in outputs" :key="output"
          ><input
            type="checkbox"
            :checked="zone.sirens === null || zone.sirens.includes(output)"
            :aria-label="`Siren output ${output} of ${name}`"
            @change="turn(output)"
          />
          {{ output }}</label
        >
      </dd>
    </div>
    <div v-if="couplings.doubleKnock || zone.doubleKnock">
      <dt>Double knock</dt>
      <dd>
        <CellFlag :id="zone.id" field="doubleKnock" kind="zone.set" :label="`Double knock, ${name}`" />
      </dd>
    </div>
    <div v-if="type?.fire === 'verified'">
      <dt>Fire group</dt>
      <dd>
        <CellText
          :id="zone.id"
          field="fireGroup"
          kind="zone.set"
          :label="`Fire group of ${name}`"
          number
          :size="3"
          placeholder="–"
        />
      </dd>
    </div>
    <div v-if="zone.reason !== '' || (type?.fire ?? 'plain') !== 'plain' || alwaysOn">
      <dt>{{ alwaysOn ? 'How it is opened quietly' : 'Reason for the departure' }}</dt>
      <dd>
        <CellText
          :id="zone.id"
          field="reason"
          kind="zone.set"
          :label="`Reason of ${name}`"
          :size="34"
          placeholder="in writing, shown at hand-over"
        />
      </dd>
    </div>
    <template v-if="model?.family === null">
      <div>
        <dt>Wiring</dt>
        <dd>
          <CellChoice
            :id="zone.id"
            field="wiring"
            kind="zone.set"
            :label="`Wiring of ${name}`"
            :items="wirings"
          />
        </dd>
      </div>
      <div>
        <dt>Resistor</dt>
        <dd>
          <CellText
            :id="zone.id"
            field="resistorOhm"
            kind="zone.set"
            :label="`End-of-line resistor of ${name}, ohms`"
            number
            :size="7"
            placeholder="ohms"
          />
        </dd>
      </div>
    </template>
  </dl>
</template>

<style scoped>
.ticks {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}
</style>
