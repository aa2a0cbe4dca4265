<script setup lang="ts">
import { mdiChevronDown, mdiChevronUp } from '@mdi/js'
import { computed } from 'vue'
import type { Finding } from '#core'
import { severityLook } from './severity.ts'

/** What is set, on one line with its values; all of it unfolds below. */
interface LineValue {
  /** Empty where the value says it. */
  readonly name: string
  readonly value: string
  /** What it is to be instead, where it falls short. */
  readonly short?: string
  readonly missing?: boolean
}
const props = defineProps<{
  label: string
  /** Element id of what unfolds. */
  part: string
  values: readonly LineValue[]
  /** What stands behind the values, quietly. */
  rest: string
  /** What is found about them, gravest first: the line bears its mark. */
  findings: readonly Finding[]
}>()
const open = defineModel<boolean>('open', { required: true })
const worst = computed(() => props.findings[0])
</script>

<template>
  <section class="sheet" :aria-label="label">
    <button type="button" class="line" :aria-expanded="open" :aria-controls="part" @click="open = !open">
      <span
        v-if="worst"
        class="mark"
        :style="{ color: `rgb(var(--v-theme-${severityLook[worst.severity].color}))` }"
        :title="findings.map((finding) => finding.text).join('\n')"
        ><span aria-hidden="true">{{ severityLook[worst.severity].glyph }}</span
        ><span class="sr-only">{{ severityLook[worst.severity].word }}: {{ worst.text }}</span></span
      >
      <span v-for="(item, index) in values" :key="index" class="value" :class="{ missing: item.missing }"
        >{{ item.name }} <strong>{{ item.value }}</strong><span v-if="item.short" class="short">
          needs {{ item.short }}</span
        ></span
      >
      <span class="value quiet">{{ rest }}</span>
      <span class="grow" />
      <v-icon :icon="open ? mdiChevronUp : mdiChevronDown" size="20" />
    </button>
    <div v-if="open" :id="part" class="all"><slot /></div>
  </section>
</template>

<style scoped>
.line {
  font: inherit;
  color: inherit;
  text-align: left;
  background: transparent;
  border: 0;
  border-radius: inherit;
  width: 100%;
  min-height: 38px;
  padding: 6px 14px;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 18px;
  cursor: pointer;
  font-size: 0.875rem;
}
.line:hover {
  background: rgba(var(--v-theme-primary), 0.06);
}
.value {
  white-space: nowrap;
}
.value strong {
  font-weight: 600;
  font-variant-numeric: tabular-nums;
}
.short {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}
.missing strong {
  color: rgb(var(--v-theme-error));
}
.mark {
  margin-right: -8px;
}
.grow {
  flex: 1 1 0;
}
.all {
  padding: 12px 14px 4px;
  border-top: 1px solid rgba(var(--v-theme-on-surface), 0.1);
}
@media print {
  .line :deep(.v-icon) {
    display: none;
  }
}
</style>
