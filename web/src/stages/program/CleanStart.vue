<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import {
  cleanSignoff,
  cleanStartOf,
  CLEAN_REFUSED,
  CLEAN_START,
  jobInfo,
  signoffRecord,
  type CleanStep,
} from '#core'
import { useJob } from '../../store/job-store.ts'
import { useWritten } from '../../shared/times.ts'

/** The clean start of a panel that was used before: each step done at the panel, seen, and noted by one press. */
defineProps<{
  /** Whether the sheet below begins with its keys. */
  keys: boolean
}>()
const emit = defineEmits<{ begin: [] }>()
const job = useJob()
const { moment } = useWritten()
const steps = computed(() => cleanStartOf({ doc: job.doc, catalogue: job.catalogue }) ?? [])
const open = computed(() => steps.value.filter(({ state }) => state === 'open' || state === 'again'))
const next = computed(() => open.value[0]?.key ?? null)
const whole = ref(false)
const shown = computed(() => whole.value || open.value.length > 0)
const glyphs = { open: '○', done: '✓', again: '↻', refused: '▲' } as const
const done: Readonly<Record<CleanStep['key'], string>> = {
  access: 'I have a way in',
  wiped: 'It restarted as it came',
  radio: 'None is left',
  log: 'It is empty',
  grade: 'It is chosen',
}

function sign(what: string): void {
  const made = { id: `signoff:${uuid()}`, who: job.me, at: new Date().toISOString() }
  const of = { doc: job.doc, catalogue: job.catalogue }
  const record = signoffRecord(of, { rules: job.rules, what }, made)
  job.edit('panel.clean', [{ op: 'add', record }])
}

function note({ key }: CleanStep): void {
  if (key !== 'wiped') return sign(cleanSignoff(key))
  const { panel } = jobInfo(job.doc)
  if (panel === null) return
  job.edit('panel.wiped', [
    {
      op: 'add',
      record: {
        ...{ id: `held:${uuid()}`, type: 'held', ...job.fresh(), panel, how: 'wiped' },
        ...{ saved: true, section: CLEAN_START, values: [] },
      },
    },
  ])
}
</script>

<template>
  <section v-if="steps.length > 0" class="sheet clean no-print" aria-label="Clean start of the panel">
    <div class="head">
      <h2>Clean start</h2>
      <span class="quiet">
        {{
          open.length === 0
            ? 'done: the panel was used before'
            : `the panel was used before: ${open.length} of ${steps.length} steps are open`
        }}
      </span>
      <span class="grow" />
      <v-btn v-if="open.length === 0" variant="text" size="small" @click="whole = !whole">{{
        whole ? 'Fold' : 'Show'
      }}</v-btn>
    </div>
    <ol v-if="shown">
      <li v-for="step in steps" :key="step.key" :class="{ next: step.key === next }">
        <div class="what">
          <span
            ><span aria-hidden="true">{{ glyphs[step.state] }}</span> {{ step.title }}
            <span v-if="step.seen" class="quiet small">
              {{ step.seen.by }}, {{ moment(step.seen.at)
              }}{{
                step.state === 'again'
                  ? ': before it was brought back to how it came; look again'
                  : step.state === 'refused'
                    ? ': it refuses. All that is not read back is unknown: take stock of it'
                    : ''
              }}
            </span></span
          >
          <template v-if="step.key === next || whole">
            <p v-for="line in step.how" :key="line" class="small">{{ line }}</p>
            <p v-if="step.key === 'wiped' && keys" class="small">The keys stand first on the sheet below.</p>
          </template>
        </div>
        <div v-if="step.key === next" class="acts">
          <v-btn
            v-if="step.key === 'wiped' && keys"
            color="primary"
            height="48"
            class="text-none"
            @click="emit('begin')"
            >Step by step</v-btn
          >
          <v-btn variant="tonal" height="48" class="text-none" @click="note(step)">{{
            done[step.key]
          }}</v-btn>
          <v-btn
            v-if="step.key === 'wiped'"
            variant="text"
            height="48"
            class="text-none"
            @click="sign(CLEAN_REFUSED)"
            >It refuses</v-btn
          >
        </div>
      </li>
    </ol>
    <p v-if="open.length > 0" class="quiet small">
      Date, time and the change of clocks are a proof of the panel at Prove; its codes are changed before
      hand-over.
    </p>
  </section>
</template>

<style scoped>
.clean {
  padding: 12px 18px;
  margin: 0 0 14px;
  max-width: 1000px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
}
.head h2 {
  font-size: 1.0625rem;
}
.grow {
  flex: 1;
}
ol {
  margin: 6px 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
  padding: 5px 0;
}
li.next {
  border-left: 3px solid rgb(var(--v-theme-primary));
  padding-left: 12px;
}
li.next .what > span {
  font-weight: 600;
}
.what {
  flex: 1 1 340px;
}
.what p {
  margin: 2px 0 0 20px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.small {
  font-size: 0.875rem;
}
</style>
