<script setup lang="ts">
import { useNow } from '@vueuse/core'
import { v4 as uuid } from 'uuid'
import { computed } from 'vue'
import { leftWords, listeningOf, listensFor, listensUntil, toldRecord } from '#core'
import { useJob } from '../../store/job-store.ts'
import type { Enrolling } from './useEnrol.ts'

/** The panel told to learn: where it is told, how long it then listens, and for what, for whatever is sent meanwhile is taken for that. */
const props = defineProps<{ enrol: Enrolling }>()
const job = useJob()
const { target, targets } = props.enrol
const now = useNow({ interval: 1_000 })
const how = computed(() =>
  target.value ? listeningOf({ doc: job.doc, catalogue: job.catalogue }, target.value) : null,
)
const told = computed(() => listensFor(job.doc, now.value.toISOString()))
/** The clock of the page ticks once a second: it may not have reached the press yet. */
const left = computed(() => {
  if (!told.value) return ''
  const from = new Date(Math.max(now.value.getTime(), Date.parse(told.value.at))).toISOString()
  return leftWords(from, listensUntil(told.value))
})
const isMine = computed(() => told.value?.subject === target.value?.id)
/** What it listens for instead, and who told it. */
const instead = computed(() => {
  if (!told.value || isMine.value) return ''
  const name = targets.value.find(({ id }) => id === told.value?.subject)?.name ?? 'something else'
  const by = told.value.made.id === job.me.id ? '' : `, told by ${told.value.made.name}`
  return `${name}${by}`
})
const times = (needs: number): string => (needs === 1 ? 'once' : needs === 2 ? 'twice' : `${needs} times`)

function tell(): void {
  if (!target.value || !how.value) return
  const record = toldRecord(job.doc, {
    ...{ id: `told:${uuid()}`, target: target.value, seconds: how.value.seconds },
    ...{ who: job.me, at: new Date().toISOString() },
  })
  job.edit('enrol.told', [{ op: 'add', record }])
}
</script>

<template>
  <section v-if="how && target" class="listens" aria-label="The panel listens">
    <p v-if="instead !== ''" class="warn" role="status">
      ▲ The panel listens for {{ instead }}, {{ left }} more. What is tripped now is taken for that one.
    </p>
    <div class="row">
      <p v-if="isMine" role="status">
        ◷ The panel listens for {{ target.name }}:
        <strong role="timer" aria-live="off">{{ left }}</strong> more. Make it send {{ times(how.needs) }}.
      </p>
      <p v-else>
        At the panel, where it shows <code>{{ how.shows }}</code>: <kbd>{{ how.key }}</kbd>. It listens
        {{ how.seconds }} s and must hear the device {{ times(how.needs) }}.
      </p>
      <v-btn variant="tonal" height="48" class="text-none" @click="tell">{{
        isMine ? 'It listens anew' : 'It listens now'
      }}</v-btn>
    </div>
  </section>
</template>

<style scoped>
.listens {
  border-left: 3px solid rgba(var(--v-theme-on-surface), 0.3);
  padding: 2px 0 2px 12px;
}
p {
  margin: 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
}
.row p {
  flex: 1 1 260px;
}
code,
kbd {
  font-family: var(--mono);
  font-size: 0.9375em;
}
code {
  white-space: nowrap;
  padding: 1px 5px;
  background: rgba(var(--v-theme-on-surface), 0.08);
  border-radius: 3px;
}
kbd {
  padding: 0 6px;
  border: 1px solid rgba(var(--v-theme-on-surface), 0.35);
  border-bottom-width: 2px;
  border-radius: 5px;
}
.warn {
  font-weight: 600;
  color: rgb(var(--v-theme-warning));
}
</style>
