<script setup lang="ts">
import { mdiChevronDown, mdiChevronUp } from '@mdi/js'
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
import { severityLook } from '../../shared/severity.ts'
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
    return [
      { key, name: upperFirst(delayNames[key]), value, short, missing: wanted === null && key !== 'abort' },
    ]
  }),
)
/** The settings that the plan sets: the others are as the panel comes. */
const settings = computed(() => {
  const { system } = job
  const panel = system?.panel
  if (!panel) return []
  return panelSettings.flatMap((setting) => {
    const keyed = setting.applies(panel) ? setting.keyed(panel, system.info) : null
    return keyed ? [{ key: setting.key, name: setting.label, value: keyed.meaning }] : []
  })
})
const SHOWN = 2
/** What is found about them: the gravest gives the mark. */
const findings = computed(() =>
  job.findings.filter(({ subject, waived }) => subject === 'job:main' && waived === null),
)
const worst = computed(() => findings.value[0])

watch(
  () => route.query.show,
  (id) => id === 'job:main' && (open.value = true),
  { immediate: true },
)
</script>

<template>
  <section class="sheet timing" aria-label="Delays and settings">
    <button type="button" class="line" :aria-expanded="open" aria-controls="timing-all" @click="open = !open">
      <span
        v-if="worst"
        class="mark"
        :style="{ color: `rgb(var(--v-theme-${severityLook[worst.severity].color}))` }"
        :title="findings.map((finding) => finding.text).join('\n')"
        ><span aria-hidden="true">{{ severityLook[worst.severity].glyph }}</span
        ><span class="sr-only">{{ severityLook[worst.severity].word }}: {{ worst.text }}</span></span
      >
      <span v-for="item in delays" :key="item.key" class="value" :class="{ missing: item.missing }"
        >{{ item.name }} <strong class="num">{{ item.value }}</strong><span v-if="item.short" class="short">
          needs {{ item.short }}</span
        ></span
      >
      <span v-for="item in settings.slice(0, SHOWN)" :key="item.key" class="value"
        >{{ item.name }} <strong class="num">{{ item.value }}</strong></span
      >
      <span class="value quiet">{{
        settings.length === 0
          ? 'Settings as the panel comes'
          : settings.length > SHOWN
            ? `${settings.length - SHOWN} more set`
            : ''
      }}</span>
      <span class="grow" />
      <v-icon :icon="open ? mdiChevronUp : mdiChevronDown" size="20" />
    </button>
    <div v-if="open" id="timing-all" class="all">
      <Delays />
      <EntryBudget />
      <SystemSettings />
    </div>
  </section>
</template>

<style scoped>
.timing {
  margin-bottom: 10px;
}
.line {
  font: inherit;
  color: inherit;
  text-align: left;
  background: transparent;
  border: 0;
  border-radius: inherit;
  width: 100%;
  min-height: 38px;
  padding: 6px 14px;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 18px;
  cursor: pointer;
  font-size: 0.875rem;
}
.line:hover {
  background: rgba(var(--v-theme-primary), 0.06);
}
.value {
  white-space: nowrap;
}
.value strong {
  margin-left: 4px;
}
.short {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}
.missing strong {
  color: rgb(var(--v-theme-error));
}
.mark {
  margin-right: -8px;
}
.grow {
  flex: 1 1 0;
}
.all {
  padding: 12px 14px 4px;
  border-top: 1px solid rgba(var(--v-theme-on-surface), 0.1);
}
@media print {
  .line {
    display: none;
  }
}
</style>
