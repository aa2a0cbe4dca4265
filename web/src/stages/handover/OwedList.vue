<script setup lang="ts">
import type { Owed } from '#core'
import FoldedLines from '../../shared/FoldedLines.vue'
import { stageName } from '../../job/stages.ts'

defineProps<{ owed: readonly Owed[] }>()
</script>

<template>
  <section class="sheet card" aria-label="Still owed">
    <h2>Still owed</h2>
    <p v-if="owed.length === 0" class="done">
      ✓ Nothing that blocks it: planned, learned and proved, as far as this page knows.
    </p>
    <ul v-else>
      <li v-for="item in owed" :key="item.key">
        <span class="mark" :class="{ blocks: item.blocks }">{{ item.blocks ? '■ blocks' : '○ open' }}</span>
        <span class="text"
          >{{ item.text
          }}<FoldedLines
            v-if="item.rest?.length"
            v-slot="{ line }"
            :lines="item.rest"
            :most="0"
            class="rest"
            >{{ line }}</FoldedLines
          ></span
        >
        <router-link v-if="item.stage !== 'handover'" :to="{ name: item.stage }" class="no-print">{{
          stageName(item.stage)
        }}</router-link>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.card {
  padding: 14px 16px;
}
ul:not(.rest) {
  list-style: none;
  padding: 0;
  margin: 6px 0 0;
}
ul:not(.rest) > li {
  display: grid;
  grid-template-columns: 76px 1fr auto;
  gap: 8px;
  padding: 6px 0;
  border-bottom: 1px solid rgba(var(--v-theme-on-surface), 0.08);
}
.mark {
  font-size: 0.8125rem;
  font-weight: 650;
  padding-top: 1px;
}
.blocks {
  color: rgb(var(--v-theme-error));
}
.done {
  color: rgb(var(--v-theme-success));
  font-weight: 600;
}
a {
  color: rgb(var(--v-theme-primary));
}
</style>
