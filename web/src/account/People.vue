<script setup lang="ts">
import { onMounted, reactive, ref } from 'vue'
import { api, ApiError } from '../app/api.ts'

interface Row {
  readonly id: string
  readonly name: string
  readonly login: string
  readonly role: string
}

const people = ref<Row[]>([])
const error = ref('')
const faults = ref<Record<string, string>>({})
const form = reactive({ name: '', login: '', role: 'installer', password: '' })

onMounted(() => run(async () => api<{ people: Row[] }>('GET', '/api/people')))

async function add(): Promise<void> {
  await run(async () => {
    const answer = await api<{ people: Row[] }>('POST', '/api/people', form)
    Object.assign(form, { name: '', login: '', password: '' })
    return answer
  })
}

async function run(work: () => Promise<{ people: Row[] }>): Promise<void> {
  error.value = ''
  faults.value = {}
  try {
    people.value = (await work()).people
  } catch (thrown) {
    error.value = (thrown as Error).message
    if (thrown instanceof ApiError)
      faults.value = Object.fromEntries(thrown.problems.map((p) => [p.path, p.message]))
  }
}
</script>

<template>
  <v-main>
    <div class="page">
      <div class="page-head"><h1>People of the firm</h1></div>
      <v-alert v-if="error" type="error" variant="tonal" density="compact" class="mb-4" role="alert">{{
        error
      }}</v-alert>
      <div class="sheet pa-4 mb-6">
        <table class="plain">
          <thead>
            <tr>
              <th>Name</th>
              <th>Sign-in name</th>
              <th>Role</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in people" :key="row.id">
              <td>{{ row.name }}</td>
              <td class="id">{{ row.login }}</td>
              <td>{{ row.role }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <h2 class="mb-3">Add a person</h2>
      <form class="adding" @submit.prevent="add">
        <v-text-field v-model="form.name" label="Name" :error-messages="faults.name" />
        <v-text-field
          v-model="form.login"
          label="Sign-in name"
          :error-messages="faults.login"
          autocomplete="off"
        />
        <v-text-field
          v-model="form.password"
          label="First password, at least 10 characters"
          type="password"
          :error-messages="faults.password"
          autocomplete="new-password"
        />
        <v-select v-model="form.role" label="Role" :items="['viewer', 'installer', 'owner']" />
        <v-btn type="submit" color="primary">Add</v-btn>
      </form>
      <p class="quiet mt-3">
        A viewer reads and exports. An installer does everything but people and firm settings.
      </p>
    </div>
  </v-main>
</template>

<style scoped>
.adding {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 12px;
  align-items: start;
}
</style>
