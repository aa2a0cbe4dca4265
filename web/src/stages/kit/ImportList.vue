<script setup lang="ts">
import { mdiFileUploadOutline } from '@mdi/js'
import { v4 as uuid } from 'uuid'
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import {
  headingKey,
  LIST_LIMIT,
  nextOrder,
  readEquipmentList,
  recordsOf,
  type EquipmentList,
  type ListColumn,
  type Op,
} from '#core'
import { api } from '../../line/api.ts'
import { useSession } from '../../line/session.ts'
import ListColumns from '../../shared/ListColumns.vue'
import { useJob } from '../../store/job-store.ts'

const columnWords: Readonly<Record<ListColumn, string>> = {
  device: 'device',
  quantity: 'quantity',
  room: 'room',
  position: 'position',
  use: 'use of the opening',
  sticker: 'sticker ID',
  deferred: 'why its place is open',
}
const session = useSession()
const job = useJob()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const name = ref('')
const list = ref<EquipmentList | null>(null)
const text = ref('')
/** What headings of this firm's lists mean: as remembered, and as just said. */
const remembered = ref<Record<string, string>>({})
const said = ref<Record<string, string>>({})
onMounted(async () => {
  const answer = await api<{ columns: Record<string, string> }>('GET', '/api/list-columns').catch(() => null)
  remembered.value = answer?.columns ?? {}
})
const good = computed(() => list.value?.rows.filter((row) => row.ok) ?? [])
const bad = computed(() => list.value?.rows.filter((row) => !row.ok) ?? [])
const devices = computed(() => good.value.reduce((sum, row) => sum + (row.ok ? row.devices.length : 0), 0))

async function choose(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  name.value = file.name
  said.value = {}
  text.value = file.size > 4 * LIST_LIMIT ? '' : await file.text()
  list.value =
    file.size > 4 * LIST_LIMIT
      ? {
          rows: [],
          used: [],
          unknown: [],
          headings: [],
          trouble: 'This file is larger than an equipment list can be. Choose the CSV file.',
        }
      : read()
  input.value = ''
}

function read(): EquipmentList {
  const known = recordsOf(job.doc, 'device').flatMap((device) =>
    device.sticker === null
      ? []
      : [
          {
            serial: device.sticker,
            where: `${job.system?.byId.get(device.id)?.model.name ?? 'a device'}${device.room ? ` in ${device.room}` : ''} of this job`,
          },
        ],
  )
  return readEquipmentList(text.value, job.catalogue, {
    meanings: { ...remembered.value, ...said.value },
    knownIds: known,
  })
}

/** Reads the list again with what somebody said of a column. */
function means(heading: string, column: ListColumn | 'nothing'): void {
  said.value = { ...said.value, [headingKey(heading)]: column }
  list.value = read()
}

/** Remembered once the list is taken; without the server it is asked again next time. */
async function remember(): Promise<void> {
  if (Object.keys(said.value).length === 0) return
  remembered.value = { ...remembered.value, ...said.value }
  // What headings mean is kept for the firm by whoever may; the list comes in all the same.
  if (session.may('columns')) await api('PUT', '/api/list-columns', { columns: said.value }).catch(() => null)
}

/** Everything that was good comes in as one edit: one press, one undo. */
function take(): void {
  const rows = good.value.flatMap((row) => (row.ok ? [row] : []))
  let order = nextOrder(job.doc, 'device')
  const adds = rows.flatMap((row) =>
    row.devices.map((device): Op => ({
      op: 'add',
      record: { id: `device:${uuid()}`, ...device, order: order++ },
    })),
  )
  job.edit('device.import', [...job.pins([...new Set(rows.map((row) => row.model.id))]), ...adds])
  void remember()
  list.value = null
}
</script>

<template>
  <input
    ref="chooser"
    type="file"
    accept=".csv,.txt,.tsv,text/csv,text/plain"
    class="sr-only"
    aria-label="Equipment list file"
    tabindex="-1"
    @change="choose"
  />
  <v-btn
    variant="tonal"
    size="small"
    class="text-none no-print"
    :prepend-icon="mdiFileUploadOutline"
    @click="chooser?.click()"
    >Import a list</v-btn
  >
  <v-dialog :model-value="list !== null" max-width="860" scrollable @update:model-value="list = null">
    <v-card v-if="list" aria-label="Equipment list">
      <v-card-title>Equipment list: {{ name }}</v-card-title>
      <v-card-text>
        <v-alert v-if="list.trouble" type="error" variant="tonal"
          >{{ list.trouble }} Nothing was taken.</v-alert
        >
        <ListColumns :list="list" :words="columnWords" @means="means" />
        <template v-if="!list.trouble">
          <p>
            <strong
              >{{ good.length }} of {{ list.rows.length }} rows can be taken, {{ devices }} devices.</strong
            >
          </p>
          <section v-if="bad.length > 0">
            <h3 class="not-taken">
              ■ {{ bad.length }} {{ bad.length === 1 ? 'row is' : 'rows are' }} not taken
            </h3>
            <table class="plain">
              <thead>
                <tr>
                  <th class="num">Row</th>
                  <th>Reason</th>
                  <th>As it stands</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="row in bad" :key="row.row">
                  <td class="num">{{ row.row }}</td>
                  <td>{{ row.ok ? '' : row.reasons.join('; ') }}</td>
                  <td class="quiet">{{ row.ok ? '' : row.text }}</td>
                </tr>
              </tbody>
            </table>
          </section>
          <section v-if="good.length > 0" class="mt-4">
            <h3>✓ To be taken</h3>
            <table class="plain">
              <thead>
                <tr>
                  <th class="num">Row</th>
                  <th>Device</th>
                  <th class="num">Qty</th>
                  <th>Room, position</th>
                  <th>Sticker ID</th>
                </tr>
              </thead>
              <tbody>
                <template v-for="row in good" :key="row.row">
                  <tr v-if="row.ok">
                    <td class="num">{{ row.row }}</td>
                    <td>{{ row.model.name }}</td>
                    <td class="num">{{ row.devices.length }}</td>
                    <td>
                      {{ [row.devices[0]?.room, row.devices[0]?.position].filter(Boolean).join(', ')
                      }}{{ row.devices[0]?.deferred ? `place open: ${row.devices[0].deferred}` : '' }}
                    </td>
                    <td class="id">{{ row.devices[0]?.sticker ?? '' }}</td>
                  </tr>
                  <tr v-for="doubt in row.ok ? row.doubts : []" :key="`${row.row} ${doubt}`">
                    <td></td>
                    <td colspan="4" class="doubt">▲ {{ doubt }}</td>
                  </tr>
                </template>
              </tbody>
            </table>
          </section>
        </template>
      </v-card-text>
      <v-card-actions>
        <v-btn class="text-none" @click="list = null">Cancel</v-btn>
        <v-btn v-if="good.length > 0" color="primary" variant="flat" class="text-none" @click="take">{{
          bad.length > 0 ? `Take the ${good.length} good rows` : `Take all ${good.length} rows`
        }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.doubt {
  color: rgb(var(--v-theme-warning));
}
.not-taken {
  color: rgb(var(--v-theme-error));
  margin-top: 12px;
}
</style>
