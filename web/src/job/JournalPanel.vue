<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed } from 'vue'
import { titleOf, type JournalEntry } from '#core'
import { useJob } from './job-store.ts'
import { journalLines, touches } from './journal-lines.ts'

const job = useJob()
const open = defineModel<boolean>({ required: true })
const MOST = 300
useEventListener(document, 'keydown', (event: KeyboardEvent) => {
  if (event.key === 'Escape' && open.value) open.value = false
})

const entries = computed<readonly JournalEntry[]>(() => [...job.journal, ...job.unsent].reverse())
const shown = computed(() => {
  if (!open.value) return []
  const about = job.journalAbout
  const mine = about ? entries.value.filter((entry) => touches(entry, about.ids)) : entries.value
  return mine.slice(0, MOST).map((entry) => ({
    entry,
    title: titleOf(entry.edit),
    lines: journalLines(job.doc, job.catalogue, entry, about?.ids ?? null),
  }))
})
const more = computed(() => entries.value.length > MOST && !job.journalAbout)

function when(time: string): string {
  return new Date(time).toLocaleString(undefined, { dateStyle: 'short', timeStyle: 'short' })
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
      <p v-if="shown.length === 0" class="quiet">Nothing has been changed here yet.</p>
      <ol class="entries">
        <li v-for="item in shown" :key="item.entry.edit.id">
          <strong>{{ item.entry.edit.by }}</strong> {{ item.title }}
          <span class="quiet small">{{ when(item.entry.takenAt) }}</span>
          <ul v-if="item.lines.length > 0" class="small">
            <li v-for="(line, index) in item.lines.slice(0, 12)" :key="index">{{ line }}</li>
            <li v-if="item.lines.length > 12" class="quiet">and {{ item.lines.length - 12 }} more</li>
          </ul>
        </li>
      </ol>
      <p v-if="more" class="quiet small">The latest {{ MOST }} are shown.</p>
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
</style>
