<script setup lang="ts">
import { computed, ref } from 'vue'
import {
  correctionBy,
  figureProblem,
  figuresSeenAt,
  jobInfo,
  type DeviceModel,
  type Family,
  type ProofItem,
} from '#core'
import { useBeginDraft } from '../line/useBeginDraft.ts'
import { useSession } from '../line/session.ts'
import { useJob } from '../store/job-store.ts'

/** What whoever proves a device sees of it otherwise than its entry says, or that it does not state: it goes back to the entry, as a draft of its correction. */
const props = defineProps<{ kind: ProofItem['kind']; model: DeviceModel | null; family: Family | null }>()
const job = useJob()
const session = useSession()
const { trouble, start } = useBeginDraft()
const typed = ref<Readonly<Record<string, string>>>({})
const faults = ref<Readonly<Record<string, string>>>({})
const practice = computed(() => jobInfo(job.doc).practice)
/** By the entries as the firm has them now; a job may hold older ones, or those of another firm. */
const figures = computed(() => {
  const own = session.catalogue
  if (!own) return []
  const known = {
    model: own.get('device', props.model?.id ?? null),
    family: own.get('family', props.family?.id ?? null),
  }
  return figuresSeenAt(props.kind, known, own)
})

async function correct(figure: (typeof figures.value)[number]): Promise<void> {
  const { catalogue } = session
  const text = (typed.value[figure.path] ?? '').trim().replace(',', '.')
  const value = Number(text)
  const fault =
    text === '' || Number.isNaN(value)
      ? 'Say the figure that you saw, as a number.'
      : value === figure.stated
        ? 'That is what its entry says.'
        : catalogue
          ? figureProblem(figure, value, catalogue)
          : ''
  faults.value = { ...faults.value, [figure.path]: fault }
  if (fault !== '' || !catalogue) return
  const source = `seen at ${jobInfo(job.doc).name}`
  await start(correctionBy(figure.entry, { path: figure.path, value: () => value, source }, catalogue))
}
</script>

<template>
  <details v-if="figures.length > 0 && !job.looksOn" class="seen">
    <summary>Seen otherwise than the catalogue says?</summary>
    <p v-if="practice" class="quiet">
      This is a practice job: what its air shows says nothing of a real device.
    </p>
    <form
      v-for="figure in practice ? [] : figures"
      :key="figure.path"
      :aria-label="figure.ask"
      @submit.prevent="correct(figure)"
    >
      <p>
        {{ figure.entry.name }}: {{ figure.ask }}
        <span class="quiet">{{
          figure.stated === null
            ? 'Not stated.'
            : `Its entry says ${[figure.stated, figure.unit].join(' ').trim()}.`
        }}</span>
      </p>
      <div class="line">
        <v-text-field
          :model-value="typed[figure.path] ?? ''"
          label="You saw"
          inputmode="decimal"
          maxlength="8"
          :suffix="figure.unit"
          :error-messages="faults[figure.path]"
          @update:model-value="typed = { ...typed, [figure.path]: $event }"
        />
        <v-btn type="submit" variant="tonal" min-height="48" class="text-none">Correct its entry…</v-btn>
      </div>
    </form>
    <p v-if="trouble" role="alert" class="text-error">{{ trouble }}</p>
  </details>
</template>

<style scoped>
.seen {
  margin-top: 8px;
}
.seen summary {
  cursor: pointer;
  min-height: 32px;
}
.seen p {
  margin: 4px 0;
}
.line {
  display: grid;
  grid-template-columns: minmax(120px, 200px) max-content;
  gap: 8px;
  align-items: start;
}
</style>
