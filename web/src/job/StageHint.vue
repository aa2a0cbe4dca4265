<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useDisplay } from 'vuetify'
import { jobInfo, recordsOf, type JobDocument, type Stage } from '#core'
import { useJob } from '../store/job-store.ts'

/* What a stage is for, to whoever opens it for the first time; it goes for good when its act is done in their sight. */

interface Hint {
  readonly says: string
  /** Whether the act of the stage is done in a job. */
  readonly done: (doc: JobDocument) => boolean
}
const has = (type: 'device' | 'zone' | 'room' | 'heard' | 'test' | 'signoff') => (doc: JobDocument) =>
  recordsOf(doc, type).length > 0
const hints: Readonly<Record<Stage, Hint>> = {
  survey: {
    says: 'Choose the panel and say who lives here; then describe the house in a few lines. Delays, uses and the order of zones follow from it.',
    done: (doc) => jobInfo(doc).panel !== null && has('room')(doc),
  },
  kit: {
    says: 'Add what is to be fitted, one by one or as a list. Each row says whether the panel can use it, and what would help where it cannot.',
    done: has('device'),
  },
  zones: {
    says: 'One press of “Number everything” gives each event its number, loop, response type and label. Then look at the rows that bear a mark.',
    done: has('zone'),
  },
  program: {
    says: 'This is what to key, in the order of the panel. After each line its display must show what stands beside the keys: if it shows something else, stop there.',
    done: has('heard'),
  },
  enrol: {
    says: 'Choose a device, trip it, and compare the ID that was heard with the one on its sticker before you accept it.',
    done: has('heard'),
  },
  prove: {
    says: 'Go from room to room: choose a device, trip it, and note what was seen. What is not seen stays owed.',
    done: has('test'),
  },
  handover: {
    says: 'What still blocks the hand-over stands under “Still owed”. When nothing does, it is signed under “To vouch for”.',
    done: has('signoff'),
  },
}

const job = useJob()
const route = useRoute()
/** Stages whose hint is not needed any more, on this device. */
const past = useLocalStorage<Partial<Record<Stage, boolean>>>('kapelle-hints', {})
const stage = computed(() => (route.name as Stage | undefined) ?? null)
const hint = computed(() => (stage.value && stage.value in hints ? hints[stage.value] : null))
const isDone = computed(() => hint.value?.done(job.doc) ?? false)
const shown = computed(
  () => stage.value !== null && hint.value !== null && !past.value[stage.value] && !isDone.value,
)

// On a phone the work comes first: a hint is one line until it is asked for.
const { xs: phone } = useDisplay()
const unfolded = ref(false)
watch(stage, () => (unfolded.value = false))

function put(): void {
  if (stage.value) past.value = { ...past.value, [stage.value]: true }
}
// Done while one looks on, not found done: only the first teaches.
watch([stage, isDone] as const, ([at, now], [from, before]) => {
  if (at === from && now && !before) put()
})
</script>

<template>
  <p v-if="shown" class="hint no-print" role="note">
    <button v-if="phone && !unfolded" type="button" aria-expanded="false" @click="unfolded = true">
      First time here?
    </button>
    <template v-else><strong>First time here?</strong> {{ hint?.says }}</template>
    <v-btn :icon="mdiClose" size="x-small" variant="text" aria-label="Put the hint away" @click="put" />
  </p>
</template>

<style scoped>
.hint {
  display: flex;
  align-items: center;
  gap: 8px;
  margin: 14px 20px -6px;
  padding: 6px 8px 6px 14px;
  border-left: 4px solid rgb(var(--v-theme-secondary));
  background: rgba(var(--v-theme-secondary), 0.12);
  border-radius: 4px;
  font-size: 0.9375rem;
}
.hint button:not(.v-btn) {
  min-height: 24px;
  color: inherit;
  font-weight: 700;
  text-decoration: underline;
  cursor: pointer;
}
.hint strong {
  white-space: nowrap;
}
.hint .v-btn {
  margin-left: auto;
}
</style>
