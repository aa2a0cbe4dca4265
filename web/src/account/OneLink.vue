<script setup lang="ts">
import { onMounted, reactive, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { LinkAnswer } from '#core'
import { api } from '../line/api.ts'
import { useSession } from '../line/session.ts'
import { useFaults } from './useFaults.ts'

/* The page behind a link that works once: the first set-up, an invitation, or a new password. */

const route = useRoute()
const router = useRouter()
const session = useSession()
const { error, faults, busy, run } = useFaults()
const token = route.hash.slice(1)
const link = ref<LinkAnswer | null>(null)
const form = reactive({ firm: '', name: '', login: '', password: '' })

const titles = { 'set-up': 'Set up your firm', invite: 'Welcome', password: 'Choose a new password' }
const paths = { 'set-up': '/api/setup', invite: '/api/link/invite', password: '/api/link/password' }

onMounted(() =>
  run(async () => {
    link.value = await api<LinkAnswer>('POST', '/api/link', { token })
    form.name = link.value.kind === 'invite' ? link.value.name : ''
  }),
)

async function send(): Promise<void> {
  const kind = link.value?.kind
  if (!kind) return
  const { firm, name, login, password } = form
  const input: Record<string, string> =
    kind === 'set-up'
      ? { firm, name, login, password }
      : kind === 'invite'
        ? { name, login, password }
        : { password }
  // The token is used up: it must not stay in the history of this browser.
  if (await run(() => session.comeIn(paths[kind], { token, ...input }))) await router.replace('/jobs')
}
</script>

<template>
  <v-main>
    <form class="door sheet" @submit.prevent="send">
      <h1>{{ link ? titles[link.kind] : error ? 'This link does not work' : 'One moment' }}</h1>
      <template v-if="link">
        <p v-if="link.kind === 'set-up'" class="quiet">
          You become its owner and invite the others. The link works once.
        </p>
        <p v-else-if="link.kind === 'invite'" class="quiet">
          {{ link.firm }} invites you as {{ link.role === 'viewer' ? 'a viewer' : `an ${link.role}` }}. The
          link works once.
        </p>
        <p v-else class="quiet">
          For {{ link.name }} of {{ link.firm }}. All devices that are signed in as you are signed out.
        </p>
        <v-text-field
          v-if="link.kind === 'set-up'"
          v-model="form.firm"
          label="Name of the firm"
          :error-messages="faults.firm"
        />
        <template v-if="link.kind !== 'password'">
          <v-text-field
            v-model="form.name"
            label="Your name, as journals show it"
            :error-messages="faults.name"
            autocomplete="name"
          />
          <v-text-field
            v-model="form.login"
            label="Sign-in name, at least 3 characters"
            :error-messages="faults.login"
            autocomplete="username"
          />
        </template>
        <v-text-field
          v-model="form.password"
          label="Password, at least 10 characters"
          type="password"
          :error-messages="faults.password"
          autocomplete="new-password"
        />
      </template>
      <v-alert v-if="error" type="error" variant="tonal" density="compact" role="alert">{{ error }}</v-alert>
      <v-btn v-if="link" type="submit" color="primary" size="large" :loading="busy">
        {{ link.kind === 'set-up' ? 'Set up' : link.kind === 'invite' ? 'Come in' : 'Use this password' }}
      </v-btn>
      <v-btn v-else-if="error" to="/sign-in" variant="tonal" class="text-none">To sign-in</v-btn>
    </form>
  </v-main>
</template>

<style scoped>
.door {
  max-width: 460px;
  margin: 6vh auto 0;
  padding: 32px;
  display: grid;
  gap: 16px;
}
</style>
