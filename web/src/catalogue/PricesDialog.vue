<script setup lang="ts">
import { mdiTagOutline, mdiDownload, mdiFileUploadOutline } from '@mdi/js'
import { computed, ref, useTemplateRef, watch } from 'vue'
import {
  LIST_LIMIT,
  readPriceList,
  writePriceList,
  type Price,
  type PriceColumn,
  type PriceList,
} from '#core'
import { api, ApiError } from '../line/api.ts'
import { useSession } from '../line/session.ts'
import FoldedLines from '../shared/FoldedLines.vue'
import ListColumns from '../shared/ListColumns.vue'
import { saveFile } from '../shared/save-file.ts'
import { useListMeanings } from './useListMeanings.ts'

/** What devices cost, as a spreadsheet: out as it stands, in row by row. */
const session = useSession()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const open = ref(false)
const name = ref('')
const text = ref('')
const list = ref<PriceList | null>(null)
const trouble = ref('')
const done = ref('')
const busy = ref(false)
const columnWords: Readonly<Record<PriceColumn, string>> = {
  id: 'id of the entry',
  device: 'device',
  price: 'price',
  currency: 'currency',
  pieces: 'for how many pieces',
}
const { load, say, forget, remember, meanings } = useListMeanings<PriceColumn>('price list')

type Changed = Extract<PriceList['rows'][number], { ok: true }>
const changed = computed((): Changed[] =>
  (list.value?.rows ?? []).flatMap((row) => (row.ok && row.changed ? [row] : [])),
)
const same = computed(() => (list.value?.rows ?? []).filter((row) => row.ok && !row.changed).length)
const bad = computed(() => (list.value?.rows ?? []).flatMap((row) => (row.ok ? [] : [row])))

async function begin(): Promise<void> {
  list.value = null
  trouble.value = done.value = ''
  open.value = true
  await load()
}

function save(): void {
  if (session.catalogue) saveFile('prices.csv', 'text/csv;charset=utf-8', writePriceList(session.catalogue))
}

async function choose(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  name.value = file.name
  forget()
  trouble.value = done.value = ''
  list.value = null
  if (file.size > 4 * LIST_LIMIT) {
    trouble.value = `${file.name} is larger than a price list can be. Choose the CSV file.`
    return
  }
  text.value = await file.text()
  read()
}

function read(): void {
  if (session.catalogue) list.value = readPriceList(text.value, session.catalogue, meanings())
}

// A list that is looked at is compared with what stands now, also where a colleague changes it meanwhile.
watch(
  () => session.catalogue,
  () => {
    if (list.value) read()
  },
)

function means(heading: string, column: PriceColumn | 'nothing'): void {
  say(heading, column)
  read()
}

function priceWords(price: Price | undefined): string {
  if (!price) return 'not stated'
  const amount = price.amount.toFixed(Number(price.amount.toFixed(2)) === price.amount ? 2 : 4)
  return `${amount} ${price.currency}${price.pack === 1 ? '' : ` for ${price.pack}`}`
}

/** How much more or less it is, where both are in one currency. */
function change({ model, price }: Changed): string {
  const before = model.price
  if (!before || before.currency !== price.currency || before.amount === 0) return ''
  const by = (price.amount / price.pack / (before.amount / before.pack) - 1) * 100
  // A factor of two is rarely a new price: more often a wrong column, or a price for a whole pack.
  const far = by >= 100 || by <= -50 ? ' ▲' : ''
  return `${by >= 0 ? '+' : '−'}${Math.abs(by).toFixed(Math.abs(by) < 10 ? 1 : 0)} %${far}`
}
const far = computed(() => changed.value.filter((row) => change(row).endsWith('▲')).length)

async function take(): Promise<void> {
  const { catalogue } = session
  if (!catalogue) return
  busy.value = true
  trouble.value = ''
  const prices = changed.value.map(({ model, price }) => ({
    id: model.id,
    hash: catalogue.hash(model.id),
    price,
  }))
  try {
    await api('POST', '/api/catalogue/prices', { prices })
    list.value = null
    // The next list is compared with what stands then.
    await session.reloadCatalogue().catch(() => null)
    done.value = `${prices.length} ${prices.length === 1 ? 'price was' : 'prices were'} taken. Jobs keep the entries they were planned with, and offer the newer ones.`
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
    aria-label="Price list file"
    tabindex="-1"
    @change="choose"
  />
  <v-btn variant="tonal" class="text-none" :prepend-icon="mdiTagOutline" @click="begin">Prices</v-btn>
  <v-dialog v-model="open" max-width="860" scrollable>
    <v-card aria-label="Prices">
      <v-card-title>Prices of devices</v-card-title>
      <v-card-text>
        <p class="quiet">
          Save the list, write your prices into it, and choose it again; or choose a list of your supplier’s.
          Rows without a price are passed over.
        </p>
        <div class="acts">
          <v-btn variant="tonal" class="text-none" :prepend-icon="mdiDownload" @click="save"
            >Save the list (CSV)</v-btn
          >
          <v-btn
            v-if="session.may('catalogue')"
            variant="tonal"
            class="text-none"
            :prepend-icon="mdiFileUploadOutline"
            @click="chooser?.click()"
            >Choose a list with prices</v-btn
          >
          <span v-else class="quiet">Prices are taken in by the owner, or by whoever the owner lets.</span>
        </div>
        <v-alert v-if="trouble" type="error" variant="tonal">{{ trouble }}</v-alert>
        <v-alert v-if="done" type="success" variant="tonal">{{ done }}</v-alert>
        <template v-if="list">
          <h3>{{ name }}</h3>
          <v-alert v-if="list.trouble" type="error" variant="tonal"
            >{{ list.trouble }} Nothing was taken.</v-alert
          >
          <ListColumns :list="list" :words="columnWords" @means="means" />
          <template v-if="!list.trouble">
            <p>
              <strong
                >{{ changed.length }} {{ changed.length === 1 ? 'price changes' : 'prices change' }},
                {{ same }} stay as they are.</strong
              >
              <template v-if="far > 0">
                ▲ {{ far }} {{ far === 1 ? 'is' : 'are' }} at least twice or at most half of what it was: look
                at the column and the pieces.</template
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
            <table v-if="changed.length > 0" class="plain">
              <thead>
                <tr>
                  <th>Device</th>
                  <th class="num">Now</th>
                  <th class="num">New</th>
                  <th class="num">Change</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="row in changed" :key="row.model.id">
                  <td>
                    <strong>{{ row.model.name }}</strong> <span class="quiet">{{ row.model.maker }}</span>
                  </td>
                  <td class="num">{{ priceWords(row.model.price) }}</td>
                  <td class="num">{{ priceWords(row.price) }}</td>
                  <td class="num">{{ change(row) }}</td>
                </tr>
              </tbody>
            </table>
          </template>
        </template>
      </v-card-text>
      <v-card-actions>
        <v-btn class="text-none" @click="open = false">Close</v-btn>
        <v-btn
          v-if="changed.length > 0"
          color="primary"
          variant="flat"
          class="text-none"
          :loading="busy"
          @click="take"
          >Take {{ changed.length }} {{ changed.length === 1 ? 'price' : 'prices' }}</v-btn
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
.rows {
  padding-left: 18px;
}
.not-taken {
  color: rgb(var(--v-theme-error));
}
</style>
