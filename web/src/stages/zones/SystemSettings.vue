<script setup lang="ts">
import { computed } from 'vue'
import { jobInfo, lowerFirst, panelSettings } from '#core'
import CellFlag from '../../shared/CellFlag.vue'
import FieldChoice from '../../shared/FieldChoice.vue'
import FieldText from '../../shared/FieldText.vue'
import KeypadKeys from './KeypadKeys.vue'
import { useJob } from '../../store/job-store.ts'

const job = useJob()
const main = { id: 'job:main', kind: 'job.set' }
const panel = computed(() => job.system?.panel ?? null)
const couplings = computed(() => panel.value?.couplings ?? {})
/** The settings that this panel has, with what can be chosen and what helps to choose. */
const settings = computed(() => {
  const has = panel.value
  if (!has) return []
  const info = jobInfo(job.doc)
  return panelSettings
    .filter((setting) => setting.form !== 'keys' && setting.applies(has))
    .map((setting) => ({ ...setting, items: setting.choices(has), help: setting.hint(has, info) }))
})

const notes = computed(() => [
  ...(couplings.value.dayZones === 'user'
    ? [
        'The user chooses day zones at the keypad, among those that the plan offers (in the details of a zone).',
      ]
    : []),
  ...(couplings.value.typeGroups
    ? [
        `A zone stands in one of these lists only, and leaves it when it enters another: ${couplings.value.typeGroups.map((group) => group.name).join(', ')}.`,
      ]
    : []),
  ...(couplings.value.exitInStay === 'none' ? ['There is no exit delay in stay.'] : []),
  ...(couplings.value.shorterEntryWins === true
    ? ['A second entry zone with a shorter delay shortens one that runs.']
    : []),
  ...(panel.value ? [`Area here: ${panel.value.areas.meaning}`] : []),
])
</script>

<template>
  <section v-if="panel" class="more">
    <h2>Siren, shutdown, supervision and what the panel couples</h2>
    <div class="fields">
      <template v-for="setting in settings" :key="setting.key">
        <FieldText
          v-if="setting.form === 'number'"
          v-bind="main"
          :field="setting.field"
          :label="setting.label"
          number
          :suffix="setting.unit"
          :hint="setting.help"
        />
        <FieldChoice
          v-else-if="setting.form === 'choice'"
          v-bind="main"
          :field="setting.field"
          :label="setting.label"
          :items="[...setting.items]"
        />
        <label v-else class="flag"
          ><CellFlag v-bind="main" :field="setting.field" :label="setting.label" /> {{ setting.label
          }}<span class="quiet">: {{ lowerFirst(setting.help) }}</span></label
        >
      </template>
      <FieldText
        v-bind="main"
        field="unheatedFrom"
        label="Coldest unheated room"
        number
        suffix="°C"
        hint="empty: −10"
      />
      <FieldText
        v-bind="main"
        field="unheatedTo"
        label="Hottest unheated room"
        number
        suffix="°C"
        hint="empty: 45"
      />
    </div>
    <KeypadKeys v-if="couplings.functionKeys" :keys="couplings.functionKeys" />
    <ul class="quiet small">
      <li v-for="note in notes" :key="note">{{ note }}</li>
    </ul>
  </section>
</template>

<style scoped>
.more {
  margin-bottom: 14px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  gap: 8px 14px;
  align-items: start;
  margin-top: 12px;
}
.flag {
  align-self: center;
}
.small {
  font-size: 0.8125rem;
  margin: 6px 0 0;
  padding-left: 18px;
}
</style>
