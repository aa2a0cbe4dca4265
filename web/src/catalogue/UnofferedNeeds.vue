<script setup lang="ts">
import { computed } from 'vue'
import { unofferedNeeds, type KeptEntry } from '#core'
import { useSession } from '../line/session.ts'

/** What a real job would get through an entry though it is offered to none: seldom meant, so it is said before it counts. */
const props = defineProps<{ kept: KeptEntry }>()
const session = useSession()
const needs = computed(() =>
  session.catalogue ? unofferedNeeds(props.kept, session.catalogue, session.acts) : [],
)
const states = { practice: 'for practice only', retired: 'retired' } as const
</script>

<template>
  <div v-if="needs.length > 0" class="needs" role="note">
    <p class="text-warning">▲ A real job gets with it what it is not offered otherwise:</p>
    <ul>
      <li v-for="{ entry, state } in needs" :key="entry.id">
        <RouterLink :to="{ path: '/catalogue', query: { show: entry.id } }">{{ entry.name }}</RouterLink><span
          class="quiet"
          >, {{ states[state] }}</span
        >
      </li>
    </ul>
    <p class="quiet">Name what you work with instead, or offer that for real work, too.</p>
  </div>
</template>

<style scoped>
p {
  margin: 4px 0;
}
ul {
  margin: 4px 0;
  padding-left: 20px;
}
</style>
