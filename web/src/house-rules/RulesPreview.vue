<script setup lang="ts">
import FoldedLines from '../shared/FoldedLines.vue'
import type { RulesDraft } from './useRulesDraft.ts'

const props = defineProps<{ draft: RulesDraft }>()
const { outlook, trouble } = props.draft
</script>

<template>
  <section class="sheet changed" aria-label="Unsaved house rules">
    <div class="row">
      <strong>◆ Changed, not saved yet.</strong>
      <span class="grow" />
      <v-btn variant="text" class="text-none" @click="draft.reset()">Put back</v-btn>
      <v-btn v-if="!outlook" color="primary" class="text-none" @click="draft.look()"
        >See what it changes…</v-btn
      >
      <v-btn v-else color="primary" class="text-none" @click="draft.save()">Save for the firm</v-btn>
    </div>
    <p v-if="trouble" class="fault" role="alert">{{ trouble }}</p>
    <div v-if="outlook" role="status">
      <p>
        {{
          outlook.jobs.length === 0
            ? `None of ${outlook.judged} jobs gets or loses a finding.`
            : `${outlook.jobs.length} of ${outlook.judged} jobs ${outlook.jobs.length === 1 ? 'changes' : 'change'}:`
        }}
        <span v-if="outlook.more" class="quiet">Only the latest jobs were judged.</span>
      </p>
      <ul>
        <li v-for="item in outlook.jobs" :key="item.id">
          <strong>{{ item.name }}</strong>: {{ item.come.length }}
          {{ item.come.length === 1 ? 'finding comes' : 'findings come' }}, {{ item.go.length }}
          {{ item.go.length === 1 ? 'goes' : 'go' }}
          <FoldedLines
            v-slot="{ line }"
            :lines="[...item.come.map((text) => `+ ${text}`), ...item.go.map((text) => `− ${text}`)]"
            :most="10"
            class="small"
            >{{ line }}</FoldedLines
          >
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.changed {
  padding: 12px 16px;
  position: sticky;
  top: 60px;
  z-index: 2;
  max-height: 60vh;
  overflow: auto;
}
.row {
  display: flex;
  align-items: center;
  gap: 8px;
}
.grow {
  flex: 1 1 auto;
}
.fault {
  color: rgb(var(--v-theme-error));
}
ul {
  margin: 4px 0 0;
  padding-left: 18px;
}
.small {
  font-size: 0.8125rem;
}
</style>
