<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, watch } from 'vue'
import { useRoute } from 'vue-router'
import {
  bothNumbers,
  delayFieldOf,
  delayNeeds,
  delayKeys,
  delayNames,
  encodeDelay,
  entryWays,
  formatSeconds,
  houseOf,
  limitOf,
  panelSettings,
  upperFirst,
  wantedDelay,
} from '#core'
import FoldLine from '../../shared/FoldLine.vue'
import { useJob } from '../../store/job-store.ts'
import Delays from './Delays.vue'
import EntryBudget from './EntryBudget.vue'
import SystemSettings from './SystemSettings.vue'

/* Delays, what the house asks for, and the panel's settings: one line with their values, and all of it on demand. */

const job = useJob()
const route = useRoute()
const open = useLocalStorage('kapelle-timing', false)

/** What the house asks for, as far as it is described. */
const needs = computed(() => {
  const { system } = job
  if (!system) return delayNeeds([])
  const { figures } = job.rules
  return delayNeeds(entryWays(houseOf(job.doc, system, figures), system, figures))
})

/** Every delay that the panel has, as it is keyed where that is another number. */
const delays = computed(() =>
  delayKeys.flatMap((key) => {
    const { system } = job
    const field = system ? delayFieldOf(system.panel, system.info, key) : null
    if (!field) return []
    const wanted = wantedDelay(job.doc, key)
    const encoded = wanted === null ? null : encodeDelay(field, wanted, { limit: limitOf(job.doc, key) })
    const plain = wanted !== null && encoded?.ok && encoded.keyed === wanted
    const value =
      wanted === null ? 'not set' : plain || !encoded ? `${wanted} s` : bothNumbers(field, encoded)
    const need = key === 'entry1' || key === 'entry2' || key === 'exit' ? needs.value[key] : null
    const short = need && (wanted === null || wanted < need.seconds) ? formatSeconds(need.seconds) : ''
    return [{ name: upperFirst(delayNames[key]), value, short, missing: wanted === null && key !== 'abort' }]
  }),
)
/** The settings that the plan sets: the others are as the panel comes. */
const settings = computed(() => {
  const { system } = job
  const panel = system?.panel
  if (!panel) return []
  return panelSettings.flatMap((setting) => {
    const keyed = setting.applies(panel) ? setting.keyed(panel, system.info) : null
    return keyed ? [{ name: setting.label, value: keyed.meaning }] : []
  })
})
const SHOWN = 2
const values = computed(() => [...delays.value, ...settings.value.slice(0, SHOWN)])
const rest = computed(() => {
  const more = settings.value.length - SHOWN
  return settings.value.length === 0 ? 'Settings as the panel comes' : more > 0 ? `${more} more set` : ''
})
/** What is found about them: the gravest gives the mark. */
const findings = computed(() =>
  job.findings.filter(({ subject, waived }) => subject === 'job:main' && waived === null),
)

watch(
  () => route.query.show,
  (id) => id === 'job:main' && (open.value = true),
  { immediate: true },
)
</script>

<template>
  <FoldLine
    v-model:open="open"
    class="timing"
    label="Delays and settings"
    part="timing-all"
    :values="values"
    :rest="rest"
    :findings="findings"
  >
    <Delays />
    <EntryBudget />
    <SystemSettings />
  </FoldLine>
</template>

<style scoped>
.timing {
  margin-bottom: 10px;
}
</style>
