<script setup lang="ts">
import { conflictWords, valueWords, whoWhen } from './conflict-words.ts'
import { useJob } from '../store/job-store.ts'
import { useTouch } from './useTouch.ts'

const job = useJob()
const touch = useTouch(() => job.undoRest?.conflicts[0] ?? null)
</script>

<template>
  <v-dialog :model-value="!!job.undoRest" max-width="620" @update:model-value="job.undoRest = null">
    <v-card v-if="job.undoRest" class="pa-6" title="Part of it was changed since">
      <ul class="my-2 pl-5">
        <li v-for="(conflict, index) in job.undoRest.conflicts" :key="`${conflict.id} ${conflict.field}`">
          {{ conflictWords(job.doc, conflict, job.system?.panel ?? null) }} It is now
          {{ valueWords(conflict.theirs)
          }}<template v-if="index === 0 && touch.who"> ({{ whoWhen({ ...conflict, ...touch }) }})</template>
          and stays so.
        </li>
      </ul>
      <p v-if="job.undoRest.ops.length > 0">
        The rest, {{ job.undoRest.ops.length }} {{ job.undoRest.ops.length === 1 ? 'change' : 'changes' }},
        can still be taken back.
      </p>
      <p v-else>Nothing is left to take back.</p>
      <div class="d-flex ga-3 justify-end mt-4">
        <v-btn variant="tonal" @click="job.undoRest = null">Leave everything</v-btn>
        <v-btn
          v-if="job.undoRest.ops.length > 0"
          color="primary"
          @click="job.finishUndo(job.undoRest.entry, job.undoRest.ops, job.undoRest.redo)"
        >
          Take back the rest
        </v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>
