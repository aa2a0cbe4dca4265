<script setup lang="ts">
import { mdiTagSearchOutline } from '@mdi/js'
import { v4 as uuid } from 'uuid'
import { computed, ref, watch } from 'vue'
import {
  blankDevice,
  groupId,
  identify,
  nextOrder,
  recordProblems,
  STICKER_LIMIT,
  type Device,
  type Identified,
  type Op,
} from '#core'
import { useJob } from '../../store/job-store.ts'

const job = useJob()
const open = ref(false)
const text = ref('')
const chosen = ref<Identified | null>(null)
const model = ref<string | null>(null)
const room = ref('')
const fault = ref('')
const added = ref('')
const answer = computed(() => identify(job.catalogue, text.value))
const taken = computed(() =>
  (job.system?.devices ?? []).find(
    ({ device }) => device.sticker !== null && device.sticker === chosen.value?.serial,
  ),
)
watch(text, (now) => {
  chosen.value = null
  if (now !== '') added.value = ''
})
// With one answer there is nothing to choose between, unless a sign is in doubt.
watch(answer, ({ could }) => {
  if (could.length === 1 && could[0]?.instead === null && !chosen.value) chosen.value = could[0]
})
const doubts = computed(() => [
  ...new Set(
    answer.value.could.flatMap(({ instead }) => (instead ? `${instead.typed} or ${instead.read}` : [])),
  ),
])
watch(chosen, (now) => (model.value = now?.models[0]?.id ?? null))

/** The device on the wall joins the kit as existing; what becomes of it is decided later. */
function add(): void {
  const now = chosen.value
  if (!now || !model.value) return
  const record: Device = {
    ...blankDevice,
    id: `device:${uuid()}`,
    model: model.value,
    room: room.value.trim(),
    existing: true,
    sticker: now.serial,
    order: nextOrder(job.doc, 'device'),
  }
  fault.value = recordProblems(record)
    .map((problem) => `${problem.path.replace(/^\./, '')} ${problem.message}`)
    .join('; ')
  if (fault.value !== '') return
  const ops: Op[] = [...job.pins([model.value]), { op: 'add', record }]
  job.edit('device.add', ops)
  text.value = ''
  added.value = `${job.catalogue.get('device', record.model)?.name ?? 'It'} is in the kit.`
}
</script>

<template>
  <v-btn
    variant="tonal"
    size="small"
    class="text-none no-print"
    :prepend-icon="mdiTagSearchOutline"
    @click="open = true"
    >Identify a sticker</v-btn
  >
  <v-dialog v-model="open" max-width="820" scrollable>
    <v-card aria-label="Identify a sticker">
      <v-card-title>What is on the wall?</v-card-title>
      <v-card-text>
        <v-text-field
          v-model="text"
          label="Type, paste or scan what the sticker says"
          autofocus
          :maxlength="STICKER_LIMIT"
          autocomplete="off"
        />
        <p v-if="added" role="status" class="mt-2">✓ {{ added }}</p>
        <p v-if="text.trim() === ''" class="quiet mt-2">
          All of it helps: letters, digits, gaps, and any word that could be a model. Only a reading of the
          whole sticker is sure; take the cover off where the ID is inside.
        </p>
        <template v-else>
          <p v-if="answer.could.length === 0" class="mt-2">
            <strong>No family of the catalogue has such an ID.</strong>
          </p>
          <p v-else-if="doubts.length > 0" class="mt-2" role="status">
            <strong>Look at the sticker once more: {{ doubts.join(', ') }}?</strong> What you typed fits one
            family, and read otherwise another. Choose the one that the sticker says.
          </p>
          <ol v-if="answer.could.length > 0" class="could" aria-label="What it could be">
            <li v-for="item in answer.could" :key="`${item.family.id} ${item.serial}`">
              <button
                type="button"
                class="option"
                :class="{ on: chosen === item }"
                :aria-pressed="chosen === item"
                @click="chosen = item"
              >
                <strong>{{ item.family.name }}</strong>
                <span class="id">{{ groupId(item.family, item.serial) }}</span>
                <span class="why">{{ item.reasons.join('; ') }}</span>
              </button>
            </li>
          </ol>
          <details v-if="answer.not.length > 0" class="quiet small">
            <summary>Why not another family</summary>
            <ul class="not">
              <li v-for="item in answer.not" :key="item.family.id">
                {{ item.family.name }}: {{ item.reason }}
              </li>
            </ul>
          </details>
          <form v-if="chosen" class="take" @submit.prevent="add">
            <v-select
              v-model="model"
              label="Model"
              :items="chosen.models.map((entry) => ({ title: entry.name, value: entry.id }))"
            />
            <v-text-field v-model="room" label="Room" :error-messages="fault" />
            <v-btn type="submit" color="primary" class="text-none" :disabled="taken !== undefined"
              >Add as existing</v-btn
            >
          </form>
          <p v-if="taken" class="taken">
            This ID is in the kit already: {{ taken.model.name
            }}{{ taken.device.room ? `, ${taken.device.room}` : '' }}.
          </p>
        </template>
      </v-card-text>
      <v-card-actions><v-btn class="text-none" @click="open = false">Done</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.could {
  list-style: none;
  padding: 0;
  margin: 10px 0;
  display: grid;
  gap: 4px;
}
.option {
  font: inherit;
  color: inherit;
  width: 100%;
  display: grid;
  grid-template-columns: 100px 150px 1fr;
  gap: 12px;
  align-items: baseline;
  padding: 9px 12px;
  border: 1px solid rgba(var(--v-theme-on-surface), 0.18);
  border-radius: 8px;
  background: transparent;
  text-align: left;
  cursor: pointer;
}
.on {
  border-color: rgb(var(--v-theme-primary));
  box-shadow: inset 4px 0 0 rgb(var(--v-theme-primary));
}
.why,
.small {
  font-size: 0.875rem;
}
.not {
  padding-left: 18px;
}
.take {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 10px;
  margin-top: 12px;
}
.taken {
  color: rgb(var(--v-theme-warning));
  margin-top: 8px;
}
@media (max-width: 700px) {
  .option,
  .take {
    grid-template-columns: 1fr;
  }
}
</style>
