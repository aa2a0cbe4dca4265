<script setup lang="ts">
/** The keys of a panel, as they lie. */
defineProps<{ rows: readonly (readonly string[])[]; quiet: readonly string[] }>()
const emit = defineEmits<{ press: [key: string] }>()
</script>

<template>
  <div class="keys-of-panel" role="group" aria-label="Keys of the panel">
    <div v-for="(row, index) in rows" :key="index" class="row">
      <v-btn
        v-for="key in row"
        :key="key"
        variant="outlined"
        height="44"
        min-width="48"
        class="key"
        :class="{ untried: quiet.includes(key) }"
        :aria-label="quiet.includes(key) ? `${key}, not tried here` : key"
        @click="emit('press', key)"
        >{{ key }}</v-btn
      >
    </div>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 6px;
}
.key {
  text-transform: none;
  font-family: var(--mono);
}
.untried {
  border-style: dashed;
}
</style>
