<script setup lang="ts">
import { computed } from 'vue'
import { lastTouch, titleOf } from '#core'
import { conflictWords, valueWords, whoWhen } from './conflict-words.ts'
import { useJob } from './job-store.ts'
import type { NamedConflict } from './sync.ts'

const job = useJob()
const item = computed(() => job.tray[0] ?? null)
const conflict = computed<NamedConflict | null>(() => {
  if (!item.value) return null
  const given = item.value.conflict as NamedConflict
  if (given.who) return given
  const entry = lastTouch(job.journal, given.id, given.field)
  return { ...given, who: entry?.edit.by ?? null, when: entry?.takenAt ?? null }
})
const canTakeMine = computed(
  () => conflict.value?.code === 'changed' && item.value?.edit.ops.every((op) => op.op === 'set'),
)
const setsPlan = computed(() => (item.value?.edit.ops.length ?? 0) > 1)
</script>

<template>
  <v-dialog :model-value="!!item" max-width="620" persistent>
    <v-card v-if="item && conflict" class="pa-6" title="Your change and a colleague's meet">
      <p>
        You {{ titleOf(item.edit) }}. {{ conflictWords(job.doc, conflict) }}
        <span v-if="job.tray.length > 1" class="quiet">({{ job.tray.length - 1 }} more after this)</span>
      </p>
      <table v-if="conflict.field" class="plain my-4">
        <tbody>
          <tr>
            <th scope="row">Yours</th>
            <td class="value">{{ valueWords(conflict.yours) }}</td>
            <td class="quiet">you, just now</td>
          </tr>
          <tr>
            <th scope="row">Theirs</th>
            <td class="value">{{ valueWords(conflict.theirs) }}</td>
            <td class="quiet">{{ whoWhen(conflict) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="setsPlan" class="quiet">
        This change set several things at once. If it came from a plan, a fix or an import, keep theirs and
        run that again on what is there now.
      </p>
      <div class="d-flex ga-3 justify-end mt-4">
        <v-btn variant="tonal" @click="job.keepTheirs(item)">Keep theirs</v-btn>
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
