<script setup lang="ts" generic="C extends string">
import { computed } from 'vue'

/** What the columns of a table mean, as they were taken, to be said otherwise. */
const props = defineProps<{
  list: {
    readonly headings: readonly { readonly heading: string; readonly column: C | null }[]
    readonly unknown: readonly string[]
    readonly trouble: string | null
  }
  words: Readonly<Record<C, string>>
}>()
const emit = defineEmits<{ means: [heading: string, column: C | 'nothing'] }>()
const columns = computed(() => Object.entries(props.words) as [C, string][])
/** Unknown columns are asked about at once; the others only when somebody looks. */
const open = computed(() => props.list.unknown.length > 0 || props.list.trouble !== null)

function say(heading: string, event: Event): void {
  emit('means', heading, (event.target as HTMLSelectElement).value as C | 'nothing')
}
</script>

<template>
  <details v-if="list.headings.length > 0" :open="open" class="columns">
    <summary>
      What the columns mean{{ list.unknown.length > 0 ? `: ${list.unknown.length} not understood` : '' }}
    </summary>
    <div class="grid">
      <label v-for="item in list.headings" :key="item.heading">
        <span>{{ item.heading }}</span>
        <select :value="item.column ?? 'nothing'" @change="say(item.heading, $event)">
          <option value="nothing">passed over</option>
          <option v-for="[column, said] in columns" :key="column" :value="column">{{ said }}</option>
        </select>
      </label>
    </div>
    <p class="quiet small">What you say here is remembered for the firm’s next list.</p>
  </details>
</template>

<style scoped>
.columns {
  margin: 8px 0 12px;
}
summary {
  cursor: pointer;
  font-weight: 600;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 8px 14px;
  margin-top: 8px;
}
label {
  display: grid;
  gap: 2px;
  font-size: 0.875rem;
}
select {
  font: inherit;
  color: inherit;
  background: rgb(var(--v-theme-surface));
  border: 1px solid rgba(var(--v-theme-on-surface), 0.35);
  border-radius: 5px;
  padding: 4px 6px;
}
.small {
  font-size: 0.8125rem;
}
</style>
