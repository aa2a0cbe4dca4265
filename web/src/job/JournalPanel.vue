<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed } from 'vue'
import { titleOf, type JournalEntry } from '#core'
import FoldedLines from '../shared/FoldedLines.vue'
import { useJob } from '../store/job-store.ts'
import { useWritten } from '../shared/times.ts'
import { journalLines, touches } from './journal-lines.ts'
import { useJournal } from './useJournal.ts'
import { placeOf, useShow } from './useShow.ts'

const job = useJob()
const { moment: when } = useWritten()
const open = defineModel<boolean>({ required: true })
const journal = useJournal(open)
const go = useShow()
useEventListener(document, 'keydown', (event: KeyboardEvent) => {
  if (event.key === 'Escape' && open.value) open.value = false
})

/** What waits here stands first: it is not in the journal yet. */
const shown = computed(() => {
  if (!open.value) return []
  const about = job.journalAbout
  const waiting = [...job.unsent].reverse().filter((entry) => !about || touches(entry, about.ids))
  const line = (entry: JournalEntry, waits: boolean) => ({
    entry,
    waits,
    title: titleOf(entry.edit),
    place: placeOfEntry(entry),
    lines: journalLines(job.doc, job.catalogue, entry, about?.ids ?? null),
  })
  return [
    ...waiting.map((entry) => line(entry, true)),
    ...journal.entries.value.map((entry) => line(entry, false)),
  ]
})

/** Where the first thing that an edit touched is worked on; null where it is gone. */
function placeOfEntry(entry: JournalEntry): ReturnType<typeof placeOf> {
  for (const op of entry.edit.ops) {
    const id = op.op === 'set' ? op.id : op.record.id
    const place = job.doc.records[id] ? placeOf(id, op.op === 'set' ? op.field : null) : null
    if (place) return place
  }
  return null
}

function show(place: NonNullable<ReturnType<typeof placeOf>>): void {
  open.value = false
  go(place)
}
</script>

<template>
  <v-navigation-drawer v-model="open" location="right" temporary width="430" aria-label="Journal">
    <div v-if="open" class="pa-4">
      <div class="head">
        <h2>Journal{{ job.journalAbout ? `: ${job.journalAbout.name}` : '' }}</h2>
        <v-btn
          v-if="job.journalAbout"
          size="small"
          variant="text"
          class="text-none"
          @click="job.journalAbout = null"
          >The whole job</v-btn
        >
        <span class="grow" />
        <v-btn size="small" variant="text" class="text-none" @click="open = false">Close</v-btn>
      </div>
      <p v-if="journal.state.value === 'failed'" role="alert">
        The journal cannot be read now.
        <v-btn size="small" variant="text" class="text-none" @click="journal.more">Try again</v-btn>
      </p>
      <p v-else-if="shown.length === 0 && journal.state.value === 'ready'" class="quiet">
        Nothing has been changed here yet.
      </p>
      <ol class="entries">
        <li v-for="item in shown" :key="item.entry.edit.id">
          <strong>{{ item.entry.edit.by.name }}</strong> {{ item.title
          }}<span v-if="item.entry.edit.madeFor">, made by {{ item.entry.edit.madeFor.name }}, who left</span>
          <span class="quiet small when">{{
            item.waits ? 'waiting to be sent' : when(item.entry.takenAt)
          }}</span>
          <v-btn
            v-if="item.place"
            size="x-small"
            variant="text"
            class="text-none"
            :aria-label="`Show where ${item.entry.edit.by.name} ${item.title}`"
            @click="show(item.place)"
            >Show</v-btn
          >
          <FoldedLines
            v-if="item.lines.length > 0"
            v-slot="{ line }"
            :lines="item.lines"
            :most="12"
            class="small"
            >{{ line }}</FoldedLines
          >
        </li>
      </ol>
      <v-btn
        v-if="journal.older.value"
        size="small"
        variant="tonal"
        class="text-none mt-3"
        :loading="journal.state.value === 'loading'"
        @click="journal.more"
        >Show older entries</v-btn
      >
    </div>
  </v-navigation-drawer>
</template>

<style scoped>
.head {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
}
.grow {
  flex: 1 1 auto;
}
.entries {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 10px;
}
.entries ul {
  margin: 2px 0 0;
  padding-left: 16px;
}
.small {
  font-size: 0.8125rem;
}
.when {
  margin-left: 6px;
}
</style>
