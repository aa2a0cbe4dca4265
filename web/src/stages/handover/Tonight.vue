<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import { blankSignoff, LEFT_TONIGHT, leftTonight, tonightBlocked, tonightOf } from '#core'
import { useJob } from '../../store/job-store.ts'
import { useWritten } from '../../shared/times.ts'

/** Leaving with work undone: what protects tonight, what does not, and what the customer must know. Never called handed over. */
const job = useJob()
const { moment } = useWritten()
const open = ref(false)
const tonight = computed(() => tonightOf({ doc: job.doc, catalogue: job.catalogue }, job.rules))
const blocked = computed(() => tonightBlocked(tonight.value))
const left = computed(() => leftTonight(job.doc))
const note = ref('')
const life = computed(() =>
  [...tonight.value.not, ...tonight.value.unproved].filter(({ lifeSafety }) => lifeSafety),
)
const lists = computed(() =>
  [
    { title: '✓ Protects: seen to alarm as it now is', zones: tonight.value.protects },
    { title: '○ May protect: in the panel, its alarm not seen', zones: tonight.value.unproved },
    { title: '■ Does not protect', zones: tonight.value.not },
  ].filter(({ zones }) => zones.length > 0),
)
const walks = computed(() =>
  [
    { title: 'Set away, nothing sees these walks', lines: tonight.value.blind.away },
    { title: 'Set stay, with people asleep, nothing sees these walks', lines: tonight.value.blind.stay },
  ].filter(({ lines }) => lines.length > 0),
)

function leave(): void {
  const { protects, unproved, not } = tonight.value
  const counts = `${protects.length} protect, ${unproved.length} may, ${not.length} do not.`
  const record = {
    ...blankSignoff,
    ...job.fresh(),
    id: `signoff:${uuid()}`,
    what: LEFT_TONIGHT,
    note: [counts, note.value.trim()].filter(Boolean).join(' '),
  }
  if (!job.edit('handover.tonight', [{ op: 'add', record }])) return
  note.value = ''
  open.value = false
}

function print(): void {
  window.print()
}
</script>

<template>
  <section class="sheet tonight" aria-label="Leave for tonight">
    <div class="head">
      <h2>Leave for tonight</h2>
      <span v-if="left" class="quiet">{{ left.who }} left {{ moment(left.at) }}; it is not handed over.</span>
      <span v-else class="quiet">Parts or daylight lack? Say what protects until you are back.</span>
      <span class="grow" />
      <v-btn variant="tonal" class="no-print" :aria-expanded="open" @click="open = !open">{{
        open ? 'Close' : 'What holds tonight…'
      }}</v-btn>
    </div>
    <template v-if="open">
      <p v-if="life.length > 0" class="caution">
        ⚠ Fire and gas: {{ life.map(({ name }) => name).join(', ') }}. If people sleep here tonight, see that
        working alarms of another kind are there, as the fire code asks, before you leave.
      </p>
      <template v-for="{ title, zones } in lists" :key="title">
        <h3>{{ title }} ({{ zones.length }})</h3>
        <ul>
          <li v-for="zone in zones" :key="zone.zone">
            {{ zone.name }}<template v-if="zone.why !== ''">: {{ zone.why }}</template>
          </li>
        </ul>
      </template>
      <template v-for="{ title, lines } in walks" :key="title">
        <h3>{{ title }}</h3>
        <ul>
          <li v-for="line in lines" :key="line">{{ line }}</li>
        </ul>
      </template>
      <p v-if="!tonight.described" class="quiet">
        Which walks nothing sees is not known: nobody has described the ways into this house on Survey.
      </p>
      <h3>For next time</h3>
      <ul>
        <li v-for="item in job.owed" :key="item.key">{{ item.text }}</li>
      </ul>
      <p v-if="blocked" class="blocked" role="note">■ {{ blocked }}</p>
      <template v-else>
        <p>
          Tell the customer what does not protect, and how to set, silence and clear what does. Leave them a
          number to call.
        </p>
        <div class="acts no-print">
          <v-text-field v-model="note" label="Who was told, and when you are back" maxlength="400" />
          <v-btn variant="text" @click="print">Print this page</v-btn>
          <v-btn color="primary" min-height="48" @click="leave"
            >The customer knows; I leave for tonight</v-btn
          >
        </div>
      </template>
    </template>
  </section>
</template>

<style scoped>
.tonight {
  padding: 14px 16px;
  margin-bottom: 16px;
}
.head,
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
}
.grow {
  flex: 1;
}
.acts :deep(.v-text-field) {
  flex: 1 1 260px;
}
h3 {
  margin: 12px 0 2px;
  font-size: 0.9375rem;
}
ul {
  margin: 0;
  padding-left: 20px;
  font-size: 0.9375rem;
}
.tonight p {
  margin: 10px 0;
}
.caution {
  padding: 6px 10px;
  border-left: 4px solid rgb(var(--v-theme-warning));
  background: rgba(var(--v-theme-warning), 0.1);
}
.blocked {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}
</style>
