<script setup lang="ts">
import { mdiRedo, mdiUndo } from '@mdi/js'
import { useEventListener, useNow, useStyleTag } from '@vueuse/core'
import { computed, onUnmounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { jobInfo, titleOf, type JournalEntry } from '#core'
import { stages } from './stages.ts'
import { isTyping, useShortcuts } from './useShortcuts.ts'
import { ApiError } from '../line/api.ts'
import ClockStrip from './ClockStrip.vue'
import CopyPlan from './CopyPlan.vue'
import FindingsPanel from './findings/FindingsPanel.vue'
import JournalPanel from './JournalPanel.vue'
import FileEvidence from './FileEvidence.vue'
import RecallStrip from './RecallStrip.vue'
import StageHint from './StageHint.vue'
import StageRail from './StageRail.vue'
import TrayDialog from './TrayDialog.vue'
import UndoRestDialog from './UndoRestDialog.vue'
import { useWritten } from '../shared/times.ts'
import { useJob } from '../store/job-store.ts'

const job = useJob()
const route = useRoute()
const router = useRouter()
const failure = ref('')
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

/** Stages whose table is broader than a sheet is. */
const broad = new Set(['kit', 'zones', 'handover'])
/** What is printed of a page is for the paper of the job's region. */
useStyleTag(
  computed(() => {
    const paper = job.system?.info.region === 'north-america' ? 'letter' : 'A4'
    const across = broad.has(String(route.name)) ? ' landscape' : ''
    return `@page { size: ${paper}${across}; margin: 12mm }`
  }),
  { id: 'paper' },
)
const practice = computed(() => job.jobId !== null && jobInfo(job.doc).practice)
const name = computed(() => (job.jobId ? jobInfo(job.doc).name : ''))
const address = computed(() => (job.jobId ? jobInfo(job.doc).address : ''))
const { day } = useWritten()
/** The day of printing: the page may stand open for days. */
const now = useNow({ interval: 60_000 })
const printed = computed(() => day(now.value.toISOString()))
const openFindings = computed(() => job.findings.filter((finding) => !finding.waived).length)
const undoTitle = computed(() =>
  job.steps.undo ? `Undo: ${titleOf(job.steps.undo.edit)}` : 'Nothing to undo',
)
const redoTitle = computed(() =>
  job.steps.redo ? `Redo: bring back “${redoWhat(job.steps.redo)}”` : 'Nothing to redo',
)

/** What a redo would bring back: the edit that the undo took away. */
function redoWhat(undo: JournalEntry & { readonly undid?: string }): string {
  return titleOf({ ...undo.edit, kind: undo.undid ?? 'undone' })
}
const saved = computed(() => {
  const waiting = job.unsent.length
  if (job.line === 'full')
    return `The server’s disk is full: ${waiting} ${waiting === 1 ? 'change waits' : 'changes wait'} here until there is room`
  if (job.line === 'offline')
    return `Offline: ${waiting} ${waiting === 1 ? 'change waits' : 'changes wait'} here`
  if (job.line === 'signed-out') return 'Signed out: sign in again to send'
  if (job.line === 'newer') return 'A newer version holds changes here: reload the page'
  if (job.line === 'refused') return 'The server lets nobody change this job now: what waits stays here'
  if (waiting > 0 && !job.keeps) return 'Saving… (this browser keeps nothing over a reload)'
  if (waiting > 0) return 'Saving…'
  return job.tray.length > 0 ? `${job.tray.length} not taken: see the message` : 'All saved'
})

useShortcuts('Everywhere in a job', [
  { keys: 'F', title: 'Findings', run: () => (findingsOpen.value = !findingsOpen.value) },
  { keys: 'J', title: 'Journal', run: openJournal },
  ...stages.map((stage, index) => ({
    keys: String(index + 1),
    title: stage.name,
    run: () => void router.push({ name: stage.key, params: route.params }),
  })),
  { keys: 'Ctrl + Z', title: 'Undo my latest change' },
  { keys: 'Ctrl + Shift + Z', title: 'Bring it back' },
  { keys: 'Enter', title: 'Keep what was typed in a field' },
  { keys: 'Esc', title: 'Put a field back as it was' },
])

function openJournal(): void {
  job.journalAbout = null
  job.journalOpen = true
}

useEventListener(document, 'keydown', (event: KeyboardEvent) => {
  if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z' || isTyping(event.target)) return
  event.preventDefault()
  if (event.shiftKey) job.redo()
  else job.undo()
})
useEventListener(window, 'beforeunload', (event: BeforeUnloadEvent) => {
  if (job.unsent.length > 0) event.preventDefault()
})
</script>

<template>
  <Teleport v-if="job.jobId" to="#bar-slot">
    <span class="job-name">{{ name }}</span>
    <span v-if="practice" class="practice-mark">practice</span>
    <span class="saved quiet" role="status">{{ saved }}</span>
    <span v-if="job.looksOn" class="saved" title="Your role in this firm is viewer">You look on</span>
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
    <v-btn variant="text" size="small" class="text-none" @click="openJournal">Journal</v-btn>
    <v-btn
      variant="text"
      size="small"
      class="text-none"
      :aria-expanded="findingsOpen"
      @click="findingsOpen = !findingsOpen"
    >
      {{ openFindings }} {{ openFindings === 1 ? 'finding' : 'findings' }}
    </v-btn>
  </Teleport>
  <StageRail v-if="job.jobId" />
  <v-main>
    <div v-if="failure" class="page">
      <h1>This job cannot be opened</h1>
      <p class="my-3">{{ failure }}</p>
      <v-btn to="/jobs" color="primary">All jobs</v-btn>
    </div>
    <p v-if="job.jobId" class="only-print">
      <strong>{{ name }}</strong><template v-if="address">, {{ address }}</template> · printed {{ printed }}
    </p>
    <p v-if="job.jobId && practice" class="practice" role="note">
      <strong>Practice job.</strong>
      <span class="long">
        Its air is simulated; nothing here was seen on a real system or counts as real.
      </span>
      <CopyPlan />
    </p>
    <v-progress-linear v-if="!failure && !job.jobId" indeterminate aria-label="Opening the job" />
    <template v-else-if="!failure"
      ><ClockStrip /><RecallStrip /><FileEvidence /><StageHint /><router-view
    /></template>
  </v-main>
  <FindingsPanel v-if="job.jobId" v-model="findingsOpen" />
  <TrayDialog />
  <UndoRestDialog />
  <JournalPanel v-if="job.jobId" v-model="job.journalOpen" />
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
.practice {
  margin: 0;
  padding: 6px 24px;
  font-size: 0.875rem;
  background: repeating-linear-gradient(
    135deg,
    rgba(var(--v-theme-on-surface), 0.09) 0 10px,
    rgba(var(--v-theme-on-surface), 0.04) 10px 20px
  );
}
@media (max-width: 600px) {
  .job-name,
  .practice-mark,
  .long,
  .saved {
    display: none;
  }
  /* The bar has no room to say it: it stays in sight below the stages. */
  .practice {
    position: sticky;
    top: 80px;
    z-index: 2;
    padding: 2px 12px;
    background-color: rgb(var(--v-theme-background));
  }
}
</style>
