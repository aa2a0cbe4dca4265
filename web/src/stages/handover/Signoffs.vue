<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed } from 'vue'
import {
  changedKeying,
  evidenceOf,
  jobInfo,
  keyedNow,
  keysSwitchedOff,
  readBackState,
  signoffRecord,
  wipedAt,
  type Signoff,
} from '#core'
import FoldedLines from '../../shared/FoldedLines.vue'
import NoteState from '../prove/NoteState.vue'
import { useSession } from '../../line/session.ts'
import { useJob } from '../../store/job-store.ts'
import { useWritten } from '../../shared/times.ts'

defineProps<{ ready: boolean }>()
const job = useJob()
const session = useSession()
/** How far the panel is read back, where its displays are described: then nobody vouches for it as a whole. */
const compared = computed(() => readBackState({ doc: job.doc, catalogue: job.catalogue }, job.rules))
const readBackDone = computed(
  () =>
    compared.value !== null &&
    compared.value.open.length + compared.value.different.length + compared.value.drawn.length === 0,
)
const items = computed(() => [
  ...(job.system?.panel?.codes ?? []).map((code) => ({
    what: `code ${code.key}`,
    title: `${code.name} changed from its default`,
    hint: 'Only that it was changed is noted, never the code.',
  })),
  ...keysSwitchedOff(job.system?.panel ?? null, jobInfo(job.doc)).map((key) => ({
    what: `consent ${key}`,
    title: `Customer consents to the ${key} being switched off`,
    hint: 'Kept with your name and the time; have it in writing.',
  })),
  ...(compared.value
    ? []
    : [
        {
          what: 'read-back',
          title: 'Panel summary compared with the plan, after save and restart',
          hint: 'Field by field; one difference stops.',
        },
      ]),
  {
    what: 'customer-shown',
    title: 'Customer shown how to set, silence and clear',
    hint: 'And how to reach the firm, and when the batteries are due.',
  },
])
const signed = computed(() => new Map(evidenceOf(job.doc, 'signoff').map((record) => [record.what, record])))
const { moment: when } = useWritten()

/** A sign-off of this name, bound to what the plan keys now. */
function fresh(what: string): Signoff {
  const made = { id: `signoff:${uuid()}`, who: job.me, at: new Date().toISOString() }
  return signoffRecord({ doc: job.doc, catalogue: job.catalogue }, { rules: job.rules, what }, made)
}

/** What is keyed otherwise since it was vouched for: then it is owed again. */
function changedSinceSigned(what: string): readonly string[] {
  const record = signed.value.get(what)
  if (record && what.startsWith('code ') && record.at < wipedAt(job.doc))
    return ['the panel was brought back to how it came, and has the maker’s codes']
  return record
    ? changedKeying(record, keyedNow({ doc: job.doc, catalogue: job.catalogue }, job.rules, what))
    : []
}

function sign(what: string): void {
  job.edit('handover.sign', [{ op: 'add', record: fresh(what) }])
}

/**
 * Handing over fixes the house rules: what the firm decides later leaves this job as it is. The server looks once more whether
 * nothing is owed, on the job as it then is.
 */
function handOver(): void {
  const signoff = fresh('handed-over')
  const fixed = {
    id: `fixed-rules:${uuid()}`,
    type: 'fixed-rules',
    ...job.fresh(),
    rules: session.houseRules,
  } as const
  const there = evidenceOf(job.doc, 'fixed-rules').length > 0
  job.edit('handover.done', [
    { op: 'add', record: signoff },
    ...(there ? [] : [{ op: 'add' as const, record: fixed }]),
  ])
}

/** Who signed it and when; what the server has not taken yet is said to wait. */
function signedWords(record: Signoff): string {
  const words = `${record.made.name}, ${when(record.at)}`
  return record.made.takenAt === null ? `○ ${words}, waiting to be sent` : `✓ ${words}`
}
</script>

<template>
  <section class="sheet card" aria-label="To vouch for">
    <h2>To vouch for</h2>
    <ul>
      <li v-for="item in items" :key="item.what">
        <span>
          {{ item.title }}
          <span class="quiet small">{{
            signed.get(item.what) ? signedWords(signed.get(item.what) as Signoff) : item.hint
          }}</span>
          <span v-if="changedSinceSigned(item.what).length > 0" class="small again"
            >↻ Owed again: keyed otherwise since:
            <FoldedLines v-slot="{ line }" :lines="changedSinceSigned(item.what)" :most="4">{{
              line
            }}</FoldedLines></span
          >
          <NoteState
            v-if="item.what === 'customer-shown'"
            :kinds="['chime-demo']"
            title="Chime on for showing it…"
          />
        </span>
        <v-btn
          v-if="!signed.has(item.what) || changedSinceSigned(item.what).length > 0"
          variant="tonal"
          class="text-none no-print"
          :aria-label="`Vouch: ${item.title}`"
          @click="sign(item.what)"
          >Vouch</v-btn
        >
      </li>
      <li v-if="compared">
        <span>
          Panel read back, value by value, and once more after it saved
          <span class="quiet small">{{
            readBackDone
              ? `✓ ${compared.wanted.length} values as planned`
              : compared.different.length > 0
                ? `■ ${compared.different.length} stand otherwise in the panel; one difference stops.`
                : compared.open.length > 0
                  ? `${compared.open.length} of ${compared.wanted.length} values are left.`
                  : `${compared.drawn.length} lines drawn at random are left.`
          }}</span>
        </span>
        <v-btn
          v-if="!readBackDone"
          variant="tonal"
          class="text-none no-print"
          :to="{ name: 'program', query: { read: '' } }"
          >Read back</v-btn
        >
      </li>
      <li>
        <span>
          System handed over to the customer
          <span class="quiet small">{{
            signed.get('handed-over')
              ? `${signedWords(signed.get('handed-over') as Signoff)}: house rules fixed`
              : ready
                ? 'Fixes the house rules for this job.'
                : 'Waits for what blocks it.'
          }}</span>
        </span>
        <v-btn
          v-if="!signed.has('handed-over')"
          color="primary"
          class="text-none no-print"
          :disabled="!ready"
          @click="handOver"
          >Hand over</v-btn
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.card {
  padding: 14px 16px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 6px 0 0;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  padding: 6px 0;
  border-bottom: 1px solid rgba(var(--v-theme-on-surface), 0.08);
}
.again {
  font-weight: 600;
}
.small {
  display: block;
  font-size: 0.8125rem;
}
</style>
