<script setup lang="ts">
import { computed } from 'vue'
import type { Op } from '#core'
import { useJob } from '../store/job-store.ts'
import { opLines } from '../store/ops-words.ts'

const props = defineProps<{ ops: readonly Op[] }>()
const job = useJob()
const lines = computed(() => opLines(job.doc, job.catalogue, props.ops))
</script>

<template>
  <table class="plain">
    <tbody>
      <tr v-for="(line, index) in lines" :key="index">
        <th scope="row">{{ line.what }}</th>
        <td class="quiet">{{ line.from }}</td>
        <td v-if="line.from">→</td>
        <td v-else></td>
        <td class="to">{{ line.to }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.to {
  font-weight: 650;
}
</style>
