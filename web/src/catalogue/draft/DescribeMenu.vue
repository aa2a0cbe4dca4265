<script setup lang="ts">
import { mdiPlus } from '@mdi/js'
import type { DescribedKind } from '#core'

const emit = defineEmits<{ begin: [kind: DescribedKind]; list: [] }>()
const kinds = [
  { kind: 'panel', title: 'A panel', says: 'its numbers, types, times, names, and how it is keyed' },
  {
    kind: 'interface',
    title: 'How a panel is keyed',
    says: 'told at the panel: each key, and what it then shows',
  },
  { kind: 'device', title: 'A device', says: 'contact, motion, smoke, fob, keypad, siren…' },
  { kind: 'receiver', title: 'A receiver or bridge', says: 'what it hears and holds' },
  {
    kind: 'family',
    title: 'A radio family',
    says: 'how its devices speak, and what their stickers look like',
  },
] as const
</script>

<template>
  <v-menu>
    <template #activator="{ props: menu }">
      <v-btn v-bind="menu" color="primary" variant="flat" :prepend-icon="mdiPlus">Describe a new one</v-btn>
    </template>
    <v-list>
      <v-list-item
        v-for="one in kinds"
        :key="one.kind"
        :title="one.title"
        :subtitle="one.says"
        @click="emit('begin', one.kind)"
      />
      <v-divider />
      <v-list-item
        title="Devices from a spreadsheet"
        subtitle="many at once, a row each; the catalogue’s own as a list"
        @click="emit('list')"
      />
    </v-list>
  </v-menu>
</template>
