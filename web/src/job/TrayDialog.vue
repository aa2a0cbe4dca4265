<script setup lang="ts">
import { computed } from 'vue'
import { titleOf } from '#core'
import { conflictWords, valueWords, whoWhen, type NamedConflict } from './conflict-words.ts'
import FoldedLines from '../shared/FoldedLines.vue'
import { useJob } from '../store/job-store.ts'
import { opLines } from '../store/ops-words.ts'
import { useTouch } from './useTouch.ts'

const job = useJob()
const item = computed(() => job.tray[0] ?? null)
const problems = computed(() => (item.value?.reason.kind === 'invalid' ? item.value.reason.problems : []))
const given = computed(() => (item.value?.reason.kind === 'conflict' ? item.value.reason.conflict : null))
const touch = useTouch(() => given.value)
const conflict = computed<NamedConflict | null>(() => given.value && { ...touch.value, ...given.value })
const canTakeMine = computed(
  () => given.value?.code === 'changed' && item.value?.edit.ops.every((op) => op.op === 'set'),
)
const setsPlan = computed(() => (item.value?.edit.ops.length ?? 0) > 1)
const lines = computed(() => (item.value ? opLines(job.doc, job.catalogue, item.value.edit.ops) : []))
const title = computed(() =>
  given.value ? "Your change and a colleague's meet" : 'This change was not taken',
)
</script>

<template>
  <v-dialog :model-value="!!item" max-width="620" persistent>
    <v-card v-if="item" class="pa-6" :title="title">
      <p>
        You {{ titleOf(item.edit) }}.
        <template v-if="conflict">{{ conflictWords(job.doc, conflict, job.system?.panel ?? null) }}</template>
        <template v-else
          >It is not in the job, and nothing of it is lost: it stays here until you dismiss it.</template
        >
        <span v-if="job.tray.length > 1" class="quiet"> ({{ job.tray.length - 1 }} more after this)</span>
      </p>
      <table v-if="conflict?.field" class="plain my-4">
        <tbody>
          <tr>
            <th scope="row">Yours</th>
            <td class="value">{{ valueWords(conflict.yours) }}</td>
            <td class="quiet">you</td>
          </tr>
          <tr>
            <th scope="row">Theirs</th>
            <td class="value">{{ valueWords(conflict.theirs) }}</td>
            <td class="quiet">{{ whoWhen(conflict) }}</td>
          </tr>
        </tbody>
      </table>
      <template v-if="!conflict">
        <div class="my-3" role="alert">
          <FoldedLines v-slot="{ line }" :lines="problems" :most="12" class="ml-5">{{
            [line.path, line.message].filter(Boolean).join(' ')
          }}</FoldedLines>
        </div>
        <table class="plain my-2">
          <tbody>
            <tr v-for="(line, index) in lines" :key="index">
              <th scope="row">{{ line.what }}</th>
              <td class="value">{{ line.to }}</td>
            </tr>
          </tbody>
        </table>
      </template>
      <p v-if="setsPlan && conflict" class="quiet">
        This change set several things at once. If it came from a plan, a fix or an import, keep theirs and
        run that again on what is there now.
      </p>
      <div class="d-flex ga-3 justify-end mt-4">
        <v-btn variant="tonal" @click="job.keepTheirs(item)">{{
          conflict ? 'Keep theirs' : 'Dismiss it'
        }}</v-btn>
        <v-btn v-if="canTakeMine" color="primary" @click="job.takeMine(item)">Use mine</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.value {
  font-weight: 650;
  overflow-wrap: anywhere;
}
</style>
