<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { ApiError } from '../app/api.ts'
import { useSession } from '../app/session.ts'

const route = useRoute()
const router = useRouter()
const session = useSession()
const form = reactive({ firm: '', name: '', login: '', password: '' })
const error = ref('')
const faults = ref<Record<string, string>>({})
const token = computed(() => (typeof route.query.token === 'string' ? route.query.token : ''))

async function send(): Promise<void> {
  error.value = ''
  faults.value = {}
  try {
    await session.setUp({ token: token.value, ...form })
    await router.push('/jobs')
  } catch (thrown) {
    error.value = (thrown as Error).message
    if (thrown instanceof ApiError)
      faults.value = Object.fromEntries(thrown.problems.map((p) => [p.path, p.message]))
  }
}
</script>

<template>
  <v-main>
    <form class="door sheet" @submit.prevent="send">
      <h1>Set up your firm</h1>
      <p class="quiet">You become its owner. The others get their accounts from you.</p>
      <v-text-field v-model="form.firm" label="Name of the firm" :error-messages="faults.firm" autofocus />
      <v-text-field v-model="form.name" label="Your name" :error-messages="faults.name" autocomplete="name" />
      <v-text-field
        v-model="form.login"
        label="Sign-in name"
        :error-messages="faults.login"
        autocomplete="username"
      />
      <v-text-field
        v-model="form.password"
        label="Password, at least 10 characters"
        type="password"
        :error-messages="faults.password"
        autocomplete="new-password"
      />
      <v-alert v-if="error" type="error" variant="tonal" density="compact" role="alert">{{ error }}</v-alert>
      <v-btn type="submit" color="primary" size="large">Set up</v-btn>
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
