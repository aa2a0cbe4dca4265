<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import type { ServiceAnswer } from '#core'
import { api } from '../line/api.ts'
import { inMB, serviceTroubles } from './service-words.ts'
import { dayTime } from './when.ts'
import { useFaults } from './useFaults.ts'
import { vStack } from '../shared/stack.ts'

const { error, run } = useFaults()
const service = ref<ServiceAnswer | null>(null)
const troubles = computed(() => (service.value ? serviceTroubles(service.value) : []))

onMounted(() =>
  run(async () => {
    service.value = await api<ServiceAnswer>('GET', '/api/service')
  }),
)
</script>

<template>
  <v-main>
    <div class="page">
      <div class="page-head"><h1>Service</h1></div>
      <v-alert v-if="error" type="error" variant="tonal" density="compact" class="mb-4" role="alert">{{
        error
      }}</v-alert>
      <template v-if="service">
        <v-alert
          v-for="trouble in troubles"
          :key="trouble"
          type="warning"
          variant="tonal"
          density="compact"
          class="mb-3"
          role="alert"
          >{{ trouble }}</v-alert
        >
        <div class="sheet pa-4 mb-6">
          <dl class="facts">
            <div>
              <dt>Running since</dt>
              <dd>{{ dayTime(service.since) }}</dd>
            </div>
            <div>
              <dt>Build</dt>
              <dd class="id">{{ service.build }}</dd>
            </div>
            <div>
              <dt>Room on the disk</dt>
              <dd>{{ service.free === null ? 'not known' : inMB(service.free) }}</dd>
            </div>
          </dl>
        </div>
        <h2 class="mb-2">Backups</h2>
        <p v-if="service.backups.folder" class="quiet">
          One a day in <span class="id">{{ service.backups.folder }}</span> on this machine: the last of 7
          days, 4 weeks and 12 months are kept. Copy them to another machine now and then; a disk that dies
          takes its backups along.
        </p>
        <p v-else class="quiet">None are made here: this server was started without a data folder.</p>
        <div class="sheet pa-4">
          <table v-stack class="plain">
            <thead>
              <tr>
                <th>Made</th>
                <th>File</th>
                <th class="num">Size</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="backup in service.backups.kept" :key="backup.name">
                <td>{{ dayTime(backup.madeAt) }}</td>
                <td class="id">{{ backup.name }}</td>
                <td class="num">{{ inMB(backup.bytes) }}</td>
              </tr>
              <tr v-if="service.backups.kept.length === 0">
                <td colspan="3" class="quiet">
                  None yet: the first is made within ten minutes of the start.
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </div>
  </v-main>
</template>
