<script setup lang="ts">
import { computed, ref } from 'vue'
import type { DescribedKind } from '#core'
import { api } from '../line/api.ts'
import { useSession } from '../line/session.ts'

/** What a first job needs of the catalogue, in the order in which each needs the one before. */
const emit = defineEmits<{ begin: [kind: DescribedKind] }>()
const session = useSession()
const trouble = ref('')
const busy = ref(false)
/** As many devices as a first job has at least. */
const FIRST_DEVICES = 3
const offered = computed(() => session.offered({ practice: false }))
const isEmpty = computed(() => session.catalogue?.entries.length === 0)
const steps = computed(() =>
  (
    [
      {
        kind: 'family',
        title: 'A radio family',
        why: 'how its devices speak, and what their stickers say',
        most: 1,
      },
      { kind: 'receiver', title: 'A receiver that hears it', why: 'built in or apart', most: 1 },
      {
        kind: 'panel',
        title: 'Your panel with this receiver',
        why: 'its numbers, types, times and names',
        most: 1,
      },
      {
        kind: 'device',
        title: 'Your first three devices',
        why: 'a contact, a motion, a keypad: what each job has',
        most: FIRST_DEVICES,
      },
    ] as const
  ).map((step) => ({ ...step, count: offered.value.all(step.kind).length })),
)
const next = computed(() => steps.value.find(({ count, most }) => count < most)?.kind)
const isOver = computed(() => next.value === undefined)

async function practise(): Promise<void> {
  busy.value = true
  trouble.value = ''
  try {
    await api('POST', '/api/catalogue/world', {})
    await session.reloadCatalogue()
  } catch (thrown) {
    trouble.value = (thrown as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <section v-if="!isOver" class="sheet pa-5 mb-4" aria-label="What a first job needs">
    <h2>What a first job needs</h2>
    <p class="quiet">
      Real work begins when your own equipment is here. Each is described from its leaflet, question by
      question; a pack from a colleague firm saves you that.
    </p>
    <ol>
      <li v-for="step in steps" :key="step.kind">
        <span class="state" aria-hidden="true">{{ step.count >= step.most ? '✓' : '○' }}</span>
        <span>
          <strong>{{ step.title }}</strong>
          <span class="quiet says">
            {{ step.why
            }}{{ step.most > 1 || step.count > 0 ? `: ${step.count} of ${step.most} there` : '' }}</span
          >
        </span>
        <v-btn
          v-if="step.count < step.most"
          :variant="step.kind === next ? 'flat' : 'text'"
          :color="step.kind === next ? 'primary' : undefined"
          :aria-label="`Describe: ${step.title}`"
          @click="emit('begin', step.kind)"
          >Describe it</v-btn
        >
      </li>
    </ol>
    <p v-if="isEmpty && session.may('catalogue')" class="practice">
      To look around first, take in an invented world: its panels and devices are offered in practice jobs
      only.
      <v-btn variant="tonal" :loading="busy" @click="practise">Take in the invented world</v-btn>
    </p>
    <p v-if="trouble" class="text-error" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  padding: 0;
  margin: 12px 0;
  display: grid;
  gap: 4px;
  max-width: 720px;
}
li {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) auto;
  align-items: center;
  min-height: 48px;
}
.says {
  display: block;
}
.practice {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  margin: 0;
}
</style>
