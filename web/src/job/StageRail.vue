<script setup lang="ts">
import { useDisplay } from 'vuetify'
import { stages } from './stages.ts'
import { useJob } from './job-store.ts'

const job = useJob()
const { mdAndUp } = useDisplay()
</script>

<template>
  <v-navigation-drawer v-if="mdAndUp" permanent width="188" color="background" :border="0" class="rail">
    <nav aria-label="Stages">
      <router-link
        v-for="stage in stages"
        :key="stage.key"
        :to="`/jobs/${job.jobId}/${stage.key}`"
        class="stage"
        active-class="on"
      >
        {{ stage.name }}
      </router-link>
    </nav>
  </v-navigation-drawer>
  <v-app-bar v-else flat height="44" color="background" order="1">
    <nav class="strip" aria-label="Stages">
      <router-link
        v-for="stage in stages"
        :key="stage.key"
        :to="`/jobs/${job.jobId}/${stage.key}`"
        class="stage"
        active-class="on"
      >
        {{ stage.name }}
      </router-link>
    </nav>
  </v-app-bar>
</template>

<style scoped>
nav {
  padding: 14px 10px;
  display: grid;
  gap: 2px;
}
.strip {
  display: flex;
  overflow-x: auto;
  padding: 0 8px;
  width: 100%;
}
.stage {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 9px 12px;
  border-radius: 8px;
  color: inherit;
  text-decoration: none;
  white-space: nowrap;
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
