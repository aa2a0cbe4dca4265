<script setup lang="ts">
import { offeredShortcuts } from './useShortcuts.ts'

const open = defineModel<boolean>({ required: true })
const groups = offeredShortcuts()
</script>

<template>
  <v-dialog v-model="open" max-width="620" scrollable>
    <v-card aria-label="Keys">
      <v-card-title>Keys</v-card-title>
      <v-card-text>
        <section v-for="group in groups" :key="group.name">
          <h3>{{ group.name }}</h3>
          <dl>
            <div v-for="item in group.shortcuts" :key="item.keys">
              <dt>
                <kbd>{{ item.keys }}</kbd>
              </dt>
              <dd>{{ item.title }}</dd>
            </div>
          </dl>
        </section>
      </v-card-text>
      <v-card-actions><v-btn class="text-none" @click="open = false">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
dl {
  margin: 4px 0 14px;
}
dl div {
  display: grid;
  grid-template-columns: 130px 1fr;
  padding: 2px 0;
}
dd {
  margin: 0;
}
kbd {
  font-family: var(--mono);
  padding: 1px 7px;
  border: 1px solid rgba(var(--v-theme-on-surface), 0.35);
  border-bottom-width: 2px;
  border-radius: 4px;
}
</style>
