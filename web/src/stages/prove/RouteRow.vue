<script setup lang="ts">
import { computed } from 'vue'
import { recordOf, type ProofStop } from '#core'
import { useJob } from '../../store/job-store.ts'
import { chipsOf, stateLook } from './words.ts'

const props = defineProps<{ entry: ProofStop; on: boolean }>()
const emit = defineEmits<{ choose: [] }>()
const job = useJob()
const label = computed(() => {
  const carrier = recordOf(job.doc, 'user', props.entry.device?.user ?? null)
  return props.entry.zones[0]?.label || [props.entry.title, carrier?.name].filter(Boolean).join(', ')
})
const chips = computed(() => chipsOf(props.entry))
</script>

<template>
  <button type="button" class="row" :class="{ on }" :aria-pressed="on" @click="emit('choose')">
    <span class="who">
      <strong>{{ label }}</strong>
      <span class="small quiet-on">
        {{ entry.name }}<template v-if="entry.model"> · {{ entry.model.name }}</template></span
      >
    </span>
    <span class="chips">
      <span
        v-for="chip in chips"
        :key="chip.kind"
        class="chip"
        :class="chip.state"
        :title="`${chip.name}: ${stateLook[chip.state].word}`"
      >
        <span aria-hidden="true">{{ stateLook[chip.state].glyph }}</span> {{ chip.text
        }}<span class="sr-only">: {{ stateLook[chip.state].word }}</span>
      </span>
    </span>
  </button>
</template>

<style scoped>
.row {
  font: inherit;
  color: inherit;
  background: transparent;
  border: 0;
  width: 100%;
  min-height: 52px;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 4px 12px;
  padding: 6px 8px;
  border-radius: 8px;
  text-align: left;
  cursor: pointer;
}
.row:hover {
  background: rgba(var(--v-theme-primary), 0.08);
}
.on {
  background: rgba(var(--v-theme-primary), 0.14);
  box-shadow: inset 4px 0 0 rgb(var(--v-theme-primary));
}
.who {
  display: grid;
}
.small {
  font-size: 0.8125rem;
}
.quiet-on {
  color: rgba(var(--v-theme-on-surface), 0.78);
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
.chip {
  font-size: 0.8125rem;
  padding: 2px 7px;
  border-radius: 6px;
  border: 1px solid rgba(var(--v-theme-on-surface), 0.25);
  white-space: nowrap;
}
.pass {
  background: rgba(var(--v-theme-success), 0.14);
  border-color: transparent;
}
.fail {
  background: rgb(var(--v-theme-error));
  color: rgb(var(--v-theme-surface));
  border-color: transparent;
}
.inconclusive,
.stale {
  border: 1px dashed rgb(var(--v-theme-warning));
}
</style>
