<script setup lang="ts">
import { mdiFileUploadOutline } from '@mdi/js'
import { v4 as uuid } from 'uuid'
import { ref, useTemplateRef } from 'vue'
import FoldedLines from '../shared/FoldedLines.vue'
import { useRouter } from 'vue-router'
import type { Problem } from '#core'
import { api, ApiError } from '../line/api.ts'

const MOST_MB = 10
const router = useRouter()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const busy = ref(false)
const trouble = ref('')
const problems = ref<readonly Problem[]>([])

async function choose(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  busy.value = true
  trouble.value = ''
  problems.value = []
  try {
    if (file.size > MOST_MB * 1_048_576)
      throw new Error(`${file.name} is larger than the ${MOST_MB} MB a job file may have.`)
    const content = read(await file.text(), file.name)
    const job = uuid()
    await api('PUT', `/api/jobs/${job}/file?edit=${uuid()}`, content)
    await router.push(`/jobs/${job}/survey`)
  } catch (thrown) {
    trouble.value = (thrown as Error).message
    problems.value = thrown instanceof ApiError ? thrown.problems : []
  } finally {
    busy.value = false
  }
}

function read(text: string, name: string): unknown {
  try {
    return JSON.parse(text) as unknown
  } catch {
    throw new Error(`${name} is not valid JSON, so it is no Kapelle job file. Nothing was changed.`)
  }
}
</script>

<template>
  <input
    ref="chooser"
    type="file"
    accept=".json,application/json"
    class="sr-only"
    aria-label="Job file"
    tabindex="-1"
    @change="choose"
  />
  <v-btn
    variant="tonal"
    class="text-none"
    :prepend-icon="mdiFileUploadOutline"
    :loading="busy"
    @click="chooser?.click()"
    >Open a job file</v-btn
  >
  <v-dialog :model-value="trouble !== ''" max-width="640" @update:model-value="trouble = ''">
    <v-card>
      <v-card-title>The job file was not taken</v-card-title>
      <v-card-text>
        <p>{{ trouble }}</p>
        <FoldedLines v-slot="{ line }" :lines="problems" :most="12" class="mt-2 ml-4"
          ><strong>{{ line.path }}</strong> {{ line.message }}</FoldedLines
        >
      </v-card-text>
      <v-card-actions><v-btn class="text-none" @click="trouble = ''">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>
