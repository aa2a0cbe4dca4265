<script setup lang="ts">
import { mdiChevronDown, mdiChevronUp } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import {
  adviseDevice,
  fieldProblems,
  fullSet,
  modesOf,
  moveZone,
  printNumber,
  type Finding,
  type PanelModel,
  type Zone,
} from '#core'
import CellChoice from '../../shared/CellChoice.vue'
import CellFlag from '../../shared/CellFlag.vue'
import CellText from '../../shared/CellText.vue'
import { severityLook } from '../../shared/severity.ts'
import { useJob } from '../../store/job-store.ts'
import BehaviourStrip from './BehaviourStrip.vue'
import ZoneDetail from './ZoneDetail.vue'

const props = defineProps<{
  zone: Zone
  panel: PanelModel
  findings: readonly Finding[]
  marked: boolean
  /** Whether the rack or the list has the pointer or the focus on it. */
  lit: boolean
}>()
const emit = defineEmits<{ point: [zone: string]; focused: [zone: string | null] }>()
const job = useJob()
const item = computed(() => (props.zone.device ? job.system?.byId.get(props.zone.device) : undefined))
const loop = computed(() => item.value?.model.loops.find((entry) => entry.event === props.zone.event))
const type = computed(
  () => props.panel.responseTypes.find((entry) => entry.key === props.zone.response) ?? null,
)
const types = computed(() => [
  { title: 'not stated', value: null },
  ...props.panel.responseTypes.map((entry) => ({ title: `${entry.code} ${entry.name}`, value: entry.key })),
])
const modes = computed(() =>
  type.value && job.system
    ? modesOf(
        { panel: props.panel, info: job.system.info, fullSet: fullSet(job.doc, props.panel) },
        props.zone,
        type.value,
      )
    : [],
)
const name = computed(() => `zone ${printNumber(props.panel, props.zone.number)}`)
const hides = computed(() => new Set<string>(type.value?.hides ?? []))
const worst = computed(() => props.findings[0])
const advice = computed(() => {
  if (!item.value || !loop.value || !job.system) return null
  const { device } = item.value
  return adviseDevice({
    panel: props.panel,
    device,
    event: loop.value.event,
    place: job.places.get(device.id),
    region: job.system.info.region,
    schools: job.rules.schools,
  })
})

const open = ref(false)
watch(
  () => props.marked,
  (now) => now && (open.value = true),
  { immediate: true },
)

/** Why the number that was typed is not for this zone; empty when it is. */
const numberFault = ref('')
/** What was typed and refused: it stands there until it is mended. */
const typedNumber = ref<string | null>(null)

/** A number typed by hand moves the zone as the rack does, with the same refusals; numbering keeps it from then on. */
function setNumber(event: Event): void {
  const typed = (event.target as HTMLInputElement).value.trim()
  const to = typed === '' || Number.isNaN(Number(typed)) ? typed : Number(typed)
  numberFault.value = ''
  typedNumber.value = null
  if (to === props.zone.number || !job.system) return
  const problems = fieldProblems({ type: 'zone', field: 'number' }, to)
  if (problems.length > 0 || typeof to !== 'number') {
    numberFault.value = `The number ${problems.map((problem) => problem.message).join('; ')}.`
    typedNumber.value = typed
    return
  }
  const move = moveZone({ doc: job.doc, system: job.system, rules: job.rules }, props.zone, to)
  if (move.ok) {
    job.edit('zone.move', move.ops)
    return
  }
  numberFault.value = move.reason
  typedNumber.value = typed
}

function restoreNumber(event: Event): void {
  numberFault.value = ''
  typedNumber.value = null
  ;(event.target as HTMLInputElement).value = printNumber(props.panel, props.zone.number)
}

function remove(): void {
  job.edit('zone.remove', [{ op: 'remove', record: props.zone }])
}
</script>

