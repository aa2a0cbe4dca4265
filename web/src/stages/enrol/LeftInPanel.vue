<script setup lang="ts">
import { v4 as uuid } from 'uuid'
import { computed } from 'vue'
import { deletedRecord, groupId, jobInfo, leftInPanel, printNumber, type LeftInPanel } from '#core'
import { useJob } from '../../store/job-store.ts'
import { useWritten } from '../../shared/times.ts'

/** What the panel still knows of before: deleted there first, each noted by one press. */
const job = useJob()
const { moment } = useWritten()
const left = computed(() => leftInPanel(job.doc, job.catalogue))

function nameOf({ evidence }: LeftInPanel): string {
  return [job.catalogue.nameOf(evidence.of?.model ?? null), evidence.of?.room].filter(Boolean).join(' in ')
}
function placeOf({ place }: LeftInPanel): string {
  return 'number' in place ? `Zone ${printNumber(job.system?.panel ?? null, place.number)}` : place.slot
}
function idOf({ evidence }: LeftInPanel): string {
  const model = job.catalogue.get('device', evidence.of?.model ?? null)
  return groupId(job.catalogue.get('family', model?.family ?? null), evidence.serial)
}

function deleted(item: LeftInPanel): void {
  const record = deletedRecord(item, {
    id: `heard:${uuid()}`,
    who: job.me,
    at: new Date().toISOString(),
    source: jobInfo(job.doc).practice ? 'practice' : 'display',
  })
  job.edit('enrol.deleted', [{ op: 'add', record }])
}
</script>

<template>
  <section v-if="left.length > 0" class="sheet left" aria-label="Delete at the panel first">
    <h2>■ Delete at the panel first</h2>
    <p class="quiet">
      The plan has these no more where they were learned. Until the panel forgets them they show as lost, and
      no panel takes one ID twice. Take their batteries out.
    </p>
    <ul>
      <li v-for="item in left" :key="item.evidence.id">
        <span>
          <strong>{{ placeOf(item) }}: {{ idOf(item) }}</strong>
          <span class="quiet small">{{ nameOf(item) }}, learned {{ moment(item.evidence.at) }}</span>
        </span>
        <v-btn
          variant="tonal"
          min-height="48"
          :aria-label="`It is deleted there: ${placeOf(item)}, ${idOf(item)}`"
          @click="deleted(item)"
          >It is deleted there</v-btn
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.left {
  padding: 12px 16px;
  margin-bottom: 12px;
  border-left: 4px solid rgb(var(--v-theme-error));
}
.left p {
  margin: 4px 0 8px;
  font-size: 0.875rem;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 6px 12px;
}
li > span {
  display: grid;
}
.small {
  font-size: 0.8125rem;
}
</style>
