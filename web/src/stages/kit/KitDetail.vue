<script setup lang="ts">
import {
  hasInputs,
  inputsOf,
  inputsOps,
  recordOf,
  recordsOf,
  type Device,
  type DeviceModel,
  type Inputs,
} from '#core'
import { computed } from 'vue'
import LeafletButton from '../../leaflets/LeafletButton.vue'
import { useJob } from '../../store/job-store.ts'
import CellChoice from '../../shared/CellChoice.vue'
import CellFlag from '../../shared/CellFlag.vue'
import CellText from '../../shared/CellText.vue'
import KitPlacement from './KitPlacement.vue'
import MoveDevice from './MoveDevice.vue'
import RemoveDevice from './RemoveDevice.vue'
import ReplaceDevice from './ReplaceDevice.vue'

const props = defineProps<{ device: Device; model: DeviceModel; name: string }>()
const job = useJob()
const plans = [
  { title: 'not decided', value: null },
  { title: 'keep', value: 'keep' },
  { title: 'replace', value: 'replace' },
]
/** What both inputs come to depends on whether the panel tells them apart by loop or switches them on one zone. */
const inputs = computed(() => {
  const asItComes = inputsOf({ device: { ...props.device, inputs: null }, model: props.model })
  const both = props.model.switches ? 'both: one zone, either opens it' : 'both: a zone each'
  return [
    { title: `as it comes: ${asItComes === 'both' ? 'both' : `the ${asItComes ?? 'reed'}`}`, value: null },
    { title: 'the reed', value: 'reed' },
    { title: 'the terminals, for a wired contact', value: 'terminals' },
    { title: both, value: 'both' },
  ]
})
function takeInputs(value: string | null): void {
  const device = recordOf(job.doc, 'device', props.device.id)
  if (!device) return
  job.edit('device.inputs', inputsOps(job.doc, { device, model: props.model }, value as Inputs | null))
}
const emptyIsNull = (text: string): string | null => (text === '' ? null : text)

/** A device's history with that of its zones. */
function history(): void {
  const zones = recordsOf(job.doc, 'zone').filter((zone) => zone.device === props.device.id)
  job.showJournal(props.name, [props.device.id, ...zones.map((zone) => zone.id)])
}
</script>

<template>
  <div class="detail">
    <LeafletButton :about="[model.id, model.family]" :name="model.name" />
    <dl class="facts">
      <div>
        <dt>There already</dt>
        <dd>
          <CellFlag :id="device.id" field="existing" kind="device.set" :label="`${name} was there already`" />
        </dd>
      </div>
      <template v-if="device.existing">
        <div>
          <dt>What becomes of it</dt>
          <dd>
            <CellChoice
              :id="device.id"
              field="plan"
              kind="device.set"
              :label="`Plan for ${name}`"
              :items="plans"
            />
          </dd>
        </div>
        <div>
          <dt>Made in</dt>
          <dd>
            <CellText
              :id="device.id"
              field="madeYear"
              kind="device.set"
              :label="`Year of ${name}`"
              number
              :size="6"
              placeholder="year"
            />
          </dd>
        </div>
        <div>
          <dt>Battery of</dt>
          <dd>
            <CellText
              :id="device.id"
              field="batteryAt"
              kind="device.set"
              :label="`Battery date of ${name}`"
              :size="11"
              placeholder="2026-03-31"
              :read="emptyIsNull"
            />
          </dd>
        </div>
      </template>
      <div>
        <dt>Place open because</dt>
        <dd>
          <CellText
            :id="device.id"
            field="deferred"
            kind="device.set"
            :label="`Why the place of ${name} is open`"
            :size="22"
            placeholder="its place is known"
            :read="emptyIsNull"
          />
        </dd>
      </div>
      <div v-if="model.class === 'contact' && hasInputs(model)">
        <dt>Inputs used</dt>
        <dd>
          <CellChoice
            :id="device.id"
            field="inputs"
            kind="device.set"
            :label="`Inputs of ${name}`"
            :items="inputs"
            :take="takeInputs"
          />
        </dd>
      </div>
      <div v-if="model.batteries">
        <dt>Batteries</dt>
        <dd>
          {{ model.batteries.count }} × {{ model.batteries.type ?? 'type not stated'
          }}<template v-if="model.batteries.wayUp">, {{ model.batteries.wayUp }}</template
          ><template v-if="model.batteries.order">; {{ model.batteries.order }}</template>
        </dd>
      </div>
      <div v-if="model.lifeYears">
        <dt>Stated life</dt>
        <dd>
          {{ model.lifeYears }} years<template v-if="device.madeYear !== null"
            >, until {{ device.madeYear + model.lifeYears }}</template
          >
        </dd>
      </div>
      <div v-if="model.discontinued">
        <dt>No longer made</dt>
        <dd>{{ model.note ?? 'see its successor' }}</dd>
      </div>
    </dl>
    <KitPlacement :device="device" :model="model" :name="name" />
    <v-btn size="small" variant="text" class="text-none" @click="history">History of {{ name }}</v-btn>
    <MoveDevice v-if="!model.carried" :device="device" :model="model" :name="name" />
    <ReplaceDevice :device="device" :model="model" :name="name" />
    <RemoveDevice :device="device" :model="model" :name="name" />
  </div>
</template>

<style scoped>
.detail {
  padding: 6px 8px 12px 8px;
}
</style>
