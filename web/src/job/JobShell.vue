<script setup lang="ts">
import { mdiRedo, mdiUndo } from '@mdi/js'
import { useEventListener } from '@vueuse/core'
import { computed, onUnmounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { jobInfo, titleOf } from '#core'
import { ApiError } from '../app/api.ts'
import FindingsPanel from '../findings/FindingsPanel.vue'
import JournalPanel from './JournalPanel.vue'
import StageRail from './StageRail.vue'
import TrayDialog from './TrayDialog.vue'
import UndoRestDialog from './UndoRestDialog.vue'
import { useJob } from './job-store.ts'

const job = useJob()
const route = useRoute()
const failure = ref('')
const journalOpen = ref(false)
const findingsOpen = ref(false)

watch(() => route.params.job, load, { immediate: true })
onUnmounted(() => job.close())

async function load(): Promise<void> {
  const id = route.params.job
  if (typeof id !== 'string' || id === job.jobId) return
  failure.value = ''
  try {
    await job.open(id)
  } catch (thrown) {
    failure.value = thrown instanceof ApiError ? thrown.message : String(thrown)
  }
}

const name = computed(() => (job.jobId ? jobInfo(job.doc).name : ''))
const undoTitle = computed(() =>
  job.steps.undo ? `Undo: ${titleOf(job.steps.undo.edit)}` : 'Nothing to undo',
)
const redoTitle = computed(() => (job.steps.redo ? 'Redo: bring back what was undone' : 'Nothing to redo'))
const saved = computed(() => {
  const waiting = job.unsent.length
  if (job.line === 'offline')
    return `Offline: ${waiting} ${waiting === 1 ? 'change waits' : 'changes wait'} here`
  if (job.line === 'signed-out') return 'Signed out: sign in again to send'
  return waiting > 0 ? 'Saving…' : 'All saved'
})

useEventListener(document, 'keydown', (event: KeyboardEvent) => {
  if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z' || isText(event.target)) return
  event.preventDefault()
  if (event.shiftKey) job.redo()
  else job.undo()
})
useEventListener(window, 'beforeunload', (event: BeforeUnloadEvent) => {
  if (job.unsent.length > 0) event.preventDefault()
})

function isText(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ['INPUT', 'TEXTAREA'].includes(target.tagName))
  )
}
</script>

<template>
  <Teleport v-if="job.jobId" to="#bar-slot">
    <span class="job-name">{{ name }}</span>
    <span class="saved quiet" role="status">{{ saved }}</span>
    <span class="grow" />
    <v-btn
      :icon="mdiUndo"
      size="small"
      variant="text"
      :disabled="!job.steps.undo"
      :title="undoTitle"
      :aria-label="undoTitle"
      @click="job.undo"
    />
    <v-btn
      :icon="mdiRedo"
      size="small"
      variant="text"
      :disabled="!job.steps.redo"
      :title="redoTitle"
      :aria-label="redoTitle"
      @click="job.redo"
    />
    <v-btn variant="text" size="small" class="text-none" @click="journalOpen = true">Journal</v-btn>
    <v-btn
      variant="text"
      size="small"
      class="text-none"
      :aria-expanded="findingsOpen"
      @click="findingsOpen = !findingsOpen"
    >
      {{ job.findings.length }} {{ job.findings.length === 1 ? 'finding' : 'findings' }}
    </v-btn>
  </Teleport>
  <StageRail v-if="job.jobId" />
  <v-main>
    <div v-if="failure" class="page">
      <h1>This job cannot be opened</h1>
      <p class="my-3">{{ failure }}</p>
      <v-btn to="/jobs" color="primary">All jobs</v-btn>
    </div>
    <v-progress-linear v-else-if="!job.jobId" indeterminate aria-label="Opening the job" />
    <router-view v-else />
  </v-main>
  <FindingsPanel v-if="job.jobId" v-model="findingsOpen" />
  <TrayDialog />
  <UndoRestDialog />
  <JournalPanel v-if="job.jobId" v-model="journalOpen" />
  <v-snackbar
    :model-value="!!job.notice"
    color="error"
    timeout="9000"
    location="bottom"
    @update:model-value="job.notice = null"
  >
    <strong>{{ job.notice?.title }}</strong>
    <div v-for="line in job.notice?.lines" :key="line">{{ line }}</div>
  </v-snackbar>
</template>

<style scoped>
.job-name {
  font-weight: 650;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  min-width: 0;
}
.saved {
  font-size: 0.8125rem;
  white-space: nowrap;
  padding-left: 8px;
}
.grow {
  flex: 1 1 auto;
}
@media (max-width: 600px) {
  .job-name,
  .saved {
    display: none;
  }
}
</style>
