<script setup lang="ts">
import { computed } from 'vue'
import { expectedTrip, seenWords, type Seen } from '#core'
import { useJob } from '../../store/job-store.ts'

/** What a trip should do, and what was seen of it: one press where it did, two where it did not. */
const props = defineProps<{ zone: string; name: string; blocked?: boolean }>()
const emit = defineEmits<{ seen: [seen: Seen] }>()
const job = useJob()
const expected = computed(() => expectedTrip({ doc: job.doc, catalogue: job.catalogue }, props.zone))
const others = computed(() =>
  (Object.keys(seenWords) as Seen[]).filter((seen) => seen !== expected.value?.seen),
)
</script>

<template>
  <div v-if="expected" class="seen">
    <p><strong>Expected:</strong> {{ expected.words }}, on {{ name }}.</p>
    <div v-if="!blocked" class="acts">
      <v-btn color="success" variant="tonal" min-height="48" @click="emit('seen', expected.seen)"
        >✓ Passed: as expected</v-btn
      >
      <v-menu>
        <template #activator="{ props: menu }">
          <v-btn v-bind="menu" variant="tonal" min-height="48">Something else…</v-btn>
        </template>
        <v-list :aria-label="`What was seen of ${name}`">
          <v-list-item
            v-for="seen in others"
            :key="seen"
            :title="seen === 'unclear' ? 'It could not be told' : `Seen: ${seenWords[seen]}`"
            min-height="48"
            @click="emit('seen', seen)"
          />
        </v-list>
      </v-menu>
    </div>
  </div>
</template>

<style scoped>
.seen {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
}
.seen p {
  margin: 0;
  flex: 1 1 300px;
}
.acts {
  flex: 0 1 340px;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.acts :deep(.v-btn) {
  flex: 1 1 auto;
}
</style>
