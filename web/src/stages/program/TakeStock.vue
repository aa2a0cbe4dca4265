<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { recordsOf, systemOf, type AuditLine } from '#core'
import OpsPreview from '../../shared/OpsPreview.vue'
import { useJob } from '../../store/job-store.ts'
import DisplayBox from './DisplayBox.vue'
import DisplayFields from './DisplayFields.vue'
import KeysText from './KeysText.vue'
import { useTakeStock, type Standing } from './useTakeStock.ts'

/** A panel of which nothing is known, read off display by display, and what was found beside the plan. */
defineEmits<{ close: [] }>()
const job = useJob()
const panel = computed(() => systemOf(job.doc, job.catalogue).panel)
const { next, said, working, failed, report, leave, vague, read, upTo, takes, count, passed, ...off } =
  useTakeStock()
const { look, tell, isEmpty, typed, stands, pass, take } = off

const lines = ref<string[]>([])
/** Whether something stands there where nothing was expected. */
const other = ref(false)
const missing = ref('')
watch(next, (now) => {
  lines.value = Array.from({ length: now?.lines ?? 0 }, () => '')
  other.value = false
  missing.value = ''
})
function readLines(): void {
  missing.value = lines.value.every((line) => line.trim() === '') ? 'Type what the display shows.' : ''
  if (missing.value === '') void typed([...lines.value], next.value?.place ?? '')
}

/** The report, asked for before all is read. */
const early = ref(false)
async function soFar(): Promise<void> {
  await tell()
  early.value = true
}
const atReport = computed(() => report.value !== null && (early.value || next.value === null))

/** Whether nothing is left that is asked for, was passed over, not looked at, or not told. */
const isWhole = computed(
  () => next.value === null && passed.value === 0 && upTo.value === null && vague.value.size === 0,
)

const zones = computed(() => {
  const range = job.catalogue.get('interface', panel.value?.interface ?? null)?.pointers['zone']
  return range ? { from: range.from, to: range.to } : null
})
const limit = ref<string>('')
const limitWrong = ref('')
async function limitTo(): Promise<void> {
  const { from, to } = zones.value ?? { from: 1, to: 1 }
  const number = Number(limit.value)
  const isRight = /^\d+$/.test(limit.value.trim()) && number >= from && number <= to
  const isAll = limit.value.trim() === ''
  limitWrong.value = isRight || isAll ? '' : `A zone number from ${from} to ${to}, or nothing for all.`
  if (limitWrong.value !== '') return
  const most = isAll ? null : number
  if (most === upTo.value) return
  upTo.value = most
  await look()
}

const mark = ({ asPlanned, wanted, shipped }: AuditLine): string => {
  if (asPlanned) return '✓'
  if (wanted !== null) return '■'
  return shipped ? '·' : '◇'
}
const beside = ({ asPlanned, wanted, shipped }: AuditLine): string => {
  if (asPlanned) return 'as planned'
  if (wanted !== null) return `the plan wants ${wanted}`
  return shipped ? 'as it comes' : 'changed; the plan says nothing of it'
}
const all = computed(() => report.value?.parts.flatMap((part) => part.lines) ?? [])
const otherwise = computed(() => all.value.filter((one) => one.wanted !== null && !one.asPlanned).length)
const planned = computed(() => all.value.filter(({ asPlanned }) => asPlanned).length)
const changed = computed(() => all.value.filter((one) => one.wanted === null && !one.shipped).length)
const hasZones = computed(() => recordsOf(job.doc, 'zone').length > 0)
const taking = ref(false)
const told = (said: Standing): string => [...new Set(said.values.map(({ part }) => part))].join(', ')
const times = (number: number, one: string, many: string): string => `${number} ${number === 1 ? one : many}`
function print(): void {
  window.print()
}
</script>