<template>
  <tr
    :id="zone.id"
    :class="{ marked, lit }"
    @mouseenter="emit('point', zone.id)"
    @focusin="emit('focused', zone.id)"
    @focusout="emit('focused', null)"
  >
    <td class="num">
      <input
        class="number num"
        :value="typedNumber ?? printNumber(panel, zone.number)"
        :aria-label="`Number of ${name}`"
        inputmode="numeric"
        size="3"
        :aria-invalid="numberFault !== ''"
        :aria-describedby="numberFault === '' ? undefined : `fault-${zone.id}`"
        :class="{ wrong: numberFault !== '' }"
        @change="setNumber"
        @keydown.enter="($event.target as HTMLElement).blur()"
        @keydown.esc="restoreNumber"
      />
      <CellFlag :id="zone.id" field="pinned" kind="zone.set" :label="`${name} keeps its number`" />
    </td>
    <td class="mark">
      <button
        v-if="worst"
        type="button"
        class="glyph"
        :style="{ color: `rgb(var(--v-theme-${severityLook[worst.severity].color}))` }"
        :title="findings.map((finding) => finding.text).join('\n')"
        :aria-label="`${severityLook[worst.severity].word}: ${worst.text}`"
        @click="open = !open"
      >
        {{ severityLook[worst.severity].glyph }}
      </button>
    </td>
    <td class="label">
      <CellText
        :id="zone.id"
        field="label"
        kind="zone.label"
        :label="`Label of ${name}`"
        :size="20"
        placeholder="label"
      />
    </td>
    <td class="device">
      {{ item?.model.name ?? 'no device' }}
      <div class="quiet small">
        {{ loop?.name ?? zone.event ?? ''
        }}<template v-if="zone.loop !== null"> · loop {{ zone.loop }}</template
        ><span v-if="zone.equipmentCode" class="code"> · code {{ zone.equipmentCode }}</span>
      </div>
    </td>
    <td class="response">
      <div class="d-flex align-center ga-2">
        <BehaviourStrip :modes="modes" />
        <CellChoice
          :id="zone.id"
          field="response"
          kind="zone.set"
          :label="`Response type of ${name}`"
          :items="types"
          :title="advice?.need.reason"
          class="type"
        />
      </div>
      <div v-if="advice?.type && advice.type.key !== zone.response" class="small quiet">
        Advised: {{ advice.type.name }}. {{ advice.need.reason }}
      </div>
    </td>
    <td
      v-for="flag in [
        ['chime', 'Chime', 'Chime'],
        ['report', 'Report', 'Rep.'],
        ['supervise', 'Supervise', 'Sup.'],
        ['transmissionDelay', 'Hold before sending', 'Hold'],
      ] as const"
      :key="flag[0]"
      class="flag"
      :data-short="flag[2]"
    >
      <CellFlag
        v-if="!hides.has(flag[0])"
        :id="zone.id"
        :field="flag[0]"
        kind="zone.set"
        :label="`${flag[1]}, ${name}`"
      />
      <span v-else class="quiet" title="The panel does not ask this for the type">–</span>
    </td>
    <td class="acts no-print">
      <v-btn
        :icon="open ? mdiChevronUp : mdiChevronDown"
        size="x-small"
        variant="text"
        :aria-label="`More of ${name}`"
        :aria-expanded="open"
        @click="open = !open"
      />
    </td>
  </tr>
  <tr v-if="numberFault" class="refused">
    <td :id="`fault-${zone.id}`" colspan="10" role="alert">{{ numberFault }}</td>
  </tr>
  <tr v-if="open" :class="{ marked }">
    <td colspan="10">
      <ZoneDetail :zone="zone" :panel="panel" :findings="findings" @remove="remove" />
    </td>
  </tr>
</template>

<style scoped>
.small {
  font-size: 0.8125rem;
}
.device {
  min-width: 150px;
}
.number {
  font: inherit;
  font-family: var(--mono);
  font-weight: 650;
  color: inherit;
  width: 34px;
  padding: 3px 4px;
  border: 1px solid transparent;
  border-radius: 5px;
  background: transparent;
}
.number:hover {
  border-color: rgba(var(--v-theme-on-surface), 0.25);
}
td.num {
  white-space: nowrap;
}
.wrong {
  border-color: rgb(var(--v-theme-error)) !important;
}
.refused td {
  color: rgb(var(--v-theme-error));
  font-size: 0.8125rem;
}
.glyph {
  font: inherit;
  border: 0;
  background: transparent;
  cursor: pointer;
  min-width: 24px;
  min-height: 24px;
}
.mark {
  padding-left: 0 !important;
  padding-right: 0 !important;
}
.response {
  min-width: 250px;
}
.type {
  width: 264px;
}
.flag {
  text-align: center;
}
/* The row, not its cells: where they stand apart, as on a phone, it is one block all the same. */
.lit {
  background: rgba(var(--v-theme-primary), 0.08);
}
.lit td:first-child {
  box-shadow: inset 3px 0 0 rgb(var(--v-theme-secondary));
}
.marked {
  background: rgba(var(--v-theme-secondary), 0.16);
}
</style>
