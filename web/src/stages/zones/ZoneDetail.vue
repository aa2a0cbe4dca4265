<script setup lang="ts">
import { computed } from 'vue'
import {
  enrolmentOf,
  groupId,
  moveToAreaOps,
  printNumber,
  recordOf,
  recordsOf,
  whileMoving,
  type Finding,
  type PanelModel,
  type Zone,
} from '#core'
import FindingCard from '../../job/findings/FindingCard.vue'
import CellChoice from '../../shared/CellChoice.vue'
import CellFlag from '../../shared/CellFlag.vue'
import CellText from '../../shared/CellText.vue'
import { toldWords } from '../../shared/told.ts'
import ZoneCouplings from './ZoneCouplings.vue'
import { useJob } from '../../store/job-store.ts'

const props = defineProps<{ zone: Zone; panel: PanelModel; findings: readonly Finding[] }>()
const emit = defineEmits<{ remove: [] }>()
const job = useJob()
const name = computed(() => `zone ${printNumber(props.panel, props.zone.number)}`)
const item = computed(() => (props.zone.device ? job.system?.byId.get(props.zone.device) : undefined))
const kinds = computed(() => [
  { title: 'none', value: null },
  ...props.panel.equipment.kinds.map((kind) => ({ title: `${kind.keyed} ${kind.name}`, value: kind.key })),
])
const areas = computed(() =>
  recordsOf(job.doc, 'area').map((area) => ({ title: `${area.number} ${area.name}`, value: area.id })),
)
const known = computed(() => enrolmentOf(job.doc, props.zone.id))
const leaves = computed(() => recordOf(job.doc, 'area', props.zone.leaves))
function moveTo(area: string | null): void {
  job.edit('zone.area', moveToAreaOps(job.doc, props.zone, area))
}
const moving = computed(() => {
  const type = props.panel.responseTypes.find((item) => item.key === props.zone.response)
  return type ? whileMoving(props.panel, type) : null
})
const loops = computed(() => (item.value?.model.loops ?? []).map((entry) => `${entry.loop} ${entry.name}`))

/** The ID that the zone is known by, or why it has none. */
const idWords = computed(() => {
  if (known.value)
    return groupId(item.value?.family ?? null, known.value.serial) + toldWords(known.value.evidence.made)
  if (props.zone.device === null) return 'no device'
  if (props.zone.asProgrammed) return 'as the panel has it'
  return item.value?.family ? 'not enrolled yet' : 'wired'
})
</script>

<template>
  <div class="detail">
    <dl class="facts">
      <div>
        <dt>Loop</dt>
        <dd>
          <CellText
            :id="zone.id"
            field="loop"
            kind="zone.set"
            :label="`Loop of ${name}`"
            number
            :size="3"
            placeholder="–"
          />
          <span class="quiet small">{{ item ? `of ${item.model.name}: ${loops.join(', ')}` : '' }}</span>
        </dd>
      </div>
      <div v-if="panel.equipment.code">
        <dt>Equipment code</dt>
        <dd>
          <CellText
            :id="zone.id"
            field="equipmentCode"
            kind="zone.set"
            :label="`Equipment code of ${name}`"
            mono
            :size="6"
            placeholder="–"
          />
        </dd>
      </div>
      <div v-if="panel.equipment.kinds.length > 0">
        <dt>Equipment kind</dt>
        <dd>
          <CellChoice
            :id="zone.id"
            field="equipmentKind"
            kind="zone.set"
            :label="`Equipment kind of ${name}`"
            :items="kinds"
          />
        </dd>
      </div>
      <div>
        <dt>Area</dt>
        <dd>
          <CellChoice
            :id="zone.id"
            field="area"
            kind="zone.set"
            :label="`Area of ${name}`"
            :items="areas"
            :title="panel.areas.meaning"
            :take="moveTo"
          />
          <span v-if="leaves" class="quiet small">the panel still has it in {{ leaves.name }}</span>
        </dd>
      </div>
      <div>
        <dt>Existing device</dt>
        <dd>
          <CellFlag :id="zone.id" field="existing" kind="zone.set" :label="`${name} is an existing device`" />
        </dd>
      </div>
      <div v-if="zone.existing || item?.device.existing || zone.asProgrammed">
        <dt>Left as programmed</dt>
        <dd>
          <CellFlag
            :id="zone.id"
            field="asProgrammed"
            kind="zone.set"
            :label="`${name} is left as programmed: not keyed, not learned again, proved all the same`"
          />
          <span class="quiet small">not keyed, not learned again; proved all the same</span>
        </dd>
      </div>
      <div>
        <dt>ID</dt>
        <dd :class="{ id: known }">
          {{ idWords }}
        </dd>
      </div>
    </dl>
    <p v-if="moving" class="quiet small">
      While people leave: {{ moving.leaving }} While somebody comes in (away): {{ moving.entering }}
    </p>
    <ZoneCouplings :zone="zone" :panel="panel" :model="item?.model ?? null" :name="name" />
    <div>
      <FindingCard v-for="finding in findings" :key="finding.rule + finding.text" :finding="finding" here />
    </div>
    <v-btn size="small" variant="text" class="text-none" @click="job.showJournal(name, [zone.id])"
      >History of {{ name }}</v-btn
    >
    <v-btn size="small" variant="text" class="text-none" @click="emit('remove')">Remove {{ name }}</v-btn>
  </div>
</template>

<style scoped>
.detail {
  padding: 6px 8px 12px 44px;
}
.small {
  font-size: 0.8125rem;
}
</style>
