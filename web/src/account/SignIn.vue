<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api } from '../line/api.ts'
import { useSession } from '../line/session.ts'

const session = useSession()
const router = useRouter()
const route = useRoute()
const login = ref('')
const password = ref('')
const error = ref('')
const busy = ref(false)
const empty = ref(false)

/** The name is asked first. Focused as the page stands: focused later it would take what is typed as the password meanwhile. */
const first = ref<{ focus: () => void } | null>(null)

onMounted(async () => {
  first.value?.focus()
  empty.value = (await api<{ needed: boolean }>('GET', '/api/setup')).needed
})

async function enter(): Promise<void> {
  busy.value = true
  error.value = ''
  try {
    await session.signIn(login.value, password.value)
    const then =
      typeof route.query.then === 'string' && route.query.then.startsWith('/') ? route.query.then : '/jobs'
    await router.push(then)
  } catch (thrown) {
    error.value = (thrown as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <v-main>
    <form class="door sheet" @submit.prevent="enter">
      <h1>Sign in</h1>
      <p class="quiet">
        From survey to hand-over: devices, zones, sheets and proof of one premises in one place.
      </p>
      <v-alert v-if="empty" type="info" variant="tonal" density="compact">
        Nobody has an account here yet. Open the set-up link that the start command printed.
      </v-alert>
      <v-text-field ref="first" v-model="login" label="Sign-in name" autocomplete="username" />
      <v-text-field v-model="password" label="Password" type="password" autocomplete="current-password" />
      <v-alert v-if="error" type="error" variant="tonal" density="compact" role="alert">{{ error }}</v-alert>
      <v-btn type="submit" color="primary" size="large" :loading="busy" :disabled="!login || !password"
        >Sign in</v-btn
      >
    </form>
  </v-main>
</template>

<style scoped>
.door {
  max-width: 420px;
  margin: 10vh auto 0;
  padding: 32px;
  display: grid;
  gap: 16px;
}
</style>
