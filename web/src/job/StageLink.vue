<script setup lang="ts">
defineProps<{ to: string; name: string; stops: number; risks: number; owed: number }>()
</script>

<template>
  <router-link :to="to" class="stage" active-class="on">
    {{ name }}
    <span v-if="stops > 0" class="mark" :title="`${stops} ${stops === 1 ? 'stop' : 'stops'}`"
      >■ {{ stops }}</span
    >
    <span v-if="risks > 0" class="mark" :title="`${risks} ${risks === 1 ? 'risk' : 'risks'}`"
      >▲ {{ risks }}</span
    >
    <span v-if="owed > 0 && stops === 0 && risks === 0" class="mark" :title="`${owed} owed`"
      >○ {{ owed }}</span
    >
  </router-link>
</template>

<style scoped>
.stage {
  display: flex;
  align-items: center;
  gap: 5px;
  padding: 9px 10px;
  border-radius: 8px;
  color: inherit;
  text-decoration: none;
  white-space: nowrap;
}
.mark {
  font-size: 0.75rem;
  font-weight: 600;
}
/* What is counted stands at the end, however much it is. */
.mark:first-of-type {
  margin-left: auto;
}
.stage:hover {
  background: rgba(var(--v-theme-primary), 0.08);
}
.stage.on {
  background: rgb(var(--v-theme-primary));
  color: rgb(var(--v-theme-surface));
  font-weight: 650;
}
</style>
