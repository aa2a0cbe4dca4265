<script setup lang="ts">
import { mdiDownload, mdiFileUploadOutline } from '@mdi/js'
import { computed, onBeforeUnmount, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { deviceHeadings, LIST_LIMIT, type DeviceColumn, type DeviceList, type DeviceRow } from '#core'
import { api, ApiError } from '../line/api.ts'
import { useSession } from '../line/session.ts'
import FoldedLines from '../shared/FoldedLines.vue'
import ListColumns from '../shared/ListColumns.vue'
import { saveFile } from '../shared/save-file.ts'
import type { DeviceListAnswer, DeviceListRequest } from './device-list-worker.ts'
import { useListMeanings } from './useListMeanings.ts'

/** Devices as a spreadsheet: out as the catalogue has them, in row by row, new ones and next versions. */
const open = defineModel<boolean>({ required: true })
const session = useSession()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const { load, say, forget, remember, meanings } = useListMeanings<DeviceColumn>('device list')
const name = ref('')
const text = ref('')
const list = shallowRef<DeviceList | null>(null)
const trouble = ref('')
const done = ref('')
const busy = ref(false)

type Taken = Extract<DeviceRow, { ok: true }>
const good = computed((): Taken[] => (list.value?.rows ?? []).flatMap((row) => (row.ok ? [row] : [])))
const coming = computed(() => good.value.filter(({ state }) => state !== 'same'))
const bad = computed(() => (list.value?.rows ?? []).flatMap((row) => (row.ok ? [] : [row])))
const count = (state: Taken['state']): number => good.value.filter((row) => row.state === state).length
const words = { new: '+ new', changed: '≠ next version', same: '= same' } as const

let worker: Worker | null = null
onBeforeUnmount(() => worker?.terminate())
/** Asks the worker; what was asked before is given up. */
function ask(read: DeviceListRequest['read']): Promise<DeviceListAnswer> {
  worker?.terminate()
  busy.value = true
  return new Promise<DeviceListAnswer>((answer, fail) => {
    worker = new Worker(new URL('./device-list-worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = (event: MessageEvent<DeviceListAnswer>) => answer(event.data)
    worker.onerror = () =>
      fail(new Error('The list could not be read here. Load the page again and try once more.'))
    worker.postMessage({ entries: session.catalogue?.kept ?? [], read } satisfies DeviceListRequest)
  }).finally(() => (busy.value = false))
}

async function save(): Promise<void> {
  const answer = await ask(null)
  if ('text' in answer) saveFile('devices.csv', 'text/csv;charset=utf-8', answer.text)
}

async function choose(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  name.value = file.name
  trouble.value = done.value = ''
  list.value = null
  forget()
  if (file.size > 4 * LIST_LIMIT) {
    trouble.value = `${file.name} is larger than a list of devices can be. Choose the CSV file.`
    return
  }
  text.value = await file.text()
  await load()
  await read()
}

async function read(): Promise<void> {
  try {
    const answer = await ask({ text: text.value, meanings: meanings() })
    if ('list' in answer) list.value = answer.list
  } catch (thrown) {
    trouble.value = (thrown as Error).message
  }
}

// A list that is looked at is compared with what stands now, also where a colleague changes it meanwhile.
watch(
  () => session.catalogue,
  () => {
    if (list.value) void read()
  },
)

function means(heading: string, column: DeviceColumn | 'nothing'): void {
  say(heading, column)
  void read()
}

async function take(): Promise<void> {
  const { catalogue } = session
  if (!catalogue) return
  trouble.value = ''
  busy.value = true
  const devices = coming.value.map(({ kept, state }) => ({
    hash: state === 'new' ? null : catalogue.hash(kept.entry.id),
    entry: kept.raw,
  }))
  try {
    await api('POST', '/api/catalogue/devices', { list: name.value.slice(-120), devices })
    list.value = null
    // The next list is compared with what stands then.
    await session.reloadCatalogue().catch(() => null)
    done.value = `${devices.length} ${devices.length === 1 ? 'device was' : 'devices were'} published. Jobs keep the entries they were planned with, and offer the newer ones.`
    void remember()
  } catch (thrown) {
    const lines = thrown instanceof ApiError ? thrown.problems.slice(0, 5).map(({ message }) => message) : []
    trouble.value = [(thrown as Error).message, ...lines].join(' ')
    // Where the line is gone the catalogue stays as it was; the next list is compared by the server once more.
    await session.reloadCatalogue().catch(() => null)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <input
    ref="chooser"
    type="file"
    accept=".csv,.txt,.tsv,text/csv,text/plain"
    class="sr-only"
    aria-label="Device list file"
    tabindex="-1"
    @change="choose"
  />
  <v-dialog v-model="open" max-width="900" scrollable>
    <v-card aria-label="Devices from a spreadsheet">
      <v-card-title>Devices from a spreadsheet</v-card-title>
      <v-card-text>
        <p class="quiet">
          Save the list to see how a row is written, add your own below, and choose it again; or choose a list
          of your own and say what its columns mean. An empty cell leaves what a device says; – says that
          there is none, or that it is not stated.
        </p>
        <details class="how">
          <summary>How several events, ways or codes stand in one cell</summary>
          <p>
            Each in its order with “ / ” between, and “ | ” before the next:
            <code>opening (reed) / 3 / reed | terminals / 4 / wired terminals / no</code> is two events, each
            with its loop, its name, and whether it can be tripped on the bench.
          </p>
        </details>
        <div class="acts">
          <v-btn variant="tonal" :prepend-icon="mdiDownload" :loading="busy" @click="save"
            >Save the list (CSV)</v-btn
          >
          <v-btn
            v-if="session.may('catalogue')"
            variant="tonal"
            :prepend-icon="mdiFileUploadOutline"
            :loading="busy"
            @click="chooser?.click()"
            >Choose a list of devices</v-btn
          >
          <span v-else class="quiet">Devices are published by the owner, or by whoever the owner lets.</span>
        </div>
        <v-alert v-if="trouble" type="error" variant="tonal">{{ trouble }}</v-alert>
        <v-alert v-if="done" type="success" variant="tonal">{{ done }}</v-alert>
        <template v-if="list">
          <h3>{{ name }}</h3>
          <v-alert v-if="list.trouble" type="error" variant="tonal"
            >{{ list.trouble }} Nothing was taken.</v-alert
          >
          <ListColumns :list="list" :words="deviceHeadings" @means="means" />
          <template v-if="!list.trouble">
            <p>
              <strong
                >{{ count('new') }} new, {{ count('changed') }} with a next version, {{ count('same') }} as
                they are.</strong
              >
            </p>
            <section v-if="bad.length > 0">
              <h3 class="not-taken">
                ■ {{ bad.length }} {{ bad.length === 1 ? 'row is' : 'rows are' }} not taken
              </h3>
              <FoldedLines v-slot="{ line }" :lines="bad" :most="20" class="rows"
                >Row {{ line.row }}: {{ line.reasons.join('; ') }}
                <span class="quiet">({{ line.text }})</span>
              </FoldedLines>
            </section>
            <table v-if="coming.length > 0" class="plain">
              <thead>
                <tr>
                  <th>Device</th>
                  <th>What comes</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="row in coming" :key="row.kept.entry.id">
                  <td>
                    <strong>{{ row.kept.entry.name }}</strong>
                    <span class="quiet"> {{ row.kept.entry.maker }}</span>
                  </td>
                  <td>
                    {{ words[row.state] }}
                    <span v-for="one in row.changes" :key="one.label" class="change">
                      {{ one.label
                      }}<template v-if="one.was !== null">: {{ one.was }} → {{ one.now }}</template>
                    </span>
                  </td>
                </tr>
              </tbody>
            </table>
          </template>
        </template>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="open = false">Close</v-btn>
        <v-btn v-if="coming.length > 0" color="primary" variant="flat" :loading="busy" @click="take"
          >Publish {{ coming.length }} {{ coming.length === 1 ? 'device' : 'devices' }}</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 12px 0;
}
.how {
  margin-top: 8px;
}
.how code {
  overflow-wrap: anywhere;
}
.rows {
  padding-left: 18px;
}
.not-taken {
  color: rgb(var(--v-theme-error));
}
.change {
  display: block;
}
td {
  vertical-align: top;
}
</style>
