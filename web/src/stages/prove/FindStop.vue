<script setup lang="ts">
import { ref } from 'vue'
import { printNumber, readLabelLink, type ProofStop } from '#core'
import ScanCode from '../../shared/ScanCode.vue'
import { useJob } from '../../store/job-store.ts'

/** Turns to one device of the round, and leaves out what is done. */
const props = defineProps<{ route: readonly ProofStop[] }>()
const emit = defineEmits<{ found: [id: string] }>()
const onlyOpen = defineModel<boolean>({ required: true })
const job = useJob()

const wanted = ref('')
const unfound = ref('')

/** Turns to a device by the code of its box label, its zone number, or a word of its label or room. */
function find(): void {
  const text = wanted.value.trim()
  if (text === '') return
  const label = readLabelLink(text)
  const found = label
    ? props.route.find((entry) => label.job === job.jobId && entry.id === label.device)
    : (props.route.find((entry) => numbersOf(entry).includes(text.replace(/^0+(?=.)/, ''))) ??
      props.route.find((entry) => wordsOf(entry).includes(text.toLowerCase())))
  unfound.value = found
    ? ''
    : label
      ? 'That label is of no device of this job.'
      : `Nothing here is called “${text}”.`
  if (!found) return
  wanted.value = ''
  emit('found', found.id)
}

function numbersOf({ zones }: ProofStop): string[] {
  return zones.map((zone) => printNumber(job.system?.panel ?? null, zone.number).replace(/^0+(?=.)/, ''))
}

function wordsOf({ zones, title, room, name }: ProofStop): string {
  return [...zones.map((zone) => zone.label), title, room, name].join(' ').toLowerCase()
}
</script>

<template>
  <form class="find no-print" role="search" @submit.prevent="find">
    <v-text-field
      v-model="wanted"
      label="Zone, label, room, or a scanned code"
      :error-messages="unfound"
      maxlength="300"
      @update:model-value="unfound = ''"
    />
    <ScanCode @read="((wanted = $event), find())" />
  </form>
  <v-checkbox v-model="onlyOpen" label="Only what is owed" />
</template>

<style scoped>
.find {
  display: flex;
  align-items: start;
  flex: 0 1 320px;
  min-width: 220px;
}
</style>
