<script setup lang="ts">
import { mdiFileUploadOutline } from '@mdi/js'
import { computed, ref, useTemplateRef } from 'vue'
import FoldedLines from '../shared/FoldedLines.vue'
import { comparePack, PACK_LIMIT, readPack, type PackChange, type Problem } from '#core'
import { api, ApiError } from '../line/api.ts'
import { useSession } from '../line/session.ts'

const session = useSession()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const name = ref('')
const pack = ref<unknown>(null)
const changes = ref<readonly PackChange[]>([])
const problems = ref<readonly Problem[]>([])
const trouble = ref('')
const open = ref(false)
const busy = ref(false)
const words = { new: '＋ new', changed: '≠ changed', same: '= same' } as const
const counts = computed(() => ({
  new: changes.value.filter((change) => change.state === 'new').length,
  changed: changes.value.filter((change) => change.state === 'changed').length,
  same: changes.value.filter((change) => change.state === 'same').length,
}))

async function choose(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  name.value = file.name
  changes.value = []
  problems.value = []
  trouble.value = ''
  open.value = true
  if (file.size > PACK_LIMIT) {
    trouble.value = `${file.name} has ${(file.size / 1e6).toFixed(1)} MB; a catalogue pack may have at most ${PACK_LIMIT / 1e6} MB. Nothing was sent.`
    return
  }
  preview(await file.text())
}

/** Reads the pack here, as the server will: entry by entry, what is new, changed or the same by its hash. */
function preview(text: string): void {
  const catalogue = session.catalogue
  if (!catalogue) return
  try {
    pack.value = JSON.parse(text) as unknown
  } catch {
    trouble.value = `${name.value} is not valid JSON, so it is no catalogue pack. Nothing was changed.`
    return
  }
  const read = readPack(pack.value, catalogue.entries)
  if (!read.ok) {
    trouble.value = 'This pack cannot be taken; all of it comes in or nothing.'
    problems.value = read.problems
    return
  }
  changes.value = comparePack(read.entries, catalogue)
}

async function take(): Promise<void> {
  busy.value = true
  try {
    await api('POST', '/api/catalogue/pack', { pack: pack.value })
    await session.reloadCatalogue()
    open.value = false
  } catch (thrown) {
    trouble.value = (thrown as Error).message
    problems.value = thrown instanceof ApiError ? thrown.problems : []
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <input
    ref="chooser"
    type="file"
    accept=".json,application/json"
    class="sr-only"
    aria-label="Catalogue pack file"
    tabindex="-1"
    @change="choose"
  />
  <v-btn
    v-if="session.may('catalogue')"
    variant="tonal"
    class="text-none"
    :prepend-icon="mdiFileUploadOutline"
    @click="chooser?.click()"
    >Import a pack</v-btn
  >
  <span v-else class="quiet">Packs are taken in by the owner, or by whoever the owner lets.</span>
  <v-dialog v-model="open" max-width="760" scrollable>
    <v-card aria-label="Catalogue pack">
      <v-card-title>Catalogue pack: {{ name }}</v-card-title>
      <v-card-text>
        <v-alert v-if="trouble" type="error" variant="tonal">{{ trouble }}</v-alert>
        <FoldedLines
          v-if="problems.length > 0"
          v-slot="{ line }"
          :lines="problems"
          :most="30"
          class="problems"
          ><strong>{{ line.path }}</strong> {{ line.message }}</FoldedLines
        >
        <template v-if="changes.length > 0">
          <p>
            <strong>{{ counts.new }} new, {{ counts.changed }} changed, {{ counts.same }} the same.</strong>
            Jobs keep the entries they were planned with; they show where a newer one exists.
          </p>
          <table class="plain">
            <tbody>
              <tr
                v-for="change in changes.filter((item) => item.state !== 'same').slice(0, 200)"
                :key="change.entry.entry.id"
              >
                <td>{{ words[change.state] }}</td>
                <td>{{ change.entry.entry.kind }}</td>
                <td>
                  <strong>{{ change.entry.entry.name }}</strong>
                </td>
                <td class="quiet">{{ change.entry.entry.maker }}</td>
              </tr>
            </tbody>
          </table>
        </template>
      </v-card-text>
      <v-card-actions>
        <v-btn class="text-none" @click="open = false">Cancel</v-btn>
        <v-btn
          v-if="counts.new + counts.changed > 0"
          color="primary"
          variant="flat"
          class="text-none"
          :loading="busy"
          @click="take"
          >Take all {{ changes.length }} entries</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.problems {
  padding-left: 18px;
  margin-top: 8px;
}
</style>
