<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { LadderRung } from '#core'
import { useWritten } from '../../shared/times.ts'
import type { Enrolling } from './useEnrol.ts'
import { useLadder } from './useLadder.ts'

/** What to try when nothing of a device is heard: one thing after the other, each noted by one press. */
const props = defineProps<{ enrol: Enrolling }>()
const { ladder, shown, picked, doing, begun, waits, doIt, stillNothing } = useLadder(props.enrol)
const { time } = useWritten()
const asked = ref(false)
watch(
  () => props.enrol.target.value?.id,
  () => (asked.value = false),
)
const open = computed(() => asked.value || begun.value)

/** What is known of a rung, in a few words. */
function known({ tried, helped }: LadderRung): string {
  const times = helped === 1 ? 'once' : `${helped} times`
  return [
    ...(tried.length > 0 ? [`tried ${tried.map((at) => time(at)).join(', ')}`] : []),
    ...(helped > 0 ? [`this model was heard after it ${times}`] : []),
  ].join(' · ')
}
</script>

<template>
  <div v-if="ladder">
    <v-btn v-if="!open" variant="tonal" height="48" class="text-none" @click="asked = true"
      >Nothing is heard…</v-btn
    >
    <section v-else class="ladder" aria-label="Not heard">
      <h3>Not heard: what to try</h3>
      <ol>
        <li v-for="rung in ladder.rungs" :key="rung.rung" :class="{ shown: rung.rung === shown?.rung }">
          <button
            type="button"
            class="title"
            :aria-expanded="rung.rung === shown?.rung"
            @click="picked = rung.rung"
          >
            <span>{{ rung.spent ? '–' : '○' }} {{ rung.title }}</span>
            <span class="quiet">{{ known(rung) }}</span>
          </button>
          <div v-if="rung.rung === shown?.rung" class="how">
            <p v-for="line in rung.how" :key="line">{{ line }}</p>
            <p v-if="waits(rung)" role="timer" aria-live="off" class="wait">◷ {{ waits(rung) }} to wait</p>
            <div class="acts">
              <v-btn
                v-if="doing !== rung.rung"
                height="48"
                :color="rung.rung === ladder.next ? 'primary' : undefined"
                :variant="rung.rung === ladder.next ? 'flat' : 'tonal'"
                class="text-none"
                @click="doIt(rung)"
                >I do this now</v-btn
              >
              <template v-else>
                <v-btn
                  v-if="rung.rung !== 'type'"
                  height="48"
                  color="primary"
                  class="text-none"
                  @click="stillNothing"
                  >Still nothing</v-btn
                >
                <v-btn height="48" variant="tonal" class="text-none" @click="doIt(rung)">Once more</v-btn>
              </template>
            </div>
          </div>
        </li>
      </ol>
    </section>
  </div>
</template>

<style scoped>
.ladder {
  border: 1px solid rgba(var(--v-theme-on-surface), 0.2);
  border-radius: 6px;
  padding: 10px 12px;
}
h3 {
  font-size: 1rem;
}
ol {
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
}
.title {
  font: inherit;
  color: inherit;
  text-align: left;
  background: transparent;
  border: 0;
  width: 100%;
  min-height: 48px;
  padding: 4px 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  align-items: center;
  cursor: pointer;
}
.title:hover > :first-child {
  text-decoration: underline;
}
.title .quiet {
  font-size: 0.8125rem;
}
.shown .title > :first-child {
  font-weight: 650;
}
.how {
  padding: 0 0 10px 22px;
}
.how p {
  margin: 0 0 4px;
}
.wait {
  font-weight: 650;
  font-variant-numeric: tabular-nums;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin-top: 8px;
}
</style>
