<script setup lang="ts">
import { computed } from 'vue'
import { jobInfo } from '#core'
import { useJob } from '../../store/job-store.ts'

defineProps<{ keys: readonly string[] }>()
const job = useJob()
const off = computed(() => jobInfo(job.doc).keysOff)

function turnKey(key: string, isOff: boolean): void {
  const now = off.value
  const next = isOff ? [...now, key] : now.filter((item) => item !== key)
  job.set('job.set', 'job:main', 'keysOff', now, next)
}
</script>

<template>
  <fieldset class="keys-off">
    <legend>Keypad keys switched off</legend>
    <label v-for="key in keys" :key="key">
      <input
        type="checkbox"
        :checked="off.includes(key)"
        :aria-label="`Switch the ${key} off`"
        @change="turnKey(key, ($event.target as HTMLInputElement).checked)"
      />
      {{ key }}
    </label>
    <span class="quiet">Losing a help or panic key needs the customer’s consent, recorded at hand-over.</span>
  </fieldset>
</template>

<style scoped>
.keys-off {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin-top: 10px;
  padding: 4px 12px 8px;
  border: 1px solid rgba(var(--v-theme-on-surface), 0.2);
  border-radius: 6px;
}
</style>
