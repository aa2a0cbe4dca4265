<script setup lang="ts">
import { computed } from 'vue'
import { stateRules, stateSubjects, type ProofStop, type StateKind } from '#core'
import LeafletButton from '../../leaflets/LeafletButton.vue'
import { useJob } from '../../store/job-store.ts'
import NoteState from './NoteState.vue'
import ProofStep from './ProofStep.vue'

const props = defineProps<{ entry: ProofStop }>()
const job = useJob()
const first = computed(
  () => props.entry.items.find((item) => item.state !== 'pass' && item.waits === '')?.key ?? null,
)
const family = computed(() => job.catalogue.get('family', props.entry.model?.family ?? null))
const waiting = computed(() => props.entry.items.filter((item) => item.state === 'waits'))
/** Reasons to wait, each once. */
const reasons = computed(() => [...new Set(waiting.value.map((item) => item.waits))])
/** Temporary states that can be begun here: about this device or one of its zones; of the panel, its mains. */
const kinds = computed(() => {
  const mine = new Set([props.entry.id, ...props.entry.zones.map((zone) => zone.id)])
  return (Object.keys(stateRules) as StateKind[]).filter((kind) =>
    kind === 'mains-off'
      ? props.entry.device === null
      : stateSubjects(job.doc, job.catalogue, kind).some((subject) => mine.has(subject.id)),
  )
})
</script>

<template>
  <section class="sheet card" :aria-label="`Proofs of ${entry.name}`">
    <h2>{{ entry.zones[0]?.label || entry.title }}</h2>
    <p class="quiet">
      {{ entry.name }} · {{ entry.title }}<template v-if="entry.room"> · {{ entry.room }}</template
      ><template v-if="entry.device?.position">, {{ entry.device.position }}</template>
    </p>
    <LeafletButton
      v-if="entry.model"
      :about="[entry.model.id, entry.model.family]"
      :name="entry.model.name"
    />
    <p v-for="reason in reasons" :key="reason" class="waits" role="note">◌ {{ reason }}</p>
    <ProofStep
      v-for="item in entry.items"
      :key="item.key"
      :entry="entry"
      :item="item"
      :next="item.key === first"
      :family="family"
    />
    <NoteState
      v-if="kinds.length > 0"
      :kinds="kinds"
      :among="[entry.id, ...entry.zones.map((zone) => zone.id)]"
      :title="entry.device ? undefined : 'Its mains are off now…'"
    />
  </section>
</template>

<style scoped>
.card {
  padding: 14px 16px;
}
.waits {
  margin: 6px 0;
  font-weight: 600;
}
</style>
