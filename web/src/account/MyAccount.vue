<script setup lang="ts">
import { onMounted, reactive, ref } from 'vue'
import type { SessionsAnswer } from '#core'
import { api } from '../line/api.ts'
import { useSession } from '../line/session.ts'
import { deviceWords } from './device-words.ts'
import { dayTime } from './when.ts'
import { useFaults } from './useFaults.ts'
import { vStack } from '../shared/stack.ts'

const session = useSession()
const { error, faults, busy, run } = useFaults()
const sessions = ref<SessionsAnswer['sessions']>([])
const form = reactive({ old: '', password: '' })
const said = ref('')

onMounted(() =>
  run(async () => {
    sessions.value = (await api<SessionsAnswer>('GET', '/api/sessions')).sessions
  }),
)

async function end(id: string): Promise<void> {
  await run(async () => {
    sessions.value = (await api<SessionsAnswer>('DELETE', `/api/sessions/${id}`)).sessions
  })
}

async function change(): Promise<void> {
  said.value = ''
  const done = await run(async () => {
    await api('PUT', '/api/password', form)
    sessions.value = (await api<SessionsAnswer>('GET', '/api/sessions')).sessions
  })
  if (!done) return
  Object.assign(form, { old: '', password: '' })
  said.value = 'The password is changed. Your other devices are signed out.'
}
</script>

<template>
  <v-main>
    <div class="page">
      <div class="page-head">
        <h1>Your account</h1>
        <span class="quiet"
          >{{ session.person?.name }}, sign-in name <span class="id">{{ session.person?.login }}</span>,
          {{ session.person?.role }} of {{ session.person?.firm }}</span
        >
      </div>
      <v-alert v-if="error" type="error" variant="tonal" density="compact" class="mb-4" role="alert">{{
        error
      }}</v-alert>
      <div class="sheet pa-4 mb-6">
        <div class="head">
          <h2>Where you are signed in</h2>
          <v-btn
            v-if="sessions.length > 1"
            variant="tonal"
            size="small"
            class="text-none"
            @click="end('others')"
            >Sign out everywhere else</v-btn
          >
        </div>
        <table v-stack class="plain">
          <thead>
            <tr>
              <th>Device</th>
              <th>Signed in</th>
              <th>Last used</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in sessions" :key="one.id">
              <td>{{ deviceWords(one.device) }}<strong v-if="one.here"> · this one</strong></td>
              <td>{{ dayTime(one.createdAt) }}</td>
              <td>{{ one.usedAt ? dayTime(one.usedAt) : '–' }}</td>
              <td class="num">
                <v-btn v-if="!one.here" size="small" variant="text" class="text-none" @click="end(one.id)"
                  >Sign out</v-btn
                >
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <h2>Change your password</h2>
      <form class="changing" @submit.prevent="change">
        <v-text-field
          v-model="form.old"
          label="Password now"
          type="password"
          autocomplete="current-password"
          :error-messages="faults.old"
        />
        <v-text-field
          v-model="form.password"
          label="New password"
          hint="at least 10 characters"
          persistent-hint
          type="password"
          autocomplete="new-password"
          :error-messages="faults.password"
        />
        <v-btn
          type="submit"
          color="primary"
          size="large"
          class="text-none"
          :loading="busy"
          :disabled="!form.old || !form.password"
          >Change it</v-btn
        >
      </form>
      <p v-if="said" role="status" class="mt-2">{{ said }}</p>
      <p class="quiet mt-2">Forgotten it? An owner of the firm makes you a link under “People”.</p>
    </div>
  </v-main>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 6px;
}
.changing {
  margin-top: 12px;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 12px;
  align-items: start;
  max-width: 820px;
}
</style>