<template>
  <section class="off" :class="{ wide: atReport }" aria-label="Take stock">
    <div class="bar no-print">
      <v-btn variant="text" class="text-none" min-height="48" @click="$emit('close')">‹ Back</v-btn>
      <span v-if="next && !atReport" class="quiet" aria-live="polite"
        >{{ times(next.left, 'value', 'values') }} to be read, as far as it is known what is in use</span
      >
    </div>
    <p v-if="failed" class="warn" role="alert">▲ This could not be worked out here. Load the page again.</p>
    <template v-else-if="atReport && report">
      <h2>
        {{ isWhole ? 'All that is in use' : 'Read so far' }}: {{ times(all.length, 'value', 'values') }} of
        the
        {{ panel?.name }}
      </h2>
      <p>
        <template v-if="all.length === 0">Nothing is read yet.</template>
        <template v-else>
          {{ planned }} as planned,
          <strong v-if="otherwise > 0" class="warn">{{ otherwise }} otherwise than the plan wants</strong>
          <template v-else>none otherwise than the plan wants</template>,
          {{ changed === 0 ? 'nothing else changed' : times(changed, 'other changed', 'others changed') }}
          since it came from the maker.
        </template>
        <template v-if="report.unused > 0">
          {{ times(report.unused, 'number has', 'numbers have') }} nothing stored.</template
        >
      </p>
      <p v-if="report.unplanned.length > 0" class="warn">
        ▲ {{ report.unplanned.length === 1 ? 'Zone' : 'Zones' }} {{ report.unplanned.join(', ') }}
        {{ report.unplanned.length === 1 ? 'is' : 'are' }} in use and not in the plan: find the device on the
        wall by its ID, add it in <router-link :to="{ name: 'kit' }">Kit</router-link>, and give its zone that
        number.
      </p>
      <p v-if="upTo !== null" class="warn">▲ Zones above {{ upTo }} were not looked at.</p>
      <p v-if="passed > 0" class="warn">
        ▲ {{ times(passed, 'display was', 'displays were') }} passed over: what
        {{ passed === 1 ? 'it tells' : 'they tell' }} is not known.
      </p>
      <ul v-if="vague.size > 0" class="plainlist">
        <li v-for="one in vague.values()" :key="one.address">
          ◇ {{ one.part }}, {{ one.field }}: {{ one.words }}, or nothing. This panel's display shows the first
          of the list where nothing is stored.
        </li>
      </ul>
      <div class="acts row no-print">
        <v-btn v-if="early && next" color="primary" min-height="48" class="text-none" @click="early = false"
          >Go on reading</v-btn
        >
        <v-btn
          v-if="takes.ops.length > 0"
          :variant="taking ? 'text' : 'tonal'"
          color="primary"
          min-height="48"
          class="text-none"
          @click="taking = !taking"
          >{{ taking ? 'The plan stays' : 'The plan follows the panel…' }}</v-btn
        >
        <v-btn variant="tonal" min-height="48" class="text-none" @click="print">Print</v-btn>
      </div>
      <section v-if="taking && takes.ops.length > 0" class="sheet take no-print">
        <h3>What the plan would take</h3>
        <OpsPreview :ops="takes.ops" />
        <p v-if="otherwise > 0 && takes.rest.length > 0" class="quiet">
          It cannot take everything: an ID is read off the device or heard, and what the panel does not ask of
          a zone has no place in the plan.
        </p>
        <v-btn color="primary" min-height="48" class="text-none" @click="((taking = false), take())"
          >Take it into the plan</v-btn
        >
      </section>
      <p v-if="leave !== ''" class="no-print">
        <span class="quiet">Leave the menus: </span><KeysText :text="leave" />
      </p>
      <section v-for="part in report.parts" :key="part.part" class="part">
        <h3>{{ part.part }}</h3>
        <table class="plain">
          <tbody>
            <tr v-for="line in part.lines" :key="line.address">
              <th scope="row">{{ line.field }}</th>
              <td>{{ line.words }}</td>
              <td :class="{ warn: line.wanted !== null && !line.asPlanned, quiet: line.shipped }">
                {{ mark(line) }} {{ beside(line) }}
              </td>
            </tr>
          </tbody>
        </table>
      </section>
    </template>
    <p v-else-if="working && !next" class="quiet" role="status">
      Looking for the display that says most for the fewest keys …
    </p>
    <template v-else-if="next">
      <div v-if="count === 0 && passed === 0" class="begin">
        <p>
          Read off what this panel holds, display by display: for a takeover, or where nobody knows what was
          keyed. Nothing on the way stores anything<template v-if="read.size > 0"
            >; what was keyed or read from here before is not asked again</template
          >.
          <template v-if="hasZones">Beside the plan it says what differs.</template>
        </p>
        <form v-if="zones" class="limit" @submit.prevent="limitTo">
          <v-text-field
            v-model="limit"
            :label="`Look at zones up to (${zones.from} to ${zones.to}; empty: all)`"
            inputmode="numeric"
            :error-messages="limitWrong"
            @blur="limitTo"
          />
        </form>
      </div>
      <h2>{{ next.part }}</h2>
      <template v-if="next.keys !== ''">
        <div class="label quiet">Press</div>
        <div class="press"><KeysText :text="next.keys" /></div>
      </template>
      <p class="quiet">It tells: {{ next.fields.join(', ') }}</p>
      <template v-if="next.empty && !other">
        <div class="label quiet">Where nothing is stored it shows</div>
        <DisplayBox :lines="next.empty.shows" large />
        <div class="acts">
          <v-btn color="primary" min-height="56" class="text-none" :disabled="working" @click="isEmpty"
            >It shows exactly this</v-btn
          >
          <v-btn variant="tonal" min-height="56" class="text-none" @click="other = true"
            >Something stands there</v-btn
          >
        </div>
      </template>
      <form v-else class="acts" @submit.prevent="readLines">
        <p>Type what stands there, line by line.</p>
        <DisplayFields v-model="lines" :lines="next.lines" />
        <v-btn type="submit" color="primary" min-height="48" class="text-none" :disabled="working"
          >Read</v-btn
        >
      </form>
      <p v-if="missing" class="warn" role="alert">▲ {{ missing }}</p>
      <div aria-live="polite">
        <p v-if="said?.kind === 'busy'" class="warn">
          ▲ A message stands there, or something that is typed and not sent. Clear it or leave the question,
          come back, and read it again.
        </p>
        <p v-else-if="said?.kind === 'unread'" class="warn">
          ▲ No display of this panel that tells what it holds shows exactly that. Read it once more, sign by
          sign; or press the keys above again.
        </p>
        <div v-else-if="said?.kind === 'several'" class="acts">
          <p class="warn">▲ More than one display shows exactly that. Which is it?</p>
          <v-btn
            v-for="one in said.places"
            :key="one.place"
            variant="tonal"
            min-height="48"
            class="text-none"
            @click="typed([...lines], one.place)"
            >{{ one.part }}</v-btn
          >
        </div>
        <div v-else-if="said?.kind === 'values'" class="says">
          <p v-if="said.place !== next.place" class="warn">
            ▲ That is a display of {{ told(said) || said.vague[0]?.part }}, not the one that was asked for.
            What it says counts all the same.
          </p>
          <ul class="plainlist">
            <li v-for="value in said.values" :key="value.address">
              <span class="quiet">{{ value.field }}: </span><strong>{{ value.words }}</strong>
            </li>
            <li v-for="value in said.vague" :key="value.address">
              <span class="quiet">{{ value.field }}: </span>◇ {{ value.words }}, or nothing: the first of the
              list stands here too where nothing is stored
            </li>
          </ul>
          <v-btn color="primary" min-height="56" class="text-none" :disabled="working" @click="stands(said)"
            >It stands there so</v-btn
          >
        </div>
      </div>
      <div class="row">
        <v-btn variant="text" min-height="48" class="text-none" :disabled="working" @click="pass"
          >Pass over this display</v-btn
        >
        <v-btn variant="text" min-height="48" class="text-none" :disabled="working" @click="soFar"
          >What was read so far</v-btn
        >
      </div>
    </template>
  </section>
</template>

<style scoped>
.off {
  max-width: 560px;
  margin: 0 auto;
}
.off.wide {
  max-width: 1000px;
}
.bar {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
h2 {
  margin: 12px 0 4px;
  font-size: 1.125rem;
}
h3 {
  margin: 18px 0 4px;
  font-size: 1rem;
}
.label {
  margin-top: 12px;
}
.press {
  padding: 6px 0;
}
.press :deep(.keys),
.press :deep(kbd) {
  font-size: 1.25rem;
  line-height: 1.9;
}
.acts,
.says {
  display: grid;
  gap: 10px;
  margin: 14px 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.limit {
  max-width: 360px;
}
.take {
  padding: 4px 18px 14px;
}
.plainlist {
  margin: 6px 0;
  padding: 0;
  list-style: none;
}
.part table {
  width: 100%;
  table-layout: fixed;
}
.warn {
  font-weight: 600;
  color: rgb(var(--v-theme-warning));
}
</style>
