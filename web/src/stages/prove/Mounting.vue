<script setup lang="ts">
import { computed, ref } from 'vue'
import { mountNote, mountPoints, PRESS_SECONDS, type ProofStop } from '#core'
import { useJob } from '../../store/job-store.ts'
import PressTimer from './PressTimer.vue'

/** What is seen to at the place of a device: the doubtful is asked, the rest shown; an exception is one tap. */
const props = defineProps<{ entry: ProofStop }>()
const emit = defineEmits<{ looked: [outcome: 'pass' | 'fail', note: string] }>()
const job = useJob()
const points = computed(() =>
  mountPoints({ doc: job.doc, catalogue: job.catalogue }, props.entry, job.rules.figures),
)
const asked = computed(() => points.value.filter(({ doubt }) => doubt !== ''))
const shown = computed(() => points.value.filter(({ doubt }) => doubt === ''))
const isSo = ref<ReadonlySet<string>>(new Set())
const isNot = ref<ReadonlySet<string>>(new Set())
const exceptions = computed(() => points.value.filter(({ key }) => isNot.value.has(key)))
const sticks = computed(() => points.value.some(({ key }) => key === 'dry'))
const fault = ref('')

function answer(key: string, so: boolean): void {
  const [to, from] = so ? [isSo, isNot] : [isNot, isSo]
  const next = new Set(to.value)
  if (!next.delete(key)) next.add(key)
  to.value = next
  from.value = new Set([...from.value].filter((one) => one !== key))
  fault.value = ''
}

function finish(): void {
  const not = exceptions.value.map(({ words }) => words).join(' ')
  const note = mountNote(points.value, isSo.value, not)
  if (note === null) {
    fault.value = 'Say of each question whether it is so.'
    return
  }
  emit('looked', not === '' ? 'pass' : 'fail', note)
  isSo.value = new Set()
  isNot.value = new Set()
}
</script>

<template>
  <div class="mounting">
    <ul v-if="asked.length > 0" class="points" aria-label="Asked here">
      <li v-for="point in asked" :key="point.key">
        <span class="words"
          ><strong>{{ point.words }}</strong> <span class="quiet">{{ point.doubt }}</span></span
        >
        <span class="answers" role="group" :aria-label="point.words">
          <v-btn
            :variant="isSo.has(point.key) ? 'flat' : 'outlined'"
            :color="isSo.has(point.key) ? 'success' : undefined"
            :aria-pressed="isSo.has(point.key)"
            min-height="48"
            @click="answer(point.key, true)"
            >It is so</v-btn
          >
          <v-btn
            :variant="isNot.has(point.key) ? 'flat' : 'outlined'"
            :color="isNot.has(point.key) ? 'error' : undefined"
            :aria-pressed="isNot.has(point.key)"
            min-height="48"
            @click="answer(point.key, false)"
            >It is not</v-btn
          >
        </span>
      </li>
    </ul>
    <ul class="points" aria-label="As shown">
      <li v-for="point in shown" :key="point.key">
        <span class="words">{{ point.words }}</span>
        <PressTimer v-if="point.key === 'dry' && sticks" :seconds="PRESS_SECONDS" />
        <v-btn
          :variant="isNot.has(point.key) ? 'flat' : 'text'"
          :color="isNot.has(point.key) ? 'error' : undefined"
          :aria-pressed="isNot.has(point.key)"
          :aria-label="`Not so: ${point.words}`"
          min-height="48"
          @click="answer(point.key, false)"
          >Not so</v-btn
        >
      </li>
    </ul>
    <slot />
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <v-btn
      v-if="exceptions.length === 0"
      color="success"
      variant="tonal"
      min-height="48"
      block
      @click="finish"
      >✓ Mounted as shown</v-btn
    >
    <v-btn v-else color="error" variant="tonal" min-height="48" block @click="finish"
      >■ Not as shown: {{ exceptions.length === 1 ? '1 thing' : `${exceptions.length} things` }} to
      mend</v-btn
    >
    <p class="quiet">The maker’s manual and local codes come before anything said here.</p>
  </div>
</template>

<style scoped>
.mounting {
  display: grid;
  gap: 8px;
}
.points {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 0.875rem;
}
.points li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 2px 12px;
  border-top: 1px solid rgba(var(--v-theme-on-surface), 0.08);
}
.points li:first-child {
  border-top: 0;
}
.words {
  flex: 1 1 240px;
  padding: 6px 0;
}
.answers {
  display: flex;
  gap: 8px;
  padding-bottom: 6px;
}
.mounting p {
  margin: 0;
}
.fault {
  color: rgb(var(--v-theme-error));
}
</style>
