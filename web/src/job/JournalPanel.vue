<script setup lang="ts">
import { computed } from 'vue'
import { titleOf } from '#core'
import { useJob } from './job-store.ts'

const job = useJob()
const open = defineModel<boolean>({ required: true })
const rows = computed(() => (open.value ? [...job.journal].reverse().slice(0, 300) : []))

function when(time: string): string {
  return new Date(time).toLocaleString(undefined, { dateStyle: 'short', timeStyle: 'short' })
}
</script>

<template>
  <v-navigation-drawer v-model="open" location="right" temporary width="380">
    <div v-if="open" class="pa-4">
      <h2 class="mb-2">Journal</h2>
      <ol class="entries">
        <li v-for="entry in rows" :key="entry.revision">
          <strong>{{ entry.edit.by }}</strong> {{ titleOf(entry.edit) }}
          <div class="quiet small">
            {{ when(entry.takenAt) }} · {{ entry.edit.ops.length }}
            {{ entry.edit.ops.length === 1 ? 'change' : 'changes' }}
          </div>
        </li>
      </ol>
    </div>
  </v-navigation-drawer>
</template>

<style scoped>
.entries {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 10px;
}
.small {
  font-size: 0.8125rem;
}
</style>
