<script setup lang="ts">
import { computed } from 'vue'
import { openRecalls, recalledIn } from '#core'
import { useSession } from '../line/session.ts'
import { useJob } from '../store/job-store.ts'
import { useWritten } from '../shared/times.ts'

/** What of this job is recalled: each device that a recall is about, and those of which it cannot be told. */
const session = useSession()
const job = useJob()
const { day } = useWritten()

const recalls = computed(() =>
  openRecalls(session.acts).flatMap((recall) => {
    const held = recalledIn(job.doc, recall)
    if (held.length === 0) return []
    const places = (answer: 'yes' | 'unknown'): string[] =>
      held
        .filter((one) => one.answer === answer)
        .map(({ room, position, serial }) =>
          [[room, position].filter(Boolean).join(', ') || 'no room yet', serial].filter(Boolean).join(' · '),
        )
    return [
      {
        recall,
        name: session.catalogue?.nameOf(recall.entryId),
        sure: places('yes'),
        open: places('unknown'),
      },
    ]
  }),
)

function counted(sure: number, open: number): string {
  const here = sure > 0 ? [`${sure} ${sure === 1 ? 'device' : 'devices'} here`] : []
  return [...here, ...(open > 0 ? [`${open} to be looked at`] : [])].join(', and ')
}
</script>

<template>
  <section v-if="recalls.length > 0" class="strip" aria-label="Recalls">
    <details v-for="{ recall, name, sure, open } in recalls" :key="recall.id" class="recall">
      <summary>
        <strong>▲ {{ name }} is recalled: {{ counted(sure.length, open.length) }}</strong>
      </summary>
      <p>
        {{ recall.why }} <span class="quiet">({{ recall.by }}, {{ day(recall.at) }})</span>
      </p>
      <ul>
        <li v-for="place in sure" :key="`sure ${place}`">{{ place }}</li>
        <li v-for="place in open" :key="`open ${place}`">
          {{ place }} — its ID or year of make is not known: read them off the device
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.strip {
  padding: 6px 24px;
  background: rgba(var(--v-theme-warning), 0.14);
}
.recall + .recall {
  margin-top: 4px;
}
summary {
  cursor: pointer;
  min-height: 24px;
}
ul {
  padding-left: 20px;
}
@media (max-width: 600px) {
  .strip {
    padding: 4px 12px;
  }
}
@media print {
  .strip {
    display: none;
  }
}
</style>
