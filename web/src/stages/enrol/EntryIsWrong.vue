<script setup lang="ts">
import { computed } from 'vue'
import { correctionBySeenLoop, jobInfo, type DeviceModel, type LoopEvent } from '#core'
import { useBeginDraft } from '../../line/useBeginDraft.ts'
import { useSession } from '../../line/session.ts'
import { useJob } from '../../store/job-store.ts'

/** The panel showed a loop that the device's entry lacks: what was seen goes back to the entry, as a draft of its correction. */
const props = defineProps<{ model: DeviceModel; planned: LoopEvent; seen: number }>()
const job = useJob()
const session = useSession()
const { trouble, start } = useBeginDraft()
/** The entry as the firm has it now; a job may hold an older one, or one of another firm. */
const entry = computed(() => session.catalogue?.get('device', props.model.id) ?? null)
const corrected = computed(
  () =>
    entry.value?.loops.some(({ event, loop }) => event === props.planned.event && loop === props.seen) ??
    false,
)
const practice = computed(() => jobInfo(job.doc).practice)

async function correct(): Promise<void> {
  const { catalogue } = session
  if (!entry.value || !catalogue) return
  const source = `seen on the panel, ${jobInfo(job.doc).name}`
  const { event } = props.planned
  await start(correctionBySeenLoop(entry.value, { event, loop: props.seen, source }, catalogue))
}
</script>

<template>
  <div class="wrong">
    <p v-if="practice" class="quiet">
      This is a practice job: what its air shows says nothing of a real device.
    </p>
    <p v-else-if="corrected">
      The firm’s entry says loop {{ seen }} by now: take the newer entry into this job on
      <RouterLink :to="`/jobs/${job.jobId}/kit`">Kit</RouterLink>, then trip it again.
    </p>
    <p v-else-if="!entry" class="quiet">
      Its entry is not in this firm’s catalogue, so it cannot be corrected here.
    </p>
    <v-btn v-else size="x-large" variant="tonal" @click="correct"
      >Correct its entry: {{ planned.name }} is loop {{ seen }}…</v-btn
    >
    <p v-if="trouble" role="alert" class="text-error">{{ trouble }}</p>
  </div>
</template>

<style scoped>
.wrong p {
  margin: 4px 0;
}
.wrong :deep(.v-btn__content) {
  white-space: normal;
}
</style>
