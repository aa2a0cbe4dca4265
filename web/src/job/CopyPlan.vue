<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { copyName, jobInfo, newAirSeed, planCopyOps, SCHEMA } from '#core'
import { api } from '../line/api.ts'
import { useJob } from '../store/job-store.ts'

/** Begins a real job from a practice plan, or a practice job from a real one: the plan only, nothing that was learned or seen. */
const job = useJob()
const router = useRouter()
const busy = ref(false)
const fault = ref('')
const practice = computed(() => jobInfo(job.doc).practice)

async function copy(): Promise<void> {
  busy.value = true
  fault.value = ''
  const id = uuid()
  const ops = planCopyOps(job.doc, {
    name: copyName(jobInfo(job.doc).name, !practice.value),
    practice: !practice.value,
    airSeed: newAirSeed(Date.now()),
  })
  const edit = {
    id: uuid(),
    kind: 'job.copy',
    schema: SCHEMA,
    by: job.me,
    madeAt: new Date().toISOString(),
    ops,
  }
  try {
    await api('PUT', `/api/jobs/${id}`, { edit })
    await router.push(`/jobs/${id}/survey`)
  } catch (thrown) {
    fault.value = (thrown as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <v-btn
    v-if="!job.looksOn"
    size="small"
    variant="text"
    class="text-none no-print"
    :loading="busy"
    title="Takes the plan only: no IDs, stickers or proofs, and no departures from house rules"
    @click="copy"
    >{{ practice ? 'Begin a real job from this plan' : 'Practise on a copy of this plan' }}</v-btn
  >
  <span v-if="fault" role="alert">{{ fault }}</span>
</template>
